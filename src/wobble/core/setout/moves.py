"""What is done on the rods: an edge moved or typed, pieces put in, split, merged, copied, mirrored, taken out.

Each takes what is set out and gives it anew; nothing else is changed, so that undoing is putting the old one back.
"""

from __future__ import annotations

import itertools
from typing import Annotated

from msgspec import Meta
from msgspec.structs import replace

from wobble.core.errors import WobbleError
from wobble.core.job import (
    AsWide,
    At,
    Cell,
    Centred,
    Columns,
    Coordinate,
    Edge,
    Equal,
    Hole,
    Insides,
    Key,
    LinedUp,
    OnPieces,
    OnShims,
    Positive,
    Rows,
    Rule,
    Unit,
    Value,
    Wide,
)
from wobble.core.job.insides import Door
from wobble.core.job.rules import PLACE, EdgeName
from wobble.core.job.unit import Angled, UnitKind
from wobble.core.setout.laid import SetOut
from wobble.core.setout.sheet import Sheet
from wobble.core.setout.starters.usual import usual

TOUCH_MM = 0.5
LEAST_MM = 10.0
"""A piece is never dragged narrower than this: it would be lost under the finger."""


class MoveError(WobbleError):
    """A move that cannot be made."""

    code = "move"


class Drag(Value, frozen=True, kw_only=True, tag_field="move", tag="drag"):
    """An edge is held and moved to a place; its middle moves the whole piece. Brought to another edge it stays."""

    edge: Edge
    at_mm: Coordinate
    to: Edge | None = None


class TypeEdge(Value, frozen=True, kw_only=True, tag_field="move", tag="type"):
    """A number is typed on an edge: it is kept there, whatever else follows."""

    edge: Edge
    at_mm: Coordinate


class TypeWidth(Value, frozen=True, kw_only=True, tag_field="move", tag="type width"):
    """A number is typed as a piece's width."""

    unit: Key
    wide_mm: Positive


class Insert(Value, frozen=True, kw_only=True, tag_field="move", tag="insert"):
    """A piece of a kind is put in: right of another one, or where there is room."""

    kind: UnitKind
    after: Key | None = None


class SplitUp(Value, frozen=True, kw_only=True, tag_field="move", tag="split"):
    """A piece becomes several of equal width side by side."""

    unit: Key
    parts: Annotated[int, Meta(ge=2, le=12)] = 2


class Merge(Value, frozen=True, kw_only=True, tag_field="move", tag="merge"):
    """Pieces side by side become one, as the first of them is."""

    units: Annotated[tuple[Key, ...], Meta(min_length=2, max_length=20)]


class Copy(Value, frozen=True, kw_only=True, tag_field="move", tag="copy"):
    """A piece once more, at its right; `deeper_mm`, `taller_mm` and `wider_mm` make it a little more."""

    unit: Key
    deeper_mm: Coordinate = 0.0
    taller_mm: Coordinate = 0.0
    wider_mm: Coordinate = 0.0


class Mirror(Value, frozen=True, kw_only=True, tag_field="move", tag="mirror"):
    """A piece once more at its right, as seen in a mirror; or, `in_place`, itself turned over."""

    unit: Key
    in_place: bool = False


class Delete(Value, frozen=True, kw_only=True, tag_field="move", tag="delete"):
    """Pieces or things that stay are taken out, with all rules that name them."""

    ids: Annotated[tuple[Key, ...], Meta(min_length=1, max_length=100)]


class Say(Value, frozen=True, kw_only=True, tag_field="move", tag="say"):
    """A rule is said; those that hold the same edge or width give way."""

    rule: Rule


class Release(Value, frozen=True, kw_only=True, tag_field="move", tag="release"):
    """A rule is taken off; what it held stays where it is now."""

    rule: Key


Move = Drag | TypeEdge | TypeWidth | Insert | SplitUp | Merge | Copy | Mirror | Delete | Say | Release


