"""Linear statements about unknowns, taken one after the other: what follows, what is said twice, what is left open.

A statement is a sum of unknowns equal to a sum of givens. It is taken where it tells something new; where it does not,
it either agrees with those before it or contradicts them, and then the ones that say so are named. Gauss–Jordan
elimination, with every row's origin carried along.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from wobble.core.gauge.prior import Floats

NOTHING = 1e-9
"""A coefficient smaller than this is rounding: those of rules are ones and halves."""


@dataclass(frozen=True)
class Statement:
    """One statement: unknowns by their names with coefficients, and what their sum is, in givens by their names."""

    id: str
    unknowns: Mapping[str, float]
    is_: Mapping[str, float]


@dataclass(frozen=True)
class Clash:
    """A statement that cannot be true with others: by what it misses, in givens, and which others those are."""

    id: str
    misses: Mapping[str, float]
    because: tuple[str, ...]


@dataclass(frozen=True)
class Found:
    """What follows from statements.

    Attributes:
        values: Every unknown as a sum of givens. because: The statements that each rests on.
        used: Ids of the statements that told something new. clashes: Those that contradict them.
        idle: Those that only repeat what others say.
    """

    values: Mapping[str, Mapping[str, float]]
    because: Mapping[str, tuple[str, ...]]
    used: frozenset[str] = frozenset()
    clashes: tuple[Clash, ...] = ()
    idle: tuple[str, ...] = field(default=())


def eliminate(
    unknowns: Sequence[str], givens: Sequence[str], statements: Sequence[Statement], agrees: Floats, within: float
) -> Found:
    """Take statements in their order.

    Args:
        unknowns: Names of all unknowns.
        givens: Names of all givens.
        statements: The first that says a thing holds.
        agrees: A likely value of every given, shape (n_givens,): what a repetition is judged by.
        within: A repetition that misses by less than this agrees.

    Returns:
        What follows; an unknown that nothing says anything of is left out of `values`.
    """
    column = {name: i for i, name in enumerate(unknowns)}
    given = {name: i for i, name in enumerate(givens)}
    n, m, k = len(unknowns), len(givens), len(statements)
    rows = np.zeros((0, n + m + k))
    pivots: list[int] = []
    used: list[str] = []
    clashes, idle = [], []
    for i, statement in enumerate(statements):
        row = np.zeros(n + m + k)
        for name, factor in statement.unknowns.items():
            row[column[name]] += factor
        for name, factor in statement.is_.items():
            row[n + given[name]] += factor
        row[n + m + i] = 1.0
        if pivots:
            row = row - row[pivots] @ rows
        biggest = int(np.argmax(np.abs(row[:n]))) if n else 0
        if not n or abs(row[biggest]) < NOTHING:
            rest = row[n : n + m]
            if abs(float(rest @ agrees)) > within:
                others = tuple(statements[int(j)].id for j in np.flatnonzero(np.abs(row[n + m :]) > NOTHING) if j != i)
                misses = {name: float(rest[j]) for name, j in given.items() if abs(rest[j]) > NOTHING}
                clashes.append(Clash(statement.id, misses, others))
            else:
                idle.append(statement.id)
            continue
        row = row / row[biggest]
        if len(rows):
            rows = rows - np.outer(rows[:, biggest], row)
        rows = np.vstack([rows, row])
        pivots.append(biggest)
        used.append(statement.id)
    values, because = {}, {}
    for row, pivot in zip(rows, pivots, strict=True):
        free = [j for j in range(n) if j != pivot and abs(row[j]) > NOTHING]
        if free:
            continue
        name = unknowns[pivot]
        values[name] = {g: float(row[n + j]) for g, j in given.items() if abs(row[n + j]) > NOTHING}
        because[name] = tuple(statements[int(j)].id for j in np.flatnonzero(np.abs(row[n + m :]) > NOTHING))
    return Found(values, because, frozenset(used), tuple(clashes), tuple(idle))
