"""An edge that is curved: an arched head, an arch cut out below, a bowed or hollow front; a part of a circle.

A chord c and a rise h in its middle belong to the radius R = (c²/4 + h²) / 2h.
"""

from __future__ import annotations

import math
from typing import Literal

from wobble.core.job import Curve, Unit
from wobble.core.job.unit import FLAT

CurvedEdgeName = Literal["upper", "lower", "front"]
EDGES: dict[str, tuple[CurvedEdgeName, ...]] = {"panel": ("upper", "lower"), **dict.fromkeys(FLAT, ("front",))}
"""Which edges of which kinds may be curved."""
MARKS_MM = 100.0


def chord_mm(unit: Unit) -> float:
    """Return over what length a unit's curve goes, mm: all of it, along; of an end panel, which stands deep, out."""
    return max(unit.width_mm, unit.depth_mm) if unit.kind == "panel" else unit.width_mm


def radius_mm(chord: float, rise: float) -> float:
    """Return the radius of a curve, mm."""
    return (chord * chord / 4 + rise * rise) / (2 * rise)


def cut_at(curve: Curve, chord: float, at: float) -> float:
    """Return what the curve takes off its edge at a place along it, mm: nothing where the piece keeps its full size.

    One that goes out keeps it in the middle and loses its rise at both ends; one that goes in the other way round.
    """
    radius = radius_mm(chord, curve.rise_mm)
    over_chord = math.sqrt(max(radius**2 - (at - chord / 2) ** 2, 0.0)) - (radius - curve.rise_mm)
    return curve.rise_mm - over_chord if curve.way == "out" else over_chord


def marks(curve: Curve, chord: float) -> tuple[tuple[float, float], ...]:
    """Return where a curve is marked out, mm: along its edge, alike from both ends, and in from it."""
    n = max(2, 2 * math.ceil(chord / 2 / MARKS_MM))
    return tuple((chord * k / n, cut_at(curve, chord, chord * k / n)) for k in range(n + 1))


def too_round(curve: Curve, chord: float) -> bool:
    """Return whether a curve goes round more than half a circle."""
    return curve.rise_mm > chord / 2


def arch_mm(unit: Unit) -> float | None:
    """Return the radius of an arch that is seen from the front, mm; None where there is none to be struck."""
    curve, chord = unit.curve, chord_mm(unit)
    if curve is None or curve.edge == "front" or chord > unit.width_mm or too_round(curve, chord):
        return None
    return radius_mm(chord, curve.rise_mm)
