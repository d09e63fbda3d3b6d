"""A list of parts laid out on a list of stock: what `wobble cut` prints, and what the cutting of a job rests on.

Parts go by material and thickness to sheets, and where the stock of that material has no width, to lengths.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from wobble.core.make.cutting.lengths import Board, cut_lengths
from wobble.core.make.cutting.rows import Kind
from wobble.core.make.cutting.sheets import Aim, Sheet, pack
from wobble.core.make.cutting.tables import Offered, Wanted
from wobble.core.make.cutting.tree import Cut, Laid, Rest, cell_of, cells_down, cells_up, lay
from wobble.core.value import Value

SAME_MM = 0.05
"""Thicknesses nearer than this are one."""
NO_WIDTH = "it has no width, and there are only sheets of its material"


class OnSheet(Value, frozen=True, kw_only=True):
    """A part on a sheet: its lower left corner, x along the sheet's length, and whether it lies turned."""

    name: str
    x_mm: float
    y_mm: float
    turned: bool
    length_mm: float
    width_mm: float


class OnLength(Value, frozen=True, kw_only=True):
    """A part on a board: where it begins, and its length."""

    name: str
    x_mm: float
    length_mm: float


class CutSheet(Value, frozen=True, kw_only=True):
    """One sheet: what is cut out of it, the cuts in their order, and what is left over."""

    stock: str
    length_mm: float
    width_mm: float
    parts: tuple[OnSheet, ...]
    cuts: tuple[Cut, ...]
    rests: tuple[Rest, ...]


class CutLength(Value, frozen=True, kw_only=True):
    """One board: what is cut off it, where each cut begins, and what is left over."""

    stock: str
    length_mm: float
    parts: tuple[OnLength, ...]
    cuts: tuple[float, ...]
    rest_mm: float


class Missing(Value, frozen=True, kw_only=True):
    """Parts that there is no stock for, and why: in words, and whether any stock would be large enough."""

    name: str
    quantity: int
    why: str
    too_large: bool = False


class Bound(Value, frozen=True, kw_only=True):
    """Of one material: the least number of sheets or boards that any layout takes, and how many are used.

    Where there is too little stock for all parts, `least` is of no more than what is used.
    """

    material: str
    thickness_mm: float
    least: int
    used: int


class CutList(Value, frozen=True, kw_only=True):
    """A list laid out. `bound` is the least number of sheets and boards together that any layout takes."""

    sheets: tuple[CutSheet, ...]
    lengths: tuple[CutLength, ...]
    missing: tuple[Missing, ...]
    bound: int
    bounds: tuple[Bound, ...]
    price: float


@dataclass(frozen=True)
class Saw:
    """What the blade takes, and what is cut off all edges first."""

    kerf_mm: float
    trim_mm: float = 0.0


@dataclass(frozen=True)
class Looking:
    """What counts after price and area, for each aim that is asked for, and how long a layout is looked for."""

    aims: tuple[Aim, ...]
    seconds: float
    at_most_s: float
    seed: int


def cut_list(
    wanted: Sequence[Wanted],
    offered: Sequence[Offered],
    *,
    kerf_mm: float,
    trim_mm: float = 0.0,
    aim: Aim = "fewest sheets",
    seconds: float = 1.0,
    at_most_s: float | None = None,
    seed: int = 1,
) -> CutList:
    """Return parts laid out on stock: for each material and thickness sheets first, then lengths.

    Args:
        wanted: The parts.
        offered: The stock.
        kerf_mm: What the blade takes.
        trim_mm: What is cut off all edges first.
        aim: What counts after price and area.
        seconds: How long to look on a plain machine, for all materials together.
        at_most_s: How long to look on any; ten times that where nothing is said.
        seed: Of the search.
    """
    most = 10 * seconds if at_most_s is None else at_most_s
    return cut_lists(wanted, offered, Saw(kerf_mm, trim_mm), Looking((aim,), seconds, most, seed))[aim]


def cut_lists(wanted: Sequence[Wanted], offered: Sequence[Offered], saw: Saw, looking: Looking) -> dict[Aim, CutList]:
    """Return parts laid out on stock for each aim, the best of the same layouts for each."""
    groups = _groups(wanted)
    n = max(len(groups), 1)
    share = Looking(looking.aims, looking.seconds / n, looking.at_most_s / n, looking.seed)
    found: list[dict[Aim, _Laid]] = []
    for (material, thick), parts in groups.items():
        stock = [
            o
            for o in offered
            if o.material.casefold() == material and _as_thick(o.thickness_mm, thick) and o.quantity != 0
        ]
        if stock:
            found.append(_of_one((material, thick), parts, stock, saw, share))
        else:
            lack = tuple(Missing(name=p.name, quantity=p.quantity, why=_no_stock(p, offered)) for p in parts)
            found.append(dict.fromkeys(looking.aims, _Laid(missing=lack)))
    return {aim: _together([one[aim] for one in found]) for aim in looking.aims}


