"""What is set out so that it cannot be: sizes larger than what carries them, units outside their place.

These rules look at what was said alone, so that they speak before anything is measured.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, say
from wobble.core.fit.run.tiers import on_floor
from wobble.core.fit.sides.face_frame import opening_mm
from wobble.core.job import Unit
from wobble.core.job.unit import BaseFrame, Legs, ScrewFeet, ToeKickBox

OVER_MM = 1.0
"""Less than this over what is said is no contradiction: sizes are said in whole millimetres."""


def no_floor_surface(case: Case) -> Iterator[Finding]:
    """Something stands on a floor that the place does not have."""
    standing = [u for u in case.place.units if on_floor(u)]
    if standing and "floor" not in case.place.surfaces:
        yield Finding(
            code="no-floor-surface",
            severity="stop",
            about=tuple(u.id for u in standing),
            title=f"{standing[0].name} stands on no floor",
            text="The place has no floor among its surfaces. Add it, or say that the unit hangs or lies on cleats.",
        )


def outside(case: Case) -> Iterator[Finding]:
    """Units outside the place, or reaching past it."""
    place = case.place
    for unit in place.units:
        gone = unit.x_mm >= place.width_mm or unit.out_mm >= place.depth_mm
        over = max(unit.right_mm - place.width_mm, unit.out_mm + unit.depth_mm - place.depth_mm)
        if gone or over > OVER_MM:
            yield Finding(
                code="outside" if gone else "past-place",
                severity="stop" if gone else "mind",
                about=(unit.id,),
                title=f"{unit.name} {'stands outside the place' if gone else 'reaches past the place'}",
                text=f"The place is {say(case, place.width_mm)} wide and {say(case, place.depth_mm)} deep; what lies "
                "outside it is not measured. Make the place larger, or move the unit.",
            )


def heights(case: Case) -> Iterator[Finding]:
    """Units higher than the room is said to be, or under what they stand on."""
    place = case.place
    base = case.plan.base.height.value_mm if case.plan is not None and case.plan.base.tied else 0.0
    for unit in place.units:
        top = base + unit.over_base_mm + unit.height_mm
        if top > place.height_mm + OVER_MM:
            yield Finding(
                code="higher-than-room",
                severity="stop",
                about=(unit.id,),
                title=f"{unit.name} is higher than the room",
                text=f"Its top would be {say(case, top)} up; the place is said to be {say(case, place.height_mm)} "
                "high.",
            )
        if unit.over_base_mm < -OVER_MM and (case.contact is None or case.contact.on_floor):
            yield Finding(
                code="under-floor",
                severity="stop",
                about=(unit.id,),
                title=f"{unit.name} reaches under the run",
                text=f"Its underside is {say(case, -unit.over_base_mm)} below what the run stands on. Raise it.",
            )


def fixings_above(case: Case) -> Iterator[Finding]:
    """A fixing over the top of its unit holds nothing."""
    for unit in case.place.units:
        high = [h for h in unit.fixing_heights_mm if h > unit.height_mm]
        if high:
            yield Finding(
                code="fixing-above",
                severity="stop",
                about=(unit.id,),
                title=f"A fixing of {unit.name} lies over its top",
                text=f"It is said {say(case, max(high))} up, and the unit is {say(case, unit.height_mm)} high. It is "
                "left out of the plan: say it lower.",
            )


def larger_than_unit(case: Case) -> Iterator[Finding]:
    """Toe kicks, feet and angled ends that take more than the unit has."""
    for unit in case.place.units:
        for what, has, most in _takes(unit):
            if has >= most:
                yield Finding(
                    code="larger-than-unit",
                    severity="stop",
                    about=(unit.id, what),
                    title=f"{unit.name}: {what} larger than the unit",
                    text=f"It is said {say(case, has)}, and the unit has {say(case, most)} there. Make it smaller.",
                )


def _takes(unit: Unit) -> Iterator[tuple[str, float, float]]:
    """Yield what a part of a unit takes of it, and how much there is."""
    if unit.stands and unit.toe_recess_mm:
        yield "a toe recess", unit.toe_recess_mm, unit.depth_mm
    match unit.standing:
        case ToeKickBox(height_mm=high) | BaseFrame(height_mm=high):
            yield "a base", high, unit.height_mm
        case Legs(finished_mm=long):
            yield "legs", long, unit.height_mm + OVER_MM
        case ScrewFeet():
            pass
        case _:
            pass
    if unit.feet_in_mm:
        yield "feet that screw in", unit.feet_in_mm, unit.height_mm
    if unit.angled is not None:
        yield "an angled end along the run", unit.angled.along_mm, unit.width_mm
        yield "an angled end in depth", unit.angled.deep_mm, unit.depth_mm


def no_opening(case: Case) -> Iterator[Finding]:
    """Boards and mullions that leave an opening no width."""
    closing = case.place.closing
    board, mullion = closing.board_mm, max(closing.mullion_mm, closing.board_mm)
    for unit in case.place.units:
        boxed = not unit.flat and unit.kind not in ("panel", "face frame", "base frame", "rack", "platform")
        wide = opening_mm(unit, board, mullion if closing.method == "face frame first" else board)
        if boxed and wide <= 0:
            yield Finding(
                code="no-opening",
                severity="stop",
                about=(unit.id,),
                title=f"{unit.name}: its openings have no width",
                text=f"Boards of {say(case, board)} and what stands between {unit.front.openings} openings take all of "
                f"its {say(case, unit.width_mm)}. Ask for fewer openings, thinner boards, or a wider unit.",
            )


SETTING_OUT_RULES: tuple[Callable[[Case], Iterator[Finding]], ...] = (
    no_floor_surface,
    outside,
    heights,
    fixings_above,
    larger_than_unit,
    no_opening,
)
