"""Speed: surveys of growing size, and a turned decision, each beside a named baseline of the same run.

The baseline of a survey is what no joint adjustment can do without: one Cholesky factor with a row a reading.
"""

from __future__ import annotations

import itertools
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np
from msgspec.structs import replace

from bench.accuracy import LASER, LINES
from wobble.core.behind import Detection
from wobble.core.gauge.survey import survey
from wobble.core.job import BackLine, Bay, Closing, HighSpot, Job
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.instruments import FIRST_READING, read_offsets
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.rooms import ROOM_SIZE_MM, made_up_room
from wobble.core.practice.vestry import vestry_press
from wobble.core.solve import find_bay, solve_fit, solve_gauge, solve_hold, with_decisions

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


DEMOS = {"north": gable_workroom, "alcove": vestry_press, "galley": narrowboat_galley}


def decisions() -> list[Timing]:
    """Time turned decisions on every demo job against solving that job anew."""
    timings = []
    for bay, made in DEMOS.items():
        job = made()
        anew = median_ms(lambda job=job, bay=bay: _anew(job, bay), 5)  # type: ignore[misc]
        now = find_bay(job, bay)
        step = itertools.count(1)

        def datum(job: Job = job, bay: str = bay, step: Iterator[int] = step, now: Bay = now) -> object:
            high = HighSpot(over_mm=0.01 * next(step))
            return solve_fit(with_decisions(job, bay, high, now.back_line), bay)

        def back(job: Job = job, bay: str = bay, step: Iterator[int] = step, now: Bay = now) -> object:
            line = BackLine(turn_mm_per_m=0.01 * next(step))
            return solve_fit(with_decisions(job, bay, now.datum, line), bay)

        def sides(job: Job = job, bay: str = bay, step: Iterator[int] = step, now: Bay = now) -> object:
            closing = Closing(split="centred", centre_mm=now.width_mm / 2 + 0.5 * (next(step) % 20))
            return solve_fit(with_decisions(job, bay, now.datum, now.back_line, closing), bay)

        def tap(job: Job = job, bay: str = bay, step: Iterator[int] = step, now: Bay = now) -> object:
            hole = Detection(
                id=f"hole-{next(step)}", at=(700.0, 650.0), method="trial hole", sees="hit", taken_at=FIRST_READING
            )
            tapped = replace(now, detections=(*now.detections, hole))
            return solve_hold(replace(job, bays=tuple(tapped if b.id == bay else b for b in job.bays)), bay)

        baseline = f"{job.name} solved anew"
        turned = (("datum turned", datum), ("backs turned", back), ("sides turned", sides), ("a hole tapped", tap))
        for name, run in turned:
            timings.append(Timing(f"{bay}: {name}", median_ms(run, 15), baseline, anew))
    return timings


def _anew(job: Job, bay: str) -> None:
    from wobble.core import solve

    solve._survey.cache_clear()
    solve._ground.cache_clear()
    solve._walls.cache_clear()
    solve_gauge(job, bay)
    solve_fit(job, bay)
