"""Accuracy on made-up rooms: the survey against a fitted plane and against linear interpolation, on the same readings.

The rooms are falls, bows, humps, filler and boards, not draws from the estimator's own prior. What is compared is the
surface away from the stations, inside the measured area, where all three methods have something to say.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray
from scipy.interpolate import LinearNDInterpolator, NearestNDInterpolator

from wobble.core.gauge.stations import stations
from wobble.core.gauge.survey import Survey
from wobble.core.job import READING_KINDS, Instrument, Job, Offset, Place, SetUp, SurfaceName, with_facts
from wobble.core.practice.instruments import read_offsets
from wobble.core.practice.rooms import ROOM_SIZE_MM, Room, made_up_room
from wobble.core.stages import survey_of

Floats = NDArray[np.float64]
SURFACES: tuple[SurfaceName, ...] = ("floor", "back")
N_HELD_OUT = 60
MISREAD_MM = 10.0
LASER = Instrument(id="laser", name="Laser and rule", kind="laser line", sigma_mm=0.6)
LINES: dict[SurfaceName, SetUp] = {
    "floor": SetUp(id="line", name="Level line", across="z", at_mm=1000.0),
    "back": SetUp(id="plumb", name="Plumb line", across="y", at_mm=700.0),
}


@dataclass(frozen=True)
class Accuracy:
    """What was found over all rooms; RMS errors in mm by method, shares 0 to 1."""

    n_rooms: int
    n_readings: int
    rms_mm: dict[str, float]
    coverage: float
    found: float
    accused: float


def measured_room(room: Room, seed: int) -> Job:
    """Return a job with the proposed round of the room read by a laser and a rule."""
    width, depth, height = ROOM_SIZE_MM
    place = Place(
        id="place", name="Place", width_mm=width, depth_mm=depth, height_mm=height, set_ups=tuple(LINES.values())
    )
    round_ = stations(place)
    readings: list[Offset] = []
    for i, surface in enumerate(SURFACES):
        spots = np.asarray([s.at for s in round_ if s.surface == surface])
        readings += read_offsets(room.surfaces[surface], surface, spots, LINES[surface], LASER, seed=10 * seed + i)
    return Job(name="", instruments=(LASER,), places=(with_facts(place, READING_KINDS, tuple(readings)),))


def with_misread(job: Job, seed: int) -> tuple[Job, str]:
    """Return the job with one reading off by ten millimetres, and that reading's id."""
    rng = np.random.default_rng(seed)
    readings = list(job.places[0].readings)
    index, sign = int(rng.integers(len(readings))), float(rng.choice([-1.0, 1.0]))
    wrong = readings[index]
    if not isinstance(wrong, Offset):
        raise TypeError("the bench reads offsets only")
    readings[index] = replace(wrong, value_mm=wrong.value_mm + sign * MISREAD_MM)
    return replace(job, places=(with_facts(job.places[0], READING_KINDS, tuple(readings)),)), wrong.id


def accuracy(n_rooms: int) -> Accuracy:
    """Survey made-up rooms and compare with their truth."""
    errors: dict[str, list[Floats]] = {"survey": [], "plane": [], "interpolation": []}
    inside: list[NDArray[np.bool_]] = []
    found = accused = n_readings = 0
    for seed in range(n_rooms):
        room = made_up_room(seed)
        job = measured_room(room, seed)
        n_readings = len(job.places[0].readings)
        clean = survey_of(job, job.places[0].id)
        accused += bool(clean.suspects)
        wrong, culprit = with_misread(job, 5000 + seed)
        found += [d.reading_id for d in survey_of(wrong, wrong.places[0].id).suspects] == [culprit]
        for surface in SURFACES:
            _compare(room, clean, surface, np.random.default_rng(9000 + seed), errors, inside)
    rms = {name: float(np.sqrt(np.mean(np.concatenate(found_errors) ** 2))) for name, found_errors in errors.items()}
    return Accuracy(n_rooms, n_readings, rms, float(np.concatenate(inside).mean()), found / n_rooms, accused / n_rooms)


def _compare(
    room: Room,
    clean: Survey,
    surface: SurfaceName,
    rng: np.random.Generator,
    errors: dict[str, list[Floats]],
    inside: list[NDArray[np.bool_]],
) -> None:
    spots, values = _as_measured(clean, surface)
    held_out = rng.uniform(spots.min(axis=0), spots.max(axis=0), (N_HELD_OUT, 2))
    truth = room.surfaces[surface].at(held_out)
    mean, sd = clean.adjustment.mean_and_sd((surface, held_out))
    errors["survey"].append(mean - truth)
    errors["plane"].append(_plane(spots, values, held_out) - truth)
    errors["interpolation"].append(_interpolated(spots, values, held_out) - truth)
    inside.append(np.abs(mean - truth) <= 1.96 * sd)


def _as_measured(clean: Survey, surface: SurfaceName) -> tuple[Floats, Floats]:
    """Return the spots read on a surface and the values straight from the readings, without any adjustment."""
    readings = [r for r in clean.readings.values() if isinstance(r, Offset) and r.surface == surface]
    place = LINES[surface].at_mm or 0.0
    return np.asarray([r.at for r in readings]), np.asarray([place - r.value_mm for r in readings])


def _plane(spots: Floats, values: Floats, wanted: Floats) -> Floats:
    columns = np.column_stack([np.ones(len(spots)), spots])
    coefficients, *_ = np.linalg.lstsq(columns, values, rcond=None)
    return np.asarray(np.column_stack([np.ones(len(wanted)), wanted]) @ coefficients)


def _interpolated(spots: Floats, values: Floats, wanted: Floats) -> Floats:
    between = LinearNDInterpolator(spots, values)(wanted)
    return np.where(np.isnan(between), NearestNDInterpolator(spots, values)(wanted), between)
