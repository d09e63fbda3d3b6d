"""A table of parts or of stock as CSV: what is read, and how what cannot be read is told by line and column."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from typing import Literal

from wobble.core.errors import WobbleError
from wobble.core.value import Value

PART_COLUMNS = ("name", "quantity", "length_mm", "width_mm", "thickness_mm", "material", "grain")
STOCK_COLUMNS = ("name", "material", "thickness_mm", "length_mm", "width_mm", "quantity", "price")
MAY_LACK = {"grain", "quantity", "price", "width_mm", "material", "thickness_mm"}
"""Columns that a table may do without: one of each part, stock without end and at hand, of one material."""
MOST_ROWS = 2_000
MOST_PARTS = 5_000
MOST_MM = 100_000.0


class ListError(WobbleError):
    """A table of parts or of stock cannot be read."""

    code = "list"


class Wanted(Value, frozen=True, kw_only=True):
    """Parts that are wanted: `quantity` alike. Grain along the length may not be turned; a part without may."""

    name: str
    quantity: int = 1
    length_mm: float
    width_mm: float
    thickness_mm: float = 0.0
    material: str = ""
    grain: Literal["length", ""] = ""


class Offered(Value, frozen=True, kw_only=True):
    """Stock to cut from: a sheet, or a length where it has no width. Without a quantity there is no end of it.

    Stock without a price is taken to be at hand, and is used before any that must be paid.
    """

    name: str
    material: str = ""
    thickness_mm: float = 0.0
    length_mm: float
    width_mm: float | None = None
    quantity: int | None = None
    price: float = 0.0


def read_wanted(text: str, name: str = "the list") -> tuple[Wanted, ...]:
    """Return the parts of a table.

    Raises:
        ListError: A column is missing or a cell cannot be read; with the line, the column and the mend.
    """
    wanted = []
    for line, row in rows_of(text, PART_COLUMNS, name):
        grain = row.get("grain", "").lower()
        if grain not in ("", "length"):
            raise _fault(
                name,
                line,
                "grain",
                f"“{row['grain']}” is neither “length” nor empty",
                "Write length, or leave it empty where it may be turned.",
            )
        wanted.append(
            Wanted(
                name=row["name"] or f"part of line {line}",
                quantity=_whole(row, "quantity", name, line, least=1.0) or 1,
                length_mm=_size(row, "length_mm", name, line),
                width_mm=_size(row, "width_mm", name, line, empty=0.0),
                thickness_mm=_size(row, "thickness_mm", name, line, empty=0.0),
                material=row.get("material", ""),
                grain="length" if grain else "",
            )
        )
    if sum(w.quantity for w in wanted) > MOST_PARTS:
        raise ListError(f"{name}: more than {MOST_PARTS} parts.", mend="Lay out a part of the list at a time.")
    return tuple(wanted)


def read_offered(text: str, name: str = "the stock") -> tuple[Offered, ...]:
    """Return the stock of a table.

    Raises:
        ListError: A column is missing or a cell cannot be read; with the line, the column and the mend.
    """
    return tuple(
        Offered(
            name=row["name"] or f"stock of line {line}",
            material=row.get("material", ""),
            thickness_mm=_size(row, "thickness_mm", name, line, empty=0.0),
            length_mm=_size(row, "length_mm", name, line),
            width_mm=_size(row, "width_mm", name, line, empty=0.0) or None,
            quantity=_whole(row, "quantity", name, line, least=0.0),
            price=_number(row, "price", name, line, least=0.0) or 0.0,
        )
        for line, row in rows_of(text, STOCK_COLUMNS, name)
    )


def rows_of(text: str, columns: Sequence[str], name: str) -> list[tuple[int, dict[str, str]]]:
    """Return the rows of a table by their columns, each with its line; commas or semicolons, with or without a mark.

    Raises:
        ListError: A column is missing, or a row has more cells than there are columns.
    """
    text = text.removeprefix("\ufeff")
    head = text.split("\n", 1)[0]
    reader = csv.reader(io.StringIO(text), delimiter=";" if head.count(";") > head.count(",") else ",")
    rows: list[tuple[int, dict[str, str]]] = []
    names: list[str] | None = None
    try:
        for cells in reader:
            line = reader.line_num
            if not any(cell.strip() for cell in cells):
                continue
            if names is None:
                names = [cell.strip().lower() for cell in cells]
                lacking = [c for c in columns if c not in names and c not in MAY_LACK]
                if lacking:
                    raise ListError(
                        f"{name}, line {line}: there is no column {', '.join(lacking)}.",
                        mend=f"The first line names the columns: {','.join(columns)}.",
                    )
                continue
            if len(cells) > len(names):
                raise ListError(
                    f"{name}, line {line}: {len(cells)} cells under {len(names)} columns.",
                    mend="Put a cell that holds a comma into quotation marks.",
                )
            rows.append((line, {n: c.strip() for n, c in zip(names, [*cells, *[""] * len(names)], strict=False)}))
    except csv.Error as fault:
        raise ListError(f"{name}, line {reader.line_num}: {fault}.", mend="Save it as plain CSV, UTF-8.") from fault
    if names is None:
        raise ListError(f"{name} is empty.", mend=f"The first line names the columns: {','.join(columns)}.")
    if len(rows) > MOST_ROWS:
        raise ListError(f"{name}: {len(rows)} rows; the most is {MOST_ROWS}.", mend="Lay out a part of it at a time.")
    return rows


def _fault(name: str, line: int, column: str, what: str, mend: str) -> ListError:
    return ListError(f"{name}, line {line}, column {column}: {what}.", mend=mend)


def _number(row: dict[str, str], column: str, name: str, line: int, *, least: float) -> float | None:
    text = row.get(column, "")
    if not text:
        return None
    try:
        value = float(text)
    except ValueError:
        raise _fault(
            name, line, column, f"“{text}” is no number", "Write digits with a point, without a unit."
        ) from None
    if not least <= value <= MOST_MM:  # not a number fails this too
        raise _fault(
            name,
            line,
            column,
            f"{text} is not between {least:g} and {MOST_MM:g}",
            "Is it in another unit, or a digit short?",
        )
    return value


def _size(row: dict[str, str], column: str, name: str, line: int, *, empty: float | None = None) -> float:
    value = _number(row, column, name, line, least=0.0 if empty is not None else 0.1)
    if value is None:
        if empty is None:
            raise _fault(name, line, column, "there is nothing", "Give a length in millimetres.")
        return empty
    return value


def _whole(row: dict[str, str], column: str, name: str, line: int, *, least: float) -> int | None:
    value = _number(row, column, name, line, least=least)
    if value is None:
        return None
    if value != int(value):
        raise _fault(name, line, column, f"{row[column]} is no whole number", "Write how many there are.")
    return int(value)
