"""How core values travel: msgspec in, msgspec out, and their schemas in the OpenAPI document.

The core's values bring their own JSON form, so no second set of models describes them.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, TypeVar

import msgspec
from django.http import HttpRequest, HttpResponse

from wobble.core.formats.document import decode, ready
from wobble.core.formats.paper.cutting import Tile
from wobble.site.rebase import Side

T = TypeVar("T")
_REF = "#/components/schemas/{name}"
_MARK = "x-described"
_described: list[tuple[Any, Any, int]] = []


class Fault(msgspec.Struct, frozen=True, kw_only=True):
    """Why a call was refused: a stable code, what is wrong, how to mend it, and the path of the fault.

    `theirs` is what is stored where the caller's fact contradicts it; `sides` both values of each thing that two
    changed, seen at `revision`.
    """

    code: str
    message: str
    mend: str = ""
    path: str = ""
    revision: int | None = None
    sides: tuple[Side, ...] = ()
    theirs: dict[str, Any] | None = None


def answer(value: Any, status: int = 200) -> HttpResponse:
    """Return a value as JSON."""
    return HttpResponse(msgspec.json.encode(value), content_type="application/json", status=status)


def body(request: HttpRequest, kind: type[T]) -> T:
    """Return the request's body as a value.

    Raises:
        DocumentError: It is not of that kind.
    """
    return decode(request.body, kind)


def describe(*, takes: Any = None, gives: Any = None, status: int = 200) -> dict[str, Any]:
    """Return a mark for the OpenAPI document, which `fill` replaces by what a call takes and gives.

    Working the schemas out takes longer than all else of a start, and only who reads the document needs them.
    """
    for kind in filter(None, (takes, gives)):
        ready(kind)
    _described.append((takes, gives, status))
    return {_MARK: len(_described) - 1}


def fill(document: dict[str, Any]) -> None:
    """Say of every described call what it takes and gives, and bring the schemas of all those values."""
    known: dict[str, Any] = {}

    def content(kind: Any) -> dict[str, Any]:
        (schema,), components = msgspec.json.schema_components([kind], ref_template=_REF)
        known.update(components)
        return {"application/json": {"schema": schema}}

    for call in (call for path in document["paths"].values() for call in path.values() if _MARK in call):
        takes, gives, status = _described[call.pop(_MARK)]
        call["responses"][status] = {"description": "Done"} | ({} if gives is None else {"content": content(gives)})
        call["responses"][422] = {"description": "Refused", "content": content(Fault)}
        if takes is not None:
            call["requestBody"] = {"content": content(takes), "required": True}
    document.setdefault("components", {}).setdefault("schemas", {}).update(dict(sorted(known.items())))


class TileOut(msgspec.Struct, frozen=True, kw_only=True):
    """One page of a template: its name and its drawing at full size."""

    name: str
    svg: str


class Template(msgspec.Struct, frozen=True, kw_only=True):
    """A cut line to print at full size, with the words that belong on it."""

    words: tuple[str, ...]
    tiles: tuple[TileOut, ...]


def template(words: tuple[str, ...], tiles: Iterable[Tile]) -> Template:
    """Return pages at full size as they are answered."""
    return Template(words=words, tiles=tuple(TileOut(name=t.name, svg=t.svg) for t in tiles))
