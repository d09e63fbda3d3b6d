"""All parts of a job that are still to be cut, laid out on its stock, material by material."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.job import Job, LengthStock, SheetStock
from wobble.core.make.cutting.lists import CutLength, CutList, CutSheet, Looking, Missing, Saw, cut_lists
from wobble.core.make.cutting.sheets import Aim
from wobble.core.make.cutting.tables import Offered, Wanted
from wobble.core.make.layout.handling import handled
from wobble.core.make.layout.laid import Group, LaidLength, LaidSheet, Layout, NotLaid, PartOnStock, stop_mm, weight_kg
from wobble.core.make.marked import MarkedPart
from wobble.core.make.stock import (
    comes_in,
    lengths_for,
    material_of,
    offered_lengths,
    offered_sheets,
    sheets_for,
)
from wobble.core.part import Role

QUICK_S = 0.12
"""How long layouts are looked for in all when a page is opened; longer on request."""
JOINED: tuple[Role, ...] = (
    "cleat",
    "ledger",
    "batten",
    "trim",
    "cap",
    "board",
    "base frame",
    "toe kick",
    "timber",
    "split batten",
    "edging",
    "cover moulding",
    "plinth",
    "head strip",
)
"""What may be made of two pieces end to end; all else must be one."""
SEAMED: tuple[Role, ...] = ("back", "deck", "peg board")
"""What may be made of two sheets beside each other, their seam over a board that both are fastened to."""


@dataclass(frozen=True)
class LayoutInput:
    """All that one material's layout rests on: what is wanted, what there is, how it is sawn, and how long to look."""

    wanted: tuple[Wanted, ...]
    offered: tuple[Offered, ...]
    kerf_mm: float
    trim_mm: float
    aim: Aim
    seconds: float
    at_most_s: float
    seed: int

    def cut(self) -> CutList:
        """Return it laid out."""
        return self.cut_for((self.aim,))[self.aim]

    def cut_for(self, aims: tuple[Aim, ...]) -> dict[Aim, CutList]:
        """Return it laid out for each aim, the best of the same layouts for each."""
        looking = Looking(aims, self.seconds, self.at_most_s, self.seed)
        return cut_lists(self.wanted, self.offered, Saw(self.kerf_mm, self.trim_mm), looking)


@dataclass(frozen=True)
class Task:
    """What is laid out of one material, and the stock that its names stand for."""

    given: LayoutInput
    stock: dict[str, SheetStock | LengthStock]
    material: str
    thick_mm: float
    assumed: bool


def tasks(
    job: Job, parts: Sequence[MarkedPart], pinned: Sequence[LaidSheet], seconds: float = QUICK_S, seed: int = 1
) -> list[Task]:
    """Return what is to be laid out, one task for each material and thickness, or section.

    Args:
        job: Whose stock and saw count.
        parts: Of all places.
        pinned: Sheets that stay; what lies on them is laid out no more, and what they take of the stock is gone.
        seconds: How long to look in all.
        seed: Of the search.
    """
    on = Counter(p.key for sheet in pinned for p in sheet.parts)
    taken = Counter(sheet.stock for sheet in pinned)
    parts = [replace(p, to_cut=_beside(p, on[p.key])) if on[p.key] else p for p in parts]
    flat: dict[tuple[str, float], list[MarkedPart]] = {}
    long: dict[tuple[str, float, float], list[MarkedPart]] = {}
    for one in parts:
        if not one.to_cut or min(one.part.blank_mm) <= 0 or one.part.thick_mm <= 0:
            continue
        material, thick = material_of(one.part), round(one.part.thick_mm, 2)
        if comes_in(one.part) == "sheet":
            flat.setdefault((material, thick), []).append(one)
        else:
            long.setdefault((material, thick, round(one.part.blank_mm[1], 1)), []).append(one)
    n = max(len(flat) + len(long), 1)
    # a page that is opened may wait ten times as long on a slow machine; who asked for seconds waits for those
    share, most = seconds / n, max(seconds, 10 * QUICK_S) / n
    shop, made = job.workshop, []
    for (material, thick), some in flat.items():
        sheets, assumed = sheets_for(job, material, thick)
        grain = any(s.grain for s in sheets)
        sizes = [(s.long_mm - 2 * shop.trim_mm, s.wide_mm - 2 * shop.trim_mm) for s in sheets]
        wanted = tuple(_flat(one, sizes, grain=grain) for one in some)
        given = LayoutInput(
            wanted, offered_sheets(sheets, taken), shop.kerf_mm, shop.trim_mm, shop.aim, share, most, seed
        )
        made.append(Task(given, {s.id: s for s in sheets}, material, thick, assumed))
    for (material, thick, wide), some in long.items():
        boards, assumed = lengths_for(job, material, thick, wide)
        offered = offered_lengths(boards)
        longest = max((o.length_mm for o in offered), default=0.0) - 2 * shop.end_trim_mm
        wanted = tuple(_long(one, longest) for one in some)
        given = LayoutInput(wanted, offered, shop.kerf_mm, shop.end_trim_mm, shop.aim, share, most, seed)
        made.append(Task(given, {b.id: b for b in boards}, material, thick, assumed))
    return made


def _beside(one: MarkedPart, pinned: int) -> int:
    """Return how many of a part are laid out beside those that lie on sheets that stay.

    What is cut was cut out of those first; what came wrong of them is wanted again.
    """
    again = sum(c.count for c in one.checked if c.then == "cut again")
    return max(min(one.to_cut, one.part.quantity - pinned + again), 0)


