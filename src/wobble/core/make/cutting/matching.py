"""Putting parts together side by side where they share a side: whole sheets without waste, where there are any.

Two rectangles of one height make one that is as wide as both, and nothing is lost. Which two belong together is guessed
by how rare a shared length is among all that is left, tried again and again, and checked by whether whole sheets come
out. What spans a sheet from edge to edge is kept for last: which strips fill a sheet together is a subset sum.
"""

from __future__ import annotations

import random
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.rows import Kind
from wobble.core.make.cutting.tree import Axis, Leaf, Split, Tree, leaves, turned

STEPS_A_MERGE, STEPS_A_SIDE = 10, 9


@dataclass(frozen=True, slots=True, eq=False)
class _Block:
    w: int
    h: int
    tree: Tree
    turns: bool


def whole_sheets(
    kinds: Sequence[Kind],
    counts: Sequence[int],
    size: tuple[int, int],
    rng: random.Random,
    effort: Effort,
    share: float,
) -> list[Tree]:
    """Return trees of sheets that are filled to the last cell, as many as a share of the effort finds."""
    left = list(counts)
    asked = sum(kind.area * n for kind, n in zip(kinds, counts, strict=True)) // (size[0] * size[1])
    kept: list[Tree] = []
    best: list[Tree] = []
    turn = 0
    while len(best) < asked and effort.more(share):
        # in turns: on all parts, and on those that the best answer so far leaves
        turn += 1
        kept = best if turn % 3 else []
        left = list(counts)
        for tree in kept:
            for leaf in leaves(tree):
                left[leaf.kind] -= 1
        found = kept + _once(_blocks(kinds, left), size, rng, effort, share)
        if len(found) > len(best):
            best = found
    return best


def _blocks(kinds: Sequence[Kind], counts: Sequence[int]) -> list[_Block]:
    return [
        _Block(kind.long, kind.wide, Leaf(i, False), kind.turns)
        for i, (kind, n) in enumerate(zip(kinds, counts, strict=True))
        for _ in range(n)
    ]


def _ways(block: _Block) -> tuple[tuple[int, int, bool], ...]:
    return ((block.w, block.h, False), (block.h, block.w, True)) if block.turns else ((block.w, block.h, False),)


def _once(parts: list[_Block], size: tuple[int, int], rng: random.Random, effort: Effort, share: float) -> list[Tree]:
    length, width = size
    closed: list[Tree] = []
    spans: list[_Block] = []
    alive: dict[int, _Block] = {}
    by_side: dict[int, set[int]] = defaultdict(set)
    fresh = iter(range(10**9))

    def add(block: _Block) -> None:
        for w, h, turn in _ways(block):
            tree = turned(block.tree) if turn else block.tree
            if (w, h) == size:
                closed.append(tree)
                return
            if (w == length and h < width) or (h == width and w < length):
                spans.append(_Block(w, h, tree, False))
                return
        key = next(fresh)
        alive[key] = block
        by_side[block.w].add(key)
        by_side[block.h].add(key)

    def drop(key: int) -> _Block:
        block = alive.pop(key)
        by_side[block.w].discard(key)
        by_side[block.h].discard(key)
        return block

    for part in parts:
        add(part)
    while effort.more(share):
        effort.spend(STEPS_A_MERGE + len(by_side) // 4)
        best = None
        for side, keys in by_side.items():
            n = len(keys)
            if n < 2:
                continue
            # a length that only two have in common ties them; one that many have says little
            score = 1.0 / n + 0.25 * rng.random()
            if best is not None and score + 0.5 < best[0]:
                continue
            effort.spend(STEPS_A_SIDE + n // 2)
            pair = _pair([(k, alive[k]) for k in keys], side, size, by_side, rng)
            if pair is not None and (best is None or score + pair[0] > best[0]):
                best = (score + pair[0], *pair[1:])
        if best is None:
            break
        _, one, two, merged = best
        drop(one)
        drop(two)
        add(merged)
    return closed + _bands(spans, size, rng)


def _pair(
    blocks: list[tuple[int, _Block]],
    side: int,
    size: tuple[int, int],
    by_side: dict[int, set[int]],
    rng: random.Random,
) -> tuple[float, int, int, _Block] | None:
    """Return the best of some pairs of blocks that share a side, put together."""
    rng.shuffle(blocks)
    best = None
    for i, (one, a) in enumerate(blocks[:6]):
        for two, b in blocks[i + 1 : 6]:
            for merged in _together(a, b, side, size):
                new = merged.w + merged.h - side
                # what comes out should meet something else, or span the sheet
                bonus = 0.3 * bool(by_side.get(new)) + 0.2 * (new in size) + 0.15 * (len(by_side.get(side, ())) > 2)
                bonus += 0.1 * rng.random()
                if best is None or bonus > best[0]:
                    best = (bonus, one, two, merged)
    return best


def _together(a: _Block, b: _Block, side: int, size: tuple[int, int]) -> list[_Block]:
    length, width = size
    turns = a.turns and b.turns
    made: list[_Block] = []
    for aw, ah, at in _ways(a):
        for bw, bh, bt in _ways(b):
            axis: Axis
            if ah == bh == side:
                w, h, axis = aw + bw, side, "x"
            elif aw == bw == side:
                w, h, axis = side, ah + bh, "y"
            else:
                continue
            if not ((w <= length and h <= width) or (turns and h <= length and w <= width)):
                continue
            if turns and made:
                continue  # the same turned by a quarter
            first = turned(a.tree) if at else a.tree
            second = turned(b.tree) if bt else b.tree
            made.append(_Block(w, h, Split(axis, first, second), turns))
    return made


def _bands(spans: list[_Block], size: tuple[int, int], rng: random.Random) -> list[Tree]:
    """Return sheets out of strips that span them: sets whose heights add up to the sheet's, found by subset sums."""
    found: list[Tree] = []
    for along in (True, False):
        bands = [s for s in spans if (s.w == size[0]) == along]
        rng.shuffle(bands)
        target = size[1] if along else size[0]
        bands.sort(key=lambda s: -(s.h if along else s.w))
        while bands:
            first, others = bands[0], bands[1:]
            chosen = _summing(others, target - (first.h if along else first.w), along=along)
            bands = others
            if chosen is None:
                continue
            picked = [first, *chosen]
            bands = [b for b in others if all(b is not c for c in chosen)]
            tree: Tree = None
            for band in reversed(picked):
                tree = band.tree if tree is None else Split("y" if along else "x", band.tree, tree)
            found.append(tree)
    return found


def _summing(bands: list[_Block], target: int, *, along: bool) -> list[_Block] | None:
    if target == 0:
        return []
    reached, before = 1, []
    limit = (1 << (target + 1)) - 1
    for band in bands:
        before.append(reached)
        reached |= (reached << (band.h if along else band.w)) & limit
    if not reached >> target & 1:
        return None
    chosen = []
    for band, had in zip(reversed(bands), reversed(before), strict=True):
        if not had >> target & 1:
            chosen.append(band)
            target -= band.h if along else band.w
    return chosen
