"""An obstacle and a unit as the room that each takes; and what is said where they meet."""

from __future__ import annotations

from wobble.core.codes import CutoutCode
from wobble.core.finding import Severity
from wobble.core.fit.run.stand import Stand
from wobble.core.job import Obstacle, Place, SurfaceName, Unit, Value


class Size(Value, frozen=True, kw_only=True):
    """One size to mark out, mm."""

    label: str
    mm: float


class Cutout(Value, frozen=True, kw_only=True):
    """What is done about one obstacle for one unit.

    Attributes:
        code: Stable name of the answer. obstacle: The obstacle's id, or "" for what an appliance wants. unit: Which.
        severity: stop while the plan lacks what must be there. what: In a few words. text: What to do.
        sizes: To mark out. caution: The safety word.
    """

    code: CutoutCode
    obstacle: str
    unit: str
    severity: Severity
    what: str
    text: str
    sizes: tuple[Size, ...] = ()
    caution: str = ""


Box = tuple[tuple[float, float], tuple[float, float], tuple[float, float]]
"""From and to along, out and up, mm."""


def behind_mm(place: Place, unit: Unit) -> float:
    """Return how far the back of a unit stands off the proudest spot of the wall, mm."""
    return place.back_line.off_mm + unit.out_mm


def obstacle_box(place: Place, obstacle: Obstacle) -> Box:
    """Return the room that an obstacle takes, out of its nominal surface."""
    (a, b), (w, h), proud = obstacle.at, obstacle.size, obstacle.proud_mm
    boxes: dict[SurfaceName, Box] = {
        "back": ((a, a + w), (0.0, proud), (b, b + h)),
        "left": ((0.0, proud), (a, a + w), (b, b + h)),
        "right": ((place.width_mm - proud, place.width_mm), (a, a + w), (b, b + h)),
        "floor": ((a, a + w), (b, b + h), (0.0, proud)),
        "ceiling": ((a, a + w), (b, b + h), (place.height_mm - proud, place.height_mm)),
    }
    return boxes[obstacle.surface]


def unit_box(place: Place, unit: Unit, stand: Stand) -> Box:
    """Return the room that a unit takes, its back counted from the proudest spot of the wall."""
    back, low = behind_mm(place, unit), stand.base_mm + unit.over_base_mm
    return (unit.x_mm, unit.right_mm), (back, back + unit.depth_mm), (low, low + unit.height_mm)
