"""What detections are of: studs, or two or three side by side, each with its place and lean and how well it is known.

Detections in a row belong to one member or to several. Each way to part them is weighed: the likelihood of a member's
detections over every place and every lean that builders allow, Gaussian both, so in closed form (Rasmussen & Williams
2006, eq. 2.43 for two unknowns); the best way is found by going once along the wall. A left edge and a right edge two
studs apart are a double, at whatever heights they were seen.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from wobble.core.facts import Detection, FoundBy
from wobble.core.gauge.prior import Floats
from wobble.core.job.backing import BackingKind

Indices = NDArray[np.int_]

SD_MM: dict[FoundBy, float] = {"scanner": 5.0, "magnet": 8.0, "knock": 18.0, "trial hole": 2.0, "nail seen": 8.0}
LEAN_SD_MM_PER_M = 2.0
"""How far studs lean that nobody looked at."""
SIDE_BY_SIDE = (0.88, 0.1, 0.02)
"""How many members are one stud, two and three."""
USUAL_MM = 500.0
"""How far apart members usually stand."""
STRAY = 0.05
"""How many detections are of nothing: a pipe clip, a clout, a batten."""
AGAIN, OTHERWISE = 0.25, 0.2
"""How much rarer that which is found once more, or by a second method, is of nothing."""
HIT_STRAY = 0.005
FORCED_STRAY = 0.97
"""A lone detection closer to a stud than another stud can stand is of nothing, or of that stud and far out."""
OVERLAP = 0.7
"""Two that seem to stand nearer to each other than this share of a stud's width are one, seen badly."""
WAYS = 4
"""In about so many ways people find studs."""
MOST = 24
"""Detections of one member that are weighed together."""


@dataclass(frozen=True)
class Member:
    """Studs side by side, as their detections say.

    Attributes:
        detections: Of it. at_mm: Middle of the whole, at the height `up_mm`. sd_mm: How well that is known.
        shares: How likely it is one stud, two, three. stray: How likely it is none, before any spacing is looked at.
        lean_mm_per_m: How far it leans to the right for each metre up. lean_sd: How well that is known.
    """

    detections: tuple[Detection, ...]
    at_mm: tuple[float, float, float]
    sd_mm: tuple[float, float, float]
    shares: tuple[float, float, float]
    stray: float
    log_likelihood: float
    up_mm: float
    lean_mm_per_m: float
    lean_sd: float

    @property
    def found_by(self) -> tuple[str, ...]:
        """By what it was found."""
        return tuple(sorted({d.found_by for d in self.detections}))

    @cached_property
    def studs(self) -> int:
        """How many studs it likely is."""
        return 1 + self.shares.index(max(self.shares))

    def middles(self, width_mm: float, studs: int | None = None) -> tuple[float, ...]:
        """Return the middle of each of its studs, mm; of so many if that is said."""
        n = studs or self.studs
        return tuple(self.at_mm[n - 1] + (k - (n - 1) / 2) * width_mm for k in range(n))


def members(detections: Sequence[Detection], width_mm: float, kind: BackingKind = "wood studs") -> tuple[Member, ...]:
    """Return what the detections are of, from left to right; misses and what is no wood are not among them."""
    if not detections:
        return ()
    row = sorted(detections, key=lambda d: (middle_of(d, 1, width_mm), d.id))
    sums = [_Sums(row, n, width_mm, kind) for n in (1, 2, 3)]
    parted = _parted(row, sums, width_mm)
    middles = np.array([middle_of(d, 1, width_mm) for d in row])
    habits = [d for start, end in parted if end - start > 1 for d in row[start:end]] or row
    n_lone = sum(end - start == 1 for start, end in parted)
    out: list[Member] = []
    parted = _none_overlaps(parted, sums[0], width_mm)
    ways = np.stack([s.stretches(*np.array(parted).T) for s in sums])
    for j, (start, end) in enumerate(parted):
        around = np.delete(middles, np.arange(start, end))
        stray = 0.0
        if end - start == 1:
            forced = bool((np.abs(around - middles[start]) < width_mm / 2).any())
            stray = FORCED_STRAY if forced else _lone_stray(row[start], habits, len(row), n_lone)
        member = _member(row[start:end], ways[:, :, j].tolist(), stray)
        if out and _touch(out[-1], member, width_mm):
            member = _nailed(out.pop(), member, width_mm)
        out.append(member)
    return tuple(out)


