"""How often what is said comes true, in rooms of several kinds: intervals, highest and lowest spots, verdicts.

Rooms are smooth, wavy (many small humps, as broad as a hand or a forearm), rough (all of it twice), nearly true, or
twisted (waves that run askew, and trowel marks across them); all are said to be typical. None is a draw from the
estimator's prior.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, field, fields, replace
from functools import cache
from typing import Literal, get_args

import numpy as np

from bench.accuracy import SURFACES, measured_room
from bench.alcoves import Verdicts, made_up_alcove, surveyed, true_opening_mm, verdict
from wobble.core.gauge.adjust import draws
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.stations import stations
from wobble.core.job import SurfaceName
from wobble.core.practice.rooms import Hump, Room, TrueSurface, made_up_room
from wobble.core.stages import survey_of

Kind = Literal["smooth", "wavy", "rough", "nearly true", "twisted"]
KINDS: tuple[Kind, ...] = get_args(Kind)
SCALES: dict[Kind, float] = {"smooth": 1.0, "wavy": 0.7, "rough": 2.0, "nearly true": 0.4, "twisted": 0.0}
N_DRAWS = 400
AREA_MM = 600.0
STEP_MM = 60.0
SPREAD_MM = 2.5
"""How far boxes are from just fitting: most verdicts are close calls."""
DECILES = np.linspace(0.0, 1.0, 11)


@dataclass(frozen=True, slots=True)
class Wave:
    """A wave that runs over a surface in any direction: height mm, its turn for each mm of both axes, and phase."""

    height_mm: float
    turn: tuple[float, float]
    phase: float


@dataclass(frozen=True, slots=True)
class Twisted(TrueSurface):
    """A surface whose bows run askew to its axes."""

    waves: tuple[Wave, ...] = ()

    def at(self, spots: Floats) -> Floats:
        """Return the true coordinate, mm, at spots of shape (n, 2)."""
        p = np.asarray(spots, dtype=float)
        waves = (w.height_mm * np.sin(p @ np.asarray(w.turn) + w.phase) for w in self.waves)
        return np.asarray(TrueSurface.at(self, p) + sum(waves))


def _waves(rng: np.random.Generator) -> Iterator[Wave]:
    """Yield six waves of one to four metres, and trowel marks of less than a millimetre."""
    for i in range(7):
        long, way = float(rng.uniform(*((900, 4000) if i < 6 else (90, 200)))), float(rng.uniform(0, 2 * np.pi))
        height = float(rng.normal(0, 1.5) if i < 6 else rng.uniform(0, 0.6))
        turn = 2 * np.pi / long * np.array([np.cos(way), np.sin(way)])
        yield Wave(height, (float(turn[0]), float(turn[1])), float(rng.uniform(0, 2 * np.pi)))


def of_kind(surface: TrueSurface, kind: Kind, rng: np.random.Generator) -> TrueSurface:
    """Return a surface made wavy, rough, nearly true or twisted."""
    by = SCALES[kind]
    if kind == "twisted":
        plain = {f.name: getattr(surface, f.name) for f in fields(surface)}
        plain |= {"bow_mm": (0.0, 0.0), "humps": (), "boards": (0.0, 100.0, 0.0)}
        return Twisted(**plain, waves=tuple(_waves(rng)))
    humps = [replace(h, height_mm=h.height_mm * by) for h in surface.humps]
    if kind == "wavy":
        width, height = surface.size
        for _ in range(int(rng.poisson(width * height / 4e5))):
            centre = float(rng.uniform(0, width)), float(rng.uniform(0, height))
            radius = float(rng.uniform(120, 350)), float(rng.uniform(120, 350))
            humps.append(Hump(float(rng.normal(0, 2.0)), centre, radius))
    return replace(
        surface,
        bow_mm=(surface.bow_mm[0] * by, surface.bow_mm[1] * by),
        humps=tuple(humps),
        boards=(surface.boards[0] * by, *surface.boards[1:]),
    )


@dataclass
class Kept:
    """Of one kind of rooms: whether the truth lay inside 95 % at spots, and of the highest and lowest of areas.

    `squares` are squared errors at spots, mm².
    """

    spots: list[bool] = field(default_factory=list)
    highest: list[bool] = field(default_factory=list)
    lowest: list[bool] = field(default_factory=list)
    squares: list[float] = field(default_factory=list)

    @property
    def rms_mm(self) -> float:
        """Root mean square error at spots."""
        return float(np.sqrt(np.mean(self.squares)))


def promises(n: int, kind: Kind, first_seed: int = 40_000) -> Kept:
    """Survey rooms of a kind and hold what is said of spots and areas against the truth."""
    out = Kept()
    for seed in range(first_seed, first_seed + n):
        rng = np.random.default_rng(seed)
        room = made_up_room(seed)
        room = Room(room.size, {name: of_kind(s, kind, rng) for name, s in room.surfaces.items()})
        found = survey_of(measured_room(room, seed), "place")
        for surface in SURFACES:
            true = room.surfaces[surface]
            spots = rng.uniform(*_read(surface), (40, 2))
            mean, sd = found.adjustment.mean_and_sd((surface, spots))
            truth = true.at(spots)
            out.spots += (np.abs(mean - truth) <= 1.96 * sd).tolist()
            out.squares += ((mean - truth) ** 2).tolist()
            for area in _areas(surface, rng):
                drawn = draws(found.adjustment.at((surface, area)), N_DRAWS, seed)
                truth = true.at(area)
                out.highest.append(_inside(drawn.max(axis=1), float(truth.max())))
                out.lowest.append(_inside(drawn.min(axis=1), float(truth.min())))
    return out


def _inside(values: Floats, truth: float) -> bool:
    low, high = np.quantile(values, (0.025, 0.975))
    return bool(low <= truth <= high)


@cache
def _read(surface: SurfaceName) -> tuple[Floats, Floats]:
    """Return the lowest and the highest corner of the part of a surface that is read."""
    at = np.asarray([s.at for s in stations(measured_room(made_up_room(0), 0).places[0]) if s.surface == surface])
    return at.min(axis=0), at.max(axis=0)


def _areas(surface: SurfaceName, rng: np.random.Generator) -> Iterator[Floats]:
    """Yield areas as units have them: of a width of 600 to all that is read."""
    (left, low), (right, high) = _read(surface)
    for width in (AREA_MM, 3 * AREA_MM, right - left):
        start = float(rng.uniform(left, max(right - width, left + 1e-6)))
        axes = np.arange(start, start + width + 1, STEP_MM), np.arange(low, high + 1, STEP_MM)
        yield np.stack(np.meshgrid(*axes), axis=-1).reshape(-1, 2)


def verdicts(n: int, kind: Kind, first_seed: int = 60_000) -> Verdicts:
    """Ask whether boxes go into alcoves of a kind."""
    out = Verdicts()
    for seed in range(first_seed, first_seed + n):
        rng = np.random.default_rng(seed)
        alcove = made_up_alcove(seed)
        left, right = of_kind(alcove.left, kind, rng), of_kind(alcove.right, kind, rng)
        free = true_opening_mm(left, right)
        box = round((free + rng.normal(0, SPREAD_MM)) * 2) / 2
        said = verdict(surveyed(replace(alcove, left=left, right=right, box_mm=box), seed))
        out.chances.append(said.chance)
        out.goes.append(free >= box)
        out.errors_mm.append(said.least.value_mm - free)
    return out


def deciles(found: Verdicts) -> Iterator[tuple[float, float, int]]:
    """Yield for each decile of the stated chance its mean, the share that went in, and how many there were."""
    said, came = np.asarray(found.chances), np.asarray(found.goes)
    for low, high in itertools.pairwise(DECILES):
        here = (said >= low) & ((said < high) | (high == 1.0))
        if here.any():
            yield float(said[here].mean()), float(came[here].mean()), int(here.sum())
