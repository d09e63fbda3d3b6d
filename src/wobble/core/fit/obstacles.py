"""What is in the way of the units and their fixings, and the caution that belongs to each kind of thing."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from wobble.core.fit.plan import Packing, Plan
from wobble.core.job import Bay, Mark, MarkKind

CLEAR_MM = 50.0
"""A hole is kept this far from anything that is marked, and from the lines straight up, down and sideways of outlets
and switches, in which their wires run; local codes may ask for more."""
ELECTRIC: tuple[MarkKind, ...] = ("outlet", "switch", "wire")
LIVE_WATER: tuple[MarkKind, ...] = ("pipe", "valve", "spout")
CAUTIONS: dict[MarkKind, str] = {
    "outlet": "Live wires run to it: detect, isolate, then drill. Moving it is work for a licensed electrician.",
    "switch": "Live wires run to it: detect, isolate, then drill. Moving it is work for a licensed electrician.",
    "wire": "Treat it as live until a licensed electrician has said what it is.",
    "pipe": "Find where it runs and shut it off before you drill. Gas is work for a licensed fitter.",
    "valve": "Leave room to reach and turn it, and mind that it is not bumped open.",
    "spout": "Leave room to use it and to change it.",
    "vent": "Never close it: carry it to the front with its full free area.",
    "column": "It may carry load: cut nothing of it without somebody licensed to say so.",
    "bulkhead": "It may carry load or hide services: open nothing before you know.",
    "wheel arch": "Nothing may chafe or trap heat against it.",
}


@dataclass(frozen=True)
class Clash:
    """A fixing that would be drilled at, or in the line of, a mark."""

    packing: Packing
    mark: Mark
    in_zone: bool


def clashes(bay: Bay, plan: Plan) -> Iterator[Clash]:
    """Yield every fixing through the back that lands on a mark there, or in the zone of its wires."""
    for mark in bay.marks:
        if mark.surface != "back" or mark.treatment == "remove":
            continue
        for packing in plan.packings:
            x, z = packing.at
            off_x = max(mark.at[0] - x, 0.0, x - mark.at[0] - mark.size[0])
            off_z = max(mark.at[1] - z, 0.0, z - mark.at[1] - mark.size[1])
            if max(off_x, off_z) < CLEAR_MM:
                yield Clash(packing, mark, in_zone=False)
            elif mark.kind in ELECTRIC and min(off_x, off_z) < CLEAR_MM:
                yield Clash(packing, mark, in_zone=True)
