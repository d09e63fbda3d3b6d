"""Filling one sheet: rows from edge to edge, each filled as nearly as the parts allow, and what is left filled again.

A saw is set for a row, and a row's parts are then cut off at a stop: so rows come first. Which parts fill a row best is
a subset sum, found exactly with bits of one whole number; what stands lower than its row leaves a strip that is filled
by the same rule, and so on.
"""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.tree import Axis, Leaf, Split, Tree


@dataclass(frozen=True, slots=True)
class Kind:
    """Parts that are alike: length and width in cells, a kerf included, and whether they may be turned."""

    long: int
    wide: int
    turns: bool

    @property
    def area(self) -> int:
        """In cells."""
        return self.long * self.wide


class Lie(NamedTuple):
    """A kind as it may lie: its reach along the row that is filled, and across it."""

    kind: int
    turned: bool
    w: int
    h: int

    @property
    def leaf(self) -> Leaf:
        """It, cut out."""
        return Leaf(self.kind, self.turned)


def lies(kinds: Sequence[Kind], length: int, width: int) -> tuple[Lie, ...]:
    """Return the ways in which kinds may lie on stock of a size."""
    found = []
    for i, kind in enumerate(kinds):
        if kind.long <= length and kind.wide <= width:
            found.append(Lie(i, False, kind.long, kind.wide))
        if kind.turns and kind.long != kind.wide and kind.wide <= length and kind.long <= width:
            found.append(Lie(i, True, kind.wide, kind.long))
    return tuple(found)


STEPS_A_ROW = 20
MOST_LOOKED_AT, LARGEST = 180, 70
LOWER_BY = (0.97, 0.88, 0.75)
"""How much of a row's height a part must reach to stand in it; each time one of these."""


