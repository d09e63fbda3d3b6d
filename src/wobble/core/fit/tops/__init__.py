"""Tops and shelves: outlines, blanks, cleats, how they sag and move."""
