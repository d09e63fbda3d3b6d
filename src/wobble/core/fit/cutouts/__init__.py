"""What is done about each obstacle, and where nothing is drilled."""