class Filler:
    """Fills sheets out of what is still wanted: `left[kind]` goes down as parts are placed.

    `price[kind]` says how much each is wanted; `rng` picks among rows that are nearly as good, so that tries differ.
    """

    def __init__(
        self,
        all_lies: tuple[Lie, ...],
        left: list[int],
        price: Sequence[float],
        rng: random.Random,
        tries: int,
        effort: Effort,
    ) -> None:
        self._effort = effort
        by_size = sorted(all_lies, key=lambda lie: -lie.w * lie.h) if len(all_lies) > MOST_LOOKED_AT else all_lies
        self._lies = [(lie, Lie(lie.kind, lie.turned, lie.h, lie.w)) for lie in by_size]
        self.left = left
        self._price = price
        self._rng = rng
        self._tries = tries

    def fill(self, w: int, h: int, first: Axis | None = None, among: Sequence[tuple[Lie, Lie]] | None = None) -> Tree:
        """Return a rectangle filled, its rows running as `first` says where it is said.

        `among` are the lies to look among: what did not fit what this is a part of, does not fit here.
        """
        left = self.left
        pairs = [p for p in (self._lies if among is None else among) if left[p[0][0]] and p[0][2] <= w and p[0][3] <= h]
        if not pairs:
            return None
        all_pairs = pairs
        if len(pairs) > MOST_LOOKED_AT:
            # of very many kinds the largest and some others are enough to choose from, each time others
            pairs = pairs[:LARGEST] + self._rng.sample(pairs[LARGEST:], MOST_LOOKED_AT - LARGEST)
        best = None
        for axis in ("x", "y") if first is None else (first,):
            along = axis == "x"
            row = self._best_row([p[not along] for p in pairs], w if along else h, h if along else w)
            if row is not None and (best is None or row[0] > best[0]):
                best = (*row, axis)
        if best is None:
            return None
        _, high, chosen, axis = best
        if axis == "x":
            rest_first = self._row(chosen, w, high, all_pairs, turn=False)
            below = self.fill(w, h - high, None, all_pairs)
            return rest_first if below is None else Split("y", rest_first, below)
        rest_first = self._row(chosen, h, high, all_pairs, turn=True)
        beside = self.fill(w - high, h, None, all_pairs)
        return rest_first if beside is None else Split("x", rest_first, beside)

    def _best_row(self, fits: list[Lie], w: int, h: int) -> tuple[float, int, list[tuple[Lie, int]]] | None:
        """Return the best of some rows of width w and of the heights that its parts have: worth, height, parts."""
        heights = sorted({f.h for f in fits}, reverse=True)
        rng = self._rng
        if len(heights) > self._tries:
            # high rows are hard to place later: they are tried more often
            picked = {heights[int(len(heights) * rng.random() ** 2)] for _ in range(self._tries)}
            heights = sorted(picked, reverse=True)
        best = None
        self._effort.spend((len(fits) + STEPS_A_ROW) * len(heights))
        for high in heights:
            chosen, worth = self._chosen(fits, w, high)
            if not chosen:
                continue
            # what is worth most a cell of the sheet; a height that leaves just nothing is worth more
            fit = worth / (w * high)
            if high == h:
                fit *= 1.06
            fit *= 1 + 0.04 * rng.random() + 0.05 * high / h
            if best is None or fit > best[0]:
                best = (fit, high, chosen)
        return best

    def _chosen(self, fits: list[Lie], w: int, high: int) -> tuple[list[tuple[Lie, int]], float]:
        """Return parts and stacks that fill a row's width best, and what they are worth."""
        random_, left = self._rng.random, self.left
        least = high * LOWER_BY[int(random_() * len(LOWER_BY))]
        offers: dict[int, tuple[float, Lie, int, int]] = {}
        for f in fits:
            kind, _, fw, fh = f
            if fh > high or kind in offers:  # a kind that lies both ways would be promised twice in one row
                continue
            there = left[kind]
            stack = high // fh
            if stack > there:
                stack = there
            if fh * stack < least:
                continue
            n = min(there // stack, w // fw)
            if n:
                # the highest first; among alike in any order
                offers[kind] = (random_() - fh * stack, f, stack, n)
        if not offers:
            return [], 0.0
        return _fullest([(f, stack, n) for _, f, stack, n in sorted(offers.values())], w, self._price)

    def _row(
        self, chosen: list[tuple[Lie, int]], w: int, high: int, among: Sequence[tuple[Lie, Lie]], *, turn: bool
    ) -> Tree:
        """Return a row as a tree, and fill over what is lower than it and beside what it leaves free."""
        groups: list[list[tuple[Lie, int]]] = []
        for lie, stack in chosen:
            if groups and groups[-1][0][0].h * groups[-1][0][1] == lie.h * stack:
                groups[-1].append((lie, stack))
            else:
                groups.append([(lie, stack)])
        for lie, stack in chosen:
            self.left[lie.kind] -= stack
        along: Axis = "y" if turn else "x"
        up: Axis = "x" if turn else "y"
        pieces: list[Tree] = []
        used = 0
        for group in groups:
            columns = [chain([Leaf(lie.kind, lie.turned)] * stack, up) for lie, stack in group]
            tree = chain(columns, along)
            wide = sum(lie.w for lie, _ in group)
            over = high - group[0][0].h * group[0][1]
            if over > 0:
                above = self.fill(over, wide, None, among) if turn else self.fill(wide, over, None, among)
                if above is not None:
                    tree = Split(up, tree, above)
            pieces.append(tree)
            used += wide
        if used < w:
            beside = self.fill(high, w - used, None, among) if turn else self.fill(w - used, high, None, among)
            if beside is not None:
                pieces.append(beside)
        return chain(pieces, along)


def chain(trees: Sequence[Tree], axis: Axis) -> Tree:
    """Return trees one after the other along an axis; what is left over counts only where it is all there is."""
    made: Tree = None
    for tree in reversed(trees):
        made = made if tree is None else tree if made is None else Split(axis, tree, made)
    return made


def _fullest(offers: list[tuple[Lie, int, int]], w: int, price: Sequence[float]) -> tuple[list[tuple[Lie, int]], float]:
    """Return which offers fill a width as nearly as can be: a bounded subset sum, with the bits of one number.

    Kept before each offer is what could be reached until then, so that the way back is found.
    """
    limit = (1 << (w + 1)) - 1
    reached = 1
    steps: list[tuple[int, int, int]] = []  # reached before, offer, how many at once
    for i, (lie, _, n) in enumerate(offers):
        most = 1
        while n > 0:
            many = min(most, n)
            steps.append((reached, i, many))
            reached |= (reached << (lie.w * many)) & limit
            n -= many
            most *= 2
    at = reached.bit_length() - 1
    if at <= 0:
        return [], 0.0
    counts = [0] * len(offers)
    for before, i, many in reversed(steps):
        if not before >> at & 1:
            counts[i] += many
            at -= offers[i][0].w * many
    chosen: list[tuple[Lie, int]] = []
    worth = 0.0
    for (lie, stack, _), n in zip(offers, counts, strict=True):
        chosen += [(lie, stack)] * n
        worth += price[lie.kind] * n * stack
    return chosen, worth
