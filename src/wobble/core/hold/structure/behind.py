"""What stands behind the walls of a place."""

from __future__ import annotations

from functools import lru_cache

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.facts import Behind, Detection
from wobble.core.hold.structure.lines import Structure, structure
from wobble.core.job import Place
from wobble.core.job.backing import Backing


def found_on(place: Place, surface: Behind) -> tuple[Detection, ...]:
    """Return what was found behind one surface."""
    return tuple(d for d in place.detections if d.surface == surface)


_remembered = lru_cache(maxsize=32)(structure)
"""A turned decision changes nothing behind the walls."""


def behind(place: Place, wall: Behind = "back") -> Structure:
    """Return what is known behind a wall; all are taken to be made alike, and doors and windows are in the back."""
    backing = place.backing or Backing()
    long_mm = place.width_mm if wall == "back" else place.depth_mm
    openings = place.openings if wall == "back" else ()
    return _remembered(found_on(place, wall), long_mm, backing.stud_mm, backing.kind, openings)


def sure_middles(place: Place) -> tuple[float, ...]:
    """Return middles of the studs behind the back into which a screw is counted on, mm along."""
    known = behind(place)
    return tuple(line.at_mm for line in known.lines if known.bites(line.at_mm) >= SURE_TO_BITE)
