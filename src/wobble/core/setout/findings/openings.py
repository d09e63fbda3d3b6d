"""What is told of things that stay, and of doors and windows: what would stand in them, before them or against them."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.finding import Finding
from wobble.core.job import Existing, Framing, Legs, OnPieces, Unit, WallOpening
from wobble.core.job.unit import ON_WALLS
from wobble.core.setout.sheet import Sheet

TOUCH_MM = 1.0


def _span(one: tuple[float, float], other: tuple[float, float]) -> float:
    return min(one[1], other[1]) - max(one[0], other[0])


def underside(unit: Unit) -> float:
    """Return from where on a unit fills its place, mm up: a platform on legs is open under its members."""
    if isinstance(unit.body, Framing) and isinstance(unit.standing, Legs):
        member = unit.body.wide_mm if unit.body.stands == "on edge" else unit.body.narrow_mm
        return max(unit.over_base_mm, unit.over_base_mm + unit.height_mm - unit.body.deck_mm - member)
    return unit.over_base_mm


def _meets(unit: Unit, stays: Existing) -> float:
    """Return by how much a unit stands in what something needs around it; 0 or less where it does not, mm."""
    clear = stays.clear_mm
    carried = isinstance(unit.standing, OnPieces) and stays.id in unit.standing.pieces
    along = _span((unit.x_mm, unit.right_mm), (stays.x_mm - clear, stays.right_mm + clear))
    top = stays.up_mm + stays.height_mm + (0.0 if carried else clear)
    up = _span((underside(unit), unit.over_base_mm + unit.height_mm), (stays.up_mm, top))
    out = _span((unit.out_mm, unit.out_mm + unit.depth_mm), (stays.out_mm, stays.out_mm + stays.depth_mm + clear))
    return min(along, up, out)


def stays(sheet: Sheet) -> Iterator[Finding]:
    """Units that stand in something that stays, or in the room that it needs."""
    for unit in sheet.place.units:
        for thing in sheet.said.existing:
            deep = _meets(unit, thing)
            if deep <= TOUCH_MM:
                continue
            room = f" and the {sheet.say(thing.clear_mm)} that it needs around it" if thing.clear_mm else ""
            yield Finding(
                code="stands-in",
                severity="stop",
                title=f"{unit.name} stands in {thing.name}",
                text=f"{thing.name} stays{room}; they meet by {sheet.say(deep)}. Move the piece, make it smaller, or "
                "build over what stays.",
                about=(unit.id, thing.id),
            )


def before_openings(sheet: Sheet) -> Iterator[Finding]:
    """Units before a door or window: what they cover, and what hangs or swings there."""
    for unit in sheet.place.units:
        for opening in sheet.said.openings:
            along = _span((unit.x_mm, unit.right_mm), (opening.x_mm, opening.right_mm))
            up = _span(
                (unit.over_base_mm, unit.over_base_mm + unit.height_mm),
                (opening.sill_mm, opening.sill_mm + opening.height_mm),
            )
            if min(along, up) <= TOUCH_MM:
                continue
            if opening.kind == "no wall":
                yield _past_the_wall(sheet, unit, opening, along)
                continue
            if unit.kind in ("boarding", "trim"):
                yield _cut_round(sheet, unit, opening)
                continue
            door = opening.kind == "door"
            yield Finding(
                code="before-opening",
                severity="stop" if door else "mind",
                title=f"{unit.name} stands before {opening.name}",
                text=f"It covers {sheet.say(along)} of its width{' and stops the way' if door else ''}"
                f"{', and the window opens into it' if opening.opens_in and not door else ''}. "
                f"{'Keep the door free.' if door else 'Lower it to the sill, or leave the window free.'}",
                caution="A way out is never closed." if door else "",
                about=(unit.id, opening.id),
            )
        for opening in sheet.said.openings:
            hangs = opening.covering_mm - unit.out_mm
            along = _span((unit.x_mm, unit.right_mm), (opening.x_mm, opening.right_mm))
            over_sill = unit.over_base_mm + unit.height_mm - opening.sill_mm
            if opening.covering_mm and hangs > TOUCH_MM and along > TOUCH_MM and -50.0 < over_sill <= TOUCH_MM:
                yield Finding(
                    code="covering-hits",
                    severity="mind",
                    title=f"What hangs before {opening.name} lands on {unit.name}",
                    text=f"It hangs {sheet.say(opening.covering_mm)} out of the wall and comes down to the sill, where "
                    "the piece ends. Leave it that room behind, or end it higher.",
                    about=(unit.id, opening.id),
                )


def _past_the_wall(sheet: Sheet, unit: Unit, opening: WallOpening, along: float) -> Finding:
    return Finding(
        code="past-wall-end",
        severity="mind",
        title=f"{unit.name} stands past where the wall ends",
        text=f"By {sheet.say(along)}: nothing is behind it there to pack or to screw to, and its back is seen. "
        + ("End it there." if unit.kind in ON_WALLS else "Screw it where the wall is."),
        about=(unit.id, opening.id),
    )


def _cut_round(sheet: Sheet, unit: Unit, opening: WallOpening) -> Finding:
    start = max(opening.x_mm - unit.x_mm, 0.0)
    end = min(opening.right_mm - unit.x_mm, unit.width_mm)
    return Finding(
        code="cut-round",
        severity="fine",
        title=f"{unit.name} is cut out round {opening.name}",
        text=f"From {sheet.say(start)} to {sheet.say(end)} along it, and "
        f"from {sheet.say(max(opening.sill_mm - unit.over_base_mm, 0.0))} up. Mark it from the opening itself.",
        about=(unit.id, opening.id),
    )


OPENING_RULES = (stays, before_openings)
