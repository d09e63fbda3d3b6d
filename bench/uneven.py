"""Surfaces that step, lines that lean, rough rooms: what the figures promise, where places are not smooth.

Nothing here is drawn from the estimator's own prior: sides are falls, bows, humps and boards (`practice.rooms`), each
side of an edge made by itself, filler feathered out in the last hand's width before an outer corner. Places of seeds
under `APART` are for tuning, those from there on for measuring.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from dataclasses import replace as replace_fields
from datetime import timedelta
from typing import Literal

import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from wobble.core.gauge.stations import stations
from wobble.core.gauge.survey import Survey
from wobble.core.job import (
    READING_KINDS,
    TOWARDS_INSTALLER,
    Instrument,
    Job,
    Offset,
    Place,
    Reading,
    SetUp,
    Slope,
    SurfaceName,
    WallStep,
    surface_extent,
    with_facts,
)
from wobble.core.practice.instruments import FIRST_READING, read_offsets
from wobble.core.practice.rooms import ROOM_SIZE_MM, Hump, TrueSurface, made_up_room
from wobble.core.practice.simulated import Simulated, TruePlace, bubble_level
from wobble.core.stages import survey_of

Floats = NDArray[np.float64]
Reads = Literal["column by column", "row by row", "as it comes"]
APART = 500_000
RULE = Instrument(id="rule", name="Rule", sigma_mm=0.6)
LINES: dict[SurfaceName, SetUp] = {
    "floor": SetUp(id="line", name="Level line", across="z", at_mm=1000.0),
    "back": SetUp(id="plumb", name="Plumb plane", across="y", at_mm=700.0),
}
NEAR_EDGE_MM = 30.0


@dataclass(frozen=True)
class Stepped:
    """A surface of two: `far` between two places of one axis, `by_mm` further on; filler before its outer corners."""

    near: TrueSurface
    far: TrueSurface
    axis: int
    low_mm: float
    high_mm: float
    by_mm: float
    filler_mm: float = 0.0

    def at(self, spots: Floats) -> Floats:
        """Return the true coordinate, mm, at spots of shape (n, 2)."""
        p = np.asarray(spots, dtype=float)
        u = p[:, self.axis]
        on = (u >= self.low_mm) & (u <= self.high_mm)
        edge = np.minimum(np.abs(u - self.low_mm), np.abs(u - self.high_mm))
        filler = np.sign(self.by_mm) * self.filler_mm * np.clip(1 - edge / 100.0, 0, 1)
        foot = np.array([[size / 2 for size in self.far.size]])
        foot[0, self.axis] = self.low_mm  # so high it is where it begins; from there each side goes its own way
        far = self.far.at(p) - self.far.at(foot) + self.near.at(foot) + self.by_mm + filler
        return np.asarray(np.where(on, far, self.near.at(p)))


@dataclass
class Steps:
    """What surveys of one surface came to: errors and hits, and what was said."""

    errors: list[Floats] = field(default_factory=list)
    inside: list[NDArray[np.bool_]] = field(default_factory=list)
    proposed: int = 0
    knocked: int = 0
    accused: int = 0
    n: int = 0

    @property
    def rms_mm(self) -> float:
        """Root mean square error away from stations."""
        return float(np.sqrt(np.mean(np.concatenate(self.errors) ** 2)))

    @property
    def coverage(self) -> float:
        """Share of the truth inside the 95 % interval."""
        return float(np.concatenate(self.inside).mean())

    def share(self, what: Literal["proposed", "knocked", "accused"]) -> float:
        """Return the share of surveys in which something was said."""
        return float(getattr(self, what)) / max(self.n, 1)


def place_of(surface: SurfaceName, steps: tuple[WallStep, ...] = ()) -> Place:
    """Return a place of which one surface is read."""
    width, depth, height = ROOM_SIZE_MM
    return Place(
        id="place",
        name="Place",
        width_mm=width,
        depth_mm=depth if surface == "back" else 2400.0,
        height_mm=height,
        set_ups=(LINES[surface],),
        steps=steps,
    )


def stepped(seed: int, surface: SurfaceName, by_mm: float, *, filler_mm: float = 0.0) -> tuple[Stepped, int]:
    """Return a made-up surface with an edge: half of them run on to the end. Which axis too."""
    rng = np.random.default_rng(seed)
    axis = 0 if surface == "back" else int(rng.integers(2))
    end = surface_extent(place_of(surface), surface)[axis][1]
    low = float(rng.uniform(0.3, 0.5) * end)
    high = 2 * end if rng.random() < 0.5 else low + float(rng.uniform(0.25, 0.4) * end)
    (_, wide), (_, high_up) = surface_extent(place_of(surface), surface)
    size = (wide, high_up)
    one, other = (replace_fields(made_up_room(3 * seed + k).surfaces[surface], size=size) for k in (0, 1))
    other = replace_fields(other, gradient=_less(other.gradient), humps=(), corner_mm=(0.0, 0.0))
    return Stepped(one, other, axis, low, high, TOWARDS_INSTALLER[surface] * by_mm, filler_mm), axis


def roughened(smooth: TrueSurface, seed: int) -> TrueSurface:
    """Return a surface twice as crooked, with humps from a hand's to an arm's length, and boards of two millimetres."""
    rng = np.random.default_rng(seed + 5)
    humps = tuple(
        Hump(
            float(rng.normal(0, 4)),
            (float(rng.uniform(0, smooth.size[0])), float(rng.uniform(0, smooth.size[1]))),
            (float(rng.uniform(150, 600)), float(rng.uniform(150, 600))),
        )
        for _ in range(6)
    )
    bow = (2 * smooth.bow_mm[0], 2 * smooth.bow_mm[1])
    boards = (float(rng.uniform(0.5, 1.0)), 150.0, 0.0)
    return replace_fields(smooth, bow_mm=bow, humps=humps, boards=boards)


def _less(gradient: tuple[float, float]) -> tuple[float, float]:
    return 0.4 * gradient[0], 0.4 * gradient[1]


def read(
    truth: Stepped | TrueSurface,
    surface: SurfaceName,
    order: Reads,
    seed: int,
    *,
    knocked_mm: float = 0.0,
) -> Place:
    """Return the surface read on a grid of nine by three; the line may be knocked in the midst of it."""
    place = place_of(surface)
    (low, high), (near, far) = surface_extent(place, surface)
    axes = np.linspace(low + 60, high - 60, 9), np.linspace(near + 60, far - 60, 3 if surface == "back" else 5)
    grid = np.stack(np.meshgrid(*axes), axis=-1)  # rows of the second axis
    spots = (grid if order == "row by row" else grid.transpose(1, 0, 2)).reshape(-1, 2)
    if order == "as it comes":
        spots = np.random.default_rng(seed).permutation(spots)
    line = LINES[surface]
    readings = read_offsets(truth, surface, spots, line, RULE, seed=seed)  # type: ignore[arg-type]
    half = len(readings) // 2
    readings = tuple(
        replace(
            r,
            taken_at=FIRST_READING + timedelta(seconds=40 * i),
            value_mm=r.value_mm + (knocked_mm if i >= half else 0.0),
        )
        for i, r in enumerate(readings)
    )
    return with_facts(place, READING_KINDS, readings)


def solved(place: Place) -> Survey:
    """Return the survey of one place."""
    return survey_of(Job(name="", instruments=(RULE,), places=(place,)), place.id)


def compare(truth: Stepped | TrueSurface, surface: SurfaceName, found: Survey, seed: int, out: Steps) -> None:
    """Add what one survey came to, away from its stations and a hand's breadth from any edge."""
    rng = np.random.default_rng(seed + 7)
    (low, high), (near, far) = surface_extent(found.place, surface)
    spots = np.stack([rng.uniform(low + 60, high - 60, 120), rng.uniform(near + 60, far - 60, 120)], axis=1)
    if isinstance(truth, Stepped):
        u = spots[:, truth.axis]
        spots = spots[np.minimum(np.abs(u - truth.low_mm), np.abs(u - truth.high_mm)) > NEAR_EDGE_MM]
    mean, sd = found.adjustment.mean_and_sd((surface, spots))
    off = mean - truth.at(spots)
    out.errors.append(off)
    out.inside.append(np.abs(off) <= 1.96 * np.hypot(sd, 0.35))  # boards of 0.6 are nobody's surface
    out.proposed += bool(found.edges) or found.rivals is not None
    out.knocked += found.knock is not None
    out.accused += bool(found.suspects)
    out.n += 1


