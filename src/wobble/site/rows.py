"""The one place that turns rows into core values and back."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache
from typing import Any, cast
from uuid import UUID

import msgspec
from django.db.models import QuerySet, TextField
from django.db.models.functions import Cast
from msgspec.json import decode
from msgspec.structs import replace

from wobble.core import job as core
from wobble.core.facts import Fact
from wobble.site import models

_JOB_COLUMNS = ("name", "address")
_ELSEWHERE = {"format", "version", "places", *_JOB_COLUMNS}
_JOB_DECIDED = tuple(name for name in core.Job.__struct_fields__ if name not in _ELSEWHERE)


def job_value(row: models.Job) -> core.Job:
    """Return a job's rows as the core's value."""
    found: dict[int, list[Fact]] = {}
    for place, fact in _facts(_stored_with(row).filter(place__job=row)):
        found.setdefault(place, []).append(fact)
    places = [_with_facts(place, found.get(place.pk, ())) for place in row.places.all()]
    return replace(_bare_job(row), places=tuple(places))


def _stored_with(row: models.Job | models.Place) -> QuerySet[models.Fact]:
    return models.Fact.objects.using(row._state.db)


def _facts(rows: QuerySet[models.Fact]) -> Iterator[tuple[int, Fact]]:
    """Yield facts with their places' keys: each is read once, from the text that is stored."""
    text = rows.values_list("place_id", Cast("fact", TextField()), "aside")
    for place, fact, aside in text:
        yield place, _fact(fact) if aside is None else _aside(fact, aside)


@lru_cache(maxsize=2_000)
def _fact(text: str) -> Fact:
    """Return a fact from its text: a fact never changes, and a job that has one more has all others as before."""
    return cast("Fact", decode(text, type=Fact))


def _aside(fact: str, aside: Any) -> Fact:
    return cast("Fact", msgspec.convert(msgspec.json.decode(fact) | {"aside": aside}, Fact))


def _with_facts(row: models.Place, facts: Sequence[Fact]) -> core.Place:
    return replace(decided_place(row), facts=tuple(facts))


def seen_job(row: models.Job) -> core.Job:
    """Return a job's rows as a value, remembered by its revision: only for who reads, outside any change."""
    return seen(row.pk, row.revision)


@lru_cache(maxsize=16)
def seen(pk: UUID, revision: int) -> core.Job:  # noqa: ARG001 - what it is remembered by
    """Return a job as it is at a revision that was just read."""
    return job_value(models.Job.objects.get(pk=pk))


def place_value(row: models.Place) -> core.Place:
    """Return one place as the core's value."""
    return _with_facts(row, [fact for _, fact in _facts(_stored_with(row).filter(place=row))])


def store_job(owner: Any, value: core.Job) -> models.Job:
    """Write a whole job as new rows of a user, and return its first row."""
    plain = msgspec.to_builtins(value)
    own = {name: plain[name] for name in _JOB_COLUMNS}
    decided = {name: plain[name] for name in _JOB_DECIDED}
    row = models.Job.objects.create(owner=owner, decided=decided, **own)
    for position, place in enumerate(value.places):
        store_place(row, place, position)
    return row


def store_decided(row: models.Job, **changed: Any) -> None:
    """Write some of what is decided for a job, by the names of its fields."""
    plain = msgspec.to_builtins(changed)
    for name in _JOB_COLUMNS:
        if name in plain:
            setattr(row, name, plain.pop(name))
    row.decided = row.decided | plain
    row.save(update_fields=(*_JOB_COLUMNS, "decided"))


def decided_of(row: models.Job | models.Place, names: Iterable[str]) -> dict[str, Any]:
    """Return some of what is decided for a job or a place, in plain form with every default filled in."""
    value = _bare_job(row) if isinstance(row, models.Job) else decided_place(row)
    plain = msgspec.to_builtins(value)
    return {name: plain[name] for name in names}


def _bare_job(row: models.Job) -> core.Job:
    return msgspec.convert(row.decided | {name: getattr(row, name) for name in _JOB_COLUMNS} | {"places": ()}, core.Job)


def decided_place(row: models.Place) -> core.Place:
    """Return a place without its facts."""
    return msgspec.convert({**row.decided, "id": row.key, "facts": ()}, core.Place)


def store_place(job: models.Job, value: core.Place, position: int) -> models.Place:
    """Write a place with all its facts as new rows."""
    row = models.Place.objects.create(job=job, key=value.id, position=position, decided=_decided(value))
    models.Fact.objects.bulk_create(fact_row(row, fact) for fact in value.facts)
    return row


def store_decided_of(row: models.Place, **changed: Any) -> None:
    """Write some of what is decided for a place, by the names of its fields; its facts stay."""
    row.decided = row.decided | msgspec.to_builtins(changed)
    row.save(update_fields=("decided",))


def update_place(row: models.Place, value: core.Place) -> None:
    """Write all that is decided for a place; its facts stay."""
    row.decided = _decided(value)
    row.save(update_fields=("decided",))


def fact_row(place: models.Place, value: Fact) -> models.Fact:
    """Return a fact as a row that is not stored yet."""
    fact = cast("dict[str, Any]", msgspec.to_builtins(value))
    aside = fact.pop("aside")
    return models.Fact(place=place, key=value.id, kind=fact["fact"], fact=fact, aside=aside)


def fact_value(row: models.Fact) -> Fact:
    """Return a fact as the core's value."""
    return cast("Fact", msgspec.convert(row.fact | {"aside": row.aside}, Fact))


def _decided(value: core.Place) -> dict[str, Any]:
    plain = cast("dict[str, Any]", msgspec.to_builtins(value))
    return {name: field for name, field in plain.items() if name not in ("id", "facts")}
