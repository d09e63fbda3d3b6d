"""Jobs: list, make, read, change, import and export."""

from __future__ import annotations

import re
from datetime import datetime
from typing import Annotated
from uuid import UUID

import msgspec
from django.db.models import Count, Q
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.formats.document import read_job, write_job
from wobble.core.length import LengthUnit
from wobble.core.stages import Glance, StageAt
from wobble.site import edits, models, rows
from wobble.site.answers import answered
from wobble.site.api.wire import answer, body, describe
from wobble.site.everything import packed, unpacked

router = Router(tags=["jobs"])


class JobLine(msgspec.Struct, frozen=True, kw_only=True):
    """A job in the list of jobs."""

    id: UUID
    name: str
    address: str
    n_places: int
    n_readings: int
    changed: datetime


class DeletedJob(msgspec.Struct, frozen=True, kw_only=True):
    """A job that was deleted, and until when it can be brought back."""

    id: UUID
    name: str
    deleted: datetime
    until: datetime


class StoredName(msgspec.Struct, frozen=True, kw_only=True):
    """A job that was stored, by its name."""

    id: UUID
    name: str


class StoredJob(msgspec.Struct, frozen=True, kw_only=True):
    """A job as stored: the value, and the revision that edits are made from."""

    id: UUID
    revision: int
    job: core.Job


