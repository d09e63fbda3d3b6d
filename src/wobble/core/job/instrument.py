"""What readings are taken with, the checks that it went through, and what the installer has to pack with."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.value import Coordinate, Count, Key, Moment, NotNegative, Positive, Title, Value, check_year


class FlipCheck(Value, frozen=True, kw_only=True, tag_field="check", tag="flip"):
    """A level read twice on one place, turned end for end between: the rise over `length_mm`, mm, both times.

    Both rises are told in the same direction along the place, so that their mean is the place's and half their
    difference the level's own.
    """

    at: Moment
    length_mm: Positive
    first_mm: Coordinate
    turned_mm: Coordinate

    def __post_init__(self) -> None:
        check_year(self.at)


class HookCheck(Value, frozen=True, kw_only=True, tag_field="check", tag="hook"):
    """One length read twice with a tape: by its hook, and from `mark_mm` on the tape, where the hook has no part."""

    at: Moment
    hooked_mm: Positive
    from_mark_mm: Positive
    mark_mm: Positive = 100.0

    def __post_init__(self) -> None:
        check_year(self.at)


class SquareCheck(Value, frozen=True, kw_only=True, tag_field="check", tag="square"):
    """A line drawn along a square, the square flipped over, and a second line drawn from the same foot.

    `apart_mm` is between the two lines at `leg_mm` from the foot: positive where they open away from each other, as
    they do along a square that is wider than square.
    """

    at: Moment
    leg_mm: Positive
    apart_mm: Coordinate

    def __post_init__(self) -> None:
        check_year(self.at)


InstrumentCheck = FlipCheck | HookCheck | SquareCheck
InstrumentKind = Literal[
    "laser line", "laser meter", "water level", "string line", "level", "digital level", "phone", "tape", "square"
]


class Instrument(Value, frozen=True, kw_only=True):
    """What a reading was taken with. `sigma_mm` is the standard uncertainty of one reading (JCGM 100, type B).

    What a check finds is taken off all that is read with the instrument from the check on, until the next.
    """

    id: Key
    name: Title
    kind: InstrumentKind = "tape"
    sigma_mm: Annotated[float, Meta(gt=0, le=50)] = 0.5
    checks: Annotated[tuple[InstrumentCheck, ...], Meta(max_length=50)] = ()


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
