"""The ways of closing the sides of a run, each with what it takes here, and the one that is proposed."""

from __future__ import annotations

import math
from functools import partial
from typing import Literal

import numpy as np
from msgspec.structs import replace

from wobble.core.confidence import SURE
from wobble.core.figure import Figure
from wobble.core.fit.run.tiers import Tier
from wobble.core.fit.sides.openings import Opening
from wobble.core.job import Value
from wobble.core.job.decided import Closing, SideMethodName
from wobble.core.length import LengthUnit, format_length

SideName = Literal["left", "right"]
FLEXIBLE_MOST_MM = 6.0
"""Widest gap that a bead of flexible filler bridges without a backing."""
LAP_MM = 6.0
"""A cover moulding lies this far on the cabinet's face, and past the worst gap on the wall."""
BEND_STRAIN = 0.0025
"""Bending strain that clear softwood takes without breaking or springing off: about half of that at its proportional
limit (FPL Wood Handbook 2010, ch. 5: stress at the limit over modulus, 0.004 to 0.005)."""
SHADOW_TOLERANCE = 0.2
"""A shadow gap that varies by more than this share of itself is seen to."""


class Filler(Value, frozen=True, kw_only=True):
    """The gap at one side of a tier at the units' front, and the strip that would fill it.

    Attributes:
        side: left or right. unit: The unit it stands against. edge_mm: That unit's edge, mm along.
        front_mm: How far out it stands.
        bottom: Width at the foot. top: At the head. least: Where it is narrowest. largest: Where widest.
        taper_mm: Head less foot. long_mm: Length of the strip. blank_mm: Width to cut it to before scribing.
        needs: The least width for what opens beside it, with its reason; None where nothing does.
        enough: Chance that it is that wide all the way up, 0 to 1.
        tightest: The least gap between the unit and the wall anywhere beside it, not only at its front.
        clears: Chance that the wall touches it nowhere, 0 to 1.
        profile: (height, width, standard uncertainty) up the gap, mm.
    """

    side: SideName
    unit: str
    edge_mm: float
    front_mm: float
    bottom: Figure
    top: Figure
    least: Figure
    largest: Figure
    taper_mm: float
    long_mm: float
    blank_mm: float
    needs: Figure | None
    needs_why: str
    enough: float
    tightest: Figure
    clears: float
    profile: tuple[tuple[float, float, float], ...]


class SideMethod(Value, frozen=True, kw_only=True):
    """One way to close the sides: whether it works here, what it takes, and whether it is proposed.

    Attributes:
        method: Which. works: Whether it can be done here. pieces: How many pieces it adds.
        width_mm: The widest of them. scribed_mm: The deepest that is scribed off; 0 for none.
        reason: In a few words. proposed: Whether it is the one proposed.
    """

    method: SideMethodName
    works: bool
    pieces: int
    width_mm: float
    scribed_mm: float
    reason: str
    proposed: bool = False


def side_methods(
    tier: Tier, fillers: tuple[Filler, ...], open_: Opening | None, closing: Closing, units: LengthUnit
) -> tuple[SideMethod, ...]:
    """Return the methods with what each takes here, and the first that suits proposed."""
    said = partial(format_length, unit=units)
    worst = max(f.largest.value_mm + 2 * f.largest.sd_mm for f in fillers)
    least = min(f.least.value_mm - 2 * f.least.sd_mm for f in fillers)
    spread = max(f.largest.value_mm - f.least.value_mm for f in fillers)
    n = len(fillers)
    goes_in = open_ is None or open_.chance >= SURE
    spare = min(_spare(tier, f) for f in fillers)
    wide, thick = closing.moulding_mm
    bow, takes = max((_bow(f), bow_taken(thick, f.long_mm)) for f in fillers)
    inside = worst <= FLEXIBLE_MOST_MM and least >= 0
    covers = worst + 2 * LAP_MM <= wide
    shadow = spread <= SHADOW_TOLERANCE * closing.shadow_mm and least >= 0
    narrow = least < closing.least_filler_mm
    found = (
        SideMethod(
            method="flexible filler",
            works=inside,
            pieces=0,
            width_mm=worst,
            scribed_mm=0.0,
            reason=f"a bead bridges up to {said(FLEXIBLE_MOST_MM)}" if inside else "the gap is too wide for a bead",
        ),
        SideMethod(
            method="end panel",
            works=spare > 0 and spread + 2 <= spare and worst <= spare,
            pieces=0,
            width_mm=spare,
            scribed_mm=spread,
            reason=f"the unit carries {said(spare)} to scribe off" if spare else "no spare material on the units",
        ),
        SideMethod(
            method="fillers",
            works=not narrow,
            pieces=n,
            width_mm=max(f.blank_mm for f in fillers),
            scribed_mm=spread,
            reason="a strip at each wall, scribed to it"
            if not narrow
            else f"a strip would be narrower than {said(closing.least_filler_mm)}: split the spare otherwise",
        ),
        SideMethod(
            method="cover moulding",
            works=covers and bow <= takes and least >= 0,
            pieces=n,
            width_mm=math.ceil(worst + 2 * LAP_MM),
            scribed_mm=0.0,
            reason=_moulding_reason(
                f"{said(wide)} does not hide a gap of {said(worst)} and lap on both sides" if not covers else "",
                f"bends to {said(takes)} of bow, the wall has {said(bow)}",
                bends=bow <= takes,
            ),
        ),
        SideMethod(
            method="shadow gap",
            works=shadow,
            pieces=0,
            width_mm=closing.shadow_mm,
            scribed_mm=0.0,
            reason="even enough to be left open" if shadow else f"varies by {said(spread)}, which shows",
        ),
        SideMethod(
            method="face frame first",
            works=len(fillers) == 2,
            pieces=1,
            width_mm=0.0 if open_ is None else open_.inside_mm,
            scribed_mm=spread,
            reason="the frame is scribed to both walls, an undersized box goes in behind it"
            if goes_in
            else "the frame closes the front; the box behind it may be as narrow as the way in asks",
        ),
    )
    best = next((s.method for s in found if s.works and (goes_in or s.method == "face frame first")), None)
    return tuple(replace(s, proposed=s.method == best) for s in found)


def _spare(tier: Tier, filler: Filler) -> float:
    unit = tier.units[0] if filler.side == "left" else tier.last
    return unit.scribe_allowance.at(filler.side)


def _bow(filler: Filler) -> float:
    """Return how far the gap bows off the straight between its ends, mm."""
    profile = np.asarray(filler.profile)
    z, gap = profile[:, 0], profile[:, 1]
    return float(np.abs(gap - np.interp(z, [z[0], z[-1]], [gap[0], gap[-1]])).max())


def bow_taken(thick_mm: float, long_mm: float) -> float:
    """Return how far a moulding can be bent to a bowed wall, mm.

    A bow b over a length l has the curvature 8 b / l², and the face of a moulding of thickness t then the strain
    4 t b / l².
    """
    return BEND_STRAIN * long_mm**2 / (4 * thick_mm)


def _moulding_reason(not_covered: str, bending: str, *, bends: bool) -> str:
    if not_covered:
        return not_covered
    return f"laps the gap; {bending}" if bends else f"would spring off: {bending}; scribe its back"
