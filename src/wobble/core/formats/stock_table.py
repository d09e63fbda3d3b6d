"""The stock list and price lists as CSV, in and out: as spreadsheets write it; faults are told by their cell."""

from __future__ import annotations

import csv
import io
import itertools
import re
from collections.abc import Iterable

import msgspec

from wobble.core.job import Finish, LengthStock, Offer, Pack, SheetStock, StockItem, Value
from wobble.core.make.cutting.tables import ListError, rows_of

COLUMNS = ("id", "sold_as", "name", "material", "thick_mm", "measured_mm", "long_mm", "wide_mm", "at_hand", "price")
MORE = ("of", "size_mm", "holds", "kind", "litres", "m2_per_litre", "dries_h", "grain")
KINDS: dict[str, type[SheetStock] | type[LengthStock] | type[Pack] | type[Finish]] = {
    "sheet": SheetStock,
    "length": LengthStock,
    "pack": Pack,
    "tin": Finish,
}


def write_stock(stock: Iterable[StockItem]) -> str:
    """Return a stock list as CSV; defects of boards are not in it."""
    out = io.StringIO()
    writer = csv.DictWriter(out, fieldnames=(*COLUMNS, *MORE), extrasaction="ignore", lineterminator="\r\n")
    writer.writeheader()
    for item in stock:
        plain = msgspec.to_builtins(item)
        writer.writerow({k: "" if v is None else v for k, v in plain.items()})
    return out.getvalue()


def read_stock(text: str) -> tuple[StockItem, ...]:
    """Return the stock of a table.

    Raises:
        ListError: A cell cannot be read; with its line, its column and the mend.
    """
    found: list[StockItem] = []
    taken: set[str] = set()
    for line, row in rows_of(text, ("sold_as", "name"), "the stock list"):
        kind = KINDS.get(row["sold_as"].lower())
        if kind is None:
            raise ListError(
                f"the stock list, line {line}, column sold_as: “{row['sold_as']}” is not known.",
                mend=f"Write one of {', '.join(KINDS)}.",
            )
        item = _item(kind, row, line)
        if item.id in taken:
            free = next(n for n in itertools.count(2) if f"{item.id[:70]}-{n}" not in taken)
            item = msgspec.structs.replace(item, id=f"{item.id[:70]}-{free}")
        taken.add(item.id)
        found.append(item)
    return tuple(found)


def _item(
    kind: type[SheetStock] | type[LengthStock] | type[Pack] | type[Finish], row: dict[str, str], line: int
) -> StockItem:
    names = {f.encode_name for f in msgspec.structs.fields(kind)}
    given = {k: v for k, v in row.items() if k in names and v != ""}
    given.setdefault("id", _key(row["name"]) or f"line-{line}")
    if "grain" in given:
        given["grain"] = "true" if given["grain"].lower() in ("true", "yes", "1", "length") else "false"
    try:
        return msgspec.convert({**given, "sold_as": row["sold_as"].lower()}, kind, strict=False)
    except msgspec.ValidationError as fault:
        column = re.search(r"`\$\.(\w+)`", str(fault))
        where = f", column {column[1]}" if column else ""
        what = str(fault).split(" - at ", maxsplit=1)[0]
        raise ListError(
            f"the stock list, line {line}{where}: {what}.", mend="Lengths in mm, a point in decimals."
        ) from None


def _key(name: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:70]


class Prices(Value, frozen=True, kw_only=True):
    """Prices read from a shop's list: those of the stock list, and the lines that name nothing there."""

    offers: tuple[Offer, ...]
    unknown: tuple[str, ...]


def read_prices(text: str, stock: Iterable[StockItem]) -> Prices:
    """Return the prices of a table with columns item (an id or a name of the stock list) and price.

    Raises:
        ListError: A cell cannot be read; with its line, its column and the mend.
    """
    by_name = {n: s.id for s in stock for n in (s.id.casefold(), s.name.casefold())}
    offers: dict[str, Offer] = {}
    unknown: list[str] = []
    for line, row in rows_of(text, ("item", "price"), "the price list"):
        try:
            price = float(row["price"])
        except ValueError:
            price = -1.0
        if not 0 <= price <= 1_000_000:
            raise ListError(
                f"the price list, line {line}, column price: “{row['price']}” is no price.",
                mend="Write digits with a point, without a currency.",
            )
        item = by_name.get(row["item"].casefold())
        if item is None:
            unknown.append(row["item"])
        else:
            offers[item] = Offer(item=item, price=price)
    return Prices(offers=tuple(offers.values()), unknown=tuple(unknown))
