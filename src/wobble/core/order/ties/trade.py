"""What the trade ties: glue after drilling, paint after glue, caulk after primer, lowest first, gates before cuts."""

from __future__ import annotations

import itertools
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from wobble.core.fit.run.tiers import tier_of
from wobble.core.job import Unit
from wobble.core.job.unit import OnCleats
from wobble.core.order.step import StepKind, Tie, WorkStep, strongest
from wobble.core.order.steps.bench import AT_BENCH, gates_of
from wobble.core.order.steps.ground import measure_of
from wobble.core.order.steps.work import HUNG_ON, PlaceWork, fastens
from wobble.core.order.ties.traps import main_step

MOVE = "move"
"""The step by which what is made is carried from a workshop elsewhere to the place."""


@dataclass(frozen=True)
class _Steps:
    """The steps of one place by kind and by unit."""

    work: PlaceWork
    every: tuple[WorkStep, ...]
    keys: frozenset[str] = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "keys", frozenset(s.key for s in self.every))

    def of(self, *kinds: StepKind) -> tuple[WorkStep, ...]:
        return tuple(s for s in self.every if s.kind in kinds)

    def at(self, kind: StepKind, unit: Unit) -> tuple[str, ...]:
        key = self.work.key(kind, unit.id)
        return (key,) if key in self.keys else ()

    def main(self, unit: Unit) -> tuple[str, ...]:
        key = main_step(self.work, unit, self.keys)
        return (key,) if key else ()

    def fast(self, unit: Unit) -> tuple[str, ...]:
        """The step after which a unit moves no more: screwed, or set where nothing screws it."""
        return self.at("fasten", unit) or self.main(unit)


def trade_ties(work: PlaceWork, steps: Sequence[WorkStep]) -> tuple[Tie, ...]:
    """Return what the trade ties in one place."""
    s = _Steps(work, tuple(steps))
    rules = (_ground, _cut, _built, _coats, _in_place, _gates, _closing, _last)
    return strongest(t for rule in rules for t in rule(s))


def _tie(first: str, then: str, why: str, *, gate: bool = False, rests: bool = True, firm: bool = True) -> Tie:
    return Tie(first=first, then=then, kind="gate" if gate else "trade", why=why, rests=rests, firm=firm)


def _ground(s: _Steps) -> Iterator[Tie]:
    clear, survey = s.work.key("clear"), s.work.key("survey")
    yield _tie(clear, survey, "what is taken out later would be measured over")
    for step in s.every:
        if step.kind in ("service", "buy", "level", "hang on") or step.key == s.work.key("cut", "now"):
            yield _tie(survey, step.key, "sizes and heights follow from what was measured", gate=True)
    for step in s.of("service"):
        for later in s.of("line"):
            yield _tie(step.key, later.key, "what lies behind a lining is done before it")


def _cut(s: _Steps) -> Iterator[Tie]:
    parts: dict[str, list[str]] = defaultdict(list)
    for step in s.of("cut"):
        yield _tie("buy", step.key, "its stock is bought first")
        for part in step.parts:
            parts[part].append(step.key)
    for step in s.every:
        if step.kind == "cut":
            continue
        for first in {c for p in step.parts for c in parts[p]}:
            if step.kind in ("template", "measure"):
                yield _tie(step.key, first, "it is cut to what is measured here", gate=True)
            else:
                yield _tie(first, step.key, "its parts are cut first")
    for unit in s.work.place.units:
        for kind, roles in (("doors", ("door",)), ("drawers", ("drawer front", "pull-out board"))):
            for later in s.at(kind, unit):  # type: ignore[arg-type]
                for first in {c for p in s.work.parts_of(unit, *roles) for c in parts[p.key]}:
                    yield _tie(first, later, "its parts are cut first")


