"""Buying: all that a job takes, less what is at hand, in packs as sold, and the cheapest basket over the shops.

With up to eight shops every set of them is tried: what each set's shops ask at least for every item, and the way to
each once, however much is bought there. Exact, as 255 sets are few.
"""

from __future__ import annotations

import itertools
import math
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence

from msgspec.structs import replace

from wobble.core.facts import Bought
from wobble.core.job import Finish, Job, LengthStock, Pack, PackOf, Place, SheetStock, Shop, StockItem, Value
from wobble.core.length import spoken
from wobble.core.make.coats import Finished
from wobble.core.make.layout.laid import Layout
from wobble.core.make.marked import NOT_MADE, MarkedPart
from wobble.core.part import Fastener

ASSEMBLY_SCREW_MM = 50.0
GLUE_G_PER_M = 20.0
"""What a joint of boards takes, g to the metre; a litre weighs about a kilogram."""
SPARE_BAND = 1.1
SANDED_M2 = 2.0
"""What a sheet of sandpaper takes before it is clogged."""
FILM_PAST_MM = 1000.0


class ToBuy(Value, frozen=True, kw_only=True):
    """One thing that the job takes: how much in all, at hand, and to buy, in packs of the item; what that costs.

    `item` is of the stock list; "" where nothing there is like it. `price` is what one costs at least; None where
    nobody has said. `bought` counts what is ticked off.
    """

    what: str
    item: str = ""
    needs: float
    unit: str
    at_hand: float = 0.0
    packs: int
    bought: int = 0
    price: float | None = None


class Basket(Value, frozen=True, kw_only=True):
    """What is bought in which shops: the items of each, what they cost, the trips, and what none of these shops has."""

    shops: tuple[str, ...]
    lines: tuple[BasketLine, ...]
    goods: float
    trips: float
    total: float
    lacking: tuple[str, ...] = ()


ONE = {"pieces": "piece", "pairs": "pair"}


class BasketLine(Value, frozen=True, kw_only=True):
    """One item in a basket: where, how many, and what they cost together."""

    shop: str
    item: str
    packs: int
    price: float


class Buying(Value, frozen=True, kw_only=True):
    """What is bought, the baskets (the cheapest first), and why that one."""

    list: tuple[ToBuy, ...]
    baskets: tuple[Basket, ...]
    why: str


def buying(
    job: Job,
    parts: Sequence[MarkedPart],
    fasteners: Iterable[Fastener],
    layout: Layout,
    coats: Finished,
    bought: Iterable[Bought],
) -> Buying:
    """Return what a job takes and where it is bought."""
    had = Counter[str]()
    for fact in bought:
        had[fact.item] += fact.count
    lines = tuple(_of_one(line) for line in _lines(job, parts, tuple(fasteners), layout, coats, had))
    wanted = Counter[str]()
    for line in lines:
        if line.item and line.packs > line.bought:
            wanted[line.item] += line.packs - line.bought
    found = baskets(wanted, job.workshop.shops, {s.id: s.price for s in job.workshop.stock})
    return Buying(list=lines, baskets=found, why=_why(found))


def _of_one(line: ToBuy) -> ToBuy:
    return replace(line, unit=ONE[line.unit]) if line.needs == 1 and line.unit in ONE else line


# --- what is needed ---


