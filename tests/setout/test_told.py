"""Every finding of Set out has a place in which it is told; and a place in which all is well tells none to mind."""

from __future__ import annotations

from typing import Any, get_args

import pytest
from msgspec.structs import replace

from tests.rooms import SIDE, sides
from tests.setout.places import carcass, codes, laid, measured, piece, place_of, to_wall, touch
from tests.setout.test_cells import FRAMED
from tests.setout.test_framing import platform
from tests.setout.test_heights import SKIRTING, UNITS, seat
from wobble.core.codes import RodCode
from wobble.core.job import (
    At,
    Boarding,
    Cell,
    Columns,
    Content,
    Curve,
    Door,
    Drawers,
    Edge,
    Existing,
    Hanging,
    HangingWall,
    Hole,
    Legs,
    LinedUp,
    OnPieces,
    Place,
    Rows,
    Shelved,
    Slides,
    Unit,
    WallOpening,
    WallStep,
    Wide,
)
from wobble.core.job.board import Board
from wobble.core.job.framing import TrimSet
from wobble.core.setout.laid import LaidOut

LEDGE = WallStep(id="ledge", name="Ledge", axis="second", from_mm=0.0, to_mm=900.0, by_mm=40.0)
STOVE = Existing(id="s", name="Stove", x_mm=500.0, width_mm=400.0, height_mm=800.0, depth_mm=300.0, clear_mm=50.0)
WINDOW = WallOpening(
    id="w", name="Window", x_mm=300.0, width_mm=900.0, height_mm=900.0, sill_mm=740.0, covering_mm=60.0
)
TWO_COLUMNS = Cell(fill=Columns(cells=(Cell(), Cell())))
FOUR_THIRDS = Rows(cells=(Cell(size_mm=400.0), Cell(size_mm=400.0)))


def top(**more: Any) -> Unit:
    return piece("T", 0.0, 2000.0, kind="top", height_mm=30.0, board=Board(stock_mm=1200.0), **more)


def hole(**more: Any) -> Hole:
    given: dict[str, Any] = {
        "id": "h",
        "name": "Hatch",
        "kind": "hatch",
        "inside": "top",
        "at": (200.0, 100.0),
        "size": (300.0, 200.0),
    }
    return Hole(**(given | more))


def pegs(weight: float = 1.0, up: float = 0.0) -> Unit:
    hangs = (Hanging(id="x", name="X", at=(100.0, up), weight_kg=weight),)
    body = HangingWall(by="pegs", member_mm=20.0, hangs=hangs)
    return piece("W", 0.0, 900.0, kind="peg wall", body=body)


