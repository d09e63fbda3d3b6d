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
from wobble.core.facts import AsSet, Detection
from wobble.core.gauge.survey import survey, survey_input
from wobble.core.job import READING_KINDS, BackLine, Closing, HighSpot, Job, Place, with_facts
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.instruments import FIRST_READING, read_offsets
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.rooms import ROOM_SIZE_MM, made_up_room
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import (
    find_place,
    forget,
    solve_fit,
    solve_gauge,
    solve_hold,
    solve_order,
    solve_proposal,
    solve_set,
    with_decisions,
)

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
    place = Place(
        id="place", name="Place", width_mm=width, depth_mm=depth, height_mm=height, set_ups=tuple(LINES.values())
    )
    half = n_readings // 2
    floor = rng.uniform((0, 0), (width, depth), (half, 2))
    back = rng.uniform((0, 0), (width, 900), (n_readings - half, 2))
    readings = (
        *read_offsets(room.surfaces["floor"], "floor", floor, LINES["floor"], LASER, seed=1),
        *read_offsets(room.surfaces["back"], "back", back, LINES["back"], LASER, seed=2),
    )
    return Job(name="", instruments=(LASER,), places=(with_facts(place, READING_KINDS, readings),))


def surveys() -> list[Timing]:
    """Time surveys: adjust, doubt, refine and adjust again."""
    timings = []
    for n in SIZES:
        job, rng = room_with(n), np.random.default_rng(n)
        square = rng.standard_normal((n, n))
        covariance = square @ square.T + n * np.eye(n)
        baseline = median_ms(lambda covariance=covariance: np.linalg.cholesky(covariance), 15)  # type: ignore[misc]
        ms = median_ms(lambda job=job: survey(survey_input(job, job.places[0])), 15 if n < 1000 else 5)  # type: ignore[misc]
        timings.append(Timing(f"survey of {n} readings", ms, f"one Cholesky of {n} × {n}", baseline))
    return timings


NOW = FIRST_READING
DEMOS = {"north": gable_workroom, "alcove": vestry_press, "galley": narrowboat_galley}


def decisions() -> list[Timing]:
    """Time turned decisions on every demo job against solving that job anew."""
    timings = []
    for place, made in DEMOS.items():
        job = made()
        anew = median_ms(lambda job=job, place=place: _anew(job, place), 5)  # type: ignore[misc]
        now = find_place(job, place)
        step = itertools.count(1)

        def datum(job: Job = job, place: str = place, step: Iterator[int] = step, now: Place = now) -> object:
            high = HighSpot(over_mm=0.01 * next(step))
            return solve_fit(with_decisions(job, place, high, now.back_line), place)

        def back(job: Job = job, place: str = place, step: Iterator[int] = step, now: Place = now) -> object:
            line = BackLine(turn_mm_per_m=0.01 * next(step))
            return solve_fit(with_decisions(job, place, now.datum, line), place)

        def sides(job: Job = job, place: str = place, step: Iterator[int] = step, now: Place = now) -> object:
            closing = Closing(split="centred", centre_mm=now.width_mm / 2 + 0.5 * (next(step) % 20))
            return solve_fit(with_decisions(job, place, now.datum, now.back_line, closing), place)

        def tap(job: Job = job, place: str = place, step: Iterator[int] = step, now: Place = now) -> object:
            hole = Detection(
                id=f"hole-{next(step)}", at=(700.0, 650.0), found_by="trial hole", sees="hit", taken_at=FIRST_READING
            )
            tapped = with_facts(now, (Detection,), (*now.detections, hole))
            return solve_hold(replace(job, places=tuple(tapped if b.id == place else b for b in job.places)), place)

        def steps(job: Job = job, step: Iterator[int] = step) -> object:
            off = (f"2030-01-{next(step) % 28 + 1:02d}",)
            return solve_order(replace(job, sessions=replace(job.sessions, off=off)), NOW)

        def proposed(job: Job = job, place: str = place, step: Iterator[int] = step) -> object:
            return solve_proposal(_stands(job, place, 1.2 + 0.001 * next(step)), place)

        baseline = f"{job.name} solved anew"
        turned: tuple[tuple[str, Callable[[], object]], ...] = (
            ("datum turned", datum),
            ("backs turned", back),
            ("sides turned", sides),
            ("a hole tapped", tap),
            ("a day off: steps", steps),
            ("as set: followed", proposed),
        )
        for name, run in turned:
            timings.append(Timing(f"{place}: {name}", median_ms(run, 15), baseline, anew))
    return timings


def _stands(job: Job, place_id: str, off_mm: float) -> Job:
    """Return a job whose first standing unit is read to stand so much higher."""
    place = find_place(job, place_id)
    check = next(c for c in solve_set(job, place_id).checks if c.kind == "height")
    fact = AsSet(
        id="stands",
        taken_at=FIRST_READING,
        check=check.key,
        value_mm=(check.expected_mm or 0.0) + off_mm,
        expected_mm=check.expected_mm,
        of=check.of,
        stands=check.stands,
    )
    placed = replace(place, facts=(*place.facts, fact))
    return replace(job, places=tuple(placed if p.id == place_id else p for p in job.places))


def _anew(job: Job, place: str) -> None:
    forget()
    solve_gauge(job, place)
    solve_fit(job, place)
