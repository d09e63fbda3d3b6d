"""Under which spacing the members of a wall stand, and what that says of studs that nobody found.

Under a spacing s and a start x₀ studs stand at x₀ + k·s, each built a little off. Some members stand elsewhere: beside
doors and windows, in corners, where a wall meets another; doubles most of all. Under "irregular" all stand anywhere.
The weight of a spacing is the likelihood of the members under it, meaned over every start.

A stud that a spacing wants and that was not found may stand in a doorway: where members that fit no spacing stand on
both sides of a gap, most likely so.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.hold.structure.members import Member

SPACINGS_MM = (400.0, 406.4, 488.0, 600.0, 609.6)
BUILT_SD_MM = 4.0
"""How far a stud stands from where its spacing wants it."""
IRREGULAR = 0.08
"""Prior weight of no spacing at all."""
FITTING = (0.93, 0.5, 0.3)
"""How many single studs, doubles and triples have a stud where the spacing wants one."""
STEP_MM = 2.0
ROUGH_MM = 12.0
ROUGH_SD_MM = 12.0
"""How far beside the clear opening its framing begins."""
BESIDE_MM = 15.0
OPENING = 0.05
"""How many gaps in which a stud is missing are doorways or windows, before their sides are looked at."""
FLANKED = 9.0
"""How much likelier a member that fits no spacing stands beside an opening than elsewhere."""
UNNOTICED = 0.3
"""How often a stud that is there was not noticed, or not looked for."""
AT_END = 0.3
"""How much less likely an opening, or a search that ended, is told by one side alone."""
NARROW_MM = 500.0
"""No opening is narrower than this between its framing."""
LEAST_SHARE = 1e-3


@dataclass(frozen=True)
class Fitted:
    """Members under one spacing, or under none.

    Attributes:
        real: How likely each is a member at all.
        fits: How likely each stands where the spacing wants a stud, given that it is real.
        at_mm: Where that stud would be, given that it fits. sd_mm: How well that is known.
        wanted: Places where a stud is wanted and none was found, with how likely it is there and how well the place
            is known, mm.
    """

    real: Floats
    fits: Floats
    at_mm: Floats
    sd_mm: Floats
    wanted: tuple[tuple[float, float, float], ...] = ()


class Row:
    """Members as arrays: middles of their studs, one row each, filled up with none, and what else is asked of them."""

    def __init__(self, found: Sequence[Member], width_mm: float, beside: Sequence[float], wall_mm: float) -> None:
        self.width_mm, self.wall_mm = width_mm, wall_mm
        self.studs = np.array([m.studs for m in found])
        self.middles = np.full((len(found), self.studs.max()), np.nan)
        for j, member in enumerate(found):
            self.middles[j, : member.studs] = member.middles(width_mm)
        self.low, self.high = self.middles[:, 0], self.middles[np.arange(len(found)), self.studs - 1]
        self.sd = np.array([m.sd_mm[m.studs - 1] for m in found])
        self.stray = np.array([m.stray for m in found])
        self.several = np.array([1.0 - m.shares[0] for m in found])
        self.fitting = np.array(FITTING)[self.studs - 1]
        self.elsewhere = np.full(len(found), 1.0 / wall_mm)
        if beside:  # what fits no spacing stands beside an opening, or anywhere
            sd = np.hypot(BESIDE_MM, self.sd)[:, None, None]
            near = np.exp(-0.5 * ((self.middles[:, :, None] - np.asarray(beside)) / sd) ** 2)
            dense = np.nansum(near, axis=(1, 2)) / (self.studs * len(beside) * sd[:, 0, 0] * math.sqrt(2 * math.pi))
            self.elsewhere = 0.5 / wall_mm + 0.5 * dense

    def away(self, starts: Floats, spacing: float) -> Floats:
        """Return how far each stud stands from a line of the spacing, for each start: starts by members by studs."""
        off = self.middles - starts[:, None, None]
        return np.asarray(off - spacing * np.round(off / spacing))


@dataclass(frozen=True)
class Tried:
    """A spacing with every start tried: its log weight, and for each start and member how likely it stands so.

    `on` is how likely it stands where the spacing wants it, `each` how likely it is as it is at all.
    """

    mm: float
    log_weight: float
    starts: Floats
    share: Floats
    away: Floats
    on: Floats
    each: Floats


def anywhere(row: Row) -> float:
    """Return the log weight of members that stand anywhere."""
    return -len(row.stray) * math.log(row.wall_mm)


def tried(row: Row, spacing: float) -> Tried:
    """Return how well members stand under a spacing, each start tried."""
    starts = np.arange(0.0, spacing, STEP_MM)
    sd = np.hypot(row.sd, BUILT_SD_MM)
    away = row.away(starts, spacing)
    near = np.nansum(np.exp(-0.5 * (away / sd[:, None]) ** 2), axis=2) / (row.studs * sd * math.sqrt(2 * math.pi))
    on = (1 - row.stray) * row.fitting * near / max(row.wall_mm / spacing, 1.0)
    each = on + (1 - row.stray) * (1 - row.fitting) * row.elsewhere + row.stray / row.wall_mm
    log = np.log(each).sum(axis=1)
    peak = float(log.max())
    share = np.asarray(np.exp(log - peak))
    weight = peak + math.log(float(share.mean()))
    kept = share > LEAST_SHARE
    return Tried(spacing, weight, starts[kept], share[kept] / share[kept].sum(), away[kept], on[kept], each[kept])


def irregular(row: Row) -> Fitted:
    """Return members that stand anywhere."""
    n = len(row.stray)
    return Fitted(1.0 - row.stray, np.zeros(n), np.zeros(n), np.ones(n))


def fitted(row: Row, under: Tried) -> Fitted:
    """Return members under a spacing, its start as likely as it is."""
    share = under.share[:, None]
    fits = share * under.on / under.each
    real = np.asarray(1.0 - (share * (row.stray / row.wall_mm) / under.each).sum(axis=0))
    share_fitting = np.asarray(fits.sum(axis=0) / np.maximum(real, 1e-12))
    strange = real * (1 - share_fitting * (1 - row.several))
    wanted = _wanted(row, _lines_of(under.mm, under.starts, under.share, row.wall_mm), real, strange)
    return Fitted(real, share_fitting, *_placed(row, under.away, fits), tuple(wanted))


def _placed(row: Row, away: Floats, weight: Floats) -> tuple[Floats, Floats]:
    """Return where the fitting stud of each member stands, drawn towards where the spacing wants it, and its sd."""
    best = np.nanargmin(np.abs(away), axis=2)[:, :, None]
    off = np.take_along_axis(away, best, axis=2)[:, :, 0]
    middle = np.take_along_axis(np.broadcast_to(row.middles, away.shape), best, axis=2)[:, :, 0]
    total = weight.sum(axis=0)
    share = weight / np.maximum(total, 1e-300)
    gain = row.sd**2 / (row.sd**2 + BUILT_SD_MM**2)
    drawn = middle - gain * off
    at = (share * drawn).sum(axis=0)
    sd = np.sqrt((1 - gain) * row.sd**2 + (share * (drawn - at) ** 2).sum(axis=0))
    known = total > 1e-300
    return np.where(known, at, row.low), np.where(known, sd, row.sd)


def _wanted(
    row: Row, lines: Sequence[tuple[float, float, float]], real: Floats, strange: Floats
) -> list[tuple[float, float, float]]:
    """Return places where the spacing wants studs and none was found: middle, chance, sd of it."""
    gaps: dict[tuple[int, int], list[tuple[float, float, float]]] = {}
    for middle, weight, sd in lines:
        taken = (row.low - row.width_mm < middle) & (middle < row.high + row.width_mm)
        chance = weight * float(np.prod(1.0 - real[taken]))
        before = np.flatnonzero((row.high < middle) & ~taken & (real > 0.5))
        after = np.flatnonzero((row.low > middle) & ~taken & (real > 0.5))
        gap = int(before[-1]) if len(before) else -1, int(after[0]) if len(after) else -1
        gaps.setdefault(gap, []).append((middle, chance, sd))
    missing = {gap: max(1.0, sum(chance for _, chance, _ in places)) for gap, places in gaps.items()}
    out = []
    for (left, right), places in gaps.items():
        flanks = [float(strange[j]) for j in (left, right) if j >= 0]
        low, high = row.high[left] if left >= 0 else 0.0, row.low[right] if right >= 0 else row.wall_mm
        odds = 0.0
        if high - low >= NARROW_MM + row.width_mm and flanks:
            # who noticed all other studs will have noticed these, were they there
            others = sum(missing.values()) - missing[left, right]
            unnoticed = (UNNOTICED * 2 + others) / (2 + others + float(real.sum()))
            odds = OPENING / (1 - OPENING) * unnoticed ** -missing[left, right]
            odds *= math.prod(s * FLANKED + (1 - s) / FLANKED for s in flanks)
            odds *= AT_END if len(flanks) == 1 else 1.0
        out += [(middle, chance / (1.0 + odds), sd) for middle, chance, sd in places]
    return out


def _lines_of(spacing: float, starts: Floats, share: Floats, wall_mm: float) -> list[tuple[float, float, float]]:
    """Return where the lines of a spacing stand: middle, weight, sd; starts that are near each other are one."""
    out = []
    ends = np.flatnonzero(np.diff(starts) > 10 * STEP_MM) + 1
    heaps = np.split(np.arange(len(starts)), ends)
    for heap in heaps:
        weight = float(share[heap].sum())
        mean = float(share[heap] @ starts[heap]) / weight
        sd = math.sqrt(float(share[heap] @ (starts[heap] - mean) ** 2) / weight + BUILT_SD_MM**2)
        out += [(float(x), weight, sd) for x in np.arange(mean, wall_mm + spacing / 2, spacing)]
    return out
