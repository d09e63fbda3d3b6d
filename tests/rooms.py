"""Rooms in which all is well but for what is said otherwise: a place of 1600 with two units, read and found exactly."""

from __future__ import annotations

from typing import Any

from msgspec.structs import replace

from tests.catalogue import EXACT, LINE, LOST_LINE, PLUMB, RULE, WHEN, box, floor_at, grid, job_of, offset, plain_kit
from wobble.core.facts import Detection, Fact
from wobble.core.job import (
    BackLine,
    Closing,
    Datum,
    HighSpot,
    Job,
    Obstacle,
    Offset,
    Place,
    SetUp,
    ShimKit,
    Slope,
    Unit,
    Value,
)
from wobble.core.job.backing import Backing
from wobble.core.job.unit import Hung, OnCleats

WIDE, DEEP, HIGH = 1600.0, 600.0, 2400.0
SIDE = SetUp(id="side", name="Side plane", across="x", at_mm=800.0)
STUDS = (200.0, 600.0, 1000.0, 1400.0)
FIXED = (650.0,)


def flat_floor(rise: float = 0.0, line: SetUp = LINE) -> tuple[Fact, ...]:
    """Return the floor, rising along by so many millimetres per metre."""
    return floor_at(grid(WIDE, DEEP, 5, 3), lambda x, y: rise * x / 1000, line=line)


def wall(lean: float = 0.0, bow: float = 0.0, turn: float = 0.0) -> tuple[Fact, ...]:
    """Return the back, leaning out of the room by so many mm per metre up, hollow by `bow` in its middle.

    It runs into the room by `turn` mm per metre along.
    """
    at = [(x, z) for x in (0.0, 400.0, 800.0, 1200.0, 1600.0) for z in (50.0, 700.0, 2100.0)]
    return tuple(
        replace(
            offset(f"b{x}{z}", "back", (x, z), 500.0 + lean * z / 1000 + bow * (x == 800.0) - turn * x / 1000),
            set_up=PLUMB.id,
        )
        for x, z in at
    )


def sides(left: float = 0.0, right: float = WIDE) -> tuple[Fact, ...]:
    """Return both side walls, plumb and square, at these places along."""
    spots = [(y, z) for y in (0.0, 300.0, 600.0) for z in (50.0, 1000.0, 2300.0)]
    return tuple(
        replace(offset(f"{name}{y}{z}", name, (y, z), value), set_up=SIDE.id)  # type: ignore[arg-type]
        for name, value in (("left", 800.0 - left), ("right", right - 800.0))
        for y, z in spots
    )


def splayed(left: float = 0.0, right: float = 0.0) -> tuple[Fact, ...]:
    """Return both side walls, plumb, running to the right by so many mm on their 600 way out."""
    spots = [(y, z) for y in (0.0, 150.0, 300.0, 450.0, 600.0) for z in (50.0, 1000.0, 2300.0)]
    return tuple(
        replace(offset(f"{name}{y}{z}", name, (y, z), sign * (at + turn * y / 600 - 800.0)), set_up=SIDE.id)  # type: ignore[arg-type]
        for name, sign, at, turn in (("left", -1, 0.0, left), ("right", 1, WIDE, right))
        for y, z in spots
    )


def ceiling(up: float = HIGH) -> tuple[Fact, ...]:
    """Return a level ceiling."""
    return tuple(
        offset(f"c{x}{y}", "ceiling", (x, y), up - 1000.0) for x in (0.0, 800.0, 1600.0) for y in (50.0, 550.0)
    )


def rising_ceiling(rise: float) -> tuple[Fact, ...]:
    """Return a ceiling that rises along by so many millimetres per metre."""
    spots = [(x, y) for x in (0.0, 400.0, 800.0, 1200.0, 1600.0) for y in (50.0, 550.0)]
    return tuple(offset(f"c{x}{y}", "ceiling", (x, y), HIGH - 1000.0 + rise * x / 1000) for x, y in spots)


def bent_ceiling() -> tuple[Fact, ...]:
    """Return a ceiling that is flat and then falls 7 in 10, and nobody said that it has a knee."""
    spots = [(x, y) for x in range(50, 1600, 150) for y in (50, 170, 300, 430, 550)]
    return tuple(
        offset(f"c{x}{y}", "ceiling", (float(x), float(y)), HIGH - 1000.0 - 0.7 * max(0, x - 800), instrument=RULE)
        for x, y in spots
    )


def studs(*at: float, surface: str = "back", heights: tuple[float, ...] = (300.0, 650.0, 1700.0)) -> tuple[Fact, ...]:
    """Return what a scanner finds of each stud: its middle, at some heights."""
    return tuple(
        Detection(id=f"{surface}{x}{z}", surface=surface, at=(x, z), found_by="trial hole", sees="hit", taken_at=WHEN)  # type: ignore[arg-type]
        for x in at or STUDS
        for z in heights
    )


def scanned(*at: float) -> tuple[Fact, ...]:
    """Return what one pass of a scanner says of each stud."""
    return tuple(
        Detection(id=f"s{x}", surface="back", at=(x, 650.0), found_by="knock", sees="centre", taken_at=WHEN) for x in at
    )


def thing(kind: str, at: tuple[float, float], **more: Any) -> Obstacle:
    """Return something in the way, 80 square."""
    plain = {"id": "o", "name": "Thing", "surface": "back", "size": (80.0, 80.0), "proud_mm": 9.0}
    return Obstacle(taken_at=WHEN, kind=kind, at=at, **(plain | more))  # type: ignore[arg-type]


