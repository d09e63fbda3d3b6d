"""Order: the steps of a job in its sessions, what fits tonight; sessions that are said; calendar and day sheets out."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.errors import DocumentError
from wobble.core.job.sessions import check_day
from wobble.core.order.result import AskedTonight, Planned
from wobble.core.stages import FinishingOutcome
from wobble.site import edits, rows
from wobble.site.answers import computed
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import body, describe
from wobble.site.computing import Question

router = Router(tags=["order"])


class OwnSessions(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """When a job is worked at, and in which order where the user says so."""

    sessions: core.Sessions


class Evening(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A session that begins now: the moment with its zone, how long there is, who and which machines are there."""

    now: core.Moment
    minutes: Annotated[int, msgspec.Meta(ge=5, le=960)] = 90
    people: Annotated[tuple[core.Key, ...], msgspec.Meta(max_length=8)] = ()
    machines: Annotated[tuple[core.Key, ...], msgspec.Meta(max_length=20)] = ()


def _asked(request: HttpRequest, job_id: UUID, what: str, options: dict[str, object]) -> HttpResponse:
    revision = edits.revision_of(request.user, job_id)
    return computed(request, Question(what=(what,), job=job_id, revision=revision, place="", options=options))


def _moment(text: str) -> str:
    """Return a moment that is asked for, or now.

    Raises:
        DocumentError: It is no moment with a zone.
    """
    if not text:
        return datetime.now(UTC).isoformat()
    try:
        at = datetime.fromisoformat(text)
        core.check_year(at)
        if at.tzinfo is None:
            raise ValueError("it has no zone")
    except ValueError as fault:
        raise DocumentError(
            f"“{text[:40]}” is no moment: {fault}.", mend="Write it like 2026-03-07T19:30:00+01:00.", path="now"
        ) from fault
    return at.isoformat()


@router.get("/{uuid:job_id}/order", openapi_extra=describe(gives=Planned), operation_id="get_order")
def get_order(request: HttpRequest, job_id: UUID, now: str = "") -> HttpResponse:
    """Say which steps a job is made of, and when each is done, from a moment on."""
    return _asked(request, job_id, "order", {"now": _moment(now)})


@router.post(
    "/{uuid:job_id}/tonight", openapi_extra=describe(takes=Evening, gives=AskedTonight), operation_id="ask_tonight"
)
def ask_tonight(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Say what fits into a session that begins now; nothing is kept."""
    asked = body(request, Evening)
    options = {
        "now": asked.now.isoformat(),
        "minutes": asked.minutes,
        "people": asked.people,
        "machines": asked.machines,
    }
    return _asked(request, job_id, "tonight", options)


@router.get(
    "/{uuid:job_id}/finishing",
    openapi_extra=describe(gives=tuple[FinishingOutcome, ...]),
    operation_id="compare_finishing",
)
def compare_finishing(request: HttpRequest, job_id: UUID, now: str = "") -> HttpResponse:
    """Say what coats before assembly, before setting and after come to."""
    return _asked(request, job_id, "finishing", {"now": _moment(now)})


@router.put(
    "/{uuid:job_id}/sessions",
    openapi_extra=describe(takes=edits.Edit[OwnSessions], gives=StoredJob),
    operation_id="put_sessions",
)
def put_sessions(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Change when a job is worked at, and the user's own order."""
    edit = body(request, edits.Edit[OwnSessions])
    return stored(edits.decide(request.user, job_id, edit, OwnSessions, what="the sessions"))


@router.get("/{uuid:job_id}/order.ics", openapi_extra=describe(), operation_id="save_calendar")
def save_calendar(request: HttpRequest, job_id: UUID, now: str = "") -> HttpResponse:
    """Give the sessions as a calendar."""
    from wobble.core.formats.calendar import write_calendar  # a heavy library, wanted for this alone

    row = edits.find_job(request.user, job_id)
    text = write_calendar(_planned(request, job_id, now), str(job_id), row.name, row.changed)
    response = HttpResponse(text, content_type="text/calendar; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="wobble.ics"'
    return response


@router.get("/{uuid:job_id}/days/{day}.pdf", openapi_extra=describe(), operation_id="save_day_sheet")
def save_day_sheet(request: HttpRequest, job_id: UUID, day: str, now: str = "") -> HttpResponse:
    """Give one day's sheet as PDF."""
    from wobble.core.formats.paper import day_sheet, pages

    try:
        check_day(day)
    except ValueError as fault:
        raise DocumentError(f"“{day[:20]}” is no day.", mend="Write it like 2026-03-07.", path="day") from fault
    row = edits.find_job(request.user, job_id)
    units = rows.seen_job(row).units
    about = pages.Job(name=row.name, revision=row.revision, date=row.changed.date().isoformat(), units=units)
    pdf = day_sheet.day_sheet(_planned(request, job_id, now), about, day)
    response = HttpResponse(pdf, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{day}.pdf"'
    return response


def _planned(request: HttpRequest, job_id: UUID, now: str) -> Planned:
    return msgspec.json.decode(_asked(request, job_id, "order", {"now": _moment(now)}).content, type=Planned)
