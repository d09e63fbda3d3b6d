"""Where studs, joists or ribs run: lines from a few detections, with the spacings that builders use as hypotheses.

Every detection is where something was found: a centre, an edge, a screw. Under a spacing s and a start x₀ the lines
stand at x₀ + k·s, each built a little off; under "irregular" they stand anywhere. The weight of a hypothesis is the
likelihood of the detections under it, summed over x₀; what is said of a screw is meaned over all hypotheses. Some
detections are false. Bites and misses of holes already drilled are detections like others, and the surest.

A line that was found at several heights has a lean of its own; elsewhere than where it was found it is known less well.
Two edges as far apart as two studs are a double member: two lines, and no screw into the joint.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from msgspec.structs import replace
from scipy.special import ndtr

from wobble.core.facts import Detection, FoundBy
from wobble.core.gauge.prior import Floats
from wobble.core.job import Value
from wobble.core.job.backing import BackingKind, Runs

SPACINGS_MM = (400.0, 406.4, 488.0, 600.0, 609.6)
BUILT_SD_MM = 4.0
"""How far a stud stands from where its spacing wants it."""
IRREGULAR = 0.02
"""Prior weight of no spacing at all."""
FALSE_SHARE = 0.04
USUAL_MM = 500.0
STEP_MM = 2.0
FAR_SD = 6.0
LEAST_WEIGHT = 1e-6
"""A spacing less likely than this says nothing of any screw."""
EDGE_MM = 8.0
"""A screw nearer to a stud's edge than this splits it or slips out."""
DOUBLE_WIDE = (1.6, 2.5)
"""A member as many studs wide as this is two."""
DOUBLE_CHANCE = 0.96
SAID_SURE = 0.95
"""How sure it is which way joists run where somebody said so and nothing was found."""
SAID_LOG = math.log(SAID_SURE / (1.0 - SAID_SURE))
LEAN_SD_MM_PER_M = 2.0
"""How far studs lean that nobody looked at."""

SD_MM: dict[FoundBy, float] = {"scanner": 5.0, "magnet": 8.0, "knock": 18.0, "trial hole": 2.0, "nail seen": 8.0}


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