def _lines(
    job: Job,
    parts: Sequence[MarkedPart],
    fasteners: tuple[Fastener, ...],
    layout: Layout,
    coats: Finished,
    had: Counter[str],
) -> Iterator[ToBuy]:
    stock = {s.id: s for s in job.workshop.stock}
    used = Counter[str]([s.stock for s in layout.sheets] + [b.stock for b in layout.lengths])
    names = {
        s.stock: f"{s.name}, {spoken(s.long_mm, job.units)} × {spoken(s.wide_mm, job.units)}" for s in layout.sheets
    }
    names |= {b.stock: f"{b.name}, {spoken(b.long_mm, job.units)} long" for b in layout.lengths}
    for item, n in used.items():
        found = stock.get(item)
        at_hand = found.at_hand if isinstance(found, SheetStock | LengthStock) else 0
        yield _line(job, names[item], found, float(n), "pieces", at_hand, max(n - at_hand, 0), had)
    marks = {p.key: f"{p.mark}, {p.part.name}" for p in parts}
    for got in job.workshop.got:
        if got.how == "bought" and got.part in marks:
            yield ToBuy(what=f"{marks[got.part]}, ready made", needs=1.0, unit="order", packs=1, price=got.price)
    parts = [p for p in parts if p.state not in ("kept", "mended")]
    here = [p for p in parts if p.state not in NOT_MADE]
    for (size, shank), n in sorted(_screws(here, fasteners).items()):
        yield _packed(job, "screws", f"screws {shank:g} × {spoken(size, job.units)}", size, n, "pieces", had)
    hinges = sum(len(d.at) * p.part.quantity for p in parts for d in p.part.drillings if d.use == "hinge cup")
    butts = sum(2 * p.part.quantity for p in parts if p.part.role == "door" and not _cups(p))
    yield from _some(job, "hinges", "cup hinges", 0.0, hinges, "pieces", had)
    yield from _some(job, "hinges", "hinges for doors without cups", 0.0, butts, "pieces", had)
    for long, n in sorted(_slides(parts).items()):
        yield _packed(job, "slides", f"drawer slides {spoken(long, job.units)}, pairs", long, n, "pairs", had)
    pins = sum(4 * p.part.quantity for p in parts if p.part.role == "loose shelf")
    yield from _some(job, "shelf pins", "shelf pins", 5.0, pins, "pieces", had)
    fronts = sum(p.part.quantity for p in parts if p.part.role in ("door", "drawer front"))
    yield from _some(job, "handles", "handles", 0.0, fronts, "pieces", had)
    yield from _some(job, "banding", "edge banding", 0.0, math.ceil(coats.banding_m * SPARE_BAND), "m", had)
    glue = sum(max(p.part.blank_mm) * p.part.quantity for p in here if p.part.joins) / 1000 * GLUE_G_PER_M / 1000
    yield from _some(job, "glue", "wood glue", 0.0, round(glue, 2), "l", had)
    cushions = sum(
        p.part.blank_mm[0] * p.part.blank_mm[1] * p.part.quantity for p in parts if p.part.role == "cushion board"
    )
    yield from _some(job, "foam", "foam for cushions", 0.0, round(cushions / 1e6, 2), "m²", had)
    yield from _some(job, "cloth", "cloth for cushions, turned under", 0.0, round(cushions / 1e6 * 1.6, 2), "m²", had)
    sanded = sum(step.m2 for step in coats.steps if step.what.startswith("sand"))
    yield from _some(job, "sandpaper", "sandpaper, sheets", 0.0, math.ceil(sanded / SANDED_M2), "pieces", had)
    painted = {p.place for p in here} if coats.steps else set()
    floors = sum(_floor_m2(place) for place in job.places if place.id in painted)
    what = f"film over the floor, {spoken(FILM_PAST_MM, job.units)} past what is coated"
    yield from _some(job, "film", what, 0.0, round(floors, 1), "m²", had)
    yield from _tins(job, coats, had)


def _floor_m2(place: Place) -> float:
    """Return how much floor is covered while a place is coated, m²: its own, and a step before and beside it."""
    return (place.width_mm + FILM_PAST_MM) * (place.depth_mm + FILM_PAST_MM) / 1e6


def _cups(one: MarkedPart) -> bool:
    return any(d.use == "hinge cup" for d in one.part.drillings)


def _screws(parts: Sequence[MarkedPart], fasteners: tuple[Fastener, ...]) -> Counter[tuple[float, float]]:
    found = Counter[tuple[float, float]]()
    for f in fasteners:
        found[f.screw_mm, round(f.shank_mm, 1)] += 1
    for one in parts:
        for d in one.part.drillings:
            if d.use == "screw" and d.deep_mm == 0:
                found[ASSEMBLY_SCREW_MM, 4.0] += len(d.at) * one.part.quantity
    return found


def _slides(parts: Sequence[MarkedPart]) -> Counter[float]:
    found = Counter[float]()
    for one in parts:
        if one.part.role == "drawer side":
            found[round(one.part.finished[0].figure.value_mm, 1)] += one.part.quantity // 2
        if one.part.role == "pull-out board":
            found[round(one.part.finished[1].figure.value_mm, 1)] += one.part.quantity
    return found


def _tins(job: Job, coats: Finished, had: Counter[str]) -> Iterator[ToBuy]:
    litres: dict[str, float] = {}
    bare: dict[str, float] = {}
    for step in coats.steps:
        if step.kind is not None:
            into = litres if step.tin else bare
            name = step.tin or step.kind
            into[name] = into.get(name, 0.0) + step.litres
    for item, needs in litres.items():
        tin = next(s for s in job.workshop.stock if s.id == item)
        if isinstance(tin, Finish):
            packs = max(math.ceil(needs / tin.litres - 1e-9) - tin.at_hand, 0)
            yield _line(job, tin.name, tin, round(needs, 2), "l", tin.at_hand, packs, had)
    for kind, needs in bare.items():
        yield ToBuy(what=kind, needs=round(needs, 2), unit="l", packs=1)


