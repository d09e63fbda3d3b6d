"""The long rod: where every edge stands along the place, from rules over edges and the walls as they are known.

Rules come first, in their order; then what is drawn, each number where the rules leave it open. What follows a wall
carries the wall's uncertainty on.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from msgspec.structs import replace

from wobble.core.gauge.prior import Floats
from wobble.core.job import AsWide, At, Centred, Edge, Equal, LinedUp, Obstacle, Place, Rule, Unit, Wide
from wobble.core.job.rules import PLACE
from wobble.core.setout.elimination import Clash, Found, Statement, eliminate

ONE = "1"
"""The given that is a number."""
AGREES_MM = 0.05
"""Two rules that differ by less than this say the same: a fiftieth of what a saw keeps."""
LEAST_MM = 1.0
"""A unit that comes out narrower than this has no room."""


Stands = Literal["holds", "contradicts", "repeats", "names nothing"]


@dataclass(frozen=True)
class Walls:
    """The side walls as the units that follow them meet them: estimates by the names that statements give them.

    Attributes:
        names: As from `wall_name`. mean: mm, shape (n,). covariance: mm², shape (n, n). measured: Whether each is.
    """

    names: tuple[str, ...]
    mean: Floats
    covariance: Floats
    measured: tuple[bool, ...]


@dataclass(frozen=True)
class Thing:
    """What a rule may name beside units: its edges, mm."""

    name: str
    left_mm: float
    right_mm: float


@dataclass(frozen=True)
class Known:
    """A length along the place: value and standard deviation, mm, and the statements that it rests on.

    `measured` says whether all of the walls that it follows are.
    """

    value_mm: float
    sd_mm: float
    because: tuple[str, ...]
    measured: bool


@dataclass(frozen=True)
class LongRod:
    """All edges along the place.

    Attributes:
        left: Left edge of every unit by its id. width: Its width. right: Its right edge.
        clashes: Rules that cannot hold with others. misses_mm: By how much each misses.
        idle: Rules that only repeat others.
    """

    left: Mapping[str, Known]
    width: Mapping[str, Known]
    right: Mapping[str, Known]
    clashes: tuple[Clash, ...]
    misses_mm: tuple[float, ...]
    idle: tuple[str, ...]

    def stands(self, rule: str) -> Stands:
        """Return whether a rule is followed, and why not."""
        if any(c.id == rule for c in self.clashes):
            return "contradicts"
        if any(rule in k.because for known in (self.left, self.width) for k in known.values()):
            return "holds"
        return "repeats" if rule in self.idle else "names nothing"

    def placed(self, unit: Unit) -> Unit:
        """Return a unit where the rod has it, never narrower than nothing."""
        return replace(
            unit,
            x_mm=max(self.left[unit.id].value_mm, 0.0),
            width_mm=max(self.width[unit.id].value_mm, LEAST_MM),
        )


def things(place: Place) -> dict[str, Thing]:
    """Return what rules may name beside units: obstacles on the back or floor, openings, what stays, steps."""
    out = {o.id: Thing(o.name, o.at[0], o.at[0] + o.size[0]) for o in place.obstacles if _along(o)}
    out |= {o.id: Thing(o.name, o.x_mm, o.right_mm) for o in place.openings}
    out |= {e.id: Thing(e.name, e.x_mm, e.right_mm) for e in place.existing}
    # a ledge that lies along the whole wall, or a plinth along its foot, has no edge that one meets going along
    upright = (s for s in place.steps if s.surface in ("back", "floor") and s.axis == "first")
    return out | {s.id: Thing(s.name, s.from_mm, s.to_mm) for s in upright}


def _along(obstacle: Obstacle) -> bool:
    return obstacle.surface in ("back", "floor", "ceiling")


def wall_name(side: str, unit_id: str) -> str:
    """Return what the wall at a side is called as one unit meets it."""
    return f"{side} wall at {unit_id}"


def walls_met(place: Place) -> tuple[tuple[str, str], ...]:
    """Return every (side, unit) of which a rule needs to know where the wall is."""
    ids = {u.id for u in place.units}
    met: dict[tuple[str, str], None] = {}
    for rule in place.rules:
        match rule:
            case LinedUp(edge=edge, to=to):
                for one, other in ((edge, to), (to, edge)):
                    if one.of == PLACE and other.of in ids:
                        met |= dict.fromkeys((side, other.of) for side in _sides(one))
            case Centred(on="place", units=units):
                there = [u for u in units if u in ids]
                met |= dict.fromkeys((("left", there[0]), ("right", there[-1])) if there else ())
            case _:
                pass
    return tuple((side, unit) for side, unit in met if unit in ids)


def _sides(edge: Edge) -> tuple[str, ...]:
    return ("left", "right") if edge.edge == "middle" else (edge.edge,)


@dataclass(frozen=True)
class _Sum:
    """A sum of unknowns and givens."""

    unknowns: Mapping[str, float]
    givens: Mapping[str, float]

    def plus(self, other: _Sum, times: float) -> _Sum:
        return _Sum(_added(self.unknowns, other.unknowns, times), _added(self.givens, other.givens, times))


def _added(first: Mapping[str, float], second: Mapping[str, float], times: float) -> dict[str, float]:
    out = dict(first)
    for name, factor in second.items():
        out[name] = out.get(name, 0.0) + times * factor
    return out


def _left(unit: str) -> str:
    return f"{unit} left"


def _width(unit: str) -> str:
    return f"{unit} width"


def long_rod(place: Place, walls: Walls) -> LongRod:
    """Return where every edge of a place's units stands."""
    units, named = {u.id: u for u in place.units}, things(place)
    statements = [s for rule in place.rules for s in _statements(rule, units, named)]
    statements += _drawn(place)
    unknowns = [name for u in place.units for name in (_left(u.id), _width(u.id))]
    givens = (ONE, *walls.names)
    mean = np.concatenate([[1.0], walls.mean])
    found = eliminate(unknowns, givens, statements, mean, AGREES_MM)
    own = {r.id for r in place.rules}
    clashes = tuple(c for c in found.clashes if c.id in own)
    reading = _Reading(found, givens, mean, walls)
    lefts = {u.id: reading.known(_Sum({_left(u.id): 1.0}, {})) for u in place.units}
    widths = {u.id: reading.known(_Sum({_width(u.id): 1.0}, {})) for u in place.units}
    rights = {u.id: reading.known(_Sum({_left(u.id): 1.0, _width(u.id): 1.0}, {})) for u in place.units}
    misses = tuple(float(sum(f * mean[givens.index(g)] for g, f in c.misses.items())) for c in clashes)
    return LongRod(lefts, widths, rights, clashes, misses, tuple(i for i in found.idle if i in own))


