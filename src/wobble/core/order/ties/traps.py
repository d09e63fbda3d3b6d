"""What traps what: the room that each step needs, and what fills it once it stands.

A screw needs its driver behind its head and a hand beside it; a connection a hand's opening; a unit its way in; a face
its brush. Whatever fills that room comes after. No list says so: boxes are laid over each other.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from wobble.core.fit.cutouts.boxes import obstacle_box
from wobble.core.job import Unit
from wobble.core.job.unit import FLAT, LAID, ON_WALLS
from wobble.core.make.construction.units import is_box
from wobble.core.order.step import Tie, WorkStep
from wobble.core.order.steps.work import FROM_BELOW, HUNG_ON, PlaceWork
from wobble.core.order.ties.room import Room, body, from_above, straight_in
from wobble.core.part import Fastener

DRIVER_MM, DRIVER_HALF_MM = 250.0, 30.0
"""A drill with its bit takes a quarter of a metre behind the head, and 60 mm around."""
HAND_MM, BRUSH_MM = 250.0, 150.0
LIFT_MM, OVER_MM, TILT_MM = 5.0, 60.0, 250.0
"""How far a unit is lifted over the floor, a thing over what it is laid on, and the end of a top between walls."""
SKIN_MM = 12.0
"""What may reach into a driver's room: a hand gives way by as much."""
BOARD_MM = 20.0


@dataclass(frozen=True)
class Need:
    """What a step needs: one of several ways, each of them room that must be free; `own` is never in its way."""

    place: str
    step: str
    what: str
    ways: tuple[tuple[Room, ...], ...]
    own: frozenset[str]
    skin_mm: float = 2.0


@dataclass(frozen=True)
class Fills:
    """What a step leaves standing: a piece by its id, and the room that it fills from then on."""

    place: str
    step: str
    piece: str
    name: str
    rooms: tuple[Room, ...]


def main_step(work: PlaceWork, unit: Unit, keys: frozenset[str]) -> str:
    """Return the step by which a unit stands; "" where there is none."""
    kinds = ("set", "top", "frame", "line", "put in")
    return next((k for kind in kinds if (k := work.key(kind, unit.id)) in keys), "")


def fillings(work: PlaceWork, steps: Sequence[WorkStep]) -> Iterator[Fills]:
    """Yield what every step leaves standing."""
    keys = frozenset(s.key for s in steps)
    for unit in work.place.units:
        if step := main_step(work, unit, keys):
            yield Fills(work.place.id, step, unit.id, unit.name, (body(unit),))
        drawers = work.key("drawers", unit.id)
        if drawers in keys:
            yield Fills(work.place.id, drawers, f"drawers-{unit.id}", f"the drawers of {unit.name}", (_inside(unit),))


def _inside(unit: Unit) -> Room:
    room = body(unit)
    return Room(
        (room.x[0] + BOARD_MM, room.x[1] - BOARD_MM),
        (room.y[0] + BOARD_MM, room.y[1]),
        (room.z[0] + BOARD_MM, room.z[1] - BOARD_MM),
    )


def needs(work: PlaceWork, steps: Sequence[WorkStep]) -> Iterator[Need]:
    """Yield what every step needs free."""
    keys = frozenset(s.key for s in steps)
    for unit in work.place.units:
        step = main_step(work, unit, keys)
        if step and unit.kind not in ON_WALLS:
            yield Need(work.place.id, step, f"the way in of {unit.name}", _ways_in(unit), frozenset({unit.id}))
        drawers = work.key("drawers", unit.id)
        if drawers in keys:
            front = _inside(unit)
            out = Room(front.x, (front.y[1], front.y[1] + (front.y[1] - front.y[0])), front.z)
            yield Need(
                work.place.id, drawers, f"drawers of {unit.name} run in from the front", ((out,),), frozenset({unit.id})
            )
        for kind, what in (("fasten", "the driver at its screws"), ("hang on", "the driver at what it rests on")):
            if (key := work.key(kind, unit.id)) in keys:
                yield from _driven(work, unit, key, kind, what)
        if (cables := work.key("cables", unit.id)) in keys:
            yield from _hands(work, unit, cables)
    for o in work.obstacles:
        key = work.key("service", o.id)
        if key in keys:
            (x, y, z) = obstacle_box(work.place, o)
            yield Need(
                work.place.id,
                key,
                f"a hand at {o.name}",
                ((_hand(x, y, (z[0] - work.base_mm, z[1] - work.base_mm)),),),
                frozenset(),
            )


def _ways_in(unit: Unit) -> tuple[tuple[Room, ...], ...]:
    room = body(unit)
    if unit.kind in LAID or unit.kind in FLAT:
        over = TILT_MM if {"left", "right"} <= set(unit.meets) else OVER_MM
        ways = (from_above(room, over),)
        return ways if over == TILT_MM else (straight_in(room, LIFT_MM), *ways)
    if not unit.stands:
        return (straight_in(room, LIFT_MM), from_above(room, OVER_MM))
    return (straight_in(room, LIFT_MM),)


def _driven(work: PlaceWork, unit: Unit, key: str, kind: str, what: str) -> Iterator[Need]:
    for f in work.fasteners_of(unit):
        if (f.part in HUNG_ON) != (kind == "hang on"):
            continue
        room = driver_room(work, unit, f)
        if room is not None:
            own = frozenset({unit.id, *f.joins} if kind == "fasten" else ())
            yield Need(
                work.place.id,
                key,
                f"{what} ({unit.name}, {f.surface or ' to '.join(f.joins)})",
                ((room,),),
                own,
                SKIN_MM,
            )