PLACES: dict[str, Place] = {
    "before-opening": place_of(piece("A", 400.0, height_mm=1200.0), openings=(WINDOW,)),
    "behind-lip": place_of(carcass("A", 600.0, Cell(fill=Drawers(count=1)))),
    "beside-height": place_of(*UNITS, heights=(seat(finished_mm=500.0),)),
    "boards-cannot": place_of(piece("B", kind="boarding", height_mm=80.0, body=Boarding(board_mm=120.0))),
    "boards-laid": place_of(piece("B", kind="boarding", height_mm=1000.0, body=Boarding(board_mm=120.0))),
    "cells-overfull": place_of(carcass("A", 600.0, Cell(fill=FOUR_THIRDS))),
    "covering-hits": place_of(piece("A", 400.0), openings=(WINDOW,)),
    "cut-round": place_of(
        piece("B", 0.0, 2000.0, kind="boarding", height_mm=1000.0, body=Boarding()), openings=(WINDOW,)
    ),
    "curve-too-round": place_of(piece("A", kind="panel", curve=Curve(edge="upper", rise_mm=400.0))),
    "curved": place_of(piece("A", kind="panel", curve=Curve(edge="lower", rise_mm=120.0, way="in"))),
    "deck-span": place_of(platform(most_apart_mm=900.0, load_kg_per_m2=20.0)),
    "does-not-go-in": place_of(
        carcass("A", 600.0, Cell(holds=(Content(name="X", width_mm=570.0, depth_mm=9.0, height_mm=9.0),)))
    ),
    "drawer-narrow": place_of(carcass("A", 80.0, Cell(fill=Drawers(count=1)))),
    "drawer-too-tall": place_of(carcass("A", 600.0, Cell(fill=Drawers(count=12)), height_mm=400.0)),
    "follows-walls": place_of(
        piece("A"),
        rules=(to_wall("r1", "A", "left"), to_wall("r2", "A", "right")),
        set_ups=(SIDE,),
        facts=sides()[::4],
    ),
    "frame-bends": place_of(platform(2400.0, 2000.0, load_kg_per_m2=900.0), depth_mm=2000.0),
    "frame-laid": place_of(platform()),
    "frame-small": place_of(platform(80.0, 500.0)),
    "hangs": place_of(pegs()),
    "hangs-between": place_of(pegs(up=80.0)),
    "hinge-not-chosen": place_of(carcass("A", 600.0, Cell(door=Door()))),
    "hole-edge": place_of(top(holes=(hole(at=(10.0, 100.0)),))),
    "hole-on-board": place_of(
        carcass(
            "A",
            600.0,
            TWO_COLUMNS,
            holes=(hole(kind="cable hole", inside="back", at=(270.0, 300.0), size=(60.0, 60.0)),),
        )
    ),
    "hole-outside": place_of(top(holes=(hole(at=(1900.0, 100.0)),))),
    "lid-over-seam": place_of(top(holes=(hole(at=(900.0, 100.0)),))),
    "lid-room": place_of(carcass("A", 600.0, Cell(door=Door(hangs="up")), over_base_mm=1000.0)),
    "lid-strip": place_of(top(holes=(hole(kind="lid", strip_mm=10.0),))),
    "mirror-image": place_of(piece("A"), piece("B", 600.0, mirror_of="A")),
    "no-width": place_of(
        piece("A"),
        piece("B", 600.0),
        rules=(
            At(id="r0", edge=Edge(of="A", edge="left"), at_mm=500.0),
            Wide(id="r1", unit="A", wide_mm=2000.0),
            touch("r2", "A", "B"),
            to_wall("r3", "B", "right"),
        ),
    ),
    "past-corner": place_of(piece("A"), rules=(At(id="r1", edge=Edge(of="A", edge="left"), at_mm=-80.0),)),
    "past-wall-end": place_of(
        piece("A", 200.0, 900.0),
        openings=(WallOpening(id="e", name="End", kind="no wall", x_mm=700.0, width_mm=2300.0, height_mm=2400.0),),
    ),
    "peg-heavy": place_of(pegs(weight=12.0)),
    "plug-larger": place_of(top(holes=(hole(kind="cable hole", size=(40.0, 40.0), plug_mm=52.0),))),
    "rests-in-ring": place_of(
        piece("A", standing=OnPieces(pieces=("B",))), piece("B", standing=OnPieces(pieces=("A",)))
    ),
    "rests-on-nothing": place_of(piece("A"), piece("B", 900.0, standing=OnPieces(pieces=("A",)))),
    "rule-lost": place_of(
        piece("A"),
        rules=(LinedUp(id="r", edge=Edge(of="A", edge="left"), to=Edge(of="ledge", edge="left")),),
        steps=(LEDGE,),
    ),
    "rules-disagree": place_of(
        piece("A"), rules=(Wide(id="r1", unit="A", wide_mm=500.0), Wide(id="r2", unit="A", wide_mm=600.0))
    ),
    "shelf-sags": place_of(carcass("A", 1200.0, Cell(fill=Shelved()), holds="books")),
    "stack-gives": place_of(*UNITS, heights=(seat(),), facts=(SKIRTING,)),
    "stack-misses": place_of(*UNITS, heights=(seat(gives=None),)),
    "stack-no-room": place_of(*UNITS, heights=(seat(finished_mm=120.0),)),
    "stands-in": place_of(piece("A", 200.0), existing=(STOVE,)),
    "walls-not-measured": place_of(piece("A"), rules=(to_wall("r1", "A", "left"),)),
    "weak-side": place_of(platform(deep=1900.0, stands="on the flat"), depth_mm=1900.0),
}


