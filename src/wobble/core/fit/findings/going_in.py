"""What to tell of the way in, of feet and of legs."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.confidence import SURE, chance_words
from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.fit.access.access import Access
from wobble.core.fit.findings.case import Case, say, unit_name
from wobble.core.fit.level.feet import Foot
from wobble.core.job.unit import ScrewFeet


def way_in(case: Case) -> Iterator[Finding]:
    """What does not get to its place, with what would work; else the order in which all go."""
    blocked = False
    for going in case.fitted.access:
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
                text=f"{missing}, {chance_words(step.chance)} that it passes. " + " ".join(going.instead[:2]),
                figure=Figure(
                    value_mm=step.spare_mm,
                    sd_mm=step.sd_mm,
                    working=(Step(label=f"Left over, {step.how}", value_mm=step.spare_mm, sd_mm=step.sd_mm),),
                ),
                caution=going.caution,
                about=(going.unit, step.key),
            )
    if case.fitted.access and not blocked and all(g.goes_in for g in case.fitted.access):
        yield _order(case, case.fitted.access)


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
    feet = case.fitted.feet
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
    short = [leg for leg in case.fitted.legs if leg.cut_mm < 0]
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
