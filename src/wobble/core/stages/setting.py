"""Set for a place: its checks, what to do now, and what would change if the plan followed what stands."""

from __future__ import annotations

from datetime import datetime

from msgspec.structs import replace

from wobble.core.facts import Followed
from wobble.core.job import Job
from wobble.core.order.steps.work import PlaceWork
from wobble.core.set.changes import Side, changes
from wobble.core.set.checks import checks
from wobble.core.set.record import Record, record
from wobble.core.set.result import PlaceSet, Proposal, place_set, proposal
from wobble.core.stages.known import find_place
from wobble.core.stages.ordering import solve_order, works_of
from wobble.core.value import EARLIEST

TRIED = "tried"


def _work(job: Job, place_id: str) -> PlaceWork:
    find_place(job, place_id)
    return next(w for w in works_of(job) if w.place.id == place_id)


def solve_set(job: Job, place_id: str) -> PlaceSet:
    """Return the checks of a place, what they came to, and what to do now.

    Raises:
        NotThere: The job has no such place.
    """
    return place_set(_work(job, place_id))


def following(job: Job, place_id: str, readings: tuple[str, ...]) -> Job:
    """Return a job whose plan follows some readings of what stands, as if the user had said so."""
    place = find_place(job, place_id)
    latest = max((f.taken_at for f in place.facts if f.id in readings), default=None)
    if latest is None or latest.year < EARLIEST:
        return job
    fact = Followed(id=TRIED, taken_at=latest, readings=readings)
    placed = replace(place, facts=(*place.facts, fact))
    return replace(job, places=tuple(placed if p.id == place_id else p for p in job.places))


def solve_proposal(job: Job, place_id: str) -> Proposal:
    """Return what would change if the plan followed all that stands and is not out.

    Raises:
        NotThere: The job has no such place.
    """
    before = _work(job, place_id)
    now = place_set(before)
    out = {a.of for a in now.advice}
    readings = tuple(dict.fromkeys(r for s in now.stands if s.unit not in out for r in s.readings))
    if not readings:
        return proposal((), ())
    after = _work(following(job, place_id, readings), place_id)
    done = frozenset(s.unit for s in now.stands)
    found = changes(_side(before), _side(after), done)
    return proposal(readings, found)


def _side(work: PlaceWork) -> Side:
    return Side(place=work.place, plan=work.plan, hold=work.hold, parts=work.parts)


def solve_record(job: Job, now: datetime) -> Record:
    """Return a job as it went, with its steps and checks by their names; `now` with its zone."""
    names = {s.step.key: s.step.name for s in solve_order(job, now).steps}
    for work in works_of(job):
        names |= {c.key: c.name for c in checks(work)}
    return record(job, names)
