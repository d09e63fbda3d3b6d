"""The formats in and out: value in, bytes out, and back. May import everything else of the core."""