def moved(sheet: Sheet, said: SetOut, move: Move) -> SetOut:
    """Return what is set out after a move; `sheet` is as it stood before.

    Raises:
        MoveError: The move names what is not there, or cannot be made.
    """
    match move:
        case Drag():
            return _drag(sheet, said, move)
        case TypeEdge(edge=edge, at_mm=at):
            _there(said, edge.of)
            edge = _leading(said, edge)
            said = _not_equal(said, _moved_with(said, edge))
            return _say(sheet, said, At(id=_new_rule(said), edge=edge, at_mm=at))
        case TypeWidth(unit=unit, wide_mm=wide):
            _there(said, unit)
            return _say(sheet, said, Wide(id=_new_rule(said), unit=unit, wide_mm=wide))
        case Insert():
            return _insert(sheet, said, move)
        case SplitUp():
            return _split_up(sheet, said, move)
        case Merge():
            return _merge(sheet, said, move)
        case Copy():
            return _copy(sheet, said, move)
        case Mirror():
            return _mirror(sheet, said, move)
        case Delete(ids=ids):
            return _delete(sheet, said, ids)
        case Say(rule=rule):
            return _say(sheet, said, rule)
        case Release(rule=id_):
            return replace(_as_it_stands(sheet, said), rules=tuple(r for r in said.rules if r.id != id_))


def _there(said: SetOut, id_: str) -> Unit:
    found = next((u for u in said.units if u.id == id_), None)
    if found is None:
        raise MoveError(f"There is no piece “{id_}”.", mend="Look at what is set out again.")
    return found


def _as_it_stands(sheet: Sheet, said: SetOut) -> SetOut:
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


def _new_rule(said: SetOut) -> str:
    taken = {r.id for r in said.rules}
    return next(f"r{n}" for n in itertools.count(1) if f"r{n}" not in taken)


def new_unit_id(said: SetOut) -> str:
    """Return an id that no piece has: a letter as on the boards, then letters with numbers."""
    taken = {u.id for u in said.units}
    letters = "ABCDEFGHJKLMNPQRSTUVWXYZ"
    return next(i for i in (f"{c}{n or ''}" for n in itertools.count() for c in letters) if i not in taken)


def _subject(rule: Rule) -> tuple[tuple[str, str], ...]:
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


def _say(sheet: Sheet, said: SetOut, rule: Rule) -> SetOut:
    """Say a rule: what held the same gives way."""
    said = _as_it_stands(sheet, said)
    if isinstance(rule, Wide | AsWide):
        said = _not_equal(said, {rule.unit})
    held = set(_subject(rule))
    kept = tuple(r for r in said.rules if r.id != rule.id and not (held & set(_subject(r))))
    if isinstance(rule, Equal):  # an own width of one of them would make the others follow it, or contradict
        own = {(u, "width") for u in rule.units}
        kept = tuple(r for r in kept if not (own & set(_subject(r))) and not _same_equal(r, rule))
    return replace(said, rules=(*kept, rule))


def _leading(said: SetOut, edge: Edge) -> Edge:
    """Return the edge that another follows, where it stands right at it: two that touch are one on the rod."""
    for rule in said.rules:
        touches = isinstance(rule, LinedUp) and rule.edge == edge and rule.off_mm == 0
        if touches and isinstance(rule, LinedUp) and any(u.id == rule.to.of for u in said.units):
            return rule.to
    return edge


def _moved_with(said: SetOut, edge: Edge) -> set[str]:
    """Return the pieces whose width changes when an edge moves: its own, and those that touch it there."""
    return {edge.of} | {r.edge.of for r in said.rules if isinstance(r, LinedUp) and r.to == edge and r.off_mm == 0}


def _not_equal(said: SetOut, ids: set[str]) -> SetOut:
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


def _same_equal(one: Rule, other: Equal) -> bool:
    return isinstance(one, Equal) and bool(set(one.units) & set(other.units))


