"""The job as it went: what was done, read, found otherwise, noted and photographed, in the order of time."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import UTC
from typing import Literal

from wobble.core.facts import (
    AsSet,
    Bought,
    CutDone,
    Fact,
    Followed,
    Known,
    Note,
    Obstacle,
    Otherwise,
    Photo,
    StepDone,
    active,
)
from wobble.core.job import Job, Place, Value
from wobble.core.length import spoken

EntryKind = Literal["step", "check", "note", "photo", "otherwise", "followed", "cut", "known", "bought"]


class Entry(Value, frozen=True, kw_only=True):
    """One line of the record: when (UTC, ISO 8601), by whom, where, what sort, in words; the photo it stands for."""

    at: str
    by: str
    place: str
    kind: EntryKind
    text: str
    about: str = ""
    note: Literal["", "seen", "went wrong", "agreed", "open"] = ""
    minutes: float = 0.0
    photo: str = ""
    moment: Literal["", "before", "during", "after"] = ""
    out: bool = False


class Pair(Value, frozen=True, kw_only=True):
    """Two pictures of one thing, before and after."""

    about: str
    name: str
    before: str
    after: str


class Hours(Value, frozen=True, kw_only=True):
    """What somebody worked as the clock told it, minutes, on how many steps."""

    by: str
    minutes: float
    steps: int


class Record(Value, frozen=True, kw_only=True):
    """A job as it went.

    Attributes:
        job: Its name. entries: All, the oldest first. hours: By whom. wrong: What went wrong and why. agreed: What was
            agreed. left: What is open for the next job. pairs: Before and after. photos: How many there are.
    """

    job: str
    entries: tuple[Entry, ...]
    hours: tuple[Hours, ...]
    wrong: tuple[Entry, ...]
    agreed: tuple[Entry, ...]
    left: tuple[Entry, ...]
    pairs: tuple[Pair, ...]
    photos: int


def record(job: Job, names: Mapping[str, str]) -> Record:
    """Return a job as it went.

    Args:
        job: Which.
        names: What checks and steps are called, by their keys.
    """
    entries = sorted((e for place in job.places for e in _of_place(job, place, names)), key=lambda e: e.at)
    by: dict[str, list[Entry]] = {}
    for e in entries:
        if e.kind == "step":
            by.setdefault(e.by, []).append(e)
    return Record(
        job=job.name,
        entries=tuple(entries),
        hours=tuple(Hours(by=who, minutes=sum(e.minutes for e in own), steps=len(own)) for who, own in by.items()),
        wrong=tuple(e for e in entries if e.note == "went wrong"),
        agreed=tuple(e for e in entries if e.note == "agreed"),
        left=tuple(e for e in entries if e.note == "open"),
        pairs=tuple(_pairs(entries, names)),
        photos=sum(e.kind == "photo" for e in entries),
    )


def _of_place(job: Job, place: Place, names: Mapping[str, str]) -> Iterator[Entry]:
    stock = {s.id: s.name for s in job.workshop.stock}
    shops = {s.id: s.name for s in job.workshop.shops}
    things = {f.id: f.name for f in place.facts if isinstance(f, Obstacle)} | {
        r.id: f"a reading in {place.name}" for r in place.readings
    }
    units = {u.id: u.name for u in place.units}

    def entry(fact: Fact, kind: EntryKind, text: str, **more: object) -> Entry:
        at = fact.taken_at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
        return Entry(at=at, by=fact.taken_by, place=place.name, kind=kind, text=text, **more)  # type: ignore[arg-type]

    for fact in active(place.facts):
        match fact:
            case StepDone():
                name = fact.name or names.get(fact.step, fact.step)
                yield entry(fact, "step", name, about=fact.step, minutes=fact.minutes or 0.0)
            case AsSet():
                yield entry(fact, "check", _check_words(job, fact, names), about=fact.check, out=fact.came == "wrong")
            case Note():
                yield entry(fact, "note", fact.text, about=fact.about, note=fact.kind)
            case Photo():
                text = fact.text or names.get(fact.about) or things.get(fact.about) or place.name
                yield entry(fact, "photo", text, about=fact.about, photo=fact.file, moment=fact.moment)
            case Otherwise():
                of = units.get(fact.of, fact.of)
                yield entry(
                    fact, "otherwise", f"{fact.what}{f', {of}' if of else ''}. {fact.text}".strip(), about=fact.of
                )
            case Followed():
                yield entry(fact, "followed", "The plan was made again from what stands")
            case CutDone():
                came = "" if fact.came == "right" else f", came {fact.came}"
                yield entry(fact, "cut", f"{fact.count} × {fact.part} cut{came}", out=fact.came != "right")
            case Known():
                long = f": {spoken(fact.value_mm, job.units)}" if fact.value_mm is not None else ""
                yield entry(fact, "known", f"{fact.what}{long}")
            case Bought():
                where = f" at {shops.get(fact.shop, fact.shop)}" if fact.shop else ""
                yield entry(fact, "bought", f"{fact.count} × {stock.get(fact.item, fact.item)} bought{where}")


def _check_words(job: Job, fact: AsSet, names: Mapping[str, str]) -> str:
    name = names.get(fact.check, fact.check)
    if fact.value_mm is None:
        return f"{name}: {'right' if fact.came == 'right' else 'wrong'}"
    words = f"{name}: {spoken(fact.value_mm, job.units)}"
    if fact.expected_mm:
        words += f", planned {spoken(fact.expected_mm, job.units)}"
    return words


def _pairs(entries: list[Entry], names: Mapping[str, str]) -> Iterator[Pair]:
    """Yield the first picture before and the last one after, of each thing that has both."""
    by: dict[str, list[Entry]] = {}
    for e in entries:
        if e.kind == "photo":
            by.setdefault(e.about, []).append(e)
    for about, own in by.items():
        before = next((e for e in own if e.moment == "before"), None)
        after = next((e for e in reversed(own) if e.moment == "after"), None)
        if before is not None and after is not None:
            yield Pair(about=about, name=names.get(about, before.place), before=before.photo, after=after.photo)
