"""Sheets: which parts are cut out of which sheet, by many quick tries, whole sheets first, then by repacking the worst.

Three ways, each good at what the others are not: parts that fill sheets to the last cell (`matching`), rows filled as
full as can be (`rows`), and taking a few sheets apart again to fill the first of them fuller, until the last is empty.
What is kept is cheapest first, then takes the least area, then has the fewest settings of the fence or metres sawn.
"""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from wobble.core.make.cutting.bounds import least_sheets
from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.matching import whole_sheets
from wobble.core.make.cutting.patterns import Patterns
from wobble.core.make.cutting.rows import Filler, Kind, lies
from wobble.core.make.cutting.tree import Leaf, Split, Tree, extent, leaves

Aim = Literal["fewest sheets", "fewest settings", "fewest metres"]
ROWS_TRIED = 7
FIRST_TRIES = 6
FIRST_SHARE = 0.1
"""Share of the time after which no further sheets are filled one by one before other ways are tried."""
MATCHING_SHARE = 0.55
"""Share of the time in which whole sheets without waste are looked for, where there is little to spare."""
LITTLE_TO_SPARE = 0.04
MANY = 5
ALIKE = 2.0
"""Parts of a kind, on an average, from which on whole sheets without waste are not looked for first."""
PATTERNS_SHARE = 0.6
ROUNDINGS = 12
LAST_TRIES = 6


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet to cut from, in cells with a kerf added: its size, how many there are, and what one costs."""

    long: int
    wide: int
    count: int | None
    price: float

    @property
    def area(self) -> int:
        """In cells."""
        return self.long * self.wide


@dataclass(frozen=True, slots=True)
class Used:
    """One sheet with what is cut out of it."""

    sheet: int
    tree: Tree


@dataclass(frozen=True)
class Packed:
    """Sheets in use, parts by kind that went on none, and the least number of sheets that edge-to-edge cuts take."""

    used: tuple[Used, ...]
    left: tuple[int, ...]
    bound: int


def pack(
    kinds: Sequence[Kind],
    counts: Sequence[int],
    sheets: Sequence[Sheet],
    *,
    seconds: float = 1.0,
    at_most_s: float | None = None,
    seed: int = 1,
    aims: Sequence[Aim] = ("fewest sheets",),
) -> dict[Aim, Packed]:
    """Return parts laid on sheets: for each aim the best of the same layouts, so that no aim is beaten at its own.

    Args:
        kinds: What is wanted, sizes in cells with a kerf added.
        counts: How many of each.
        sheets: What there is to cut from.
        seconds: How long to look on a plain machine; less where the bound is reached.
        at_most_s: How long to look on any; ten times that where nothing is said.
        seed: Of the search.
        aims: What counts after price and area, once for each that is asked for.
    """
    effort = Effort(seconds, 10 * seconds if at_most_s is None else at_most_s)
    return _Search(kinds, counts, sheets, effort, seed, aims).run()


class _Search:
    def __init__(
        self,
        kinds: Sequence[Kind],
        counts: Sequence[int],
        sheets: Sequence[Sheet],
        effort: Effort,
        seed: int,
        aims: Sequence[Aim],
    ) -> None:
        self.kinds, self.sheets = list(kinds), list(sheets)
        self.lies = [lies(kinds, s.long, s.wide) for s in sheets]
        placeable = {lie.kind for some in self.lies for lie in some}
        self.counts = [n if i in placeable else 0 for i, n in enumerate(counts)]
        self.never = [n if i not in placeable else 0 for i, n in enumerate(counts)]
        self.rng = random.Random(seed)  # noqa: S311 - a search, not a secret
        self.effort = effort
        self.price = [float(k.area) ** 1.05 for k in kinds]
        self.bound = least_sheets(self.kinds, self.counts, [(s.long, s.wide) for s in sheets])
        # what the search goes on from is the same for all aims: so each gets the best of the same layouts
        self.best: tuple[list[Used], list[int]] = ([], list(self.counts))
        self.chosen = dict.fromkeys(aims, self.best)

    def run(self) -> dict[Aim, Packed]:
        if any(self.counts) and self.sheets:
            self._look()
        return {
            aim: Packed(tuple(used), tuple(a + b for a, b in zip(left, self.never, strict=True)), self.bound)
            for aim, (used, left) in self.chosen.items()
        }

    def _look(self) -> None:
        for _ in range(FIRST_TRIES):
            self._keep(*self._built(list(self.counts), [s.count for s in self.sheets]))
            if self._done() or not self.effort.more(FIRST_SHARE):
                break
        alike = sum(self.counts) >= ALIKE * sum(n > 0 for n in self.counts)
        for way in (self._patterns,) if alike and self._most_used() is not None else (self._match, self._patterns):
            if not self._done() and self.effort.more():
                way()
        while not self._done() and self.effort.more():
            self._again()

    # --- what is kept ---

    def _rank(self, used: Sequence[Used], left: Sequence[int], aim: Aim) -> tuple[float, ...]:
        short = sum(n * k.area for n, k in zip(left, self.kinds, strict=True))
        price = sum(self.sheets[u.sheet].price for u in used)
        area = sum(self.sheets[u.sheet].area for u in used)
        return (short, round(price, 4), area, self._cost(used, aim))

    def _cost(self, used: Sequence[Used], aim: Aim) -> float:
        match aim:
            case "fewest settings":
                return fences(used, self.kinds)
            case "fewest metres":
                return sum(sawn(u.tree, self.sheets[u.sheet], self.kinds) for u in used)
        # the emptier the last sheet, the larger what is left of it in one piece
        return -sum(self._area(u.tree) ** 2 for u in used) / self.sheets[0].area ** 2

    def _area(self, tree: Tree) -> int:
        return sum(self.kinds[leaf.kind].area for leaf in leaves(tree))

    def _keep(self, used: list[Used], left: list[int]) -> None:
        if self._rank(used, left, "fewest sheets") < self._rank(*self.best, "fewest sheets"):
            self.best = (used, left)
        for aim, chosen in self.chosen.items():
            if self._rank(used, left, aim) < self._rank(*chosen, aim):
                self.chosen[aim] = (used, left)

    def _done(self) -> bool:
        """Whether nothing better can be found: all of one sheet in as few as any layout takes."""
        if any(self.best[1]) or set(self.chosen) != {"fewest sheets"}:
            return False
        return len(self.sheets) == 1 and len(self.best[0]) <= self.bound

    # --- ways to find some ---

    def _built(self, left: list[int], stock: Sequence[int | None]) -> tuple[list[Used], list[int]]:
        """Return sheets filled one after the other, each time the one that gives most for its price."""
        used: list[Used] = []
        while any(left):
            best = None
            for i, sheet in enumerate(self.sheets):
                if stock[i] == 0:
                    continue
                trial = list(left)
                filler = Filler(self.lies[i], trial, self.price, self.rng, ROWS_TRIED, self.effort)
                tree = filler.fill(sheet.long, sheet.wide, self.rng.choice(("x", "y", None)))
                if tree is None:
                    continue
                worth = self._area(tree) / ((sheet.price or 1e-3) * 1e6 + sheet.area)
                if best is None or worth > best[0]:
                    best = (worth, i, tree, trial)
            if best is None:
                break
            _, i, tree, left = best
            used.append(Used(i, tree))
            stock = _without(stock, used[-1:])
        return used, left

    def _match(self) -> None:
        """Look for whole sheets without waste, then build what they leave."""
        for i, sheet in enumerate(self.sheets):
            if sheet.count is not None and sheet.count < 2 and len(self.sheets) > 1:
                continue
            if self._spare() > LITTLE_TO_SPARE and max(self.counts) > 1:
                continue
            size = (sheet.long, sheet.wide)
            trees = whole_sheets(self.kinds, self.counts, size, self.rng, self.effort, MATCHING_SHARE)
            trees = trees[: sheet.count]
            if not trees:
                continue
            for _ in range(FIRST_TRIES):
                left = list(self.counts)
                for tree in trees:
                    for leaf in leaves(tree):
                        left[leaf.kind] -= 1
                whole = [Used(i, t) for t in trees]
                used, short = self._built(left, _without([s.count for s in self.sheets], whole))
                self._keep([*whole, *used], short)

    def _most_used(self) -> int | None:
        """Return the number of the sheet of which so many are used that some may be cut alike, if one is."""
        used, short = self.best
        if any(short) or not used:
            return None
        sheet, n = Counter(u.sheet for u in used).most_common(1)[0]
        return sheet if n >= MANY and self.sheets[sheet].count is None else None

    def _patterns(self) -> None:
        """Look for patterns that are cut again and again, where there are enough like sheets for some."""
        sheet = self._most_used()
        if sheet is None:
            return
        # offcuts and sheets of other sizes stay as they are
        stay = [u for u in self.best[0] if u.sheet != sheet]
        counts, stock = list(self.counts), _without([s.count for s in self.sheets], stay)
        for leaf in (leaf for one in stay for leaf in leaves(one.tree)):
            counts[leaf.kind] -= 1
        found = Patterns(self.kinds, counts, (self.sheets[sheet].long, self.sheets[sheet].wide), self.effort)
        if not found.grow(PATTERNS_SHARE):
            return
        asked, provable = found.asked(), len(self.sheets) == 1
        for _ in range(ROUNDINGS):
            trees, left = found.taken(self.rng, self.price)
            for _ in range(LAST_TRIES):
                built, short = self._built(list(left), stock)
                self._keep([*stay, *(Used(sheet, t) for t in trees), *built], short)
                if self._done() or not self.effort.more():
                    return
                if provable and len(self.best[0]) <= asked:
                    # what is left of the effort goes into proving that none do with fewer, or into finding some that do
                    provable = found.prove()
                    self.bound, asked = max(self.bound, found.least), found.asked()
                    if self._done():
                        return

    def _spare(self) -> float:
        whole = self.bound * max(s.area for s in self.sheets)
        return 1 - sum(k.area * n for k, n in zip(self.kinds, self.counts, strict=True)) / whole

    def _again(self) -> None:
        """Take some sheets apart and fill them anew; keep what is better, or as good and different."""
        used, short = self.best
        rng = self.rng
        fill = [self._area(u.tree) / self.sheets[u.sheet].area for u in used]
        n = min(len(used), rng.choice((2, 3, 3, 4, 5)))
        by_fill = sorted(range(len(used)), key=lambda i: fill[i] + 0.15 * rng.random())
        picked = {by_fill[0], *rng.sample(range(len(used)), n - 1)} if n > 1 else set(range(len(used)))
        left = list(short)
        for leaf in (leaf for i in picked for leaf in leaves(used[i].tree)):
            left[leaf.kind] += 1
        stay = [u for i, u in enumerate(used) if i not in picked]
        built, short = self._built(left, _without([s.count for s in self.sheets], stay))
        self._keep([*stay, *built], short)


def _without(stock: Sequence[int | None], used: Sequence[Used]) -> list[int | None]:
    """Return how many sheets of each size are left once some are in use; None where there are as many as are wanted."""
    taken = Counter(u.sheet for u in used)
    return [None if count is None else count - taken[i] for i, count in enumerate(stock)]


def fences(used: Sequence[Used], kinds: Sequence[Kind]) -> int:
    """Return at how many different settings of fence and stop all cuts of some sheets are made."""
    found: set[float] = set()
    sizes = tuple((k.long, k.wide) for k in kinds)

    def walk(tree: Tree) -> None:
        if isinstance(tree, Split):
            size = extent(tree.first, sizes)
            found.add(size[0 if tree.axis == "x" else 1])
            walk(tree.first)
            walk(tree.second)
        elif isinstance(tree, Leaf):
            found.update((kinds[tree.kind].long, kinds[tree.kind].wide))

    for one in used:
        walk(one.tree)
    return len(found)


def sawn(tree: Tree, sheet: Sheet, kinds: Sequence[Kind]) -> float:
    """Return how many cells are sawn in one sheet, each cut from edge to edge of what it cuts."""
    sizes = tuple((k.long, k.wide) for k in kinds)

    def walk(node: Tree, w: float, h: float) -> float:
        if node is None:
            return 0
        ew, eh = extent(node, sizes)
        if isinstance(node, Leaf):
            return (h if ew < w else 0) + (ew if eh < h else 0)
        fw, fh = extent(node.first, sizes)
        if node.axis == "x":
            return (h if fw < w else 0) + walk(node.first, fw, h) + walk(node.second, w - fw, h)
        return (w if fh < h else 0) + walk(node.first, w, fh) + walk(node.second, w, h - fh)

    return walk(tree, sheet.long, sheet.wide)
