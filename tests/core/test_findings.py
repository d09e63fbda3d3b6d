"""Every finding that can be told has a room in which it is told; and a room in which all is well tells few."""

from __future__ import annotations

from typing import Any, get_args

import pytest
from msgspec.structs import replace

from tests.catalogue import EXACT, LINE, LOST_LINE, PLUMB, RULE, WHEN, box, floor_at, grid, job_of, offset, plain_kit
from wobble.core import codes
from wobble.core.facts import Detection, Fact, Scan
from wobble.core.job import (
    BackLine,
    Closing,
    Datum,
    Doorway,
    FixedTop,
    HighSpot,
    Job,
    Obstacle,
    Place,
    SetUp,
    ShimKit,
    ShimPiece,
    Unit,
    Value,
)
from wobble.core.job.backing import Backing
from wobble.core.job.unit import Air, Board, Front, Hung, Legs, OnCleats, ScrewFeet, Spare
from wobble.core.stages import solve

WIDE, DEEP, HIGH = 1600.0, 600.0, 2400.0
SIDE = SetUp(id="side", name="Side plane", across="x", at_mm=800.0)
STUDS = (200.0, 600.0, 1000.0, 1400.0)
FIXED = (650.0,)


def flat_floor(rise: float = 0.0, line: SetUp = LINE) -> tuple[Fact, ...]:
    """Return the floor, rising along by so many millimetres per metre."""
    return floor_at(grid(WIDE, DEEP, 5, 3), lambda x, y: rise * x / 1000, line=line)


