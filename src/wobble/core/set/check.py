"""A check, and what it came to: what is read as right lies between two figures, which the plan says."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from msgspec.structs import replace

from wobble.core.facts import AsSet, Stands
from wobble.core.job import Value

SAME_MM = 1e-9
"""What is typed as the limit itself is within it."""
CheckKind = Literal[
    "square",
    "level-along",
    "level-out",
    "height",
    "plumb-side",
    "plumb-front",
    "beside-left-foot",
    "beside-left-head",
    "beside-right-foot",
    "beside-right-head",
    "step-left",
    "step-right",
    "flush",
    "bites",
    "proud",
    "first-fit",
    "gap-to-wall",
    "slides",
    "reveal",
    "load",
]


class Reading(Value, frozen=True, kw_only=True):
    """What a check came to: the fact, its length or whether it came right, by how much it is off, and whether out."""

    fact: str
    value_mm: float | None
    off_mm: float | None
    out: bool


class Check(Value, frozen=True, kw_only=True):
    """One check.

    Attributes:
        key: Its own. kind: What sort. name: What is checked, in words. how: How it is read, and which way counts.
        place: Where. of: Which unit. at: Where on the back it is drawn, mm along and up over the base.
        over_mm: The length that it is read over. expected_mm: What it should be; None where it is yes or no.
        tolerance_mm: How far it may be off. only: Which way it may be out: more alone, or both.
        least_mm: What is read as right is no less, and `most_mm` no more; None for no limit.
        step: After which step it is checked. why: What comes of it. readings: What it came to, oldest first.
        state: Open, right, or out. stands: Where its unit was to stand, to be kept with a reading.
    """

    key: str
    kind: CheckKind
    name: str
    how: str
    place: str
    of: str
    at: tuple[float, float]
    over_mm: float = 0.0
    expected_mm: float | None = None
    tolerance_mm: float = 0.0
    only: Literal["more", "both"] = "both"
    least_mm: float | None = None
    most_mm: float | None = None
    step: str
    why: str
    readings: tuple[Reading, ...] = ()
    state: Literal["open", "right", "out"] = "open"
    stands: Stands | None = None


def with_readings(check: Check, by_check: Mapping[str, Sequence[AsSet]]) -> Check:
    """Return a check with what it came to, and its state by the newest of that."""
    facts = sorted(by_check.get(check.key, ()), key=lambda f: f.taken_at)
    if not facts:
        return check
    told = tuple(_read(check, f) for f in facts)
    return replace(check, readings=told, state="out" if told[-1].out else "right")


def _read(check: Check, fact: AsSet) -> Reading:
    if fact.came is not None:
        return Reading(fact=fact.id, value_mm=None, off_mm=None, out=fact.came == "wrong")
    value = fact.value_mm or 0.0
    expected = check.expected_mm if check.expected_mm is not None else fact.expected_mm or 0.0
    low = check.least_mm is not None and value < check.least_mm - SAME_MM
    high = check.most_mm is not None and value > check.most_mm + SAME_MM
    return Reading(fact=fact.id, value_mm=value, off_mm=value - expected, out=low or high)
