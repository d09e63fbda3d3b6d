"""What to tell of the readings: what is missing, what contradicts what, what is left out."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, place_of, say
from wobble.core.fit.run.tiers import on_floor
from wobble.core.gauge.doubts.doubt import Disagreement
from wobble.core.gauge.doubts.explain import FoundEdge
from wobble.core.gauge.survey import MISREAD_MM
from wobble.core.job import SURFACE_AXES, Reading, reading_spots, surface_extent
from wobble.core.length import format_slope

FEWEST_FLOOR_READINGS = 4
MOST_NAMED = 3


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
            f"{_looks_like(case, doubt)} It is left out: measure it again before cutting.",
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
    name = _line(case, knock.set_up)
    yield Finding(
        code="knocked",
        severity="mind",
        title="A line was knocked",
        text=f"“{name}” moved by this much while you read; what came since is corrected. Check it, and read two early "
        "stations again.",
        figure=Figure(
            value_mm=abs(knock.by_mm),
            sd_mm=knock.sd_mm,
            working=(Step(label="Later readings less earlier ones, for the same places", value_mm=abs(knock.by_mm)),),
        ),
        about=(knock.since,),
    )


def edges_seen(case: Case) -> Iterator[Finding]:
    """A surface that steps though nobody said so: the figures count with the edge, and it should be declared."""
    for edge in case.survey.edges:
        yield Finding(
            code="edge-seen",
            severity="mind",
            title=f"It looks as if the {_called(edge.surface)} steps",
            text=f"{_steps_where(case, edge)}, and the figures count with that. Say where, under “Where a surface "
            "steps” in the place.",
            figure=_height(edge),
            about=(f"{edge.surface}-{edge.axis}-{edge.low[0]:.0f}-{edge.high[0]:.0f}",),
        )
    for surface in case.survey.bends:
        yield Finding(
            code="bend-seen",
            severity="mind",
            title=f"It looks as if the {_called(surface)} bends",
            text="It turns more sharply than by settling: between the readings it is uncertain by centimetres. "
            + (
                "If there is a knee where a slope begins, say where in the place."
                if surface == "ceiling"
                else "Read more closely where it turns."
            ),
            about=(surface,),
        )
    rivals = case.survey.rivals
    if rivals is not None:
        name = _line(case, rivals.knock.set_up)
        again = case.survey.readings[rivals.again]
        surface, spot = reading_spots(again)[0]
        yield Finding(
            code="edge-or-knock",
            severity="stop",
            title=f"The {_called(rivals.edge.surface)} steps, or “{name}” was knocked",
            text=f"{_steps_where(case, rivals.edge)}; or the line moved while you read. Both fit, and figures are as "
            f"uncertain. Read {place_of(case, spot, surface)} once more: the same says a step, another figure a knock.",
            figure=_height(rivals.edge),
            about=(rivals.again,),
        )


def unseen(case: Case) -> Iterator[Finding]:
    """Readings that nothing else bears out: a slip there would not be seen, a second reading would show it."""
    blind = [d for d in case.survey.unseen if not d.suspect]
    if not blind or len(case.survey.disagreements) < FEWEST_FLOOR_READINGS:
        return
    spots = [reading_spots(case.survey.readings[d.reading_id])[0] for d in blind]
    named = [f"{_called(surface)}, {place_of(case, spot, surface)}" for surface, spot in spots[:MOST_NAMED]]
    more = f", and {len(blind) - MOST_NAMED} more" if len(blind) > MOST_NAMED else ""
    yield Finding(
        code="unseen-misread",
        severity="fine",
        title=f"A misread of {say(case, MISREAD_MM)} would not show at {len(blind)} of them",
        text=f"Nothing else tells how it is there: {'; '.join(named)}{more}. Read them twice where much rests on them.",
        about=tuple(d.reading_id for d in blind),
    )


def _called(surface: str) -> str:
    return {"back": "back wall", "left": "left wall", "right": "right wall"}.get(surface, surface)


def _height(edge: FoundEdge) -> Figure:
    step = Step(label="Readings beyond the edge less those before it", value_mm=abs(edge.by_mm), sd_mm=edge.sd_mm)
    return Figure(value_mm=abs(edge.by_mm), sd_mm=edge.sd_mm, working=(step,))


def _steps_where(case: Case, edge: FoundEdge) -> str:
    """Return where a surface steps and which way, in words: each end between the two readings that it lies between."""
    way = "nearer to the room" if edge.by_mm > 0 else "further from the room"
    if edge.surface in ("floor", "ceiling"):
        way = "higher" if (edge.by_mm > 0) == (edge.surface == "floor") else "lower"
    high = surface_extent(case.place, edge.surface)[edge.axis][1]
    ends = [edge.between("low"), *([edge.between("high")] if edge.high[0] < high else [])]
    said = [f"somewhere between {say(case, low)} and {say(case, up)}" for low, up in ends]
    axis = SURFACE_AXES[edge.surface][edge.axis]
    return f"It stands {say(case, abs(edge.by_mm))} {way} from {' to '.join(said)} {ALONG[axis]}"


def _line(case: Case, set_up: str) -> str:
    return next((s.name for s in case.place.set_ups if s.id == set_up), set_up)


def leaning(case: Case) -> Iterator[Finding]:
    """A line that leans: what was read from it is corrected, and the user should see to it."""
    for name in dict.fromkeys(one.set_up for one in case.survey.leaning):
        leans = [one for one in case.survey.leaning if one.set_up == name]
        said = " and ".join(f"{format_slope(o.by, case.units, o.sd)} {ALONG[o.axis]}" for o in leans)
        yield Finding(
            code="leaning-line",
            severity="mind",
            title=f"“{_line(case, name)}” is out of {'level' if leans[0].axis != 'z' else 'plumb'}",
            text=f"It leans {said}, as other readings say; what was read from it is corrected. Turn it half round on "
            "its spot and compare before you mark by it.",
            about=(name,),
        )


ALONG = {"x": "along", "y": "out from the back", "z": "up"}


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
    if n and not case.survey.suspects and not case.survey.contradicting and case.survey.rivals is None:
        yield Finding(
            code="readings-agree",
            severity="fine",
            title=f"All {n} readings agree",
            text="None is far from its neighbours.",
        )
