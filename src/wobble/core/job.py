"""The job as a value: frozen structures that every stage reads and none changes.

Glossary. *Bay*: one run of units against a back surface. *Set-up*: one placing of a laser, string or level line that
readings are taken from. *Reading*: one measured number, a fact. *Standing*: whether a reading is in use.

Axes of a bay: right-handed, mm; x along the back from the nominal left wall, y out of the back into the room, z up from
the datum mark. A spot on a surface is a pair: (x, y) on floor and ceiling, (x, z) on the back, (y, z) on left and
right.
"""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.behind import Backing, Detection
from wobble.core.decided import (
    Alternative,
    BackLine,
    Closing,
    Datum,
    Doorway,
    FixedTop,
    HighSpot,
    Passage,
    Stair,
    StandUp,
    Threshold,
    Turn,
)
from wobble.core.length import LengthUnit
from wobble.core.unit import Unit
from wobble.core.value import Coordinate, Count, Key, Moment, Name, NotNegative, Positive, Text, Value

__all__ = [
    "Alternative",
    "BackLine",
    "Backing",
    "Closing",
    "Coordinate",
    "Datum",
    "Detection",
    "Doorway",
    "FixedTop",
    "HighSpot",
    "Moment",
    "Name",
    "Passage",
    "Positive",
    "Stair",
    "StandUp",
    "Text",
    "Threshold",
    "Turn",
    "Unit",
    "Value",
]

SurfaceName = Literal["floor", "ceiling", "back", "left", "right"]
Axis = Literal["x", "y", "z"]
Spot = tuple[float, float]

SURFACE_AXES: dict[SurfaceName, tuple[Axis, Axis, Axis]] = {
    "floor": ("x", "y", "z"),
    "ceiling": ("x", "y", "z"),
    "back": ("x", "z", "y"),
    "left": ("y", "z", "x"),
    "right": ("y", "z", "x"),
}
"""The two axes of a spot on the surface, then the axis along which the surface is measured."""

TOWARDS_INSTALLER: dict[SurfaceName, int] = {"floor": 1, "ceiling": -1, "back": 1, "left": 1, "right": -1}
"""Sign of *proud*: +1 where a larger coordinate stands towards the installer."""


class FlipCheck(Value, frozen=True, kw_only=True, tag_field="check", tag="flip"):
    """A level read twice on one place, turned end for end between: the rise over `length_mm`, mm, both times.

    Both rises are told in the same direction along the place, so that their mean is the place's and half their
    difference the level's own.
    """

    at: Moment
    length_mm: Positive
    first_mm: Coordinate
    turned_mm: Coordinate


class HookCheck(Value, frozen=True, kw_only=True, tag_field="check", tag="hook"):
    """One length read twice with a tape: by its hook, and from `mark_mm` on the tape, where the hook has no part."""

    at: Moment
    hooked_mm: Positive
    from_mark_mm: Positive
    mark_mm: Positive = 100.0


class SquareCheck(Value, frozen=True, kw_only=True, tag_field="check", tag="square"):
    """A line drawn along a square, the square flipped over, and a second line drawn from the same foot.

    `apart_mm` is between the two lines at `leg_mm` from the foot: positive where they open away from each other, as
    they do along a square that is wider than square.
    """

    at: Moment
    leg_mm: Positive
    apart_mm: Coordinate


InstrumentCheck = FlipCheck | HookCheck | SquareCheck
InstrumentKind = Literal[
    "laser line", "laser meter", "water level", "string line", "level", "digital level", "tape", "square"
]


class Instrument(Value, frozen=True, kw_only=True):
    """What a reading was taken with. `sigma_mm` is the standard uncertainty of one reading (JCGM 100, type B).

    What a check finds is taken off all that is read with the instrument from the check on, until the next.
    """

    id: Key
    name: Name
    kind: InstrumentKind = "tape"
    sigma_mm: Annotated[float, Meta(gt=0, le=50)] = 0.5
    checks: Annotated[tuple[InstrumentCheck, ...], Meta(max_length=50)] = ()


class SetUp(Value, frozen=True, kw_only=True):
    """A reference plane across one axis, at `at_mm` on it; None when its place is not known."""

    id: Key
    name: Name
    across: Axis = "z"
    at_mm: Coordinate | None = None
    sigma_mm: NotNegative = 0.0


class Aside(Value, frozen=True, kw_only=True):
    """Why and by whom a reading was set aside."""

    reason: Text
    at: Moment
    by: Name = ""


class _Reading(Value, frozen=True, kw_only=True):
    id: Key
    instrument: Key
    taken_at: Moment
    taken_by: Name = ""
    entered: Annotated[str, Meta(max_length=60)] = ""
    note: Text = ""
    supersedes: Key | None = None
    aside: Aside | None = None


class Offset(_Reading, frozen=True, kw_only=True, tag_field="kind", tag="offset"):
    """Distance from a set-up's plane to a surface at a spot, mm, positive on the surface's usual side of the plane."""

    surface: SurfaceName
    at: tuple[Coordinate, Coordinate]
    set_up: Key
    value_mm: Coordinate