def _built(s: _Steps) -> Iterator[Tie]:
    for unit in s.work.place.units:
        boxes = s.work.key("drill", f"drawers-{unit.id}")
        for made in _drawer_boxes(s, unit) if boxes in s.keys else ():
            yield _tie(boxes, made, "holes, grooves and pins before glue")
        for drill in s.at("drill", unit):
            for made in s.at("assemble", unit):
                yield _tie(drill, made, "holes, grooves and pins before glue")
            for later in (*s.at("doors", unit), *s.main(unit)):
                yield _tie(drill, later, "drilled flat at the bench")
        for dry in s.at("dry fit", unit):
            for drill in s.at("drill", unit):
                yield _tie(drill, dry, "its holes and grooves are what is tried")
            for made in s.at("assemble", unit):
                yield _tie(dry, made, "the dry fit releases the glue", gate=True)
        for made in s.at("assemble", unit):
            for later in (*s.at("carry", unit), *s.main(unit)):
                yield _tie(made, later, "glue bears load when it is hard")
        for made in _drawer_boxes(s, unit):
            for later in s.at("drawers", unit):
                yield _tie(made, later, "glue bears load when it is hard")


def _drawer_boxes(s: _Steps, unit: Unit) -> tuple[str, ...]:
    key = s.work.key("assemble", f"drawers-{unit.id}")
    return (key,) if key in s.keys else ()


def _late(s: _Steps) -> frozenset[str]:
    """Return units whose carcass waits for a measure of what stands: their coats come after."""
    return frozenset(
        u
        for p in s.work.parts
        if p.part.role not in AT_BENCH and any(w.key.startswith(("width-", "place-", "template-")) for w in gates_of(p))
        for u in p.part.of
    )


def _coats(s: _Steps) -> Iterator[Tie]:
    coats = s.of("coat")
    for a, b in itertools.pairwise(coats):
        yield Tie(first=a.key, then=b.key, kind="dries", why="each coat on a dry one")
    if not coats:
        return
    first, last, late = coats[0].key, coats[-1].key, _late(s)
    inside = max((n for n, c in enumerate(coats) if c.name.endswith("insides")), default=-1)
    own = [u for u in s.work.place.units if u.id not in late]
    finishing = s.work.job.sessions.finishing
    for cut in s.of("cut"):
        if cut.key == s.work.key("cut", "now"):
            yield _tie(cut.key, first, "what is coated is cut")
    for unit in own:
        for drill in s.at("drill", unit):
            yield _tie(drill, first, "drilled before paint: a drill tears it")
        for dry in s.at("dry fit", unit):
            yield _tie(dry, first, "what is planed after a dry fit is coated after it")
    match finishing:
        case "before assembly":
            for unit in own:
                for made in (*s.at("assemble", unit), *_drawer_boxes(s, unit)):
                    if made == s.work.key("assemble", unit.id) or not _waits(s, made):
                        yield Tie(first=last, then=made, kind="dries", why="finished before glue, joints taped")
        case "before setting":
            for unit in own:
                for made in s.at("assemble", unit):
                    if inside >= 0:
                        why = "inside finished before glue: no brush gets into its corners after"
                        yield Tie(first=coats[inside].key, then=made, kind="dries", why=why)
                    if inside + 1 < len(coats):
                        yield _tie(made, coats[inside + 1].key, "put together before it is coated")
                for later in s.at("carry", unit) or s.main(unit):
                    if unit.kind not in ("base frame", "platform"):
                        yield Tie(first=last, then=later, kind="dries", why="coated before it goes in")
        case _:
            for unit in s.work.place.units:
                for stands in s.fast(unit):
                    if stands.split("/")[0] != "put-in":
                        yield _tie(stands, first, "coated where it stands")
            for laid in (*s.of("drawers"), *s.of("put in")):
                yield Tie(first=last, then=laid.key, kind="dries", why="wet paint sticks to what slides and lies")
    for step in s.of("doors", "drawers"):
        if finishing != "after setting":
            yield Tie(first=last, then=step.key, kind="dries", why="hung when their coats are dry")


