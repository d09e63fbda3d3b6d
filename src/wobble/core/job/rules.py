"""Where edges stand along the place, as rules over other edges: what was meant is kept, not what it came to."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.value import Coordinate, Key, NotNegative, Positive, Value

EdgeName = Literal["left", "middle", "right"]
PLACE = "place"
"""In a rule, what the place's own walls are called."""


class Edge(Value, frozen=True, kw_only=True):
    """An edge of a unit, an obstacle, an opening or a thing that stays, by its id; or of the place: its side walls."""

    of: Key
    edge: EdgeName = "left"


class At(Value, frozen=True, kw_only=True, tag_field="rule", tag="at"):
    """An edge stands at a number, mm from the corner."""

    id: Key
    edge: Edge
    at_mm: Coordinate


class LinedUp(Value, frozen=True, kw_only=True, tag_field="rule", tag="lined up"):
    """An edge stands `off_mm` to the right of another one (below zero to its left): a wall, a neighbour, a window."""

    id: Key
    edge: Edge
    to: Edge
    off_mm: Coordinate = 0.0


class Wide(Value, frozen=True, kw_only=True, tag_field="rule", tag="wide"):
    """A unit is so wide, whatever else follows."""

    id: Key
    unit: Key
    wide_mm: Positive


class Equal(Value, frozen=True, kw_only=True, tag_field="rule", tag="equal"):
    """Units are of one width."""

    id: Key
    units: Annotated[tuple[Key, ...], Meta(min_length=2, max_length=100)]


class AsWide(Value, frozen=True, kw_only=True, tag_field="rule", tag="as wide as"):
    """A unit is as wide as another thing, and `more_mm` more."""

    id: Key
    unit: Key
    than: Key
    more_mm: Coordinate = 0.0


class Centred(Value, frozen=True, kw_only=True, tag_field="rule", tag="centred"):
    """A row of units stands with its middle on the middle of a thing, or of the place."""

    id: Key
    units: Annotated[tuple[Key, ...], Meta(min_length=1, max_length=100)]
    on: Key = PLACE


Rule = At | LinedUp | Wide | Equal | AsWide | Centred

MemberName = Literal["covering", "base", "box", "facing", "board", "cushion"]


class Member(Value, frozen=True, kw_only=True):
    """One layer of a stack of heights, from the floor up."""

    name: MemberName
    high_mm: NotNegative


class HeightStack(Value, frozen=True, kw_only=True):
    """Heights over each other: covering, base, box, facing, board, cushion; one of them gives so that the sum is right.

    Attributes:
        units: Boxes that stand in it: their height is base, box and facing together, their base that of the stack.
        tops: Boards that lie on them, and cushions. finished_mm: The finished face over the finished floor.
        gives: Which member follows. covering_later: The covering is laid afterwards, up to the units; else first, under
            them. beside_mm: The height of what it stands against, over the finished floor. beside: What that is.
        base_as: The skirting that the base is exactly as high as, so that it covers it.
    """

    id: Key
    units: Annotated[tuple[Key, ...], Meta(max_length=100)] = ()
    tops: Annotated[tuple[Key, ...], Meta(max_length=100)] = ()
    members: Annotated[tuple[Member, ...], Meta(min_length=1, max_length=6)]
    finished_mm: Positive | None = None
    gives: MemberName | None = None
    covering_later: bool = True
    beside_mm: Positive | None = None
    beside: Literal["a table", "a sill", "a worktop", "a desk"] = "a table"
    base_as: Key | None = None
