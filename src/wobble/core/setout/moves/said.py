"""What moves look up in what is set out: pieces, free ids, what a rule names and holds, which edges are one."""

from __future__ import annotations

import itertools

from msgspec.structs import replace

from wobble.core.job import (
    AsWide,
    At,
    Centred,
    Edge,
    Equal,
    LinedUp,
    Rule,
    Unit,
    Wide,
)
from wobble.core.job.rules import PLACE, EdgeName
from wobble.core.setout.laid import SetOut
from wobble.core.setout.moves.kinds import (
    MoveError,
)
from wobble.core.setout.sheet import Sheet


def there(said: SetOut, id_: str) -> Unit:
    """Return a piece by its id.

    Raises:
        MoveError: There is none.
    """
    found = next((u for u in said.units if u.id == id_), None)
    if found is None:
        raise MoveError(f"There is no piece “{id_}”.", mend="Look at what is set out again.")
    return found


def as_it_stands(sheet: Sheet, said: SetOut) -> SetOut:
    """Return what is set out with every number as the rules have it now: what a rule held stays when it goes."""
    units = tuple(
        replace(
            u,
            x_mm=max(sheet.rod.left[u.id].value_mm, 0.0),
            width_mm=max(sheet.rod.width[u.id].value_mm, 1.0),
        )
        if u.id in sheet.rod.left
        else u
        for u in said.units
    )
    return replace(said, units=units)


def new_rule(said: SetOut) -> str:
    """Return an id that no rule has."""
    taken = {r.id for r in said.rules}
    return next(f"r{n}" for n in itertools.count(1) if f"r{n}" not in taken)


def new_unit_id(said: SetOut) -> str:
    """Return an id that no piece has: a letter as on the boards, then letters with numbers."""
    taken = {u.id for u in said.units}
    letters = "ABCDEFGHJKLMNPQRSTUVWXYZ"
    return next(i for i in (f"{c}{n or ''}" for n in itertools.count() for c in letters) if i not in taken)


def subject(rule: Rule) -> tuple[tuple[str, str], ...]:
    """Return what a rule holds: (piece, edge or width)."""
    match rule:
        case At(edge=edge) | LinedUp(edge=edge):
            return ((edge.of, edge.edge),)
        case Wide(unit=unit) | AsWide(unit=unit):
            return ((unit, "width"),)
        case Centred(units=units):
            return tuple((u, "centred") for u in units)
        case _:
            return ()


def leading(said: SetOut, edge: Edge) -> Edge:
    """Return the edge that another follows, where it stands right at it: two that touch are one on the rod."""
    for rule in said.rules:
        touches = isinstance(rule, LinedUp) and rule.edge == edge and rule.off_mm == 0
        if touches and isinstance(rule, LinedUp) and any(u.id == rule.to.of for u in said.units):
            return rule.to
    return edge


def moved_with(said: SetOut, edge: Edge) -> set[str]:
    """Return the pieces whose width changes when an edge moves: its own, and those that touch it there."""
    return {edge.of} | {r.edge.of for r in said.rules if isinstance(r, LinedUp) and r.to == edge and r.off_mm == 0}


def not_equal(said: SetOut, ids: set[str]) -> SetOut:
    """Take pieces out of what is equally wide."""
    rules: list[Rule] = []
    for rule in said.rules:
        if isinstance(rule, Equal):
            rest = tuple(u for u in rule.units if u not in ids)
            if len(rest) >= 2:
                rules.append(replace(rule, units=rest))
        else:
            rules.append(rule)
    return replace(said, rules=tuple(rules))


def same_equal(one: Rule, other: Equal) -> bool:
    """Return whether two rules make some of the same pieces equally wide."""
    return isinstance(one, Equal) and bool(set(one.units) & set(other.units))


def lined(said: SetOut, of: str, edge: EdgeName, to: str, to_edge: EdgeName) -> bool:
    """Return whether a rule lines an edge up with another."""
    return any(
        isinstance(r, LinedUp) and r.edge == Edge(of=of, edge=edge) and r.to == Edge(of=to, edge=to_edge)
        for r in said.rules
    )


def names(rule: Rule) -> set[str]:
    """Return everything that a rule names."""
    match rule:
        case At(edge=edge):
            return {edge.of}
        case LinedUp(edge=edge, to=to):
            return {edge.of, to.of} - {PLACE}
        case Wide(unit=unit):
            return {unit}
        case AsWide(unit=unit, than=than):
            return {unit, than}
        case Equal(units=units):
            return set(units)
        case Centred(units=units, on=on):
            return {*units, on} - {PLACE}
