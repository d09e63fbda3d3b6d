"""Fit: what the bay's decisions mean, tried or kept."""

from __future__ import annotations

from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.solve import BayFit, solve_fit, with_decisions
from wobble.site import edits, rows
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import answer, body, describe

router = Router(tags=["fit"])


class Decisions(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Where level starts, where the backs stand, and how the sides are closed."""

    datum: core.Datum
    back_line: core.BackLine
    closing: core.Closing = core.Closing()


class DecisionsEdit(Decisions, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Decisions to keep, made from a revision."""

    revision: int


@router.get("/{uuid:job_id}/bays/{bay_id}/fit", openapi_extra=describe(gives=BayFit), operation_id="get_fit")
def get_fit(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Say what the bay's decisions mean."""
    return answer(solve_fit(rows.job_value(edits.find_job(request.user, job_id)), bay_id))


@router.post(
    "/{uuid:job_id}/bays/{bay_id}/fit",
    openapi_extra=describe(takes=Decisions, gives=BayFit),
    operation_id="try_fit",
)
def try_fit(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Say what other decisions would mean; nothing is kept."""
    asked = body(request, Decisions)
    job = rows.job_value(edits.find_job(request.user, job_id))
    return answer(solve_fit(with_decisions(job, bay_id, asked.datum, asked.back_line, asked.closing), bay_id))


@router.put(
    "/{uuid:job_id}/bays/{bay_id}/decisions",
    openapi_extra=describe(takes=DecisionsEdit, gives=StoredJob),
    operation_id="put_decisions",
)
def put_decisions(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Keep decisions."""
    asked = body(request, DecisionsEdit)
    what = f"the decisions in {bay_id}"
    with edits.changing(request.user, job_id, revision=asked.revision, what=what) as row:
        bay = edits.find_bay(row, bay_id)
        bay.datum = msgspec.to_builtins(asked.datum)
        bay.back_line = msgspec.to_builtins(asked.back_line)
        bay.closing = msgspec.to_builtins(asked.closing)
        bay.save(update_fields=("datum", "back_line", "closing"))
    return stored(row)
