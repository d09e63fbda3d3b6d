"""Changes made from what a form was drawn from, brought onto what is stored now: three values in, one out.

A form sends what it was drawn from and what it should be. What it did not touch stays as it is stored; what two touched
differently is told as clashes, and nothing is written before somebody has chosen.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Literal, NamedTuple, TypeVar

import msgspec

from wobble.core.errors import DocumentError, WobbleError

T = TypeVar("T")
Plain = Any
NOTHING = object()
"""What stands where one of the three values has no such key."""
NAMED_BY = ("id", "name")
TAGS = frozenset({"rule", "way", "fact", "on", "fill", "body"})
"""Fields that say which kind of value this is: values of two kinds are not mixed."""
MOST_TOLD = 40


class Side(msgspec.Struct, frozen=True, kw_only=True):
    """One thing that two changed differently: its path, and both values; None where one side took it away."""

    path: str
    yours: Any
    theirs: Any


class Settle(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Which side holds where both changed a thing, chosen by somebody who saw the job at a revision."""

    side: Literal["yours", "theirs"]
    revision: Annotated[int, msgspec.Meta(ge=0, le=2**53)]


class Clash(WobbleError):
    """Two changed the same thing differently.

    Attributes:
        revision: The job's revision now. sides: Both values of each thing.
    """

    code = "clash"

    def __init__(self, revision: int, sides: Sequence[Side]) -> None:
        super().__init__(
            "This was changed elsewhere since you opened it.", mend="Look at both, and choose which holds."
        )
        self.revision = revision
        self.sides = tuple(sides[:MOST_TOLD])


def rebased(kind: type[T], *, was: Any, now: Any, stored: Any, revision: int, settle: Settle | None) -> T:
    """Return what is to be stored: `now`'s changes from `was`, made to `stored`.

    Raises:
        Clash: Both changed a thing differently, and nobody who has seen this revision has chosen.
    """
    three = Three(*(_plain(value) for value in (was, now, stored)))
    merging = _Merging(settle.side if settle is not None and settle.revision == revision else None, [])
    merged = merging.value(three, "$")
    if merging.sides and merging.chosen is None:
        raise Clash(revision, merging.sides)
    try:
        return msgspec.convert(merged, kind)
    except msgspec.ValidationError as fault:  # each change is sound, but not both
        if merging.chosen is None:
            raise Clash(revision, [Side(path="$", yours=three.now, theirs=three.stored)]) from fault
        raise DocumentError(
            f"The two changes do not go together: {fault}", mend="Open it again and make your change once more."
        ) from fault


def _plain(value: Any) -> Plain:
    """Return a value as JSON has it: lists are lists, whatever made them."""
    return msgspec.json.decode(msgspec.json.encode(value))


class Three(NamedTuple):
    """A value as the form was drawn from it, as the form has it, and as it is stored."""

    was: Plain
    now: Plain
    stored: Plain


@dataclass(frozen=True)
class _Merging:
    chosen: Literal["yours", "theirs"] | None
    sides: list[Side]

    def value(self, three: Three, path: str) -> Plain:
        if three.now == three.stored or three.now == three.was:
            return three.stored
        if three.stored == three.was:
            return three.now
        if all(isinstance(v, dict) for v in three) and not _other_kind(three):
            found = {key: self._at(three, key, f"{path}.{key}") for key in {**three.stored, **three.now}}
            return {key: value for key, value in found.items() if value is not NOTHING}
        if all(isinstance(v, list) for v in three):
            name = next((n for n in NAMED_BY if all(_named(v, n) for v in three)), None)
            if name is not None:
                return self._items(three, name, path)
        if self.chosen is None:
            yours, theirs = (None if v is NOTHING else v for v in (three.now, three.stored))
            self.sides.append(Side(path=path, yours=yours, theirs=theirs))
        return three.now if self.chosen == "yours" else three.stored

    def _at(self, three: Three, key: str, path: str) -> Plain:
        return self.value(Three(*(v.get(key, NOTHING) for v in three)), path)

    def _items(self, three: Three, name: str, path: str) -> list[Plain]:
        by = Three(*({item[name]: item for item in items} for items in three))
        merged = {key: self._at(by, key, f"{path}[{key}]") for key in {**by.stored, **by.now}}
        return [merged[key] for key in _order(*(list(v) for v in by)) if merged[key] is not NOTHING]


def _other_kind(three: Three) -> bool:
    return any(len({str(v.get(tag)) for v in three}) > 1 for tag in TAGS)


def _named(items: list[Plain], name: str) -> bool:
    names = [item.get(name) for item in items if isinstance(item, dict)]
    return len(names) == len(items) == len(set(map(str, names))) and None not in names


def _order(was: list[str], now: list[str], stored: list[str]) -> list[str]:
    """Return all names: in the order of whoever moved some, with the other's new ones after what they stood after."""
    moved = [k for k in now if k in was] != [k for k in was if k in now]
    first, second = (now, stored) if moved else (stored, now)
    order = list(first)
    for i, key in enumerate(second):
        if key not in order:
            before = next((k for k in reversed(second[:i]) if k in order), None)
            order.insert(order.index(before) + 1 if before is not None else 0, key)
    return order
