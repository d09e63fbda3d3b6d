"""The answer of Set out: every edge as a tick, every stack, every cell, and what is told of them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.budget import spend
from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding, in_order
from wobble.core.job import (
    Boarding,
    Existing,
    Framing,
    HangingWall,
    HeightStack,
    LinedUp,
    MemberName,
    Place,
    Rule,
    TrimSet,
    Unit,
    Value,
    WallOpening,
)
from wobble.core.job.rules import PLACE, Edge
from wobble.core.setout.cells import LaidCell
from wobble.core.setout.curves import arch_mm
from wobble.core.setout.findings.cells import CELL_RULES
from wobble.core.setout.findings.framed import FRAMED_RULES
from wobble.core.setout.findings.holes import HOLE_RULES
from wobble.core.setout.findings.openings import OPENING_RULES
from wobble.core.setout.findings.rods import ROD_RULES
from wobble.core.setout.framing import (
    BoardsLaid,
    FrameLaid,
    HangingLaid,
    boards_laid,
    frame_laid,
    hanging_laid,
)
from wobble.core.setout.long_rod import Known, Stands, things
from wobble.core.setout.sheet import Sheet, rule_sign, rule_words

RULES: tuple[Callable[[Sheet], Iterator[Finding]], ...] = (
    *ROD_RULES,
    *OPENING_RULES,
    *CELL_RULES,
    *HOLE_RULES,
    *FRAMED_RULES,
)


End = Literal["left", "right"]
ENDS: tuple[End, End] = ("left", "right")


class SetOut(Value, frozen=True, kw_only=True):
    """What is set out of a place, as it is said: what the page of Set out edits, in the place's own words."""

    units: Annotated[tuple[Unit, ...], Meta(max_length=100)] = ()
    rules: Annotated[tuple[Rule, ...], Meta(max_length=300)] = ()
    heights: Annotated[tuple[HeightStack, ...], Meta(max_length=20)] = ()
    existing: Annotated[tuple[Existing, ...], Meta(max_length=40)] = ()
    openings: Annotated[tuple[WallOpening, ...], Meta(max_length=40)] = ()


def said_of(place: Place) -> SetOut:
    """Return what is set out of a place."""
    return SetOut(
        units=place.units,
        rules=place.rules,
        heights=place.heights,
        existing=place.existing,
        openings=place.openings,
    )


class Tick(Value, frozen=True, kw_only=True):
    """One edge on the long rod.

    Attributes:
        of: Whose: a unit, a thing, or `place`. edge: Which edge. at: Where, mm, with its uncertainty.
        held: By a rule, or only drawn there. rules: The rules that it rests on. signs: The signs of those that name it.
    """

    of: str
    edge: End
    at: Figure
    held: Literal["rule", "drawn", "stays"]
    rules: tuple[str, ...] = ()
    signs: str = ""


class RuleSaid(Value, frozen=True, kw_only=True):
    """A rule as it is drawn and read: its sign, its words, and whether it holds, contradicts or repeats others."""

    id: str
    sign: str
    words: str
    stands: Stands


class LaidLayer(Value, frozen=True, kw_only=True):
    """One member of a stack: from and to which height over the bare floor, mm."""

    name: MemberName
    low_mm: float
    high_mm: float
    gives: bool


class LaidStack(Value, frozen=True, kw_only=True):
    """A stack as it comes out; the finished face is counted from the finished floor."""

    id: str
    layers: tuple[LaidLayer, ...]
    finished_mm: float
    covering_mm: float


class LaidUnit(Value, frozen=True, kw_only=True):
    """A unit as it comes out, with its cells, or its members and boards.

    `arch_mm` is the radius of its curved edge, where that is seen from the front; None for straight edges.
    """

    unit: Unit
    width: Figure
    cells: tuple[LaidCell, ...] = ()
    frame: FrameLaid | None = None
    boards: BoardsLaid | None = None
    hanging: HangingLaid | None = None
    arch_mm: float | None = None


class Snap(Value, frozen=True, kw_only=True):
    """What an edge may be brought to: where, mm, what that is, and the edge that a rule names; None for a mere line."""

    at_mm: float
    name: str
    edge: Edge | None = None


class LaidOut(Value, frozen=True, kw_only=True):
    """A place set out."""

    place: str
    units: tuple[LaidUnit, ...]
    ticks: tuple[Tick, ...]
    rules: tuple[RuleSaid, ...]
    stacks: tuple[LaidStack, ...]
    snaps: tuple[Snap, ...]
    findings: tuple[Finding, ...]


