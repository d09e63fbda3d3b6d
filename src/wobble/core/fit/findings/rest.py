"""What to tell of the way in, tops, racks, what stands in each other and what is in the way."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

from wobble.core.confidence import SURE
from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.fit.access.access import Access
from wobble.core.fit.findings.case import Case, say, unit_name
from wobble.core.fit.findings.sides import SIDE_RULES, TOUCH_MM, chances
from wobble.core.fit.level.feet import Foot
from wobble.core.fit.overhead.hangers import hangs_from_ceiling
from wobble.core.fit.run.tiers import tiers
from wobble.core.job import Unit
from wobble.core.job.unit import ScrewFeet

REVEAL_MM = 5.0
REVEAL_MOST_MM = 60.0
"""Neighbours further apart than this are two runs."""
USUAL_TOPS_MM = {
    "a worktop": (850.0, 950.0),
    "a table": (710.0, 760.0),
    "a seat": (400.0, 480.0),
}
"""Heights that people find usual, mm over the finished floor; a seat with its cushion pressed."""
SEAT_UNDER_TABLE_MM = (260.0, 310.0)


def way_in(case: Case) -> Iterator[Finding]:
    """What does not get to its place, with what would work; else the order in which all go."""
    blocked = False
    for going in case.whole.access:
        for step in going.passes:
            if step.key == "walls" or (step.goes and step.chance >= SURE):
                continue
            blocked = True
            name = unit_name(case, going.unit)
            missing = f"{say(case, abs(step.spare_mm))} {'too large' if step.spare_mm < 0 else 'to spare'}"
            yield Finding(
                code="stuck",
                severity="mind" if step.goes else "stop",
                title=f"{name}: {step.where}",
                text=f"{missing}, {chances(step.chance)} that it passes. " + " ".join(going.instead[:2]),
                figure=Figure(
                    value_mm=step.spare_mm,
                    sd_mm=step.sd_mm,
                    working=(Step(label=f"Left over, {step.how}", value_mm=step.spare_mm, sd_mm=step.sd_mm),),
                ),
                caution=going.caution,
                about=(going.unit, step.key),
            )
    if case.whole.access and not blocked and all(g.goes_in for g in case.whole.access):
        yield _order(case, case.whole.access)


def _order(case: Case, goings: tuple[Access, ...]) -> Finding:
    names = ", then ".join(unit_name(case, g.unit) for g in goings)
    caution = next((g.caution for g in goings if g.caution), "")
    passes = sum(len(g.passes) for g in goings)
    return Finding(
        code="goes-in",
        severity="fine",
        title="Everything gets to its place" if passes else "Nothing is in its way that was measured",
        text=f"In this order: {names}.",
        caution=caution,
    )


def feet_and_legs(case: Case) -> Iterator[Finding]:
    """Screw feet past their thread, and legs that are too short."""
    feet = case.whole.feet
    past = [f for f in feet if not f.reaches]
    if past:
        worst = max(past, key=lambda f: _past(case, f))
        too_long = worst.long.value_mm < worst.now_mm
        yield Finding(
            code="feet-past",
            severity="stop",
            title=f"{len(past)} feet past their thread",
            text=f"Under {unit_name(case, worst.unit)}, {worst.corner}, it would be {say(case, _past(case, worst))} "
            f"{'shorter than it goes' if too_long else 'longer than it goes'}. Start level elsewhere"
            f"{'.' if too_long else ', or put a plate under it.'}",
            figure=worst.long,
            about=tuple(f.support for f in past),
        )
    elif feet:
        yield Finding(
            code="feet",
            severity="fine",
            title=f"{len(feet)} feet, each set once",
            text="Set them by count with the unit on its back, in the order of the list; then stand it up.",
            figure=max((f.long for f in feet), key=lambda long: long.value_mm),
        )
    short = [leg for leg in case.whole.legs if leg.cut_mm < 0]
    if short:
        yield Finding(
            code="legs-short",
            severity="stop",
            title=f"{len(short)} legs too short",
            text="Lower the line, or buy longer ones.",
            figure=short[0].long,
            about=tuple(leg.support for leg in short),
        )


def _past(case: Case, foot: Foot) -> float:
    """Return how far a foot is asked past its shortest or its longest, mm."""
    standing = next(u.standing for u in case.place.units if u.id == foot.unit)
    if not isinstance(standing, ScrewFeet):
        return 0.0
    return max(standing.least_mm - foot.long.value_mm, foot.long.value_mm - standing.most_mm, 0.0)


def flat_parts(case: Case) -> Iterator[Finding]:
    """Tops and shelves: whether they get in, how they sag, what the wood does."""
    made = {part.unit for part in case.whole.flats}
    for unit in case.place.units if case.plan is not None else ():
        if unit.flat and unit.id not in made:
            yield Finding(
                code="flat-no-room",
                severity="stop",
                about=(unit.id,),
                title=f"The walls leave {unit.name} no room",
                text="Where it lies, what it is cut to stands past its other end. Check which walls it meets, and from "
                "which line they were read.",
            )
    for part in case.whole.flats:
        name = unit_name(case, part.unit)
        if part.tilt is not None and max(part.tilt.straight, part.tilt.tilted) < SURE:
            yield Finding(
                code="top-stuck",
                about=(part.unit,),
                severity="stop",
                title=f"{name} does not get between the walls whole",
                text=f"It measures {say(case, part.tilt.swing_mm)} more on its way down. Make it in two with a seam, "
                "or leave it short by as much under a cover strip.",
                figure=part.at_back,
            )
        elif part.tilt is not None:
            straight = part.tilt.straight >= SURE
            yield Finding(
                code="top-goes",
                about=(part.unit,),
                severity="fine",
                title=f"{name} goes in {'level' if straight else 'with one end up'}",
                text="It slides in from the front."
                if straight
                else f"One end comes down last, from {say(case, part.tilt.room_mm)} up. "
                f"Leave {say(case, part.tilt.swing_mm)} for the swing, or bevel that end beneath.",
                figure=part.at_back,
            )
        if part.sag is not None and part.sag.supports:
            n, apart = part.sag.supports, say(case, math.floor(part.sag.spacing_mm))
            yield Finding(
                code="sag",
                about=(part.unit,),
                severity="mind",
                title=f"{name} sags: {n} support{'s' if n > 1 else ''} between the ends",
                text=f"At most {apart} apart; without, it hangs by this much after "
                "years. A planning figure for the load that you gave.",
                figure=part.sag.later,
            )
        if part.moves is not None and part.moves.value_mm > 1.0:
            yield Finding(
                code="moves",
                about=(part.unit,),
                severity="mind",
                title=f"{name} moves with the seasons",
                text=f"Leave {say(case, part.gap_mm)} at the back and fix it through slots.",
                figure=part.moves,
            )
        if part.seams_at:
            at = ", ".join(say(case, mm) for mm in part.seams_at)
            yield Finding(
                code="seam",
                about=(part.unit,),
                severity="mind",
                title=f"{name} is longer than its stock",
                text=f"Seams at {at}.",
            )


def obstacles(case: Case) -> Iterator[Finding]:
    """What is done about each thing in the way."""
    for item in case.whole.cutouts:
        obstacle = next((m for m in case.place.obstacles if m.id == item.obstacle), None)
        thing = obstacle.name if obstacle is not None else "Air"
        yield Finding(
            code=item.code,
            about=(item.unit, item.obstacle or item.what),
            severity=item.severity,
            title=f"{thing} at {unit_name(case, item.unit)}: {item.what}",
            text=item.text,
            caution=item.caution,
        )


def usual_heights(case: Case) -> Iterator[Finding]:
    """A top that is asked for at a height that people do not find usual, or a seat under a table that is not."""
    if case.asked is None or case.asked.to not in USUAL_TOPS_MM:
        return
    low, high = USUAL_TOPS_MM[case.asked.to]
    over_floor = case.asked.top_mm - (case.ground.high_spot.value_mm if case.ground else 0.0)
    if low <= over_floor <= high:
        return
    low_seat, high_seat = SEAT_UNDER_TABLE_MM
    seat = f" A seat is good {say(case, low_seat)} to {say(case, high_seat)} under its table."
    side = "over" if over_floor >= 0 else "under"
    yield Finding(
        code="unusual-height",
        severity="mind",
        title=f"An unusual height for {case.asked.to}",
        text=f"{say(case, abs(over_floor))} {side} the floor; usual is {say(case, low)} to {say(case, high)}. "
        "Sit, stand or lay a board on it before you build." + (seat if case.asked.to == "a seat" else ""),
    )


def overlaps(case: Case) -> Iterator[Finding]:
    """Units that would stand in each other."""
    units = case.place.units
    for i, one in enumerate(units):
        for other in units[i + 1 :]:
            deep = _overlap(one, other)
            if deep > TOUCH_MM:
                yield Finding(
                    code="overlap",
                    severity="stop",
                    title=f"{one.name} and {other.name} overlap",
                    text="Move one of them, or make it narrower.",
                    figure=Figure(
                        value_mm=deep, sd_mm=0.0, working=(Step(label="Least of the overlaps", value_mm=deep),)
                    ),
                    about=(one.id, other.id),
                )


def between_units(case: Case) -> Iterator[Finding]:
    """Gaps between neighbours of a run, which want a strip, or to be meant as a reveal."""
    for tier in tiers(case.place):
        for one, other in zip(tier.units, tier.units[1:], strict=False):
            gap = other.x_mm - one.right_mm
            if TOUCH_MM < gap <= REVEAL_MOST_MM:
                wanted = max((u.air.sides_mm for u in (one, other) if u.air is not None), default=0.0)
                wide = gap > max(REVEAL_MM, wanted + REVEAL_MM if wanted else 0.0)
                yield Finding(
                    code="gap-between",
                    severity="mind" if wide else "fine",
                    title=f"A gap between {one.name} and {other.name}",
                    text="Close it with a strip, or push them together."
                    if wide
                    else "It is the air that an appliance wants there."
                    if wanted
                    else "Left as a reveal: pack it out so that it stays even while they are screwed together.",
                    figure=Figure(
                        value_mm=gap,
                        sd_mm=0.0,
                        working=(
                            Step(label=f"Left edge of {other.name}", value_mm=other.x_mm),
                            Step(label=f"Right edge of {one.name}", sign=-1, value_mm=one.right_mm),
                        ),
                    ),
                    about=(one.id, other.id),
                )


def _overlap(a: Unit, b: Unit) -> float:
    """Return the least of the overlaps along, up and out, mm; 0 or less where two units are apart."""
    return min(
        min(a.right_mm, b.right_mm) - max(a.x_mm, b.x_mm),
        min(a.over_base_mm + a.height_mm, b.over_base_mm + b.height_mm) - max(a.over_base_mm, b.over_base_mm),
        min(a.out_mm + a.depth_mm, b.out_mm + b.depth_mm) - max(a.out_mm, b.out_mm),
    )


def inside_corner(case: Case) -> Iterator[Finding]:
    """Units of two places that meet in a corner: whether they stand in each other, and whether what opens clears."""
    place = case.place
    other = next((b for b in case.job.places if b.id == place.right_is_back_of), None)
    if other is None or not place.units or not other.units:
        return
    ours = max((u for u in place.units if u.stands), key=lambda u: u.right_mm, default=None)
    theirs = min((u for u in other.units if u.stands), key=lambda u: u.x_mm, default=None)
    if ours is None or theirs is None:
        return
    # their run stands along our right wall: its depth is along us, and its own along is out from our back
    along = ours.right_mm - (place.width_mm - theirs.depth_mm - theirs.out_mm)
    out = ours.depth_mm + ours.out_mm - theirs.x_mm
    handle = (
        max(u.front.handle_mm for u in (ours, theirs)) if {ours.front.opens, theirs.front.opens} != {"nothing"} else 0.0
    )
    steps = (
        Step(label="Right edge of ours", value_mm=ours.right_mm),
        Step(label="Front of theirs, along us", sign=-1, value_mm=place.width_mm - theirs.depth_mm - theirs.out_mm),
    )
    if out < along:
        steps = (
            Step(label="Front of ours", value_mm=ours.depth_mm + ours.out_mm),
            Step(label="Where theirs begins, out from our back", sign=-1, value_mm=theirs.x_mm),
        )
    if min(along, out) > TOUCH_MM:
        yield Finding(
            code="corner-overlap",
            severity="stop",
            title=f"{ours.name} and {theirs.name} of {other.name} overlap in the corner",
            text="Let one run stop at the other's front, with a filler for what opens.",
            figure=Figure(value_mm=min(along, out), sd_mm=0.0, working=steps),
        )
    elif handle and ((-handle < along <= TOUCH_MM and out > 0) or (-handle < out <= TOUCH_MM and along > 0)):
        yield Finding(
            code="corner-handles",
            severity="mind",
            title="Handles meet in the corner",
            text=f"Put a filler of {say(case, handle + 5.0)} into the corner, so that both fronts open.",
            figure=Figure(
                value_mm=handle + 5.0,
                sd_mm=0.0,
                working=(Step(label="Handle", value_mm=handle), Step(label="Kept free", value_mm=5.0)),
            ),
        )


def racks(case: Case) -> Iterator[Finding]:
    """Hangers of a rack: whether its ceiling is known, and how much they differ."""
    for unit in case.place.units:
        if not hangs_from_ceiling(unit):
            continue
        mine = [h for h in case.whole.hangers if h.unit == unit.id]
        if not mine:
            yield Finding(
                code="rack-ceiling-unknown",
                about=(unit.id,),
                severity="mind",
                title=f"{unit.name} hangs from a ceiling that is not measured",
                text="Read the ceiling at its four corners: each hanger is then told by itself.",
                caution=OVERHEAD,
            )
            continue
        short, long = min(mine, key=lambda h: h.long.value_mm), max(mine, key=lambda h: h.long.value_mm)
        low = short.long.value_mm < 0
        differ = say(case, long.long.value_mm - short.long.value_mm)
        yield Finding(
            code="rack-into-ceiling" if low else "rack",
            about=(unit.id,),
            severity="stop" if low else "fine",
            title=f"{unit.name} {'stands into the ceiling' if low else 'hangs level by four hangers'}",
            text=f"Lower it by {say(case, -short.long.value_mm)}."
            if low
            else f"From {say(case, short.long.value_mm)} ({short.corner}) to {say(case, long.long.value_mm)} "
            f"({long.corner}): they differ by {differ}.",
            figure=short.long,
            caution=OVERHEAD,
        )


OVERHEAD = "A load overhead: fix it into joists only, by what Hold says, and never into the lining."
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
