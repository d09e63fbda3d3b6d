"""What flat parts are made of, and what they must carry."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.value import NotNegative, Positive, Value

MaterialName = Literal[
    "particleboard", "mdf", "plywood", "pine", "douglas fir", "red oak", "ash", "beech", "maple", "walnut", "cherry"
]


class FrontEdge(Value, frozen=True, kw_only=True):
    """A lipping under or over the front edge that stiffens: `thick_mm` along the depth, `high_mm` upright."""

    thick_mm: Positive
    high_mm: Positive


class Board(Value, frozen=True, kw_only=True):
    """What a flat part is made of, and what it must carry.

    `moisture_range_percent` is how far its moisture content moves over a year; `load_kg_per_m` lies along its length,
    evenly; `stock_mm` is the longest piece that can be bought or carried in.
    """

    material: MaterialName = "particleboard"
    moisture_range_percent: Annotated[float, Meta(ge=0, le=20)] = 4.0
    load_kg_per_m: NotNegative = 30.0
    edge: FrontEdge | None = None
    stock_mm: Positive = 4100.0