class Contradiction(Value, frozen=True, kw_only=True):
    """Detections that do not go together: which, where along the lines' axis, and what that looks like."""

    detections: tuple[str, ...]
    at_mm: float
    text: str


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
    """

    spacings: tuple[Spacing, ...]
    lines: tuple[StructureLine, ...]
    grid: Floats
    density: Floats
    width_mm: float
    odd: tuple[str, ...]
    against: tuple[Contradiction, ...] = ()
    evidence: float = 0.0

    def bites(self, x_mm: float, up_mm: float | None = None) -> float:
        """Return the chance that a screw at a place bites: that a middle lies within half a stud, less its edges.

        At a height other than where the nearest line was found, its lean is taken, and what is not known of it.
        """
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
    detections: tuple[Detection, ...], wall_mm: float, width_mm: float, kind: BackingKind = "wood studs"
) -> Structure:
    """Return the lines of a wall from what was found on it; without detections nothing is known."""
    grid = np.arange(0.0, wall_mm + STEP_MM / 2, STEP_MM)
    useful = [d for d in detections if d.sees not in ("miss", "something else")]
    if not useful:
        return Structure((), (), grid, np.zeros(len(grid)), width_mm, ())
    seen = np.array([_middle(d, width_mm) for d in useful])
    sd = np.array([_sd(d, width_mm, kind) for d in useful])
    misses = [d.at[0] for d in detections if d.sees == "miss"]
    found = [_regular(seen, sd, spacing, wall_mm, width_mm, misses) for spacing in SPACINGS_MM]
    logs = np.array([f.log_weight for f in found] + [_irregular_log(seen, sd, wall_mm)])
    logs += np.log(np.array([(1 - IRREGULAR) / len(SPACINGS_MM)] * len(SPACINGS_MM) + [IRREGULAR]))
    weights = np.exp(logs - logs.max())
    evidence = float(logs.max()) + math.log(float(weights.sum()))
    weights /= weights.sum()
    density = weights[-1] * _alone(seen, sd, grid)
    for weight, f in zip(weights, found, strict=False):
        if weight > LEAST_WEIGHT:
            density += weight * _density(f, seen, sd, grid)
    for x in misses:  # no stud is there, unless the hole was taken for a miss wrongly
        density[np.abs(grid - x) < width_mm / 2] *= FALSE_SHARE
    order = np.argsort(-weights)
    named: tuple[float | None, ...] = (*SPACINGS_MM, None)
    spacings = tuple(Spacing(mm=named[i], weight=float(weights[i])) for i in order)
    pairs = _doubles(useful, width_mm)
    for a, b in pairs:
        density[(grid > a - width_mm) & (grid < b + width_mm)] = 0.0
    lines = _lines(density, grid, useful, seen, sd)
    for a, b in pairs:
        for middle in (a + width_mm / 2, b - width_mm / 2):
            one = np.array([middle]), np.array([SD_MM["scanner"]])
            density += _spread(np.array([DOUBLE_CHANCE]), *one, len(grid))
            found_by = tuple(sorted({d.found_by for d, x in zip(useful, seen, strict=True) if a < x < b}))
            double = StructureLine(
                at_mm=middle, sd_mm=SD_MM["scanner"], chance=DOUBLE_CHANCE, found_by=found_by, double=True
            )
            lines = (*lines, double)
    lines = tuple(sorted((_leaning(line, useful, seen, sd) for line in lines), key=lambda line: line.at_mm))
    odd = tuple(d.id for d, x, s in zip(useful, seen, sd, strict=True) if not _near(lines, x, s, width_mm))
    against = tuple(_against(detections, odd, width_mm))
    return Structure(spacings, lines, grid, density, width_mm, odd, against, evidence)


@dataclass(frozen=True)
class Joists:
    """The lines over a ceiling or under a floor, which way they run, how sure that is, and whether it was said."""

    lines: Structure
    runs: Runs
    sure: float
    said: Runs

    @property
    def against_what_was_said(self) -> bool:
        """Whether what was found says that they run the other way."""
        return self.said not in ("not known", self.runs)

    @property
    def axis(self) -> int:
        """Which coordinate of a spot counts across them."""
        return 1 if self.runs == "along" else 0


def joists(detections: tuple[Detection, ...], long_mm: float, deep_mm: float, width_mm: float, said: Runs) -> Joists:
    """Return the joists over a ceiling, which way they run, and how sure that is, 0 to 1.

    Joists that run out from the back are lines at places along it; such as run along it are lines at places out. Both
    are weighed: the detections gather on lines one way, and fall anywhere the other way. What was said counts as one
    likely guess among them and gives way to what was found.
    """
    turned = tuple(replace(d, at=(d.at[1], d.at[0])) for d in detections)
    out, along = structure(detections, long_mm, width_mm), structure(turned, deep_mm, width_mm)
    n = len([d for d in detections if d.sees not in ("miss", "something else")])
    if n == 0:
        return Joists(along if said == "along" else out, said, 0.0 if said == "not known" else SAID_SURE, said)
    more = (out.evidence - n * math.log(deep_mm)) - (along.evidence - n * math.log(long_mm))
    more += {"out": SAID_LOG, "along": -SAID_LOG}.get(said, 0.0)
    share = 1.0 / (1.0 + math.exp(-max(min(more, 50.0), -50.0)))
    return Joists(out, "out", share, said) if share >= 0.5 else Joists(along, "along", 1.0 - share, said)


def _middle(detection: Detection, width_mm: float) -> float:
    """Return where a detection puts the middle of its stud."""
    shift = {"left edge": width_mm / 2, "right edge": -width_mm / 2}.get(detection.sees, 0.0)
    return detection.at[0] + shift


def _sd(detection: Detection, width_mm: float, kind: BackingKind = "wood studs") -> float:
    """Return the standard uncertainty of that: a screw or a hole sits anywhere in the stud's width.

    Through lath and plaster a scanner sees half as sharply.
    """
    own = SD_MM[detection.found_by] * (2.0 if kind == "lath and plaster" and detection.found_by == "scanner" else 1.0)
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
    keep = found.share > found.share.max() * 1e-3
    n = int(grid[-1] / found.spacing) + 2
    at = found.starts[keep][:, None] + found.spacing * np.arange(n)[None, :]
    weight = np.broadcast_to(found.share[keep][:, None], at.shape)
    on_wall = at <= grid[-1] + found.spacing / 2
    mean, wide = _sharpened(at[on_wall], seen, sd)
    return _spread(weight[on_wall], mean, wide, len(grid))


def _sharpened(at: Floats, seen: Floats, sd: Floats) -> tuple[Floats, Floats]:
    """Return where lines stand, and how well that is known: built near their places, and as their detections say."""
    mine = (np.abs(seen[None, :] - at[:, None]) <= 3 * np.hypot(sd, BUILT_SD_MM)[None, :]).astype(float)
    precision = 1 / BUILT_SD_MM**2 + mine @ (1 / sd**2)
    total = at / BUILT_SD_MM**2 + mine @ (seen / sd**2)
    return np.asarray(total / precision), np.asarray(np.sqrt(1 / precision))


def _alone(seen: Floats, sd: Floats, grid: Floats) -> Floats:
    """Return the chance of a middle where only detections say so."""
    out = np.zeros(len(grid))
    for x, s in zip(seen, sd, strict=True):
        same = np.abs(seen - x) < 3 * np.hypot(sd, s)
        out += _spread(np.array([(1 - FALSE_SHARE) / same.sum()]), np.array([x]), np.array([s]), len(grid))
    return out


def _spread(weight: Floats, mean: Floats, sd: Floats, n: int) -> Floats:
    """Return the chance of a middle at each of n steps from several places, each looked at as far as there is any."""
    reach = math.ceil(FAR_SD * float(sd.max(initial=STEP_MM)) / STEP_MM)
    steps = np.round(mean / STEP_MM).astype(int)[:, None] + np.arange(-reach, reach + 1)[None, :]
    edges = np.concatenate([steps, steps[:, -1:] + 1], axis=1) * STEP_MM - STEP_MM / 2
    mass = weight[:, None] * np.diff(ndtr((edges - mean[:, None]) / sd[:, None]), axis=1)
    there = (steps >= 0) & (steps < n)
    return np.bincount(steps[there], weights=mass[there], minlength=n).astype(float)


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
        found_by = tuple(sorted({d.found_by for d, k in zip(detections, mine, strict=True) if k}))
        out.append(StructureLine(at_mm=mean, sd_mm=spread, chance=min(mass, 1.0), found_by=found_by))
        rest[near] = 0.0
    return tuple(sorted(out, key=lambda line: line.at_mm))


def _near(lines: tuple[StructureLine, ...], x: float, sd: float, width_mm: float) -> bool:
    return any(abs(line.at_mm - x) <= width_mm / 2 + 2.5 * math.hypot(line.sd_mm, sd) for line in lines)


def _doubles(detections: list[Detection], width_mm: float) -> list[tuple[float, float]]:
    """Return the outer edges of double members: a left edge whose next edge is a right one, two studs away."""
    edges = sorted((d.at[0], d.sees) for d in detections if d.sees in ("left edge", "right edge"))
    low, high = (share * width_mm for share in DOUBLE_WIDE)
    return [
        (a, b)
        for (a, sees), (b, other) in itertools.pairwise(edges)
        if sees == "left edge" and other == "right edge" and low <= b - a <= high
    ]


def _leaning(line: StructureLine, detections: list[Detection], seen: Floats, sd: Floats) -> StructureLine:
    """Return a line with the lean that its detections at several heights say, and builders allow."""
    mine = np.abs(seen - line.at_mm) <= 3 * np.hypot(sd, line.sd_mm)
    if not mine.any():
        return replace(line, lean_sd=LEAN_SD_MM_PER_M)
    up = np.array([d.at[1] for d in detections])[mine] / 1000.0
    weight = 1.0 / sd[mine] ** 2
    middle = float((weight * up).sum() / weight.sum())
    precision = 1.0 / LEAN_SD_MM_PER_M**2 + float((weight * (up - middle) ** 2).sum())
    lean = float((weight * (seen[mine] - line.at_mm) * (up - middle)).sum()) / precision
    return replace(line, up_mm=middle * 1000.0, lean_mm_per_m=lean, lean_sd=1.0 / math.sqrt(precision))


def _against(detections: tuple[Detection, ...], odd: tuple[str, ...], width_mm: float) -> Iterator[Contradiction]:
    """Yield what contradicts what: a hole that missed where something was seen, and what fits no line."""
    for d in detections:
        if d.id in odd:
            text = f"Found by {d.found_by}, it fits no line: a pipe, a batten, a clip? Find out before you drill."
            yield Contradiction(detections=(d.id,), at_mm=d.at[0], text=text)
        if d.sees != "miss":
            continue
        shown = tuple(
            o
            for o in detections
            if o.sees not in ("miss", "something else") and abs(_middle(o, width_mm) - d.at[0]) < width_mm / 2 - EDGE_MM
        )
        if shown:
            text = (
                f"A hole missed where the {' and '.join(sorted({o.found_by for o in shown}))} shows wood: try a "
                "finger's width aside, or look for it by another method."
            )
            yield Contradiction(detections=(d.id, *(o.id for o in shown)), at_mm=d.at[0], text=text)
