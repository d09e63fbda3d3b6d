"""Corners that a moulding goes round: how open they are, and at which settings its ends are sawn.

Saw settings follow from turning the moulding out of the plane that it lies in on the saw. With the turn T (180° less
the corner) and the spring s between its back and the wall, lying flat: mitre = atan(sin s · tan T/2), bevel =
asin(cos s · sin T/2). Standing against the fence as on its wall it is cut at T/2 with the blade upright.
"""

from __future__ import annotations

import math
from typing import Literal

import numpy as np

from wobble.core.figure import Figure, Step
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import SurfaceName, Value

End = Literal["left", "right"]
Joint = Literal["square", "coped", "mitred", "outside mitre"]
FROM_MM, OVER_MM = 30.0, 400.0
"""From the corner on, over so much of each wall a moulding shows which way that wall runs: plaster is thick in it."""
SQUARE_SD_DEG = 1.0
"""How far from square corners are that nobody measured."""
MOST_SD_DEG = 3.0
"""A corner that is known worse than this by its walls is not known."""


class CornerAngle(Value, frozen=True, kw_only=True):
    """How open a corner is in plan, degrees, with its standard uncertainty, and whether both of its walls were read."""

    deg: float = 90.0
    sd_deg: float = SQUARE_SD_DEG
    measured: bool = False


class MouldingEnd(Value, frozen=True, kw_only=True):
    """How one end of a length is cut.

    Attributes:
        joint: What it is joined by. corner: What it goes round; None where it ends.
        mitre_deg, bevel_deg: Turn of the saw and tilt of its blade, lying flat on its back.
        standing_deg: Turn of the saw, standing against the fence as on the wall.
        opens: How far the joint would stand open at its face if it were sawn for a square corner; None for others.
    """

    joint: Joint = "square"
    corner: CornerAngle | None = None
    mitre_deg: float = 0.0
    bevel_deg: float = 0.0
    standing_deg: float = 0.0
    opens: Figure | None = None


def saw_settings(corner_deg: float, spring_deg: float) -> tuple[float, float]:
    """Return mitre and bevel, degrees, for a moulding that lies flat on its back."""
    half, spring = math.radians((180.0 - corner_deg) / 2), math.radians(spring_deg)
    mitre = math.atan(math.sin(spring) * math.tan(half))
    return math.degrees(mitre), math.degrees(math.asin(math.cos(spring) * math.sin(half)))


def sawn(joint: Joint, corner: CornerAngle, spring_deg: float, out_mm: float) -> MouldingEnd:
    """Return how an end is cut for a corner; `out_mm` is how far the moulding reaches out of its wall there.

    A mitre's face is out / cos 45° long. Sawn for a square corner, both faces turn by half of what the corner is out,
    and stand apart by twice that face's sine of it at one end.
    """
    mitre, bevel = saw_settings(corner.deg, spring_deg)
    face = out_mm * math.sqrt(2)
    off = abs(corner.deg - 90.0)

    def apart(deg: float) -> float:
        return 2 * face * math.sin(math.radians(deg) / 2)

    steps = (Step(label=f"Face of the joint, {off:.1f}° off square", value_mm=apart(off), sd_mm=apart(corner.sd_deg)),)
    return MouldingEnd(
        joint=joint,
        corner=corner,
        mitre_deg=mitre,
        bevel_deg=bevel,
        standing_deg=(180.0 - corner.deg) / 2,
        opens=None if joint == "coped" else Figure(value_mm=apart(off), sd_mm=apart(corner.sd_deg), working=steps),
    )


def inside_corner(survey: Survey, end: End, at_mm: float, up_mm: float, out_mm: float) -> CornerAngle:
    """Return how open the corner with a side wall is at a height, from which way both walls run near it.

    Args:
        survey: Of the place.
        end: At which end of the back.
        at_mm: Where the corner is along the back.
        up_mm: At which height.
        out_mm: How far out what the moulding runs along stands; 0 for the back itself, else it is taken as straight.
    """
    if end not in survey.place.surfaces or not survey.measured(end):
        return CornerAngle()
    place = survey.place
    sign = 1.0 if end == "left" else -1.0
    along = np.array([at_mm + sign * FROM_MM, at_mm + sign * (FROM_MM + min(OVER_MM, place.width_mm / 2))])
    out = np.array([out_mm + FROM_MM, out_mm + FROM_MM + min(OVER_MM, place.depth_mm / 2)])
    out = np.clip(out, 0.0, place.depth_mm)
    if out[1] - out[0] < FROM_MM:
        return CornerAngle()
    up = min(max(up_mm, 0.0), place.height_mm)
    queries: list[tuple[SurfaceName, Floats]] = [(end, np.column_stack([out, [up, up]]))]
    turns = [1.0 / (out[0] - out[1]), 1.0 / (out[1] - out[0])]
    if out_mm <= 0:
        if "back" not in place.surfaces or not survey.measured("back"):
            return CornerAngle()
        queries.append(("back", np.column_stack([np.clip(along, 0.0, place.width_mm), [up, up]])))
        span = along[1] - along[0]
        turns += [-1.0 / span, 1.0 / span]
    joint = survey.adjustment.at(*queries)
    # a side wall that runs to the right on its way out closes the left corner and opens the right one; so does the back
    weights = -sign * np.array(turns)
    off, sd = float(weights @ joint.mean), math.sqrt(max(float(weights @ joint.covariance @ weights), 0.0))
    if math.degrees(sd) > MOST_SD_DEG:
        return CornerAngle()
    return CornerAngle(deg=90.0 + math.degrees(math.atan(off)), sd_deg=math.degrees(sd), measured=True)