@dataclass(frozen=True)
class _Laid:
    """What one material and thickness was laid out to."""

    sheets: tuple[tuple[CutSheet, Offered], ...] = ()
    lengths: tuple[tuple[CutLength, Offered], ...] = ()
    missing: tuple[Missing, ...] = ()
    bounds: tuple[Bound, ...] = ()


def _together(found: Sequence[_Laid]) -> CutList:
    bounds = tuple(b for one in found for b in one.bounds)
    return CutList(
        sheets=tuple(sheet for one in found for sheet, _ in one.sheets),
        lengths=tuple(board for one in found for board, _ in one.lengths),
        missing=tuple(m for one in found for m in one.missing),
        bound=sum(b.least for b in bounds),
        bounds=bounds,
        price=round(sum(o.price for one in found for _, o in (*one.sheets, *one.lengths)), 2),
    )


def _of_one(
    of: tuple[str, float], parts: Sequence[Wanted], stock: Sequence[Offered], saw: Saw, looking: Looking
) -> dict[Aim, _Laid]:
    """Return parts of one material and thickness, laid out for each aim: on sheets, then on lengths."""
    flat = [o for o in stock if o.width_mm is not None]
    long = [o for o in stock if o.width_mm is None]
    for_sheets = [p for p in parts if p.width_mm > 0] if flat else []
    others = [p for p in parts if p not in for_sheets]
    found = {}
    for aim, (made, short, least) in _on_sheets(for_sheets, flat, saw, looking).items():
        for_lengths = [*others, *short] if long else others
        missing = [] if long else [_too_large(p, flat, saw.trim_mm) for p in short]
        bounds = [_bound(of, least, len(made))] if for_sheets else []
        cut: list[tuple[CutLength, Offered]] = []
        if for_lengths and long:
            cut, short, least = _on_lengths(for_lengths, long, saw, looking)
            missing += [_too_large(p, long, saw.trim_mm) for p in short]
            bounds.append(_bound(of, least, len(cut)))
        elif for_lengths:
            missing += [Missing(name=p.name, quantity=p.quantity, why=NO_WIDTH) for p in for_lengths]
        found[aim] = _Laid(tuple(made), tuple(cut), tuple(missing), tuple(bounds))
    return found


def _bound(of: tuple[str, float], least: int, used: int) -> Bound:
    return Bound(material=of[0], thickness_mm=of[1], least=min(least, used), used=used)


def _as_thick(stock_mm: float, part_mm: float) -> bool:
    """Whether stock is as thick as a part; where one of them does not say, it is."""
    return stock_mm == 0 or part_mm == 0 or abs(stock_mm - part_mm) < SAME_MM


def _groups(wanted: Sequence[Wanted]) -> dict[tuple[str, float], list[Wanted]]:
    groups: dict[tuple[str, float], list[Wanted]] = {}
    for part in wanted:
        material = part.material.casefold()
        near = next((k for k in groups if k[0] == material and abs(k[1] - part.thickness_mm) < SAME_MM), None)
        groups.setdefault(near or (material, part.thickness_mm), []).append(part)
    return groups


def _no_stock(part: Wanted, offered: Sequence[Offered]) -> str:
    same = sorted({o.thickness_mm for o in offered if o.material.casefold() == part.material.casefold()})
    of = part.material or "a material without a name"
    if same:
        return f"there is {of} of {', '.join(f'{t:g}' for t in same)} mm, none of {part.thickness_mm:g} mm"
    return f"there is no stock of {of}"


def _too_large(part: Wanted, stock: Sequence[Offered], trim: float) -> Missing:
    usable = [(o.length_mm - 2 * trim, (o.width_mm or 0.0) - 2 * trim if o.width_mm else 0.0) for o in stock]
    long, wide = max(part.length_mm, part.width_mm), min(part.length_mm, part.width_mm)
    turns = part.grain == ""
    fits = any(
        (part.length_mm <= a and part.width_mm <= b)
        or (turns and part.width_mm <= a and part.length_mm <= b)
        or (b == 0 and part.length_mm <= a)
        for a, b in usable
    )
    if fits:
        why = "the stock is used up"
    else:
        a, b = max(usable)
        size = f"{a:g} × {b:g}" if b else f"{a:g}"
        why = (
            f"{long:g} × {wide:g} mm is larger than any stock; the largest gives {size} mm"
            if b
            else (f"{part.length_mm:g} mm is longer than any stock; the longest gives {size} mm")
        )
    return Missing(name=part.name, quantity=part.quantity, why=why, too_large=not fits)


def _short(parts: Sequence[Wanted], left: Sequence[int]) -> list[Wanted]:
    return [
        Wanted(
            name=p.name, quantity=n, length_mm=p.length_mm, width_mm=p.width_mm, thickness_mm=p.thickness_mm,
            material=p.material, grain=p.grain,
        )
        for p, n in zip(parts, left, strict=True) if n
    ]  # fmt: skip