def wall(lean: float = 0.0, bow: float = 0.0) -> tuple[Fact, ...]:
    """Return the back, leaning out of the room by so many mm per metre up, hollow by `bow` in its middle."""
    at = [(x, z) for x in (0.0, 400.0, 800.0, 1200.0, 1600.0) for z in (50.0, 700.0, 2100.0)]
    return tuple(
        replace(offset(f"b{x}{z}", "back", (x, z), 500.0 + lean * z / 1000 + bow * (x == 800.0)), set_up=PLUMB.id)
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


def ceiling(up: float = HIGH) -> tuple[Fact, ...]:
    """Return a level ceiling."""
    return tuple(
        offset(f"c{x}{y}", "ceiling", (x, y), up - 1000.0) for x in (0.0, 800.0, 1600.0) for y in (50.0, 550.0)
    )


def studs(*at: float, surface: str = "back", heights: tuple[float, ...] = (300.0, 650.0, 1700.0)) -> tuple[Fact, ...]:
    """Return what a scanner finds of each stud: its middle, at some heights."""
    return tuple(
        Detection(id=f"{surface}{x}{z}", surface=surface, at=(x, z), method="trial hole", sees="hit", taken_at=WHEN)  # type: ignore[arg-type]
        for x in at or STUDS
        for z in heights
    )


def scanned(*at: float) -> tuple[Fact, ...]:
    """Return what one pass of a scanner says of each stud."""
    return tuple(
        Detection(id=f"s{x}", surface="back", at=(x, 650.0), method="knock", sees="centre", taken_at=WHEN) for x in at
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


ROOMS: dict[str, Room] = {
    "few-readings": Room(floor=flat_floor()[:3]),
    "knocked": Room(floor=knocked_floor()),
    "no-back": Room(back=()),
    "no-floor": Room(floor=()),
    "readings-agree": Room(),
    "take-again": Room(floor=(*flat_floor(), offset("odd", "floor", (800.0, 300.0), 1025.0))),
    "thinned": Room(
        floor=(
            Scan(
                id="scan",
                instrument=EXACT.id,
                taken_at=WHEN,
                surface="floor",
                set_up=LINE.id,
                points=tuple((i % 50 * 32.0, i // 50 * 15.0, 1000.0) for i in range(2000)),
            ),
        )
    ),
    "corner-handles": Room(units=(A, replace(B, width_mm=270.0)), beyond=beyond(0.0, front=Front(opens="drawers"))),
    "corner-overlap": Room(units=(A, replace(B, width_mm=850.0)), beyond=beyond(300.0)),
    "fixing-above": Room(units=a(fixing_heights_mm=(650.0, 900.0))),
    "gap-between": Room(units=(A, replace(B, x_mm=780.0, width_mm=770.0))),
    "higher-than-room": Room(units=a(height_mm=2450.0)),
    "larger-than-unit": Room(units=a(toe_recess_mm=560.0)),
    "no-floor-surface": Room(surfaces=("back", "left", "right"), floor=()),
    "no-opening": Room(units=a(width_mm=150.0, front=Front(openings=8))),
    "no-units": Room(units=()),
    "outside": Room(units=a(x_mm=1700.0)),
    "overlap": Room(units=(A, replace(B, x_mm=700.0))),
    "past-place": Room(units=a(depth_mm=700.0)),
    "under-floor": Room(units=(A, replace(HANGS, id="H", over_base_mm=-500.0, x_mm=800.0))),
    "unusual-height": Room(datum=FixedTop(top_mm=720.0, to="a worktop")),
    "base-height": Room(),
    "cut-down": Room(datum=HighSpot(over_mm=-10.0)),
    "feet": Room(units=a(standing=ScrewFeet(), height_mm=820.0)),
    "feet-past": Room(units=a(standing=ScrewFeet(least_mm=95.0, most_mm=98.0)), floor=flat_floor(20.0)),
    "height-from-high-spot": Room(floor=flat_floor(line=LOST_LINE)),
    "height-unknown": Room(floor=flat_floor(line=LOST_LINE), datum=FixedTop(top_mm=900.0)),
    "heights-from-mark": Room(units=(HANGS,), floor=()),
    "kit-misses": Room(floor=flat_floor(5.0), kit=ShimKit(pieces=(ShimPiece(thickness_mm=5.0),), tapers=())),
    "legs-short": Room(units=a(standing=Legs(long_mm=600.0, finished_mm=680.0))),
    "may-touch": Room(floor=floor_at([(0, 0), (1600, 0), (0, 600), (1600, 600)], lambda x, y: 0.0)),
    "packing": Room(back=wall(bow=8.0)),
    "packing-deep": Room(back_line=BackLine(off_mm=30.0)),
    "shims": Room(floor=flat_floor(5.0)),
    "too-tall": Room(floor=flat_floor(40.0)),
    "top-too-low": Room(datum=FixedTop(top_mm=600.0)),
    "vague-shims": Room(floor=floor_at([(0, 0), (100, 0), (0, 100), (100, 100)], lambda x, y: 0.0)),
    "box-behind-frame": Room(
        closing=Closing(school="face frame first"), units=(replace(A, x_mm=0.0, width_mm=800.0), replace(B, x_mm=800.0))
    ),
    "door-swing": Room(
        units=(
            replace(A, x_mm=450.0, width_mm=300.0, depth_mm=200.0, front=Front(opens="door hinged right")),
            replace(B, depth_mm=600.0, height_mm=2000.0, kind="tall"),
        )
    ),
    "drawer-lip": Room(
        closing=Closing(school="face frame first", mullion_mm=60.0),
        units=(replace(A, front=Front(opens="drawers", openings=2)), B),
    ),
    "filler": Room(),
    "filler-needs": Room(units=(replace(A, x_mm=5.0, front=Front(opens="door hinged left")), B)),
    "goes-between": Room(),
    "into-wall": Room(units=a(x_mm=0.0), beside=sides(left=8.0)),
    "scrapes": Room(units=(replace(A, x_mm=1.0, width_mm=798.0), replace(B, x_mm=799.0, width_mm=799.0))),
    "scribe-allowance": Room(units=(replace(A, spare=Spare(left_mm=3.0)), B), closing=Closing(school="end panel")),
    "too-wide": Room(units=(replace(A, x_mm=0.0, width_mm=850.0), replace(B, x_mm=850.0))),
    "walls-crossed": Room(beside=sides(left=1200.0, right=900.0)),
    "flat-no-room": Room(units=(A, SHELF), beside=sides(left=1200.0, right=900.0)),
    "moves": Room(units=(replace(SHELF, depth_mm=560.0, board=Board(material="beech")),)),
    "sag": Room(units=(replace(SHELF, board=Board(load_kg_per_m=40.0)),)),
    "seam": Room(units=(replace(SHELF, board=Board(stock_mm=1000.0)),)),
    "top-goes": Room(units=(SHELF,)),
    "top-stuck": Room(units=(SHELF,), also=(IN_FRONT,)),
    "rack": Room(units=(RACK,), over=ceiling()),
    "rack-ceiling-unknown": Room(units=(RACK,)),
    "rack-into-ceiling": Room(units=(RACK,), over=ceiling(1900.0)),
    "goes-in": Room(),
    "stuck": Room(way_in=(Doorway(name="Door", width_mm=400.0, height_mm=600.0),)),
    "access-hole": Room(also=(thing("outlet", (300.0, 300.0), treatment="access hole"),)),
    "access-panel": Room(also=(thing("valve", (300.0, 300.0)),)),
    "air": Room(units=a(air=Air(back_mm=50.0))),
    "beside-clear": Room(units=(A,), also=(thing("valve", (780.0, 300.0)),)),
    "beside-tight": Room(units=(A,), also=(thing("valve", (760.0, 300.0)),)),
    "hatch": Room(units=a(kind="platform"), also=(thing("column", (300.0, 300.0), surface="floor"),)),
    "moved-first": Room(also=(thing("outlet", (300.0, 300.0), treatment="move by a licensed trade"),)),
    "notch": Room(also=(thing("column", (300.0, 300.0), proud_mm=60.0),)),
    "notch-clear": Room(also=(thing("column", (300.0, 300.0), proud_mm=10.0),), back_line=BackLine(off_mm=30.0)),
    "notch-too-deep": Room(also=(thing("column", (300.0, 300.0), proud_mm=580.0),)),
    "outlet-buried": Room(also=(thing("outlet", (300.0, 300.0)),)),
    "outlet-notch": Room(units=(SHELF,), also=(thing("outlet", (300.0, 980.0)),)),
    "radiator-covered": Room(also=(thing("radiator", (300.0, 300.0)),)),
    "skirting-clear": Room(also=(thing("skirting", (0.0, 0.0), size=(WIDE, 90.0)),), back_line=BackLine(off_mm=20.0)),
    "skirting-hold-back": Room(also=(thing("skirting", (0.0, 0.0), size=(WIDE, 90.0)),)),
    "skirting-notch": Room(also=(thing("skirting", (0.0, 0.0), size=(WIDE, 90.0), treatment="notch"),)),
    "taken-out": Room(also=(thing("skirting", (0.0, 0.0), size=(WIDE, 90.0), treatment="remove"),)),
    "under-board": Room(also=(thing("window board", (100.0, 800.0), size=(900.0, 30.0), proud_mm=40.0),)),
    "under-board-tight": Room(also=(thing("window board", (100.0, 722.0), size=(900.0, 30.0), proud_mm=40.0),)),
    "vent-buried": Room(also=(thing("vent", (300.0, 300.0)),)),
    "vent-ducted": Room(also=(thing("vent", (300.0, 300.0), treatment="duct"),)),
    "vent-grille-long": Room(also=(thing("vent", (100.0, 200.0), size=(600.0, 400.0)),)),
    "wire-bridged": Room(also=(thing("wire", (300.0, 300.0)),)),
    "wire-clear": Room(also=(thing("wire", (300.0, 300.0)),), back_line=BackLine(off_mm=30.0)),
    "cleat-held": Room(units=(SHELF,)),
    "cleat-not-held": Room(units=(SHELF,), backing=Backing(kind="masonry"), found=()),
    "contents-assumed": Room(units=a(holds="not said")),
    "floor-held": Room(
        units=a(kind="platform", height_mm=200.0, fixing_heights_mm=()),
        underfoot=Backing(lining_mm=22.0, deep_mm=150.0, runs="out"),
        found=studs(200.0, 600.0, surface="floor", heights=(50.0, 250.0, 500.0)),
    ),
    "floor-not-held": Room(units=a(kind="platform", height_mm=200.0, fixing_heights_mm=()), found=()),
    "found-disagrees": Room(
        found=(
            *studs(),
            Detection(id="no", surface="back", at=(200.0, 655.0), method="trial hole", sees="miss", taken_at=WHEN),
        )
    ),
    "found-odd": Room(
        found=(
            *studs(),
            Detection(id="odd", surface="back", at=(730.0, 500.0), method="scanner", sees="centre", taken_at=WHEN),
        )
    ),
    "held": Room(),
    "held-if-found": Room(found=scanned(200.0, 600.0, 1000.0, 1400.0)),
    "held-mind": Room(units=a(x_mm=100.0, width_mm=200.0)),
    "joists-other-way": Room(
        units=(RACK,),
        over=ceiling(),
        overhead=Backing(runs="along"),
        found=studs(200.0, 600.0, 1000.0, 1400.0, surface="ceiling", heights=(50.0, 250.0, 500.0)),
    ),
    "kit-misses-packing": Room(back=wall(bow=8.0), kit=ShimKit(pieces=(ShimPiece(thickness_mm=7.0),), tapers=())),
    "kit-short": Room(floor=flat_floor(5.0), kit=ShimKit(pieces=(ShimPiece(thickness_mm=1.0, count=1),), tapers=())),
    "nail-plate": Room(also=(thing("wire", (100.0, 400.0), size=(900.0, 10.0), proud_mm=0.0),)),
    "no-plan": Room(floor=()),
    "not-enough": Room(units=(replace(HANGS, weight_kg=400.0),)),
    "not-held": Room(units=(HANGS,), backing=Backing(kind="masonry"), found=()),
    "rack-held": Room(
        units=(replace(RACK, x_mm=260.0, width_mm=880.0, weight_kg=20.0, holds="nothing"),),
        over=ceiling(),
        overhead=Backing(runs="out"),
        found=studs(300.0, 700.0, 1100.0, surface="ceiling", heights=(50.0, 250.0, 500.0)),
    ),
    "rack-not-held": Room(units=(RACK,), over=ceiling(), overhead=Backing(), found=()),
}
NAMES = tuple(sorted(name for part in get_args(codes.Code) for name in get_args(part)))


def told(room: Room) -> set[str]:
    """Return the codes of all that is told of a room."""
    return {finding.code for finding in solve(room.job).places[0].findings}


def test_every_code_has_its_room():
    assert sorted(ROOMS) == list(NAMES)


@pytest.mark.parametrize("code", NAMES)
def test_a_finding_is_told_where_it_should_be(code):
    assert code in told(ROOMS[code])


def test_where_all_is_well_nothing_else_is_told():
    assert told(Room()) == {"base-height", "filler", "goes-between", "goes-in", "held", "packing", "readings-agree"}