def _some(job: Job, of: PackOf, what: str, size: float, needs: float, unit: str, had: Counter[str]) -> Iterator[ToBuy]:
    if needs > 0:
        yield _packed(job, of, what, size, needs, unit, had)


def _packed(job: Job, of: PackOf, what: str, size: float, needs: float, unit: str, had: Counter[str]) -> ToBuy:
    """Return a need in packs of the stock list: those of its size, the one that wastes least."""
    packs = [
        s
        for s in job.workshop.stock
        if isinstance(s, Pack) and s.of == of and (s.size_mm == 0 or abs(s.size_mm - size) < 1.0)
    ]
    if not packs:
        return ToBuy(what=what, needs=needs, unit=unit, packs=1)

    def waste(pack: Pack) -> float:
        n = max(math.ceil(needs / pack.holds - 1e-9) - pack.at_hand, 0)
        return n * (pack.price if pack.price is not None else pack.holds)

    best = min(packs, key=waste)
    n = max(math.ceil(needs / best.holds - 1e-9) - best.at_hand, 0)
    return _line(job, f"{what} ({best.name})", best, needs, unit, best.at_hand * best.holds, n, had)


def _line(
    job: Job, what: str, item: StockItem | None, needs: float, unit: str, at_hand: float, packs: int, had: Counter[str]
) -> ToBuy:
    if item is None:
        return ToBuy(what=what, needs=needs, unit=unit, packs=packs)
    asked = [o.price for shop in job.workshop.shops for o in shop.prices if o.item == item.id]
    if item.price is not None:
        asked.append(item.price)
    return ToBuy(
        what=what,
        item=item.id,
        needs=needs,
        unit=unit,
        at_hand=float(at_hand),
        packs=packs,
        bought=min(had[item.id], packs),
        price=min(asked) if asked else None,
    )


# --- where ---


def baskets(wanted: Counter[str], shops: Sequence[Shop], prices: dict[str, float | None]) -> tuple[Basket, ...]:
    """Return the cheapest basket of all sets of shops, and the cheapest of one and of two shops beside it.

    A set that has all items comes before one that lacks some; of those that lack, the one that lacks least. What no
    shop names has the price of the stock list, and is bought on any trip.
    """
    anywhere = {item: price for item, price in prices.items() if price is not None}
    named = {o.item for shop in shops for o in shop.prices}
    sets = [chosen for n in range(1, len(shops) + 1) for chosen in itertools.combinations(shops, n)]
    made = [_basket(wanted, chosen, anywhere, named) for chosen in sets]
    if not made:
        return ()
    ranked = sorted(made, key=lambda b: (len(b.lacking), round(b.total, 6), len(b.shops)))
    best = [ranked[0]]
    for n in (1, 2):
        other = next((b for b in ranked if len(b.shops) == n and b not in best), None)
        if other is not None and len(best[0].shops) != n:
            best.append(other)
    return tuple(best)


def _basket(wanted: Counter[str], shops: tuple[Shop, ...], anywhere: dict[str, float], named: set[str]) -> Basket:
    lines: list[BasketLine] = []
    lacking: list[str] = []
    for item, n in sorted(wanted.items()):
        offers = [(o.price, shop.id) for shop in shops for o in shop.prices if o.item == item]
        if not offers and item not in named and item in anywhere:
            offers = [(anywhere[item], shops[0].id)]
        if not offers:
            lacking.append(item)
            continue
        price, shop = min(offers)
        lines.append(BasketLine(shop=shop, item=item, packs=n, price=round(price * n, 2)))
    goods = sum(line.price for line in lines)
    trips = sum(shop.trip for shop in shops)
    return Basket(
        shops=tuple(s.id for s in shops),
        lines=tuple(lines),
        goods=round(goods, 2),
        trips=round(trips, 2),
        total=round(goods + trips, 2),
        lacking=tuple(lacking),
    )


def _why(found: tuple[Basket, ...]) -> str:
    if not found:
        return "No shop is named: prices are those of the stock list, and a trip costs nothing."
    best = found[0]
    if best.lacking:
        return f"No set of these shops has everything: {len(best.lacking)} of the list are lacking."
    if len(found) == 1:
        return f"{best.total:.2f} with the trip; no other set of shops is cheaper."
    other = found[1]
    if other.lacking:
        return f"{best.total:.2f} with the trips; {_count(other)} alone lacks {len(other.lacking)} of the list."
    return (
        f"{best.total:.2f} with the trips ({best.trips:.2f}); {_count(other)} would come to {other.total:.2f}, "
        f"{other.total - best.total:.2f} more."
    )


def _count(basket: Basket) -> str:
    return "one shop" if len(basket.shops) == 1 else f"{len(basket.shops)} shops"
