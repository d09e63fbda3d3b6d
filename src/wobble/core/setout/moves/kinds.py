"""What can be done on the rods: each move as a value."""

from __future__ import annotations

from typing import Annotated

from msgspec import Meta

from wobble.core.errors import WobbleError
from wobble.core.job import (
    Coordinate,
    Edge,
    Key,
    Positive,
    Rule,
    Value,
)
from wobble.core.job.unit import UnitKind


class MoveError(WobbleError):
    """A move that cannot be made."""

    code = "move"


class Drag(Value, frozen=True, kw_only=True, tag_field="move", tag="drag"):
    """An edge is held and moved to a place; its middle moves the whole piece. Brought to another edge it stays."""

    edge: Edge
    at_mm: Coordinate
    to: Edge | None = None


class TypeEdge(Value, frozen=True, kw_only=True, tag_field="move", tag="type"):
    """A number is typed on an edge: it is kept there, whatever else follows."""

    edge: Edge
    at_mm: Coordinate


class TypeWidth(Value, frozen=True, kw_only=True, tag_field="move", tag="type width"):
    """A number is typed as a piece's width."""

    unit: Key
    wide_mm: Positive


class Insert(Value, frozen=True, kw_only=True, tag_field="move", tag="insert"):
    """A piece of a kind is put in: right of another one, or where there is room."""

    kind: UnitKind
    after: Key | None = None


class SplitUp(Value, frozen=True, kw_only=True, tag_field="move", tag="split"):
    """A piece becomes several of equal width side by side."""

    unit: Key
    parts: Annotated[int, Meta(ge=2, le=12)] = 2


class Merge(Value, frozen=True, kw_only=True, tag_field="move", tag="merge"):
    """Pieces side by side become one, as the first of them is."""

    units: Annotated[tuple[Key, ...], Meta(min_length=2, max_length=20)]


class Copy(Value, frozen=True, kw_only=True, tag_field="move", tag="copy"):
    """A piece once more, at its right; `deeper_mm`, `taller_mm` and `wider_mm` make it a little more."""

    unit: Key
    deeper_mm: Coordinate = 0.0
    taller_mm: Coordinate = 0.0
    wider_mm: Coordinate = 0.0


class Mirror(Value, frozen=True, kw_only=True, tag_field="move", tag="mirror"):
    """A piece once more at its right, as seen in a mirror; or, `in_place`, itself turned over."""

    unit: Key
    in_place: bool = False


class Delete(Value, frozen=True, kw_only=True, tag_field="move", tag="delete"):
    """Pieces or things that stay are taken out, with all rules that name them."""

    ids: Annotated[tuple[Key, ...], Meta(min_length=1, max_length=100)]


class Say(Value, frozen=True, kw_only=True, tag_field="move", tag="say"):
    """A rule is said; those that hold the same edge or width give way."""

    rule: Rule


class Release(Value, frozen=True, kw_only=True, tag_field="move", tag="release"):
    """A rule is taken off; what it held stays where it is now."""

    rule: Key


Move = Drag | TypeEdge | TypeWidth | Insert | SplitUp | Merge | Copy | Mirror | Delete | Say | Release
