"""Sheets broken down to what one person lifts and what the car takes: which of the drawn cuts must be made before."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.job import SheetStock, Workshop
from wobble.core.make.layout.laid import EDGE_MM, LaidSheet, PartOnStock, stop_mm, weight_kg

Size = tuple[float, float]
NEAR_MM = 1e-3


@dataclass(frozen=True)
class Limits:
    """What is carried in one piece: how heavy at most, kg, and how long and wide, mm; None where it does not matter."""

    lifts_kg: float | None = None
    carries_mm: Size | None = None

    def over(self, sheet: LaidSheet, size: Size) -> bool:
        """Return whether a piece of a sheet is too heavy or too large."""
        if self.lifts_kg is not None and weight_kg(sheet.material, *size, sheet.thick_mm) > self.lifts_kg:
            return True
        if self.carries_mm is None:
            return False
        return max(size) > max(self.carries_mm) or min(size) > min(self.carries_mm)


@dataclass(frozen=True)
class BrokenDown:
    """A sheet in pieces that are carried: its cuts for that by number, and parts that stay over the limits."""

    cuts: tuple[int, ...]
    over: tuple[Size, ...]


def limits_of(sheet: LaidSheet, shop: Workshop) -> Limits:
    """Return what pieces of a sheet are carried as: what is at hand goes into no car."""
    return Limits(shop.lifts_kg, shop.carries_mm if sheet.bought else None)


def handled(sheets: Iterable[LaidSheet], shop: Workshop) -> Iterator[LaidSheet]:
    """Yield sheets with whether each is bought, and the cuts that are made before it is carried."""
    at_hand = Counter({s.id: s.at_hand for s in shop.stock if isinstance(s, SheetStock)})
    for one in sheets:
        bought = at_hand[one.stock] <= 0
        at_hand[one.stock] -= 1
        sheet = replace(one, bought=bought)
        yield replace(sheet, before=broken_down(sheet, limits_of(sheet, shop)).cuts)


def broken_down(sheet: LaidSheet, limits: Limits) -> BrokenDown:
    """Return which cuts of a layout leave nothing over the limits; the others wait for the bench.

    Its edges are trimmed before, as stops are set from trimmed edges; rests are cut up anywhere.
    """
    made: list[int] = []
    over: list[Size] = []
    parted = False
    lying: list[tuple[Size, Size, int]] = [((0.0, 0.0), (sheet.long_mm, sheet.wide_mm), 0)]
    while lying:
        at, size, since = lying.pop(0)
        # each piece's own cut comes before those of what it leaves, and nothing else is cut within it
        n = next(
            (n for n in range(since, len(sheet.cuts)) if _within(sheet.cuts[n].at, sheet.cuts[n].size, at, size)), None
        )
        if n is not None:
            at, size = sheet.cuts[n].at, sheet.cuts[n].size  # without the kerf beside it
        if not limits.over(sheet, size):
            continue
        if n is None:
            if any(_within((p.x_mm, p.y_mm), _lies(p), at, size) for p in sheet.parts):
                over.append(size)
            continue
        i = 0 if sheet.cuts[n].axis == "x" else 1
        kept = stop_mm(sheet.cuts[n])
        made.append(n)
        parted = parted or EDGE_MM < kept < size[i] - EDGE_MM
        lying.append((at, _with(size, i, kept), n + 1))
        lying.append((_with(at, i, at[i] + kept), _with(size, i, size[i] - kept), n + 1))
    return BrokenDown(tuple(sorted(made)) if parted else (), tuple(over))


def _lies(part: PartOnStock) -> Size:
    return (part.wide_mm, part.long_mm) if part.turned else (part.long_mm, part.wide_mm)


def _within(corner: Size, inner: Size, at: Size, size: Size) -> bool:
    return all(at[i] - NEAR_MM <= corner[i] and corner[i] + inner[i] <= at[i] + size[i] + NEAR_MM for i in (0, 1))


def _with(pair: Size, i: int, value: float) -> Size:
    return (value, pair[1]) if i == 0 else (pair[0], value)
