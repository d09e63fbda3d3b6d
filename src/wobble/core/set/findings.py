"""What is told of setting: what is out and not to be leaned on, what the plan could follow, what is still open."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from wobble.core.facts import Otherwise
from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding, in_order
from wobble.core.length import spoken
from wobble.core.order.steps.work import PlaceWork
from wobble.core.set.advice import Advice
from wobble.core.set.check import Check
from wobble.core.set.freedoms import READ_SD_MM


@dataclass(frozen=True)
class Told:
    """All that Set's findings look at."""

    work: PlaceWork
    checks: tuple[Check, ...]
    advice: tuple[Advice, ...]
    pending: tuple[str, ...]
    otherwise: tuple[Otherwise, ...]
    done: frozenset[str]


def told(t: Told) -> tuple[Finding, ...]:
    """Return all that is told of setting, stops first."""
    return in_order(finding for rule in RULES for finding in rule(t))


def _figure(check: Check) -> Figure | None:
    last = check.readings[-1]
    if last.off_mm is None or last.value_mm is None:
        return None
    steps = [Step(label="As read", value_mm=last.value_mm)]
    if check.expected_mm:
        steps.append(Step(label="As planned", sign=-1, value_mm=check.expected_mm))
    return Figure(value_mm=last.off_mm, sd_mm=READ_SD_MM, working=tuple(steps))


def _out(t: Told) -> Iterator[Finding]:
    for a in t.advice:
        mine = [c for c in t.checks if c.key in a.checks]
        unit = t.work.unit(a.of)
        leans = [u.name for u in t.work.place.units if unit is not None and unit in t.work.carried_by(u)]
        names = ", ".join(c.name.split(": ")[-1] for c in mine)
        first = mine[0]
        yield Finding(
            code="set-out-of-true",
            severity="stop",
            title=f"{unit.name if unit else a.of}: {names}",
            text=f"{_by(t, first)} Now: {'; '.join(a.words)}."
            + (f" Before {' and '.join(leans)} leans on it." if leans else ""),
            figure=_figure(first),
            about=(a.of, *a.checks),
        )


def _by(t: Told, check: Check) -> str:
    last = check.readings[-1]
    if last.off_mm is None:
        return "It came wrong."
    say = t.work.job.units
    return (
        f"{spoken(abs(last.off_mm), say)} {'more' if last.off_mm > 0 else 'less'} than it should be; "
        f"{spoken(check.tolerance_mm, say)} is let be."
    )


def _pending(t: Told) -> Iterator[Finding]:
    for unit in t.pending:
        found = t.work.unit(unit)
        yield Finding(
            code="stands-otherwise",
            severity="mind",
            title=f"{found.name if found else unit} stands other than planned",
            text="The rest of the plan can follow it: its height, what stands beside it, its fillers. See what would "
            "change, and take it or leave it.",
            about=(unit,),
        )


def _otherwise(t: Told) -> Iterator[Finding]:
    for fact in t.otherwise:
        yield Finding(
            code="found-otherwise",
            severity="mind",
            title=f"Found otherwise: {fact.what}" + (f", {fact.of}" if fact.of else ""),
            text=ANSWERS.get(fact.what, "It is kept in the record."),
            caution="Stop, switch off at the main, and have it looked at by a licensed trade."
            if fact.what == "wire or pipe"
            else "",
            about=(fact.id, *((fact.of,) if fact.of else ())),
        )


ANSWERS: dict[str, str] = {
    "no stud": "Hold counts that spot as a miss and plans the screws again: look there for the nearest that bites.",
    "wire or pipe": "Hold keeps clear of that spot until somebody knows what it is, and plans the screws beside it.",
    "joists the other way": "Hold plans the hangers again for joists that run the other way.",
    "no box": "It is no datum, neighbour or support any more: Set out and Fit plan without it.",
    "other openings": "Its fronts and its inside are divided anew; Make lists the parts, and what is cut is held "
    "against them.",
    "wall opened": "Measure what is behind it in Gauge; what was read of that wall before is set aside there.",
}


def _still(t: Told) -> Iterator[Finding]:
    waits = [c for c in t.checks if c.state == "open" and c.step in t.done]
    if waits:
        yield Finding(
            code="still-to-check",
            severity="mind",
            title=f"{len(waits)} {'check is' if len(waits) == 1 else 'checks are'} still open of what is done",
            text="; ".join(c.name for c in waits[:5]) + ("; and more." if len(waits) > 5 else "."),
            about=tuple(c.key for c in waits[:12]),
        )
    elif t.checks and all(c.state == "right" for c in t.checks):
        yield Finding(
            code="all-true",
            severity="fine",
            title="Every check is right",
            text=f"{len(t.checks)} checks, each within what is let be.",
        )


RULES = (_out, _pending, _otherwise, _still)
