"""Where studs, joists or ribs run: lines from a few detections, with the spacings that builders use as hypotheses.

Detections are of members (`members`), members stand under a spacing or anywhere (`spacing`), and what is said of a
screw is meaned over all of that. Some detections are of nothing. Bites and misses of holes already drilled are
detections like others, and the surest. In a door or a window there is nothing, and beside it there is framing.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr

from wobble.core.facts import Detection
from wobble.core.gauge.prior import Floats
from wobble.core.hold.structure.contradictions import EDGE_MM, Contradiction, against
from wobble.core.hold.structure.members import LEAN_SD_MM_PER_M, Member, members
from wobble.core.hold.structure.spacing import (
    IRREGULAR,
    ROUGH_MM,
    ROUGH_SD_MM,
    SPACINGS_MM,
    STEP_MM,
    Fitted,
    Row,
    anywhere,
    fitted,
    irregular,
    tried,
)
from wobble.core.job import Value, WallOpening
from wobble.core.job.backing import BackingKind

FAR_SD = 6.0
LEAST_WEIGHT = 1e-6
"""A spacing less likely than this says nothing of any screw."""
MISTAKEN = 0.04
"""How often a hole that hit a stud is taken for a miss."""
TOLD = 0.2
"""A line less likely than this is not told."""
EVEN = 0.5
BUILT = 0.97
"""How many of the studs that a spacing wants were built."""
FRAMED = (0.9, 0.6)
"""How often there is a first and a second stud beside an opening."""


class StructureLine(Value, frozen=True, kw_only=True):
    """One line.

    Attributes:
        at_mm: Where its middle likely is, at the height `up_mm`. sd_mm: Its standard uncertainty there.
        chance: That it is there, 0 to 1. methods: By what it was found.
        lean_mm_per_m: How far it leans to the right for each metre up. lean_sd: How well that is known.
        double: Whether it is one of two that stand side by side.
    """

    at_mm: float
    sd_mm: float
    chance: float
    found_by: tuple[str, ...]
    up_mm: float = 0.0
    lean_mm_per_m: float = 0.0
    lean_sd: float = 0.0
    double: bool = False

    def at(self, up_mm: float) -> float:
        """Return where its middle likely is at a height, mm."""
        return self.at_mm + self.lean_mm_per_m * (up_mm - self.up_mm) / 1000.0


class Spacing(Value, frozen=True, kw_only=True):
    """One hypothesis on the spacing: mm, None for irregular, and its weight, 0 to 1."""

    mm: float | None
    weight: float


@dataclass(frozen=True)
class Structure:
    """What is known of the lines of a wall.

    Attributes:
        spacings: The hypotheses, likeliest first. lines: From left to right.
        density: Chance, for each millimetre of `grid`, that the middle of a line is within half a step of it.
        grid: Places along the wall, mm. width_mm: Width of a stud.
        odd: Detections that fit no line. against: What contradicts what.
        evidence: Log of how likely the detections are at all, where each falls on a millimetre of the wall.
        openings: Doors and windows, in which there is nothing.
    """

    spacings: tuple[Spacing, ...]
    lines: tuple[StructureLine, ...]
    grid: Floats
    density: Floats
    width_mm: float
    odd: tuple[str, ...]
    against: tuple[Contradiction, ...] = ()
    evidence: float = 0.0
    openings: tuple[WallOpening, ...] = ()

    def bites(self, x_mm: float, up_mm: float | None = None) -> float:
        """Return the chance that a screw at a place bites: that a middle lies within half a stud, less its edges.

        At a height other than where the nearest line was found, its lean is taken, and what is not known of it.
        Without a height nothing bites where there is an opening at any height.
        """
        if any(opening.holds(x_mm, up_mm) for opening in self.openings):
            return 0.0
        reach = self.width_mm / 2 - EDGE_MM
        near = min(self.lines, key=lambda line: abs(line.at_mm - x_mm), default=None)
        if up_mm is None or near is None:
            return float(min(self.density[np.abs(self.grid - x_mm) <= reach].sum(), 1.0))
        moved = near.at(up_mm) - near.at_mm
        wide = max(near.lean_sd * abs(up_mm - near.up_mm) / 1000.0, 0.1)
        far = reach + FAR_SD * wide
        start, end = np.searchsorted(self.grid, (x_mm - moved - far, x_mm - moved + far))
        off = self.grid[start:end] + moved - x_mm
        inside = ndtr((reach - off) / wide) - ndtr((-reach - off) / wide)
        return float(min((self.density[start:end] * inside).sum(), 1.0))


def structure(
    detections: tuple[Detection, ...],
    wall_mm: float,
    width_mm: float,
    kind: BackingKind = "wood studs",
    openings: tuple[WallOpening, ...] = (),
) -> Structure:
    """Return the lines of a wall from what was found on it; without detections nothing is known."""
    grid = np.arange(0.0, wall_mm + STEP_MM / 2, STEP_MM)
    inside = {d.id for d in detections if any(o.holds(*d.at) for o in openings)}
    useful = [d for d in detections if d.sees not in ("miss", "something else") and d.id not in inside]
    if not useful:
        told = tuple(against(detections, (), inside, width_mm))
        return Structure((), (), grid, np.zeros(len(grid)), width_mm, (), told, 0.0, openings)
    found = members(useful, width_mm, kind)
    framing = _framing(openings, width_mm)
    row = Row(found, width_mm, [x for x, _ in framing], wall_mm)
    spaced = [tried(row, s) for s in SPACINGS_MM]
    logs = np.array([t.log_weight for t in spaced] + [anywhere(row)])
    logs += np.log(np.array([(1 - IRREGULAR) / len(SPACINGS_MM)] * len(SPACINGS_MM) + [IRREGULAR]))
    weights = np.exp(logs - logs.max())
    evidence = float(logs.max()) + math.log(float(weights.sum())) + sum(m.log_likelihood for m in found)
    weights /= weights.sum()
    under = [(float(w), fitted(row, t)) for w, t in zip(weights, spaced, strict=False) if w > LEAST_WEIGHT]
    under.append((float(weights[-1]), irregular(row)))
    real = np.sum([w * f.real for w, f in under], axis=0) / sum(w for w, _ in under)
    kept = np.ones(len(grid))
    for x in (d.at[0] for d in detections if d.sees == "miss"):
        kept[np.abs(grid - x) < width_mm / 2] *= MISTAKEN
    density, lines = _as_found(found, under, real, kept, width_mm)
    wanted = _as_wanted(row, under, real, framing, openings, len(grid)) * kept
    up = float(np.mean([d.at[1] for d in useful]))
    lines += _hills(wanted, grid, up)
    odd = tuple(d.id for m, there in zip(found, real, strict=True) if there < EVEN for d in m.detections)
    named: tuple[float | None, ...] = (*SPACINGS_MM, None)
    return Structure(
        spacings=tuple(Spacing(mm=named[i], weight=float(weights[i])) for i in np.argsort(-weights)),
        lines=tuple(sorted(lines, key=lambda line: line.at_mm)),
        grid=grid,
        density=density + wanted,
        width_mm=width_mm,
        odd=odd,
        against=tuple(against(detections, odd, inside, width_mm)),
        evidence=evidence,
        openings=openings,
    )


def _as_found(
    found: Sequence[Member], under: Sequence[tuple[float, Fitted]], real: Floats, kept: Floats, width_mm: float
) -> tuple[Floats, list[StructureLine]]:
    """Return where middles of studs that were found are, meaned over the spacings, and the lines that they make."""
    density, lines = np.zeros(len(kept)), []
    for j, member in enumerate(found):
        parts = [
            (real[j] * share, at, member.sd_mm[n - 1], k, n)
            for n, share in enumerate(member.shares, start=1)
            for k, at in enumerate(member.middles(width_mm, n))
            if (n, member.studs) != (1, 1)
        ]
        if member.studs == 1:
            for weight, f in under:
                there, fits = weight * f.real[j] * member.shares[0], float(f.fits[j])
                parts.append((there * fits, float(f.at_mm[j]), float(f.sd_mm[j]), 0, 1))
                parts.append((there * (1 - fits), member.at_mm[0], member.sd_mm[0], 0, 1))
        share, at, sd = (np.array(column) for column in list(zip(*parts, strict=True))[:3])
        density += _spread(share, at, sd, len(kept)) * kept
        for k in range(member.studs):
            mine = np.array([(part[3], part[4]) == (k, member.studs) for part in parts])
            whole = float(share[mine].sum())
            mean = float(share[mine] @ at[mine]) / whole
            spread = math.sqrt(float(share[mine] @ (sd[mine] ** 2 + (at[mine] - mean) ** 2)) / whole)
            left = _spread(np.ones(1), np.array([mean]), np.array([spread]), len(kept))
            chance = float(real[j]) * float((left * kept).sum()) / max(float(left.sum()), 1e-9)
            if chance >= TOLD:
                lines.append(
                    StructureLine(
                        at_mm=mean,
                        sd_mm=spread,
                        chance=min(chance, 1.0),
                        found_by=member.found_by,
                        up_mm=member.up_mm,
                        lean_mm_per_m=member.lean_mm_per_m,
                        lean_sd=member.lean_sd,
                        double=member.studs > 1,
                    )
                )
    return density, lines


def _as_wanted(
    row: Row,
    under: Sequence[tuple[float, Fitted]],
    real: Floats,
    framing: Sequence[tuple[float, float]],
    openings: tuple[WallOpening, ...],
    n: int,
) -> Floats:
    """Return where middles of studs are that nobody found: as spacings want them, and beside openings."""
    beside = 2 * row.width_mm
    parts = [
        (weight * BUILT * chance, at, sd)
        for weight, f in under
        for at, chance, sd in f.wanted
        if not any(o.x_mm - beside < at < o.right_mm + beside for o in openings)
    ]
    for at, chance in framing:
        near = (row.low - row.width_mm < at) & (at < row.high + row.width_mm)
        parts.append((chance * (1.0 - float(real[near].max(initial=0.0))), at, ROUGH_SD_MM))
    if not parts:
        return np.zeros(n)
    share, middle, sd = (np.array(column) for column in zip(*parts, strict=True))
    return _spread(share, middle, sd, n)


def _framing(openings: tuple[WallOpening, ...], width_mm: float) -> list[tuple[float, float]]:
    """Return middles of studs beside openings, and how often there is one."""
    out = []
    for nth, chance in enumerate(FRAMED):
        beside = ROUGH_MM + (nth + 0.5) * width_mm
        out += [(x, chance) for o in openings for x in (o.x_mm - beside, o.right_mm + beside)]
    return out


def _spread(weight: Floats, mean: Floats, sd: Floats, n: int) -> Floats:
    """Return the chance of a middle at each of n steps from several places, each looked at as far as there is any."""
    reach = math.ceil(FAR_SD * float(sd.max(initial=STEP_MM)) / STEP_MM)
    steps = np.round(mean / STEP_MM).astype(int)[:, None] + np.arange(-reach, reach + 1)[None, :]
    edges = np.concatenate([steps, steps[:, -1:] + 1], axis=1) * STEP_MM - STEP_MM / 2
    mass = weight[:, None] * np.diff(ndtr((edges - mean[:, None]) / sd[:, None]), axis=1)
    there = (steps >= 0) & (steps < n)
    return np.bincount(steps[there], weights=mass[there], minlength=n).astype(float)


def _hills(density: Floats, grid: Floats, up_mm: float) -> list[StructureLine]:
    """Return lines that nobody found where the chance gathers: each hill of it, its middle, spread and whole."""
    out: list[StructureLine] = []
    rest = density.copy()
    reach = 60.0
    while True:
        i = int(np.argmax(np.convolve(rest, np.ones(15), mode="same")))
        near = np.abs(grid - grid[i]) <= reach
        mass = float(rest[near].sum())
        if mass < TOLD:
            return out
        mean = float((grid[near] * rest[near]).sum() / mass)
        spread = float(np.sqrt(max(((grid[near] - mean) ** 2 * rest[near]).sum() / mass, STEP_MM**2 / 12)))
        out.append(
            StructureLine(
                at_mm=mean,
                sd_mm=spread,
                chance=min(mass, 1.0),
                found_by=(),
                up_mm=up_mm,
                lean_sd=LEAN_SD_MM_PER_M,
            )
        )
        rest[near] = 0.0