def declared(truth: Stepped, surface: SurfaceName, seed: int) -> tuple[WallStep, ...]:
    """Return the edge as it is declared: both places tapped within some millimetres, its height not known."""
    rng = np.random.default_rng(seed + 11)
    low, high = (at + float(rng.normal(0, 3.0)) for at in (truth.low_mm, truth.high_mm))
    return (
        WallStep(
            id="edge",
            name="Edge",
            surface=surface,
            axis="first" if truth.axis == 0 else "second",
            from_mm=low,
            to_mm=high,
            at_sigma_mm=3.0,
            by_mm=0.0,
            sigma_mm=50.0,
        ),
    )


def steps(
    n: int, by_mm: float, surface: SurfaceName, order: Reads, *, first: int = APART, rough: bool = True
) -> dict[str, Steps]:
    """Survey made-up surfaces: smooth, with an edge that was declared, and with one that was not."""
    out = {name: Steps() for name in ("smooth", "rough", "declared", "not declared")}
    for seed in range(first, first + n):
        truth, _ = stepped(seed, surface, by_mm, filler_mm=float(np.random.default_rng(seed).uniform(0, 4)))
        smooth = truth.near
        compare(smooth, surface, solved(read(smooth, surface, order, seed)), seed, out["smooth"])
        if rough:
            crooked = roughened(smooth, seed)
            compare(crooked, surface, solved(read(crooked, surface, order, seed)), seed, out["rough"])
        place = read(truth, surface, order, seed)
        compare(truth, surface, solved(place), seed, out["not declared"])
        said = replace(place, steps=declared(truth, surface, seed))
        compare(truth, surface, solved(said), seed, out["declared"])
    return out


