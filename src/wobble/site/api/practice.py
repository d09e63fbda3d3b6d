"""Practice: a made-up place, its simulated instruments, and how near one came."""

from __future__ import annotations

import secrets
from typing import Annotated
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core.job import Reading
from wobble.core.length import LengthUnit
from wobble.core.practice.corner import crooked, practice_job, read
from wobble.core.stages import Practised, find_place
from wobble.site import edits, rows
from wobble.site.answers import answered
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import answer, body, describe

router = Router(tags=["practice"])


class BeginPractice(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What a rule reads in the practice; `seed` names a corner, none takes one that nobody has seen."""

    units: LengthUnit = "mm"
    seed: Annotated[int, msgspec.Meta(ge=0, le=2_147_483_647)] | None = None


class AskReadings(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What to read where, the numbers left open, and whether the apprentice reads."""

    asked: Annotated[tuple[Reading, ...], msgspec.Meta(min_length=1, max_length=400)]
    apprentice: bool = False


@router.post("/practice", openapi_extra=describe(takes=BeginPractice, gives=StoredJob), operation_id="begin_practice")
def begin_practice(request: HttpRequest) -> HttpResponse:
    """Make a job to practise on: a crooked corner, nothing measured."""
    wanted = body(request, BeginPractice)
    seed = crooked(secrets.randbelow(1_000_000)) if wanted.seed is None else wanted.seed
    return stored(edits.create_job(request.user, practice_job(seed, wanted.units)))


@router.post(
    "/{uuid:job_id}/places/{place_id}/practice",
    openapi_extra=describe(takes=AskReadings, gives=tuple[Reading, ...]),
    operation_id="read_in_practice",
)
def read_in_practice(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Read a simulated instrument in a made-up place; nothing is stored."""
    wanted = body(request, AskReadings)
    job = rows.seen_job(edits.find_job(request.user, job_id))
    return answer(read(job, find_place(job, place_id), wanted.asked, apprentice=wanted.apprentice))


@router.get(
    "/{uuid:job_id}/places/{place_id}/practice",
    openapi_extra=describe(gives=Practised),
    operation_id="get_practice",
)
def get_practice(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say how far a practice is, and at its end how near one came."""
    return answered(request, job_id, place_id, "practice")
