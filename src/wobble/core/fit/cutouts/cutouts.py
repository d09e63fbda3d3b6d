"""What is done about each thing in the way, unit by unit."""

from __future__ import annotations

from wobble.core.fit.cutouts.beside import air, beside, board_over
from wobble.core.fit.cutouts.boxes import Cutout, behind_mm, obstacle_box, unit_box
from wobble.core.fit.cutouts.treated import PLAY_MM, Met, answers
from wobble.core.fit.run.stand import Stand
from wobble.core.job import Obstacle, Place, Unit
from wobble.core.length import LengthUnit

BEHIND_MM = 150.0
"""What lies on a wall is behind a unit whose back stands this near to it."""


def cutouts(place: Place, stand: Stand, units: LengthUnit) -> tuple[Cutout, ...]:
    """Return what is done about every obstacle for every unit that meets it, then what appliances want."""
    out: list[Cutout] = []
    for unit in place.units:
        for obstacle in place.obstacles:
            met = _meet(place, unit, obstacle, stand, units)
            if met is not None:
                out += answers(met)
            else:
                out += beside(place, unit, obstacle, stand, units)
        out += board_over(place, unit, stand, units)
        out += air(place, unit, stand, units)
    return tuple(out)


def _meet(place: Place, unit: Unit, obstacle: Obstacle, stand: Stand, units: LengthUnit) -> Met | None:
    """Return an obstacle as a unit meets it; None where the two pass each other."""
    theirs, ours = obstacle_box(place, obstacle), unit_box(place, unit, stand)
    behind = behind_mm(place, unit)
    reach = {"back": max(BEHIND_MM - obstacle.proud_mm, 0.0), "left": PLAY_MM, "right": PLAY_MM}
    near = reach.get(obstacle.surface, 0.0)
    across = {"back": 1, "left": 0, "right": 0, "floor": 2, "ceiling": 2}[obstacle.surface]
    if obstacle.surface == "ceiling" or (obstacle.surface == "floor" and not unit.stands):
        return None
    for axis, (one, other) in enumerate(zip(theirs, ours, strict=True)):
        if axis == across and obstacle.surface == "floor":
            continue  # whatever comes out of the floor under a unit comes into it
        more = near if axis == across else 0.0
        if one[0] >= other[1] + more or one[1] + more <= other[0]:
            return None
    first, second = {"back": (0, 2), "left": (1, 2), "right": (1, 2), "floor": (0, 1)}[obstacle.surface]
    return Met(obstacle, unit, theirs[first][0] - ours[first][0], theirs[second][0] - ours[second][0], behind, units)