def proposed_rounds(n: int, by_mm: float = 9.0, *, first: int = APART) -> tuple[Steps, Steps]:
    """Survey made-up floors at the stations that are proposed: with an edge that was declared, and without any."""
    edged, smooth = Steps(), Steps()
    bare = place_of("floor")
    for seed in range(first, first + n):
        truth, _ = stepped(seed, "floor", by_mm, filler_mm=float(np.random.default_rng(seed).uniform(0, 4)))
        told = replace(bare, steps=declared(truth, "floor", seed))
        for place, real, out in ((told, truth, edged), (bare, truth.near, smooth)):
            spots = np.asarray([s.at for s in stations(place) if s.surface == "floor"])
            read = read_offsets(real, "floor", spots, LINES["floor"], RULE, seed=seed)  # type: ignore[arg-type]
            compare(real, "floor", solved(with_facts(place, READING_KINDS, read)), seed, out)
    return edged, smooth


def knocks(n: int, by_mm: float, order: Reads, *, first: int = APART) -> Steps:
    """Survey smooth walls whose line was knocked half way."""
    out = Steps()
    for seed in range(first, first + n):
        smooth = stepped(seed, "back", 0.0)[0].near
        compare(smooth, "back", solved(read(smooth, "back", order, seed, knocked_mm=by_mm)), seed, out)
    return out


@dataclass
class Leans:
    """What surveys of a floor came to whose line leans: with what else it was read, and whether the line is named."""

    steps: Steps = field(default_factory=Steps)
    found: int = 0
    blamed: int = 0


