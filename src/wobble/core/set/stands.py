"""A job as it stands: what was set takes the place of what was planned, and what was found otherwise is so.

What was set is followed once the user has said so. It is then where it was read to be, what follows in its run stands
at its height and beside it, and floor and walls are where they must be for it to stand as it did (`learned`).
"""

from __future__ import annotations

from collections.abc import Sequence

from msgspec.structs import replace

from wobble.core.facts import AsSet, Detection, Fact, Followed, Otherwise, active
from wobble.core.fit.level.plan import run_height
from wobble.core.fit.run.tiers import tier_of
from wobble.core.job import Backing, FixedTop, HighSpot, Instrument, Job, Place, Unit
from wobble.core.job.insides import Cell, Columns
from wobble.core.set.freedoms import Freedoms, by_unit, freedoms
from wobble.core.set.learned import INSTRUMENTS, learned

STILL_MM = 0.3
"""What moves by less is where it was."""


def as_found(job: Job) -> Job:
    """Return a job with what was found otherwise in place of what was planned by; doing so twice is once."""
    if not any(isinstance(f, Otherwise) for p in job.places for f in p.facts):
        return job
    return replace(job, places=tuple(_found(p) for p in job.places))


def _found(place: Place) -> Place:
    for fact in active(place.facts):
        if isinstance(fact, Otherwise):
            place = _otherwise(place, fact)
    return replace(place, facts=tuple(f for f in place.facts if not isinstance(f, Otherwise)))


def _otherwise(place: Place, fact: Otherwise) -> Place:
    match fact.what:
        case "no stud" | "wire or pipe" if fact.at is not None and fact.surface is not None:
            found = Detection(
                id=f"{fact.id}-found",
                taken_at=fact.taken_at,
                taken_by=fact.taken_by,
                surface=fact.surface,
                at=fact.at,
                found_by="trial hole",
                sees="miss" if fact.what == "no stud" else "something else",
            )
            return replace(place, facts=(*place.facts, found))
        case "joists the other way":
            over = place.overhead or Backing(lining_mm=12.5, deep_mm=140.0)
            other = "out" if over.runs == "along" else "along"
            return replace(place, overhead=replace(over, runs=other))
        case "no box":
            return replace(place, existing=tuple(e for e in place.existing if e.id != fact.of))
        case "other openings" if fact.count is not None:
            return replace(place, units=tuple(_opened(u, fact.count) if u.id == fact.of else u for u in place.units))
    return place


def _opened(unit: Unit, count: int) -> Unit:
    """Return a unit with another number of openings side by side: the first of them, or the last again."""
    unit = replace(unit, front=replace(unit.front, openings=count))
    if unit.insides is None:
        return unit
    fill = unit.insides.cell.fill
    cells = fill.cells if isinstance(fill, Columns) else (unit.insides.cell,)
    cells = (*cells[:count], *(cells[-1:] * (count - len(cells))))
    cell = replace(unit.insides.cell, fill=Columns(cells=cells)) if count > 1 else _alone(cells[0], unit.insides.cell)
    if count > 1 and not isinstance(fill, Columns):
        cell = Cell(fill=Columns(cells=cells))
    return replace(unit, insides=replace(unit.insides, cell=cell))


def _alone(first: Cell, around: Cell) -> Cell:
    return replace(first, size_mm=None, by_contents=False, share=1.0, door=first.door or around.door)


def followed(place: Place) -> dict[str, Freedoms]:
    """Return how units stand that the plan was to follow, by their ids."""
    facts = active(place.facts)
    named = {key for f in facts if isinstance(f, Followed) for key in f.readings}
    return stood([f for f in facts if isinstance(f, AsSet) and f.id in named])


def stood(readings: Sequence[AsSet]) -> dict[str, Freedoms]:
    """Return how units stand from what was read on them, by their ids."""
    return {unit: found for unit, own in by_unit(readings).items() if (found := freedoms(own)) is not None}


def as_set(job: Job) -> Job:
    """Return a job with all that the plan was to follow; the same job where nothing was, or it is so already."""
    places = []
    tools: list[Instrument] = []
    for place in job.places:
        standing = followed(place)
        if not standing:
            places.append(place)
            continue
        placed = _placed(place, standing)
        lines, readings = learned(place)
        tools += [t for t in INSTRUMENTS if t not in tools and any(r.instrument == t.id for r in readings)]
        known: tuple[Fact, ...] = (*(f for f in placed.facts if not isinstance(f, Followed)), *readings)
        places.append(replace(placed, set_ups=(*placed.set_ups, *lines), facts=known))
    if all(a is b for a, b in zip(places, job.places, strict=True)):
        return job
    return replace(job, places=tuple(places), instruments=(*job.instruments, *tools))


def _placed(place: Place, standing: dict[str, Freedoms]) -> Place:
    """Return a place with units where they stand, the rest of each run beside them, and its base at their height."""
    units = list(place.units)
    by_tier: dict[str, list[Unit]] = {}
    for u in sorted(units, key=lambda u: u.x_mm):
        by_tier.setdefault(tier_of(place.units, u), []).append(u)
    at: dict[str, float] = {}
    for run in by_tier.values():
        here = [u for u in run if u.id in standing]
        for u in run:
            if not here or u.flat:
                continue
            nearest = min(here, key=lambda h: abs(h.x_mm + h.width_mm / 2 - u.x_mm - u.width_mm / 2))
            f = standing[nearest.id]
            moved = f.stands.x_mm + f.dx - nearest.x_mm
            at[u.id] = max(u.x_mm + (moved if abs(moved) >= STILL_MM else 0.0), 0.0)
    units = [replace(u, x_mm=at.get(u.id, u.x_mm)) for u in units]
    placed = replace(place, units=tuple(units), rules=(), heights=())
    if at:
        placed = replace(placed, closing=replace(place.closing, split="as drawn"))
    return _at_height(placed, standing)


def _at_height(place: Place, standing: dict[str, Freedoms]) -> Place:
    """Return a place whose datum is where its first standing unit stands: the others are set to that."""
    stand = [u for u in place.units if u.id in standing and u.stands]
    if not stand:
        return place
    surest = min(stand, key=lambda u: (round(standing[u.id].dz_sd, 2), u.x_mm))
    f = standing[surest.id]
    if abs(f.dz) < STILL_MM:
        return place
    if f.stands.tied:
        top = f.stands.under_mm + f.dz - surest.over_base_mm + run_height(place.units)
        datum = place.datum
        cushion = datum.cushion_mm if isinstance(datum, FixedTop) else 0.0
        if top + cushion > 0:
            return replace(place, datum=FixedTop(top_mm=top + cushion, to="a neighbour", cushion_mm=cushion))
        return place
    if isinstance(place.datum, HighSpot):
        over = min(max(place.datum.over_mm + f.dz, -100.0), 500.0)
        return replace(place, datum=HighSpot(over_mm=over))
    return place
