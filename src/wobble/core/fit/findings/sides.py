"""What to tell of the sides: whether the run goes between its walls, what closes them, what opens beside them."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from wobble.core.confidence import SURE, chance_words
from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, place_of, say, unit_name
from wobble.core.fit.run.tiers import TierName
from wobble.core.fit.sides.closing import Sides
from wobble.core.length import down_to_mark

TOUCH_MM = 0.5
CARRIED_MM = 0.05
"""What a blank of our own lacks by less than this it lacks by the arithmetic only."""


def between_walls(case: Case) -> Iterator[Finding]:
    """Whether the run goes between its walls, and where it is tightest."""
    for sides in case.fitted.sides:
        open_ = sides.opening
        if open_ is None:
            continue
        name = TIER_NAMES[sides.tier]
        if open_.least.value_mm <= 0:
            yield Finding(
                code="walls-crossed",
                severity="stop",
                about=(sides.tier,),
                title="The side walls cross",
                text="By their readings the right wall stands left of the left one, where it is tightest. Check from "
                "which line each was read, and how wide the place is said to be.",
            )
            continue
        spare = open_.least.value_mm - open_.wanted_mm
        figure = Figure(
            value_mm=spare,
            sd_mm=open_.least.sd_mm,
            working=(*open_.least.working, Step(label="Width of the run", sign=-1, value_mm=open_.wanted_mm)),
        )
        tight = place_of(case, open_.at_left, "left")
        if open_.chance >= SURE:
            yield Finding(
                code="goes-between",
                severity="fine",
                about=(sides.tier,),
                title=f"{name} goes between the walls",
                text=f"Tightest {tight} at the left. "
                f"Up to {say(case, down_to_mark(open_.sure_mm, case.units))} goes in nineteen times in twenty.",
                figure=figure,
            )
            if open_.chance_clear < SURE:
                yield Finding(
                    code="scrapes",
                    severity="mind",
                    about=(sides.tier,),
                    title=f"{name} may scrape going in",
                    text=f"{chance_words(open_.chance_clear).capitalize()} that it has the "
                    f"{say(case, _clearance(case))} asked for. Protect the walls, or make it narrower.",
                    figure=figure,
                )
        else:
            word = "does not go" if open_.chance < 1 - SURE else "may not go"
            yield Finding(
                code="too-wide",
                about=(sides.tier,),
                severity="stop" if open_.chance < SURE / 2 else "mind",
                title=f"{name} {word} between the walls",
                text=f"{chance_words(open_.chance).capitalize()} that it does. Tightest {tight} at the left. "
                + _narrower(case, sides),
                figure=figure,
            )


TIER_NAMES: dict[TierName, str] = {"standing": "The run", "stacked": "What stands on it", "hung": "What hangs"}


def into_walls(case: Case) -> Iterator[Finding]:
    """A unit that stands into a wall where it is drawn, however wide the opening is."""
    for sides in case.fitted.sides:
        crossed = sides.opening is not None and sides.opening.least.value_mm <= 0
        wide = sides.opening is not None and sides.opening.chance < SURE
        for filler in sides.fillers:
            if filler.clears >= SURE or crossed or (wide and filler.tightest.value_mm >= 0):
                continue
            into = filler.tightest.value_mm < 0
            deep = say(case, abs(filler.tightest.value_mm))
            yield Finding(
                code="into-wall",
                severity="stop" if filler.clears < SURE / 2 else "mind",
                about=(filler.unit, filler.side),
                title=f"{unit_name(case, filler.unit)} stands into the {filler.side} wall"
                if into
                else f"{unit_name(case, filler.unit)} may touch the {filler.side} wall",
                text=(f"By {deep} at its tightest" if into else f"{deep} is left at its tightest")
                + f"; {chance_words(filler.clears)} that the wall touches it nowhere. "
                "Move the run, or make it narrower.",
                figure=filler.tightest,
            )


def drawers_past_frame(case: Case) -> Iterator[Finding]:
    """Drawers behind a face frame run past its lips only when their slides are packed out to the openings."""
    for sides in case.fitted.sides:
        for divider in sides.frame.dividers if sides.frame is not None else ():
            unit = next((u for u in case.place.units if u.id == divider.unit), None)
            if unit is not None and unit.front.opens == "drawers" and divider.spacer_mm > TOUCH_MM:
                yield Finding(
                    code="drawer-lip",
                    severity="mind",
                    about=(divider.unit, f"{divider.from_left_mm:.0f}"),
                    title=f"Drawers of {unit.name} would hit the face frame",
                    text=f"Pack {say(case, divider.spacer_mm)} at the right of the divider "
                    f"{say(case, divider.from_left_mm)} in, so that the slides run past the frame's lip.",
                )


def _clearance(case: Case) -> float:
    return case.place.closing.clearance_mm


def _narrower(case: Case, sides: Sides) -> str:
    if sides.box_mm is None:
        return ""
    if sides.made_mm is not None:
        return f"Make each made unit {say(case, sides.made_mm)} wide."
    return f"A box of {say(case, sides.box_mm)} goes in; a face frame then closes the rest."


def fillers(case: Case) -> Iterator[Finding]:
    """What closes each side, and whether doors and drawers work beside it."""
    for sides in case.fitted.sides:
        for filler in sides.fillers:
            where = f"{filler.side} of {unit_name(case, filler.unit)}"
            if filler.needs is not None and filler.enough < SURE:
                yield Finding(
                    code="filler-needs",
                    severity="mind",
                    title=f"Too little room at the {filler.side}",
                    text=f"At the {where} it takes {say(case, filler.needs.value_mm)} until {filler.needs_why}; "
                    f"{chance_words(filler.enough)} that it is there. Give that side more in the split.",
                    figure=filler.least,
                    about=(filler.unit, filler.side),
                )
            elif filler.least.value_mm > TOUCH_MM:
                yield Finding(
                    code="filler",
                    severity="fine",
                    title=f"Gap at the {where}",
                    text=f"{say(case, filler.bottom.value_mm)} at the foot, {say(case, filler.top.value_mm)} at the "
                    f"head; a strip is cut from {say(case, filler.blank_mm)}.",
                    figure=filler.largest,
                    about=(filler.unit, filler.side),
                )


def spare_material(case: Case) -> Iterator[Finding]:
    """Edges that have less to scribe off than the wall asks for."""
    for scribe in case.fitted.scribes:
        if scribe.blank_mm == 0 and scribe.there_mm < scribe.needed_mm - CARRIED_MM:
            yield Finding(
                code="scribe-allowance",
                about=(scribe.id,),
                severity="mind",
                title="Not enough to scribe off",
                text=f"{scribe.piece}: it carries {say(case, scribe.there_mm)}, the wall asks for "
                f"{say(case, scribe.needed_mm)}. Add a strip, or close that side otherwise.",
            )


def door_swings(case: Case) -> Iterator[Finding]:
    """Doors that something else than a wall keeps from opening square; walls are told with the gap beside them."""
    for swing in case.fitted.swings:
        if swing.square >= SURE or swing.by_what in ("wall", "hinge"):
            continue
        yield Finding(
            code="door-swing",
            severity="mind",
            title=f"A door of {unit_name(case, swing.unit)} opens to {swing.opens_deg:.0f}°",
            text=f"Hinged at the {swing.hinged}, it meets {swing.by}. Hinge it at the other side, or part the two by a "
            "filler.",
            about=(swing.unit, swing.hinged),
        )


def face_frames(case: Case) -> Iterator[Finding]:
    """Boxes behind a face frame that do not go in as drawn."""
    for sides in case.fitted.sides:
        if sides.frame is not None and sides.frame.too_wide_mm > 0:
            yield Finding(
                code="box-behind-frame",
                about=(sides.tier,),
                severity="mind",
                title="The box behind the frame is too wide",
                text=f"Make it {say(case, sides.frame.too_wide_mm)} narrower; the frame covers the rest.",
            )


SIDE_RULES: tuple[Callable[[Case], Iterator[Finding]], ...] = (
    between_walls,
    into_walls,
    fillers,
    drawers_past_frame,
    door_swings,
    face_frames,
    spare_material,
)
