"""Guillotine trees: how one rectangle is cut into others, each cut from edge to edge of what it cuts.

Inside, lengths are whole *cells*, and every part is counted one kerf larger, as the stock is: then what is cut side by
side simply adds up. Outside, all is in millimetres again, and no part is moved by a rounding of cells.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from wobble.core.value import Value

Axis = Literal["x", "y"]
EPSILON_MM = 1e-6
"""Nothing is cut off that is thinner: sums of sizes in binary are not exact to the last place."""


@dataclass(frozen=True, slots=True)
class Leaf:
    """One part, by the number of its kind; turned parts lie with their length across the stock."""

    kind: int
    turned: bool


@dataclass(frozen=True, slots=True)
class Split:
    """A cut from edge to edge: across x at the far end of `first`, or across y."""

    axis: Axis
    first: Tree
    second: Tree


Tree = Leaf | Split | None
"""None is what is left over."""


class PlacedPart(Value, frozen=True, kw_only=True):
    """A part on its stock: which kind, its lower left corner, mm, its size as it lies, and whether it is turned."""

    kind: int
    x_mm: float
    y_mm: float
    size: tuple[float, float]
    turned: bool


class Cut(Value, frozen=True, kw_only=True):
    """One cut: which piece it cuts (its corner and size), across which axis, and where the kept side ends, mm."""

    at: tuple[float, float]
    size: tuple[float, float]
    axis: Axis
    at_mm: float


class Rest(Value, frozen=True, kw_only=True):
    """What is left over: its corner and its size, mm."""

    at: tuple[float, float]
    size: tuple[float, float]


@dataclass(frozen=True)
class Laid:
    """A tree laid on its stock: parts, cuts in the order in which they are made, and what is left over."""

    parts: tuple[PlacedPart, ...]
    cuts: tuple[Cut, ...]
    rests: tuple[Rest, ...]


Sizes = tuple[tuple[float, float], ...]
"""Length and width of each kind."""


def leaves(tree: Tree) -> Iterator[Leaf]:
    """Yield every part of a tree."""
    match tree:
        case Leaf():
            yield tree
        case Split(first=first, second=second):
            yield from leaves(first)
            yield from leaves(second)


def without(tree: Tree, left: list[int]) -> Tree:
    """Return a tree with as many parts of each kind as are left, which are taken off what is left."""
    match tree:
        case Leaf(kind=kind):
            if not left[kind]:
                return None
            left[kind] -= 1
            return tree
        case Split(axis=axis, first=first, second=second):
            first, second = without(first, left), without(second, left)
            return second if first is None else first if second is None else Split(axis, first, second)
    return None


def turned(tree: Tree) -> Tree:
    """Return a tree with all of it turned by a quarter."""
    match tree:
        case Leaf(kind=kind, turned=was):
            return Leaf(kind, not was)
        case Split(axis=axis, first=first, second=second):
            return Split("y" if axis == "x" else "x", turned(first), turned(second))
    return None


def extent(tree: Tree, sizes: Sizes, kerf: float = 0.0) -> tuple[float, float]:
    """Return how far a tree reaches along x and y, in what its sizes are given in; a kerf between each two parts."""
    match tree:
        case Leaf(kind=kind, turned=was):
            long, wide = sizes[kind]
            return (wide, long) if was else (long, wide)
        case Split(axis=axis, first=first, second=second):
            a, b = extent(first, sizes, kerf), extent(second, sizes, kerf)
            if second is None:
                return a
            if axis == "x":
                return a[0] + kerf + b[0], max(a[1], b[1])
            return max(a[0], b[0]), a[1] + kerf + b[1]
    return (0.0, 0.0)


def lay(tree: Tree, size: tuple[float, float], sizes: Sizes, *, kerf: float, trim: float) -> Laid:
    """Return a tree laid on stock of a size, mm: its edges trimmed first, then cut by cut as the tree says."""
    parts: list[PlacedPart] = []
    cuts: list[Cut] = []
    rests: list[Rest] = []
    at = (0.0, 0.0)
    if trim > 0:
        at, size = _trimmed(size, trim, kerf, cuts)
    _lay(tree, at, size, sizes, kerf, (parts, cuts, rests))
    return Laid(tuple(parts), tuple(cuts), tuple(rests))


def _trimmed(
    size: tuple[float, float], trim: float, kerf: float, cuts: list[Cut]
) -> tuple[tuple[float, float], tuple[float, float]]:
    """Trim all four edges: the kerf lies within what is trimmed off, at the side of the blade that falls."""
    long, wide = size
    left = trim - kerf  # below zero where the blade is thicker than what it trims: part of it runs beside the sheet
    cuts.append(Cut(at=(0.0, 0.0), size=(long, wide), axis="y", at_mm=left))
    cuts.append(Cut(at=(0.0, trim), size=(long, wide - trim), axis="y", at_mm=wide - trim))
    cuts.append(Cut(at=(0.0, trim), size=(long, wide - 2 * trim), axis="x", at_mm=left))
    cuts.append(Cut(at=(trim, trim), size=(long - trim, wide - 2 * trim), axis="x", at_mm=long - trim))
    return (trim, trim), (long - 2 * trim, wide - 2 * trim)


_Out = tuple[list[PlacedPart], list[Cut], list[Rest]]


def _lay(tree: Tree, at: tuple[float, float], size: tuple[float, float], sizes: Sizes, kerf: float, out: _Out) -> None:
    parts, cuts, rests = out
    if tree is None:
        if min(size) > EPSILON_MM:
            rests.append(Rest(at=at, size=size))
        return
    if isinstance(tree, Split) and tree.second is not None:
        end = extent(tree.first, sizes, kerf)[0 if tree.axis == "x" else 1]
        first, second = _parted(at, size, tree.axis, end, kerf, cuts)
        _lay(tree.first, *first, sizes, kerf, out)
        _lay(tree.second, *second, sizes, kerf, out)
        return
    if isinstance(tree, Split):
        _lay(tree.first, at, size, sizes, kerf, out)
        return
    wide, high = extent(tree, sizes, kerf)
    for axis, end, i in (("x", wide, 0), ("y", high, 1)):
        if size[i] - end > EPSILON_MM:
            (at, size), rest = _parted(at, size, "x" if axis == "x" else "y", end, kerf, cuts)
            _lay(None, *rest, sizes, kerf, out)
    parts.append(PlacedPart(kind=tree.kind, x_mm=at[0], y_mm=at[1], size=(wide, high), turned=tree.turned))


_Rect = tuple[tuple[float, float], tuple[float, float]]


def _parted(
    at: tuple[float, float], size: tuple[float, float], axis: Axis, end: float, kerf: float, cuts: list[Cut]
) -> tuple[_Rect, _Rect]:
    """Cut a piece at `end` from its own corner, and return both sides; the kerf is neither's."""
    (x, y), (wide, high) = at, size
    if axis == "x":
        if wide - end > EPSILON_MM:
            cuts.append(Cut(at=at, size=size, axis="x", at_mm=x + end))
        return (at, (min(end, wide), high)), ((x + end + kerf, y), (max(wide - end - kerf, 0.0), high))
    if high - end > EPSILON_MM:
        cuts.append(Cut(at=at, size=size, axis="y", at_mm=y + end))
    return (at, (wide, min(end, high))), ((x, y + end + kerf), (wide, max(high - end - kerf, 0.0)))


COUNTS_PER_MM = 10_000
MOST_CELLS = 30_000


def cell_of(lengths_mm: list[float]) -> float:
    """Return the largest cell, mm, that all lengths are whole numbers of; a tenth where that would be too fine."""
    whole = [round(mm * COUNTS_PER_MM) for mm in lengths_mm]
    common = math.gcd(*whole)
    if common and max(whole) / common <= MOST_CELLS:
        return common / COUNTS_PER_MM
    return 0.1


def cells_up(mm: float, cell: float) -> int:
    """Return a length in cells, rounded so that it is never taken for shorter than it is."""
    return math.ceil(mm / cell - 1e-4)


def cells_down(mm: float, cell: float) -> int:
    """Return a length in cells, rounded so that it is never taken for longer than it is."""
    return math.floor(mm / cell + 1e-4)
