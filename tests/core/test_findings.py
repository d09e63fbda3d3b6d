"""Every finding that can be told has a room in which it is told; and a room in which all is well tells few."""

from __future__ import annotations

from typing import get_args

import pytest
from msgspec.structs import replace

from tests.catalogue import EXACT, LINE, LOST_LINE, WHEN, floor_at, offset
from tests.rooms import (
    HANGS,
    IN_FRONT,
    RACK,
    SHELF,
    WIDE,
    A,
    B,
    Room,
    a,
    bent_ceiling,
    beyond,
    ceiling,
    flat_floor,
    knocked_floor,
    leaning_sides,
    rising_ceiling,
    scanned,
    sides,
    splayed,
    stepped_wall,
    studs,
    thing,
    wall,
)
from wobble.core import codes
from wobble.core.facts import Detection, Scan
from wobble.core.job import (
    BackLine,
    Boarding,
    Closing,
    Doorway,
    FixedTop,
    HighSpot,
    Moulding,
    ShimKit,
    ShimPiece,
)
from wobble.core.job.backing import Backing
from wobble.core.job.board import Board
from wobble.core.job.unit import Air, Front, Legs, ScrewFeet, ScribeAllowance
from wobble.core.stages.solve import solve_place

RUNS = a(
    kind="moulding",
    x_mm=0.0,
    width_mm=WIDE,
    depth_mm=15.0,
    height_mm=70.0,
    over_base_mm=1000.0,
    meets=("left", "right"),
)[0]
ROUND = Moulding(left_mm=400.0)


def runs(body: Moulding = ROUND, **more):
    return (A, replace(RUNS, body=body, fixing_heights_mm=(35.0,), **more))


BOARDED = a(kind="boarding", x_mm=0.0, width_mm=WIDE, depth_mm=15.0, body=Boarding())

ROOMS: dict[str, Room] = {
    "bend-seen": Room(over=bent_ceiling()),
    "edge-or-knock": Room(back=stepped_wall(columns=True)),
    "edge-seen": Room(back=stepped_wall(columns=False)),
    "leaning-line": Room(beside=leaning_sides()),
    "unseen-misread": Room(beside=sides()[:1]),
    "few-readings": Room(floor=flat_floor()[:3]),
    "knocked": Room(floor=knocked_floor()),
    "no-back": Room(back=()),
    "no-floor": Room(floor=()),
    "readings-agree": Room(),
    "readings-differ": Room(
        floor=(offset("a", "floor", (300.0, 300.0), 1000.0), offset("b", "floor", (300.0, 300.0), 1040.0)),
        back=(),
        beside=(),
    ),
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
        closing=Closing(method="face frame first"), units=(replace(A, x_mm=0.0, width_mm=800.0), replace(B, x_mm=800.0))
    ),
    "door-swing": Room(
        units=(
            replace(A, x_mm=450.0, width_mm=300.0, depth_mm=200.0, front=Front(opens="door hinged right")),
            replace(B, depth_mm=600.0, height_mm=2000.0, kind="tall"),
        )
    ),
    "drawer-lip": Room(
        closing=Closing(method="face frame first", mullion_mm=60.0),
        units=(replace(A, front=Front(opens="drawers", openings=2)), B),
    ),
    "filler": Room(),
    "filler-needs": Room(units=(replace(A, x_mm=5.0, front=Front(opens="door hinged left")), B)),
    "goes-between": Room(),
    "into-wall": Room(units=a(x_mm=0.0), beside=sides(left=8.0)),
    "scrapes": Room(units=(replace(A, x_mm=1.0, width_mm=796.0), replace(B, x_mm=797.0, width_mm=800.5))),
    "scribe-allowance": Room(
        units=(replace(A, scribe_allowance=ScribeAllowance(left_mm=3.0)), B), closing=Closing(method="end panel")
    ),
    "too-wide": Room(units=(replace(A, x_mm=0.0, width_mm=850.0), replace(B, x_mm=850.0))),
    "walls-crossed": Room(beside=sides(left=1200.0, right=900.0)),
    "flat-no-room": Room(units=(A, SHELF), beside=sides(left=1200.0, right=900.0)),
    "moves": Room(units=(replace(SHELF, depth_mm=560.0, board=Board(material="beech")),)),
    "sag": Room(units=(replace(SHELF, board=Board(load_kg_per_m=40.0)),)),
    "seam": Room(units=(replace(SHELF, board=Board(stock_mm=1000.0)),)),
    "top-goes": Room(units=(SHELF,)),
    "top-stuck": Room(units=(SHELF,), also=(IN_FRONT,)),
    "moulding-bends": Room(units=runs(Moulding(round_mm=4000.0))),
    "moulding-ceiling": Room(units=runs(over_base_mm=2320.0), over=rising_ceiling(9.0)),
    "moulding-corner": Room(units=runs(), beside=()),
    "moulding-curve": Room(units=runs(Moulding(round_mm=500.0))),
    "moulding-laid": Room(units=runs()),
    "moulding-opens": Room(units=runs(Moulding(left_mm=400.0, inside="mitred")), beside=splayed(left=-25.0)),
    "moulding-springs": Room(units=runs(Moulding(thick_mm=60.0), x_mm=400.0, width_mm=800.0), back=wall(bow=30.0)),
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
            Detection(id="no", surface="back", at=(200.0, 655.0), found_by="trial hole", sees="miss", taken_at=WHEN),
        )
    ),
    "found-odd": Room(
        found=(
            *studs(),
            Detection(id="odd", surface="back", at=(730.0, 500.0), found_by="scanner", sees="centre", taken_at=WHEN),
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
    "ends-loose": Room(units=BOARDED),
    "nailers": Room(units=BOARDED, backing=Backing(lining_mm=0.0)),
    "nailing-unknown": Room(units=BOARDED, found=()),
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
    "side-held": Room(
        units=a(x_mm=0.0, fastened_to=("left",)),
        found=(*studs(), *studs(100.0, 500.0, surface="left", heights=(300.0, 500.0, 650.0, 800.0, 1700.0))),
        beside=sides(left=-2.0),
    ),
    "side-not-held": Room(units=a(x_mm=0.0, fastened_to=("left",)), beside=sides(left=-2.0)),
    "rack-not-held": Room(units=(RACK,), over=ceiling(), overhead=Backing(), found=()),
}
TOLD_ELSEWHERE = (codes.RodCode, codes.MakeCode, codes.OrderCode, codes.SetCode)
"""Set out, Make, Order and Set have tests of their own for what they tell."""
NAMES = tuple(sorted(name for part in get_args(codes.Code) if part not in TOLD_ELSEWHERE for name in get_args(part)))


def told(room: Room) -> set[str]:
    """Return the codes of all that is told of a room."""
    return {finding.code for finding in solve_place(room.job, room.job.places[0].id).findings}


def test_every_code_has_its_room():
    assert sorted(ROOMS) == list(NAMES)


@pytest.mark.parametrize("code", NAMES)
def test_a_finding_is_told_where_it_should_be(code):
    assert code in told(ROOMS[code])


def test_where_all_is_well_nothing_else_is_told():
    assert told(Room()) == {"base-height", "filler", "goes-between", "goes-in", "held", "packing", "readings-agree"}
