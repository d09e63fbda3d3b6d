"""What is inside a carcass: columns and rows of cells, what fills and closes each, and how the carcass is built."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.job.board import MaterialName
from wobble.core.value import Key, NotNegative, Positive, Title, Value


class FramedFront(Value, frozen=True, kw_only=True):
    """A face frame on a carcass: stiles upright at its ends, rails across, mullions between columns.

    An open end has no stile: the carcass is joined to what stands there, or is left open on purpose.
    """

    stile_mm: Positive = 40.0
    rail_mm: Positive = 40.0
    mullion_mm: Positive = 40.0
    thick_mm: Positive = 20.0
    open_end: Literal["none", "left", "right"] = "none"


BackName = Literal["none", "applied", "rebated", "grooved"]


class Construction(Value, frozen=True, kw_only=True):
    """A named way of building a carcass, said once for a job.

    `sides` says whether the sides run through at the corners, with top and bottom between them, or stand between those.
    An applied back lies behind the carcass, a rebated one is let in flush, a grooved one stands `groove_in_mm` in.
    A top is whole, or two stretchers of `stretcher_mm` where a worktop lies on it. `board` names the stock that boxes
    are cut from: its thickness as measured then takes the place of `board_mm`. Banding of `band_mm` is taken off before
    cutting; thinner than half a millimetre it is let be 0. `handle_apart_mm` is how far the two holes of a handle are
    apart, 0 for a knob, None while none is chosen; it stands `handle_in_mm` in from the edges. Pin holes are
    `pin_pitch_mm` apart.
    """

    id: Key
    name: Title
    board_mm: Positive = 18.0
    sides: Literal["through", "between"] = "through"
    back: BackName = "grooved"
    back_mm: NotNegative = 6.0
    groove_in_mm: NotNegative = 12.0
    face_frame: FramedFront | None = None
    top: Literal["whole", "stretchers"] = "whole"
    stretcher_mm: Positive = 100.0
    material: MaterialName = "plywood"
    board: Key | None = None
    front_mm: Positive = 18.0
    drawer_mm: Positive = 15.0
    drawer_bottom_mm: Positive = 6.0
    joined: Literal["screws", "pocket screws", "dowels"] = "screws"
    banded: bool = True
    band_mm: NotNegative = 0.0
    pin_pitch_mm: Annotated[float, Meta(ge=10, le=200)] = 32.0
    handle_apart_mm: Annotated[float, Meta(ge=0, le=1500)] | None = None
    handle_in_mm: Annotated[float, Meta(ge=10, le=300)] = 40.0


SlideKind = Literal["side", "under", "wood"]


class Slides(Value, frozen=True, kw_only=True):
    """What drawers run on: `side_mm` is taken at each side, `over_mm` and `under_mm` stay free over and under the box.

    At the sides 12.7 mm (half an inch) each is what ball-bearing slides ask for; under the box some 5 mm each; wooden
    runners want a millimetre or two. The maker's sheet counts.
    """

    kind: SlideKind = "side"
    side_mm: NotNegative = 12.7
    over_mm: NotNegative = 15.0
    under_mm: NotNegative = 10.0


class Content(Value, frozen=True, kw_only=True):
    """A thing that goes in or on: its size as it stands there, what one weighs, how many, and the room over it.

    `plug_mm` is the larger side of the plug at the end of its cable, where it has one.
    """

    name: Title
    width_mm: Positive
    depth_mm: Positive
    height_mm: Positive
    weight_kg: Annotated[float, Meta(ge=0, le=2000)] = 0.0
    count: Annotated[int, Meta(ge=1, le=1000)] = 1
    stacked: Annotated[int, Meta(ge=1, le=20)] = 1
    room_mm: NotNegative = 20.0
    plug_mm: NotNegative = 0.0


Hangs = Literal["left", "right", "pair", "up", "down"]
Lies = Literal["inset", "half overlay", "full overlay"]
Hinge = Literal["not chosen", "cup", "butt", "piano", "pivot"]


class Door(Value, frozen=True, kw_only=True):
    """What closes a cell on hinges. An inset door stands in its opening, an overlay one before the boards around it.

    Cutting depends on the hinge, as it says how far the door may lie over.
    """

    hangs: Hangs = "left"
    lies: Lies = "full overlay"
    hinge: Hinge = "not chosen"
    gap_mm: NotNegative = 2.0


class Bare(Value, frozen=True, kw_only=True, tag_field="fill", tag="nothing"):
    """An empty cell."""


class Shelved(Value, frozen=True, kw_only=True, tag_field="fill", tag="shelves"):
    """Shelves that share a cell's height equally: fixed, or adjustable on pins."""

    count: Annotated[int, Meta(ge=1, le=20)] = 1
    held: Literal["pins", "fixed"] = "pins"
    thick_mm: Positive = 18.0


class Drawers(Value, frozen=True, kw_only=True, tag_field="fill", tag="drawers"):
    """Drawers over each other, from the bottom; `heights_mm` of their boxes, or all alike and as high as can be."""

    count: Annotated[int, Meta(ge=1, le=12)] = 3
    heights_mm: Annotated[tuple[Positive, ...], Meta(max_length=12)] = ()
    slides: Slides = Slides()


class PullOut(Value, frozen=True, kw_only=True, tag_field="fill", tag="pull-out"):
    """A board on slides, with what stands on it; `over_mm` is what its lid needs over it when it is out."""

    thick_mm: Positive = 18.0
    slides: Slides = Slides()


class Columns(Value, frozen=True, kw_only=True, tag_field="fill", tag="columns"):
    """Cells beside each other, from the left, with a board between each two."""

    cells: Annotated[tuple[Cell, ...], Meta(min_length=2, max_length=12)]


class Rows(Value, frozen=True, kw_only=True, tag_field="fill", tag="rows"):
    """Cells over each other, from the bottom, with a board between each two."""

    cells: Annotated[tuple[Cell, ...], Meta(min_length=2, max_length=12)]


Fill = Bare | Shelved | Drawers | PullOut | Columns | Rows


class Cell(Value, frozen=True, kw_only=True):
    """One part of a carcass: its size along the way it was split, what fills it, closes it and stands in it.

    Its size is `size_mm`, or what its contents need, or else its `share` of what the others leave.
    """

    size_mm: Positive | None = None
    by_contents: bool = False
    share: Annotated[float, Meta(ge=0.01, le=100)] = 1.0
    fill: Fill = Bare()
    door: Door | None = None
    holds: Annotated[tuple[Content, ...], Meta(max_length=40)] = ()


DEEPEST = 4
"""How often cells may be split within each other."""


class Insides(Value, frozen=True, kw_only=True):
    """A carcass inside: how it is built (the id of one of the job's ways), and its cells."""

    built: Key | None = None
    cell: Cell = Cell()


HoleKind = Literal["cable hole", "hatch", "lid", "cut-out"]
HoleIn = Literal["top", "back", "left side", "right side", "front"]


class Hole(Value, frozen=True, kw_only=True):
    """An opening cut into a board of a unit, at its lower left corner as one faces that board (a top from above).

    A lid has a fixed strip of `strip_mm` behind it that its hinges are screwed to; `plug_mm` is the larger side of the
    plug that must pass.
    """

    id: Key
    name: Title
    kind: HoleKind = "cable hole"
    inside: HoleIn = "back"
    at: tuple[NotNegative, NotNegative] = (0.0, 0.0)
    size: tuple[Positive, Positive] = (60.0, 60.0)
    strip_mm: NotNegative = 0.0
    plug_mm: NotNegative = 0.0