def _drag(sheet: Sheet, said: SetOut, move: Drag) -> SetOut:
    _there(said, move.edge.of)
    said = _as_it_stands(sheet, said)
    edge = move.edge if move.edge.edge == "middle" else _leading(said, move.edge)
    unit, side = _there(said, edge.of), edge.edge
    if side != "middle":
        said = _not_equal(said, _moved_with(said, edge))
    # what held the edge lets go
    loose: set[tuple[str, str]] = {(unit.id, side)}
    if side == "middle":
        loose |= {(unit.id, "left"), (unit.id, "right"), (unit.id, "centred")}
    kept = tuple(r for r in said.rules if not (loose & set(_subject(r))))
    if side == "middle":
        units = tuple(
            replace(u, x_mm=max(move.at_mm - u.width_mm / 2, 0.0)) if u.id == unit.id else u for u in said.units
        )
        said = replace(said, units=units, rules=kept)
    else:
        said = _edge_moved(replace(said, rules=kept), unit, side, move.at_mm)
    if move.to is not None and move.to.of != unit.id and move.to.of not in _moved_with(said, edge):
        rule = LinedUp(id=_new_rule(said), edge=edge, to=move.to)
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
        elif side == "right" and u.id not in held and _lined(said, u.id, "left", unit.id, "right"):
            left = min(at, u.right_mm - LEAST_MM)
            out.append(replace(u, x_mm=left, width_mm=u.right_mm - left))
        elif side == "left" and u.id not in held and _lined(said, unit.id, "left", u.id, "right"):
            out.append(replace(u, width_mm=max(at - u.x_mm, LEAST_MM)))
        else:
            out.append(u)
    wide = tuple(r for r in said.rules if not (isinstance(r, Wide) and r.unit == unit.id))
    return replace(said, units=tuple(out), rules=wide)


def _lined(said: SetOut, of: str, edge: EdgeName, to: str, to_edge: EdgeName) -> bool:
    return any(
        isinstance(r, LinedUp) and r.edge == Edge(of=of, edge=edge) and r.to == Edge(of=to, edge=to_edge)
        for r in said.rules
    )


def _insert(sheet: Sheet, said: SetOut, move: Insert) -> SetOut:
    said = _as_it_stands(sheet, said)
    id_ = new_unit_id(said)
    after = None if move.after is None else _there(said, move.after)
    unit = usual(move.kind, id_, sheet.said, sheet.lengths, said.units)
    if after is None:
        return replace(said, units=(*said.units, unit))
    unit = (
        replace(unit, x_mm=after.right_mm, depth_mm=after.depth_mm, height_mm=after.height_mm)
        if (unit.kind == after.kind or (not unit.flat and unit.over_base_mm == after.over_base_mm))
        else replace(unit, x_mm=after.right_mm)
    )
    return _beside(said, after, unit)


def _beside(said: SetOut, after: Unit, unit: Unit, *, equal: bool = True) -> SetOut:
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
    free = _new_rule(replace(said, rules=tuple(rules)))
    rules.append(LinedUp(id=free, edge=Edge(of=unit.id, edge="left"), to=touch))
    at = said.units.index(after) + 1
    heights = tuple(replace(s, units=(*s.units, unit.id)) if after.id in s.units else s for s in said.heights)
    return replace(said, units=(*said.units[:at], unit, *said.units[at:]), rules=tuple(rules), heights=heights)


def _split_up(sheet: Sheet, said: SetOut, move: SplitUp) -> SetOut:
    said = _as_it_stands(sheet, said)
    unit = _there(said, move.unit)
    said = _not_equal(said, {unit.id})
    wide = unit.width_mm / move.parts
    if wide < LEAST_MM:
        raise MoveError(f"{unit.name} is too narrow for {move.parts}.", mend="Split it into fewer.")
    said = replace(
        said,
        units=tuple(replace(u, width_mm=wide) if u.id == unit.id else u for u in said.units),
        rules=tuple(r for r in said.rules if not (isinstance(r, Wide | AsWide) and r.unit == unit.id)),
    )
    parts = [unit.id]
    last = _there(said, unit.id)
    for _ in range(move.parts - 1):
        id_ = new_unit_id(said)
        new = replace(last, id=id_, name=_named(last.name, last.id, id_), x_mm=last.right_mm, holes=(), mirror_of=None)
        said = _beside(said, last, new, equal=False)
        last = _there(said, id_)
        parts.append(id_)
    return replace(said, rules=(*said.rules, Equal(id=_new_rule(said), units=tuple(parts))))


def _named(name: str, old: str, new: str) -> str:
    """Return a copy's name: the letter that it begins with is its own."""
    first, _, rest = name.partition(" ")
    return f"{new} {rest}" if first == old and rest else f"{name} {new}"


def _merge(sheet: Sheet, said: SetOut, move: Merge) -> SetOut:
    said = _as_it_stands(sheet, said)
    run = sorted((_there(said, id_) for id_ in dict.fromkeys(move.units)), key=lambda u: u.x_mm)
    for one, other in itertools.pairwise(run):
        if abs(other.x_mm - one.right_mm) > TOUCH_MM or other.over_base_mm != one.over_base_mm:
            raise MoveError(
                f"{one.name} and {other.name} do not stand side by side.", mend="Bring them together first."
            )
    first, last, gone = run[0], run[-1], {u.id for u in run[1:]}
    rules: list[Rule] = []
    for rule in said.rules:
        named = _names(rule)
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
    return _without(replace(said, units=units, rules=tuple(rules)), gone)


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


