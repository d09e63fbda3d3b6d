"""Steps after all stands: fillers and scribes, drawers and doors, caulk, touching up, the last check."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.job import Unit
from wobble.core.job.unit import LAID
from wobble.core.make.marked import MarkedPart
from wobble.core.make.result import Made
from wobble.core.order.step import WorkStep
from wobble.core.order.steps.bench import coat_step
from wobble.core.order.steps.usual import CAULK_H, rounded
from wobble.core.order.steps.work import PlaceWork, marks

FILL_MIN, EDGE_M_MIN, DOOR_MIN, DRAWER_MIN, HANDLE_MIN, CAULK_MIN, CAULK_M_MIN, CHECK_MIN = 15, 8, 15, 15, 5, 10, 3, 5
FITTED = ("filler", "end panel", "plinth", "skirting return", "head strip", "cover moulding", "stile", "mullion")
"""Parts that Fit lists to close what is left between units and surfaces."""


def closing(work: PlaceWork) -> tuple[MarkedPart, ...]:
    """Return the parts that close gaps to walls, floor and ceiling."""
    return tuple(
        p
        for p in work.parts
        if p.part.role in FITTED and not p.part.boxes and p.state not in ("bought", "kept", "mended")
    )


def afterwards(work: PlaceWork, made: Made) -> Iterator[WorkStep]:
    """Yield all that is done when the units stand."""
    for part in closing(work):
        metres = part.part.blank_mm[0] / 1000
        yield WorkStep(
            key=work.key("fill", part.part.id),
            kind="fill",
            name=f"Scribe and fix the {part.part.name}" if part.part.cuts else f"Fix the {part.part.name}",
            place=work.place.id,
            of=part.part.of,
            parts=(part.key,),
            minutes=rounded(FILL_MIN + EDGE_M_MIN * metres * (2 if part.part.cuts else 1)),
            skill="fixing",
            why="marked from what stands, with the wall as it is",
            how=_compass(work, part),
            bring=(*marks((part,)), "compass", "block plane", "clamps"),
        )
    for unit in work.units:
        yield from _fronts(work, unit)
    if work.parts and made.finish.steps and closing(work):
        yield _caulk(work)
        yield from _late_coats(work, made)
    elif work.place.closing.method == "flexible filler":
        yield _caulk(work)
    for unit in work.units:
        if unit.kind in LAID or unit.things:
            yield WorkStep(
                key=work.key("put in", unit.id),
                kind="put in",
                name=f"Put {unit.name} in" if unit.kind in LAID else f"Put things on {unit.name}",
                place=work.place.id,
                of=(unit.id,),
                minutes=5,
                why="last: whatever carries it is finished",
            )
    yield WorkStep(
        key=work.key("check"),
        kind="check",
        name=f"Last check of {work.place.name}",
        place=work.place.id,
        of=tuple(u.id for u in work.place.units),
        minutes=rounded(CHECK_MIN * max(len(work.place.units), 1) + 10),
        skill="measuring",
        why="what is out is seen while the tools are still here",
        how=("Doors and drawers run free; nothing rocks; load tried by hand; no screw head stands proud",),
    )


def _compass(work: PlaceWork, part: MarkedPart) -> tuple[str, ...]:
    found = [s for s in work.scribes if s.id in part.part.cuts]
    return tuple(f"{s.edge}: compass at {work.say(s.compass_mm)}, undercut {s.bevel_deg:g}°" for s in found)


def _fronts(work: PlaceWork, unit: Unit) -> Iterator[WorkStep]:
    parts = work.parts_of(unit)
    doors = sum(p.part.quantity for p in parts if p.part.role == "door") or _said(unit, "door")
    drawers = sum(p.part.quantity for p in parts if p.part.role == "drawer side") // 2 or _said(unit, "drawer")
    if drawers:
        yield WorkStep(
            key=work.key("drawers", unit.id),
            kind="drawers",
            name=f"Run the drawers of {unit.name}",
            place=work.place.id,
            of=(unit.id,),
            minutes=rounded(DRAWER_MIN * drawers),
            skill="fixing",
            splits=True,
            why="the box is fast and square, so slides stand at equal heights",
            how=("Slides at equal height left and right, measured from the floor of the box",),
            bring=marks([p for p in parts if p.part.role.startswith("drawer")]),
        )
    if doors:
        yield WorkStep(
            key=work.key("doors", unit.id),
            kind="doors",
            name=f"Hang the doors of {unit.name}",
            place=work.place.id,
            of=(unit.id,),
            minutes=rounded(DOOR_MIN * doors + HANDLE_MIN * doors),
            skill="fixing",
            splits=True,
            why="gaps are set on a box that no longer moves; handles are tried before anything above closes in",
            how=("Hang, set the gaps, then the handles: holes are drilled from the face against a block",),
            bring=marks([p for p in parts if p.part.role == "door"]),
        )


def _said(unit: Unit, what: str) -> int:
    """Return how many fronts a unit that is not made here is said to have."""
    opens = unit.front.opens
    if what == "drawer":
        return 3 * unit.front.openings if opens == "drawers" else 0
    if opens == "pair of doors":
        return 2 * unit.front.openings
    return unit.front.openings if opens.startswith("door") else 0


def _caulk(work: PlaceWork) -> WorkStep:
    metres = sum(p.part.blank_mm[0] for p in closing(work)) / 1000
    return WorkStep(
        key=work.key("caulk"),
        kind="caulk",
        name="Caulk the seams",
        place=work.place.id,
        minutes=rounded(CAULK_MIN + CAULK_M_MIN * metres),
        skill="finishing",
        rests_h=CAULK_H,
        rests_why="caulk",
        why="after primer, as it holds to that and not to bare wood; before paint, which hides it",
    )


def _late_coats(work: PlaceWork, made: Made) -> Iterator[WorkStep]:
    """Yield coats of what was fitted in place: a fraction of the whole, and every coat again."""
    share = min(
        sum(p.part.blank_mm[0] * p.part.blank_mm[1] * p.part.quantity for p in closing(work))
        / 1e6
        / max(made.finish.steps[0].m2, 0.1),
        1.0,
    )
    for n, coat in enumerate((c for c in made.finish.steps if c.kind), 1):
        step = coat_step(work, coat, n, share, "fitted-")
        yield replace(step, kind="touch up", name=f"{step.name}: what was fitted in place")
