"""Edges that are cut to a part of a circle: the trammel's radius, and marks for those who have none."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job import Unit
from wobble.core.length import LengthUnit, spoken
from wobble.core.part import CurvedEdge, Part, Role
from wobble.core.setout.curves import chord_mm, marks, radius_mm, too_round

CURVED: tuple[Role, ...] = ("panel", "top", "shelf")


def with_curve(unit: Unit, part: Part, lengths: LengthUnit = "mm") -> Part:
    """Return a part with the curved edge of its unit, where it has one and the part is what has it."""
    curve = unit.curve
    if curve is None or part.role not in CURVED or too_round(curve, chord_mm(unit)):
        return part
    chord = chord_mm(unit)
    radius, found = radius_mm(chord, curve.rise_mm), marks(curve, chord)
    each = ", ".join(spoken(off, lengths) for _, off in found[: len(found) // 2 + 1])
    apart = found[1][0]
    words = (
        f"{curve.edge} edge {'bowed' if curve.way == 'out' else 'hollow'} by {spoken(curve.rise_mm, lengths)} over "
        f"{spoken(chord, lengths)}: trammel {spoken(radius, lengths)}; or every {spoken(apart, lengths)} from either "
        f"end in by {each}"
    )
    return replace(part, curve=CurvedEdge(curve=curve, chord_mm=chord, radius_mm=radius, marks=found, words=words))
