"""What the demo jobs say of how their pieces stand to each other, in few words."""

from __future__ import annotations

import itertools
from collections.abc import Iterable

from wobble.core.job import Cell, Door, Edge, Insides, LinedUp, Rule, Shelved, Unit
from wobble.core.job.insides import Hangs


def touching(units: Iterable[Unit], first: int = 1) -> tuple[Rule, ...]:
    """Return the rules that units stand side by side, each against the one at its left; ids count from `first`."""
    return tuple(
        LinedUp(id=f"r{first + i}", edge=Edge(of=other.id, edge="left"), to=Edge(of=one.id, edge="right"))
        for i, (one, other) in enumerate(itertools.pairwise(units))
    )


def shelved(shelves: int, hangs: Hangs = "pair") -> Insides:
    """Return an inside of so many shelves on pins behind doors that lie over the boards, on cup hinges."""
    return Insides(cell=Cell(fill=Shelved(count=shelves), door=Door(hangs=hangs, hinge="cup")))