def _none_overlaps(parted: list[tuple[int, int]], single: _Sums, width_mm: float) -> list[tuple[int, int]]:
    """Return stretches of which none lies so near to the next that two studs cannot stand there: they are one."""
    middles = single.stretches(*np.array(parted).T)[1]
    out = parted[:1]
    for (start, end), apart in zip(parted[1:], np.diff(middles), strict=True):
        several = min(end - start, out[-1][1] - out[-1][0]) > 1
        first = out.pop()[0] if several and apart < OVERLAP * width_mm else start
        out.append((first, end))
    return out


def _touch(left: Member, right: Member, width_mm: float) -> bool:
    """Whether two single studs stand so near to each other that they are side by side."""
    apart = right.at_mm[0] - left.at_mm[0]
    surely = max(left.stray, right.stray) < 0.5 and left.studs == right.studs == 1
    return surely and apart < width_mm + 2 * math.hypot(left.sd_mm[0], right.sd_mm[0])


def _nailed(left: Member, right: Member, width_mm: float) -> Member:
    """Return two single studs as a double: each says where their joint is."""
    a, b = left.sd_mm[0] ** -2, right.sd_mm[0] ** -2
    joint = (a * (left.at_mm[0] + width_mm / 2) + b * (right.at_mm[0] - width_mm / 2)) / (a + b)
    sd = math.hypot(left.sd_mm[0], right.sd_mm[0])
    off = (right.at_mm[0] - left.at_mm[0] - width_mm) / sd
    together = math.log(SIDE_BY_SIDE[1] / (sd * math.sqrt(2 * math.pi))) - 0.5 * off**2
    surer = left if left.lean_sd < right.lean_sd else right
    return Member(
        detections=(*left.detections, *right.detections),
        at_mm=(joint, joint, joint),
        sd_mm=((a + b) ** -0.5,) * 3,
        shares=(0.0, 1.0, 0.0),
        stray=min(left.stray, right.stray),
        log_likelihood=left.log_likelihood + right.log_likelihood + together,
        up_mm=(a * left.up_mm + b * right.up_mm) / (a + b),
        lean_mm_per_m=surer.lean_mm_per_m,
        lean_sd=surer.lean_sd,
    )


def _lone_stray(lone: Detection, habits: Sequence[Detection], n: int, n_lone: int) -> float:
    """Return how likely a lone detection is of nothing.

    Of n detections so many are to be expected. Where most members were found twice few lone ones are real, and one
    that was not found in the way that the others were, the `habits`, is less likely to be.
    """
    strays = STRAY * n
    real = max(n_lone - strays, 0.0) + 0.5
    others = [d for d in habits if d is not lone]
    alike = sum((d.found_by, d.sees) == (lone.found_by, lone.sees) for d in others)
    habit = (alike + 0.5) / (len(others) + 0.5 * WAYS)
    stray = strays * (habit + 1.0 / WAYS) / 2
    return stray / (stray + real * habit)


def _member(found: list[Detection], ways: list[list[float]], lone: float) -> Member:
    logs = np.array([way[0] for way in ways]) + np.log(SIDE_BY_SIDE)
    whole = float(np.logaddexp.reduce(logs))
    shares = np.exp(logs - whole)
    best = ways[int(shares.argmax())]
    if any(d.sees == "hit" for d in found):
        stray = HIT_STRAY
    elif len(found) == 1:
        stray = lone
    else:
        stray = STRAY * AGAIN ** (len(found) - 1) * (OTHERWISE if len({d.found_by for d in found}) > 1 else 1.0)
    return Member(
        detections=tuple(found),
        at_mm=(ways[0][1], ways[1][1], ways[2][1]),
        sd_mm=(ways[0][2], ways[1][2], ways[2][2]),
        shares=(float(shares[0]), float(shares[1]), float(shares[2])),
        stray=stray,
        log_likelihood=whole,
        up_mm=best[3],
        lean_mm_per_m=best[4],
        lean_sd=best[5],
    )