class About(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What a job is called and how its lengths are shown."""

    name: core.Name
    address: core.Name
    note: core.Text
    units: LengthUnit


class OwnKit(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """The shim kit of a job."""

    kit: core.ShimKit


class OwnWays(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """The ways in which carcasses of a job are built; the first is how they are built that name none."""

    constructions: Annotated[tuple[core.Construction, ...], msgspec.Meta(max_length=20)]


class OwnInstruments(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """The instruments of a job."""

    instruments: Annotated[tuple[core.Instrument, ...], msgspec.Meta(max_length=100)]


class WayIn(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What everything must pass on its way to the place."""

    way_in: Annotated[tuple[core.Passage, ...], msgspec.Meta(max_length=50)]


def stored(row: models.Job) -> HttpResponse:
    """Answer with a job as it is stored now."""
    return answer(StoredJob(id=row.id, revision=row.revision, job=rows.job_value(row)))


@router.get("", openapi_extra=describe(gives=tuple[JobLine, ...]), operation_id="list_jobs")
def list_jobs(request: HttpRequest) -> HttpResponse:
    """List the user's jobs, last changed first."""
    found = (
        models.Job.objects.filter(owner_id=request.user.pk)
        .annotate(
            n_places=Count("places", distinct=True),
            n_readings=Count("places__facts", filter=Q(places__facts__kind__in=edits.READING_TAGS), distinct=True),
        )
        .order_by("-changed")  # said here: a query that groups has no order of its own
    )
    return answer(
        [
            JobLine(
                id=j.id, name=j.name, address=j.address, n_places=j.n_places, n_readings=j.n_readings, changed=j.changed
            )
            for j in found
        ]
    )


@router.post("", openapi_extra=describe(takes=core.Job, gives=StoredJob), operation_id="import_job")
def import_job(request: HttpRequest) -> HttpResponse:
    """Make a job from a job document: a new one, or one that was exported."""
    return stored(edits.create_job(request.user, read_job(request.body)))


@router.get("/all.zip", openapi_extra=describe(), operation_id="save_all")
def save_all(request: HttpRequest) -> HttpResponse:
    """Give every job of the user as one ZIP of job documents."""
    response = HttpResponse(packed(request.user), content_type="application/zip")
    response["Content-Disposition"] = 'attachment; filename="wobble-jobs.zip"'
    return response


@router.post("/all.zip", openapi_extra=describe(gives=tuple[StoredName, ...]), operation_id="bring_all")
def bring_all(request: HttpRequest) -> HttpResponse:
    """Make a job of every document in a ZIP (the body), or none where one cannot be taken."""
    return answer([StoredName(id=row.id, name=row.name) for row in unpacked(request.user, request.body)])


@router.get("/{uuid:job_id}", openapi_extra=describe(gives=StoredJob), operation_id="get_job")
def get_job(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Read a job."""
    return stored(edits.find_job(request.user, job_id))


@router.get("/{uuid:job_id}/glance", openapi_extra=describe(gives=Glance), operation_id="get_glance")
def get_glance(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Say how far a job is, what its places look like, and the one thing to do next."""
    return answered(request, job_id, "", "glance")


@router.get(
    "/{uuid:job_id}/places/{place_id}/planned",
    openapi_extra=describe(gives=tuple[StageAt, ...]),
    operation_id="get_planned",
)
def get_planned(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say how far a place is from Set out to Hold, and what stops there."""
    return answered(request, job_id, place_id, "planned")


@router.delete("/{uuid:job_id}", openapi_extra=describe(), operation_id="delete_job")
def delete_job(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Delete a job: for 30 days it can be brought back whole; deleted once more it is gone for good."""
    edits.delete_job(request.user, job_id)
    return answer({})


@router.get("/deleted", openapi_extra=describe(gives=tuple[DeletedJob, ...]), operation_id="list_deleted_jobs")
def list_deleted_jobs(request: HttpRequest) -> HttpResponse:
    """List the user's deleted jobs that can be brought back, last deleted first."""
    return answer(
        [
            DeletedJob(id=j.id, name=j.name, deleted=j.deleted, until=j.deleted + edits.KEPT_DELETED)
            for j in edits.deleted_jobs(request.user)
            if j.deleted is not None
        ]
    )


@router.post("/{uuid:job_id}/back", openapi_extra=describe(gives=StoredJob), operation_id="bring_job_back")
def bring_job_back(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Bring a deleted job back as it was."""
    return stored(edits.bring_back(request.user, job_id))


@router.get("/{uuid:job_id}/document", openapi_extra=describe(gives=core.Job), operation_id="export_job")
def export_job(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Export a job as its document, for download."""
    row = edits.find_job(request.user, job_id)
    name = re.sub(r"[^a-z0-9]+", "-", row.name.lower()).strip("-") or "job"
    response = HttpResponse(write_job(rows.job_value(row)), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="{name}.wobble.json"'
    return response


@router.put(
    "/{uuid:job_id}/about", openapi_extra=describe(takes=edits.Edit[About], gives=StoredJob), operation_id="put_about"
)
def put_about(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Rename a job, or show its lengths in other units."""
    edit = body(request, edits.Edit[About])
    return stored(edits.decide(request.user, job_id, edit, About, what="the job's name or units"))


@router.put(
    "/{uuid:job_id}/kit", openapi_extra=describe(takes=edits.Edit[OwnKit], gives=StoredJob), operation_id="put_kit"
)
def put_kit(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Change the shim kit."""
    edit = body(request, edits.Edit[OwnKit])
    return stored(edits.decide(request.user, job_id, edit, OwnKit, what="the shim kit"))


@router.put(
    "/{uuid:job_id}/instruments",
    openapi_extra=describe(takes=edits.Edit[OwnInstruments], gives=StoredJob),
    operation_id="put_instruments",
)
def put_instruments(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Change the instruments."""
    edit = body(request, edits.Edit[OwnInstruments])
    return stored(edits.decide(request.user, job_id, edit, OwnInstruments, what="the instruments"))


@router.put(
    "/{uuid:job_id}/way-in", openapi_extra=describe(takes=edits.Edit[WayIn], gives=StoredJob), operation_id="put_way_in"
)
def put_way_in(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Change the doors, corners and stairs that everything must pass."""
    edit = body(request, edits.Edit[WayIn])
    return stored(edits.decide(request.user, job_id, edit, WayIn, what="the way in"))


@router.put(
    "/{uuid:job_id}/constructions",
    openapi_extra=describe(takes=edits.Edit[OwnWays], gives=StoredJob),
    operation_id="put_constructions",
)
def put_constructions(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Change the ways in which carcasses are built."""
    edit = body(request, edits.Edit[OwnWays])
    return stored(edits.decide(request.user, job_id, edit, OwnWays, what="the ways of building"))


class PlaceEdit(edits.Edit[core.Place | None], frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A place made (`was` is then null), or what is decided for it changed."""


@router.put("/{uuid:job_id}/places", openapi_extra=describe(takes=PlaceEdit, gives=StoredJob), operation_id="put_place")
def put_place(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Make a place, or change its size, set-ups, units and decisions; its facts stay as they are."""
    return stored(edits.put_place(request.user, job_id, body(request, PlaceEdit)))
