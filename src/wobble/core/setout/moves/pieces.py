"""Pieces put in, split, merged, copied and taken out."""

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
    OnPieces,
    OnShims,
    Rule,
    Unit,
    Wide,
)
from wobble.core.setout.laid import SetOut
from wobble.core.setout.moves.kinds import (
    Copy,
    Insert,
    Merge,
    MoveError,
    SplitUp,
)
from wobble.core.setout.moves.said import (
    as_it_stands,
    names,
    new_rule,
    new_unit_id,
    not_equal,
    there,
)
from wobble.core.setout.sheet import Sheet
from wobble.core.setout.starters.usual import usual

TOUCH_MM = 0.5
LEAST_MM = 10.0
"""A piece is never dragged narrower than this: it would be lost under the finger."""


def insert(sheet: Sheet, said: SetOut, move: Insert) -> SetOut:
    """Put a usual piece of a kind in, beside another or where there is room."""
    said = as_it_stands(sheet, said)
    id_ = new_unit_id(said)
    after = None if move.after is None else there(said, move.after)
    unit = usual(move.kind, id_, sheet.said, sheet.lengths, said.units)
    if after is None:
        return replace(said, units=(*said.units, unit))
    unit = (
        replace(unit, x_mm=after.right_mm, depth_mm=after.depth_mm, height_mm=after.height_mm)
        if (unit.kind == after.kind or (not unit.flat and unit.over_base_mm == after.over_base_mm))
        else replace(unit, x_mm=after.right_mm)
    )
    return beside(said, after, unit)


def beside(said: SetOut, after: Unit, unit: Unit, *, equal: bool = True) -> SetOut:
    """Put a piece at the right of another: what was lined up with that one's right edge now is with the new one's.

    Where that one shares a width equally with others, the new one does too, if it is to be `equal`.
    """
    touch = Edge(of=after.id, edge="right")
    rules: list[Rule] = []
    for rule in said.rules:
        if isinstance(rule, LinedUp) and rule.to == touch and rule.edge.edge == "left" and rule.off_mm == 0:
            rules.append(replace(rule, to=Edge(of=unit.id, edge="right")))
        elif (isinstance(rule, LinedUp) and rule.edge == touch) or (isinstance(rule, At) and rule.edge == touch):
            rules.append(replace(rule, edge=Edge(of=unit.id, edge="right")))
        elif isinstance(rule, Equal) and after.id in rule.units and equal:
            rules.append(replace(rule, units=(*rule.units, unit.id)))
        elif isinstance(rule, Centred) and after.id in rule.units:
            at = rule.units.index(after.id) + 1
            rules.append(replace(rule, units=(*rule.units[:at], unit.id, *rule.units[at:])))
        else:
            rules.append(rule)
    free = new_rule(replace(said, rules=tuple(rules)))
    rules.append(LinedUp(id=free, edge=Edge(of=unit.id, edge="left"), to=touch))
    at = said.units.index(after) + 1
    heights = tuple(replace(s, units=(*s.units, unit.id)) if after.id in s.units else s for s in said.heights)
    return replace(said, units=(*said.units[:at], unit, *said.units[at:]), rules=tuple(rules), heights=heights)


def split_up(sheet: Sheet, said: SetOut, move: SplitUp) -> SetOut:
    """Make several equally wide pieces of one, in its place."""
    said = as_it_stands(sheet, said)
    unit = there(said, move.unit)
    said = not_equal(said, {unit.id})
    wide = unit.width_mm / move.parts
    if wide < LEAST_MM:
        raise MoveError(f"{unit.name} is too narrow for {move.parts}.", mend="Split it into fewer.")
    said = replace(
        said,
        units=tuple(replace(u, width_mm=wide) if u.id == unit.id else u for u in said.units),
        rules=tuple(r for r in said.rules if not (isinstance(r, Wide | AsWide) and r.unit == unit.id)),
    )
    parts = [unit.id]
    last = there(said, unit.id)
    for _ in range(move.parts - 1):
        id_ = new_unit_id(said)
        new = replace(last, id=id_, name=renamed(last.name, last.id, id_), x_mm=last.right_mm, holes=(), mirror_of=None)
        said = beside(said, last, new, equal=False)
        last = there(said, id_)
        parts.append(id_)
    return replace(said, rules=(*said.rules, Equal(id=new_rule(said), units=tuple(parts))))


def renamed(name: str, old: str, new: str) -> str:
    """Return a copy's name: the letter that it begins with is its own."""
    first, _, rest = name.partition(" ")
    return f"{new} {rest}" if first == old and rest else f"{name} {new}"


