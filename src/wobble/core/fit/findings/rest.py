"""The rules of all that is no level and no side, in the order in which they are asked."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case
from wobble.core.fit.findings.flats import flat_parts, racks
from wobble.core.fit.findings.going_in import feet_and_legs, way_in
from wobble.core.fit.findings.sides import SIDE_RULES
from wobble.core.fit.findings.units import between_units, inside_corner, obstacles, overlaps, usual_heights

WHOLE_RULES: tuple[Callable[[Case], Iterator[Finding]], ...] = (
    *SIDE_RULES,
    overlaps,
    between_units,
    inside_corner,
    way_in,
    feet_and_legs,
    racks,
    flat_parts,
    usual_heights,
    obstacles,
)