def _waits(s: _Steps, key: str) -> bool:
    step = next(x for x in s.every if x.key == key)
    mine = {p.key: p for p in s.work.parts}
    return any(gates_of(mine[p]) for p in step.parts if p in mine)


def _in_place(s: _Steps) -> Iterator[Tie]:
    work = s.work
    level = work.key("level")
    stood: list[str] = []
    for unit in work.units:
        main = s.main(unit)
        for carry in s.at("carry", unit):
            for step in main:
                yield _tie(carry, step, "it is here first")
        for step in main:
            if unit.stands and level in s.keys:
                yield _tie(level, step, "lowest first: its base is level before it stands")
            for hang in s.at("hang on", unit):
                yield _tie(hang, step, "what carries it is fixed first")
            for carrier in work.carried_by(unit):
                for under in s.fast(carrier):
                    yield _tie(under, step, "what carries it is fast first")
            for fasten in s.at("fasten", unit):
                yield _tie(step, fasten, "checked before it is screwed")
            for cables in s.at("cables", unit):
                yield _tie(step, cables, "through the hole of a unit that stands")
            access = work.access_of(unit)
            if stood and access is not None and not step.startswith("put-in"):
                yield Tie(
                    first=stood[-1],
                    then=step,
                    kind="way in",
                    why=access.why or "the next to go in",
                    rests=False,
                    firm=False,
                )
            if not step.startswith("put-in"):
                stood.append(step)
        if level in s.keys:
            for hang in s.at("hang on", unit):
                yield _tie(level, hang, "its height counts from the level line")
    for f in work.hold.fasteners:
        own = work.unit(fastens(f))
        if own is None or f.part in HUNG_ON:
            continue
        for other in (work.unit(j) for j in f.joins):
            if other is not None and other.id != own.id:
                for fasten in s.at("fasten", own):
                    for stands in s.main(other):
                        yield _tie(stands, fasten, "both stand flush before they are screwed together")
    yield from _elsewhere(s)


def _elsewhere(s: _Steps) -> Iterator[Tie]:
    """Tie what is carried from a workshop elsewhere."""
    if s.work.job.sessions.workshop != "elsewhere":
        return
    for step in s.every:
        if step.kind in ("assemble", "coat") and step.where == "workshop" and not _after_gate(s, step):
            yield _tie(step.key, MOVE, "carried over when it is done")
        if step.kind == "carry" and not any(_gated(s, u) for u in step.of):
            yield _tie(MOVE, step.key, "it is in the other house until then")


def _gated(s: _Steps, unit: str) -> bool:
    return unit in _late(s)


def _after_gate(s: _Steps, step: WorkStep) -> bool:
    return any(_gated(s, u) for u in step.of) or step.key.rsplit("/", 1)[-1].startswith("drawers-")


def _gates(s: _Steps) -> Iterator[Tie]:
    work = s.work
    turn = {u.id: n for n, u in enumerate(work.units)}
    late = _late(s)
    for part in work.parts:
        unit = work.unit(part.part.of[0]) if part.part.of else None
        if not part.to_cut or unit is None:
            continue
        for wait in gates_of(part):
            kind = "template" if wait.key.startswith("template-") else "measure"
            key = work.key(kind, measure_of(part, wait))
            if wait.key.startswith(("slides-", "hinge-")):
                yield _tie("buy", key, "their sheet is in the box", gate=True)
                if wait.key.startswith("hinge-"):
                    for drill in (*s.at("drill", unit), *s.at("dry fit", unit), *s.at("assemble", unit)):
                        yield _tie(key, drill, "hinges are chosen before boxes are built", gate=True)
            elif wait.key.startswith("place-"):
                yield _tie(work.key("level"), key, "measured from the level line", gate=True)
            elif wait.key.startswith("dry-fit-"):
                for made in s.at("assemble", unit):
                    yield _tie(made, key, "measured on the box as it is", gate=True)
            elif wait.key.startswith("before-"):
                for hang in s.at("hang on", unit):
                    yield _tie(hang, key, "measured to what is on the wall", gate=True)
            elif wait.key.startswith("template-"):
                yield _tie(work.key("survey"), key, "where it goes is known", gate=True)
                for carrier in work.carried_by(unit):
                    for fast in s.fast(carrier):
                        yield _tie(fast, key, "taken on what carries it, when that no longer moves", gate=True)
                if isinstance(unit.standing, OnCleats):
                    for hang in s.at("hang on", unit):
                        yield _tie(hang, key, "taken at the height of its cleats", gate=True)
            else:
                tier = tier_of(work.place.units, unit)
                for other in work.place.units:
                    beside = other.id != unit.id and not other.flat and tier_of(work.place.units, other) == tier
                    if beside and (other.id not in late or turn[other.id] < turn[unit.id]):
                        for step in s.main(other):
                            yield _tie(step, key, "it stands on one side of what is measured", gate=True)


