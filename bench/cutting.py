"""Cutting: how many sheets and boards made-up lists take, beside what no layout goes under and a common packer.

The packer is rectpack at the best of its guillotine ways, of which all are tried; both run on the same machine.
"""

from __future__ import annotations

import random
import time
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import rectpack
from tests.make.sawing import cabinets, dissected

from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.lengths import Board, cut_lengths
from wobble.core.make.cutting.lists import cut_list
from wobble.core.make.cutting.patterns import Patterns
from wobble.core.make.cutting.rows import Kind
from wobble.core.make.cutting.tables import Offered, Wanted

SHEET = (2440, 1220)
KERF = 3.0
STOCK = (Offered(name="sheet", length_mm=float(SHEET[0]), width_mm=float(SHEET[1])),)
SECONDS = 1.0


@dataclass(frozen=True)
class Packing:
    """What lists of one sort came to: sheets in all, the least that they could take, and the packer's sheets.

    `at_least` counts lists at their least, `over` those that took more than one over it; `worse` those in which the
    packer took fewer; `slowest_s` of one list; `proved` the whole sheets that no cutting from edge to edge goes under,
    and `at_proved` the lists that take no more, given as much time as the proof wants.
    """

    what: str
    lists: int
    used: int
    least: int
    packer: int
    at_least: int
    over: int
    slowest_s: float
    worse: int = 0
    proved: int = 0
    at_proved: int = 0


def packed_by_library(wanted: Sequence[Wanted]) -> int:
    """Return the least number of sheets of the packer's guillotine ways; parts with grain are not turned."""
    sizes = [
        (round((w.length_mm + KERF) * 10), round((w.width_mm + KERF) * 10), w.grain == "")
        for w in wanted
        for _ in range(w.quantity)
    ]
    sheet = (round((SHEET[0] + KERF) * 10), round((SHEET[1] + KERF) * 10))
    best = len(sizes)
    turns = all(t for _, _, t in sizes)
    for choice in ("Baf", "Bssf", "Blsf"):
        for split in ("Sas", "Las", "Slas", "Llas", "Maxas", "Minas"):
            algo = getattr(rectpack, f"Guillotine{choice}{split}")
            packer = rectpack.newPacker(pack_algo=algo, rotation=turns)
            for i, (a, b, _) in enumerate(sizes):
                packer.add_rect(a, b, i)
            packer.add_bin(*sheet, count=len(sizes))
            packer.pack()
            if len(packer.rect_list()) == len(sizes):
                best = min(best, len(packer))
    return best


def proved_for(wanted: Sequence[Wanted]) -> int:
    """Return the whole sheets that no cutting from edge to edge goes under; 0 in a version that proves nothing."""
    if not hasattr(Patterns, "prove"):  # `--against` measures earlier ones too
        return 0
    counts: Counter[Kind] = Counter()
    for w in wanted:
        counts[Kind(round(w.length_mm + KERF), round(w.width_mm + KERF), w.grain == "")] += w.quantity
    size = (round(SHEET[0] + KERF), round(SHEET[1] + KERF))
    found = Patterns(list(counts), list(counts.values()), size, Effort(60.0, 60.0))
    found.grow(1.0)
    found.prove()
    return found.least


def _of(what: str, lists: Sequence[tuple[Sequence[Wanted], int | None]]) -> Packing:
    used = least = packer = at = over = worse = proved = at_proved = 0
    slowest = 0.0
    for wanted, enough in lists:
        began = time.perf_counter()
        made = cut_list(wanted, STOCK, kerf_mm=KERF, seconds=2 * SECONDS, at_most_s=SECONDS)
        slowest = max(slowest, time.perf_counter() - began)
        bound = enough or made.bound
        used += len(made.sheets)
        least += bound
        at += len(made.sheets) <= bound
        over += len(made.sheets) > bound + 1
        if enough is None:
            few = max(bound, proved_for(wanted))
            proved += few
            at_proved += len(made.sheets) == few
        theirs = packed_by_library(wanted)
        packer += theirs
        worse += len(made.sheets) > theirs
    return Packing(what, len(lists), used, least, packer, at, over, slowest, worse, proved, at_proved)


def packings() -> list[Packing]:
    """Lay out lists with fixed seeds: sheets cut up at random, of which the number is known; and cabinets."""
    found = []
    for parts in (6, 10, 14):
        cut_up = [
            (dissected(n, SHEET, KERF, parts, 100 * n + s, grid=g), n)
            for n in (2, 4, 7)
            for s in range(2)
            for g in (1, 10)
        ]
        found.append(_of(f"{parts} parts a sheet, cut up at random", cut_up))
    found += [
        _of(f"parts of {units} cabinets", [(cabinets(units, s), None) for s in range(4)]) for units in (6, 24, 48)
    ]
    return found


def boards() -> Packing:
    """Lay out boards of thirty kinds, beside what the linear program proves."""
    used = least = at = over = 0
    slowest = 0.0
    for seed in range(10):
        rng = random.Random(seed)  # noqa: S311 - a made-up list, not a secret
        kinds = sorted({rng.randint(200, 2300) for _ in range(30)})
        counts = [rng.randint(1, 20) for _ in kinds]
        began = time.perf_counter()
        made = cut_lengths([k + 3 for k in kinds], counts, [Board(6003, None, 1.0)], seconds=SECONDS)
        slowest = max(slowest, time.perf_counter() - began)
        used += len(made.used)
        least += made.bound
        at += len(made.used) == made.bound
        over += len(made.used) > made.bound + 1
    return Packing("boards of 30 kinds out of 6 m", 10, used, least, 0, at, over, slowest)