def laid_out(sheet: Sheet, lines_mm: tuple[float, ...] = ()) -> LaidOut:
    """Return the answer of Set out; `lines_mm` are studs and the like that edges may be brought to."""
    found: list[Finding] = []
    for rule in RULES:
        spend()
        found += rule(sheet)
    return LaidOut(
        place=sheet.place.id,
        units=tuple(_unit(sheet, u) for u in sheet.place.units),
        ticks=(*_ticks(sheet),),
        rules=tuple(_rules(sheet)),
        stacks=tuple(_stacks(sheet)),
        snaps=tuple(_snaps(sheet, lines_mm)),
        findings=in_order(found),
    )


def _figure(known: Known, label: str) -> Figure:
    step = Step(label=label, value_mm=known.value_mm, sd_mm=known.sd_mm)
    return Figure(value_mm=known.value_mm, sd_mm=known.sd_mm, working=(step,))


def _unit(sheet: Sheet, unit: Unit) -> LaidUnit:
    body = unit.body
    return LaidUnit(
        unit=unit,
        width=_figure(sheet.rod.width[unit.id], "Right edge less left edge"),
        cells=sheet.cells[unit.id][0] if unit.insides is not None else (),
        frame=frame_laid(unit, body, sheet.place) if isinstance(body, Framing) else None,
        boards=boards_laid(unit, body, sheet.lengths) if isinstance(body, Boarding | TrimSet) else None,
        hanging=hanging_laid(unit, body) if isinstance(body, HangingWall) else None,
        arch_mm=arch_mm(unit),
    )


def _ticks(sheet: Sheet) -> Iterator[Tick]:
    rules = {r.id: r for r in sheet.said.rules}
    for unit in sheet.said.units:
        for edge, known in zip(ENDS, (sheet.rod.left[unit.id], sheet.rod.right[unit.id]), strict=True):
            because = tuple(i for i in known.because if i in rules)
            named = [r for r in sheet.said.rules if isinstance(r, LinedUp) and r.edge == Edge(of=unit.id, edge=edge)]
            yield Tick(
                of=unit.id,
                edge=edge,
                at=_figure(known, f"{edge.capitalize()} edge of {unit.name}"),
                held="rule" if because else "drawn",
                rules=because,
                signs="".join(dict.fromkeys(rule_sign(r) for r in named)),
            )
    for id_, thing in things(sheet.said).items():
        for edge, at in zip(ENDS, (thing.left_mm, thing.right_mm), strict=True):
            yield Tick(of=id_, edge=edge, at=Figure(value_mm=at, sd_mm=0.0), held="stays")


def _rules(sheet: Sheet) -> Iterator[RuleSaid]:
    for rule in sheet.said.rules:
        words, stands = rule_words(sheet, rule), sheet.rod.stands(rule.id)
        yield RuleSaid(id=rule.id, sign=rule_sign(rule), words=words, stands=stands)


def _stacks(sheet: Sheet) -> Iterator[LaidStack]:
    for stack in sheet.said.heights:
        found = sheet.heights[stack.id]
        layers = tuple(LaidLayer(name=x.name, low_mm=x.low_mm, high_mm=x.high_mm, gives=x.gives) for x in found.layers)
        yield LaidStack(id=stack.id, layers=layers, finished_mm=found.finished_mm, covering_mm=found.covering_mm)


def _snaps(sheet: Sheet, lines_mm: tuple[float, ...]) -> Iterator[Snap]:
    width = sheet.said.width_mm
    for side, at in (("left", 0.0), ("right", width)):
        yield Snap(at_mm=at, name=f"{side} wall", edge=Edge(of=PLACE, edge="left" if side == "left" else "right"))
    yield Snap(at_mm=width / 2, name="middle of the place", edge=Edge(of=PLACE, edge="middle"))
    for unit in sheet.place.units:
        yield Snap(at_mm=unit.x_mm, name=f"{unit.name}, left", edge=Edge(of=unit.id, edge="left"))
        yield Snap(at_mm=unit.right_mm, name=f"{unit.name}, right", edge=Edge(of=unit.id, edge="right"))
    for id_, thing in things(sheet.said).items():
        yield Snap(at_mm=thing.left_mm, name=f"{thing.name}, left", edge=Edge(of=id_, edge="left"))
        yield Snap(
            at_mm=(thing.left_mm + thing.right_mm) / 2, name=f"{thing.name}, middle", edge=Edge(of=id_, edge="middle")
        )
        yield Snap(at_mm=thing.right_mm, name=f"{thing.name}, right", edge=Edge(of=id_, edge="right"))
    for at in lines_mm:
        yield Snap(at_mm=at, name="stud line")
