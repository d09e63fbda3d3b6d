"""Gauge: store what was found out, set it aside, and see what the readings say of the place."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.errors import DocumentError
from wobble.core.facts import Fact
from wobble.core.formats.scan import read_points, thin
from wobble.core.gauge.surveyed import Surveyed
from wobble.core.gauge.traits import Trait
from wobble.core.stages import find_place
from wobble.site import edits, rows
from wobble.site.answers import answered
from wobble.site.api.wire import answer, body, describe

router = Router(tags=["gauge"])


class Facts(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What was found out, to store; each fact has an id made by whoever found it."""

    facts: Annotated[tuple[Fact, ...], msgspec.Meta(min_length=1, max_length=2000)]


class ThinnedScan(msgspec.Struct, frozen=True, kw_only=True):
    """A file of points thinned to one surface: (first axis, second axis, distance), mm."""

    points: tuple[tuple[float, float, float], ...]
    n_read: int
    n_outside: int


class Kept(msgspec.Struct, frozen=True, kw_only=True):
    """What became of the facts that were sent."""

    revision: int
    stored: tuple[str, ...]
    known: tuple[str, ...]


class Revision(msgspec.Struct, frozen=True, kw_only=True):
    """The job's revision after a change."""

    revision: int


@router.get("/{uuid:job_id}/places/{place_id}/gauge", openapi_extra=describe(gives=Surveyed), operation_id="get_gauge")
def get_gauge(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what the readings tell of a place."""
    return answered(request, job_id, place_id, "gauge")


@router.get(
    "/{uuid:job_id}/places/{place_id}/traits",
    openapi_extra=describe(gives=tuple[Trait, ...]),
    operation_id="get_traits",
)
def get_traits(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what a place is like: how it falls, leans, bows and wobbles, its corners and openings."""
    return answered(request, job_id, place_id, "traits")


@router.post(
    "/{uuid:job_id}/places/{place_id}/scan",
    openapi_extra=describe(gives=ThinnedScan),
    operation_id="thin_scan",
)
def thin_scan(
    request: HttpRequest, job_id: UUID, place_id: str, surface: str, name: str, mm: float = 1.0
) -> HttpResponse:
    """Thin a file of points (CSV, XYZ or PLY, as the body) to what a surface needs; nothing is stored."""
    place = find_place(rows.seen_job(edits.find_job(request.user, job_id)), place_id)
    named = msgspec.convert(surface, core.SurfaceName) if surface in core.SURFACE_AXES else None
    if named is None:
        raise DocumentError(f"There is no surface “{surface}”.", mend="Choose one of the place's.", path="surface")
    found = thin(read_points(request.body, name, mm), place, named)
    return answer(ThinnedScan(points=found.points, n_read=found.n_read, n_outside=found.n_outside))


@router.post(
    "/{uuid:job_id}/places/{place_id}/facts",
    openapi_extra=describe(takes=Facts, gives=Kept),
    operation_id="add_facts",
)
def add_facts(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Store readings, detections, notes, obstacles: whatever was found out. Sending the same twice stores it once."""
    job, stored, known = edits.add_facts(request.user, job_id, place_id, body(request, Facts).facts)
    return answer(Kept(revision=job.revision, stored=tuple(stored), known=tuple(known)))


@router.put(
    "/{uuid:job_id}/places/{place_id}/facts/{fact_id}/aside",
    openapi_extra=describe(takes=core.Aside, gives=Revision),
    operation_id="set_aside",
)
def set_aside(request: HttpRequest, job_id: UUID, place_id: str, fact_id: str) -> HttpResponse:
    """Set a fact aside, with the reason."""
    job = edits.set_aside(request.user, job_id, place_id, fact_id, body(request, core.Aside))
    return answer(Revision(revision=job.revision))


@router.delete(
    "/{uuid:job_id}/places/{place_id}/facts/{fact_id}/aside",
    openapi_extra=describe(gives=Revision),
    operation_id="put_back",
)
def put_back(request: HttpRequest, job_id: UUID, place_id: str, fact_id: str) -> HttpResponse:
    """Put a fact back in use."""
    return answer(Revision(revision=edits.set_aside(request.user, job_id, place_id, fact_id, None).revision))