def _closing(s: _Steps) -> Iterator[Tie]:
    work = s.work
    for step in s.of("fill"):
        for key in step.of:
            unit = work.unit(key)
            if unit is not None:
                for fast in s.fast(unit):
                    yield _tie(fast, step.key, "marked from what no longer moves")
    for unit in work.place.units:
        for fast in s.fast(unit):
            for later in (*s.at("drawers", unit), *s.at("doors", unit)):
                yield _tie(fast, later, "on a box that is fast and square")
        for drawers in s.at("drawers", unit):
            for doors in s.at("doors", unit):
                yield _tie(drawers, doors, "slides are set with nothing before them", firm=False)
        if unit.kind == "face frame":
            for behind in work.place.units:
                if behind.id != unit.id and behind.x_mm < unit.right_mm and behind.right_mm > unit.x_mm:
                    for fast in s.fast(behind):
                        for frame in s.main(unit):
                            yield _tie(fast, frame, "on boxes that no longer move")
                    for later in (*s.at("drawers", behind), *s.at("doors", behind)):
                        for frame in s.main(unit):
                            yield _tie(frame, later, "gaps are set in the frame as it stands")
        if unit.kind == "trim":
            for board in work.place.units:
                if board.kind in ("boarding", "batten wall", "peg wall"):
                    for line in s.main(board):
                        for trim in s.main(unit):
                            yield _tie(line, trim, "it covers the seams")


def _last(s: _Steps) -> Iterator[Tie]:
    work = s.work
    late, caulk = s.of("touch up"), work.key("caulk")
    for a, b in itertools.pairwise(late):
        yield Tie(first=a.key, then=b.key, kind="dries", why="each coat on a dry one")
    primed = bool(late) and "primer" in late[0].name.lower()
    for fill in s.of("fill"):
        if late:
            yield _tie(fill.key, late[0].key, "fitted before it is coated")
        if caulk in s.keys:
            yield _tie(fill.key, caulk, "the seam is there")
    if caulk in s.keys and late:
        if primed:
            yield Tie(first=late[0].key, then=caulk, kind="dries", why="caulk holds to primer, and not to bare wood")
        if primed and len(late) > 1:
            yield _tie(caulk, late[1].key, "paint goes over caulk")
        if not primed:
            yield _tie(caulk, late[0].key, "the finish goes over caulk")
    for unit in work.place.units:
        for put in s.at("put in", unit):
            for carrier in (unit, *work.carried_by(unit)):
                for fast in s.fast(carrier):
                    yield _tie(fast, put, "what carries it is finished")
            for step in late[-1:]:
                yield Tie(first=step.key, then=put, kind="dries", why="nothing is laid on wet paint")
            for step in s.of("set", "top", "fill", "caulk", "line", "frame", "doors", "drawers"):
                yield _tie(step.key, put, "put in when the dust is out", firm=False)
    check = work.key("check")
    for step in s.every:
        if (step.key != check and step.kind not in ("buy", "service")) or step.kind == "service":
            yield _tie(step.key, check, "the last of all", rests=False)
