"""Accuracy on made-up places of five surfaces with about sixty mixed readings of 1 mm instruments."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from wobble.core.gauge.stations import stations
from wobble.core.gauge.survey import Survey
from wobble.core.gauge.traits import traits
from wobble.core.job import (
    READING_KINDS,
    SIDE_OF,
    Corner,
    Instrument,
    Job,
    Offset,
    Place,
    Reading,
    SetUp,
    SurfaceName,
    with_facts,
)
from wobble.core.practice.instruments import FIRST_READING, read_offsets
from wobble.core.practice.rooms import ROOM_SIZE_MM, Room, made_up_room
from wobble.core.practice.survey import read_round
from wobble.core.stages import survey_of

Floats = NDArray[np.float64]
SURFACES: tuple[SurfaceName, ...] = ("floor", "back", "left", "right", "ceiling")
TOOL = Instrument(id="rule", name="Rule", sigma_mm=1.0)
LINES: dict[SurfaceName, SetUp] = {
    "floor": SetUp(id="line", name="Level line", across="z", at_mm=1000.0),
    "back": SetUp(id="plumb", name="Plumb plane", across="y", at_mm=700.0),
    "left": SetUp(id="side", name="Plumb plane across", across="x", at_mm=1500.0),
    "right": SetUp(id="side", name="Plumb plane across", across="x", at_mm=1500.0),
}
MISREAD_MM = 10.0
GRIDDED: tuple[SurfaceName, ...] = ("floor", "back")
EXPECTED_RMS_MM = {"floor": 0.8, "back": 0.8, "left": 1.1, "right": 1.1, "ceiling": 1.6}


@dataclass
class Five:
    """What was found over all places: squared errors and hits by surface, and counts."""

    n_places: int = 0
    n_readings: int = 0
    errors: dict[str, list[Floats]] = field(default_factory=dict)
    inside: list[NDArray[np.bool_]] = field(default_factory=list)
    found: dict[str, list[bool]] = field(default_factory=dict)
    accused: int = 0
    angles_deg: list[float] = field(default_factory=list)

    @property
    def angle_rms_deg(self) -> float:
        """Root mean square error of corner angles."""
        return float(np.sqrt(np.mean(np.square(self.angles_deg))))

    def rms_mm(self, surface: str) -> float:
        """Root mean square error on a surface."""
        return float(np.sqrt(np.mean(np.concatenate(self.errors[surface]) ** 2)))

    @property
    def coverage(self) -> float:
        """Share of the truth inside the 95 % interval."""
        return float(np.concatenate(self.inside).mean())

    def share_found(self, where: str) -> float:
        """Share of single misreads, on the floor or anywhere ("any"), that are named first."""
        return float(np.mean(self.found[where]))


def place_of_five() -> Place:
    """Return the place without readings."""
    width, depth, height = ROOM_SIZE_MM
    lines = tuple({line.id: line for line in LINES.values()}.values())
    return Place(
        id="place",
        name="Place",
        width_mm=width,
        depth_mm=depth,
        height_mm=height,
        surfaces=SURFACES,
        set_ups=lines,
    )


def measured(room: Room, place: Place, seed: int) -> Job:
    """Return a job of 64 readings with 1 mm instruments.

    Floor and back on a grid of seven by three, nine readings on each side wall and four spans up, as proposed.
    """
    readings: list[Reading] = []
    for i, surface in enumerate(GRIDDED):
        spots = _grid_of(place, surface)
        readings += read_offsets(room.surfaces[surface], surface, spots, LINES[surface], TOOL, seed=10 * seed + i)
    walls: tuple[SurfaceName, ...] = ("floor", "left", "right", "ceiling")
    round_ = read_round(replace(place, surfaces=walls), room.surfaces, LINES, TOOL, 10 * seed + 5)
    readings += [r for r in round_ if not (isinstance(r, Offset) and r.surface == "floor")]
    return Job(name="", instruments=(TOOL,), places=(with_facts(place, READING_KINDS, tuple(readings)),))


def _grid_of(place: Place, surface: SurfaceName) -> Floats:
    """Return the spots at which floor or back is read: the second axis as far as the proposed round goes."""
    second = [s.at[1] for s in stations(place) if s.surface == surface]
    axes = np.linspace(60.0, place.width_mm - 60.0, 7), np.linspace(min(second), max(second), 3)
    return np.stack(np.meshgrid(*axes), axis=-1).reshape(-1, 2)


def five(n_places: int) -> Five:
    """Survey made-up places and compare with their truth."""
    out, place = Five(), place_of_five()
    for seed in range(n_places):
        room = made_up_room(20_000 + seed)
        job = measured(room, place, seed)
        clean = survey_of(job, job.places[0].id)
        out.n_places, out.n_readings = out.n_places + 1, len(job.places[0].readings)
        out.accused += bool(clean.suspects) or clean.knock is not None
        rng = np.random.default_rng(seed)
        for surface in SURFACES:
            _compare(room, place, clean, surface, rng, out)
        out.angles_deg += _angle_errors(room, job, rng)
        for where in ("floor", "any"):
            wrong, culprit = _misread(job, where, rng)
            named = [d.reading_id for d in survey_of(wrong, wrong.places[0].id).suspects]
            out.found.setdefault(where, []).append(named[:1] == [culprit])
    return out


def _angle_errors(room: Room, job: Job, rng: np.random.Generator) -> list[float]:
    """Return errors of the corner angles, degrees, once two diagonals are measured in each corner."""
    place = job.places[0]
    heights, a, b = (300.0, 1500.0), 600.0, 600.0
    corners: list[Reading] = []
    for corner in ("back-left", "back-right"):
        for z in heights:
            angle = np.radians(true_angle_deg(room, corner, z, a, b))
            c = np.sqrt(a * a + b * b - 2 * a * b * np.cos(angle)) + rng.normal(0, TOOL.sigma_mm)
            corners.append(diagonal(f"{corner}-{z:.0f}", corner, z, (a, b), round(float(c) * 2) / 2))
    more = replace(job, places=(with_facts(place, READING_KINDS, (*place.readings, *corners)),))
    found = {t.surface: t.value for t in traits(survey_of(more, more.places[0].id)) if t.kind == "angle"}
    heights_read = np.linspace(100.0, 2240.0, 3)
    errors = []
    for corner, side in SIDE_OF.items():
        true = np.mean([true_angle_deg(room, corner, z, a, b) for z in heights_read])
        errors.append(found[side] - float(true))
    return errors


def diagonal(id_: str, corner: str, height_mm: float, legs: tuple[float, float], c: float) -> Corner:
    """Return a corner reading by legs and diagonal."""
    return Corner(
        id=id_,
        instrument=TOOL.id,
        taken_at=FIRST_READING,
        corner="back-left" if corner == "back-left" else "back-right",
        height_mm=height_mm,
        along_mm=legs[0],
        out_mm=legs[1],
        value_mm=c,
    )


def true_angle_deg(room: Room, corner: str, z: float, a: float, b: float) -> float:
    """Return a corner's true inside angle in plan, from the directions of its legs as vectors."""
    width = room.size[0]
    back, side = room.surfaces["back"], room.surfaces["left" if corner == "back-left" else "right"]
    near, far = (0.0, a) if corner == "back-left" else (width, width - a)
    y_near, y_far = back.at(np.array([[near, z], [far, z]]))
    x_in, x_out = side.at(np.array([[0.0, z], [b, z]]))
    along, out = np.array([far - near, y_far - y_near]), np.array([x_out - x_in, b])
    return float(np.degrees(np.arccos(along @ out / np.linalg.norm(along) / np.linalg.norm(out))))


