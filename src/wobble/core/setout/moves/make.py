"""A move made on what is set out."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job import (
    At,
    Wide,
)
from wobble.core.setout.laid import SetOut
from wobble.core.setout.moves.edges import drag, say
from wobble.core.setout.moves.kinds import (
    Copy,
    Delete,
    Drag,
    Insert,
    Merge,
    Mirror,
    Move,
    Release,
    Say,
    SplitUp,
    TypeEdge,
    TypeWidth,
)
from wobble.core.setout.moves.mirror import mirror
from wobble.core.setout.moves.pieces import copy, delete, insert, merge, split_up
from wobble.core.setout.moves.said import (
    as_it_stands,
    leading,
    moved_with,
    new_rule,
    not_equal,
    there,
)
from wobble.core.setout.sheet import Sheet


def moved(sheet: Sheet, said: SetOut, move: Move) -> SetOut:
    """Return what is set out after a move; `sheet` is as it stood before.

    Raises:
        MoveError: The move names what is not there, or cannot be made.
    """
    match move:
        case Drag():
            return drag(sheet, said, move)
        case TypeEdge(edge=edge, at_mm=at):
            there(said, edge.of)
            edge = leading(said, edge)
            said = not_equal(said, moved_with(said, edge))
            return say(sheet, said, At(id=new_rule(said), edge=edge, at_mm=at))
        case TypeWidth(unit=unit, wide_mm=wide):
            there(said, unit)
            return say(sheet, said, Wide(id=new_rule(said), unit=unit, wide_mm=wide))
        case Insert():
            return insert(sheet, said, move)
        case SplitUp():
            return split_up(sheet, said, move)
        case Merge():
            return merge(sheet, said, move)
        case Copy():
            return copy(sheet, said, move)
        case Mirror():
            return mirror(sheet, said, move)
        case Delete(ids=ids):
            return delete(sheet, said, ids)
        case Say(rule=rule):
            return say(sheet, said, rule)
        case Release(rule=id_):
            return replace(as_it_stands(sheet, said), rules=tuple(r for r in said.rules if r.id != id_))
