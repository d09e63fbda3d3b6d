"""Readings that do not agree with the others.

Leave-one-out residuals of the adjustment: with Q = S⁻¹ and r = d − A m, reading i differs from what all others
predict by (Qr)ᵢ/Qᵢᵢ with standard deviation 1/√Qᵢᵢ; their ratio is Baarda's w-statistic (Baarda 1968; the identity in
Rasmussen & Williams 2006, section 5.4.2). The worst is put out and the rest tested again, until all agree.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri

from wobble.core.gauge.adjust import Adjustment
from wobble.core.gauge.prior import Floats

FALSE_ALARM = 0.03
"""Chance that a survey without any misread has one accused."""


@dataclass(frozen=True, slots=True)
class Disagreement:
    """How far one reading stands from what the others predict: mm, standard deviation, ratio, and the verdict."""

    reading_id: str
    by_mm: float
    sd_mm: float
    z: float
    suspect: bool


SLIPS_MM = ((10.0, "ten millimetres"), (25.4, "one inch"), (100.0, "a hundred millimetres"))
SLIP_TOLERANCE_MM = 2.0


def likely_slip(by_mm: float) -> str:
    """Return which slip of the rule a disagreement looks like, in words; empty if none."""
    return next((name for slip, name in SLIPS_MM if abs(abs(by_mm) - slip) < SLIP_TOLERANCE_MM), "")


def critical_z(n_readings: int) -> float:
    """Return the ratio above which a reading is suspect, so that all n together stay under the false-alarm rate."""
    return float(-ndtri(FALSE_ALARM / 2 / max(n_readings, 1)))


def disagreements(adjustment: Adjustment) -> tuple[Disagreement, ...]:
    """Return the verdict of every reading, in the order of the adjustment's observations."""
    n = len(adjustment.observations)
    if n == 0:
        return ()
    limit = critical_z(n)
    kept = np.arange(n)
    precision = adjustment.precision
    out: list[int] = []
    while len(kept) > 2:
        z = _ratios(precision, adjustment.residual[kept])
        worst = int(np.argmax(np.abs(z)))
        if abs(z[worst]) <= limit:
            break
        out.append(int(kept[worst]))
        precision = _without(precision, worst)
        kept = np.delete(kept, worst)
    by, sd = _predictions(adjustment, kept, precision)
    return tuple(
        Disagreement(o.reading_id, float(by[i]), float(sd[i]), float(by[i] / sd[i]), i in out)
        for i, o in enumerate(adjustment.observations)
    )


def _ratios(precision: Floats, residual: Floats) -> Floats:
    return np.asarray((precision @ residual) / np.sqrt(np.diag(precision)))


def _without(precision: Floats, index: int) -> Floats:
    """Return the precision matrix after reading `index` is put out (inverse of a submatrix by a rank-one step)."""
    keep = np.delete(np.arange(len(precision)), index)
    column = precision[keep, index]
    return np.asarray(precision[np.ix_(keep, keep)] - np.outer(column, column) / precision[index, index])


def _predictions(adjustment: Adjustment, kept: NDArray[np.intp], precision: Floats) -> tuple[Floats, Floats]:
    """Return every reading less what the other kept readings predict, and its standard deviation, mm."""
    n = len(adjustment.observations)
    by, sd = np.empty(n), np.empty(n)
    diagonal = np.diag(precision)
    by[kept] = (precision @ adjustment.residual[kept]) / diagonal
    sd[kept] = 1.0 / np.sqrt(diagonal)
    for i in np.setdiff1d(np.arange(n), kept):
        cross = adjustment.covariance[i, kept]
        weights = precision @ cross
        by[i] = adjustment.residual[i] - weights @ adjustment.residual[kept]
        sd[i] = np.sqrt(max(adjustment.covariance[i, i] - weights @ cross, 1e-12))
    return by, sd