def told(name: str) -> LaidOut:
    return laid(PLACES[name], *((FRAMED,) if name == "behind-lip" else ()))


def test_every_code_has_its_place():
    assert sorted(PLACES) == sorted(get_args(RodCode))


@pytest.mark.parametrize("code", sorted(PLACES))
def test_a_finding_is_told_where_it_should_be(code):
    assert code in codes(told(code))


def test_where_all_is_well_nothing_is_told_to_mind():
    shelf = Cell(fill=Shelved(), door=Door(hinge="cup"))
    place = measured(
        carcass("A", 600.0, shelf, holds="clothes"),
        replace(carcass("B", 600.0, Cell(fill=Drawers(slides=Slides()))), x_mm=600.0),
        top(standing=OnPieces(pieces=("A", "B")), holes=(hole(at=(300.0, 200.0), size=(200.0, 150.0)),)),
        rules=(touch("r1", "A", "B"),),
        openings=(replace(WINDOW, sill_mm=1000.0),),
    )
    assert not [f.title for f in laid(place).findings if f.severity != "fine"]


def test_a_platform_on_legs_stands_over_what_stays_where_its_members_clear_it():
    """88 of deck and member under a top at 400: free up to 312; what stays 250 and 50 clear is 300: it passes."""
    legged = replace(
        platform(), height_mm=400.0, standing=Legs(long_mm=400.0, finished_mm=312.0), depth_mm=500.0, x_mm=0.0
    )
    low, high = replace(STOVE, height_mm=250.0), replace(STOVE, height_mm=270.0)
    assert "stands-in" not in codes(laid(place_of(legged, existing=(low,))))
    assert "stands-in" in codes(laid(place_of(legged, existing=(high,))))


def test_trim_that_covers_its_seams_only_by_covering_all_is_no_trim():
    seams = (100.0, 333.0, 777.0, 801.0, 1499.0)
    unit = piece("T", 0.0, 2000.0, kind="trim", body=TrimSet(piece_mm=20.0, seams_mm=seams))
    (finding,) = laid(place_of(unit)).findings
    assert (finding.code, finding.severity) == ("boards-laid", "mind")


@pytest.mark.parametrize(
    ("inside", "at", "cell", "told"),
    [
        # 600 less three boards of 18 is 273 each way: free from 18 to 291 and from 309 to 582
        ("back", (270.0, 300.0), TWO_COLUMNS, "39 mm to the left"),
        ("back", (280.0, 300.0), TWO_COLUMNS, "29 mm to the right"),
        ("back", (4.0, 300.0), TWO_COLUMNS, "14 mm to the right"),
        ("back", (100.0, 300.0), TWO_COLUMNS, ""),
        ("top", (270.0, 200.0), TWO_COLUMNS, "39 mm to the left"),
        # boards of 18 at the foot and the head of 720, one fixed shelf of 18 in the middle: 351 to 369
        ("left side", (200.0, 330.0), Cell(fill=Shelved(held="fixed")), "39 mm down"),
        ("left side", (200.0, 330.0), Cell(fill=Shelved(held="pins")), ""),
        ("right side", (200.0, 360.0), TWO_COLUMNS, ""),
    ],
)
def test_a_hole_that_falls_on_a_board_says_how_far_to_move_it(
    inside: Any, at: tuple[float, float], cell: Cell, told: str
) -> None:
    made = hole(kind="cable hole", inside=inside, at=at, size=(60.0, 60.0))
    found = [f for f in laid(place_of(carcass("A", 600.0, cell, holes=(made,)))).findings if f.code == "hole-on-board"]
    assert [f.text.split("Move it ")[1].split(" and it")[0] for f in found] == ([told] if told else [])


def test_a_lid_may_lie_over_a_divider() -> None:
    made = hole(kind="lid", inside="top", at=(150.0, 50.0), size=(300.0, 300.0), strip_mm=60.0)
    chest = carcass("A", 600.0, TWO_COLUMNS, holes=(made,))
    assert "hole-on-board" not in codes(laid(place_of(chest)))
