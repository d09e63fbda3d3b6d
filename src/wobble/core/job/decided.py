"""What is decided for a run: where level starts, the line of the backs, how the sides are closed; and the way in."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.value import Coordinate, NotNegative, Positive, Title, Value


class HighSpot(Value, frozen=True, kw_only=True, tag_field="rule", tag="high spot"):
    """Level starts `over_mm` over the highest spot of the floor under the run; below zero the base is cut down."""

    over_mm: Annotated[float, Meta(ge=-100, le=500)] = 0.0


class FixedTop(Value, frozen=True, kw_only=True, tag_field="rule", tag="fixed top"):
    """The tops of the units stand at `top_mm` over the datum mark, to meet what `to` says.

    `cushion_mm` lies on top of a seat: its height is then the top's and the cushion's together.
    """

    top_mm: Positive
    to: Literal["a height", "a neighbour", "a sill", "a worktop", "a table", "a seat"] = "a height"
    cushion_mm: NotNegative = 0.0


Datum = HighSpot | FixedTop


class BackLine(Value, frozen=True, kw_only=True):
    """Where the backs of the units stand: `off_mm` clear of the proudest spot, turned in plan by `turn_mm_per_m`.

    The turn is positive where the right-hand end stands further into the room.
    """

    off_mm: NotNegative = 0.0
    turn_mm_per_m: Annotated[float, Meta(ge=-100, le=100)] = 0.0


Split = Literal["as drawn", "equal", "none at the left", "none at the right", "centred"]
SideMethodName = Literal["fillers", "face frame first", "end panel", "cover moulding", "flexible filler", "shadow gap"]


class Closing(Value, frozen=True, kw_only=True):
    """How the run meets its side walls.

    Attributes:
        method: What closes the gap. split: How the spare width is shared between left and right.
        centre_mm: Where the run's middle stands along the place, for `centred` (a window's middle).
        clearance_mm: What a box needs beside it, both sides together, to go in without scraping.
        least_filler_mm: A filler is never narrower than this; where it would be, the gap is closed otherwise.
        board_mm: Thickness of fillers, panels and frames.
        moulding_mm: Width and thickness of the cover moulding to hand.
        shadow_mm: Width of the shadow gap.
        mullion_mm: Width of a face frame's upright between two openings of one box.
    """

    method: SideMethodName = "fillers"
    split: Split = "as drawn"
    centre_mm: Coordinate | None = None
    clearance_mm: NotNegative = 3.0
    least_filler_mm: NotNegative = 20.0
    board_mm: Positive = 19.0
    moulding_mm: tuple[Positive, Positive] = (25.0, 8.0)
    shadow_mm: Positive = 10.0
    mullion_mm: Positive = 40.0


class Alternative(Value, frozen=True, kw_only=True):
    """A set of decisions kept under a name, to compare with others."""

    name: Title
    datum: Datum
    back_line: BackLine
    closing: Closing = Closing()


class Doorway(Value, frozen=True, kw_only=True, tag_field="way", tag="doorway"):
    """An opening to carry through: clear width and height."""

    name: Title
    width_mm: Positive
    height_mm: Positive


class Turn(Value, frozen=True, kw_only=True, tag_field="way", tag="turn"):
    """A right-angled corner between two corridors of these clear widths, under a ceiling."""

    name: Title
    from_mm: Positive
    into_mm: Positive
    height_mm: Positive = 2400.0


class Stair(Value, frozen=True, kw_only=True, tag_field="way", tag="stair"):
    """A flight: clear width, headroom upright over the nosings, and its slope."""

    name: Title
    width_mm: Positive
    headroom_mm: Positive
    slope_deg: Annotated[float, Meta(ge=0, le=60)] = 40.0


class StandUp(Value, frozen=True, kw_only=True, tag_field="way", tag="stand up"):
    """Where tall things are stood up: how high it is there at its lowest."""

    name: Title
    height_mm: Positive


class Threshold(Value, frozen=True, kw_only=True, tag_field="way", tag="threshold"):
    """A step or threshold before the place that everything is lifted over, upright."""

    name: Title
    height_mm: Positive


Passage = Doorway | Turn | Stair | StandUp | Threshold
