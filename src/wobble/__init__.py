"""Wobble: fit finished work into rooms and vehicles that are out of level, plumb and square."""
