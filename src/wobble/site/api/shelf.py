"""The user's own instruments, across jobs, and what their checks found."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.formats.checks import check_job
from wobble.core.gauge.checks import CheckFound, findings
from wobble.site import edits
from wobble.site.api.wire import answer, body, describe

router = Router(tags=["shelf"])


@router.get("", openapi_extra=describe(gives=tuple[core.Instrument, ...]), operation_id="get_shelf")
def get_shelf(request: HttpRequest) -> HttpResponse:
    """List the instruments on the user's shelf."""
    return answer(edits.shelf(request.user))


@router.put(
    "",
    openapi_extra=describe(takes=core.Instrument, gives=tuple[core.Instrument, ...]),
    operation_id="put_on_shelf",
)
def put_on_shelf(request: HttpRequest) -> HttpResponse:
    """Put an instrument on the shelf, in place of the one of its id; the whole shelf is answered."""
    instrument = body(request, core.Instrument)
    check_job(core.Job(name="", instruments=(instrument,)))
    edits.put_on_shelf(request.user, instrument)
    return answer(edits.shelf(request.user))


@router.post(
    "/checks",
    openapi_extra=describe(takes=core.Instrument, gives=tuple[CheckFound, ...]),
    operation_id="check_findings",
)
def check_findings(request: HttpRequest) -> HttpResponse:
    """Say what an instrument's checks found, oldest first; nothing is stored."""
    instrument = body(request, core.Instrument)
    check_job(core.Job(name="", instruments=(instrument,)))
    return answer(findings(instrument))


@router.delete("/{key}", openapi_extra=describe(gives=tuple[core.Instrument, ...]), operation_id="take_off_shelf")
def take_off_shelf(request: HttpRequest, key: str) -> HttpResponse:
    """Take an instrument off the shelf; jobs that have it keep theirs."""
    edits.take_off_shelf(request.user, key)
    return answer(edits.shelf(request.user))
