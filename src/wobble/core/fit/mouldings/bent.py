"""Mouldings bent to a curve: how long they are, whether they bend cold, and the kerfs that let them."""

from __future__ import annotations

import math

from wobble.core.fit.sides.methods import BEND_STRAIN
from wobble.core.job import Moulding, Unit, Value

SKIN_MM = 3.0
"""What is left under a kerf, so that the face stays whole and bends."""


class MouldingCurve(Value, frozen=True, kw_only=True):
    """A moulding bent to a curve: its arc, how far it rises over its chord, and what bends it.

    Attributes:
        arc_mm: Along its back. rise_mm: Over the chord. least_radius_mm: To which it bends cold without breaking.
        bends: Whether it does. kerfs: How many cuts in its back would let it, `kerf_every_mm` apart and
            `kerf_deep_mm` deep.
    """

    arc_mm: float
    rise_mm: float
    least_radius_mm: float
    bends: bool
    kerfs: int = 0
    kerf_every_mm: float = 0.0
    kerf_deep_mm: float = 0.0


def bent(unit: Unit, body: Moulding, kerf_mm: float) -> MouldingCurve:
    """Return a moulding bent to its radius: a strip of thickness t bent to a radius R is strained by t / (2R).

    Kerfs in its back close when each takes up kerf / depth of the turn, in radians.
    """
    radius = max(body.round_mm, unit.width_mm / 2)
    half = math.asin(min(unit.width_mm / 2 / radius, 1.0))
    arc, rise = 2 * radius * half, radius * (1 - math.cos(half))
    least = body.thick_mm / (2 * BEND_STRAIN)
    bends = body.round_mm >= least
    deep = body.thick_mm - SKIN_MM
    if bends or deep <= 0 or kerf_mm <= 0:
        return MouldingCurve(arc_mm=arc, rise_mm=rise, least_radius_mm=least, bends=bends)
    every = radius * kerf_mm / deep
    return MouldingCurve(
        arc_mm=arc,
        rise_mm=rise,
        least_radius_mm=least,
        bends=False,
        kerfs=math.ceil(arc / every),
        kerf_every_mm=every,
        kerf_deep_mm=deep,
    )