def driver_room(work: PlaceWork, unit: Unit, f: Fastener) -> Room | None:
    """Return the room behind a screw's head: within its unit where it is driven from inside."""
    half, long, base, place = DRIVER_HALF_MM, DRIVER_MM, work.base_mm, work.place
    around = body(unit)
    match f.surface:
        case "back":
            y = unit.out_mm + (BOARD_MM if is_box(unit) else 0.0)
            room = Room(_about(f.at[0], half), (y, y + long), _about(f.at[1] - base, half))
            return room.within(around) if f.part not in HUNG_ON else room
        case "left":
            return Room((BOARD_MM, BOARD_MM + long), _about(f.at[0] - work.back_mm, half), _about(f.at[1] - base, half))
        case "right":
            wide = place.width_mm - BOARD_MM
            return Room((wide - long, wide), _about(f.at[0] - work.back_mm, half), _about(f.at[1] - base, half))
        case "ceiling":
            top = place.height_mm - base - BOARD_MM
            return Room(_about(f.at[0], half), _about(f.at[1] - work.back_mm, half), (top - long, top))
        case "floor":
            return Room(
                _about(f.at[0], half), _about(f.at[1] - work.back_mm, half), (BOARD_MM, BOARD_MM + long)
            ).within(around)
    if f.part == FROM_BELOW:  # out of the box, up into what lies on it
        box = work.unit(f.unit)
        if box is None:
            return None
        x = (max(around.x[0], box.x_mm), min(around.x[1], box.right_mm))
        top = around.z[0] - BOARD_MM
        return Room((x[0] + BOARD_MM, x[1] - BOARD_MM), _about(f.at[1], half), (top - long, top))
    edge = around.x[1] - BOARD_MM
    return Room((edge - long, edge), _about(f.at[1], half), _about(f.at[0], half)).within(around)


def _about(at: float, half: float) -> tuple[float, float]:
    return (at - half, at + half)


def _hand(x: tuple[float, float], y: tuple[float, float], z: tuple[float, float]) -> Room:
    mid = ((x[0] + x[1]) / 2, (z[0] + z[1]) / 2)
    half = HAND_MM / 2
    return Room(_about(mid[0], half), (max(y[0], 0.0), max(y[0], 0.0) + HAND_MM), _about(mid[1], half))


def _hands(work: PlaceWork, unit: Unit, key: str) -> Iterator[Need]:
    """Yield a hand's room inside a unit at each hole that a cable goes through."""
    around = body(unit)
    for h in unit.holes:
        if h.kind != "cable hole":
            continue
        x = (around.x[0] + h.at[0], around.x[0] + h.at[0] + h.size[0])
        if h.inside == "top":
            y = (around.y[0] + h.at[1], around.y[0] + h.at[1] + h.size[1])
            mid = ((x[0] + x[1]) / 2, (y[0] + y[1]) / 2)
            room = Room(_about(mid[0], HAND_MM / 2), _about(mid[1], HAND_MM / 2), (around.z[1], around.z[1] + HAND_MM))
        else:
            z = (around.z[0] + h.at[1], around.z[0] + h.at[1] + h.size[1])
            room = _hand(x, (around.y[0], around.y[0]), z).within(around)
        yield Need(work.place.id, key, f"a hand at {h.name} in {unit.name}", ((room,),), frozenset({unit.id}), SKIN_MM)
    for o in work.obstacles:
        if o.surface == "back" and o.treatment == "access hole":
            ox, oy, oz = obstacle_box(work.place, o)
            spot = _hand(ox, oy, (oz[0] - work.base_mm, oz[1] - work.base_mm))
            if spot.meets(around):
                yield Need(
                    work.place.id,
                    key,
                    f"a hand at {o.name} through {unit.name}",
                    ((spot.within(around),),),
                    frozenset({unit.id}),
                    SKIN_MM,
                )


def blocked(need: Need, standing: Iterable[Fills]) -> tuple[Fills, ...]:
    """Return what leaves a step no way: empty while one of its ways is free."""
    there = [f for f in standing if f.place == need.place and f.piece not in need.own and f.step != need.step]
    in_way: list[Fills] = []
    for way in need.ways:
        stops = [f for f in there if any(a.meets(b, need.skin_mm) for a in way for b in f.rooms)]
        if not stops:
            return ()
        in_way += stops
    return tuple(dict.fromkeys(in_way))


def traps(work: PlaceWork, steps: Sequence[WorkStep]) -> tuple[Tie, ...]:
    """Return what each thing that stands would make unreachable: the steps that come before it."""
    filled = tuple(fillings(work, steps))
    found: dict[tuple[str, str], Tie] = {}
    for need in needs(work, steps):
        for f in filled:
            if blocked(need, (f,)) and need.step != f.step and (need.step, f.step) not in found:
                found[need.step, f.step] = Tie(
                    first=need.step,
                    then=f.step,
                    kind="way in" if need.what.startswith("the way in") else "trap",
                    why=f"{f.name} fills the room for {need.what}",
                    rests=False,
                )
    return tuple(found.values())