def _drawn(place: Place) -> list[Statement]:
    """Return the numbers that units are drawn with, those first that are to stay where rules leave a choice.

    What no rule holds stays as it is. What is held at its right edge alone keeps its place and is stretched; all else
    keeps its width and is moved.
    """
    held: dict[str, set[str]] = {u.id: set() for u in place.units}
    for rule in place.rules:
        match rule:
            case At(edge=edge) | LinedUp(edge=edge):
                held.get(edge.of, set()).add(edge.edge)
            case Centred(units=units):
                for unit in units:
                    held.get(unit, set()).add("middle")
            case _:
                pass
    widths = {u.id: Statement(_width(u.id), {_width(u.id): 1.0}, {ONE: u.width_mm}) for u in place.units}
    lefts = {u.id: Statement(_left(u.id), {_left(u.id): 1.0}, {ONE: u.x_mm}) for u in place.units}
    free = [u.id for u in place.units if not held[u.id]]
    stretched = [u.id for u in place.units if held[u.id] == {"right"}]
    moved = [u.id for u in place.units if held[u.id] and held[u.id] != {"right"}]
    return [
        *(widths[u] for u in free),
        *(lefts[u] for u in free),
        *(lefts[u] for u in stretched),
        *(widths[u] for u in moved),
        *(lefts[u] for u in moved),
        *(widths[u] for u in stretched),
    ]


