"""A whole job at once: all stages of all places, and what is made for them together."""

from __future__ import annotations

from typing import Literal

from wobble.core.finding import Finding, in_order
from wobble.core.fit.sides.openings import profile
from wobble.core.job import Job, Value
from wobble.core.make.result import Made
from wobble.core.stages import known, making, setting_out
from wobble.core.stages.making import solve_make
from wobble.core.stages.solve import KEPT_HERE, PlaceResult, solve_place


class Result(Value, frozen=True, kw_only=True):
    """The result document: what `wobble solve` prints."""

    format: Literal["wobble-result"] = "wobble-result"
    version: Literal[2] = 2
    job: str
    places: tuple[PlaceResult, ...]
    make: Made

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What every stage of every place tells, stops first."""
        return in_order((*(f for place in self.places for f in place.findings), *self.make.findings))


def forget() -> None:
    """Forget all that is remembered between two decisions: for timing, and for tests that compare with it."""
    for remembered in (*known.KEPT, *setting_out.KEPT, *KEPT_HERE, *making.KEPT):
        remembered.clear()
    profile.cache_clear()


def solve_job(job: Job) -> Result:
    """Return the results of a whole job."""
    return Result(job=job.name, places=tuple(solve_place(job, p.id) for p in job.places), make=solve_make(job))
