"""What is in the way of the units and their fixings, and the caution that belongs to each kind of thing."""

from __future__ import annotations

from typing import Literal

from wobble.core.job import Obstacle, ObstacleKind
from wobble.core.job.backing import ServiceRule

CLEAR_MM = 50.0
"""A hole is kept this far from anything that is marked, and from the lines straight up, down and sideways of outlets
and switches, in which their wires run; local codes may ask for more."""
ELECTRIC: tuple[ObstacleKind, ...] = ("outlet", "switch", "wire")
CAUTIONS: dict[ObstacleKind, str] = {
    "outlet": "Live wires run to it: detect, isolate, then drill. Moving it is work for a licensed electrician.",
    "switch": "Live wires run to it: detect, isolate, then drill. Moving it is work for a licensed electrician.",
    "wire": "Treat it as live until a licensed electrician has said what it is.",
    "pipe": "Find where it runs and shut it off before you drill. Gas is work for a licensed fitter.",
    "radiator": "Its pipes run below it and in the floor: find them before you drill. Heating is for its own trade.",
    "valve": "Leave room to reach and turn it, and mind that it is not bumped open.",
    "spout": "Leave room to use it and to change it.",
    "vent": "Never close it: carry it to the front with its full free area.",
    "column": "It may carry load: cut nothing of it without somebody licensed to say so.",
    "bulkhead": "It may carry load or hide services: open nothing before you know.",
    "wheel arch": "Nothing may chafe or trap heat against it.",
}


Zone = Literal["on it", "in the line of its wires", "under it, where its pipes run"]


def zone(
    obstacle: Obstacle, at: tuple[float, float], clear_mm: float = CLEAR_MM, rule: ServiceRule = "up, down and sideways"
) -> Zone | None:
    """Return how a hole through the back would meet a obstacle: on it, or where by the rule its wires or pipes may run.

    A obstacle that is taken away is met no more; the wires of an outlet that is stay in the wall.
    """
    if obstacle.surface != "back":
        return None
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
