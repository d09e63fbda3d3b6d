"""Where nothing is drilled: around what is marked or was met, in the lines of its wires and pipes, too deep."""

from __future__ import annotations

import math
from typing import Literal

from wobble.core.facts import Behind
from wobble.core.fit.cutouts.services import ELECTRIC
from wobble.core.job import Obstacle, Place, Value
from wobble.core.job.backing import Backing, ServiceRule
from wobble.core.length import LengthUnit, format_length

DETECT = "Detect, isolate, then drill."
CORNER_STRIP_MM = 150.0
"""Width of the strips along corners and ceiling in which some regions let wires run unseen."""


NEAR_MM = 200.0
"""Within this of what is marked nothing is taken on trust."""


CLEAR_MM = 50.0
"""A hole is kept this far from anything that is marked, and from the lines straight up, down and sideways of outlets
and switches, in which their wires run; local codes may ask for more."""
WALLS: tuple[Behind, ...] = ("back", "left", "right")


class Plate(Value, frozen=True, kw_only=True):
    """Where a wire or pipe crosses a stud: a nail plate belongs over it, and no screw. `at` is (along, up)."""

    obstacle: str
    at: tuple[float, float]
    text: str


def kept_from(place: Place, at: tuple[float, float], backing: Backing, surface: Behind = "back") -> str:
    """Return why nothing is drilled at a spot, as words; "" where it is clear of all that is known."""
    for found in place.detections:
        if found.sees == "something else" and found.surface == surface and math.dist(found.at, at) < backing.clear_mm:
            return "something that is no wood was met there"
    opening = next((o for o in place.openings if surface == "back" and o.holds(*at)), None)
    if opening is not None:
        return f"{opening.name}: nothing stands in it"
    there = [m for m in place.obstacles if m.surface == surface]
    if surface not in WALLS:
        return next((m.name for m in there if _on(m.at, m.size, at, backing)), "")
    for obstacle in there:
        met = zone(obstacle, at, backing.clear_mm, backing.rule)
        if met is not None:
            return f"{obstacle.name}: {met}"
    if backing.rule == "also along corners and ceiling":
        corners = (at[0], place.width_mm - at[0]) if surface == "back" else (at[0],)
        if min(corners) < CORNER_STRIP_MM:
            return "the strip along the corner, where wires may run"
        if place.height_mm - at[1] < CORNER_STRIP_MM:
            return "the strip along the ceiling, where wires may run"
    return ""


Zone = Literal["on it", "in the line of its wires", "under it, where its pipes run"]


def zone(
    obstacle: Obstacle, at: tuple[float, float], clear_mm: float = CLEAR_MM, rule: ServiceRule = "up, down and sideways"
) -> Zone | None:
    """Return how a hole would meet an obstacle on its wall: on it, or where by the rule its wires or pipes may run.

    An obstacle that is taken away is met no more; the wires of an outlet that is stay in the wall.
    """
    beside, over = (
        max(low - x, 0.0, x - low - size) for x, low, size in zip(at, obstacle.at, obstacle.size, strict=True)
    )
    if max(beside, over) < clear_mm and obstacle.treatment != "remove":
        return "on it"
    if obstacle.kind == "wire" and rule != "all round":  # it is seen: it may go on the way it runs, and no other
        if (over if obstacle.size[0] >= obstacle.size[1] else beside) < clear_mm:
            return "in the line of its wires"
    elif obstacle.kind in ELECTRIC and rule != "all round":
        sideways = rule != "up and down" and over < clear_mm
        if beside < clear_mm or sideways:
            return "in the line of its wires"
    if obstacle.kind == "radiator" and beside < clear_mm and at[1] < obstacle.at[1]:
        return "under it, where its pipes run"
    return None


def _on(low: tuple[float, float], size: tuple[float, float], at: tuple[float, float], backing: Backing) -> bool:
    return all(a - backing.clear_mm < x < a + s + backing.clear_mm for x, a, s in zip(at, low, size, strict=True))


def near(place: Place, at: tuple[float, float], surface: Behind = "back") -> str:
    """Return the name of something live or wet that is marked near a hole; "" for nothing."""
    for obstacle in place.obstacles:
        if obstacle.surface == surface and obstacle.kind in (*ELECTRIC, "pipe", "radiator", "valve", "vent"):
            off = (
                max(low - x, 0.0, x - low - size) for x, low, size in zip(at, obstacle.at, obstacle.size, strict=True)
            )
            if math.hypot(*off) < NEAR_MM:
                return obstacle.name
    return ""


def too_deep(reach_behind_face_mm: float, backing: Backing) -> bool:
    """Return whether a hole would go deeper behind the face of the lining than the user's limit."""
    return backing.deepest_mm is not None and reach_behind_face_mm > backing.deepest_mm


def plates(place: Place, studs: tuple[float, ...], units: LengthUnit) -> tuple[Plate, ...]:
    """Return where a marked wire or pipe crosses a stud: it is protected there by a plate of steel."""
    out = []
    for obstacle in place.obstacles:
        if obstacle.surface != "back" or obstacle.kind not in (*ELECTRIC[2:], "pipe"):
            continue
        for x in studs:
            if obstacle.at[0] <= x <= obstacle.at[0] + obstacle.size[0]:
                up = obstacle.at[1] + obstacle.size[1] / 2
                where = f"{format_length(x, units, decimals=0)} along, {format_length(up, units, decimals=0)} up"
                text = f"{obstacle.name} crosses a stud at {where}: a steel nail plate over it, and no screw."
                out.append(Plate(obstacle=obstacle.id, at=(x, up), text=text))
    return tuple(out)
