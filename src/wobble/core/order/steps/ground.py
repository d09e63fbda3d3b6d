"""Steps before anything stands: the place cleared and measured, services made safe, what lies behind a lining."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.facts import Obstacle
from wobble.core.make.marked import MarkedPart
from wobble.core.order.step import WorkStep
from wobble.core.order.steps.bench import gates_of
from wobble.core.order.steps.usual import rounded
from wobble.core.order.steps.work import PlaceWork
from wobble.core.part import Wait

CLEAR_MIN, OUT_MIN, SURVEY_MIN, TEMPLATE_MIN, MEASURE_MIN, LICENSED_MIN = 20.0, 20.0, 45.0, 40.0, 5.0, 120.0
"""Usual minutes: to clear a place, to take a thing out, to read it, for a template, one measure, a trade's visit."""
SERVICE_CAUTION = (
    "Detect, isolate and prove dead, then work. Wiring, gas and water are for licensed trades; local rules count."
)
LICENSED: tuple[str, ...] = ("outlet", "switch", "wire", "pipe", "valve", "radiator")


def on_the_ground(work: PlaceWork) -> Iterator[WorkStep]:
    """Yield clearing, survey and services."""
    place, out = work.place, [o for o in work.obstacles if o.treatment == "remove"]
    yield WorkStep(
        key=work.key("clear"),
        kind="clear",
        name=f"Clear {place.name}" + (f" and take out {_names(out)}" if out else ""),
        place=place.id,
        minutes=rounded(CLEAR_MIN + OUT_MIN * len(out)),
        why="nothing is measured over what goes out later",
        how=tuple(f"{o.name}: {work.say(o.size[0])} by {work.say(o.size[1])}" for o in out),
        caution="Old paint, lagging and flooring may hold lead or asbestos: have it tested before it is cut."
        if out
        else "",
    )
    yield WorkStep(
        key=work.key("survey"),
        kind="survey",
        name=f"Measure {place.name}",
        place=place.id,
        minutes=rounded(SURVEY_MIN),
        skill="measuring",
        why="every size follows from how far the place is out",
        how=("Gauge says where to read next",),
    )
    for o in work.obstacles:
        if o.treatment in ("move by a licensed trade", "duct", "bridge"):
            yield _service(work, o)


def _names(out: list[Obstacle]) -> str:
    return ", ".join(o.name.lower() for o in out)


def _service(work: PlaceWork, o: Obstacle) -> WorkStep:
    licensed = o.treatment == "move by a licensed trade"
    names = {"duct": "Duct", "bridge": "Bridge", "move by a licensed trade": "Have moved:"}
    return WorkStep(
        key=work.key("service", o.id),
        kind="service",
        name=f"{names[o.treatment]} {o.name}",
        place=work.place.id,
        minutes=rounded(LICENSED_MIN if licensed else 30),
        others=licensed,
        why="it is reached while nothing stands before it",
        how=(f"at {work.say(o.at[0])} along, {work.say(o.at[1])} up",),
        caution=SERVICE_CAUTION if o.kind in (*LICENSED, "vent") else "",
    )


def measures(work: PlaceWork) -> Iterator[WorkStep]:
    """Yield what parts wait for: templates, and measures of what stands, in one go where one visit does for several."""
    asked: dict[str, list[tuple[MarkedPart, Wait]]] = {}
    for part in work.parts:
        if part.to_cut:
            for wait in gates_of(part):
                asked.setdefault(measure_of(part, wait), []).append((part, wait))
    for name, pairs in asked.items():
        part, wait = pairs[0]
        unit = work.unit(part.part.of[0]) if part.part.of else None
        template = wait.key.startswith("template-")
        parts = tuple(dict.fromkeys(p.key for p, _ in pairs))
        waits = len({w.key for _, w in pairs})
        yield WorkStep(
            key=work.key("template" if template else "measure", name),
            kind="template" if template else "measure",
            name=_measure_name(wait, unit.name if unit else part.part.name),
            place=work.place.id,
            of=part.part.of[:1],
            parts=parts,
            minutes=rounded(TEMPLATE_MIN if template else MEASURE_MIN * waits + 5),
            skill="measuring",
            where="anywhere" if wait.key.startswith(("slides-", "hinge-")) else "place",
            opens=tuple({w.key: w for _, w in pairs}.values()),
            why=f"{len(parts)} {'part is' if len(parts) == 1 else 'parts are'} cut from it",
            how=(
                wait.words[0].upper() + wait.words[1:],
                *(("Strips of stiff card glued along the walls, joined, marked: this face up",) if template else ()),
            ),
        )


MEASURES = {
    "template-": "Make the template of {}",
    "width-": "Measure the width for {} between what stands",
    "place-": "Measure for {} from the struck level",
    "slides-": "Read the slides' sheet for {}",
    "hinge-": "Read the hinges' sheet for {}",
    "dry-fit-": "Measure the openings of {} as they stand",
    "before-": "Measure for {} from what is on the wall",
}


def _measure_name(wait: Wait, name: str) -> str:
    return next((w.format(name) for k, w in MEASURES.items() if wait.key.startswith(k)), f"{name}: {wait.words}")


def measure_of(part: MarkedPart, wait: Wait) -> str:
    """Return the name of the step that a part's wait is settled in: one for all of a unit's of one kind."""
    kind = wait.key.split("-", 1)[0] if not wait.key.startswith("dry-fit") else "dry-fit"
    return f"{kind}-{part.part.of[0] if part.part.of else part.part.id}"
