"""What to tell of the sides: whether the run goes between its walls, what closes them, what opens beside them."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

from wobble.core.confidence import SURE
from wobble.core.figure import Figure, Step
from wobble.core.fit.findings.case import Case, Finding, place_of, say, unit_name
from wobble.core.fit.sides.closing import Sides

TOUCH_MM = 0.5


def between_walls(case: Case) -> Iterator[Finding]:
    """Whether the run goes between its walls, and where it is tightest."""
    for sides in case.whole.sides:
        open_ = sides.opening
        if open_ is None:
            continue
        spare = open_.least.value_mm - open_.wanted_mm
        figure = Figure(
            value_mm=spare,
            sd_mm=open_.least.sd_mm,
            working=(*open_.least.working, Step(label="Width of the run", sign=-1, value_mm=open_.wanted_mm)),
        )
        tight = place_of(case, open_.at_left, "up").replace("along", "out")
        name = "The run" if sides.tier == "standing" else "What hangs"
        if open_.chance >= SURE:
            yield Finding(
                code=f"goes-between-{sides.tier}",
                severity="fine",
                title=f"{name} goes between the walls",
                text=f"Tightest {tight} at the left. Up to {say(case, math.floor(open_.sure_mm))} goes in with 95 %.",
                figure=figure,
            )
            if open_.chance_clear < SURE:
                yield Finding(
                    code=f"scrapes-{sides.tier}",
                    severity="mind",
                    title=f"{name} may scrape going in",
                    text=f"{chances(open_.chance_clear)} that it has the {say(case, _clearance(case))} asked for. "
                    "Protect the walls, or make it narrower.",
                    figure=figure,
                )
        else:
            word = "does not go" if open_.chance < 1 - SURE else "may not go"
            yield Finding(
                code=f"too-wide-{sides.tier}",
                severity="stop" if open_.chance < SURE / 2 else "mind",
                title=f"{name} {word} between the walls",
                text=f"{chances(open_.chance)} that it does. Tightest {tight} at the left. {_narrower(case, sides)}",
                figure=figure,
            )


def _clearance(case: Case) -> float:
    return case.place.closing.clearance_mm


def chances(share: float) -> str:
    """Return a chance in words, never more than it is."""
    return f"{math.floor(share * 100)} chances in 100"


def _narrower(case: Case, sides: Sides) -> str:
    if sides.box_mm is None:
        return ""
    if sides.made_mm is not None:
        return f"Make each made unit {say(case, sides.made_mm)} wide."
    return f"A box of {say(case, sides.box_mm)} goes in; a face frame then closes the rest."


def fillers(case: Case) -> Iterator[Finding]:
    """What closes each side, and whether doors and drawers work beside it."""
    for sides in case.whole.sides:
        for filler in sides.fillers:
            where = f"{filler.side} of {unit_name(case, filler.unit)}"
            if filler.needs is not None and filler.enough < SURE:
                yield Finding(
                    code=f"filler-needs-{sides.tier}-{filler.side}",
                    severity="mind",
                    title=f"Too little room at the {filler.side}",
                    text=f"At the {where} it takes {say(case, filler.needs.value_mm)} until {filler.needs_why}; "
                    f"{chances(filler.enough)} that it is there. Give that side more in the split.",
                    figure=filler.least,
                    concerns=(filler.unit,),
                )
            elif filler.least.value_mm > TOUCH_MM:
                yield Finding(
                    code=f"filler-{sides.tier}-{filler.side}",
                    severity="fine",
                    title=f"Gap at the {where}",
                    text=f"{say(case, filler.bottom.value_mm)} at the foot, {say(case, filler.top.value_mm)} at the "
                    f"head; a strip is cut from {say(case, filler.blank_mm)}.",
                    figure=filler.largest,
                    concerns=(filler.unit,),
                )


def spare_material(case: Case) -> Iterator[Finding]:
    """Edges that have less to scribe off than the wall asks for."""
    for scribe in case.whole.scribes:
        if scribe.blank_mm == 0 and scribe.there_mm < scribe.needed_mm:
            yield Finding(
                code=f"spare-{scribe.id}",
                severity="mind",
                title="Not enough to scribe off",
                text=f"{scribe.piece}: it carries {say(case, scribe.there_mm)}, the wall asks for "
                f"{say(case, scribe.needed_mm)}. Add a strip, or close that side otherwise.",
            )


def door_swings(case: Case) -> Iterator[Finding]:
    """Doors that something else than a wall keeps from opening square; walls are told with the gap beside them."""
    for swing in case.whole.swings:
        if swing.square >= SURE or swing.by.endswith("wall") or swing.by == "its hinge":
            continue
        yield Finding(
            code=f"door-{swing.unit}-{swing.hinged}",
            severity="mind",
            title=f"A door of {unit_name(case, swing.unit)} opens to {swing.opens_deg:.0f}°",
            text=f"Hinged at the {swing.hinged}, it meets {swing.by}. Hinge it at the other side, or part the two by a "
            "filler.",
            concerns=(swing.unit,),
        )


def face_frames(case: Case) -> Iterator[Finding]:
    """Boxes behind a face frame that do not go in as drawn."""
    for sides in case.whole.sides:
        if sides.frame is not None and sides.frame.too_wide_mm > 0:
            yield Finding(
                code=f"box-behind-{sides.tier}",
                severity="mind",
                title="The box behind the frame is too wide",
                text=f"Make it {say(case, sides.frame.too_wide_mm)} narrower; the frame covers the rest.",
            )


SIDE_RULES: tuple[Callable[[Case], Iterator[Finding]], ...] = (
    between_walls,
    fillers,
    door_swings,
    face_frames,
    spare_material,
)