class Slope(_Reading, frozen=True, kw_only=True, tag_field="kind", tag="slope"):
    """Difference along the surface's own axis between two spots: positive where `end` has the larger coordinate.

    `turned` says that the level lay end for end: its bias then counts the other way, and two readings of one place,
    one of them turned, find it.
    """

    surface: SurfaceName
    start: tuple[Coordinate, Coordinate]
    end: tuple[Coordinate, Coordinate]
    value: Coordinate
    unit: Literal["mm", "mm/m", "deg"] = "mm"
    turned: bool = False


class Span(_Reading, frozen=True, kw_only=True, tag_field="kind", tag="span"):
    """Distance between opposite surfaces, mm: left to right at (y, z), or floor to ceiling at (x, y)."""

    between: Literal["left-right", "floor-ceiling"]
    at: tuple[Coordinate, Coordinate]
    value_mm: Positive


class Gap(_Reading, frozen=True, kw_only=True, tag_field="kind", tag="gap"):
    """Gap at a spot under a straightedge that touches the surface at two others, mm; the three lie in a line."""

    surface: SurfaceName
    start: tuple[Coordinate, Coordinate]
    end: tuple[Coordinate, Coordinate]
    at: tuple[Coordinate, Coordinate]
    value_mm: NotNegative


class Corner(_Reading, frozen=True, kw_only=True, tag_field="kind", tag="corner"):
    """The angle in plan between the back and a side wall, `height_mm` up, over a leg along the back and one out.

    By `diagonal` the value is the distance between the ends of the legs (the 3-4-5 triangle is one case); by `square`
    it is the gap at the tip of a square of `out_mm` that is held to the back: positive where the corner is wider than
    square, negative where the gap is at its heel.
    """

    corner: Literal["back-left", "back-right"]
    height_mm: Coordinate
    along_mm: Positive
    out_mm: Positive
    how: Literal["diagonal", "square"] = "diagonal"
    value_mm: Coordinate


class Profile(_Reading, frozen=True, kw_only=True, tag_field="kind", tag="profile"):
    """Offsets from one straight stick: at each place on the surface's second axis, how far the surface stands off, mm.

    The stick is a set-up; what is not known of where it stands is found like a line's place.
    """

    surface: SurfaceName
    along_mm: Coordinate
    set_up: Key
    points: Annotated[tuple[tuple[Coordinate, Coordinate], ...], Meta(min_length=1, max_length=200)]


class Scan(_Reading, frozen=True, kw_only=True, tag_field="kind", tag="scan"):
    """Many offsets from one plane, thinned from a file: (first axis, second axis, distance), mm.

    `tilt_mm_per_m` is how far the file's own axes may be out of true (standard uncertainty); 0 for a scanner that
    levels itself.
    """

    surface: SurfaceName
    set_up: Key
    n_read: Count = 0
    tilt_mm_per_m: NotNegative = 0.0
    points: Annotated[tuple[tuple[Coordinate, Coordinate, Coordinate], ...], Meta(min_length=1, max_length=2000)]


Reading = Offset | Slope | Span | Gap | Corner | Profile | Scan
SIDE_OF: dict[str, SurfaceName] = {"back-left": "left", "back-right": "right"}
"""The wall that stands against the back in a corner."""


MarkKind = Literal[
    "outlet",
    "switch",
    "wire",
    "pipe",
    "valve",
    "spout",
    "vent",
    "radiator",
    "window board",
    "casing",
    "skirting",
    "trim",
    "column",
    "bulkhead",
    "wheel arch",
]
Treatment = Literal["keep clear", "notch", "bridge", "remove", "move by a licensed trade"]


class Mark(Value, frozen=True, kw_only=True):
    """Something in the way on a surface, at its lower corner `at`, of a size on the surface's two axes."""

    id: Key
    name: Name
    kind: MarkKind
    surface: SurfaceName
    at: tuple[Coordinate, Coordinate]
    size: tuple[Positive, Positive]
    proud_mm: NotNegative = 0.0
    treatment: Treatment = "keep clear"
    note: Text = ""


BayKind = Literal["open", "corner", "alcove", "under a slope", "overhead", "vehicle"]


class Knee(Value, frozen=True, kw_only=True):
    """Where a ceiling turns into a slope: the line across `along` at `at_mm`."""

    along: Literal["x", "y"] = "y"
    at_mm: Coordinate


class Note(Value, frozen=True, kw_only=True):
    """Something seen on site, where and by whom; a fact like a reading."""

    id: Key
    text: Annotated[str, Meta(min_length=1, max_length=4000)]
    written_at: Moment
    written_by: Name = ""
    surface: SurfaceName | None = None
    at: tuple[Coordinate, Coordinate] | None = None