def _copy(sheet: Sheet, said: SetOut, move: Copy) -> SetOut:
    said = _as_it_stands(sheet, said)
    unit = _there(said, move.unit)
    id_ = new_unit_id(said)
    sizes = (
        unit.width_mm + move.wider_mm, unit.depth_mm + move.deeper_mm, unit.height_mm + move.taller_mm
    )  # fmt: skip
    if min(sizes) < LEAST_MM:
        raise MoveError(f"Nothing would be left of a copy of {unit.name}.", mend="Take less off.")
    wide, deep, high = sizes
    new = replace(
        unit, id=id_, name=_named(unit.name, unit.id, id_), x_mm=unit.right_mm, width_mm=wide, depth_mm=deep,
        height_mm=high, mirror_of=None,
    )  # fmt: skip
    return _beside(said, unit, new, equal=not move.wider_mm)


def _mirror(sheet: Sheet, said: SetOut, move: Mirror) -> SetOut:
    said = _as_it_stands(sheet, said)
    unit = _there(said, move.unit)
    if move.in_place:
        return replace(said, units=tuple(mirrored(u) if u.id == unit.id else u for u in said.units))
    id_ = new_unit_id(said)
    new = replace(
        mirrored(unit), id=id_, name=_named(unit.name, unit.id, id_), x_mm=unit.right_mm, mirror_of=unit.id
    )  # fmt: skip
    return _beside(said, unit, new)


OTHER = {"left": "right", "right": "left"}


def mirrored(unit: Unit) -> Unit:
    """Return a piece as seen in a mirror: cells, hinges, holes, angled ends and what it meets change sides."""
    opens = {"door hinged left": "door hinged right", "door hinged right": "door hinged left"}
    angled = unit.angled
    allowance = unit.scribe_allowance
    return replace(
        unit,
        insides=None if unit.insides is None else Insides(built=unit.insides.built, cell=_mirrored(unit.insides.cell)),
        front=replace(unit.front, opens=opens.get(unit.front.opens, unit.front.opens)),
        holes=tuple(_hole(unit, h) for h in unit.holes),
        meets=tuple(OTHER.get(m, m) for m in unit.meets),
        fastened_to=tuple(OTHER.get(m, m) for m in unit.fastened_to),
        angled=None if angled is None else Angled(
            end="right" if angled.end == "left" else "left", along_mm=angled.along_mm, deep_mm=angled.deep_mm
        ),
        scribe_allowance=replace(allowance, left_mm=allowance.right_mm, right_mm=allowance.left_mm),
    )  # fmt: skip


def _hole(unit: Unit, hole: Hole) -> Hole:
    match hole.inside:
        case "left side":
            return replace(hole, inside="right side")
        case "right side":
            return replace(hole, inside="left side")
        case _:
            return replace(hole, at=(max(unit.width_mm - hole.at[0] - hole.size[0], 0.0), hole.at[1]))


def _mirrored(cell: Cell) -> Cell:
    fill = cell.fill
    if isinstance(fill, Columns):
        fill = Columns(cells=tuple(_mirrored(c) for c in reversed(fill.cells)))
    elif isinstance(fill, Rows):
        fill = Rows(cells=tuple(_mirrored(c) for c in fill.cells))
    return replace(cell, fill=fill, door=None if cell.door is None else _turned(cell.door))


def _turned(door: Door) -> Door:
    match door.hangs:
        case "left":
            return replace(door, hangs="right")
        case "right":
            return replace(door, hangs="left")
        case _:
            return door


def _names(rule: Rule) -> set[str]:
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


def _delete(sheet: Sheet, said: SetOut, ids: tuple[str, ...]) -> SetOut:
    """Take pieces out: what was lined up with one of them is lined up with what that one was, where there is such."""
    said, gone = _as_it_stands(sheet, said), set(ids)
    rules: list[Rule] = []
    for rule in said.rules:
        match rule:
            case _ if not _names(rule) & gone:
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
    return _without(said, gone)


def _without(said: SetOut, gone: set[str]) -> SetOut:
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
