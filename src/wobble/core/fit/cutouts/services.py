"""What runs behind a lining by its kind, and the caution that belongs to each kind of thing in the way."""

from __future__ import annotations

from wobble.core.job import ObstacleKind

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