class Bay(Value, frozen=True, kw_only=True):
    """One run of units against a back surface, with all its readings.

    `right_is_back_of` names the bay that meets this one in an inside corner at its right end: the right wall of this
    bay is that one's back, and the back of this one that one's left wall; readings of either then tell of both.
    """

    id: Key
    name: Name
    kind: BayKind = "open"
    frame: Literal["gravity", "body"] = "gravity"
    character: Literal["true", "typical", "rough"] = "typical"
    width_mm: Positive
    depth_mm: Positive
    height_mm: Positive
    surfaces: Annotated[tuple[SurfaceName, ...], Meta(min_length=1, max_length=5)] = ("floor", "back")
    set_ups: Annotated[tuple[SetUp, ...], Meta(max_length=200)] = ()
    readings: Annotated[tuple[Reading, ...], Meta(max_length=5000)] = ()
    units: Annotated[tuple[Unit, ...], Meta(max_length=100)] = ()
    marks: Annotated[tuple[Mark, ...], Meta(max_length=200)] = ()
    notes: Annotated[tuple[Note, ...], Meta(max_length=1000)] = ()
    knee: Knee | None = None
    right_is_back_of: Key | None = None
    datum: Datum = HighSpot()
    back_line: BackLine = BackLine()
    closing: Closing = Closing()
    alternatives: Annotated[tuple[Alternative, ...], Meta(max_length=8)] = ()
    backing: Backing | None = None
    overhead: Backing | None = None
    underfoot: Backing | None = None
    detections: Annotated[tuple[Detection, ...], Meta(max_length=1000)] = ()


class ShimPiece(Value, frozen=True, kw_only=True):
    """A flat shim. `count` is how many are to hand; None for as many as wanted."""

    thickness_mm: Annotated[float, Meta(gt=0, le=200)]
    count: Count | None = None


class Taper(Value, frozen=True, kw_only=True):
    """One wedge of a tapered pair: two of them slide on each other, thin ends opposed."""

    length_mm: Positive
    thin_mm: NotNegative
    thick_mm: Positive
    count: Count | None = None


class ShimKit(Value, frozen=True, kw_only=True):
    """What the installer has to pack with.

    A stack is good when it is within `tolerance_mm` of its gap; above `max_stack_mm` a block or a base frame is asked
    for; a tapered pair must overlap by `least_overlap_mm`.
    """

    pieces: Annotated[tuple[ShimPiece, ...], Meta(max_length=40)] = (
        ShimPiece(thickness_mm=1.0),
        ShimPiece(thickness_mm=2.0),
        ShimPiece(thickness_mm=3.0),
        ShimPiece(thickness_mm=5.0),
    )
    tapers: Annotated[tuple[Taper, ...], Meta(max_length=10)] = (Taper(length_mm=150.0, thin_mm=1.0, thick_mm=8.0),)
    tolerance_mm: Annotated[float, Meta(gt=0, le=10)] = 0.5
    max_stack_mm: Positive = 25.0
    least_overlap_mm: NotNegative = 50.0


class Job(Value, frozen=True, kw_only=True):
    """A whole job: the value behind the job document, the API and the database."""

    format: Literal["wobble-job"] = "wobble-job"
    version: Literal[1] = 1
    name: Name
    place: Name = ""
    note: Text = ""
    units: LengthUnit = "mm"
    instruments: Annotated[tuple[Instrument, ...], Meta(max_length=100)] = ()
    kit: ShimKit = ShimKit()
    bays: Annotated[tuple[Bay, ...], Meta(max_length=50)] = ()
    way_in: Annotated[tuple[Passage, ...], Meta(max_length=20)] = ()


def standing_readings(bay: Bay) -> tuple[Reading, ...]:
    """Return the readings in use: neither set aside nor superseded by a later one that is not set aside itself."""
    superseded = {reading.supersedes for reading in bay.readings if reading.aside is None}
    return tuple(r for r in bay.readings if r.aside is None and r.id not in superseded)


def surface_extent(bay: Bay, surface: SurfaceName) -> tuple[Spot, Spot]:
    """Return the (low, high) range of each of a surface's two axes, mm."""
    size = {"x": bay.width_mm, "y": bay.depth_mm, "z": bay.height_mm}
    first, second, _ = SURFACE_AXES[surface]
    return (0.0, size[first]), (0.0, size[second])


def reading_spots(reading: Reading) -> tuple[tuple[SurfaceName, Spot], ...]:
    """Return every surface and spot that a reading touches."""
    match reading:
        case Offset():
            return ((reading.surface, reading.at),)
        case Slope():
            return ((reading.surface, reading.start), (reading.surface, reading.end))
        case Gap():
            return tuple((reading.surface, spot) for spot in (reading.at, reading.start, reading.end))
        case Profile():
            return tuple((reading.surface, (reading.along_mm, second)) for second, _ in reading.points)
        case Scan():
            return tuple((reading.surface, (first, second)) for first, second, _ in reading.points)
        case Corner():
            side = SIDE_OF[reading.corner]
            return (side, (0.0, reading.height_mm)), (side, (reading.out_mm, reading.height_mm))
        case Span(between="left-right"):
            return (("left", reading.at), ("right", reading.at))
        case _:
            return (("floor", reading.at), ("ceiling", reading.at))
