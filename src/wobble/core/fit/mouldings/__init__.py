"""Mouldings that run along walls and fronts, and round corners as they really are."""
