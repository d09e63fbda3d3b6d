"""What a reading that disagrees was most likely meant to be: slips that people own up to, each with its size."""

from __future__ import annotations

import numpy as np

from wobble.core.gauge.adjust import Adjustment
from wobble.core.gauge.doubts.doubt import Disagreement
from wobble.core.gauge.observe import line_name
from wobble.core.job import TOWARDS_INSTALLER, Measured, Offset, Reading

SLIPS_MM = ((10.0, "one centimetre"), (25.4, "one inch"), (100.0, "ten centimetres"))
SLIP_TOLERANCE_MM = 2.0


def likely_slip(by_mm: float) -> str:
    """Return which slip of the rule a disagreement looks like, in words; empty if none."""
    name = next((name for slip, name in SLIPS_MM if abs(abs(by_mm) - slip) < SLIP_TOLERANCE_MM), "")
    return f"a slip of {name}" if name else ""


def likely_cause(reading: Reading, doubt: Disagreement, adjustment: Adjustment, place: Measured) -> str:
    """Return what a disagreement looks like, in words; empty where nothing plain explains it.

    Tried in this order: a slip by ten, an inch or a hundred; two digits swapped; read to the wrong side of its line;
    written down for the mirrored spot.
    """
    slip = likely_slip(doubt.by_mm)
    if slip or not isinstance(reading, Offset):
        return slip
    expected = reading.value_mm - doubt.by_mm
    near = SLIP_TOLERANCE_MM + doubt.sd_mm
    if any(abs(swapped - expected) < near for swapped in _swapped_digits(reading.value_mm)):
        return "two digits swapped"
    if abs(reading.value_mm + expected) < near and abs(expected) > 2 * near:
        return "a reading from the wrong side of its line"
    if reading.surface in ("floor", "ceiling", "back"):
        mirrored = _expected_at(reading, (place.width_mm - reading.at[0], reading.at[1]), adjustment)
        if abs(mirrored - reading.value_mm) < near and abs(mirrored - expected) > 2 * near:
            return "left and right swapped"
    return ""


def _swapped_digits(value_mm: float) -> list[float]:
    whole, part = divmod(abs(value_mm), 1.0)
    digits = str(int(whole))
    swapped = [digits[:i] + digits[i + 1] + digits[i] + digits[i + 2 :] for i in range(len(digits) - 1)]
    return [float(s) + part for s in swapped if s != digits]


def _expected_at(reading: Offset, spot: tuple[float, float], adjustment: Adjustment) -> float:
    place, _ = adjustment.unknown(line_name(reading.set_up))
    surface = float(adjustment.mean((reading.surface, np.asarray([spot])))[0])
    return TOWARDS_INSTALLER[reading.surface] * (place - surface)
