"""What to tell of the readings: what is missing, what contradicts what, what is left out."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, place_of, say
from wobble.core.fit.run.tiers import on_floor
from wobble.core.gauge.doubt import Disagreement
from wobble.core.job import Reading, reading_spots

FEWEST_FLOOR_READINGS = 4


def missing(case: Case) -> Iterator[Finding]:
    """Nothing can be said before there is a floor, a back and something to stand there."""
    place = case.place
    if not place.units:
        yield Finding(
            code="no-units",
            severity="stop",
            title="Nothing stands here yet",
            text="Say what will stand in this place, and the supports to shim follow from it.",
        )
    for surface in ("floor", "back"):
        wanted = any(on_floor(u) for u in place.units) or not place.units if surface == "floor" else True
        if surface not in place.surfaces or case.survey.measured(surface) or not wanted:
            continue
        floor = surface == "floor"
        yield Finding(
            code="no-floor" if floor else "no-back",
            severity="stop" if floor else "mind",
            title=f"The {'floor' if floor else 'back wall'} is not measured",
            text=f"Walk its stations in Gauge. {'No shim' if floor else 'No packing'} until then.",
        )
    n_floor = case.survey.measured("floor")
    if 0 < n_floor < FEWEST_FLOOR_READINGS and any(on_floor(u) for u in place.units):
        yield Finding(
            code="few-readings",
            severity="mind",
            title=f"Only {n_floor} floor reading{'s' if n_floor > 1 else ''}",
            text="The floor between them is a guess. Walk the rest of the stations before you cut or buy.",
        )


def suspects(case: Case) -> Iterator[Finding]:
    """A reading that its neighbours contradict must be taken again before anything is cut."""
    for doubt in case.survey.suspects:
        reading = case.survey.readings[doubt.reading_id]
        surface, spot = reading_spots(reading)[0]
        where = place_of(case, spot, surface)
        yield Finding(
            code="take-again",
            severity="stop",
            title=f"A {surface} reading disagrees",
            text=f"The one at {where} stands {say(case, abs(doubt.by_mm))} from what the others say."
            f"{_looks_like(case, doubt)} It is left out of the figures: measure it again before cutting anything.",
            figure=Figure(value_mm=abs(doubt.by_mm), sd_mm=doubt.sd_mm, working=_disagrees(reading, doubt)),
            about=(doubt.reading_id,),
        )


def _looks_like(case: Case, doubt: Disagreement) -> str:
    cause = case.survey.cause(doubt)
    return f" That looks like {cause}." if cause else ""


def _disagrees(reading: Reading, doubt: Disagreement) -> tuple[Step, ...]:
    """Return what was read less what the others say, the larger first; a reading of many numbers tells only how far."""
    read = getattr(reading, "value_mm", None)
    if read is None:
        return (Step(label="Off what the others say", value_mm=abs(doubt.by_mm), sd_mm=doubt.sd_mm),)
    sign: Literal[1, -1] = 1 if doubt.by_mm >= 0 else -1
    as_read = Step(label="As read", sign=sign, value_mm=read)
    others: Literal[1, -1] = -1 if sign == 1 else 1
    as_said = Step(label="As the others say", sign=others, value_mm=read - doubt.by_mm, sd_mm=doubt.sd_mm)
    return (as_read, as_said) if sign == 1 else (as_said, as_read)


def knocked(case: Case) -> Iterator[Finding]:
    """A line that moved in the midst of its round counts as two lines; the user should know."""
    knock = case.survey.knock
    if knock is None:
        return
    name = next((s.name for s in case.place.set_ups if s.id == knock.set_up), knock.set_up)
    yield Finding(
        code="knocked",
        severity="mind",
        title="A line was knocked",
        text=f"“{name}” moved by this much while you read from it. What was read since is corrected for it. Check the "
        "line, and read two early stations again.",
        figure=Figure(
            value_mm=abs(knock.by_mm),
            sd_mm=knock.sd_mm,
            working=(Step(label="Later readings less earlier ones, for the same places", value_mm=abs(knock.by_mm)),),
        ),
        about=(knock.since,),
    )


def thinned(case: Case) -> Iterator[Finding]:
    """Scans of more points than are adjusted together: how many are used."""
    for one in case.survey.thinned:
        yield Finding(
            code="thinned",
            severity="fine",
            title=f"{one.used} of {one.of} points are used",
            text="A place has more numbers than are needed together: its scans are thinned evenly, all readings stay.",
            about=(one.reading_id,),
        )


def contradiction(case: Case) -> Iterator[Finding]:
    """Two readings and no more, which contradict each other: both count until one is read again."""
    two = case.survey.contradicting
    if two:
        worst = max(two, key=lambda d: abs(d.z))
        yield Finding(
            code="readings-differ",
            severity="stop",
            title="Two readings contradict each other",
            text=f"One stands {say(case, abs(worst.by_mm))} from what the other says. Nobody can tell which is wrong, "
            "so both count: take both again before cutting anything.",
            figure=Figure(
                value_mm=abs(worst.by_mm),
                sd_mm=worst.sd_mm,
                working=_disagrees(case.survey.readings[worst.reading_id], worst),
            ),
            about=tuple(d.reading_id for d in two),
        )


def agreement(case: Case) -> Iterator[Finding]:
    """The good word on the readings."""
    n = len(case.survey.disagreements)
    if n and not case.survey.suspects and not case.survey.contradicting:
        yield Finding(
            code="readings-agree",
            severity="fine",
            title=f"All {n} readings agree",
            text="None is far from its neighbours.",
        )
