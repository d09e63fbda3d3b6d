"""Where studs, joists or ribs run: lines from a few detections, with the spacings that builders use as hypotheses.

Every detection is where something was found: a centre, an edge, a screw. Under a spacing s and a start x₀ the lines
stand at x₀ + k·s, each built a little off; under "irregular" they stand anywhere. The weight of a hypothesis is the
likelihood of the detections under it, summed over x₀; what is said of a screw is meaned over all hypotheses. Some
detections are false. Bites and misses of holes already drilled are detections like others, and the surest.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr

from wobble.core.behind import Detection, Method
from wobble.core.gauge.prior import Floats
from wobble.core.job import Value

SPACINGS_MM = (400.0, 406.4, 488.0, 600.0, 609.6)
BUILT_SD_MM = 4.0
"""How far a stud stands from where its spacing wants it."""
IRREGULAR = 0.02
"""Prior weight of no spacing at all."""
FALSE_SHARE = 0.04
USUAL_MM = 500.0
STEP_MM = 2.0
EDGE_MM = 8.0
"""A screw nearer to a stud's edge than this splits it or slips out."""
SURE = 0.9

SD_MM: dict[Method, float] = {"scanner": 5.0, "magnet": 8.0, "knock": 18.0, "trial hole": 2.0, "nail seen": 8.0}


class StructureLine(Value, frozen=True, kw_only=True):
    """One line: where it likely is, its standard uncertainty, mm, how sure it is there, and found by what."""

    at_mm: float
    sd_mm: float
    chance: float
    methods: tuple[str, ...]


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
        odd: Detections that fit no line.
    """

    spacings: tuple[Spacing, ...]
    lines: tuple[StructureLine, ...]
    grid: Floats
    density: Floats
    width_mm: float
    odd: tuple[str, ...]

    def bites(self, x_mm: float) -> float:
        """Return the chance that a screw at a place bites: that a middle lies within half a stud, less its edges."""
        reach = self.width_mm / 2 - EDGE_MM
        return float(min(self.density[np.abs(self.grid - x_mm) <= reach].sum(), 1.0))


def structure(detections: tuple[Detection, ...], wall_mm: float, width_mm: float) -> Structure:
    """Return the lines of a wall from what was found on it; without detections nothing is known."""
    grid = np.arange(0.0, wall_mm + STEP_MM / 2, STEP_MM)
    useful = [d for d in detections if d.sees != "miss"]
    if not useful:
        return Structure((), (), grid, np.zeros(len(grid)), width_mm, ())
    seen = np.array([_middle(d, width_mm) for d in useful])
    sd = np.array([_sd(d, width_mm) for d in useful])
    misses = [d.at[0] for d in detections if d.sees == "miss"]
    found = [_regular(seen, sd, spacing, wall_mm, width_mm, misses) for spacing in SPACINGS_MM]
    logs = np.array([f.log_weight for f in found] + [_irregular_log(seen, sd, wall_mm)])
    logs += np.log(np.array([(1 - IRREGULAR) / len(SPACINGS_MM)] * len(SPACINGS_MM) + [IRREGULAR]))
    weights = np.exp(logs - logs.max())
    weights /= weights.sum()
    density = sum(
        (w * _density(f, seen, sd, grid) for w, f in zip(weights, found, strict=False)),
        weights[-1] * _alone(seen, sd, grid),
    )
    density = np.asarray(density)
    for x in misses:  # no stud is there, unless the hole was taken for a miss wrongly
        density[np.abs(grid - x) < width_mm / 2] *= FALSE_SHARE
    order = np.argsort(-weights)
    named: tuple[float | None, ...] = (*SPACINGS_MM, None)
    spacings = tuple(Spacing(mm=named[i], weight=float(weights[i])) for i in order)
    lines = _lines(density, grid, useful, seen, sd)
    odd = tuple(d.id for d, x, s in zip(useful, seen, sd, strict=True) if not _near(lines, x, s, width_mm))
    return Structure(spacings, lines, grid, density, width_mm, odd)


def _middle(detection: Detection, width_mm: float) -> float:
    """Return where a detection puts the middle of its stud."""
    shift = {"left edge": width_mm / 2, "right edge": -width_mm / 2}.get(detection.sees, 0.0)
    return detection.at[0] + shift


def _sd(detection: Detection, width_mm: float) -> float:
    """Return the standard uncertainty of that: a screw or a hole sits anywhere in the stud's width."""
    own = SD_MM[detection.method]
    within = width_mm / math.sqrt(12.0) if detection.sees in ("screw", "hit") else 0.0
    return math.hypot(own, within)


@dataclass(frozen=True)
class _Regular:
    spacing: float
    log_weight: float
    starts: Floats
    share: Floats


