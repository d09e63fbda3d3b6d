"""Set out: what is built, tried as it is drawn and kept when it stands; and places begun from a few answers."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.length import LengthUnit
from wobble.core.setout.laid import LaidOut, SetOut
from wobble.core.setout.moves import Move
from wobble.core.setout.starters.begin import StarterTold, begin, offered
from wobble.core.stages import Tried
from wobble.core.value import Title
from wobble.site import edits, rows
from wobble.site.answers import answered, computed
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import answer, body, describe
from wobble.site.computing import Question

router = Router(tags=["setout"])
starters = Router(tags=["setout"])
Text = Annotated[str, msgspec.Meta(max_length=80)]
Number = Annotated[float, msgspec.Meta(ge=0, le=100_000)]


class Trial(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What is set out on a page, and what is done to it; None only to see what it comes to."""

    said: SetOut
    move: Move | None = None


class Begin(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A place to begin: from which starter, its id and name, and answers by their questions' ids; lengths in mm."""

    starter: Text
    id: core.Key
    name: Title
    answers: dict[Text, Number | Text] = {}


@router.get(
    "/{uuid:job_id}/places/{place_id}/setout", openapi_extra=describe(gives=LaidOut), operation_id="get_set_out"
)
def get_set_out(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what is set out of a place comes to."""
    return answered(request, job_id, place_id, "setout")


@router.post(
    "/{uuid:job_id}/places/{place_id}/setout",
    openapi_extra=describe(takes=Trial, gives=Tried),
    operation_id="try_set_out",
)
def try_set_out(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Make a move on what is set out on a page, and say what it comes to; nothing is kept."""
    trial = body(request, Trial)
    revision = edits.revision_of(request.user, job_id)
    edits.check_set_out_of(request.user, job_id, place_id, trial.said)
    of = Question(what=("tried",), job=job_id, revision=revision, place=place_id, set_out=trial.said, move=trial.move)
    return computed(request, of)


@router.put(
    "/{uuid:job_id}/places/{place_id}/setout",
    openapi_extra=describe(takes=edits.Edit[SetOut], gives=StoredJob),
    operation_id="put_set_out",
)
def put_set_out(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Keep what is set out."""
    edit, what = body(request, edits.Edit[SetOut]), f"what is set out in {place_id}"
    return stored(edits.decide(request.user, job_id, edit, SetOut, place_key=place_id, what=what))


@router.post("/{uuid:job_id}/begin", openapi_extra=describe(takes=Begin, gives=StoredJob), operation_id="begin_place")
def begin_place(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Make a place from a starter's answers, set out whole."""
    asked = body(request, Begin)
    lengths = rows.seen_job(edits.find_job(request.user, job_id)).units
    place = begin(asked.starter, asked.id, asked.name, asked.answers, lengths)
    return stored(edits.put_place(request.user, job_id, edits.Edit[core.Place | None](was=None, now=place)))


@starters.get("", openapi_extra=describe(gives=tuple[StarterTold, ...]), operation_id="list_starters")
def list_starters(request: HttpRequest, units: LengthUnit = "mm") -> HttpResponse:  # noqa: ARG001 - who asks does not matter
    """List the kinds of job that a place may begin from."""
    return answer(offered(units))
