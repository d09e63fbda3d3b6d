"""What a starter is, and the few moves that all of them build with."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

from msgspec.structs import replace

from wobble.core.job import (
    Edge,
    Equal,
    Existing,
    HeightStack,
    LinedUp,
    Place,
    Rule,
    SurfaceName,
    Unit,
    WallOpening,
    Wide,
)
from wobble.core.job.place import PlaceKind
from wobble.core.job.rules import PLACE
from wobble.core.job.unit import UnitKind
from wobble.core.setout.starters.questions import Answers, Question
from wobble.core.setout.starters.usual import usual

LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"


@dataclass(frozen=True)
class Starter:
    """A kind of job: its id, what it is called and is for, its questions, and how it is set out."""

    id: str
    name: str
    words: str
    questions: tuple[Question, ...]
    build: Callable[[Answers], Place]


@dataclass
class Draft:
    """A place while it is being set out."""

    answers: Answers
    kind: PlaceKind
    surfaces: tuple[SurfaceName, ...]
    wide: float
    deep: float
    high: float
    units: list[Unit] = field(default_factory=list)
    rules: list[Rule] = field(default_factory=list)
    heights: list[HeightStack] = field(default_factory=list)
    existing: list[Existing] = field(default_factory=list)
    openings: list[WallOpening] = field(default_factory=list)
    frame: str = "gravity"

    def unit(self, kind: UnitKind, name: str, **changed: object) -> Unit:
        """Add a usual piece of a kind, with some things changed."""
        round_, letter = divmod(len(self.units), len(LETTERS))
        id_ = f"{LETTERS[letter]}{round_ or ''}"
        made = usual(kind, id_, self.place(), self.answers.lengths, tuple(self.units))
        unit = replace(made, name=f"{id_} {name}", **changed)
        self.units.append(unit)
        return unit

    def rule(self, rule: Callable[[str], Rule]) -> None:
        """Add a rule under a new id."""
        self.rules.append(rule(f"r{len(self.rules) + 1}"))

    def lined_up(self, of: Edge, to: Edge, off: float = 0.0) -> None:
        """Line an edge up with another."""
        self.rule(lambda id_: LinedUp(id=id_, edge=of, to=to, off_mm=off))

    def keep_width(self, unit: str, mm: float) -> None:
        """Keep a piece's width."""
        self.rule(lambda id_: Wide(id=id_, unit=unit, wide_mm=mm))

    def row(self, units: Sequence[Unit], left: float | None, right: float | None, *, equal: bool = True) -> None:
        """Set units side by side, so far off the left wall and the right one; None leaves an end free."""
        if left is not None:
            self.lined_up(Edge(of=units[0].id, edge="left"), Edge(of=PLACE, edge="left"), left)
        for one, other in itertools.pairwise(units):
            self.lined_up(Edge(of=other.id, edge="left"), Edge(of=one.id, edge="right"))
        if right is not None:
            self.lined_up(Edge(of=units[-1].id, edge="right"), Edge(of=PLACE, edge="right"), -right)
        if equal and len(units) > 1:
            self.rule(lambda id_: Equal(id=id_, units=tuple(u.id for u in units)))

    def place(self) -> Place:
        """Return the place as it is so far."""
        return Place(
            id="place",
            name="Place",
            kind=self.kind,
            frame="body" if self.frame == "body" else "gravity",
            surfaces=self.surfaces,
            width_mm=self.wide,
            depth_mm=self.deep,
            height_mm=self.high,
            units=tuple(self.units),
            rules=tuple(self.rules),
            heights=tuple(self.heights),
            existing=tuple(self.existing),
            openings=tuple(self.openings),
        )
