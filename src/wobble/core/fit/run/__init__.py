"""The run: its tiers, where it touches floor and wall, and the surfaces solved there once."""
