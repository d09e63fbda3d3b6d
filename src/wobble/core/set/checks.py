"""What is checked as a place is set: against what, how it is read, what may lean on it only after, and how it came."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from msgspec.structs import replace

from wobble.core.facts import AsSet, active
from wobble.core.fit.run.tiers import RESTS_MM, tier_of
from wobble.core.job import Unit
from wobble.core.job.unit import FLAT, LAID, ON_WALLS, Hung
from wobble.core.make.construction.units import is_box
from wobble.core.order.steps.after import closing
from wobble.core.order.steps.work import HUNG_ON, PlaceWork
from wobble.core.set import tolerances as t
from wobble.core.set.check import Check, CheckKind, with_readings
from wobble.core.set.planned import stands_of

DOOR_GAP_MM = 2.0
TOUCHING_MM = 5.0
PLUMBED_FROM_MM = 600.0
"""Lower than that a level across its top says as much as one down its side."""
NEAR_WALL_MM = 400.0


def checks(work: PlaceWork) -> tuple[Check, ...]:
    """Return all checks of a place in the order of setting, with what they came to."""
    found = [c for unit in work.units for c in _of_unit(work, unit)]
    found += _closings(work)
    by_check: dict[str, list[AsSet]] = {}
    for fact in active(work.place.facts):
        if isinstance(fact, AsSet):
            by_check.setdefault(fact.check, []).append(fact)
    return tuple(with_readings(c, by_check) for c in found)


def _of_unit(work: PlaceWork, unit: Unit) -> Iterator[Check]:
    if unit.kind in LAID:
        return
    if work.built(unit):
        yield _square(work, unit)
    if unit.kind in FLAT:
        yield from _flat(work, unit)
    elif unit.kind in ON_WALLS:
        yield _made(work, unit, "level-along", f"{unit.name}: its first board", "line", over=unit.width_mm)
    elif unit.kind != "face frame":
        yield from _standing(work, unit)
    yield from _fast(work, unit)
    yield from _fronts(work, unit)


def _made(
    work: PlaceWork,
    unit: Unit,
    kind: CheckKind,
    name: str,
    step: str,
    *,
    over: float = 0.0,
    expected: float | None = 0.0,
    tolerance: float | None = None,
    how: str = "",
    why: str = "",
    at: tuple[float, float] | None = None,
    tail: str = "",
    only: Literal["more", "both"] = "both",
) -> Check:
    top = unit.over_base_mm + unit.height_mm
    usual = {kind: t.level(over) - t.GUARD_MM for kind in ("level-along", "level-out")}
    limit = usual.get(kind, 0.0) if tolerance is None else tolerance
    return Check(
        key=f"{kind}/{work.place.id}/{unit.id}" + (f"/{tail}" if tail else ""),
        kind=kind,
        name=name,
        how=how or HOW.get(kind, ""),
        place=work.place.id,
        of=unit.id,
        at=at or (unit.x_mm + unit.width_mm / 2, top),
        over_mm=over,
        expected_mm=expected,
        tolerance_mm=limit,
        only=only,
        least_mm=expected - limit if expected is not None and only == "both" else None,
        most_mm=expected + limit if expected is not None else None,
        step=work.key(step, unit.id),
        why=why or WHY.get(kind, ""),
        stands=stands_of(work, unit),
    )


HOW: dict[str, str] = {
    "level-along": "The level along its top: how much higher its right end is; below zero where the left one is",
    "level-out": "The level from back to front: how much higher the front is; below zero where the back is",
    "plumb-side": "The level up its side: how far its head is to the right of its foot; below zero to the left",
    "plumb-front": "The level up its front: how far its head is out of its foot; below zero where it leans back",
    "height": "From the level line to the middle of its front, as a height over the datum mark",
    "step-left": "A straightedge over both tops at the front: how much higher the one on the right is",
    "step-right": "A straightedge over both tops at the front: how much higher the one on the right is",
    "flush": "A straightedge over both faces: the step from the left one to the right one, out is more",
    "square": "Both diagonals: the difference, without its sign",
    "slides": "From the floor of the box to both slides: left less right",
    "reveal": "The gap between the fronts at its widest, and its narrowest beside it: write the one further off",
    "gap-to-wall": "The widest gap along the scribed edge",
}
WHY: dict[str, str] = {
    "level-along": "whatever stands on it or beside it takes it over",
    "level-out": "drawers run out by themselves, doors swing",
    "plumb-side": "a filler beside it tapers as much",
    "plumb-front": "doors swing open or shut",
    "height": "all of the run is set to it",
    "step-left": "a top over both rocks, and the eye runs along them",
    "step-right": "a top over both rocks, and the eye runs along them",
    "flush": "screws pull faces together only where they were clamped",
    "square": "doors and drawers show it",
    "slides": "a drawer on slides of two heights twists",
    "bites": "one that does not holds nothing",
    "proud": "what stands proud keeps the next piece off",
    "load": "better now than with crockery on it",
    "first-fit": "sand where it touches; glue and screws come after",
}


def _square(work: PlaceWork, unit: Unit) -> Check:
    return _made(
        work,
        unit,
        "square",
        f"{unit.name}: square",
        "assemble",
        tolerance=t.SQUARE_MM,
        only="more",
        over=(unit.width_mm**2 + unit.height_mm**2) ** 0.5,
    )


def _standing(work: PlaceWork, unit: Unit) -> Iterator[Check]:
    yield _made(work, unit, "level-along", f"{unit.name}: level along", "set", over=unit.width_mm)
    yield _made(work, unit, "level-out", f"{unit.name}: level to the front", "set", over=unit.depth_mm)
    if work.plan is not None and work.plan.base.tied and (unit.stands or work.is_hung(unit)):
        top = work.base_mm + unit.over_base_mm + unit.height_mm
        yield _made(work, unit, "height", f"{unit.name}: height of its top", "set", expected=top, tolerance=t.HEIGHT_MM)
    if unit.height_mm >= PLUMBED_FROM_MM:
        over, tol = unit.height_mm, t.plumb(unit.height_mm)
        yield _made(work, unit, "plumb-side", f"{unit.name}: plumb sideways", "set", over=over, tolerance=tol)
        yield _made(work, unit, "plumb-front", f"{unit.name}: plumb in front", "set", over=over, tolerance=tol)
    yield from _beside(work, unit)
    tier = tier_of(work.place.units, unit)
    for other in work.units[: work.units.index(unit)]:  # whichever is set later is set to the other
        left, right = (other, unit) if other.x_mm < unit.x_mm else (unit, other)
        beside = is_box(unit) and is_box(other) and tier_of(work.place.units, other) == tier
        if beside and abs(left.right_mm - right.x_mm) < TOUCHING_MM:
            at = (right.x_mm, unit.over_base_mm + unit.height_mm / 2)
            tops = abs(left.over_base_mm + left.height_mm - right.over_base_mm - right.height_mm)
            if tops < RESTS_MM:
                kind: CheckKind = "step-left" if other is left else "step-right"
                name = f"{left.name} and {right.name}: tops flush"
                corner = (right.x_mm, unit.over_base_mm + unit.height_mm)
                yield _made(work, unit, kind, name, "set", tolerance=t.FLUSH_MM, at=corner, tail=other.id)
            if abs(left.out_mm + left.depth_mm - right.out_mm - right.depth_mm) < RESTS_MM:
                yield _made(
                    work,
                    unit,
                    "flush",
                    f"{left.name} and {right.name}: faces flush",
                    "set",
                    tolerance=t.FLUSH_MM,
                    at=at,
                    tail=other.id,
                )


def _beside(work: PlaceWork, unit: Unit) -> Iterator[Check]:
    """Yield the gaps of a unit that stands beside a wall, at its foot and its head."""
    sides: dict[str, tuple[float, float]] = {
        "left": (unit.x_mm, unit.x_mm),
        "right": (work.place.width_mm - unit.right_mm, unit.right_mm),
    }
    for filler in closing(work):
        side = "left" if "-left" in filler.part.id else "right" if "-right" in filler.part.id else ""
        if filler.part.role != "filler" or not side or unit.id not in filler.part.of:
            continue
        gap, x = sides[side]
        if gap > NEAR_WALL_MM:
            continue
        for label, up in (("at the foot", 0.0), ("at the head", unit.height_mm)):
            wide = next((d.figure.value_mm for d in filler.part.finished if d.label == label), None)
            end = "foot" if up == 0 else "head"
            if wide is not None:
                yield _made(
                    work,
                    unit,
                    f"beside-{side}-{end}",  # type: ignore[arg-type]
                    f"{unit.name}: gap to the {side} wall {label}",
                    "set",
                    expected=wide,
                    tolerance=t.BESIDE_MM,
                    how="A rule from its edge to the wall",
                    why="the filler is cut to it",
                    at=(x, unit.over_base_mm + up),
                )


def _flat(work: PlaceWork, unit: Unit) -> Iterator[Check]:
    yield _made(
        work,
        unit,
        "first-fit",
        f"{unit.name}: goes in dry",
        "top",
        expected=None,
        how="Laid without glue: does it go down all the way?",
    )
    if work.base_mm or (work.plan is not None and work.plan.base.tied):
        top = work.base_mm + unit.over_base_mm + unit.height_mm
        yield _made(
            work, unit, "height", f"{unit.name}: height of its face", "top", expected=top, tolerance=t.HEIGHT_MM
        )
    yield _made(work, unit, "level-along", f"{unit.name}: level along", "top", over=unit.width_mm)
    yield _made(work, unit, "level-out", f"{unit.name}: level to the front", "top", over=unit.depth_mm)
    for side in unit.meets:
        yield _made(
            work,
            unit,
            "gap-to-wall",
            f"{unit.name}: gap to the {side} {'wall' if side != 'back' else ''}".strip(),
            "top",
            tolerance=t.SCRIBED_MM,
            only="more",
            why="caulk hides no more",
            tail=side,
        )
    yield _made(
        work,
        unit,
        "load",
        f"{unit.name}: bears a hand's weight",
        "top",
        expected=None,
        how="Lean on its middle and its front edge: does anything give?",
    )


def _fast(work: PlaceWork, unit: Unit) -> Iterator[Check]:
    """Yield whether screws bit, of what is screwed itself, and of what it hangs on or rests on."""
    every = work.fasteners_of(unit) + tuple(f for f in work.hold.fasteners if f.unit == unit.id and f.part in HUNG_ON)
    own = tuple(dict.fromkeys(f for f in every if f.part not in HUNG_ON))
    rests = tuple(dict.fromkeys(f for f in every if f.part in HUNG_ON))
    middle, low, high = unit.x_mm + unit.width_mm / 2, unit.over_base_mm, unit.height_mm
    lined = unit.kind in ON_WALLS
    for some, step, tail, name in (
        (rests, "hang on", "rests", f"What {unit.name} rests on"),
        (own, "line" if lined else "fasten", "", unit.name),
    ):
        if some:
            yield _made(
                work,
                unit,
                "bites",
                f"{name}: every screw bit",
                step,
                expected=None,
                how=f"{len(some)} screws: did each pull tight?",
                at=(middle, low + high * 0.75),
                tail=tail,
            )
    if own:
        yield _made(
            work,
            unit,
            "proud",
            f"{unit.name}: no screw head proud",
            "line" if lined else "fasten",
            expected=None,
            how="A hand over every head",
            at=(middle, low + high * 0.6),
        )
    if isinstance(unit.standing, Hung) and unit.standing.by == "split batten":
        yield _made(
            work,
            unit,
            "first-fit",
            f"{unit.name}: lifts off and on",
            "set",
            expected=None,
            how="Lift it off its strip and hang it again: does it go down all the way, and stand still?",
            tail="off-and-on",
        )
    if (unit.things or unit.holds != "nothing") and (own or rests):
        yield _made(
            work,
            unit,
            "load",
            f"{unit.name}: stocked once",
            "line" if lined else "fasten" if own else "top" if unit.kind in FLAT else "set",
            expected=None,
            how="Put on all that goes there, look again the next day: do joints, gaps and screws stand as they did?",
            tail="stocked",
        )
    if (own or rests) and work.is_hung(unit) and unit.kind not in FLAT:
        yield _made(
            work,
            unit,
            "load",
            f"{unit.name}: hangs under a hand's weight",
            "line" if lined else "fasten" if own else "set",
            expected=None,
            how="Pull down at its front edge with one hand: does it give?",
        )


def _fronts(work: PlaceWork, unit: Unit) -> Iterator[Check]:
    parts = work.parts_of(unit)
    if any(p.part.role == "drawer side" for p in parts) or unit.front.opens == "drawers":
        yield _made(
            work,
            unit,
            "slides",
            f"{unit.name}: slides at equal heights",
            "drawers",
            tolerance=t.SLIDES_MM,
            at=(unit.x_mm + unit.width_mm / 2, unit.over_base_mm + unit.height_mm * 0.4),
        )
    doors = [p for p in parts if p.part.role == "door"]
    if doors or "door" in unit.front.opens:
        gap = DOOR_GAP_MM
        if unit.insides is not None and unit.insides.cell.door is not None:
            gap = unit.insides.cell.door.gap_mm
        yield _made(
            work,
            unit,
            "reveal",
            f"{unit.name}: gaps of its doors",
            "doors",
            expected=gap,
            tolerance=t.GAP_MM,
            why="gaps that are alike are seen as straight",
            at=(unit.x_mm + unit.width_mm / 2, unit.over_base_mm + unit.height_mm * 0.5),
        )


def _closings(work: PlaceWork) -> Iterator[Check]:
    for p in closing(work):
        unit = work.unit(p.part.of[0]) if p.part.of else None
        if unit is None or not p.part.cuts:
            continue
        x = (
            unit.x_mm
            if "-left" in p.part.id
            else unit.right_mm
            if "-right" in p.part.id
            else unit.x_mm + unit.width_mm / 2
        )
        found = _made(
            work,
            unit,
            "gap-to-wall",
            f"{p.part.name}: gap along the scribed edge",
            "set",
            tolerance=t.SCRIBED_MM,
            only="more",
            why="caulk hides no more",
            at=(x, unit.over_base_mm),
            tail=p.part.id,
        )
        yield replace(found, step=work.key("fill", p.part.id))
