"""What to tell of units that stand in each other or apart, of unusual heights and of what is in the way."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, say, unit_name
from wobble.core.fit.findings.sides import TOUCH_MM
from wobble.core.fit.run.tiers import tiers
from wobble.core.job import LAID, ON_WALLS, Unit

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


def obstacles(case: Case) -> Iterator[Finding]:
    """What is done about each thing in the way."""
    for item in case.fitted.cutouts:
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
    if case.fixed_top is None or case.fixed_top.to not in USUAL_TOPS_MM:
        return
    low, high = USUAL_TOPS_MM[case.fixed_top.to]
    over_floor = case.fixed_top.top_mm - (case.contact.high_spot.value_mm if case.contact else 0.0)
    if low <= over_floor <= high:
        return
    low_seat, high_seat = SEAT_UNDER_TABLE_MM
    seat = f" A seat is good {say(case, low_seat)} to {say(case, high_seat)} under its table."
    side = "over" if over_floor >= 0 else "under"
    yield Finding(
        code="unusual-height",
        severity="mind",
        title=f"An unusual height for {case.fixed_top.to}",
        text=f"{say(case, abs(over_floor))} {side} the floor; usual is {say(case, low)} to {say(case, high)}. "
        "Sit, stand or lay a board on it before you build." + (seat if case.fixed_top.to == "a seat" else ""),
    )


def overlaps(case: Case) -> Iterator[Finding]:
    """Units that would stand in each other."""
    units = [u for u in case.place.units if u.kind not in (*ON_WALLS, *LAID)]
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
