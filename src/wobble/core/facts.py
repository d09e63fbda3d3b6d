"""What was found out: every reading, detection, note and obstacle is a fact, and all facts are kept alike.

A fact is written once. It is never edited: a later one *supersedes* it, or it is set *aside* with the reason kept.
*Active* is what is neither. To add a kind of fact, write a struct with a tag of its own and put it into `Fact`.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal, TypeVar

from msgspec import Meta

from wobble.core.axes import Spot, SurfaceName
from wobble.core.value import (
    Coordinate,
    Count,
    Key,
    Moment,
    Name,
    NotNegative,
    Positive,
    Text,
    Title,
    Value,
    check_year,
)

FoundBy = Literal["scanner", "magnet", "knock", "trial hole", "nail seen"]
Sees = Literal["centre", "left edge", "right edge", "screw", "hit", "miss", "something else"]
Behind = Literal["back", "left", "right", "ceiling", "floor"]


class Aside(Value, frozen=True, kw_only=True):
    """Why and by whom a reading was set aside."""

    reason: Text
    at: Moment
    by: Name = ""

    def __post_init__(self) -> None:
        check_year(self.at)


class _Fact(Value, frozen=True, kw_only=True):
    id: Key
    taken_at: Moment
    taken_by: Name = ""
    supersedes: Key | None = None
    aside: Aside | None = None

    def __post_init__(self) -> None:
        check_year(self.taken_at)


class _Reading(_Fact, frozen=True, kw_only=True):
    instrument: Key
    entered: Annotated[str, Meta(max_length=60)] = ""
    note: Text = ""


class Offset(_Reading, frozen=True, kw_only=True, tag_field="fact", tag="offset"):
    """Distance from a set-up's plane to a surface at a spot, mm, positive on the surface's usual side of the plane."""

    surface: SurfaceName
    at: tuple[Coordinate, Coordinate]
    set_up: Key
    value_mm: Coordinate


class Slope(_Reading, frozen=True, kw_only=True, tag_field="fact", tag="slope"):
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


class Span(_Reading, frozen=True, kw_only=True, tag_field="fact", tag="span"):
    """Distance between opposite surfaces, mm: left to right at (y, z), or floor to ceiling at (x, y)."""

    between: Literal["left-right", "floor-ceiling"]
    at: tuple[Coordinate, Coordinate]
    value_mm: Positive


class Gap(_Reading, frozen=True, kw_only=True, tag_field="fact", tag="gap"):
    """Gap at a spot under a straightedge that touches the surface at two others, mm; the three lie in a line."""

    surface: SurfaceName
    start: tuple[Coordinate, Coordinate]
    end: tuple[Coordinate, Coordinate]
    at: tuple[Coordinate, Coordinate]
    value_mm: NotNegative


class Corner(_Reading, frozen=True, kw_only=True, tag_field="fact", tag="corner"):
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


class Profile(_Reading, frozen=True, kw_only=True, tag_field="fact", tag="profile"):
    """Offsets from one straight stick: at each place on the surface's second axis, how far the surface stands off, mm.

    The stick is a set-up; what is not known of where it stands is found like a line's place.
    """

    surface: SurfaceName
    along_mm: Coordinate
    set_up: Key
    points: Annotated[tuple[tuple[Coordinate, Coordinate], ...], Meta(min_length=1, max_length=200)]


class Scan(_Reading, frozen=True, kw_only=True, tag_field="fact", tag="scan"):
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


class Detection(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="detection"):
    """Something found behind a lining, at a spot of its surface, by one method; a hole that bit or missed is one too.

    `something else` is a hole that met what is no wood: nothing is drilled near it until somebody knows what it is.
    """

    surface: Behind = "back"
    at: tuple[Coordinate, Coordinate]
    found_by: FoundBy
    sees: Sees = "centre"


class Note(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="note"):
    """Something seen on site, what went wrong and why, what was agreed, or what is open for the next job.

    `about` is the key of the step or the check that it belongs to, where there is one.
    """

    text: Annotated[str, Meta(min_length=1, max_length=4000)]
    surface: SurfaceName | None = None
    at: tuple[Coordinate, Coordinate] | None = None
    kind: Literal["seen", "went wrong", "agreed", "open"] = "seen"
    about: Annotated[str, Meta(max_length=200)] = ""


ObstacleKind = Literal[
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
Treatment = Literal["keep clear", "notch", "bridge", "access hole", "duct", "remove", "move by a licensed trade"]


class Obstacle(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="obstacle"):
    """Something in the way on a surface, at its lower corner `at`, of a size on the surface's two axes."""

    name: Title
    kind: ObstacleKind
    surface: SurfaceName
    at: tuple[Coordinate, Coordinate]
    size: tuple[Positive, Positive]
    proud_mm: NotNegative = 0.0
    treatment: Treatment = "keep clear"
    note: Text = ""


