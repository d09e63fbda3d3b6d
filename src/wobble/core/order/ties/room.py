"""Room: boxes in a place's own axes, along the run, out of its back line and up from its base, mm."""

from __future__ import annotations

from dataclasses import dataclass

from wobble.core.job import Unit

FAR_MM = 20_000.0
"""Past anything that stands in the place."""
Span = tuple[float, float]


@dataclass(frozen=True)
class Room:
    """A box of room, or of what fills it."""

    x: Span
    y: Span
    z: Span

    def meets(self, other: Room, by_mm: float = 2.0) -> bool:
        """Return whether two boxes share more than a skin of each other on every axis."""
        pairs = ((self.x, other.x), (self.y, other.y), (self.z, other.z))
        return all(min(a[1], b[1]) - max(a[0], b[0]) > by_mm for a, b in pairs)

    def within(self, other: Room) -> Room:
        """Return what of it lies within another along and up; out of the back it reaches as far as it did."""
        return Room(_both(self.x, other.x), self.y, _both(self.z, other.z))


def _both(a: Span, b: Span) -> Span:
    return (max(a[0], b[0]), min(a[1], b[1]))


def body(unit: Unit) -> Room:
    """Return what a unit fills as it stands."""
    return Room(
        (unit.x_mm, unit.right_mm),
        (unit.out_mm, unit.out_mm + unit.depth_mm),
        (unit.over_base_mm, unit.over_base_mm + unit.height_mm),
    )


def straight_in(room: Room, lift_mm: float) -> tuple[Room, ...]:
    """Return what is swept when a thing is walked in from the front, lifted a little, and let down."""
    return (
        Room(room.x, (room.y[0], FAR_MM), (room.z[0] + lift_mm, room.z[1] + lift_mm)),
        Room(room.x, room.y, (room.z[0], room.z[1] + lift_mm)),
    )


def from_above(room: Room, over_mm: float) -> tuple[Room, ...]:
    """Return what is swept when a thing comes in from the front over what stands there, and is laid down."""
    over = Room(room.x, (room.y[0], FAR_MM), (room.z[0] + over_mm, room.z[1] + over_mm))
    return over, Room(room.x, room.y, (room.z[0], room.z[1] + over_mm))
