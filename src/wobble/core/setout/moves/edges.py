"""Edges dragged, and rules said."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job import (
    AsWide,
    Equal,
    LinedUp,
    Rule,
    Unit,
    Wide,
)
from wobble.core.job.rules import EdgeName
from wobble.core.setout.laid import SetOut
from wobble.core.setout.moves.kinds import (
    Drag,
)
from wobble.core.setout.moves.said import (
    as_it_stands,
    leading,
    lined,
    moved_with,
    new_rule,
    not_equal,
    same_equal,
    subject,
    there,
)
from wobble.core.setout.sheet import Sheet

LEAST_MM = 10.0
"""A piece is never dragged narrower than this: it would be lost under the finger."""


def say(sheet: Sheet, said: SetOut, rule: Rule) -> SetOut:
    """Say a rule: what held the same gives way."""
    said = as_it_stands(sheet, said)
    if isinstance(rule, Wide | AsWide):
        said = not_equal(said, {rule.unit})
    held = set(subject(rule))
    kept = tuple(r for r in said.rules if r.id != rule.id and not (held & set(subject(r))))
    if isinstance(rule, Equal):  # an own width of one of them would make the others follow it, or contradict
        own = {(u, "width") for u in rule.units}
        kept = tuple(r for r in kept if not (own & set(subject(r))) and not same_equal(r, rule))
    return replace(said, rules=(*kept, rule))


def drag(sheet: Sheet, said: SetOut, move: Drag) -> SetOut:
    """Move an edge, or a whole piece by its middle; brought to another edge it stays with that."""
    there(said, move.edge.of)
    said = as_it_stands(sheet, said)
    edge = move.edge if move.edge.edge == "middle" else leading(said, move.edge)
    unit, side = there(said, edge.of), edge.edge
    if side != "middle":
        said = not_equal(said, moved_with(said, edge))
    # what held the edge lets go
    loose: set[tuple[str, str]] = {(unit.id, side)}
    if side == "middle":
        loose |= {(unit.id, "left"), (unit.id, "right"), (unit.id, "centred")}
    kept = tuple(r for r in said.rules if not (loose & set(subject(r))))
    if side == "middle":
        units = tuple(
            replace(u, x_mm=max(move.at_mm - u.width_mm / 2, 0.0)) if u.id == unit.id else u for u in said.units
        )
        said = replace(said, units=units, rules=kept)
    else:
        said = _edge_moved(replace(said, rules=kept), unit, side, move.at_mm)
    if move.to is not None and move.to.of != unit.id and move.to.of not in moved_with(said, edge):
        rule = LinedUp(id=new_rule(said), edge=edge, to=move.to)
        said = replace(said, rules=(*said.rules, rule))
    return said


def _edge_moved(said: SetOut, unit: Unit, side: EdgeName, at: float) -> SetOut:
    """Move one edge: the piece's other edge stays, and so does the far edge of a neighbour that is lined up with it."""
    if side == "left":
        at = min(max(at, 0.0), unit.right_mm - LEAST_MM)
        mine = replace(unit, x_mm=at, width_mm=unit.right_mm - at)
    else:
        at = max(at, unit.x_mm + LEAST_MM)
        mine = replace(unit, width_mm=at - unit.x_mm)
    held = {r.unit for r in said.rules if isinstance(r, Wide)}
    out = []
    for u in said.units:
        if u.id == unit.id:
            out.append(mine)
        elif side == "right" and u.id not in held and lined(said, u.id, "left", unit.id, "right"):
            left = min(at, u.right_mm - LEAST_MM)
            out.append(replace(u, x_mm=left, width_mm=u.right_mm - left))
        elif side == "left" and u.id not in held and lined(said, unit.id, "left", u.id, "right"):
            out.append(replace(u, width_mm=max(at - u.x_mm, LEAST_MM)))
        else:
            out.append(u)
    wide = tuple(r for r in said.rules if not (isinstance(r, Wide) and r.unit == unit.id))
    return replace(said, units=tuple(out), rules=wide)
