"""A whole job at once: all stages of all places, and what is made for them together."""

from __future__ import annotations

from typing import Literal

from wobble.core.finding import Finding, in_order
from wobble.core.fit.sides.openings import profile
from wobble.core.job import Job, Value
from wobble.core.make.result import Made
from wobble.core.order.step import Tie, WorkStep
from wobble.core.set.result import PlaceSet
from wobble.core.stages import known, making, ordering, setting_out
from wobble.core.stages.making import solve_make
from wobble.core.stages.ordering import ordered_steps
from wobble.core.stages.setting import solve_set
from wobble.core.stages.solve import KEPT_HERE, PlaceResult, solve_place


class Result(Value, frozen=True, kw_only=True):
    """The result document: what `wobble solve` prints.

    `steps` are in an order that keeps all `ties`; `set` has the checks of each place.
    """

    format: Literal["wobble-result"] = "wobble-result"
    version: Literal[2] = 2
    job: str
    places: tuple[PlaceResult, ...]
    make: Made
    steps: tuple[WorkStep, ...]
    ties: tuple[Tie, ...]
    set: tuple[PlaceSet, ...]

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What every stage of every place tells, stops first."""
        placed = (f for place in self.places for f in place.findings)
        return in_order((*placed, *self.make.findings, *(f for place in self.set for f in place.findings)))


def forget() -> None:
    """Forget all that is remembered between two decisions: for timing, and for tests that compare with it."""
    for remembered in (*known.KEPT, *setting_out.KEPT, *KEPT_HERE, *making.KEPT, *ordering.KEPT):
        remembered.clear()
    profile.cache_clear()


def solve_job(job: Job) -> Result:
    """Return the results of a whole job; its steps in their order, without the hours, as those depend on today."""
    steps, ties = ordered_steps(job)
    return Result(
        job=job.name,
        places=tuple(solve_place(job, p.id) for p in job.places),
        make=solve_make(job),
        steps=steps,
        ties=ties,
        set=tuple(solve_set(job, p.id) for p in job.places),
    )