def _regular(
    seen: Floats, sd: Floats, spacing: float, wall_mm: float, width_mm: float, misses: list[float]
) -> _Regular:
    """Return a spacing's weight and the posterior of its start, by trying every start."""
    starts = np.arange(0.0, spacing, STEP_MM)
    off = (seen[None, :] - starts[:, None] + spacing / 2) % spacing - spacing / 2
    wide = np.hypot(sd, BUILT_SD_MM)
    # a detection of nothing falls anywhere along the wall
    density = (1 - FALSE_SHARE) * np.exp(-0.5 * (off / wide) ** 2) / (wide * math.sqrt(2 * math.pi))
    n_lines = max(wall_mm / spacing, 1.0)
    log = np.log(density / n_lines + FALSE_SHARE / wall_mm).sum(axis=1)
    for x in misses:
        away = np.abs((x - starts + spacing / 2) % spacing - spacing / 2)
        log += np.log(1 - 0.97 * (ndtr((width_mm / 2 - away) / BUILT_SD_MM)) + 1e-6)
    peak = float(log.max())
    share = np.exp(log - peak)
    return _Regular(spacing, peak + math.log(share.mean()), starts, np.asarray(share / share.sum()))


def _irregular_log(seen: Floats, sd: Floats, wall_mm: float) -> float:
    """Return the weight of lines that stand anywhere: the first detection of each is free, the rest agree with it."""
    order = np.argsort(seen)
    n_lines = max(wall_mm / USUAL_MM, 1.0)  # which of them a detection is of is not known beforehand
    log, last, last_sd = 0.0, -math.inf, 0.0
    for x, s in zip(seen[order], sd[order], strict=True):
        wide = math.hypot(s, last_sd)
        if x - last < 3 * wide:
            log += -0.5 * ((x - last) / wide) ** 2 - math.log(wide * math.sqrt(2 * math.pi) * n_lines)
        else:
            log -= math.log(wall_mm)
            last, last_sd = float(x), float(s)
    return log


def _density(found: _Regular, seen: Floats, sd: Floats, grid: Floats) -> Floats:
    """Return the chance of a middle at each step under one spacing, sharpened by what was seen of each line."""
    out = np.zeros(len(grid))
    keep = found.share > found.share.max() * 1e-3
    for start, weight in zip(found.starts[keep], found.share[keep], strict=True):
        for at in np.arange(start, grid[-1] + found.spacing / 2, found.spacing):
            mean, wide = _sharpened(float(at), seen, sd)
            out += weight * _mass(grid, mean, wide)
    return out


def _sharpened(at: float, seen: Floats, sd: Floats) -> tuple[float, float]:
    """Return where one line stands: built near its place, and as the detections of it say."""
    precision, total = 1 / BUILT_SD_MM**2, at / BUILT_SD_MM**2
    mine = np.abs(seen - at) <= 3 * np.hypot(sd, BUILT_SD_MM)
    precision += float((1 / sd[mine] ** 2).sum())
    total += float((seen[mine] / sd[mine] ** 2).sum())
    return total / precision, math.sqrt(1 / precision)


def _alone(seen: Floats, sd: Floats, grid: Floats) -> Floats:
    """Return the chance of a middle where only detections say so."""
    out = np.zeros(len(grid))
    for x, s in zip(seen, sd, strict=True):
        same = np.abs(seen - x) < 3 * np.hypot(sd, s)
        out += (1 - FALSE_SHARE) * _mass(grid, float(x), float(s)) / same.sum()
    return out


def _mass(grid: Floats, mean: float, sd: float) -> Floats:
    low, high = (grid - STEP_MM / 2 - mean) / sd, (grid + STEP_MM / 2 - mean) / sd
    return np.asarray(ndtr(high) - ndtr(low))


def _lines(
    density: Floats, grid: Floats, detections: list[Detection], seen: Floats, sd: Floats
) -> tuple[StructureLine, ...]:
    """Return lines where the chance gathers: each hill of the density, its middle, spread and whole."""
    out = []
    rest = density.copy()
    reach = 60.0
    while True:
        i = int(np.argmax(np.convolve(rest, np.ones(15), mode="same")))
        near = np.abs(grid - grid[i]) <= reach
        mass = float(rest[near].sum())
        if mass < 0.2:
            break
        mean = float((grid[near] * rest[near]).sum() / mass)
        spread = float(np.sqrt(max(((grid[near] - mean) ** 2 * rest[near]).sum() / mass, STEP_MM**2 / 12)))
        mine = np.abs(seen - mean) <= 3 * np.hypot(sd, spread)
        methods = tuple(sorted({d.method for d, k in zip(detections, mine, strict=True) if k}))
        out.append(StructureLine(at_mm=mean, sd_mm=spread, chance=min(mass, 1.0), methods=methods))
        rest[near] = 0.0
    return tuple(sorted(out, key=lambda line: line.at_mm))


def _near(lines: tuple[StructureLine, ...], x: float, sd: float, width_mm: float) -> bool:
    return any(abs(line.at_mm - x) <= width_mm / 2 + 2.5 * math.hypot(line.sd_mm, sd) for line in lines)
