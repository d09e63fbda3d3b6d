"""What lies behind a lining: what the wall is made of, and how far to keep from services."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.value import Name, NotNegative, Positive, Value

Species = Literal["spruce-pine-fir", "hem-fir", "douglas fir", "southern pine", "oak", "plywood"]
BackingKind = Literal["wood studs", "metal studs", "masonry", "lath and plaster", "ribs and battens"]
ServiceRule = Literal["all round", "up and down", "up, down and sideways", "also along corners and ceiling"]
Runs = Literal["not known", "along", "out"]


class Anchor(Value, frozen=True, kw_only=True):
    """An anchor for a wall without wood, with the figures of its maker: what it may be pulled and sheared with, N.

    Attributes:
        name: What it is called. pull_n: Recommended load straight out. shear_n: Sideways, at the face of the wall.
        embed_mm: How deep it sits in what holds it. drill_mm: Diameter of its hole. edge_mm: Least distance to an edge.
    """

    name: Name = "plug and screw"
    pull_n: Positive = 300.0
    shear_n: Positive = 500.0
    embed_mm: Positive = 50.0
    drill_mm: Positive = 8.0
    edge_mm: Positive = 60.0


class Backing(Value, frozen=True, kw_only=True):
    """What a wall or ceiling is made of: its lining, and the studs or joists behind it, as wide and deep as they are.

    Attributes:
        kind: What carries. lining_mm: Thickness of what is over it. stud_mm: Width of a stud. deep_mm: Its depth.
        wood: Species of the studs. steel_mm: Thickness of a metal stud's sheet. anchor: For masonry.
        runs: Which way joists run over a ceiling or under a floor: along the back, or out from it.
        clear_mm: How far holes keep from services. rule: Where wires and pipes are taken to run, by the user's region.
        deepest_mm: No hole goes deeper behind the face of the lining than this; None for no limit.
        driving_g: In a vehicle, how hard it may brake, turn or bounce, in weights of what is fixed; 0 in a house.
    """

    kind: BackingKind = "wood studs"
    lining_mm: NotNegative = 12.5
    stud_mm: Positive = 45.0
    deep_mm: Positive = 90.0
    wood: Species = "spruce-pine-fir"
    steel_mm: Annotated[float, Meta(gt=0, le=5)] = 0.6
    anchor: Anchor | None = None
    runs: Runs = "not known"
    clear_mm: Positive = 50.0
    rule: ServiceRule = "up, down and sideways"
    deepest_mm: Positive | None = None
    driving_g: Annotated[float, Meta(ge=0, le=20)] = 0.0
