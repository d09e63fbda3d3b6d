"""Usual sizes of pieces, in whole millimetres or whole and half inches, whichever the user reads."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job import (
    Board,
    Boarding,
    Body,
    Cell,
    Door,
    Drawers,
    Framing,
    Front,
    HangingWall,
    Hung,
    Insides,
    Moulding,
    OnPieces,
    OnShims,
    Place,
    Shelved,
    Standing,
    ToeKickBox,
    TrimSet,
    Unit,
)
from wobble.core.job.unit import BODIES, UnitKind
from wobble.core.length import MM_PER_INCH, LengthUnit

NAMES: dict[UnitKind, str] = {
    "base": "Cabinet",
    "drawers": "Drawers",
    "tall": "Tall cupboard",
    "wall": "Wall unit",
    "bench": "Seat",
    "shelves": "Shelves",
    "shelf": "Shelf",
    "top": "Top",
    "panel": "End panel",
    "face frame": "Face frame",
    "base frame": "Base frame",
    "rack": "Rack",
    "platform": "Platform",
    "boarding": "Boards",
    "trim": "Trim",
    "moulding": "Moulding",
    "batten wall": "Battens",
    "peg wall": "Pegs",
    "cushion": "Cushion",
    "stored": "Thing stored",
}
"""What a piece of each kind is called until it has a name."""


def pick(lengths: LengthUnit, mm: float, inches: float) -> float:
    """Return a usual length, mm: the one of those that the user reads in."""
    return mm if lengths == "mm" else inches * MM_PER_INCH


SIZES: dict[UnitKind, tuple[tuple[float, float, float], tuple[float, float, float]]] = {
    "base": ((600, 560, 820), (24, 22, 32)),
    "drawers": ((600, 560, 820), (24, 22, 32)),
    "tall": ((600, 560, 2100), (24, 22, 84)),
    "wall": ((800, 330, 640), (32, 13, 25)),
    "bench": ((1200, 480, 430), (48, 19, 17)),
    "shelves": ((900, 300, 1800), (36, 12, 72)),
    "shelf": ((900, 280, 22), (36, 11, 1)),
    "top": ((1800, 600, 40), (72, 24, 1.5)),
    "panel": ((18, 580, 860), (0.5, 23, 34)),
    "face frame": ((600, 20, 860), (24, 1, 34)),
    "base frame": ((1200, 480, 90), (48, 19, 3.5)),
    "rack": ((1500, 600, 70), (60, 24, 3)),
    "platform": ((2000, 1000, 300), (78, 39, 12)),
    "boarding": ((2000, 15, 1100), (78, 0.5, 44)),
    "trim": ((2000, 12, 1100), (78, 0.5, 44)),
    "moulding": ((2000, 15, 70), (78, 0.5, 3)),
    "batten wall": ((1800, 18, 1200), (72, 1, 48)),
    "peg wall": ((1800, 18, 900), (72, 1, 36)),
    "cushion": ((1200, 460, 60), (48, 18, 2.5)),
    "stored": ((400, 300, 250), (16, 12, 10)),
}
"""Usual width, depth and height of a piece of each kind: whole millimetres, and whole and half inches."""
OVER_MM: dict[UnitKind, tuple[float, float]] = {
    "wall": (1400, 55),
    "shelf": (1200, 47),
    "top": (820, 32),
    "rack": (2000, 79),
    "batten wall": (900, 35),
    "peg wall": (900, 35),
}
"""How high over what the run stands on a piece of a kind usually begins."""
BODY: dict[str, Body] = {
    "framing": Framing(),
    "boarding": Boarding(),
    "trim": TrimSet(),
    "moulding": Moulding(),
    "hanging wall": HangingWall(),
}


def insides_of(kind: UnitKind) -> Insides | None:
    """Return what a carcass of a kind usually has in it."""
    match kind:
        case "base" | "wall":
            return Insides(cell=Cell(fill=Shelved(count=1), door=Door(hangs="pair")))
        case "drawers":
            return Insides(cell=Cell(fill=Drawers(count=3)))
        case "tall":
            return Insides(cell=Cell(fill=Shelved(count=4), door=Door(hangs="pair")))
        case "shelves":
            return Insides(cell=Cell(fill=Shelved(count=4)))
        case "bench":
            return Insides(cell=Cell())
        case _:
            return None


def usual(kind: UnitKind, id_: str, place: Place, lengths: LengthUnit, units: tuple[Unit, ...] = ()) -> Unit:
    """Return a usual piece of a kind, where there is room for it at the right of those of its height.

    Args:
        kind: What it is.
        id_: Its id.
        place: Where it stands; it is made no larger.
        lengths: The units that the user reads.
        units: What stands there already.
    """
    mm, inches = SIZES[kind]
    wide, deep, high = (pick(lengths, a, b) for a, b in zip(mm, inches, strict=True))
    over = pick(lengths, *OVER_MM.get(kind, (0.0, 0.0)))
    level = [u.right_mm for u in units if abs(u.over_base_mm - over) < 1.0 and u.kind != "panel"]
    x = max(level, default=0.0)
    if x + wide > place.width_mm:
        x = max(place.width_mm - wide, 0.0)
    standing: Standing = OnShims()
    if over:
        standing = Hung()
    if kind in ("cushion", "stored") and units:
        standing = OnPieces(pieces=(units[-1].id,))
        x = units[-1].x_mm
    if kind in ("base", "drawers", "tall"):
        standing = ToeKickBox(height_mm=pick(lengths, 100, 4))
    flat = kind in ("top", "shelf")
    body = BODIES.get(kind)
    unit = Unit(
        id=id_,
        name=f"{id_} {NAMES[kind]}",
        kind=kind,
        x_mm=x,
        width_mm=min(wide, place.width_mm),
        depth_mm=min(deep, place.depth_mm),
        height_mm=min(high, place.height_mm),
        over_base_mm=over,
        toe_recess_mm=pick(lengths, 60, 2.5) if kind in ("base", "drawers", "tall") else 0.0,
        fixing_heights_mm=fixing_heights(kind, high, lengths),
        standing=standing,
        board=Board() if flat or kind in ("shelves", "wall", "tall", "base") else None,
        insides=insides_of(kind),
        front=front_of(kind),
        body=None if body is None else BODY[body],
    )
    if kind == "moulding":
        return _from_wall_to_wall(unit, place, units)
    return replace(unit, ready_made=False) if flat or kind in ("panel", "face frame") else unit


def _from_wall_to_wall(unit: Unit, place: Place, units: tuple[Unit, ...]) -> Unit:
    """Return a moulding as it usually runs: over all that is there, from wall to wall."""
    top = max((u.over_base_mm + u.height_mm for u in units), default=0.0)
    return replace(
        unit,
        x_mm=0.0,
        width_mm=place.width_mm,
        over_base_mm=max(min(top, place.height_mm - unit.height_mm), 0.0),
        meets=tuple(end for end in ("left", "right") if end in place.surfaces),
    )


def front_of(kind: UnitKind) -> Front:
    """Return what usually moves at the front of a piece of a kind."""
    match kind:
        case "drawers":
            return Front(opens="drawers")
        case "base" | "wall" | "tall":
            return Front(opens="pair of doors")
        case _:
            return Front()


def fixing_heights(kind: UnitKind, high: float, lengths: LengthUnit) -> tuple[float, ...]:
    """Return where a piece of a kind is usually fixed to the back, over its underside, mm."""
    under = pick(lengths, 60, 2.5)
    match kind:
        case "base" | "drawers" | "bench" | "panel" | "wall":
            return (max(high - under, high / 2),)
        case "tall" | "shelves":
            return (high / 2, max(high - under, high / 2 + 1.0))
        case "moulding":
            return (high / 2,)
        case "boarding" | "trim" | "batten wall" | "peg wall":
            return (min(under, high / 2), max(high - under, high / 2))
        case "rack":
            return (high / 2,)
        case _:
            return ()
