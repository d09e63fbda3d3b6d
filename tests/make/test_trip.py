"""One trip for several jobs, by hand."""

from __future__ import annotations

from collections import Counter

import pytest
from msgspec.structs import replace

from tests.catalogue import job_of
from wobble.core.job import Job, Offer, Pack, SheetStock, Shop, Workshop
from wobble.core.make.buying import Buying, ToBuy, baskets
from wobble.core.make.trip import Trip, one_trip

SCREWS = Pack(id="screws", of="screws", name="box of 100", size_mm=50.0, holds=100.0, price=9.0)
PLY = SheetStock(id="ply", name="Birch plywood 18", price=78.0)


def bought_for(name: str, screws: float, sheets: int, *shops: Shop) -> tuple[Job, Buying]:
    """Return a job that takes so many screws and sheets, as its own buying says."""
    packs = -(-int(screws) // 100)
    lines = (
        ToBuy(what="screws", item="screws", needs=screws, unit="pieces", packs=packs, price=9.0),
        ToBuy(what="plywood", item="ply", needs=float(sheets), unit="pieces", packs=sheets, price=78.0),
    )
    wanted = Counter({"screws": packs, "ply": sheets})
    found = baskets(wanted, shops, {"screws": 9.0, "ply": 78.0})
    job = replace(job_of(width=2000.0), name=name, workshop=Workshop(stock=(SCREWS, PLY), shops=shops))
    return job, Buying(list=lines, baskets=found, why="")


def shop(name: str, trip: float, *prices: tuple[str, float]) -> Shop:
    return Shop(id=name.lower(), name=name, trip=trip, prices=tuple(Offer(item=i, price=p) for i, p in prices))


YARD = shop("Timber yard", 12.0, ("ply", 70.0), ("screws", 11.0))


def lines(trip: Trip) -> dict[str, int]:
    return {line.what: line.packs for line in trip.lines}


def test_two_halves_of_a_box_are_one_box_and_the_way_is_gone_once():
    """40 and 50 screws: a box each apart, one together. Apart 2 · (11 + 70 · n + 12); together 11 + 70 · 3 + 12."""
    trip = one_trip([bought_for("Mill", 40, 1, YARD), bought_for("Chapel", 50, 2, YARD)])
    assert lines(trip) == {"screws": 1, "plywood": 3}
    assert trip.baskets[0].total == 11 + 3 * 70 + 12
    assert trip.apart == (11 + 70 + 12) + (11 + 140 + 12)
    assert trip.saves == 11 + 12
    assert "23.00 more" in trip.why
    assert [(s.job, s.packs) for s in trip.lines[0].shares] == [("Mill", 1), ("Chapel", 1)]


def test_of_unlike_prices_for_one_thing_the_dearer_counts_and_a_shop_is_one_by_its_name():
    dearer = shop("timber  YARD", 9.0, ("ply", 74.0))
    trip = one_trip([bought_for("Mill", 40, 1, YARD), bought_for("Chapel", 0, 1, dearer)])
    assert [s.name for s in trip.shops] == ["Timber yard"]
    assert trip.shops[0].trip == 12.0
    assert trip.baskets[0].total == 11 + 2 * 74 + 12


def test_what_no_shop_has_is_lacking_and_nothing_is_said_to_be_saved():
    no_screws = shop("Yard", 5.0, ("ply", 70.0))
    other = shop("Smith", 5.0, ("screws", 8.0))
    anywhere = one_trip([bought_for("Mill", 40, 1, no_screws), bought_for("Chapel", 50, 1, no_screws)])
    assert anywhere.baskets[0].total == 9 + 2 * 70 + 5  # no shop names screws: the stock list's price
    named = shop("Yard", 5.0, ("ply", 70.0))
    mill, wants = bought_for("Mill", 40, 1, named)
    unpriced = replace(mill, workshop=replace(mill.workshop, stock=(replace(SCREWS, price=None), PLY)))
    lacking = one_trip([(unpriced, wants), (replace(unpriced, name="Chapel"), wants)])
    assert lacking.baskets[0].lacking == (lacking.lines[0].item,)
    assert (lacking.apart, lacking.saves) == (None, None)
    assert "No set of these shops has everything: 1" in lacking.why
    both = one_trip([bought_for("Mill", 40, 1, no_screws), bought_for("Chapel", 50, 1, other)])
    assert not both.baskets[0].lacking
    assert both.baskets[0].total == 8 + 2 * 70 + 10


def test_more_than_eight_shops_say_which_are_not_tried():
    many = [shop(f"Shop {n}", float(n), ("ply", 70.0 + n)) for n in range(10)]
    trip = one_trip([bought_for("Mill", 0, 1, *many[:5]), bought_for("Chapel", 0, 1, *many[5:])])
    assert trip.left_out == ("Shop 8", "Shop 9")
    assert trip.baskets[0].total == pytest.approx(2 * 70)