def _on_sheets(
    parts: Sequence[Wanted],
    stock: Sequence[Offered],
    saw: Saw,
    looking: Looking,
) -> dict[Aim, tuple[list[tuple[CutSheet, Offered]], list[Wanted], int]]:
    kerf, trim = saw.kerf_mm, saw.trim_mm
    if not parts:
        return {aim: ([], [], 0) for aim in looking.aims}
    usable = [o for o in stock if min(o.length_mm, o.width_mm or 0.0) > 2 * trim]
    alike, names = _alike(parts)
    sizes = [(o.length_mm - 2 * trim, (o.width_mm or 0.0) - 2 * trim) for o in usable]
    cell = cell_of([mm + kerf for size in (*sizes, *((k[0], k[1]) for k in alike)) for mm in size])
    kinds = [Kind(cells_up(k[0] + kerf, cell), cells_up(k[1] + kerf, cell), k[2]) for k in alike]
    sheets = [
        Sheet(cells_down(a + kerf, cell), cells_down(b + kerf, cell), o.quantity, o.price)
        for (a, b), o in zip(sizes, usable, strict=True)
    ]
    packed = pack(
        kinds,
        [len(n) for n in names],
        sheets,
        seconds=looking.seconds,
        at_most_s=looking.at_most_s,
        seed=looking.seed,
        aims=looking.aims,
    )
    true = tuple((k[0], k[1]) for k in alike)
    found: dict[Aim, tuple[list[tuple[CutSheet, Offered]], list[Wanted], int]] = {}
    for aim, layout in packed.items():
        waiting = [list(n) for n in names]
        made = []
        for one in layout.used:
            o = usable[one.sheet]
            laid = lay(one.tree, (o.length_mm, o.width_mm or 0.0), true, kerf=kerf, trim=trim)
            made.append((_sheet(o, laid, parts, waiting), o))
        counts = [0] * len(parts)
        for rest in waiting:
            for index in rest:
                counts[index] += 1
        found[aim] = (made, _short(parts, counts), layout.bound)
    return found


def _alike(parts: Sequence[Wanted]) -> tuple[list[tuple[float, float, bool]], list[list[int]]]:
    """Return kinds of parts that are cut alike, and for each which parts it stands for, one entry a piece."""
    kinds: dict[tuple[float, float, bool], list[int]] = {}
    for i, p in enumerate(parts):
        kinds.setdefault((p.length_mm, p.width_mm, p.grain == ""), []).extend([i] * p.quantity)
    return list(kinds), list(kinds.values())


def _sheet(stock: Offered, laid: Laid, parts: Sequence[Wanted], waiting: list[list[int]]) -> CutSheet:
    placed = []
    for one in laid.parts:
        part = parts[waiting[one.kind].pop(0)]
        placed.append(
            OnSheet(
                name=part.name,
                x_mm=one.x_mm,
                y_mm=one.y_mm,
                turned=one.turned,
                length_mm=part.length_mm,
                width_mm=part.width_mm,
            )
        )
    return CutSheet(
        stock=stock.name,
        length_mm=stock.length_mm,
        width_mm=stock.width_mm or 0.0,
        parts=tuple(placed),
        cuts=laid.cuts,
        rests=laid.rests,
    )


def _on_lengths(
    parts: Sequence[Wanted], stock: Sequence[Offered], saw: Saw, looking: Looking
) -> tuple[list[tuple[CutLength, Offered]], list[Wanted], int]:
    kerf, trim = saw.kerf_mm, saw.trim_mm
    usable = [o for o in stock if o.length_mm > 2 * trim]
    lengths = sorted({p.length_mm for p in parts})
    cell = cell_of([mm + kerf for mm in (*lengths, *(o.length_mm - 2 * trim for o in usable))])
    waiting = {mm: [i for i, p in enumerate(parts) if p.length_mm == mm for _ in range(p.quantity)] for mm in lengths}
    boards = [Board(cells_down(o.length_mm - 2 * trim + kerf, cell), o.quantity, o.price) for o in usable]
    cuts = cut_lengths(
        [cells_up(mm + kerf, cell) for mm in lengths],
        [len(waiting[mm]) for mm in lengths],
        boards,
        seconds=max(looking.seconds, 0.3),
        at_most_s=max(looking.at_most_s, 0.3),
    )
    made = []
    for b, inside in cuts.used:
        o, at, placed, sawn = usable[b], trim, [], [trim - kerf] if trim > 0 else []
        for k in inside:
            part = parts[waiting[lengths[k]].pop(0)]
            placed.append(OnLength(name=part.name, x_mm=at, length_mm=part.length_mm))
            at += part.length_mm
            if at < o.length_mm - 1e-6:
                sawn.append(at)
            at += kerf
        made.append(
            (
                CutLength(
                    stock=o.name,
                    length_mm=o.length_mm,
                    parts=tuple(placed),
                    cuts=tuple(sawn),
                    rest_mm=max(o.length_mm - at, 0.0),
                ),
                o,
            )
        )
    counts = [0] * len(parts)
    for left in waiting.values():
        for index in left:
            counts[index] += 1
    return made, _short(parts, counts), cuts.bound
