"""Places in few words, for what is set out: a wall of 2400 with what is put there."""

from __future__ import annotations

from typing import Any

import msgspec
import numpy as np
from msgspec.structs import replace

from tests.catalogue import offset
from tests.rooms import SIDE, sides
from wobble.core.job import (
    SURFACE_AXES,
    Cell,
    Construction,
    Edge,
    Insides,
    Instrument,
    Job,
    LinedUp,
    Offset,
    OnShims,
    Place,
    Rule,
    SetUp,
    Unit,
    surface_extent,
)
from wobble.core.job.rules import PLACE
from wobble.core.setout.laid import LaidOut, LaidUnit
from wobble.core.stages import find_place, set_out, solve_setout

EXACT = Instrument(id="exact", name="Exact", sigma_mm=0.01)


def piece(id_: str, x: float = 0.0, wide: float = 600.0, **more: Any) -> Unit:
    """Return a unit 500 deep and 720 high that stands on shims, with some things changed."""
    given: dict[str, Any] = {
        "name": id_,
        "depth_mm": 500.0,
        "height_mm": 720.0,
        "standing": OnShims(),
        "toe_recess_mm": 0.0,
    } | more
    return Unit(id=id_, x_mm=x, width_mm=wide, **given)


def place_of(*units: Unit, **more: Any) -> Place:
    """Return an alcove of 2400 by 600 by 2300 that nobody has measured, with some things changed."""
    given: dict[str, Any] = {
        "width_mm": 2400.0,
        "depth_mm": 600.0,
        "height_mm": 2300.0,
        "surfaces": ("floor", "back", "left", "right"),
    }
    return Place(id="p", name="P", kind="alcove", units=units, **(given | more))


def measured(*units: Unit, left: float = 0.0, right: float = 2400.0, **more: Any) -> Place:
    """Return the alcove with both side walls read exactly: plumb, square, at these places along."""
    return place_of(*units, set_ups=(SIDE,), facts=sides(left, right), **more)


def job_of(place: Place, *ways: Construction, **more: Any) -> Job:
    """Return a job with one place."""
    return Job(name="J", places=(place,), instruments=(EXACT,), constructions=ways, **more)


def laid(place: Place, *ways: Construction, **more: Any) -> LaidOut:
    """Return what a place comes to, set out."""
    out = solve_setout(job_of(place, *ways, **more), "p")
    assert msgspec.json.decode(msgspec.json.encode(out), type=LaidOut) == out
    return out


def laid_unit(out: LaidOut, id_: str) -> LaidUnit:
    """Return one unit of it."""
    return next(u for u in out.units if u.unit.id == id_)


def units_of(place: Place) -> dict[str, Unit]:
    """Return units where Fit and Hold find them."""
    return {u.id: u for u in find_place(set_out(job_of(place)), "p").units}


def codes(out: LaidOut) -> set[str]:
    """Return the codes of all that is told."""
    return {f.code for f in out.findings}


def touch(id_: str, left: str, right: str) -> Rule:
    """Return the rule that a unit's left edge stands at another's right."""
    return LinedUp(id=id_, edge=Edge(of=right, edge="left"), to=Edge(of=left, edge="right"))


def to_wall(id_: str, unit: str, side: str, off: float = 0.0) -> Rule:
    """Return the rule that a unit's edge stands at its side's wall, `off` away from it."""
    edge = Edge(of=unit, edge=side)  # type: ignore[arg-type]
    to = Edge(of=PLACE, edge=side)  # type: ignore[arg-type]
    return LinedUp(id=id_, edge=edge, to=to, off_mm=off if side == "left" else -off)


def carcass(id_: str, wide: float, cell: Cell, **more: Any) -> Unit:
    """Return a unit with something said of its inside."""
    return piece(id_, 0.0, wide, insides=Insides(cell=cell), **more)


def read_somehow(place: Place, rng: np.random.Generator) -> Place:
    """Return a place with some of its surfaces read here and there, off by some millimetres."""
    wide, deep, high = place.width_mm, place.depth_mm, place.height_mm
    lines = {
        "x": SetUp(id="side", name="Up the middle", across="x", at_mm=wide / 2),
        "y": SetUp(id="plumb", name="Before the back", across="y", at_mm=deep + 300.0),
        "z": SetUp(id="line", name="Level line", across="z", at_mm=1000.0),
    }
    middle = {"floor": 1000.0, "ceiling": high - 1000.0, "back": deep + 300.0, "left": wide / 2, "right": wide / 2}
    facts: list[Offset] = []
    for surface in place.surfaces:
        (_, first), (_, second) = surface_extent(place, surface)
        for _ in range(int(rng.choice([0, 3, 5, 8]))):
            at = (float(rng.uniform(0, first)), float(rng.uniform(0, second)))
            line = lines[SURFACE_AXES[surface][2]]
            value = middle[surface] + float(rng.normal(0, 6.0))
            facts.append(replace(offset(f"f{len(facts)}", surface, at, value, line=line), instrument=EXACT.id))
    return replace(place, set_ups=tuple(lines.values()), facts=tuple(facts))