@dataclass(frozen=True)
class _Reading:
    """Reads lengths off what was found."""

    found: Found
    givens: Sequence[str]
    mean: Floats
    walls: Walls

    def known(self, asked: _Sum) -> Known:
        total: dict[str, float] = dict(asked.givens)
        because: dict[str, None] = {}
        for name, factor in asked.unknowns.items():
            total = _added(total, self.found.values[name], factor)
            because |= dict.fromkeys(self.found.because[name])
        factors = np.array([total.get(name, 0.0) for name in self.givens])
        spread = factors[1:]
        variance = float(spread @ self.walls.covariance @ spread) if len(spread) else 0.0
        measured = all(m for m, f in zip(self.walls.measured, spread, strict=True) if abs(f) > 1e-9)
        return Known(float(factors @ self.mean), math.sqrt(max(variance, 0.0)), tuple(because), measured)


def _statement(rule: Rule, units: Mapping[str, Unit], named: Mapping[str, Thing]) -> Statement | None:
    """Return a rule as a statement; None where it names what is not there (any more)."""
    left: _Sum | None
    right: _Sum | None
    match rule:
        case At(edge=edge, at_mm=at):
            left, right = _edge(edge, edge, units, named), _Sum({}, {ONE: at})
        case LinedUp(edge=edge, to=to, off_mm=off):
            other = _edge(to, edge, units, named)
            left = _edge(edge, to, units, named)
            right = None if other is None else other.plus(_Sum({}, {ONE: off}), 1.0)
        case Wide(unit=unit, wide_mm=wide):
            left, right = _wide(unit, units, named), _Sum({}, {ONE: wide})
        case AsWide(unit=unit, than=than, more_mm=more):
            other = _wide(than, units, named)
            left = _wide(unit, units, named)
            right = None if other is None else other.plus(_Sum({}, {ONE: more}), 1.0)
        case Centred(units=members, on=on):
            there = [m for m in members if m in units]
            if not there:
                return None
            first, last = Edge(of=there[0], edge="left"), Edge(of=there[-1], edge="right")
            ends = [_edge(e, e, units, named) for e in (first, last)]
            left = _half(ends[0], ends[1])
            if on == PLACE:
                right = _half(
                    _Sum({}, {wall_name("left", there[0]): 1.0}), _Sum({}, {wall_name("right", there[-1]): 1.0})
                )
            else:
                right = _edge(Edge(of=on, edge="middle"), first, units, named)
        case _:
            return None
    if left is None or right is None:
        return None
    total = left.plus(right, -1.0)
    return Statement(rule.id, total.unknowns, {g: -f for g, f in total.givens.items()})


def _statements(rule: Rule, units: Mapping[str, Unit], named: Mapping[str, Thing]) -> tuple[Statement, ...]:
    """Return what a rule states: equal widths state one thing for each unit after the first."""
    if isinstance(rule, Equal):
        there = [u for u in rule.units if u in units]
        return tuple(Statement(rule.id, {_width(there[0]): 1.0, _width(other): -1.0}, {}) for other in there[1:])
    one = _statement(rule, units, named)
    return () if one is None else (one,)


def _half(first: _Sum | None, second: _Sum | None) -> _Sum | None:
    if first is None or second is None:
        return None
    nothing = _Sum({}, {})
    return nothing.plus(first, 0.5).plus(second, 0.5)


def _edge(edge: Edge, beside: Edge, units: Mapping[str, Unit], named: Mapping[str, Thing]) -> _Sum | None:
    """Return an edge as a sum; a wall's as the unit of the other edge meets it."""
    if edge.of in units:
        share = {"left": 0.0, "middle": 0.5, "right": 1.0}[edge.edge]
        return _Sum({_left(edge.of): 1.0, _width(edge.of): share}, {})
    if edge.of in named:
        thing = named[edge.of]
        middle = (thing.left_mm + thing.right_mm) / 2
        return _Sum({}, {ONE: {"left": thing.left_mm, "middle": middle, "right": thing.right_mm}[edge.edge]})
    if edge.of == PLACE and beside.of in units:
        walls = [_Sum({}, {wall_name(side, beside.of): 1.0}) for side in _sides(edge)]
        return walls[0] if len(walls) == 1 else _half(walls[0], walls[1])
    return None


def _wide(of: str, units: Mapping[str, Unit], named: Mapping[str, Thing]) -> _Sum | None:
    if of in units:
        return _Sum({_width(of): 1.0}, {})
    if of in named:
        return _Sum({}, {ONE: named[of].right_mm - named[of].left_mm})
    return None
