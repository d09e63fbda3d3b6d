"""How core values travel: msgspec in, msgspec out, and their schemas in the OpenAPI document.

The core's values bring their own JSON form, so no second set of models describes them.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, TypeVar

import msgspec
from django.http import HttpRequest, HttpResponse

from wobble.core.formats.document import decode
from wobble.core.formats.paper.cutting import Tile
from wobble.site.rebase import Side

T = TypeVar("T")
_REF = "#/components/schemas/{name}"
_known: dict[str, Any] = {}


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
    """Return what the OpenAPI document says of a call beyond its address."""
    extra: dict[str, Any] = {"responses": {status: {"description": "Done"}, 422: _content(Fault, "Refused")}}
    if gives is not None:
        extra["responses"][status] = _content(gives, "Done")
    if takes is not None:
        extra["requestBody"] = _content(takes, "") | {"required": True}
        del extra["requestBody"]["description"]
    return extra


def _content(kind: Any, description: str) -> dict[str, Any]:
    (schema,), components = msgspec.json.schema_components([kind], ref_template=_REF)
    _known.update(components)
    return {"description": description, "content": {"application/json": {"schema": schema}}}


def components() -> dict[str, Any]:
    """Return the schemas of all values that calls take or give."""
    return dict(sorted(_known.items()))


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
