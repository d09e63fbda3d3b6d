"""Furring: strips packed off a bowed wall until their faces lie in one plane, clear of what must not be pressed on."""

from __future__ import annotations

import math

import numpy as np

from wobble.core.figure import Figure, Step
from wobble.core.fit.cutouts.services import ELECTRIC
from wobble.core.gauge.shares import shares
from wobble.core.gauge.survey import Survey
from wobble.core.job import Obstacle, Value

CLEAR_OF_WIRE_MM = 6.0
"""What is kept free in front of a wire or pipe that is bridged."""
TWO_SIDED_95 = 1.96


class Packed(Value, frozen=True, kw_only=True):
    """What is packed behind a strip where it is screwed: (along, up), and how thick."""

    at: tuple[float, float]
    thick: Figure


class Furring(Value, frozen=True, kw_only=True):
    """Strips over a bowed wall.

    Attributes:
        strip_mm: Their thickness. heights: At which heights they run. plane_mm: How far the plane stands off the
            proudest spot behind them; their faces stand that and their thickness in front of it.
        lean_mm_per_m: How far the plane leans into the room for each metre up. turn_mm_per_m: And along the wall.
        packings: Behind each strip at each stud. thickest_mm: Of them.
        why: What decides how far the plane stands off.
    """

    strip_mm: float
    heights: tuple[float, ...]
    plane_mm: float
    lean_mm_per_m: float
    turn_mm_per_m: float
    packings: tuple[Packed, ...]
    thickest_mm: float
    why: str


def furring(
    survey: Survey,
    obstacles: tuple[Obstacle, ...],
    studs: tuple[float, ...],
    *,
    low_mm: float,
    high_mm: float,
    pitch_mm: float,
    strip_mm: float,
    plumb: bool,
) -> Furring | None:
    """Return strips across the studs of a place's back; None where it is not measured, or with fewer than two studs.

    Args:
        survey: The place, solved.
        obstacles: What may have to be bridged.
        studs: Where they are screwed, mm along.
        low_mm: Height of the lowest strip.
        high_mm: Of the highest.
        pitch_mm: At most this far apart.
        strip_mm: Thickness of a strip.
        plumb: Whether the plane is to be plumb and parallel to the back line, or may follow the wall.
    """
    if len(studs) < 2 or not survey.measured("back"):
        return None
    n = max(2, math.ceil((high_mm - low_mm) / pitch_mm) + 1)
    heights = np.linspace(low_mm, high_mm, n)
    spots = np.array([(x, z) for z in heights for x in studs])
    mean, sd = survey.adjustment.mean_and_sd(("back", spots))
    design = np.column_stack([np.ones(len(spots)), spots])
    turn, lean = (0.0, 0.0) if plumb else np.linalg.lstsq(design, mean, rcond=None)[0][1:]
    tilted = turn * spots[:, 0] + lean * spots[:, 1]
    level = float((mean - tilted).max())
    proud = _bridged(obstacles, spots)
    off = max(0.0, proud - strip_mm)
    rests = shares(survey, "back", spots)
    packings = []
    for i, (x, z) in enumerate(spots):
        plane = level + off + float(tilted[i])
        steps = (
            Step(label="Back of the strips here", value_mm=plane),
            Step(
                label="Wall here",
                surface="back",
                at=(float(x), float(z)),
                sign=-1,
                value_mm=float(mean[i]),
                sd_mm=float(sd[i]),
                rests_on=rests[i],
            ),
        )
        thick = Figure(value_mm=plane - float(mean[i]), sd_mm=float(sd[i]), working=steps)
        packings.append(Packed(at=(float(x), float(z)), thick=thick))
    return Furring(
        strip_mm=strip_mm,
        heights=tuple(float(z) for z in heights),
        plane_mm=off,
        lean_mm_per_m=1000.0 * float(lean),
        turn_mm_per_m=1000.0 * float(turn),
        packings=tuple(packings),
        thickest_mm=max(p.thick.value_mm for p in packings),
        why="what is bridged, and the room in front of it" if off > 0 else "the proudest spot behind the strips",
    )


def _bridged(obstacles: tuple[Obstacle, ...], spots: np.ndarray) -> float:
    """Return how far the faces must stand off the wall for what is bridged among the strips; 0 for nothing."""
    low, high = spots.min(axis=0), spots.max(axis=0)
    return max(
        (
            m.proud_mm + CLEAR_OF_WIRE_MM
            for m in obstacles
            if m.surface == "back"
            and (m.treatment == "bridge" or m.kind in (*ELECTRIC[2:], "pipe"))
            and m.at[0] <= high[0]
            and m.at[0] + m.size[0] >= low[0]
            and m.at[1] <= high[1]
            and m.at[1] + m.size[1] >= low[1]
        ),
        default=0.0,
    )