def merge(sheet: Sheet, said: SetOut, move: Merge) -> SetOut:
    """Make one piece of several that stand side by side."""
    said = as_it_stands(sheet, said)
    run = sorted((there(said, id_) for id_ in dict.fromkeys(move.units)), key=lambda u: u.x_mm)
    for one, other in itertools.pairwise(run):
        if abs(other.x_mm - one.right_mm) > TOUCH_MM or other.over_base_mm != one.over_base_mm:
            raise MoveError(
                f"{one.name} and {other.name} do not stand side by side.", mend="Bring them together first."
            )
    first, last, gone = run[0], run[-1], {u.id for u in run[1:]}
    rules: list[Rule] = []
    for rule in said.rules:
        named = names(rule)
        if not named & ({first.id} | gone):
            rules.append(rule)
        elif isinstance(rule, LinedUp):
            turned = _instead(rule, first.id, last.id, gone)
            if turned is not None:
                rules.append(turned)
        elif not named & gone and not isinstance(rule, Wide | AsWide | Equal):
            rules.append(rule)
    wide = replace(first, width_mm=last.right_mm - first.x_mm)
    units = tuple(wide if u.id == first.id else u for u in said.units if u.id not in gone)
    return without(replace(said, units=units, rules=tuple(rules)), gone)


def _instead(rule: LinedUp, first: str, last: str, gone: set[str]) -> LinedUp | None:
    """Return a rule that named the last piece's right edge with the merged one's; None where it was between them."""
    merged = {first, *gone}

    def turned(edge: Edge) -> Edge | None:
        if edge.of not in merged:
            return edge
        if edge == Edge(of=first, edge="left"):
            return edge
        return Edge(of=first, edge="right") if edge == Edge(of=last, edge="right") else None

    edge, to = turned(rule.edge), turned(rule.to)
    return None if edge is None or to is None or edge.of == to.of else replace(rule, edge=edge, to=to)


def copy(sheet: Sheet, said: SetOut, move: Copy) -> SetOut:
    """Put a piece in once more, beside itself."""
    said = as_it_stands(sheet, said)
    unit = there(said, move.unit)
    id_ = new_unit_id(said)
    sizes = (
        unit.width_mm + move.wider_mm, unit.depth_mm + move.deeper_mm, unit.height_mm + move.taller_mm
    )  # fmt: skip
    if min(sizes) < LEAST_MM:
        raise MoveError(f"Nothing would be left of a copy of {unit.name}.", mend="Take less off.")
    wide, deep, high = sizes
    new = replace(
        unit, id=id_, name=renamed(unit.name, unit.id, id_), x_mm=unit.right_mm, width_mm=wide, depth_mm=deep,
        height_mm=high, mirror_of=None,
    )  # fmt: skip
    return beside(said, unit, new, equal=not move.wider_mm)


def delete(sheet: Sheet, said: SetOut, ids: tuple[str, ...]) -> SetOut:
    """Take pieces out: what was lined up with one of them is lined up with what that one was, where there is such."""
    said, gone = as_it_stands(sheet, said), set(ids)
    rules: list[Rule] = []
    for rule in said.rules:
        match rule:
            case _ if not names(rule) & gone:
                rules.append(rule)
            case Equal(units=units) if len(rest := tuple(u for u in units if u not in gone)) >= 2:
                rules.append(replace(rule, units=rest))
            case Centred(units=units, on=on) if on not in gone and (rest := tuple(u for u in units if u not in gone)):
                rules.append(replace(rule, units=rest))
            case _:
                pass
    said = replace(
        said,
        units=tuple(u for u in said.units if u.id not in gone),
        rules=tuple(rules),
        existing=tuple(e for e in said.existing if e.id not in gone),
        openings=tuple(o for o in said.openings if o.id not in gone),
    )
    return without(said, gone)


def without(said: SetOut, gone: set[str]) -> SetOut:
    """Return what is set out with no mention left of what is gone: in stacks, in what carries, in mirror images."""
    heights = tuple(
        replace(s, units=tuple(u for u in s.units if u not in gone), tops=tuple(u for u in s.tops if u not in gone))
        for s in said.heights
    )
    units = []
    for unit in said.units:
        if isinstance(unit.standing, OnPieces) and set(unit.standing.pieces) & gone:
            left = tuple(p for p in unit.standing.pieces if p not in gone)
            # what carried it is gone: it stands on the floor until something else is said
            unit = (
                replace(unit, standing=OnPieces(pieces=left))
                if left
                else replace(unit, standing=OnShims(), over_base_mm=0.0)
            )
        units.append(replace(unit, mirror_of=None) if unit.mirror_of in gone else unit)
    return replace(said, units=tuple(units), heights=tuple(s for s in heights if s.units or s.tops))
