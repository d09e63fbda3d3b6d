"""Studs, joists and ribs behind a lining, from what was found."""
