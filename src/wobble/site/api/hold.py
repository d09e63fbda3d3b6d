"""Hold: what lies behind a place's back, and how its units are fastened to it."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.hold.rests.furring import Furring
from wobble.core.hold.rests.grids import GridError, Laid, hanging_wall, peg_grid
from wobble.core.hold.result import PlaceHold
from wobble.core.length import LengthUnit
from wobble.site import edits
from wobble.site.answers import answered, computed
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import answer, body, describe
from wobble.site.computing import Question

router = Router(tags=["hold"])


class MadeOf(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What the walls of a place are made of, its ceiling, and its floor; None where nobody has said."""

    backing: core.Backing | None = None
    overhead: core.Backing | None = None
    underfoot: core.Backing | None = None


class AskFurring(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Strips wanted over the back: between which heights, how far apart at most, how thick, and whether plumb."""

    low_mm: core.Coordinate
    high_mm: core.Coordinate
    pitch_mm: Annotated[float, msgspec.Meta(ge=50, le=3000)] = 400.0
    strip_mm: core.Positive = 19.0
    plumb: bool = True


class Furred(msgspec.Struct, frozen=True, kw_only=True):
    """Strips packed to one plane; None where no two studs are known, or the back is not measured."""

    furring: Furring | None


class AskGrid(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A wall to lay out: battens at a pitch over its height, or holes for pegs over a board."""

    how: Literal["battens", "pegs"]
    high_mm: core.Positive
    wide_mm: core.Positive = 1200.0
    pitch_mm: core.Positive
    batten_mm: core.Positive = 80.0
    thick_mm: core.Positive = 18.0
    edge_mm: core.Positive = 20.0
    units: LengthUnit = "mm"


@router.get("/{uuid:job_id}/places/{place_id}/hold", openapi_extra=describe(gives=PlaceHold), operation_id="get_hold")
def get_hold(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say where the studs are and how every unit is fastened."""
    return answered(request, job_id, place_id, "hold")


@router.put(
    "/{uuid:job_id}/places/{place_id}/backing",
    openapi_extra=describe(takes=edits.Edit[MadeOf], gives=StoredJob),
    operation_id="put_backing",
)
def put_backing(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what the walls, the ceiling or the floor are made of."""
    edit, what = body(request, edits.Edit[MadeOf]), f"what {place_id} is made of"
    return stored(edits.decide(request.user, job_id, edit, MadeOf, place_key=place_id, what=what))


@router.post(
    "/{uuid:job_id}/places/{place_id}/furring",
    openapi_extra=describe(takes=AskFurring, gives=Furred),
    operation_id="ask_furring",
)
def ask_furring(request: HttpRequest, job_id: UUID, place_id: str) -> HttpResponse:
    """Say what is packed behind furring strips; nothing is kept."""
    asked = body(request, AskFurring)
    row = edits.find_job(request.user, job_id)
    if asked.high_mm <= asked.low_mm:
        raise GridError("The highest strip is not over the lowest.", mend="Swap the two heights.")
    options = msgspec.structs.asdict(asked)
    return computed(
        request, Question(what=("furring",), job=row.pk, revision=row.revision, place=place_id, options=options)
    )


@router.post("/grid", openapi_extra=describe(takes=AskGrid, gives=Laid), operation_id="lay_grid")
def lay_grid(request: HttpRequest) -> HttpResponse:
    """Lay out a hanging wall or a pegboard; nothing is kept."""
    asked = body(request, AskGrid)
    if asked.how == "battens":
        made = hanging_wall(asked.high_mm, asked.pitch_mm, asked.batten_mm, asked.thick_mm, asked.units)
    else:
        made = peg_grid(asked.wide_mm, asked.high_mm, asked.pitch_mm, asked.edge_mm, asked.units)
    return answer(made)
