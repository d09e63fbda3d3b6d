"""Gauge: take readings, set them aside, and see what they say of the place."""

from __future__ import annotations

from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.errors import DocumentError
from wobble.core.formats.scan import read_points, thin
from wobble.core.gauge.place import Place
from wobble.core.gauge.traits import Trait
from wobble.core.solve import find_bay, solve_gauge, solve_traits
from wobble.site import edits, rows
from wobble.site.api.wire import answer, body, describe

router = Router(tags=["gauge"])


class Readings(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Readings to store; each has an id made by whoever took it."""

    readings: tuple[core.Reading, ...]


class ThinnedScan(msgspec.Struct, frozen=True, kw_only=True):
    """A file of points thinned to one surface: (first axis, second axis, distance), mm."""

    points: tuple[tuple[float, float, float], ...]
    n_read: int
    n_outside: int


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
    return answer(solve_gauge(rows.seen_job(edits.find_job(request.user, job_id)), bay_id))


@router.get(
    "/{uuid:job_id}/bays/{bay_id}/traits",
    openapi_extra=describe(gives=tuple[Trait, ...]),
    operation_id="get_traits",
)
def get_traits(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Say what a bay is like: how it falls, leans, bows and wobbles, its corners and openings."""
    return answer(solve_traits(rows.seen_job(edits.find_job(request.user, job_id)), bay_id))


@router.post(
    "/{uuid:job_id}/bays/{bay_id}/scan",
    openapi_extra=describe(gives=ThinnedScan),
    operation_id="thin_scan",
)
def thin_scan(
    request: HttpRequest, job_id: UUID, bay_id: str, surface: str, name: str, mm: float = 1.0
) -> HttpResponse:
    """Thin a file of points (CSV, XYZ or PLY, as the body) to what a surface needs; nothing is stored."""
    bay = find_bay(rows.seen_job(edits.find_job(request.user, job_id)), bay_id)
    named = msgspec.convert(surface, core.SurfaceName) if surface in core.SURFACE_AXES else None
    if named is None:
        raise DocumentError(f"There is no surface “{surface}”.", mend="Choose one of the bay's.", path="surface")
    found = thin(read_points(request.body, name, mm), bay, named)
    return answer(ThinnedScan(points=found.points, n_read=found.n_read, n_outside=found.n_outside))


@router.post(
    "/{uuid:job_id}/bays/{bay_id}/readings",
    openapi_extra=describe(takes=Readings, gives=Kept),
    operation_id="add_readings",
)
def add_readings(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Store readings. Sending the same ones twice stores them once."""
    job, stored, known = edits.add_readings(request.user, job_id, bay_id, body(request, Readings).readings)
    return answer(Kept(revision=job.revision, stored=tuple(stored), known=tuple(known)))


@router.post(
    "/{uuid:job_id}/bays/{bay_id}/finds",
    openapi_extra=describe(takes=edits.Finds, gives=Revision),
    operation_id="add_finds",
)
def add_finds(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Store notes and marks from site. Sending the same ones twice stores them once."""
    job = edits.add_finds(request.user, job_id, bay_id, body(request, edits.Finds))
    return answer(Revision(revision=job.revision))


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
