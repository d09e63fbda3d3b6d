"""Speed: surveys of growing size, and a turned decision, each beside a named baseline of the same run.

The baseline of a survey is what no joint adjustment can do without: one Cholesky factor with a row a reading.
"""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from msgspec.structs import replace

from bench.accuracy import LASER, LINES
from wobble.core.gauge.survey import survey
from wobble.core.job import BackLine, Bay, FixedTop, HighSpot, Job
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.instruments import read_offsets
from wobble.core.practice.rooms import ROOM_SIZE_MM, made_up_room
from wobble.core.solve import solve_fit, solve_gauge, with_decisions

SIZES = (40, 200, 1000)


@dataclass(frozen=True)
class Timing:
    """Median milliseconds of something, and how many times its baseline that is."""

    what: str
    ms: float
    baseline: str
    baseline_ms: float

    @property
    def ratio(self) -> float:
        """How many baselines it takes."""
        return self.ms / self.baseline_ms


def median_ms(run: Callable[[], object], times: int) -> float:
    """Return the median of several runs after one to warm up, ms."""
    run()
    taken = []
    for _ in range(times):
        began = time.perf_counter()
        run()
        taken.append(time.perf_counter() - began)
    return float(np.median(taken)) * 1000


def room_with(n_readings: int) -> Job:
    """Return a made-up room with readings at random places, half on the floor and half on the back."""
    room, rng = made_up_room(1), np.random.default_rng(n_readings)
    width, depth, height = ROOM_SIZE_MM
    bay = Bay(id="bay", name="Bay", width_mm=width, depth_mm=depth, height_mm=height, set_ups=tuple(LINES.values()))
    half = n_readings // 2
    floor = rng.uniform((0, 0), (width, depth), (half, 2))
    back = rng.uniform((0, 0), (width, 900), (n_readings - half, 2))
    readings = (
        *read_offsets(room.surfaces["floor"], "floor", floor, LINES["floor"], LASER, seed=1),
        *read_offsets(room.surfaces["back"], "back", back, LINES["back"], LASER, seed=2),
    )
    return Job(name="", instruments=(LASER,), bays=(replace(bay, readings=readings),))


def surveys() -> list[Timing]:
    """Time surveys: adjust, doubt, refine and adjust again."""
    timings = []
    for n in SIZES:
        job, rng = room_with(n), np.random.default_rng(n)
        square = rng.standard_normal((n, n))
        covariance = square @ square.T + n * np.eye(n)
        baseline = median_ms(lambda covariance=covariance: np.linalg.cholesky(covariance), 15)  # type: ignore[misc]
        ms = median_ms(lambda job=job: survey(job, job.bays[0]), 15 if n < 1000 else 5)  # type: ignore[misc]
        timings.append(Timing(f"survey of {n} readings", ms, f"one Cholesky of {n} × {n}", baseline))
    return timings


def decisions() -> list[Timing]:
    """Time a turned decision on the demo job against solving the job anew."""
    job = gable_workroom()
    anew = median_ms(lambda: _anew(job), 7)
    heights = iter(np.arange(0.0, 100.0, 0.01))
    turns = iter(np.arange(0.0, 100.0, 0.01))

    def datum() -> object:
        return solve_fit(with_decisions(job, "north", HighSpot(over_mm=float(next(heights))), BackLine()), "north")

    def top() -> object:
        top_mm = 730 + float(next(heights))
        return solve_fit(with_decisions(job, "north", FixedTop(top_mm=top_mm), BackLine()), "north")

    def back() -> object:
        line = BackLine(turn_mm_per_m=float(next(turns)))
        return solve_fit(with_decisions(job, "north", HighSpot(), line), "north")

    what = {"the datum turned": datum, "the fixed top turned": top, "the back line turned": back}
    return [Timing(name, median_ms(run, 15), "the demo job solved anew", anew) for name, run in what.items()]


def _anew(job: Job) -> None:
    from wobble.core import solve

    solve._survey.cache_clear()
    solve._ground.cache_clear()
    solve_gauge(job, "north")
    solve_fit(job, "north")
