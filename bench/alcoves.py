"""Whether a box goes between the walls of made-up alcoves: what Wobble says against a dense search of the truth."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from wobble.core.confidence import SURE
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import tiers
from wobble.core.fit.sides.openings import Opening, opening
from wobble.core.fit.surfaces.walls import walls
from wobble.core.job import Instrument, Job, Place, Reading, SetUp, SurfaceName, Unit
from wobble.core.practice.instruments import read_offsets, read_spans
from wobble.core.practice.rooms import Hump, TrueSurface
from wobble.core.stages import survey_of

Floats = NDArray[np.float64]
WIDTH_MM, DEPTH_MM, HEIGHT_MM = 1400.0, 620.0, 2300.0
TOOL = Instrument(id="rule", name="Rule", sigma_mm=1.0)
ACROSS = SetUp(id="side", name="Plumb plane up the middle", across="x", at_mm=700.0)
BACK_MM = 12.0
BOX = (520.0, 2000.0)
"""Depth and height of the box that is to go in."""
SPREAD_MM = 6.0
"""How far boxes are from just fitting, as a standard deviation: most are close calls."""
STEP_MM = 10.0


@dataclass(frozen=True)
class Alcove:
    """A made-up alcove: its two true walls, and a box that may or may not go in."""

    left: TrueSurface
    right: TrueSurface
    box_mm: float


@dataclass
class Verdicts:
    """What was said of all alcoves: the chance that the box goes in, and whether it does."""

    chances: list[float] = field(default_factory=list)
    goes: list[bool] = field(default_factory=list)
    errors_mm: list[float] = field(default_factory=list)

    @property
    def right(self) -> float:
        """Share of verdicts that are right, taking one chance in two as yes."""
        return float(np.mean((np.asarray(self.chances) >= 0.5) == np.asarray(self.goes)))

    @property
    def sure(self) -> float:
        """Share of alcoves in which Wobble says that it is at least 95 % sure, one way or the other."""
        return float(self._sure().mean())

    @property
    def right_when_sure(self) -> float:
        """Share of those in which it is right."""
        chances = np.asarray(self.chances)[self._sure()]
        return float(np.mean((chances >= SURE) == np.asarray(self.goes)[self._sure()]))

    @property
    def stuck_when_sure(self) -> float:
        """Share of boxes called sure to go in that do not."""
        yes = np.asarray(self.chances) >= SURE
        return float(np.mean(~np.asarray(self.goes)[yes])) if yes.any() else 0.0

    def _sure(self) -> NDArray[np.bool_]:
        chances = np.asarray(self.chances)
        return np.asarray((chances >= SURE) | (chances <= 1 - SURE))


def made_up_alcove(seed: int) -> Alcove:
    """Return an alcove with leaning, bowed and humped walls and build-up in its corners, and a box near to its size."""
    rng = np.random.default_rng(seed)
    left, right = _wall(rng, 0.0, 1.0), _wall(rng, WIDTH_MM, -1.0)
    free = true_opening_mm(left, right)
    return Alcove(left, right, float(round((free + rng.normal(0, SPREAD_MM)) * 2) / 2))


def _wall(rng: np.random.Generator, level_mm: float, inwards: float) -> TrueSurface:
    humps = tuple(
        Hump(
            float(inwards * rng.uniform(-3.0, 4.0)),
            (float(rng.uniform(0, DEPTH_MM)), float(rng.uniform(0, HEIGHT_MM))),
            (float(rng.uniform(250, 600)), float(rng.uniform(250, 600))),
        )
        for _ in range(int(rng.integers(0, 3)))
    )
    return TrueSurface(
        (DEPTH_MM, HEIGHT_MM),
        level_mm=level_mm,
        gradient=(float(inwards * rng.normal(0.004, 0.01)), float(rng.normal(0, 0.004))),
        bow_mm=(float(rng.normal(0, 1.0)), float(rng.normal(0, 3.0))),
        humps=humps,
        corner_mm=(float(inwards * rng.uniform(0, 3.0)), 0.0),
        boards=(float(rng.uniform(0, 0.5)), float(rng.uniform(90, 200)), float(rng.uniform(0, 6))),
    )


def true_opening_mm(left: TrueSurface, right: TrueSurface) -> float:
    """Return the widest box that goes in, by moving it out centimetre by centimetre past every spot of both walls."""
    depth, height = BOX
    y = np.arange(0.0, DEPTH_MM + 0.1, STEP_MM)
    z = np.arange(0.0, height + 0.1, STEP_MM)
    spots = np.stack(np.meshgrid(y, z, indexing="ij"), axis=-1).reshape(-1, 2)
    proud_left = left.at(spots).reshape(len(y), len(z)).max(axis=1)
    proud_right = right.at(spots).reshape(len(y), len(z)).min(axis=1)
    free = np.inf
    for moved in np.arange(0.0, DEPTH_MM - BACK_MM, STEP_MM):
        beside = (y >= BACK_MM + moved - 1e-9) & (y <= BACK_MM + moved + depth + 1e-9)
        free = min(free, float(proud_right[beside].min() - proud_left[beside].max()))
    return free


def surveyed(alcove: Alcove, seed: int) -> Job:
    """Return the alcove as measured: nine readings on each wall, six widths, with 1 mm instruments."""
    spots = np.array([(y, z) for y in (60.0, 310.0, 560.0) for z in (100.0, 1100.0, 2100.0)])
    widths = np.array([(y, z) for y in (100.0, 600.0) for z in (120.0, 1050.0, 1950.0)])
    truths: tuple[tuple[SurfaceName, TrueSurface], ...] = (("left", alcove.left), ("right", alcove.right))
    readings: list[Reading] = []
    for i, (name, truth) in enumerate(truths):
        readings += read_offsets(truth, name, spots, ACROSS, TOOL, seed=3 * seed + i)
    readings += read_spans((alcove.left, alcove.right), "left-right", widths, TOOL, seed=3 * seed + 2)
    box = Unit(id="A", name="Box", kind="tall", x_mm=0.0, width_mm=alcove.box_mm, depth_mm=BOX[0], height_mm=BOX[1])
    place = Place(
        id="place",
        name="Alcove",
        kind="alcove",
        width_mm=WIDTH_MM,
        depth_mm=DEPTH_MM,
        height_mm=HEIGHT_MM,
        surfaces=("left", "right"),
        set_ups=(ACROSS,),
        facts=tuple(readings),
        units=(box,),
    )
    return Job(name="", instruments=(TOOL,), places=(place,))


def verdict(job: Job) -> Opening:
    """Return what Wobble says of the box in the job's place."""
    found = survey_of(job, job.places[0].id)
    said = opening(found, walls(found), tiers(job.places[0])[0], Stand(0.0, BACK_MM, 0.0), clearance_mm=0.0)
    if said is None:
        raise RuntimeError("both walls were read")
    return said


def alcoves(n: int, first_seed: int = 50_000) -> Verdicts:
    """Ask for a verdict on made-up alcoves and compare each with its truth."""
    out = Verdicts()
    for seed in range(first_seed, first_seed + n):
        alcove = made_up_alcove(seed)
        said = verdict(surveyed(alcove, seed))
        free = true_opening_mm(alcove.left, alcove.right)
        out.chances.append(said.chance)
        out.goes.append(free >= alcove.box_mm)
        out.errors_mm.append(said.least.value_mm - free)
    return out
