"""The one place that turns rows into core values and back.

Values are compared and stored whole; rows that differ only in their list are handled by the same few lines.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Any, cast
from uuid import UUID

import msgspec
from django.db import models as db

from wobble.core import job as core
from wobble.site import models

_VALUE_FIELDS: dict[type[core.Value], tuple[str, ...]] = {
    kind: tuple(name for name in kind.__struct_fields__ if name != "id")
    for kind in (core.Instrument, core.SetUp, core.Unit, core.Mark, core.Note, core.ShimPiece, core.Taper)
}
BAY_OWN_FIELDS = (
    "name",
    "kind",
    "frame",
    "character",
    "width_mm",
    "depth_mm",
    "height_mm",
    "surfaces",
    "knee",
    "right_is_back_of",
    "datum",
    "back_line",
    "closing",
    "alternatives",
    "backing",
    "overhead",
    "underfoot",
    "detections",
)
_KIT_FIELDS = ("tolerance_mm", "max_stack_mm", "least_overlap_mm")
_ABOUT_FIELDS = ("name", "place", "note", "units")
_JOB_FIELDS = (*_ABOUT_FIELDS, "way_in")


def job_value(row: models.Job) -> core.Job:
    """Return a job's rows as the core's value."""
    kit = row.kit
    return msgspec.convert(
        {name: getattr(row, name) for name in _JOB_FIELDS}
        | {
            "instruments": _items(row.instruments.all(), core.Instrument),
            "kit": {name: getattr(kit, name) for name in _KIT_FIELDS}
            | {
                "pieces": _items(kit.pieces.all(), core.ShimPiece),
                "tapers": _items(kit.tapers.all(), core.Taper),
            },
            "bays": [_bay(bay) for bay in row.bays.prefetch_related("set_ups", "units", "marks", "notes", "readings")],
        },
        core.Job,
    )


def seen_job(row: models.Job) -> core.Job:
    """Return a job's rows as a value, remembered by its revision: only for who reads, outside any change."""
    return _seen(row.pk, row.revision)


@lru_cache(maxsize=16)
def _seen(pk: UUID, _revision: int) -> core.Job:
    return job_value(models.Job.objects.select_related("kit").get(pk=pk))


def _bay(row: models.Bay) -> dict[str, Any]:
    return {name: getattr(row, name) for name in BAY_OWN_FIELDS} | {
        "id": row.key,
        "set_ups": _items(row.set_ups.all(), core.SetUp),
        "units": _items(row.units.all(), core.Unit),
        "marks": _items(row.marks.all(), core.Mark),
        "notes": _items(row.notes.all(), core.Note),
        "readings": [reading.fact | {"aside": reading.aside} for reading in row.readings.all()],
    }


def _items(rows: db.QuerySet[Any], kind: type[core.Value]) -> list[dict[str, Any]]:
    """Return rows of one list as the plain form of their core values."""
    return [
        {name: getattr(row, name) for name in _VALUE_FIELDS[kind]} | ({"id": row.key} if hasattr(row, "key") else {})
        for row in rows
    ]


def store_job(owner: Any, value: core.Job) -> models.Job:
    """Write a whole job as new rows of a user, and return its first row."""
    plain = msgspec.to_builtins(value)
    row = models.Job.objects.create(owner=owner, **{name: plain[name] for name in _JOB_FIELDS})
    store_instruments(row, value.instruments)
    store_kit(row, value.kit)
    for place, bay in enumerate(value.bays):
        store_bay(row, bay, place)
    return row


def store_about(row: models.Job, *, name: str, place: str, note: str, units: str) -> None:
    """Write what a job is called and how its lengths are shown."""
    row.name, row.place, row.note, row.units = name, place, note, units
    row.save(update_fields=_ABOUT_FIELDS)


def store_way_in(row: models.Job, values: tuple[core.Passage, ...]) -> None:
    """Write what everything must pass on its way to the place."""
    row.way_in = msgspec.to_builtins(values)
    row.save(update_fields=("way_in",))


def store_instruments(row: models.Job, values: tuple[core.Instrument, ...]) -> None:
    """Write a job's instruments in place of those it had."""
    _replace_list(row.instruments, values)


def store_kit(row: models.Job, value: core.ShimKit) -> None:
    """Write a job's shim kit in place of the one it had."""
    own = {name: getattr(value, name) for name in _KIT_FIELDS}
    kit, _ = models.ShimKit.objects.update_or_create(job=row, defaults=own)
    _replace_list(kit.pieces, value.pieces)
    _replace_list(kit.tapers, value.tapers)


def store_bay(job: models.Job, value: core.Bay, place: int) -> models.Bay:
    """Write a bay with all that is in it as new rows."""
    row = models.Bay.objects.create(job=job, key=value.id, place=place, **_bay_fields(value))
    store_bay_lists(row, value)
    models.Reading.objects.bulk_create(reading_row(row, reading) for reading in value.readings)
    return row


def update_bay(row: models.Bay, value: core.Bay) -> None:
    """Write a bay's own fields, set-ups and units over its rows; its readings stay."""
    for name, field in _bay_fields(value).items():
        setattr(row, name, field)
    row.save()
    store_bay_lists(row, value)


def store_bay_lists(row: models.Bay, value: core.Bay) -> None:
    """Write a bay's set-ups and units in place of those it had."""
    _replace_list(row.set_ups, value.set_ups)
    _replace_list(row.units, value.units)
    _replace_list(row.marks, value.marks)
    _replace_list(row.notes, value.notes)


def reading_row(bay: models.Bay, value: core.Reading) -> models.Reading:
    """Return a reading as a row that is not stored yet."""
    fact = cast("dict[str, Any]", msgspec.to_builtins(value))
    aside = fact.pop("aside")
    return models.Reading(bay=bay, key=value.id, fact=fact, aside=aside)


def _bay_fields(value: core.Bay) -> dict[str, Any]:
    plain = msgspec.to_builtins(value)
    return {name: plain[name] for name in BAY_OWN_FIELDS}


def _replace_list(manager: Any, values: tuple[core.Value, ...]) -> None:
    """Write a list anew; nothing else points at its rows."""
    manager.all().delete()
    kind = manager.model
    owner = manager.field.name
    rows = []
    for place, value in enumerate(values):
        plain = msgspec.to_builtins(value)
        own = {name: plain[name] for name in _VALUE_FIELDS[type(value)]}
        key = {"key": plain["id"]} if "id" in plain else {}
        rows.append(kind(place=place, **own, **key, **{owner: manager.instance}))
    kind.objects.bulk_create(rows)
