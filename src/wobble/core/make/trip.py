"""Several jobs bought for on one trip: what is alike in all of them is one need, each shop is gone to once.

Things are alike that are sold as the same sort under the same name, of one size. Packs are shared: two
halves of a box are one box. Sheets are not cut across jobs, so that each keeps its own.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence

from msgspec.structs import replace

from wobble.core.job import Finish, Job, LengthStock, Pack, SheetStock, Shop, StockItem, Value
from wobble.core.job.workshop import Offer
from wobble.core.make.buying import Basket, Buying, ToBuy, baskets

MOST_SHOPS = 8
"""Every set of so many is tried; those that are named first count."""


class JobShare(Value, frozen=True, kw_only=True):
    """How many packs of a line one job would buy by itself."""

    job: str
    packs: int


class TripLine(Value, frozen=True, kw_only=True):
    """One thing that is bought on the trip: how many packs in all, and how many each job alone would ask for."""

    item: str
    what: str
    packs: int
    shares: tuple[JobShare, ...]


class Trip(Value, frozen=True, kw_only=True):
    """One trip for several jobs.

    Attributes:
        lines: What is bought. shops: Where it is looked for. baskets: The cheapest first.
        apart: What each job's own cheapest basket comes to, all together; None where one of them has none.
        saves: What one trip costs less than that; None as well. left_out: Shops past the eight that are tried.
        why: What it comes to, in words.
    """

    lines: tuple[TripLine, ...]
    shops: tuple[Shop, ...]
    baskets: tuple[Basket, ...]
    apart: float | None
    saves: float | None
    left_out: tuple[str, ...]
    why: str


def one_trip(jobs: Sequence[tuple[Job, Buying]]) -> Trip:
    """Return what one trip for some jobs comes to, the first being the one that is looked at."""
    whose = [job for job, _ in jobs]
    names = _Names(whose)
    needs: dict[str, list[tuple[Job, StockItem, ToBuy]]] = {}
    for job, bought in jobs:
        stock = {s.id: s for s in job.workshop.stock}
        for wanted in bought.list:
            if wanted.item in stock:
                item = stock[wanted.item]
                needs.setdefault(names.of(item), []).append((job, item, wanted))
    lines = tuple(line for key, some in needs.items() if (line := _line(key, some)).packs > 0)
    every = _shops(whose, names)
    shops = every[:MOST_SHOPS]
    found = baskets(Counter({line.item: line.packs for line in lines}), shops, _prices(whose, names))
    alone = [b.baskets[0].total if b.baskets else None for _, b in jobs if b.list]
    whole = bool(found) and not found[0].lacking and all(t is not None for t in alone)
    apart = round(sum(t for t in alone if t is not None), 2) if whole else None
    saves = round(apart - found[0].total, 2) if apart is not None else None
    return Trip(
        lines=lines,
        shops=shops,
        baskets=found,
        apart=apart,
        saves=saves,
        left_out=tuple(s.name for s in every[MOST_SHOPS:]),
        why=_why(len(jobs), found, apart, saves),
    )


class _Names:
    """Names for things of several stock lists: one for all that are alike."""

    def __init__(self, jobs: Sequence[Job]) -> None:
        items = dict.fromkeys(_alike(item) for job in jobs for item in job.workshop.stock)
        self._names = {alike: f"item-{n}" for n, alike in enumerate(items, 1)}

    def of(self, item: StockItem) -> str:
        return self._names[_alike(item)]


def _alike(item: StockItem) -> tuple[object, ...]:
    """Return what two things share that are the same thing: what they are sold as, their name and their size."""
    name = " ".join(item.name.lower().split())
    match item:
        case Pack():
            return ("pack", name, item.of, item.size_mm, item.holds)
        case Finish():
            return ("tin", name, item.litres)
        case SheetStock() | LengthStock():
            return (type(item).__name__, name, item.thick_mm, item.long_mm, item.wide_mm)


def _holds(item: StockItem) -> float:
    return item.holds if isinstance(item, Pack) else item.litres if isinstance(item, Finish) else 1.0


def _line(key: str, some: Sequence[tuple[Job, StockItem, ToBuy]]) -> TripLine:
    """Return one line of the trip: leftovers of one job's packs count for the others'."""
    _, item, first = some[0]
    shares = tuple(JobShare(job=job.name, packs=max(b.packs - b.bought, 0)) for job, _, b in some)
    holds = _holds(item)
    if isinstance(item, Pack | Finish):
        open_needs = sum(max(b.needs - _had(i, b), 0.0) for _, i, b in some)
        packs = min(math.ceil(open_needs / holds - 1e-9), sum(s.packs for s in shares))
    else:
        packs = sum(s.packs for s in shares)
    return TripLine(item=key, what=first.what, packs=packs, shares=shares)


def _had(item: StockItem, line: ToBuy) -> float:
    """Return how much of a need is at hand or bought; finishes count what is at hand in tins."""
    at_hand = line.at_hand * _holds(item) if isinstance(item, Finish) else line.at_hand
    return at_hand + line.bought * _holds(item)


def _shops(jobs: Sequence[Job], names: _Names) -> tuple[Shop, ...]:
    """Return all shops of some jobs, those of one name once; of unlike prices and ways the dearer counts."""
    found: dict[str, Shop] = {}
    for job in jobs:
        stock = {s.id: names.of(s) for s in job.workshop.stock}
        for shop in job.workshop.shops:
            key = " ".join(shop.name.lower().split())
            had = found.get(key, Shop(id=f"shop-{len(found) + 1}", name=shop.name))
            prices = {o.item: o.price for o in had.prices}
            for o in shop.prices:
                if o.item in stock:
                    prices[stock[o.item]] = max(o.price, prices.get(stock[o.item], 0.0))
            offers = tuple(Offer(item=item, price=price) for item, price in prices.items())
            found[key] = replace(had, trip=max(had.trip, shop.trip), prices=offers)
    return tuple(found.values())


def _prices(jobs: Sequence[Job], names: _Names) -> dict[str, float | None]:
    """Return what stock lists say that things cost, the dearer where they differ."""
    prices: dict[str, float | None] = {}
    for job in jobs:
        for item in job.workshop.stock:
            key = names.of(item)
            had = prices.get(key)
            prices[key] = item.price if had is None else had if item.price is None else max(had, item.price)
    return prices


def _why(n: int, found: tuple[Basket, ...], apart: float | None, saves: float | None) -> str:
    if not found:
        return "No shop is named in any of these jobs: name them under Workshop."
    if found[0].lacking:
        return f"No set of these shops has everything: {len(found[0].lacking)} of the list are lacking."
    if apart is None or saves is None:
        return f"{found[0].total:.2f} for {n} jobs together, with the trips."
    return (
        f"{found[0].total:.2f} for {n} jobs together, with the trips; apart they come to {apart:.2f}, {saves:.2f} more."
    )
