"""What hangs under a ceiling."""
