"""Hold: what lies behind a bay's back, and how its units are fastened to it."""

from __future__ import annotations

from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.solve import BayHold, solve_hold
from wobble.site import edits, rows
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import answer, body, describe

router = Router(tags=["hold"])


class Detections(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Things found behind a lining; each has an id made by whoever found it."""

    detections: tuple[core.Detection, ...]


class BackingEdit(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What a wall is made of."""

    revision: int
    backing: core.Backing


@router.get("/{uuid:job_id}/bays/{bay_id}/hold", openapi_extra=describe(gives=BayHold), operation_id="get_hold")
def get_hold(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Say where the studs are and how every unit is fastened."""
    return answer(solve_hold(rows.seen_job(edits.find_job(request.user, job_id)), bay_id))


@router.post(
    "/{uuid:job_id}/bays/{bay_id}/detections",
    openapi_extra=describe(takes=Detections, gives=StoredJob),
    operation_id="add_detections",
)
def add_detections(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Store what was found behind the lining. Sending the same twice stores it once."""
    return stored(edits.add_detections(request.user, job_id, bay_id, body(request, Detections).detections))


@router.delete(
    "/{uuid:job_id}/bays/{bay_id}/detections/{detection_id}",
    openapi_extra=describe(gives=StoredJob),
    operation_id="take_detection_back",
)
def take_detection_back(request: HttpRequest, job_id: UUID, bay_id: str, detection_id: str) -> HttpResponse:
    """Take back something that was not there."""
    return stored(edits.take_detection_back(request.user, job_id, bay_id, detection_id))


@router.put(
    "/{uuid:job_id}/bays/{bay_id}/backing",
    openapi_extra=describe(takes=BackingEdit, gives=StoredJob),
    operation_id="put_backing",
)
def put_backing(request: HttpRequest, job_id: UUID, bay_id: str) -> HttpResponse:
    """Say what the wall is made of."""
    asked = body(request, BackingEdit)
    with edits.changing(request.user, job_id, revision=asked.revision, what=f"what {bay_id} is made of") as row:
        bay = edits.find_bay(row, bay_id)
        bay.backing = msgspec.to_builtins(asked.backing)
        bay.save(update_fields=("backing",))
    return stored(row)
