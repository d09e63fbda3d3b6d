"""A step of the work, and what ties one step to another."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from wobble.core.job import Value
from wobble.core.job.sessions import Skill, Where
from wobble.core.part import Wait

StepKind = Literal[
    "clear",
    "survey",
    "service",
    "buy",
    "template",
    "measure",
    "cut",
    "drill",
    "dry fit",
    "assemble",
    "coat",
    "carry",
    "level",
    "hang on",
    "set",
    "cables",
    "fasten",
    "top",
    "line",
    "frame",
    "fill",
    "drawers",
    "doors",
    "caulk",
    "touch up",
    "put in",
    "check",
    "own",
]
PHASE: dict[StepKind, int] = {kind: n for n, kind in enumerate(StepKind.__args__)}  # type: ignore[attr-defined]
"""In which turn kinds of steps come where nothing else ties them."""
TieKind = Literal["trap", "gate", "trade", "way in", "dries", "said"]


class StandIn(Value, frozen=True, kw_only=True):
    """What takes the place of a second pair of hands, and how much longer it takes then."""

    what: str
    slower: float = 1.4


class WorkStep(Value, frozen=True, kw_only=True):
    """One step of the work.

    Attributes:
        key: Its own, the same while it is the same work. kind: What sort. name: What is done. place: Where; "" for
            all. of: Units that it is about. parts: Keys of parts that it cuts, drills or puts together.
        minutes: Usual length for the people it asks for. people: How many hands it wants.
        stand_in: What does for the second, where something does. skill: What must not be denied to whoever does it.
        machines: Kinds of machine that it wants. where: Where it is done.
        splits: Whether it may be left half done and gone on with another day.
        rests_h: How long it dries or sets before what is tied to it may begin; `rests_why` of what.
        why: Why it is there at all. how: What to do, line by line, with its figures. bring: What to take along.
        caution: The safety word. others: Whether somebody else does it, who is waited for. opens: What parts wait for
            that is known when it is done.
    """

    key: str
    kind: StepKind
    name: str
    place: str = ""
    of: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    minutes: int = 15
    people: int = 1
    stand_in: StandIn | None = None
    skill: Skill | None = None
    machines: tuple[str, ...] = ()
    where: Where = "place"
    splits: bool = False
    rests_h: float = 0.0
    rests_why: str = ""
    why: str = ""
    how: tuple[str, ...] = ()
    bring: tuple[str, ...] = ()
    caution: str = ""
    others: bool = False
    opens: tuple[Wait, ...] = ()


class Tie(Value, frozen=True, kw_only=True):
    """`first` comes before `then`: of which kind, and why in words.

    `rests` says that what `first` leaves to dry must be dry before. A `firm` one cannot be turned round by saying so.
    """

    first: str
    then: str
    kind: TieKind
    why: str
    rests: bool = True
    firm: bool = True


def strongest(ties: Iterable[Tie]) -> tuple[Tie, ...]:
    """Return one tie for each pair of steps: a firm one before one that only prefers, one that rests before others."""
    found: dict[tuple[str, str], Tie] = {}
    for t in ties:
        had = found.get((t.first, t.then))
        if t.first != t.then and (had is None or (t.firm, t.rests) > (had.firm, had.rests)):
            found[t.first, t.then] = t
    return tuple(found.values())