A = box("A", x=50.0, width=700.0, fixing_heights_mm=FIXED, holds="crockery", support_inset_mm=40.0)
B = box("B", x=750.0, width=800.0, fixing_heights_mm=FIXED, holds="crockery", support_inset_mm=40.0)
HANGS = replace(A, kind="wall", over_base_mm=1400.0, depth_mm=330.0, standing=Hung())
SHELF = replace(
    box("S", x=0.0, width=1598.0, kind="shelf", height_mm=30.0, over_base_mm=1000.0, fixing_heights_mm=()),
    depth_mm=300.0,
    standing=OnCleats(),
    meets=("left", "right", "back"),
    holds="books",
)
RACK = replace(HANGS, kind="rack", over_base_mm=1600.0, height_mm=400.0, depth_mm=500.0, x_mm=300.0)
IN_FRONT = thing("column", (450.0, 800.0), surface="right", size=(90.0, 600.0), proud_mm=1500.0)
BOUND = Closing(clearance_mm=3.0)


def knocked_floor() -> tuple[Fact, ...]:
    """Return a level floor read from a line that is kicked up by 7 after half of its stations, some read again."""
    spots = grid(WIDE, DEEP, 8, 3)
    read = (*((s, 1000.0) for s in spots[:8]), *((s, 1007.0) for s in (*spots[8:], *spots[:8:3])))
    return tuple(
        replace(offset(f"k{i}", "floor", at, down, instrument=RULE), taken_at=WHEN.replace(minute=i))
        for i, (at, down) in enumerate(read)
    )


def stepped_wall(*, columns: bool) -> tuple[Fact, ...]:
    """Return a wall that stands 20 nearer from 900 on, read one reading a minute, column by column or row by row."""
    along, up = (100.0, 350.0, 600.0, 800.0, 1000.0, 1250.0, 1500.0), (50.0, 700.0, 2100.0)
    spots = [(x, z) for x in along for z in up] if columns else [(x, z) for z in up for x in along]
    return tuple(
        replace(
            offset(f"b{i}", "back", at, 480.0 if at[0] > 900 else 500.0, instrument=RULE),
            set_up=PLUMB.id,
            taken_at=WHEN.replace(minute=i),
        )
        for i, at in enumerate(spots)
    )


def leaning_sides() -> tuple[Fact, ...]:
    """Return plumb side walls read from a plane that leans 3 mm a metre up, and a level that knows better."""
    read = [
        replace(r, value_mm=r.value_mm + 3e-3 * (r.at[1] - HIGH / 2) * (1 if r.surface == "left" else -1))
        for r in sides()
        if isinstance(r, Offset)
    ]
    plumb = (
        Slope(
            id=f"plumb{y}",
            instrument=EXACT.id,
            taken_at=WHEN,
            surface="left",
            start=(y, 50.0),
            end=(y, 1000.0),
            value=0.0,
        )
        for y in (0.0, 300.0, 600.0)
    )
    return (*read, *plumb)


class Room(Value, frozen=True, kw_only=True):
    """A place in which all is well, but for what is said otherwise."""

    floor: tuple[Fact, ...] = flat_floor()
    back: tuple[Fact, ...] = wall()
    beside: tuple[Fact, ...] = sides()
    over: tuple[Fact, ...] = ()
    found: tuple[Fact, ...] = studs()
    also: tuple[Fact, ...] = ()
    units: tuple[Unit, ...] = (A, B)
    kit: ShimKit = plain_kit()
    datum: Datum = HighSpot(over_mm=0.0)
    closing: Closing = BOUND
    back_line: BackLine = BackLine()
    backing: Backing | None = Backing()
    overhead: Backing | None = None
    underfoot: Backing | None = None
    surfaces: tuple[str, ...] = ("floor", "back", "left", "right", "ceiling")
    way_in: tuple[Any, ...] = ()
    beyond: tuple[Place, ...] = ()

    @property
    def job(self) -> Job:
        """The job that it makes."""
        made = job_of(
            *self.floor,  # type: ignore[arg-type]
            *self.back,  # type: ignore[arg-type]
            *self.beside,  # type: ignore[arg-type]
            *self.over,  # type: ignore[arg-type]
            *self.found,  # type: ignore[arg-type]
            *self.also,  # type: ignore[arg-type]
            width=WIDE,
            depth=DEEP,
            units=self.units,
            set_ups=(LINE, LOST_LINE, PLUMB, SIDE),
            surfaces=self.surfaces,  # type: ignore[arg-type]
            kit=self.kit,
            datum=self.datum,
            closing=self.closing,
            back_line=self.back_line,
            backing=self.backing,
            overhead=self.overhead,
            underfoot=self.underfoot,
            right_is_back_of="beyond" if self.beyond else None,
        )
        return replace(made, way_in=self.way_in, places=(*made.places, *self.beyond))


def a(**more: Any) -> tuple[Unit, ...]:
    """Return unit A alone, with changes."""
    return (replace(A, **more),)


def beyond(x: float, **more: Any) -> tuple[Place, ...]:
    """Return a place round the corner at the right, whose first unit stands so far out from our back."""
    unit = replace(A, id="Z", name="Unit Z", x_mm=x, **more)
    return (Place(id="beyond", name="Beyond", width_mm=2000.0, depth_mm=DEEP, height_mm=HIGH, units=(unit,)),)
