"""Gauge: take readings, set them aside, and see what they say of the place."""

from __future__ import annotations

from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.gauge.place import Place
from wobble.core.solve import solve_gauge
from wobble.site import edits, rows
from wobble.site.api.wire import answer, body, describe

router = Router(tags=["gauge"])


class Readings(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Readings to store; each has an id made by whoever took it."""

    readings: tuple[core.Reading, ...]


class Kept(msgspec.Struct, frozen=True, kw_only=True):
    """What became of the readings that were sent."""

    revision: int
    stored: tuple[str, ...]
    known: tuple[str, ...]


class Revision(msgspec.Struct, frozen=True, kw_only=True):
    """The job's revision after a change."""

    revision: int


@router.get("/{uuid:job_id}/bays/{bay_id}/gauge", openapi_extra=describe(gives=Place), operation_id="get_gauge")
def get_gauge(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Say what the readings tell of a bay."""
    return answer(solve_gauge(rows.job_value(edits.find_job(request.user, job_id)), bay_id))


@router.post(
    "/{uuid:job_id}/bays/{bay_id}/readings",
    openapi_extra=describe(takes=Readings, gives=Kept),
    operation_id="add_readings",
)
def add_readings(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Store readings. Sending the same ones twice stores them once."""
    job, stored, known = edits.add_readings(request.user, job_id, bay_id, body(request, Readings).readings)
    return answer(Kept(revision=job.revision, stored=tuple(stored), known=tuple(known)))


@router.put(
    "/{uuid:job_id}/bays/{bay_id}/readings/{reading_id}/aside",
    openapi_extra=describe(takes=core.Aside, gives=Revision),
    operation_id="set_aside",
)
def set_aside(request: HttpRequest, job_id: UUID, bay_id: str, reading_id: str) -> HttpResponse:
    """Set a reading aside, with the reason."""
    job = edits.set_aside(request.user, job_id, bay_id, reading_id, body(request, core.Aside))
    return answer(Revision(revision=job.revision))


@router.delete(
    "/{uuid:job_id}/bays/{bay_id}/readings/{reading_id}/aside",
    openapi_extra=describe(gives=Revision),
    operation_id="put_back",
)
def put_back(request: HttpRequest, job_id: UUID, bay_id: str, reading_id: str) -> HttpResponse:
    """Put a reading back in use."""
    return answer(Revision(revision=edits.set_aside(request.user, job_id, bay_id, reading_id, None).revision))
