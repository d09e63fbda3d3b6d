"""Make: every part, the layout of the stock, settings, buying; the workshop that they rest on; tables in and out."""

from __future__ import annotations

from typing import Annotated, Literal
from urllib.parse import quote
from uuid import UUID

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from wobble.core import job as core
from wobble.core.errors import NotThere
from wobble.core.formats.paper.part_drawing import part_dxf, part_svg, part_tiles, part_words
from wobble.core.formats.paper.part_faces import faces
from wobble.core.formats.parts_table import sheet_dxf, sheet_svg, write_parts
from wobble.core.formats.stock_table import Prices, read_prices, read_stock, write_stock
from wobble.core.length import LengthUnit
from wobble.core.make.marked import MarkedPart
from wobble.core.make.result import Made
from wobble.core.make.trip import Trip, one_trip
from wobble.core.stages import AimOutcome
from wobble.site import edits, rows
from wobble.site.answers import answered, computed
from wobble.site.api.jobs import StoredJob, stored
from wobble.site.api.wire import Template, answer, body, describe, template
from wobble.site.computing import Question

router = Router(tags=["make"])


Paper = Literal["parts", "sheets", "settings", "labels", "shopping", "order"]


class OwnWorkshop(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """What a job is made from and with."""

    workshop: core.Workshop


class Longer(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A longer search for a better layout: how long this time, and which search, so that each time is another."""

    seconds: Annotated[float, msgspec.Meta(gt=0, le=4)] = 3.0
    seed: Annotated[int, msgspec.Meta(ge=1, le=10_000)] = 2


class WithJobs(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Other jobs of the same user that are bought for on the same trip."""

    jobs: Annotated[tuple[UUID, ...], msgspec.Meta(min_length=1, max_length=7)]


class Table(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A table as CSV."""

    text: Annotated[str, msgspec.Meta(max_length=1_000_000)]


class ReadStock(msgspec.Struct, frozen=True, kw_only=True):
    """The stock of a table."""

    stock: tuple[core.StockItem, ...]


@router.get("/{uuid:job_id}/make", openapi_extra=describe(gives=Made), operation_id="get_make")
def get_make(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Say what is made for a job: all parts of all places, on one stock."""
    return answered(request, job_id, "", "make")


@router.post("/{uuid:job_id}/make", openapi_extra=describe(takes=Longer, gives=Made), operation_id="search_longer")
def search_longer(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Look longer for a better layout; what is found is kept where it is better, and given from then on."""
    asked = body(request, Longer)
    revision = edits.revision_of(request.user, job_id)
    options = {"seconds": asked.seconds, "seed": asked.seed}
    return computed(request, Question(what=("make",), job=job_id, revision=revision, place="", options=options))


@router.get("/{uuid:job_id}/aims", openapi_extra=describe(gives=tuple[AimOutcome, ...]), operation_id="compare_aims")
def compare_aims(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Say what the layout comes to for each aim: fewest sheets, fewest settings, fewest metres sawn."""
    return answered(request, job_id, "", "aims")


@router.post("/{uuid:job_id}/trip", openapi_extra=describe(takes=WithJobs, gives=Trip), operation_id="plan_trip")
def plan_trip(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Say what buying for several of the user's jobs on one trip comes to; nothing is kept."""
    edits.find_job(request.user, job_id)
    every = dict.fromkeys((job_id, *body(request, WithJobs).jobs))
    jobs = [(rows.job_value(edits.find_job(request.user, one)), _made(request, one).buying) for one in every]
    return answer(one_trip(jobs))


@router.put(
    "/{uuid:job_id}/workshop",
    openapi_extra=describe(takes=edits.Edit[OwnWorkshop], gives=StoredJob),
    operation_id="put_workshop",
)
def put_workshop(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Change the stock, the shops, the machines and how things are finished."""
    edit = body(request, edits.Edit[OwnWorkshop])
    return stored(edits.decide(request.user, job_id, edit, OwnWorkshop, what="the workshop"))


@router.get("/{uuid:job_id}/stock.csv", openapi_extra=describe(), operation_id="save_stock")
def save_stock(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Give the stock list as CSV."""
    job = rows.job_value(edits.find_job(request.user, job_id))
    return _file(write_stock(job.workshop.stock), "text/csv", "stock.csv")


@router.post(
    "/{uuid:job_id}/stock.csv", openapi_extra=describe(takes=Table, gives=ReadStock), operation_id="read_stock"
)
def read_stock_table(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Read a stock list; nothing is kept."""
    edits.find_job(request.user, job_id)
    return answer(ReadStock(stock=read_stock(body(request, Table).text)))


@router.post("/{uuid:job_id}/prices.csv", openapi_extra=describe(takes=Table, gives=Prices), operation_id="read_prices")
def read_price_table(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Read a shop's price list against the stock list; nothing is kept."""
    job = rows.job_value(edits.find_job(request.user, job_id))
    return answer(read_prices(body(request, Table).text, job.workshop.stock))


@router.get("/{uuid:job_id}/parts.csv", openapi_extra=describe(), operation_id="save_parts")
def save_parts(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Give all parts as CSV; `wobble cut` reads it."""
    units = rows.job_value(edits.find_job(request.user, job_id)).units
    return _file(write_parts(_made(request, job_id).parts, units), "text/csv", "parts.csv")


@router.get("/{uuid:job_id}/sheets/{int:number}.{form}", openapi_extra=describe(), operation_id="save_sheet")
def save_sheet(request: HttpRequest, job_id: UUID, number: int, form: Literal["svg", "dxf"]) -> HttpResponse:
    """Give one sheet at full size, as SVG or DXF."""
    sheets = _made(request, job_id).layout.sheets
    if not 1 <= number <= len(sheets):
        raise NotThere(f"There is no sheet {number}.", mend=f"There are {len(sheets)}.")
    sheet = sheets[number - 1]
    if form == "svg":
        return _file(sheet_svg(sheet, number), "image/svg+xml", f"sheet-{number}.svg")
    return _file(sheet_dxf(sheet), "application/dxf", f"sheet-{number}.dxf")


@router.get("/{uuid:job_id}/parts/{mark}/tiles", openapi_extra=describe(gives=Template), operation_id="get_part_tiles")
def get_part_tiles(request: HttpRequest, job_id: UUID, mark: str) -> HttpResponse:
    """Give what is drilled into a part, and cut off it, as pages at full size."""
    one, units = _part(request, job_id, mark)
    return answer(template(part_words(one, faces(one.part)[0], units), part_tiles(one, units)))


@router.get("/{uuid:job_id}/parts/{mark}/part.{form}", openapi_extra=describe(), operation_id="save_part")
def save_part(request: HttpRequest, job_id: UUID, mark: str, form: Literal["svg", "dxf"]) -> HttpResponse:
    """Give one part at full size, as SVG or DXF."""
    one, units = _part(request, job_id, mark)
    if form == "svg":
        return _file(part_svg(one, units), "image/svg+xml", f"part-{one.mark}.svg")
    return _file(part_dxf(one, units), "application/dxf", f"part-{one.mark}.dxf")


def _part(request: HttpRequest, job_id: UUID, mark: str) -> tuple[MarkedPart, LengthUnit]:
    one = next((p for p in _made(request, job_id).parts if p.mark == mark), None)
    if one is None:
        raise NotThere(f"There is no part “{mark}”.", mend="Marks are on the parts list.")
    return one, rows.job_value(edits.find_job(request.user, job_id)).units


@router.get("/{uuid:job_id}/papers/{what}.pdf", openapi_extra=describe(), operation_id="save_paper")
def save_paper(request: HttpRequest, job_id: UUID, what: Paper) -> HttpResponse:
    """Give a paper for the workshop as PDF: parts, sheets, settings, labels or the shopping list."""
    from wobble.core.formats.paper import pages, workshop  # a heavy library, wanted for this alone

    row = edits.find_job(request.user, job_id)
    job = rows.job_value(row)
    address = request.build_absolute_uri(f"/jobs/{job_id}/make?part=")
    about = pages.Job(
        name=row.name,
        revision=row.revision,
        date=row.changed.date().isoformat(),
        units=job.units,
        shops={s.id: s.name for s in job.workshop.shops},
        address=lambda key: address + quote(key, safe=""),
    )
    response = HttpResponse(workshop.paper(_made(request, job_id), about, what), content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{what}.pdf"'
    return response


def _made(request: HttpRequest, job_id: UUID) -> Made:
    body_ = answered(request, job_id, "", "make").content
    if not body_:  # the caller had it already, and was told so
        request.META.pop("HTTP_IF_NONE_MATCH", None)
        body_ = answered(request, job_id, "", "make").content
    return msgspec.json.decode(body_, type=Made)


def _file(text: str, kind: str, name: str) -> HttpResponse:
    response = HttpResponse(text.encode(), content_type=f"{kind}; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
