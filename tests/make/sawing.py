"""A sawyer who knows nothing of the search: makes every cut on a sheet of the stock's size, and sees what falls off."""

from __future__ import annotations

import random
from collections import Counter

from wobble.core.make.cutting.lists import CutList, CutSheet
from wobble.core.make.cutting.tables import Offered, Wanted

NEAR = 1e-5
Rect = tuple[float, float, float, float]


def sawn(sheet: CutSheet, kerf: float) -> list[Rect]:
    """Return the pieces that lie there after all cuts: each cut goes from edge to edge of one piece that lies there."""
    pieces: list[Rect] = [(0.0, 0.0, sheet.length_mm, sheet.width_mm)]
    for cut in sheet.cuts:
        piece = (*cut.at, *cut.size)
        found = [p for p in pieces if all(abs(a - b) < NEAR for a, b in zip(p, piece, strict=True))]
        assert len(found) == 1, f"no piece lies there to be cut: {piece} among {pieces}"
        pieces.remove(found[0])
        x, y, w, h = found[0]
        # the blade may run beside the piece with a part of its width, never with all of it
        if cut.axis == "x":
            assert x - kerf < cut.at_mm < x + w
            parts = [(x, y, cut.at_mm - x, h), (cut.at_mm + kerf, y, x + w - cut.at_mm - kerf, h)]
        else:
            assert y - kerf < cut.at_mm < y + h
            parts = [(x, y, w, cut.at_mm - y), (x, cut.at_mm + kerf, w, y + h - cut.at_mm - kerf)]
        pieces += [p for p in parts if min(p[2], p[3]) > NEAR]
    return pieces


def check(made: CutList, wanted: list[Wanted], offered: list[Offered], kerf: float, trim: float) -> None:
    """Check that a list can be cut as it says: every part falls off whole, the right way round, and none is lost."""
    got: Counter[str] = Counter()
    by_name = {w.name: w for w in wanted}
    stock = {o.name: o for o in offered}
    used: Counter[str] = Counter()
    for sheet in made.sheets:
        used[sheet.stock] += 1
        pieces = sawn(sheet, kerf)
        for part in sheet.parts:
            asked = by_name[part.name]
            assert not (part.turned and asked.grain == "length")
            size = (asked.width_mm, asked.length_mm) if part.turned else (asked.length_mm, asked.width_mm)
            assert any(
                abs(p[0] - part.x_mm) < NEAR
                and abs(p[1] - part.y_mm) < NEAR
                and abs(p[2] - size[0]) < NEAR
                and abs(p[3] - size[1]) < NEAR
                for p in pieces
            ), f"{part.name} does not fall off in its size"
            assert part.x_mm > trim - NEAR
            assert part.x_mm + size[0] < sheet.length_mm - trim + NEAR
            assert part.y_mm > trim - NEAR
            assert part.y_mm + size[1] < sheet.width_mm - trim + NEAR
            got[part.name] += 1
    for board in made.lengths:
        used[board.stock] += 1
        end = trim - kerf
        for one in board.parts:
            assert one.x_mm >= end + kerf - NEAR
            end = one.x_mm + one.length_mm
            got[one.name] += 1
        assert end <= board.length_mm - trim + NEAR
    for name, n in used.items():
        count = stock[name].quantity
        assert count is None or n <= count
    for lack in made.missing:
        got[lack.name] += lack.quantity
    assert got == Counter({w.name: w.quantity for w in wanted})
    assert all(b.least <= b.used for b in made.bounds)


def dissected(n: int, size: tuple[int, int], kerf: float, parts: int, seed: int, *, grid: int = 1) -> list[Wanted]:
    """Return the parts of `n` whole sheets that were cut up at random: `n` sheets are enough for them."""
    rng = random.Random(seed)  # noqa: S311 - a made-up list, not a secret
    all_parts: list[tuple[float, float]] = []
    for _ in range(n):
        rects: list[tuple[float, float]] = [(float(size[0]), float(size[1]))]
        for _ in range(400):
            if len(rects) >= parts:
                break
            rects.sort(key=lambda r: -r[0] * r[1])
            i = int(rng.random() ** 2 * len(rects))
            a, b = rects[i]
            along = rng.random() < a / (a + b)
            whole = a if along else b
            if whole < 160 + kerf:
                continue
            at = float(rng.randint(80 // grid, int(whole - kerf - 80) // grid) * grid)
            if at < 80:
                continue
            rest = whole - at - kerf
            rects[i : i + 1] = [(at, b), (rest, b)] if along else [(a, at), (a, rest)]
        all_parts += rects
    rng.shuffle(all_parts)
    return [
        Wanted(name=f"p{i}", length_mm=b if i % 2 else a, width_mm=a if i % 2 else b)
        for i, (a, b) in enumerate(all_parts)
    ]


def cabinets(n: int, seed: int) -> list[Wanted]:
    """Return the parts of so many made-up cabinets, as kitchens have them: alike in some sizes, not in others."""
    rng = random.Random(seed)  # noqa: S311 - a made-up list, not a secret
    parts: Counter[tuple[float, float, str]] = Counter()
    for _ in range(n):
        inside = rng.choice((300, 400, 450, 500, 600, 800, 900)) - 36.0
        match rng.choice(("base", "base", "wall", "tall", "drawers")):
            case "base":
                parts[720.0, 560.0, "length"] += 2
                parts[inside, 560.0, "length"] += 1
                parts[inside, 100.0, ""] += 2
                parts[inside, 540.0, "length"] += rng.choice((1, 1, 2))
            case "wall":
                parts[720.0, 320.0, "length"] += 2
                parts[inside, 320.0, "length"] += 2
                parts[inside, 300.0, "length"] += rng.choice((1, 2, 3))
            case "tall":
                parts[2100.0, 560.0, "length"] += 2
                parts[inside, 560.0, "length"] += 3
                parts[inside, 540.0, "length"] += 4
            case _:
                parts[720.0, 560.0, "length"] += 2
                parts[inside, 560.0, "length"] += 1
                parts[inside, 100.0, ""] += 2
                for high in (120.0, 160.0, 250.0):
                    parts[500.0, high, ""] += 2
                    parts[inside - 56, high, ""] += 2
    return [
        Wanted(name=f"p{i}", quantity=n, length_mm=a, width_mm=b, grain="length" if grain else "")
        for i, ((a, b, grain), n) in enumerate(parts.items())
    ]
