"""Parts from construction: put together again, they are the unit that was asked for."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.make.assembler import CARCASS, NEAR, free_around, size_of, spans, stands
from wobble.core.job import (
    Bare,
    Cell,
    Columns,
    Construction,
    Door,
    Drawers,
    FramedFront,
    Insides,
    Job,
    Place,
    Rows,
    Shelved,
    ToeKickBox,
    Unit,
)
from wobble.core.job.unit import Angled, Legs, OnShims
from wobble.core.make.construction.units import place_parts, unit_parts
from wobble.core.part import Part
from wobble.core.setout.cells import back_takes_mm, laid_cells, under_box_mm

doors = st.none() | st.builds(
    Door,
    hangs=st.sampled_from(("left", "right", "pair", "up", "down")),
    lies=st.sampled_from(("inset", "half overlay", "full overlay")),
    hinge=st.sampled_from(("not chosen", "cup", "butt")),
)
leaf_cells = st.builds(
    Cell,
    fill=st.one_of(
        st.just(Bare()),
        st.builds(Shelved, count=st.integers(1, 3), held=st.sampled_from(("pins", "fixed"))),
        st.builds(Drawers, count=st.integers(1, 3)),
    ),
    door=doors,
)


def split(cells: st.SearchStrategy[Cell]) -> st.SearchStrategy[Cell]:
    parts = st.lists(cells, min_size=2, max_size=3).map(tuple)
    return st.builds(Cell, fill=st.builds(Columns, cells=parts) | st.builds(Rows, cells=parts))


cells = st.recursive(leaf_cells, split, max_leaves=5)
ways = st.builds(
    Construction,
    id=st.just("way"),
    name=st.just("Way"),
    board_mm=st.sampled_from((15.0, 17.4, 18.0, 19.05)),
    sides=st.sampled_from(("through", "between")),
    back=st.sampled_from(("none", "applied", "rebated", "grooved")),
    back_mm=st.sampled_from((5.2, 6.0, 9.0)),
    face_frame=st.none() | st.just(FramedFront()),
    top=st.sampled_from(("whole", "stretchers")),
    joined=st.sampled_from(("screws", "pocket screws", "dowels")),
)
units = st.builds(
    Unit,
    id=st.just("A"),
    name=st.just("A Box"),
    x_mm=st.just(500.0),
    width_mm=st.sampled_from((900.0, 1200.0, 1437.5)),
    depth_mm=st.sampled_from((420.0, 560.0)),
    height_mm=st.sampled_from((1200.0, 1800.0, 2150.0)),
    standing=st.sampled_from((OnShims(), ToeKickBox(height_mm=100.0), Legs(finished_mm=120.0, long_mm=150.0))),
    insides=st.builds(Insides, built=st.just("way"), cell=cells),
    ready_made=st.just(False),
)


def room(*made: Unit) -> Place:
    return Place(id="p", name="P", width_mm=4000.0, depth_mm=700.0, height_mm=2400.0, units=made)


def parts_of(unit: Unit, way: Construction) -> tuple[Part, ...]:
    return unit_parts(Job(name="", constructions=(way,)), room(unit), unit)


@given(units, ways)
@settings(max_examples=150)
def test_a_unit_put_together_is_the_unit_that_was_asked_for(unit: Unit, way: Construction) -> None:
    laid, short = laid_cells(unit, way)
    assume(not short and all(c.rect.wide_mm > 140 and c.rect.high_mm > 150 for c in laid))
    parts = parts_of(unit, way)
    low, t = under_box_mm(unit), way.board_mm
    stands([p for p in parts if p.role != "toe kick"])
    boards = [b for p in parts if p.role in CARCASS | {"stile", "rail"} for b in p.boxes]
    wanted = ((0.0, unit.width_mm), (0.0, unit.depth_mm), (low, unit.height_mm))
    for got, asked in zip(size_of(boards), wanted, strict=True):
        assert got == pytest.approx(asked, abs=NEAR)
    y = back_takes_mm(way) + 30.0  # behind the fronts of drawers, before the back
    for cell in laid:
        if not cell.leaf or (cell.shelves_at and cell.shelf_mm is not None and len(cell.shelves_at) > 0):
            continue
        x, z = cell.rect.x_mm + cell.rect.wide_mm / 2, cell.rect.z_mm + cell.rect.high_mm / 2
        across, up = free_around(parts, x, z, y)
        assert across == pytest.approx((cell.rect.x_mm, cell.rect.x_mm + cell.rect.wide_mm), abs=NEAR)
        assert up == pytest.approx((cell.rect.z_mm, cell.rect.z_mm + cell.rect.high_mm), abs=NEAR)
    backs = [p for p in parts if p.role == "back"]
    assert bool(backs) == (way.back != "none")
    for back in backs:
        across, _, up = spans(back.boxes[0])
        assert across[0] <= t + NEAR
        assert across[1] >= unit.width_mm - t - NEAR
        assert up[0] <= low + t + NEAR
        assert up[1] >= unit.height_mm - t - NEAR


@given(units, ways)
@settings(max_examples=40)
def test_a_unit_in_the_mirror_has_the_parts_in_the_mirror(unit: Unit, way: Construction) -> None:
    def mirrored(cell: Cell) -> Cell:
        fill, door = cell.fill, cell.door
        if isinstance(fill, Columns):
            fill = Columns(cells=tuple(mirrored(c) for c in reversed(fill.cells)))
        elif isinstance(fill, Rows):
            fill = Rows(cells=tuple(mirrored(c) for c in fill.cells))
        if door is not None and door.hangs in ("left", "right"):
            door = replace(door, hangs="right" if door.hangs == "left" else "left")
        return replace(cell, fill=fill, door=door)

    assert unit.insides is not None
    other = replace(unit, insides=replace(unit.insides, cell=mirrored(unit.insides.cell)))

    def told(u: Unit, *, flip: bool) -> list[tuple[str, tuple[float, ...]]]:
        boxes = [(p.role, b) for p in parts_of(u, way) for b in p.boxes]
        return sorted(
            (
                role,
                tuple(
                    round(v, 2) + 0.0
                    for v in (
                        u.width_mm - b.x_mm - b.wide_mm if flip else b.x_mm,
                        b.y_mm,
                        b.z_mm,
                        b.wide_mm,
                        b.deep_mm,
                        b.high_mm,
                    )
                ),
            )
            for role, b in boxes
        )

    left = told(other, flip=True)
    for role, a in told(unit, flip=False):
        # each finds its own: two that are half of a hundredth apart may stand in either order
        same = next((o for o in left if o[0] == role and a == pytest.approx(o[1], abs=0.02)), None)
        assert same is not None, (role, a)
        left.remove(same)
    assert not left


BASE = Unit(
    id="B",
    name="B Base",
    x_mm=1000.0,
    width_mm=600.0,
    depth_mm=560.0,
    height_mm=720.0,
    ready_made=False,
    insides=Insides(built="way", cell=Cell(fill=Shelved(count=1), door=Door(hinge="cup"))),
)
WAY = Construction(id="way", name="Way")


def test_a_plain_base_unit_by_hand() -> None:
    """Sides 720 × 560; bottom and top 600 - 36 = 564; back 564 + 2 × 8 - 1 by 684 + 2 × 8 - 1; door 596 × 716."""
    sizes = {p.id: tuple(round(d.figure.value_mm, 2) for d in p.finished) for p in parts_of(BASE, WAY)}
    assert sizes == {
        "side-B-left": (720.0, 560.0),
        "side-B-right": (720.0, 560.0),
        "bottom-B": (564.0, 560.0),
        "carcass-top-B": (564.0, 560.0),
        "back-B": (699.0, 579.0),
        "loose-shelf-B-in-main": (562.0, 542.0),  # 564 less 1 at each end; 560 - 12 - 6
        "door-B-main": (716.0, 596.0),
    }


def test_thinner_board_changes_what_stands_between_others_and_nothing_else() -> None:
    def sizes(way: Construction) -> dict[str, tuple[float, ...]]:
        return {p.id: (p.thick_mm, *(round(d.figure.value_mm, 3) for d in p.finished)) for p in parts_of(BASE, way)}

    before, after = sizes(WAY), sizes(replace(WAY, board_mm=17.4))
    changed = {k: tuple(round(b - a, 3) for a, b in zip(before[k], after[k], strict=True)) for k in before}
    assert changed == {
        "side-B-left": (-0.6, 0.0, 0.0),
        "side-B-right": (-0.6, 0.0, 0.0),
        "bottom-B": (-0.6, 1.2, 0.0),
        "carcass-top-B": (-0.6, 1.2, 0.0),
        "back-B": (0.0, 1.2, 1.2),  # the groove stays 8 mm deep: half of 17.4 is more
        "loose-shelf-B-in-main": (0.0, 1.2, 0.0),
        "door-B-main": (0.0, 0.0, 0.0),  # its opening grows, its overlay shrinks by as much
    }


def test_a_seen_end_is_not_screwed_through_and_a_hidden_one_is() -> None:
    beside = replace(BASE, id="C", name="C", x_mm=1600.0)
    parts = {p.id: p for p in place_parts(Job(name="", constructions=(WAY,)), room(BASE, beside), {})}
    seen, hidden = parts["side-B-left"], parts["side-B-right"]
    assert seen.seen == ("outer face",)
    assert "not screwed through" in seen.joins
    assert not any(d.use == "screw" for d in seen.drillings)
    assert not hidden.seen
    assert any(d.use == "screw" for d in hidden.drillings)


def test_an_angled_end_has_a_side_of_its_own_length() -> None:
    parts = {p.id: p for p in parts_of(replace(BASE, angled=Angled(end="left", along_mm=200.0, deep_mm=150.0)), WAY)}
    assert parts["side-B-left"].finished[1].figure.value_mm == 410.0
    assert parts["side-B-right"].finished[1].figure.value_mm == 560.0


def test_boards_that_lie_in_an_angled_end_lose_the_corner_that_the_line_leaves_them() -> None:
    """200 along and 150 deep rise 3 in 4, 36.87°.

    The bottom begins behind a side of 18: 182 along, 136.5 deep. A stretcher of 100 in front is left behind by the
    line after 100 / 0.75 = 133.3 along: 48.7 of its rear edge go, too. The side is 410 at its outer face, 13.5 more
    at the inner one, its edge bevelled so much.
    """
    way = replace(WAY, top="stretchers", stretcher_mm=100.0)
    parts = {p.id: p for p in parts_of(replace(BASE, angled=Angled(end="right", along_mm=200.0, deep_mm=150.0)), way)}
    bottom = parts["bottom-B"].corner
    assert bottom is not None
    assert (bottom.end, bottom.along_mm, bottom.deep_mm, bottom.rear_mm) == ("right", 182.0, 136.5, 0.0)
    assert bottom.angle_deg == pytest.approx(36.87, abs=0.01)
    assert bottom.words == "right front corner off: 182 mm along the front edge, 136.5 mm back from it; 36.9° to it"
    front = parts["stretcher-B-front"].corner
    assert front is not None
    assert (front.along_mm, front.deep_mm) == (182.0, 100.0)
    assert front.rear_mm == pytest.approx(182 - 100 / 0.75)
    assert parts["stretcher-B-back"].corner is None
    side = parts["side-B-right"]
    assert side.blank_mm[1] - parts["side-B-left"].blank_mm[1] == pytest.approx(13.5 - 150.0)
    assert side.bevel_deg == pytest.approx(36.87, abs=0.01)


def test_a_divider_in_an_angled_end_is_less_deep_and_bevelled() -> None:
    """600 wide, two equal columns: the divider stands from 291 to 309. 400 along and 200 deep fall 1 in 2, 26.57°.

    From the right end its faces are 291 and 309: the line is (400 - 291) / 2 = 54.5 and (400 - 309) / 2 = 45.5 behind
    the front there. From the left the same, mirrored. With 300 along and 150 deep, 4.5 of its shorter face and none of
    the other; with 200 along nothing.
    """
    halves = Insides(cell=Cell(fill=Columns(cells=(Cell(), Cell()))))

    def divider(end: str, along: float, deep: float) -> Part:
        unit = replace(BASE, insides=halves, angled=Angled(end=end, along_mm=along, deep_mm=deep))  # type: ignore[arg-type]
        return next(p for p in parts_of(unit, WAY) if p.role == "divider")

    square = next(p for p in parts_of(replace(BASE, insides=halves), WAY) if p.role == "divider")
    assert square.boxes[0].x_mm == 291.0
    for end in ("left", "right"):
        cut = divider(end, 400.0, 200.0)
        assert square.boxes[0].deep_mm - cut.boxes[0].deep_mm == pytest.approx(54.5)
        assert cut.finished[1].figure.value_mm == pytest.approx(square.finished[1].figure.value_mm - 54.5)
        assert cut.blank_mm[1] == pytest.approx(square.blank_mm[1] - 45.5)
        assert cut.bevel_deg == pytest.approx(26.57, abs=0.01)
        assert f"the shorter face towards the {end} end" in cut.joins
        assert divider(end, 300.0, 150.0).blank_mm == square.blank_mm
        assert divider(end, 300.0, 150.0).boxes[0].deep_mm == pytest.approx(square.boxes[0].deep_mm - 4.5)
        assert divider(end, 200.0, 150.0) == square


def test_pins_run_parallel_to_the_front_and_lie_in_the_board() -> None:
    side = next(p for p in parts_of(BASE, WAY) if p.id == "side-B-left")
    pins = next(d for d in side.drillings if d.use == "shelf pin")
    rows = sorted({y for _, y in pins.at})
    assert rows == [12 + 6 + 37, 560 - 37]
    heights = sorted({z for z, _ in pins.at})
    assert all(abs(b - a - 32) < 1e-9 for a, b in itertools.pairwise(heights))
    assert heights[0] - 18 == pytest.approx(720 - 18 - heights[-1])
    assert pins.deep_mm < WAY.board_mm


def test_bought_units_have_no_boards_to_cut() -> None:
    assert place_parts(Job(name=""), room(replace(BASE, ready_made=True)), {}) == ()


def _handle(unit: Unit, way: Construction, id_: str) -> tuple[tuple[float, float], ...]:
    board = next(p for p in parts_of(unit, way) if p.id == id_)
    return next((d.at for d in board.drillings if d.use == "handle"), ())


def test_a_handle_stands_at_the_edge_that_opens_as_near_to_a_hand_as_its_door_goes() -> None:
    """A door of 716 by 596 hung left: 40 in from its right edge, 556; its upper hole 40 under its head, 676.

    Over a counter it is at the foot; on a tall door its middle is 1000 over the floor: the door begins 2 up, so the
    lower of two holes 128 apart is at 1000 − 64 − 2 = 934.
    """
    way = replace(WAY, handle_apart_mm=128.0)
    assert _handle(BASE, way, "door-B-main") == ((548.0, 556.0), (676.0, 556.0))
    assert _handle(replace(BASE, over_base_mm=1400.0), way, "door-B-main") == ((40.0, 556.0), (168.0, 556.0))
    assert _handle(replace(BASE, height_mm=2000.0), way, "door-B-main") == ((934.0, 556.0), (1062.0, 556.0))
    assert _handle(BASE, replace(WAY, handle_apart_mm=0.0), "door-B-main") == ((676.0, 556.0),)
    assert not _handle(BASE, WAY, "door-B-main")
    up = replace(BASE, insides=Insides(built="way", cell=Cell(door=Door(hangs="up", hinge="cup"))))
    assert _handle(up, way, "door-B-main") == ((40.0, 234.0), (40.0, 362.0))
    right = replace(BASE, insides=Insides(built="way", cell=Cell(door=Door(hangs="right", hinge="cup"))))
    assert _handle(right, way, "door-B-main") == ((548.0, 40.0), (676.0, 40.0))


def test_a_drawer_front_has_its_handle_in_the_middle() -> None:
    chest = replace(BASE, insides=Insides(built="way", cell=Cell(fill=Drawers(count=2))))
    front = next(p for p in parts_of(chest, WAY) if p.role == "drawer front")
    long, wide = (d.figure.value_mm for d in front.finished)
    at = _handle(chest, replace(WAY, handle_apart_mm=96.0), front.id)
    assert at == ((long / 2 - 48, wide / 2), (long / 2 + 48, wide / 2))


def test_pin_holes_go_by_the_jig_that_is_there() -> None:
    side = next(p for p in parts_of(BASE, replace(WAY, pin_pitch_mm=25.0)) if p.id == "side-B-left")
    row = sorted({x for x, _ in next(d for d in side.drillings if d.use == "shelf pin").at})
    assert {round(b - a, 6) for a, b in itertools.pairwise(row)} == {25.0}
    # 684 are free between bottom and top: the ends keep three pitches clear
    assert row[0] >= 18 + 75
    assert row[-1] <= 720 - 18 - 75
    assert row[-1] - row[0] == 25.0 * ((684 - 150) // 25)
