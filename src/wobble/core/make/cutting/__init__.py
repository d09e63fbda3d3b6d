"""Cutting: sheets by guillotine cuts, boards by length, out of what stock there is."""
