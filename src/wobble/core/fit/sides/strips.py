"""The cut lines of what closes the sides, and the blanks that strips are cut from."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.fit.run.tiers import TierName
from wobble.core.fit.scribe.line import Edge, Scribe, scribes
from wobble.core.fit.sides.closing import Sides
from wobble.core.gauge.survey import Survey
from wobble.core.job import Place


def side_scribes(survey: Survey, place: Place, found: tuple[Sides, ...]) -> tuple[Scribe, ...]:
    """Return the cut line of every strip or panel that is scribed to a side wall under the method chosen."""
    closing = place.closing
    if closing.method not in ("fillers", "end panel", "face frame first"):
        return ()
    names = {u.id: u for u in place.units}
    out: list[Edge] = []
    for side in found:
        for f in side.fillers:
            unit = names[f.unit]
            own = closing.method == "end panel"
            there = unit.scribe_allowance.at(f.side) if own else 0.0
            low = f.profile[0][0]
            piece = {
                "fillers": f"{f.side} filler at {unit.name}",
                "end panel": f"{unit.name}, {f.side} panel",
                "face frame first": f"face frame before {unit.name}, {f.side} stile",
            }[closing.method]
            out.append(
                Edge(
                    id=strip_id(side.tier, f.side),
                    piece=piece,
                    edge="left edge" if f.side == "left" else "right edge",
                    surface=f.side,
                    start=(f.front_mm, low),
                    end=(f.front_mm, low + f.long_mm),
                    reference_mm=(f.edge_mm, f.edge_mm),
                    sign=1.0 if f.side == "left" else -1.0,
                    along="up from its foot",
                    hand="left" if f.side == "left" else "right",
                    thick_mm=closing.board_mm,
                    there_mm=there,
                    own=own,
                    across=(-1.0, 0.0),
                )
            )
    return scribes(survey, out)


def one_blank(found: tuple[Sides, ...], strips: tuple[Scribe, ...]) -> tuple[tuple[Sides, ...], tuple[Scribe, ...]]:
    """Return fillers and their cut lines with one width of blank for both: the larger."""
    wide = {s.id: s.blank_mm for s in strips if s.blank_mm}
    both = {
        strip_id(side.tier, f.side): max(f.blank_mm, wide[strip_id(side.tier, f.side)])
        for side in found
        for f in side.fillers
        if strip_id(side.tier, f.side) in wide
    }
    return (
        tuple(
            replace(
                side,
                fillers=tuple(
                    replace(f, blank_mm=both.get(strip_id(side.tier, f.side), f.blank_mm)) for f in side.fillers
                ),
            )
            for side in found
        ),
        tuple(replace(s, blank_mm=both.get(s.id, s.blank_mm)) for s in strips),
    )


def strip_id(tier: TierName, side: str) -> str:
    """Return the id of the cut line of the strip at one side of a tier."""
    return f"{tier}-{side}"
