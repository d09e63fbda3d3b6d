"""Edges that are cut to a surface, and which edges those are."""
