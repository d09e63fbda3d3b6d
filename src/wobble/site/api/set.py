"""Set: a place's checks and what to do now, the plan that would follow, pictures, the record of the job."""

from __future__ import annotations

from datetime import UTC, datetime
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core.errors import NotThere
from wobble.core.set.record import Record
from wobble.core.set.result import PlaceSet, Proposal
from wobble.site import edits, photos, rows
from wobble.site.answers import answered, computed
from wobble.site.api.wire import answer, describe
from wobble.site.computing import Question
from wobble.site.everything import packed_job

router = Router(tags=["set"])


@router.get("/{uuid:job_id}/places/{place_id}/set", openapi_extra=describe(gives=PlaceSet), operation_id="get_set")
def get_set(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what is checked in a place, what it came to, and what to do now."""
    return answered(request, job_id, place_id, "set")


@router.get(
    "/{uuid:job_id}/places/{place_id}/proposal", openapi_extra=describe(gives=Proposal), operation_id="get_proposal"
)
def get_proposal(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what would change if the plan followed what stands."""
    return answered(request, job_id, place_id, "proposal")


@router.post("/{uuid:job_id}/photos", openapi_extra=describe(gives=photos.KeptPhoto), operation_id="keep_photo")
def keep_photo(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Keep a picture, as the body; it is on the disk when this is answered."""
    edits.find_job(request.user, job_id)
    return answer(photos.keep(job_id, request.body))


@router.get("/{uuid:job_id}/photos/{digest}.jpg", openapi_extra=describe(), operation_id="get_photo")
def get_photo(request: HttpRequest, job_id: UUID, digest: str) -> HttpResponse:
    """Give a picture to the owner of its job."""
    edits.find_job(request.user, job_id)
    if len(digest) != 64 or not set(digest) <= set("0123456789abcdef"):
        raise NotThere("There is no such picture.", mend="Look at the record again.")
    response = HttpResponse(photos.read(job_id, digest), content_type="image/jpeg")
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response


def _record(request: HttpRequest, job_id: UUID) -> HttpResponse:
    revision = edits.revision_of(request.user, job_id)
    options = {"now": datetime.now(UTC).isoformat()}
    return computed(request, Question(what=("record",), job=job_id, revision=revision, place="", options=options))


@router.get("/{uuid:job_id}/record", openapi_extra=describe(gives=Record), operation_id="get_record")
def get_record(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Tell the job as it went."""
    return _record(request, job_id)


@router.get("/{uuid:job_id}/record.pdf", openapi_extra=describe(), operation_id="save_record")
def save_record(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Give the record as PDF."""
    from wobble.core.formats.paper import pages, record  # a heavy library, wanted for this alone

    row = edits.find_job(request.user, job_id)
    units = rows.seen_job(row).units
    about = pages.Job(name=row.name, revision=row.revision, date=row.changed.date().isoformat(), units=units)
    found = msgspec.json.decode(_record(request, job_id).content, type=Record)

    def picture(digest: str) -> bytes | None:
        try:
            return photos.read(job_id, digest)
        except NotThere:
            return None

    response = HttpResponse(record.record_paper(found, about, picture), content_type="application/pdf")
    response["Content-Disposition"] = 'inline; filename="record.pdf"'
    return response


@router.get("/{uuid:job_id}/job.zip", openapi_extra=describe(), operation_id="save_job_zip")
def save_job_zip(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Give a job with its pictures and its log as one ZIP, which can be brought in again."""
    row = edits.find_job(request.user, job_id)
    log = msgspec.json.format(_record(request, job_id).content, indent=2)
    response = HttpResponse(packed_job(row, log), content_type="application/zip")
    response["Content-Disposition"] = 'attachment; filename="wobble-job.zip"'
    return response
