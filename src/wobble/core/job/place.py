"""A place: one run of units against a back surface, with all that was found out of it and all that is decided."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cached_property
from typing import Annotated, Literal

from msgspec import Meta
from msgspec.structs import replace

from wobble.core.axes import SURFACE_AXES, Axis, Spot, SurfaceName
from wobble.core.facts import READING_KINDS, Detection, Fact, Note, Obstacle, Reading, active
from wobble.core.job.backing import Backing
from wobble.core.job.decided import Alternative, BackLine, Closing, Datum, HighSpot
from wobble.core.job.rules import HeightStack, Rule
from wobble.core.job.things import Existing, WallOpening, WallStep
from wobble.core.job.unit import Unit
from wobble.core.value import Coordinate, Key, NotNegative, Positive, Title, Value


class SetUp(Value, frozen=True, kw_only=True):
    """A reference plane across one axis, at `at_mm` on it; None when its place is not known.

    `made_with` is the instrument that made it, which says how true it is taken to be; "" is taken as a plain laser.
    """

    id: Key
    name: Title
    across: Axis = "z"
    at_mm: Coordinate | None = None
    sigma_mm: NotNegative = 0.0
    made_with: Annotated[str, Meta(max_length=80)] = ""


PlaceKind = Literal["open", "corner", "alcove", "under a slope", "overhead", "vehicle"]


class Knee(Value, frozen=True, kw_only=True):
    """Where a ceiling turns into a slope: the line across `along` at `at_mm`."""

    along: Literal["x", "y"] = "y"
    at_mm: Coordinate


class Measured(Value, frozen=True, kw_only=True, dict=True):
    """What a survey rests on: a place's size and surfaces, what it was read from, and what was found out.

    `right_is_back_of` names the place that meets this one in an inside corner at its right end: the right wall of this
    place is that one's back, and the back of this one that one's left wall; readings of either then tell of both.
    """

    id: Key
    name: Title
    kind: PlaceKind = "open"
    frame: Literal["gravity", "body"] = "gravity"
    character: Literal["true", "typical", "rough"] = "typical"
    width_mm: Positive
    depth_mm: Positive
    height_mm: Positive
    surfaces: Annotated[tuple[SurfaceName, ...], Meta(min_length=1, max_length=5)] = ("floor", "back")
    set_ups: Annotated[tuple[SetUp, ...], Meta(max_length=200)] = ()
    knee: Knee | None = None
    steps: Annotated[tuple[WallStep, ...], Meta(max_length=20)] = ()
    openings: Annotated[tuple[WallOpening, ...], Meta(max_length=40)] = ()
    right_is_back_of: Key | None = None
    facts: Annotated[tuple[Fact, ...], Meta(max_length=8000)] = ()

    def walled(self, x_mm: float, up_mm: float) -> bool:
        """Whether the back is a wall at a place: not in a door, in a window, or past where the wall ends."""
        return not any(opening.holds(x_mm, up_mm) for opening in self.openings)

    @cached_property
    def readings(self) -> tuple[Reading, ...]:
        """Every reading that was taken, those that count no more included."""
        return tuple(fact for fact in self.facts if isinstance(fact, READING_KINDS))


class Practice(Value, frozen=True, kw_only=True):
    """A made-up place to practise in: the `seed` says how it really is, which nobody is told before having measured."""

    seed: Annotated[int, Meta(ge=0, le=2_147_483_647)]


class Place(Measured, frozen=True, kw_only=True, dict=True):
    """One run of units against a back surface: what was found out of it (`facts`), and what is decided."""

    units: Annotated[tuple[Unit, ...], Meta(max_length=100)] = ()
    rules: Annotated[tuple[Rule, ...], Meta(max_length=300)] = ()
    heights: Annotated[tuple[HeightStack, ...], Meta(max_length=20)] = ()
    existing: Annotated[tuple[Existing, ...], Meta(max_length=40)] = ()
    datum: Datum = HighSpot()
    back_line: BackLine = BackLine()
    closing: Closing = Closing()
    alternatives: Annotated[tuple[Alternative, ...], Meta(max_length=8)] = ()
    backing: Backing | None = None
    overhead: Backing | None = None
    underfoot: Backing | None = None
    practice: Practice | None = None

    @property
    def measured(self) -> Measured:
        """Only what its survey rests on, whatever is decided and whatever else was found."""
        own = {name: getattr(self, name) for name in Measured.__struct_fields__}
        return Measured(**own | {"facts": self.readings})

    @cached_property
    def obstacles(self) -> tuple[Obstacle, ...]:
        """What is in the way, as it was seen last."""
        return tuple(fact for fact in active(self.facts) if isinstance(fact, Obstacle))

    @cached_property
    def detections(self) -> tuple[Detection, ...]:
        """What was found behind linings and not taken back."""
        return tuple(fact for fact in active(self.facts) if isinstance(fact, Detection))

    @cached_property
    def notes(self) -> tuple[Note, ...]:
        """What was written down and not taken back."""
        return tuple(fact for fact in active(self.facts) if isinstance(fact, Note))


def surface_extent(place: Measured, surface: SurfaceName) -> tuple[Spot, Spot]:
    """Return the (low, high) range of each of a surface's two axes, mm."""
    size = {"x": place.width_mm, "y": place.depth_mm, "z": place.height_mm}
    first, second, _ = SURFACE_AXES[surface]
    return (0.0, size[first]), (0.0, size[second])


def with_facts(place: Place, kinds: tuple[type[Fact], ...], facts: Iterable[Fact]) -> Place:
    """Return a place with these facts where it had others of some kinds; facts of other kinds stay."""
    others = tuple(fact for fact in place.facts if not isinstance(fact, kinds))
    return replace(place, facts=(*facts, *others))


def active_readings(place: Measured) -> tuple[Reading, ...]:
    """Return the readings in use."""
    return active(place.readings)