def _flat(one: MarkedPart, sizes: Sequence[tuple[float, float]], *, grain: bool) -> Wanted:
    """Return a part as the cutting reads it; what may be joined and is larger than any sheet, in equal pieces."""
    long, wide = one.part.blank_mm
    along = grain and one.part.grain == "length"

    def fits(a: float, b: float) -> bool:
        return any((a <= x and b <= y) or (not along and b <= x and a <= y) for x, y in sizes)

    ways = [(n, long / (n if first else 1), wide / (1 if first else n)) for n in range(1, 9) for first in (True, False)]
    pieces = 1
    if one.part.role in (*JOINED, *SEAMED):
        pieces, long, wide = next(((n, a, b) for n, a, b in ways if fits(a, b)), (1, long, wide))
    return Wanted(
        name=one.key,
        quantity=one.to_cut * pieces,
        length_mm=round(long, 3),
        width_mm=round(wide, 3),
        grain="length" if along else "",
    )


def _long(one: MarkedPart, longest: float) -> Wanted:
    """Return a part as the cutting reads it; what may be joined and is longer than any board, in equal pieces."""
    long = one.part.blank_mm[0]
    pieces = math.ceil(long / longest) if 0 < longest < long and one.part.role in JOINED else 1
    return Wanted(name=one.key, quantity=one.to_cut * pieces, length_mm=round(long / pieces, 3), width_mm=0.0)


def laid(
    job: Job,
    work: Sequence[Task],
    cut: Sequence[CutList],
    parts: Sequence[MarkedPart],
    pinned: Sequence[LaidSheet] = (),
) -> Layout:
    """Return the layouts of all materials as one, those that stay first."""
    by_key = {p.key: p for p in parts}
    sheets: list[LaidSheet] = list(pinned)
    lengths: list[LaidLength] = []
    missing: list[NotLaid] = []
    groups: list[Group] = []
    for task, made in zip(work, cut, strict=True):
        sheets += [_sheet(task, s, by_key) for s in made.sheets]
        lengths += [_length(task, b, by_key) for b in made.lengths]
        missing += [_missing(task, m, by_key) for m in made.missing]
        groups += [
            Group(material=task.material, thick_mm=task.thick_mm, used=b.used, least=b.least, assumed=task.assumed)
            for b in made.bounds
        ]
    stay = Counter((s.material, s.thick_mm) for s in pinned)
    groups += [
        Group(material=material, thick_mm=thick, used=n, least=n, assumed=False)
        for (material, thick), n in stay.items()
    ]
    return Layout(
        sheets=tuple(handled(sheets, job.workshop)),
        lengths=tuple(lengths),
        missing=tuple(missing),
        groups=tuple(groups),
        price=round(sum(_paid(task, made) for task, made in zip(work, cut, strict=True)) + _paid_for(job, pinned), 2),
        sawn_m=sum(c.size[1 if c.axis == "x" else 0] for s in sheets for c in s.cuts) / 1000,
        settings=len({(s.thick_mm, round(mm, 1)) for s in sheets for mm in map(stop_mm, s.cuts)}),
    )


def _paid(task: Task, made: CutList) -> float:
    # what nobody gave a price for was counted by its size, to use little of it: that is no money
    return made.price if any(s.price is not None for s in task.stock.values()) else 0.0


def _paid_for(job: Job, pinned: Sequence[LaidSheet]) -> float:
    """Return what pinned sheets cost past those that are at hand."""
    stock = {s.id: s for s in job.workshop.stock if isinstance(s, SheetStock)}
    used = Counter(s.stock for s in pinned)
    return sum(max(n - stock[i].at_hand, 0) * (stock[i].price or 0.0) for i, n in used.items())


def _sheet(task: Task, sheet: CutSheet, by_key: dict[str, MarkedPart]) -> LaidSheet:
    stock = task.stock[sheet.stock]
    return LaidSheet(
        stock=stock.id,
        name=stock.name,
        material=task.material,
        thick_mm=task.thick_mm,
        long_mm=sheet.length_mm,
        wide_mm=sheet.width_mm,
        weight_kg=weight_kg(task.material, sheet.length_mm, sheet.width_mm, task.thick_mm),
        assumed=task.assumed,
        parts=tuple(
            PartOnStock(
                key=p.name,
                mark=by_key[p.name].mark,
                x_mm=p.x_mm,
                y_mm=p.y_mm,
                long_mm=p.length_mm,
                wide_mm=p.width_mm,
                turned=p.turned,
                ready=by_key[p.name].state == "now",
            )
            for p in sheet.parts
        ),
        cuts=sheet.cuts,
        rests=sheet.rests,
    )


def _length(task: Task, board: CutLength, by_key: dict[str, MarkedPart]) -> LaidLength:
    stock = task.stock[board.stock.split("@")[0]]
    wide = stock.wide_mm
    return LaidLength(
        stock=stock.id,
        name=stock.name,
        material=task.material,
        thick_mm=task.thick_mm,
        wide_mm=wide,
        long_mm=board.length_mm,
        assumed=task.assumed,
        parts=tuple(
            PartOnStock(
                key=p.name,
                mark=by_key[p.name].mark,
                x_mm=p.x_mm,
                long_mm=p.length_mm,
                wide_mm=by_key[p.name].part.blank_mm[1],
                ready=by_key[p.name].state == "now",
            )
            for p in board.parts
        ),
        cuts=board.cuts,
        rest_mm=board.rest_mm,
    )


def _missing(task: Task, lack: Missing, by_key: dict[str, MarkedPart]) -> NotLaid:
    sizes = [(o.length_mm, o.width_mm or 0.0) for o in task.given.offered]
    return NotLaid(
        key=lack.name,
        mark=by_key[lack.name].mark,
        quantity=lack.quantity,
        too_large=lack.too_large,
        largest_mm=max(sizes, default=(0.0, 0.0)),
    )