class CutDone(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="cut"):
    """Parts that were cut: how many of which, whether they came right, and the size that they were cut to, mm.

    One that came short or wrong is wanted again; its size says what else it may do for.
    """

    part: Annotated[str, Meta(min_length=1, max_length=120)]
    count: Annotated[int, Meta(ge=1, le=1000)] = 1
    came: Literal["right", "short", "wrong"] = "right"
    size: tuple[Positive, Positive] | None = None
    thick_mm: Positive | None = None


class Known(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="known"):
    """What a part waited for is known or done, by its key; with the length that was measured, where it is one."""

    what: Annotated[str, Meta(min_length=1, max_length=120)]
    value_mm: Positive | None = None


class Bought(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="bought"):
    """So many of one item of the stock list are bought and at hand; `shop` is where, by its id, if that is known."""

    item: Key
    count: Annotated[int, Meta(ge=1, le=1000)] = 1
    shop: Annotated[str, Meta(max_length=80)] = ""


class StepDone(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="step"):
    """A step that was done, by its key and its name then, and how many minutes it took, if somebody saw the clock."""

    step: Annotated[str, Meta(min_length=1, max_length=200)]
    name: Name = ""
    minutes: Annotated[float, Meta(ge=0.5, le=10_000)] | None = None


class LaidUnder(Value, frozen=True, kw_only=True):
    """What lay under one support when a unit was set: where on the floor, mm, which corner, and how thick, mm."""

    at: tuple[Coordinate, Coordinate]
    corner: Annotated[str, Meta(max_length=40)]
    mm: Annotated[float, Meta(ge=-500, le=2000)]


class Stands(Value, frozen=True, kw_only=True):
    """Where a unit was to stand when it was checked: its left edge, back and underside, its size, what lay under it.

    `under_mm` is over the datum mark where `tied` says that heights count from it.
    """

    x_mm: Coordinate
    out_mm: Coordinate
    under_mm: Coordinate
    tied: bool = False
    wide_mm: Positive
    deep_mm: Positive
    high_mm: Positive
    on: Annotated[tuple[LaidUnder, ...], Meta(max_length=24)] = ()


class AsSet(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="as set"):
    """What a check came to: its key, what was read, mm, or whether it came right where nothing is read.

    A level's reading is the rise over the check's own base, as the check says which way counts. What was expected, of
    which unit, and where that was to stand, are kept with it: what follows from it follows from what was planned then.
    """

    check: Annotated[str, Meta(min_length=1, max_length=200)]
    value_mm: Coordinate | None = None
    came: Literal["right", "wrong"] | None = None
    instrument: Annotated[str, Meta(max_length=80)] = ""
    expected_mm: Coordinate | None = None
    of: Annotated[str, Meta(max_length=80)] = ""
    stands: Stands | None = None

    def __post_init__(self) -> None:
        check_year(self.taken_at)
        if (self.value_mm is None) == (self.came is None):
            raise ValueError("A check has either a length or whether it came right")


class Followed(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="followed"):
    """What was read on a unit that stands, by the ids of the facts, and the rest of the plan was to follow from."""

    readings: Annotated[tuple[Key, ...], Meta(min_length=1, max_length=200)]


FoundOtherwise = Literal[
    "no stud", "wire or pipe", "joists the other way", "no box", "other openings", "wall opened", "other"
]


class Otherwise(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="otherwise"):
    """Something that turned out other than planned, of which piece, fastener or thing, and where it was found.

    `count` is how many openings a box has after all.
    """

    what: FoundOtherwise
    of: Annotated[str, Meta(max_length=120)] = ""
    surface: Behind | None = None
    at: tuple[Coordinate, Coordinate] | None = None
    count: Annotated[int, Meta(ge=1, le=12)] | None = None
    text: Text = ""


class Photo(_Fact, frozen=True, kw_only=True, tag_field="fact", tag="photo"):
    """A picture: the digest that its file is kept under, its size, and what it shows."""

    file: Annotated[str, Meta(min_length=64, max_length=64, pattern=r"^[0-9a-f]{64}$")]
    wide_px: Annotated[int, Meta(ge=1, le=20_000)]
    high_px: Annotated[int, Meta(ge=1, le=20_000)]
    about: Annotated[str, Meta(max_length=200)] = ""
    moment: Literal["before", "during", "after"] = "during"
    surface: SurfaceName | None = None
    at: tuple[Coordinate, Coordinate] | None = None
    text: Text = ""


READING_KINDS = (Offset, Slope, Span, Gap, Corner, Profile, Scan)
Fact = (
    Offset
    | Slope
    | Span
    | Gap
    | Corner
    | Profile
    | Scan
    | Detection
    | Note
    | Obstacle
    | CutDone
    | Known
    | Bought
    | StepDone
    | AsSet
    | Followed
    | Otherwise
    | Photo
)
AnyFact = TypeVar("AnyFact", bound=Fact)


def active(facts: Iterable[AnyFact]) -> tuple[AnyFact, ...]:
    """Return the facts in use: neither set aside nor superseded by one that is not set aside itself."""
    facts = tuple(facts)
    superseded = {fact.supersedes for fact in facts if fact.aside is None}
    return tuple(fact for fact in facts if fact.aside is None and fact.id not in superseded)


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
