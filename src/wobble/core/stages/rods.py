"""The two rods of a place: every height, and every position along the wall, as marked on sticks to carry there."""

from __future__ import annotations

from typing import Literal

from wobble.core.axes import SurfaceName
from wobble.core.hold.result import PlaceHold
from wobble.core.job import Job, Place, Value
from wobble.core.stages.known import find_place
from wobble.core.stages.setting_out import set_out
from wobble.core.stages.solve import PlaceFit, solve_fit, solve_hold

SAME_MM = 0.5
SURE_LINE = 0.5
"""A stud that is less likely than not is no mark to screw by."""
MarkKind = Literal["place", "piece", "behind", "in the way", "rest"]


class RodMark(Value, frozen=True, kw_only=True):
    """A mark on a rod: how far from its beginning, mm, what it is of, and all that stands there."""

    at_mm: float
    kind: MarkKind
    names: tuple[str, ...]


class PlaceRod(Value, frozen=True, kw_only=True):
    """A rod: what it counts from, where it begins (below that, if anything is), how long it is, mm, and its marks."""

    rod: Literal["long", "upright"]
    counts_from: str
    from_mm: float = 0.0
    long_mm: float
    marks: tuple[RodMark, ...]


def solve_rods(job: Job, place_id: str) -> tuple[PlaceRod, PlaceRod]:
    """Return the long rod and the upright rod of a place, as Fit and Hold have all that is marked on them."""
    place = find_place(set_out(job), place_id)
    fit, hold = solve_fit(job, place_id), solve_hold(job, place_id)
    return _long(place, fit, hold), _upright(place, fit, hold)


def _long(place: Place, fit: PlaceFit, hold: PlaceHold) -> PlaceRod:
    found: list[tuple[float, MarkKind, str]] = [
        (0.0, "place", _end(place, "left")),
        (place.width_mm, "place", _end(place, "right")),
    ]
    for unit in fit.units:
        found += [
            (unit.x_mm, "piece", f"{unit.name}, left"),
            (unit.right_mm, "piece", f"{unit.name}, right"),
        ]
    found += [(line.at_mm, "behind", "Stud, middle") for line in hold.back.lines if line.chance >= SURE_LINE]
    for seen in place.obstacles:
        if seen.surface == "back":
            low, wide = seen.at[0], seen.size[0]
            found += [(low, "in the way", f"{seen.name}, left"), (low + wide, "in the way", f"{seen.name}, right")]
    return PlaceRod(rod="long", counts_from=_end(place, "left"), long_mm=place.width_mm, marks=_once(found))


def _upright(place: Place, fit: PlaceFit, hold: PlaceHold) -> PlaceRod:
    tied = fit.plan is None or fit.plan.base.tied
    base = fit.plan.base.height.value_mm if fit.plan is not None else 0.0
    zero = "the datum mark" if tied else "the floor's high spot"
    found: list[tuple[float, MarkKind, str]] = [(0.0, "place", zero[0].upper() + zero[1:])]
    for unit in fit.units:
        low = base + unit.over_base_mm
        found += [
            (low, "piece", f"{unit.name}, underside"),
            (low + unit.height_mm, "piece", f"{unit.name}, top"),
        ]
        found += [(low + high, "rest", f"{unit.name}, screws") for high in unit.fixing_heights_mm]
    found += [(ledger.top_mm, "rest", "Ledger, top") for ledger in hold.ledgers]
    for seen in place.obstacles:
        if seen.surface == "back":
            low, high = seen.at[1], seen.size[1]
            found += [(low, "in the way", f"{seen.name}, foot"), (low + high, "in the way", f"{seen.name}, top")]
    low_mm = min(at for at, _, _ in found)
    return PlaceRod(
        rod="upright",
        counts_from=zero,
        from_mm=low_mm,
        long_mm=max(at for at, _, _ in found) - low_mm,
        marks=_once(found),
    )


def _end(place: Place, side: SurfaceName) -> str:
    return f"{side.capitalize()} corner" if side in place.surfaces else f"{side.capitalize()} end of the place"


def _once(found: list[tuple[float, MarkKind, str]]) -> tuple[RodMark, ...]:
    """Return marks from the beginning; what stands at one place is one mark with all its names."""
    marks: list[RodMark] = []
    for at, kind, name in sorted(found, key=lambda one: one[0]):
        last = marks[-1] if marks else None
        if last is not None and at - last.at_mm < SAME_MM:
            names = last.names if name in last.names else (*last.names, name)
            marks[-1] = RodMark(at_mm=last.at_mm, kind=last.kind, names=names)
        else:
            marks.append(RodMark(at_mm=at, kind=kind, names=(name,)))
    return tuple(marks)