def middle_of(detection: Detection, studs: int, width_mm: float) -> float:
    """Return where a detection puts the middle of so many studs."""
    half = studs * width_mm / 2
    return detection.at[0] + {"left edge": half, "right edge": -half}.get(detection.sees, 0.0)


def _sd(detection: Detection, studs: int, width_mm: float, kind: BackingKind) -> float:
    """Return the standard uncertainty of that: a screw or a hole sits anywhere in the width, a centre is one stud's.

    Through lath and plaster a scanner sees half as sharply.
    """
    own = SD_MM[detection.found_by] * (2.0 if kind == "lath and plaster" and detection.found_by == "scanner" else 1.0)
    within = {
        "screw": studs * width_mm / math.sqrt(12.0),
        "hit": studs * width_mm / math.sqrt(12.0),
        "centre": width_mm * math.sqrt((studs**2 - 1) / 12.0),
    }.get(detection.sees, 0.0)
    return math.hypot(own, within)


class _Sums:
    """Running sums over detections in a row, were all of them of so many studs: any stretch is a difference of two."""

    def __init__(self, row: Sequence[Detection], studs: int, width_mm: float, kind: BackingKind) -> None:
        y = np.array([middle_of(d, studs, width_mm) for d in row])
        up = np.array([d.at[1] for d in row]) / 1000.0
        weight = np.array([_sd(d, studs, width_mm, kind) for d in row]) ** -2.0
        self.zero = float(y.mean()), float(up.mean())
        y, up = y - self.zero[0], up - self.zero[1]
        each = np.stack([weight, weight * y, weight * up, weight * y * y, weight * up * up, weight * y * up])
        each = np.concatenate([each, 0.5 * np.log(weight / (2 * math.pi))[None, :]])
        self.sums = np.concatenate([np.zeros((7, 1)), np.cumsum(each, axis=1)], axis=1)

    def stretches(self, start: Indices, end: Indices) -> Floats:
        """Return for each stretch: log likelihood, middle, its sd, height, lean, its sd."""
        w, wy, wu, wyy, wuu, wyu, logs = self.sums[:, end] - self.sums[:, start]
        y, up = wy / w, wu / w
        s_yy = np.maximum(wyy - w * y * y, 0.0)
        s_uu, s_yu = np.maximum(wuu - w * up * up, 0.0), wyu - w * y * up
        precision = LEAN_SD_MM_PER_M**-2.0 + s_uu
        log = logs + 0.5 * np.log(2 * math.pi / w) - 0.5 * (s_yy - s_yu**2 / precision)
        log -= 0.5 * np.log(LEAN_SD_MM_PER_M**2 * precision)
        middle, height = y + self.zero[0], (up + self.zero[1]) * 1000.0
        return np.stack([log, middle, w**-0.5, height, s_yu / precision, precision**-0.5])


def _parted(row: Sequence[Detection], sums: Sequence[_Sums], width_mm: float) -> list[tuple[int, int]]:
    """Return the likeliest way to part detections in a row into members, as stretches of it."""
    n = len(row)
    middles = np.array([middle_of(d, 1, width_mm) for d in row])
    # two members nearer to each other than studs can stand: one of them is a detection of nothing
    close = np.concatenate([[0.0], np.where(np.diff(middles) < width_mm / 2, math.log(STRAY), 0.0)])
    ends = np.repeat(np.arange(1, n + 1), MOST)
    starts = ends - np.tile(np.arange(1, MOST + 1), n)
    there = starts >= 0
    score = np.full(len(ends), -math.inf)
    logs = [s.stretches(starts[there], ends[there])[0] + math.log(p) for s, p in zip(sums, SIDE_BY_SIDE, strict=True)]
    score[there] = np.logaddexp.reduce(logs, axis=0) - math.log(USUAL_MM) + close[starts[there]]
    table = score.reshape(n, MOST)
    best, came = [0.0], [0]
    for end in range(1, n + 1):
        first = max(0, end - MOST)
        total = np.array(best[first:][::-1]) + table[end - 1, : end - first]
        i = int(total.argmax())
        best.append(float(total[i]))
        came.append(end - 1 - i)
    out, end = [], n
    while end > 0:
        out.append((came[end], end))
        end = came[end]
    return out[::-1]
