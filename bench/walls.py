"""Studs behind the linings of made-up walls: what is said of a screw, held against what it meets.

Walls of several kinds, none drawn from what the estimator takes walls to be: with doorways, windows, doubles, leans,
lone detections, no spacing at all. Of all screws that are said to bite with 0.5 to 0.7, that many must.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal, get_args

import numpy as np

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.facts import Detection, FoundBy, Sees
from wobble.core.hold.structure.contradictions import EDGE_MM
from wobble.core.hold.structure.lines import Structure, structure
from wobble.core.hold.structure.spacing import SPACINGS_MM
from wobble.core.job import WallOpening
from wobble.core.practice.instruments import FIRST_READING

WALL_MM = 4200.0
STUD_MM = 45.0
SCAN_MM = 1200.0
HEAD_MM = 2050.0
BINS = (0.0, 0.1, 0.3, 0.5, 0.7, 0.9, 1.0)
Kind = Literal["plain", "doorway", "doorway declared", "window", "doubles", "leaning", "lone", "irregular"]
KINDS: tuple[Kind, ...] = get_args(Kind)


@dataclass(frozen=True)
class Wall:
    """A wall as it was built and looked at.

    Attributes:
        studs: Middle of each at the floor, mm, and its lean, mm a metre. joints: Where two of them meet.
        hollow: Where a doorway or window leaves nothing at the height of the scan. spacing: None for none.
        detections: What was found of it. openings: What was told of it.
    """

    studs: tuple[tuple[float, float], ...]
    joints: tuple[float, ...]
    hollow: tuple[float, float] | None
    spacing: float | None
    detections: tuple[Detection, ...]
    openings: tuple[WallOpening, ...] = ()

    def bites(self, x_mm: float, up_mm: float) -> bool:
        """Whether a screw at a spot meets a stud away from its edges."""
        return any(abs(at + lean * up_mm / 1000 - x_mm) <= STUD_MM / 2 - EDGE_MM for at, lean in self.studs)


@dataclass
class Walls:
    """Over all walls of a kind.

    Attributes:
        named: Whether the spacing was named, of walls that have one. called: Stated chance and what came, for every
            line told and places between. in_hollow: Greatest chance stated in a doorway. at_joints: And at joints.
        n_called: Lines called sure, of each wall.
    """

    named: list[bool] = field(default_factory=list)
    called: list[tuple[float, bool]] = field(default_factory=list)
    in_hollow: list[float] = field(default_factory=list)
    at_joints: list[float] = field(default_factory=list)
    n_called: list[int] = field(default_factory=list)

    def sure(self) -> list[bool]:
        """Return whether screws that were called sure to bite did."""
        return [came for said, came in self.called if said >= SURE_TO_BITE]

    def bins(self) -> Iterator[tuple[float, float, int]]:
        """Yield the mean chance stated, the share that came and how many, for each bin that is not empty."""
        said, came = np.array([s for s, _ in self.called]), np.array([c for _, c in self.called])
        for low, high in itertools.pairwise(BINS):
            here = (said >= low) & ((said < high) | (high == BINS[-1]))
            if here.any():
                yield float(said[here].mean()), float(came[here].mean()), int(here.sum())


def made_up_wall(seed: int, kind: Kind = "plain") -> Wall:
    """Build a wall and look for its studs as people do: at one height or two, missing some, with false alarms."""
    rng = np.random.default_rng((seed, KINDS.index(kind)))
    spacing = None if kind == "irregular" else float(rng.choice(SPACINGS_MM))
    if spacing is None:
        layout = np.cumsum(rng.uniform(280.0, 720.0, 20)) - 200.0
    else:
        layout = np.arange(float(rng.uniform(0, spacing)), WALL_MM, spacing)
        layout = layout + rng.uniform(-6.0, 6.0, len(layout))
    middles, hollow = list(layout[layout < WALL_MM]), None
    joints: list[float] = []
    openings: tuple[WallOpening, ...] = ()
    if kind in ("doorway", "doorway declared", "window"):
        middles, joints, hollow, openings = _framed(rng, middles, kind)
    if kind == "doubles":
        for at in rng.choice(middles, size=max(1, len(middles) // 4), replace=False):
            middles.append(at + STUD_MM)
            joints.append(at + STUD_MM / 2)
    if kind in ("plain", "lone"):  # one in a dozen more: where a wall met another, behind a basin that is gone
        extra = rng.uniform(0, WALL_MM, rng.binomial(len(middles), 1 / 12))
        middles += [x for x in extra if min(abs(x - m) for m in middles) > 2 * STUD_MM]
    lean = 2.0 if kind in ("leaning", "doubles") else 0.0
    studs = tuple((float(at), float(rng.normal(0, lean)) if lean else 0.0) for at in sorted(middles))
    if kind == "doubles":  # two that are nailed together lean together
        leans = dict(studs)
        studs = tuple((at, next((leans[j] for j in leans if abs(j + STUD_MM - at) < 1e-6), k)) for at, k in studs)
    found = list(_looked_for(rng, studs, kind))
    detections = tuple(
        Detection(id=f"d{i}", at=(x, up), found_by=by, sees=sees, taken_at=FIRST_READING)
        for i, (x, up, by, sees) in enumerate(found)
    )
    return Wall(studs, tuple(joints), hollow, spacing, detections, openings)


def _framed(
    rng: np.random.Generator, layout: list[float], kind: Kind
) -> tuple[list[float], list[float], tuple[float, float], tuple[WallOpening, ...]]:
    """Return studs with two on each side of an opening and none in it, their joints, the hollow and what was told."""
    wide = float(rng.uniform(700.0, 1100.0))
    start = float(rng.uniform(300.0, WALL_MM - wide - 300.0))
    packed = float(rng.uniform(8.0, 22.0))
    low, high = start - packed, start + wide + packed
    beside = [low - STUD_MM * 1.5, low - STUD_MM / 2, high + STUD_MM / 2, high + STUD_MM * 1.5]
    kept = [at for at in layout if at < beside[0] - STUD_MM or at > beside[-1] + STUD_MM]
    told = WallOpening(
        id="o",
        name="Opening",
        kind="window" if kind == "window" else "door",
        x_mm=round(start),
        width_mm=round(wide),
        height_mm=1100.0 if kind == "window" else HEAD_MM,
        sill_mm=900.0 if kind == "window" else 0.0,
    )
    return kept + beside, [low - STUD_MM, high + STUD_MM], (start, start + wide), () if kind == "doorway" else (told,)


def _looked_for(
    rng: np.random.Generator, studs: tuple[tuple[float, float], ...], kind: Kind
) -> Iterator[tuple[float, float, FoundBy, Sees]]:
    """Yield what was found: along the wall, up, by what, and what of it."""
    heights = (300.0, 1900.0) if kind in ("leaning", "doubles") else (SCAN_MM,)
    n = 0
    missed = {i for i in range(len(studs)) if rng.random() < 0.1}
    alone = [i for i in range(len(studs)) if i not in missed]
    for i in alone:
        at0, lean = studs[i]
        left = not any(abs(other + STUD_MM - at0) < 1.0 for other, _ in studs)
        right = not any(abs(other - STUD_MM - at0) < 1.0 for other, _ in studs)
        for up in heights:
            at = at0 + lean * up / 1000
            if kind == "lone":
                if rng.random() < 0.5:
                    yield float(at + rng.uniform(-14, 14) + rng.normal(0, 4.0)), up, "magnet", "screw"
                else:
                    yield float(at + rng.normal(0, 5.0)), up, "scanner", "centre"
                n += 1
                continue
            if left:
                yield float(at - STUD_MM / 2 + rng.normal(0, 5.0)), up, "scanner", "left edge"
            if right:
                yield float(at + STUD_MM / 2 + rng.normal(0, 5.0)), up, "scanner", "right edge"
            n += left + right
            if rng.random() < 0.4:
                yield float(at + rng.uniform(-14, 14) + rng.normal(0, 4.0)), up, "magnet", "screw"
                n += 1
    for _ in range(int(rng.poisson(n / (12 if kind == "lone" else 25)))):  # a pipe clip, a clout, a batten
        yield float(rng.uniform(0, WALL_MM)), heights[0], "scanner", "centre"


def known(wall: Wall) -> Structure:
    """Return what Wobble knows of a wall."""
    return structure(wall.detections, WALL_MM, STUD_MM, openings=wall.openings)


def walls(n: int, first_seed: int = 30_000, kind: Kind = "plain") -> Walls:
    """Look for studs on made-up walls, and drill: at every line, beside it, in joints and where nothing should be."""
    out = Walls()
    for seed in range(first_seed, first_seed + n):
        wall = made_up_wall(seed, kind)
        found = known(wall)
        rng = np.random.default_rng(seed)
        if wall.spacing is not None:
            out.named.append(bool(found.spacings) and found.spacings[0].mm == wall.spacing)
        up = float(rng.choice((400.0, SCAN_MM, 2000.0))) if kind in ("leaning", "doubles") else SCAN_MM
        spots = [line.at(up) for line in found.lines]
        out.n_called.append(sum(found.bites(x, up) >= SURE_TO_BITE for x in spots))
        spots += [x + float(rng.uniform(-40, 40)) for x in spots]
        out.called += [(found.bites(x, up), wall.bites(x, up)) for x in spots if 0 < x < WALL_MM]
        if wall.hollow is not None:
            inside = np.arange(wall.hollow[0] + 5, wall.hollow[1] - 5, 5.0)
            out.in_hollow.append(max(found.bites(float(x), up) for x in inside))
        for joint in wall.joints:
            lean = min(wall.studs, key=lambda s: abs(s[0] - joint))[1]
            out.at_joints.append(found.bites(joint + lean * up / 1000, up))
    return out
