"""Readings that do not agree with the others.

Leave-one-out residuals of the adjustment: with Q = S⁻¹ and r = d − A m, reading i differs from what all others
predict by (Qr)ᵢ/Qᵢᵢ with standard deviation 1/√Qᵢᵢ; their ratio is Baarda's w-statistic (Baarda 1968; the identity in
Rasmussen & Williams 2006, section 5.4.2). The worst is put out and the rest tested again, until all agree.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.blas import strmm
from scipy.special import ndtri

from wobble.core.budget import spend
from wobble.core.gauge.adjust import ROUNDING, Adjustment
from wobble.core.gauge.prior import Floats

FALSE_ALARM = 0.03
"""Chance that a survey without any misread has one accused."""
N_THROWS, SEED, MOST_THROWN = 400, 7_919, 300
"""How often a survey is thrown to find its limit, and up to how many numbers."""
PAIR = 2
"""Of two readings that disagree nobody can tell which is wrong: neither is put out."""
TIE = 1e-6
"""Ratios so close are the same, but for rounding."""
HUMPS = 1.4
"""By how much more than normally a surface stands off, where it does: humps are rare, and high when they come."""


@dataclass(frozen=True, slots=True)
class Disagreement:
    """How far one reading stands from what the others predict: mm, standard deviation, and the verdict.

    `z` is the ratio of the two, less where it is the surface that may be so far off, and not the reading.
    """

    reading_id: str
    by_mm: float
    sd_mm: float
    z: float
    suspect: bool


def tails(sd_mm: Floats, sigma_mm: Floats) -> Floats:
    """Return by how much more than normally readings may stand off, of deviations in which they have a part sigma."""
    of_reading = np.minimum((sigma_mm / sd_mm) ** 2, 1.0)
    return np.asarray(np.sqrt(of_reading + HUMPS**2 * (1.0 - of_reading)))


def critical_z(n_readings: int) -> float:
    """Return the ratio above which a reading is suspect, so that all n together stay under the false-alarm rate."""
    return float(-ndtri(FALSE_ALARM / 2 / max(n_readings, 1)))


def limit_z(adjustment: Adjustment) -> float:
    """Return the ratio above which a reading is suspect: a survey without any misread has one past it at the rate.

    The ratios of one survey hang together, so that the greatest of them is smaller than of as many that do not. The
    weighted residuals Q r are normal with covariance Q = S⁻¹: they are thrown, and the greatest ratio of each throw
    ranked. Very many are taken to stand by themselves (Bonferroni), which accuses less.
    """
    rows = adjustment.observations
    if not PAIR < len(rows) <= MOST_THROWN:
        return critical_z(len(rows))
    # by what they say, not by when they were taken: the same readings in another order have the same limit
    order = np.asarray(sorted(range(len(rows)), key=lambda i: (rows[i].surface_terms, rows[i].value_mm)))
    precision = adjustment.precision[np.ix_(order, order)]
    root = np.linalg.cholesky(precision + ROUNDING * np.diag(precision).max() * np.eye(len(rows)))
    root /= np.sqrt(np.diag(precision))[:, None]
    # half of a triangle is nothing: the library's own product for it takes half the time, and a throw wants no more
    # than six digits
    ratios = np.asarray(strmm(1.0, root.astype(np.float32).T, _thrown(len(rows)), trans_a=1))
    np.abs(ratios, out=ratios)
    return min(float(np.quantile(ratios.max(axis=0), 1 - FALSE_ALARM)), critical_z(len(rows)))


@lru_cache(maxsize=64)
def _thrown(n: int) -> NDArray[np.float32]:
    normals = np.asfortranarray(np.random.default_rng(SEED).standard_normal((n, N_THROWS)), dtype=np.float32)
    normals.flags.writeable = False
    return normals


def without_worst(adjustment: Adjustment) -> Adjustment:
    """Return an adjustment less its worst reading, whether that is suspect or not.

    What a surface is like is judged without it: a misread that is not seen yet makes the surface look rougher, and
    then hides behind that.
    """
    if len(adjustment.observations) <= PAIR:
        return adjustment
    rows = adjustment.observations
    ratios = np.abs(adjustment.precision @ adjustment.residual) / np.sqrt(np.diag(adjustment.precision))
    # of several that are as bad, by what they say and not by when they were taken
    as_bad = np.flatnonzero(ratios >= ratios.max() - TIE)
    worst = min(as_bad, key=lambda i: (rows[i].surface_terms, rows[i].value_mm))
    return adjustment.only(np.delete(np.arange(len(ratios)), int(worst)))


def disagreements(adjustment: Adjustment) -> tuple[Disagreement, ...]:
    """Return the verdict of every reading, in the order of the adjustment's observations.

    The worst is put out, and all others are looked at anew without it, until none is past the limit. What is left of
    the precision Q without a set R is Q − Q_R Q_RR⁻¹ Q_Rᵀ; it is never written down, one column is enough for each
    reading put out. A reading of R stands (Q_RR⁻¹ (Q r)_R) from what those left say, with the covariance Q_RR⁻¹.
    """
    n = len(adjustment.observations)
    if n == 0:
        return ()
    limit = limit_z(adjustment)
    precision = adjustment.precision
    pulled, diagonal = precision @ adjustment.residual, np.diag(precision).copy()
    weighted, kept = pulled.copy(), np.ones(n, dtype=bool)
    sigma = np.asarray([o.sigma_mm for o in adjustment.observations])
    out: list[int] = []
    columns: list[Floats] = []
    while kept.sum() > PAIR:
        spend()
        sd = 1.0 / np.sqrt(np.maximum(diagonal, 1e-300))
        z = np.where(kept, weighted * sd / tails(sd, sigma), 0.0)
        worst = int(np.argmax(np.abs(z)))
        if abs(z[worst]) <= limit:
            break
        column = precision[:, worst].copy()
        for earlier in columns:
            column -= earlier * earlier[worst]
        column /= math.sqrt(column[worst])
        weighted = weighted - column * (weighted[worst] / column[worst])
        diagonal = diagonal - column**2
        columns.append(column)
        kept[worst] = False
        out.append(worst)
    by, sd = np.empty(n), np.empty(n)
    by[kept], sd[kept] = weighted[kept] / diagonal[kept], 1.0 / np.sqrt(diagonal[kept])
    if out:
        among = np.linalg.inv(precision[np.ix_(out, out)])
        by[out], sd[out] = among @ pulled[out], np.sqrt(np.maximum(np.diag(among), 1e-12))
    z = by / sd / tails(sd, sigma)
    return tuple(
        Disagreement(o.reading_id, float(by[i]), float(sd[i]), float(z[i]), not kept[i])
        for i, o in enumerate(adjustment.observations)
    )


@dataclass(frozen=True, slots=True)
class Knock:
    """A set-up that moved while it was read from: since which reading, by how much, mm, and how well that is known."""

    set_up: str
    since: str
    by_mm: float
    sd_mm: float


FEWEST_EACH_SIDE = 3
"""An edge or a knock shows in as many readings on each side at least."""


def knocks(adjustment: Adjustment, taken: Mapping[str, datetime]) -> tuple[float, Knock, int] | None:
    """Return what the likeliest knock of a set-up takes off the weighted squares, that knock, and among how many.

    For each set-up and each reading from it, all readings from there on are let move together: with w their weights
    on the set-up, the shift is wᵀQr / wᵀQw with standard deviation 1/√(wᵀQw), as for one reading in `disagreements`
    (Baarda's test with a vector in place of a unit vector). Readings without a time in `taken` are a neighbour's, whose
    lines are looked after there.
    """
    rows = adjustment.observations
    if not rows:
        return None
    precision = adjustment.precision
    weighted = precision @ adjustment.residual
    best: tuple[float, Knock] | None = None
    n_ways = 0
    for set_up in sorted({name for o in rows for name, _ in o.unknown_terms if name.startswith("line:")}):
        column = np.asarray([dict(o.unknown_terms).get(set_up, 0.0) if o.reading_id in taken else 0.0 for o in rows])
        order = np.asarray(sorted(np.flatnonzero(column), key=lambda i: taken[rows[i].reading_id]), dtype=int)
        times = [taken[rows[i].reading_id] for i in order]
        weights = column[order]
        within = weights[:, None] * precision[np.ix_(order, order)] * weights[None, :]
        # sums over all readings from k on, for every k at once
        known = np.diag(np.cumsum(np.cumsum(within[::-1, ::-1], axis=0), axis=1))[::-1]
        pull = np.cumsum((weights * weighted[order])[::-1])[::-1]
        spend()
        for k in range(FEWEST_EACH_SIDE, len(order) - FEWEST_EACH_SIDE + 1):
            if times[k - 1] == times[k]:
                continue  # taken together: nothing came between them
            n_ways += 1
            ratio = float(pull[k] ** 2 / known[k])
            if best is None or ratio > best[0]:
                since = rows[order[k]].reading_id
                by, sd = float(pull[k] / known[k]), float(1 / np.sqrt(known[k]))
                best = (ratio, Knock(set_up.removeprefix("line:"), since, by, sd))
    return (*best, n_ways) if best else None


def by_reading(verdicts: Sequence[Disagreement]) -> tuple[Disagreement, ...]:
    """Return one verdict a reading: the worst of its numbers; one of many is doubted only where a fifth of them is."""
    grouped: dict[str, list[Disagreement]] = {}
    for verdict in verdicts:
        grouped.setdefault(verdict.reading_id, []).append(verdict)
    out = []
    for parts in grouped.values():
        worst = max(parts, key=lambda d: abs(d.z))
        doubted = sum(d.suspect for d in parts) > (0 if len(parts) == 1 else len(parts) / 5)
        out.append(worst if worst.suspect == doubted else replace(worst, suspect=doubted))
    return tuple(out)
