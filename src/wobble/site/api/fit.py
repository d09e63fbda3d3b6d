"""Fit: what the place's decisions mean, tried or kept or kept aside; lines to cut; lengths to divide."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.errors import NotThere
from wobble.core.fit.compare import Outcome
from wobble.core.fit.scribe.line import Scribe
from wobble.core.formats.paper.cutting import scribe_dxf, scribe_svg, scribe_words, tiles
from wobble.core.formats.paper.rods import rod_tiles, rod_words
from wobble.core.length import LengthUnit
from wobble.core.setout.divide import Divided, equal_openings, equal_trim, true_boards
from wobble.core.stages import PlaceFit, PlaceRod, find_place
from wobble.site import edits, rows
from wobble.site.answers import answered, computed
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import Template, answer, body, describe, template
from wobble.site.computing import Question

router = Router(tags=["fit"])


class Decisions(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Where level starts, where the backs stand, and how the sides are closed."""

    datum: core.Datum
    back_line: core.BackLine
    closing: core.Closing = core.Closing()


@router.get("/{uuid:job_id}/places/{place_id}/fit", openapi_extra=describe(gives=PlaceFit), operation_id="get_fit")
def get_fit(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what the place's decisions mean."""
    return answered(request, job_id, place_id, "fit")


@router.post(
    "/{uuid:job_id}/places/{place_id}/fit",
    openapi_extra=describe(takes=Decisions, gives=PlaceFit),
    operation_id="try_fit",
)
def try_fit(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what other decisions would mean; nothing is kept."""
    asked = body(request, Decisions)
    revision = edits.revision_of(request.user, job_id)
    decided = (asked.datum, asked.back_line, asked.closing)
    of = Question(what=("fit",), job=job_id, revision=revision, place=place_id, decided=decided)
    return computed(request, of)


@router.put(
    "/{uuid:job_id}/places/{place_id}/decisions",
    openapi_extra=describe(takes=edits.Edit[Decisions], gives=StoredJob),
    operation_id="put_decisions",
)
def put_decisions(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Keep decisions."""
    edit, what = body(request, edits.Edit[Decisions]), f"the decisions in {place_id}"
    return stored(edits.decide(request.user, job_id, edit, Decisions, place_key=place_id, what=what))


class Alternatives(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """The sets of decisions that are kept beside the one in force."""

    alternatives: Annotated[tuple[core.Alternative, ...], msgspec.Meta(max_length=8)]


@router.put(
    "/{uuid:job_id}/places/{place_id}/alternatives",
    openapi_extra=describe(takes=edits.Edit[Alternatives], gives=StoredJob),
    operation_id="put_alternatives",
)
def put_alternatives(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Keep sets of decisions beside the one in force."""
    edit, what = body(request, edits.Edit[Alternatives]), f"alternatives in {place_id}"
    return stored(edits.decide(request.user, job_id, edit, Alternatives, place_key=place_id, what=what))


@router.get(
    "/{uuid:job_id}/places/{place_id}/alternatives",
    openapi_extra=describe(gives=tuple[Outcome, ...]),
    operation_id="compare_alternatives",
)
def compare_alternatives(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what the decisions in force come to, and each set kept beside them."""
    return answered(request, job_id, place_id, "compared")


@router.get(
    "/{uuid:job_id}/places/{place_id}/scribes/{scribe_id}/tiles",
    openapi_extra=describe(gives=Template),
    operation_id="get_template",
)
def get_template(request: HttpRequest, job_id: UUID, place_id: str, scribe_id: str) -> HttpResponse:
    """Give a cut line as pages at full size."""
    scribe, units = _scribe(request, job_id, place_id, scribe_id)
    return answer(template(scribe_words(scribe, units), tiles(scribe, units)))


@router.get(
    "/{uuid:job_id}/places/{place_id}/rods/{rod}/tiles",
    openapi_extra=describe(gives=Template),
    operation_id="get_rod",
)
def get_rod(request: HttpRequest, job_id: UUID, place_id: str, rod: str) -> HttpResponse:
    """Give a rod of a place, long or upright, as pages at full size."""
    row = edits.find_job(request.user, job_id)
    job = rows.seen_job(row)
    made = computed(request, Question(what=("rods",), job=row.pk, revision=row.revision, place=place_id))
    found = next((r for r in msgspec.json.decode(made.content, type=tuple[PlaceRod, ...]) if r.rod == rod), None)
    if found is None:
        raise NotThere(f"There is no rod “{rod}”.", mend="Ask for long or upright.")
    name = find_place(job, place_id).name
    return answer(template(rod_words(found, name, job.units), rod_tiles(found, name, job.units)))


@router.get("/{uuid:job_id}/places/{place_id}/scribes/{scribe_id}/line.{form}", operation_id="get_line")
def get_line(request: HttpRequest, job_id: UUID, place_id: str, scribe_id: str, form: str) -> HttpResponse:
    """Give a cut line at full size as a file: svg or dxf."""
    scribe, units = _scribe(request, job_id, place_id, scribe_id)
    if form not in FORMS:
        raise NotThere(f"There is no form “{form}” of a line.", mend="Ask for svg or dxf.")
    write, kind = FORMS[form]
    response = HttpResponse(write(scribe, units), content_type=kind)
    response["Content-Disposition"] = f'attachment; filename="{place_id}-{scribe.id}.{form}"'
    return response


FORMS = {"svg": (scribe_svg, "image/svg+xml"), "dxf": (scribe_dxf, "image/vnd.dxf")}


def _scribe(request: HttpRequest, job_id: UUID, place_id: str, scribe_id: str) -> tuple[Scribe, LengthUnit]:
    row = edits.find_job(request.user, job_id)
    job = rows.seen_job(row)
    answered = computed(request, Question(what=("scribes",), job=row.pk, revision=row.revision, place=place_id))
    scribes = msgspec.json.decode(answered.content, type=tuple[Scribe, ...])
    found = next((s for s in scribes if s.id == scribe_id), None)
    if found is None:
        raise NotThere(f"There is no cut line “{scribe_id}”.", mend="Look at the place's fit again.")
    return found, job.units


class Divide(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A length to divide: into equal openings, by trim over seams, or into boards of their true width."""

    how: Literal["openings", "trim", "boards"]
    long_mm: core.Positive
    piece_mm: core.Positive
    count: Annotated[int, msgspec.Meta(ge=1, le=200)] = 2
    most_apart_mm: core.Positive = 400.0
    gap_mm: Annotated[float, msgspec.Meta(ge=0, le=1000)] = 0.0
    seams: Annotated[tuple[core.Positive, ...], msgspec.Meta(max_length=200)] = ()
    units: LengthUnit = "mm"


@router.post("/divide", openapi_extra=describe(takes=Divide, gives=Divided), operation_id="divide")
def divide(request: HttpRequest) -> HttpResponse:
    """Divide a length; nothing is kept."""
    asked = body(request, Divide)
    match asked.how:
        case "openings":
            found = equal_openings(asked.long_mm, asked.count, asked.piece_mm, asked.gap_mm, asked.units)
        case "trim":
            found = equal_trim(asked.long_mm, asked.most_apart_mm, asked.piece_mm, asked.seams, asked.units)
        case "boards":
            found = true_boards(asked.long_mm, asked.piece_mm, asked.gap_mm, asked.units)
    return answer(found)
