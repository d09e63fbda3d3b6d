"""What is done on the rods: an edge moved or typed, pieces put in, split, merged, copied, mirrored, taken out.

Each takes what is set out and gives it anew; nothing else is changed, so that undoing is putting the old one back.
"""

from wobble.core.setout.moves.kinds import (
    Copy,
    Delete,
    Drag,
    Insert,
    Merge,
    Mirror,
    Move,
    MoveError,
    Release,
    Say,
    SplitUp,
    TypeEdge,
    TypeWidth,
)
from wobble.core.setout.moves.make import moved
from wobble.core.setout.moves.mirror import mirrored

__all__ = [
    "Copy",
    "Delete",
    "Drag",
    "Insert",
    "Merge",
    "Mirror",
    "Move",
    "MoveError",
    "Release",
    "Say",
    "SplitUp",
    "TypeEdge",
    "TypeWidth",
    "mirrored",
    "moved",
]
