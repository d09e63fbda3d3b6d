"""How sure is sure: the chances on which answers turn, in one place."""

from __future__ import annotations

SURE = 0.95
"""What is at least this likely is said without a word of doubt."""
SURE_TO_BITE = 0.9
"""A screw that is at least this likely to meet what holds is counted on."""