def leaning(n: int, mm_per_m: float, *, tied: bool, first: int = APART) -> Leans:
    """Survey smooth floors from a line that leans one way, with or without a level that was flipped beforehand."""
    out = Leans()
    for seed in range(first, first + n):
        rng = np.random.default_rng(seed + 13)
        truth = stepped(seed, "floor", 0.0)[0].near
        place = read(truth, "floor", "row by row", seed)
        turn = float(rng.uniform(0, 2 * np.pi))
        lean = mm_per_m / 1000 * np.array([np.cos(turn), np.sin(turn)])
        middle = np.array([place.width_mm / 2, place.depth_mm / 2])
        readings: list[Reading] = [
            replace(r, value_mm=r.value_mm + float(lean @ (np.asarray(r.at) - middle)))
            for r in place.readings
            if isinstance(r, Offset)
        ]
        level = bubble_level(float(rng.normal(0, 0.5)), 0.3)
        checked = replace(level.instrument, checks=(level.check(FIRST_READING, rng),))
        if tied:
            readings += _level_rounds(level, TruePlace({"floor": truth}), place, rng)
        job = Job(
            name="",
            instruments=(RULE, checked),
            places=(with_facts(place, READING_KINDS, tuple(readings)),),
        )
        found = survey_of(job, "place")
        compare(truth, "floor", found, seed, out.steps)
        out.found += bool(found.leaning)
        out.blamed += any(d.reading_id.startswith("slope") for d in found.suspects)
    return out


def _level_rounds(level: Simulated, truth: TruePlace, place: Place, rng: np.random.Generator) -> Iterator[Reading]:
    """Yield a level of 1.8 m laid from station to station, six times along and six out, every other time turned."""
    along, out = (sorted({r.at[k] for r in place.readings if isinstance(r, Offset)}) for k in (0, 1))
    for i in range(12):
        u, v = int(rng.integers(len(along) - 4)), int(rng.integers(len(out) - 3))
        end = (along[u + 4], out[v]) if i % 2 else (along[u], out[v + 3])
        asked = Slope(
            id=f"slope-{i}",
            instrument=level.instrument.id,
            taken_at=FIRST_READING + timedelta(hours=1, seconds=40 * i),
            surface="floor",
            start=(along[u], out[v]),
            end=end,
            value=0.0,
            unit="mm",
            turned=i % 4 < 2,
        )
        yield level.read(asked, truth, rng)


def main(n: int = 30, first: int = APART) -> None:
    """Print all of it: figures of places kept apart, unless tuning asks for others."""
    print(f"Surfaces that step, lines that were knocked or lean: {n} made-up places each")
    told: Callable[[Steps], str] = lambda s: (  # noqa: E731
        f"rms {s.rms_mm:5.2f} coverage {s.coverage:.3f} proposed {s.share('proposed'):.2f} "
        f"knocked {s.share('knocked'):.2f} accused {s.share('accused'):.2f}"
    )
    for surface, by in (("back", 10.0), ("back", 20.0), ("floor", 9.0)):
        for order in ("column by column", "row by row", "as it comes"):
            for name, found in steps(n, by, surface, order, first=first, rough=by == 10.0).items():  # type: ignore[arg-type]
                if found.n:
                    print(f"  {surface} {by:3.0f} {order:17} {name:13} {told(found)}")
    for name, found in zip(("declared", "smooth"), proposed_rounds(n, first=first), strict=True):
        print(f"  floor   9 where it is proposed {name:11} {told(found)}")
    for order in ("column by column", "as it comes"):
        print(f"  knocked by 8 {order:17} {told(knocks(n, 8.0, order, first=first))}")  # type: ignore[arg-type]
    for by in (0.0, 0.3, 1.0):
        for tied in (True, False):
            one = leaning(n, by, tied=tied, first=first)
            said = f"found {one.found / n:.2f} level blamed {one.blamed / n:.2f}"
            print(f"  leans {by} {'with a level' if tied else 'alone       '} {told(one.steps)} {said}")


if __name__ == "__main__":
    main()
