"""What lies behind a lining: what was found there, what the wall is made of, and how far to keep from services."""

from __future__ import annotations

from typing import Literal

from wobble.core.value import Coordinate, Key, Moment, Name, NotNegative, Positive, Value

Method = Literal["scanner", "magnet", "knock", "trial hole", "nail seen"]
Sees = Literal["centre", "left edge", "right edge", "screw", "hit", "miss"]
Species = Literal["spruce-pine-fir", "hem-fir", "douglas fir", "southern pine", "oak", "plywood"]
BackingKind = Literal["wood studs", "metal studs", "masonry", "lath and plaster", "ribs and battens"]


class Detection(Value, frozen=True, kw_only=True):
    """Something found behind the lining, at (along, up), by one method; a hole that bit or missed is one too."""

    id: Key
    at: tuple[Coordinate, Coordinate]
    method: Method
    sees: Sees = "centre"
    taken_at: Moment
    taken_by: Name = ""


class Backing(Value, frozen=True, kw_only=True):
    """What a wall is made of: its lining, and the studs behind it, as wide and deep as they are, mm.

    `clear_mm` is how far holes keep from outlets and from the lines straight up, down and sideways of them.
    """

    kind: BackingKind = "wood studs"
    lining_mm: NotNegative = 12.5
    stud_mm: Positive = 45.0
    deep_mm: Positive = 90.0
    wood: Species = "spruce-pine-fir"
    clear_mm: Positive = 50.0
