"""Studs behind the lining of made-up walls, found as they are found: what is called a bite, and does it bite."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.facts import Detection, Sees
from wobble.core.hold.structure.lines import EDGE_MM, SPACINGS_MM, Structure, structure
from wobble.core.practice.instruments import FIRST_READING

WALL_MM = 3600.0
STUD_MM = 45.0


@dataclass
class Walls:
    """Over all walls: whether each screw called likely bites, whether the spacing was named, how many were called."""

    bites: list[bool] = field(default_factory=list)
    named: list[bool] = field(default_factory=list)
    n_called: list[int] = field(default_factory=list)


@dataclass(frozen=True)
class Wall:
    """A made-up wall: the middles of its studs, and their spacing."""

    studs: tuple[float, ...]
    spacing: float
    detections: tuple[Detection, ...]


def made_up_wall(seed: int) -> Wall:
    """Return a wall whose studs stand a few millimetres off, most of them found by scanner, some checked by magnet.

    One detection in twenty-five is of nothing: a pipe clip, a clout, a batten.
    """
    rng = np.random.default_rng(seed)
    spacing = float(rng.choice(SPACINGS_MM))
    studs = np.arange(float(rng.uniform(0, spacing)), WALL_MM, spacing)
    studs = studs + rng.uniform(-6.0, 6.0, len(studs))
    found: list[tuple[float, str, Sees]] = []
    for at in studs:
        if rng.random() < 0.1:
            continue  # missed
        edges: tuple[tuple[Sees, float], ...] = (("left edge", -STUD_MM / 2), ("right edge", STUD_MM / 2))
        found += [(float(at + off + rng.normal(0, 5.0)), "scanner", sees) for sees, off in edges]
        if rng.random() < 0.4:
            found.append((float(at + rng.uniform(-14, 14) + rng.normal(0, 4.0)), "magnet", "screw"))
    for _ in range(int(rng.poisson(len(found) / 25))):
        found.append((float(rng.uniform(0, WALL_MM)), "scanner", "centre"))
    detections = tuple(
        Detection(
            id=f"d{i}",
            at=(x, 1200.0),
            found_by="magnet" if found_by == "magnet" else "scanner",
            sees=sees,
            taken_at=FIRST_READING,
        )
        for i, (x, found_by, sees) in enumerate(found)
    )
    return Wall(tuple(float(s) for s in studs), spacing, detections)


def known(wall: Wall) -> Structure:
    """Return what Wobble knows of a wall."""
    return structure(wall.detections, WALL_MM, STUD_MM)


def walls(n: int, first_seed: int = 30_000) -> Walls:
    """Look for studs on made-up walls, and drill where a bite is called likely."""
    out = Walls()
    for seed in range(first_seed, first_seed + n):
        wall = made_up_wall(seed)
        found = known(wall)
        out.named.append(found.spacings[0].mm is not None and abs(found.spacings[0].mm - wall.spacing) < 0.1)
        called = [line.at_mm for line in found.lines if found.bites(line.at_mm) >= SURE_TO_BITE]
        out.n_called.append(len(called))
        studs = np.asarray(wall.studs)
        out.bites += [bool(np.abs(studs - x).min() <= STUD_MM / 2 - EDGE_MM) for x in called]
    return out