def _compare(
    room: Room, place: Place, clean: Survey, surface: SurfaceName, rng: np.random.Generator, out: Five
) -> None:
    """Compare at spots inside what was read."""
    at = np.asarray([s.at for s in stations(place) if s.surface == surface])
    spots = rng.uniform(at.min(axis=0), at.max(axis=0), (40, 2))
    truth = room.surfaces[surface].at(spots)
    mean, sd = clean.adjustment.mean_and_sd((surface, spots))
    out.errors.setdefault(surface, []).append(mean - truth)
    out.inside.append(np.abs(mean - truth) <= 1.96 * sd)


def _misread(job: Job, where: str, rng: np.random.Generator) -> tuple[Job, str]:
    """Return the job with one reading of a surface, or any one, off by ten millimetres, and its id."""
    readings = list(job.places[0].readings)
    mine = [i for i, r in enumerate(readings) if where in ("any", r.surface if isinstance(r, Offset) else "ceiling")]
    index, sign = int(rng.choice(mine)), float(rng.choice([-1.0, 1.0]))
    wrong = readings[index]
    readings[index] = replace(wrong, value_mm=wrong.value_mm + sign * MISREAD_MM)  # type: ignore[union-attr]
    return replace(job, places=(with_facts(job.places[0], READING_KINDS, tuple(readings)),)), wrong.id
