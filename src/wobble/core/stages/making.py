"""Make for a whole job: parts of all places, laid out on one stock; layouts remembered by what they rest on."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Any, get_args

from msgspec.structs import replace

from wobble.core.facts import Bought, CutDone, Known, active
from wobble.core.job import Job, Place, Unit, Value
from wobble.core.job.workshop import Aim
from wobble.core.make.construction.said import as_said
from wobble.core.make.construction.units import place_parts
from wobble.core.make.cutting.lists import CutList
from wobble.core.make.got import as_got
from wobble.core.make.layout.laid import Layout
from wobble.core.make.layout.layouts import QUICK_S, LayoutInput, laid, tasks
from wobble.core.make.layout.pinned import pinned_sheets
from wobble.core.make.marked import MarkedPart, marked
from wobble.core.make.result import Made, made
from wobble.core.make.when.ready import can_be, known_by_key, readied
from wobble.core.part import Fastener, Part
from wobble.core.stages.known import MB, find_place
from wobble.core.stages.remember import Remembered
from wobble.core.stages.setting_out import set_out, sheet_of
from wobble.core.stages.solve import solve_fit, solve_hold

PART_BYTES = 1_000
"""What a part in a layout weighs at most, its cuts with it."""


def _weight(found: CutList) -> int:
    return PART_BYTES * (1 + sum(len(s.parts) for s in found.sheets) + sum(len(b.parts) for b in found.lengths))


_LAYOUTS = Remembered[LayoutInput, CutList](_weight, 4 * MB)
_TRADES = Remembered[LayoutInput, dict[Aim, CutList]](
    lambda found: sum(map(_weight, found.values())),
    4 * MB,
)
KEPT: tuple[Remembered[Any, Any], ...] = (_LAYOUTS, _TRADES)
"""All that is remembered here."""


def as_known(job: Job) -> Job:
    """Return a job with every unit as wide as it was measured where it stands: what waited for that is made to it."""
    return replace(job, places=tuple(_measured(place) for place in job.places))


def _measured(place: Place) -> Place:
    known = known_by_key(active(f for f in place.facts if isinstance(f, Known)))
    widths = {k.removeprefix("width-"): f.value_mm for k, f in known.items() if k.startswith("width-")}
    if not widths:
        return place
    return replace(
        place,
        units=tuple(replace(u, width_mm=widths[u.id] or u.width_mm) if u.id in widths else u for u in place.units),
    )


def parts_of(job: Job, place_id: str) -> tuple[tuple[Part, ...], tuple[Fastener, ...]]:
    """Return all parts of a place, those that wait with what they wait for, and all that is driven."""
    place = find_place(job, place_id)
    known = known_by_key(active(f for f in place.facts if isinstance(f, Known)))
    fit, hold = solve_fit(job, place_id), solve_hold(job, place_id)
    rod = sheet_of(job, place_id).rod
    sd = {u.id: rod.width[u.id].sd_mm for u in place.units if u.id in rod.width}
    placed = find_place(as_known(set_out(job)), place_id)
    built = place_parts(job, placed, sd)
    units = {u.id: u for u in placed.units if u.flat}
    # what Fit cuts to the walls has the holes and the curve of its own unit
    fitted = tuple(p for part in fit.parts for p in _as_said(part, units, job))
    return readied((*built, *fitted, *hold.parts), known, job.instruments, job.units), hold.fasteners


def _as_said(part: Part, flats: Mapping[str, Unit], job: Job) -> Iterable[Part]:
    own = [flats[u] for u in part.of if u in flats and part.role in ("top", "shelf")]
    return as_said(own[0], (part,), job.units) if own else (part,)


@dataclass(frozen=True)
class _Gathered:
    """What Make rests on of all places: parts with their marks, what is driven, what was cut and bought."""

    parts: tuple[MarkedPart, ...]
    fasteners: tuple[Fastener, ...]
    cuts: tuple[tuple[str, CutDone], ...]
    bought: tuple[Bought, ...]
    no_room: tuple[Part, ...]


def _gathered(job: Job) -> _Gathered:
    parts: list[MarkedPart] = []
    fasteners: list[Fastener] = []
    cuts: list[tuple[str, CutDone]] = []
    bought: list[Bought] = []
    no_room: list[Part] = []
    taken: dict[str, int] = {}
    for place in job.places:
        facts = active(place.facts)
        own = [f for f in facts if isinstance(f, CutDone)]
        every, driven = parts_of(job, place.id)
        no_room += [p for p in every if not can_be(p)]
        parts += marked(place.id, [p for p in every if can_be(p)], own, taken, job.units)
        fasteners += driven
        cuts += [(place.id, f) for f in own]
        bought += [f for f in facts if isinstance(f, Bought)]
    return _Gathered(tuple(as_got(job, parts)), tuple(fasteners), tuple(cuts), tuple(bought), tuple(no_room))


def _laid_out(job: Job, parts: tuple[MarkedPart, ...], seconds: float, seed: int) -> Layout:
    stay = pinned_sheets(job, parts)
    work = tasks(job, parts, stay, seconds, seed)
    return laid(job, work, [_LAYOUTS.get(task.given, task.given.cut) for task in work], parts, stay)


def solve_make(job: Job, seconds: float = QUICK_S, seed: int = 1) -> Made:
    """Return Make for a job.

    Args:
        job: Which.
        seconds: How long layouts are looked for in all, where they are not remembered.
        seed: Of that search.
    """
    found = _gathered(job)
    layout = _laid_out(job, found.parts, seconds, seed)
    return made(job, found.parts, found.fasteners, layout, found.cuts, found.bought, found.no_room)


class AimOutcome(Value, frozen=True, kw_only=True):
    """What a layout made for one aim comes to: sheets and lengths, price, metres sawn, settings of the fence."""

    aim: Aim
    sheets: int
    lengths: int
    price: float
    sawn_m: float
    settings: int


TRADE_S = 0.5
"""How long is looked when the aims are held beside each other."""


def compare_aims(job: Job) -> tuple[AimOutcome, ...]:
    """Return what a job's layout comes to for each aim, so that the trade between them is seen."""
    parts = _gathered(job).parts
    stay = pinned_sheets(job, parts)
    work = tasks(job, parts, stay, TRADE_S)
    every: tuple[Aim, ...] = get_args(Aim)
    # one search for all aims: were each looked for by itself, a slow machine could tell that an aim costs a sheet more
    cut = [_TRADES.get(task.given, partial(task.given.cut_for, every)) for task in work]
    outcomes = []
    for aim in every:
        layout = laid(job, work, [found[aim] for found in cut], parts, stay)
        outcomes.append(
            AimOutcome(
                aim=aim,
                sheets=len(layout.sheets),
                lengths=len(layout.lengths),
                price=layout.price,
                sawn_m=round(layout.sawn_m, 1),
                settings=layout.settings,
            )
        )
    return tuple(outcomes)
