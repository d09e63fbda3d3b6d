"""What is done on the rods: edges dragged and typed, pieces put in, split, merged, copied, mirrored, taken out."""

from __future__ import annotations

from contextlib import suppress
from typing import Any

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.setout.places import job_of, piece, place_of, read_somehow
from tests.setout.test_rods import FOUR, RUN
from wobble.core import solve
from wobble.core.formats.document import read_job, write_job
from wobble.core.job import Cell, Columns, Door, Edge, Hole, Insides, Place, Unit, Wide
from wobble.core.job.unit import ScribeAllowance
from wobble.core.setout.laid import SetOut, said_of
from wobble.core.setout.moves import (
    Copy,
    Delete,
    Drag,
    Insert,
    Merge,
    Mirror,
    Move,
    MoveError,
    Release,
    Say,
    SplitUp,
    TypeEdge,
    TypeWidth,
    mirrored,
)
from wobble.core.setout.starters.begin import STARTERS, begin
from wobble.core.stages import try_setout, with_set_out

RUN_PLACE = place_of(*FOUR, rules=RUN)


def after(move: Move | None, said: SetOut | None = None, place: Place = RUN_PLACE) -> tuple[SetOut, dict[str, Unit]]:
    tried = try_setout(job_of(place), "p", said or said_of(place), move)
    return tried.said, {u.unit.id: u.unit for u in tried.laid.units}


def edges(found: dict[str, Unit], ids: str) -> list[float]:
    return [found[i].x_mm for i in ids] + [found[ids[-1]].right_mm]


def test_a_dragged_edge_moves_both_that_touch_there_and_no_other():
    """Of four equal ones the edge between B and C goes from 1200 to 1300: B is 690, C 490, A and D stay 590."""
    _, found = after(Drag(edge=Edge(of="C", edge="left"), at_mm=1300.0))
    assert edges(found, "ABCD") == pytest.approx([20, 610, 1300, 1790, 2380])


def test_a_typed_edge_and_a_typed_width_are_kept_and_the_rest_share():
    """B typed 500 wide: A, C and D share (2360 − 500) / 3 = 620."""
    said, found = after(TypeWidth(unit="B", wide_mm=500.0))
    assert [found[i].width_mm for i in "ABCD"] == pytest.approx([620, 500, 620, 620])
    said, found = after(TypeEdge(edge=Edge(of="B", edge="left"), at_mm=700.0), said)
    assert found["B"].x_mm == pytest.approx(700.0)
    assert found["B"].width_mm == pytest.approx(500.0)
    assert found["D"].right_mm == pytest.approx(2380.0)


def test_an_edge_brought_to_another_stays_with_it():
    place = place_of(piece("A", 0, 500), piece("B", 900, 500))
    said, found = after(Drag(edge=Edge(of="B", edge="left"), at_mm=500.0, to=Edge(of="A", edge="right")), place=place)
    assert (found["B"].x_mm, found["B"].right_mm) == pytest.approx((500.0, 1400.0))
    _, found = after(TypeWidth(unit="A", wide_mm=450.0), said, place)
    assert found["B"].x_mm == pytest.approx(450.0)


def test_a_piece_held_in_its_middle_moves_whole():
    place = place_of(piece("A", 100, 500))
    _, found = after(Drag(edge=Edge(of="A", edge="middle"), at_mm=1000.0), place=place)
    assert (found["A"].x_mm, found["A"].width_mm) == pytest.approx((750.0, 500.0))


def test_what_a_rule_held_stays_when_it_is_taken_off():
    said, _ = after(Release(rule="r6"))
    assert "r6" not in {r.id for r in said.rules}
    assert [u.width_mm for u in said.units] == pytest.approx([590] * 4)


def test_put_in_beside_another_what_touched_it_touches_the_new_one():
    said, found = after(Insert(kind="drawers", after="B"))
    new = next(u for u in said.units if u.id not in "ABCD")
    # five share what four shared: 2360 / 5 = 472
    assert found[new.id].width_mm == pytest.approx(472.0)
    assert found[new.id].x_mm == pytest.approx(found["B"].right_mm)
    assert found["C"].x_mm == pytest.approx(found[new.id].right_mm)
    assert found["D"].right_mm == pytest.approx(2380.0)


def test_split_in_three_and_made_one_again():
    said, found = after(SplitUp(unit="B", parts=3))
    parts = [u for u in said.units if u.id not in "ACD"]
    assert len(parts) == 3
    assert [found[u.id].width_mm for u in parts] == pytest.approx([590 / 3] * 3)
    assert found["C"].x_mm == pytest.approx(1200.0)
    _, found = after(Merge(units=tuple(u.id for u in parts)), said)
    assert set(found) == set("ABCD")
    assert edges(found, "ABCD") == pytest.approx([20, 610, 1200, 1790, 2380])


def test_merging_what_does_not_touch_says_so():
    with pytest.raises(MoveError, match="side by side"):
        after(Merge(units=("A", "C")))


def test_a_copy_a_little_deeper_and_its_name():
    place = place_of(piece("A", 0, 500, name="A Chest"))
    _, found = after(Copy(unit="A", deeper_mm=50.0), place=place)
    (new,) = [u for i, u in found.items() if i != "A"]
    assert (new.depth_mm, new.x_mm, new.name) == (550.0, 500.0, f"{new.id} Chest")


def test_a_mirror_image_swaps_hinges_columns_holes_and_is_named():
    columns = Columns(cells=(Cell(size_mm=200.0, door=Door(hangs="left")), Cell()))
    unit = piece(
        "A",
        0,
        800,
        insides=Insides(cell=Cell(fill=columns)),
        holes=(Hole(id="h", name="Cable", at=(100.0, 50.0), size=(60.0, 60.0)),),
        meets=("left",),
        scribe_allowance=ScribeAllowance(left_mm=10.0),
    )
    _, found = after(Mirror(unit="A"), place=place_of(unit))
    (new,) = [u for i, u in found.items() if i != "A"]
    assert new.mirror_of == "A"
    assert new.insides is not None
    assert isinstance(new.insides.cell.fill, Columns)
    last = new.insides.cell.fill.cells[1]
    assert (last.size_mm, last.door and last.door.hangs) == (200.0, "right")
    assert new.holes[0].at == (800.0 - 100.0 - 60.0, 50.0)
    assert new.meets == ("right",)
    assert new.scribe_allowance.right_mm == 10.0


def test_taken_out_with_every_mention():
    said, found = after(Delete(ids=("B",)))
    assert set(found) == set("ACD")
    assert not any("B" in str(rule) for rule in said.rules if rule.id in ("r2", "r3"))
    assert [found[i].width_mm for i in "AD"] == pytest.approx([590, 590], abs=300)


def test_a_move_on_what_is_not_there_says_so():
    with pytest.raises(MoveError, match="no piece"):
        after(TypeWidth(unit="Z", wide_mm=500.0))


@settings(max_examples=25)
@given(seed=st.integers(0, 10**6))
def test_mirrored_twice_is_as_it_was(seed):
    rng = np.random.default_rng(seed)
    place = begin(STARTERS[int(rng.integers(len(STARTERS)))].id, "p", "P", {}, "mm")
    for unit in place.units:
        assert mirrored(mirrored(unit)) == unit


def _random_move(rng: np.random.Generator, said: SetOut) -> Move:
    ids = [u.id for u in said.units]
    one = str(rng.choice(ids)) if ids else "A"
    side: Any = str(rng.choice(["left", "middle", "right"]))
    at = float(np.round(rng.uniform(0, 2400)))
    kind: Any = str(rng.choice(["base", "top", "rack", "boarding", "peg wall", "cushion"]))
    others = [i for i in ids if i != one]
    to = Edge(of=str(rng.choice(others)), edge="right") if others and rng.random() < 0.5 else None
    moves: list[Move] = [
        Drag(edge=Edge(of=one, edge=side), at_mm=at, to=to),
        TypeEdge(edge=Edge(of=one, edge="left"), at_mm=at),
        TypeWidth(unit=one, wide_mm=float(rng.uniform(5, 900))),
        Insert(kind=kind, after=one),
        SplitUp(unit=one, parts=2),
        Copy(unit=one, taller_mm=20.0),
        Mirror(unit=one, in_place=bool(rng.random() < 0.5)),
        Delete(ids=(one,)),
        Release(rule=said.rules[int(rng.integers(len(said.rules)))].id if said.rules else "r1"),
        Merge(units=tuple(ids[:2]) if len(ids) > 1 else (one, one)),
    ]
    return moves[int(rng.integers(len(moves)))]


@pytest.mark.parametrize("seed", range(14))
def test_whatever_is_done_comes_to_something_and_goes_back(seed):
    """Random edits from every starter: each document round-trips, is answered, and undoing is the same to the byte."""
    rng = np.random.default_rng(seed)
    place = begin(STARTERS[seed % len(STARTERS)].id, "p", "P", {}, "mm" if seed % 2 else "in")
    job = job_of(place)
    said = said_of(place)
    past = []
    for _ in range(12):
        past.append((said, write_job(with_set_out(job, "p", said))))
        try:
            tried = try_setout(job, "p", said, _random_move(rng, said))
        except MoveError:
            continue
        said = tried.said
        made = with_set_out(job, "p", said)
        assert read_job(write_job(made)) == made
        assert all(u.unit.width_mm >= 1.0 and u.unit.x_mm >= 0.0 for u in tried.laid.units)
        held = {r.id for r in said.rules}
        assert {r.id for r in tried.laid.rules} == held
    for before, document in reversed(past):
        assert write_job(with_set_out(job, "p", before)) == document


@pytest.mark.parametrize("seed", range(7))
def test_whatever_is_set_out_and_measured_is_solved_by_every_stage(seed):
    """From every other starter: some random edits, some surfaces read; all stages answer, and it can be sent."""
    rng = np.random.default_rng(seed)
    place = read_somehow(begin(STARTERS[2 * seed].id, "p", "P", {}, "mm"), rng)
    job, said = job_of(place), said_of(place)
    for _ in range(6):
        with suppress(MoveError):
            said = try_setout(job, "p", said, _random_move(rng, said)).said
    result = solve(with_set_out(job, "p", said))
    text = msgspec.json.encode(result)
    assert msgspec.json.decode(text, type=type(result)) == result
    assert b"NaN" not in text


def test_a_said_rule_takes_the_place_of_what_held_the_same():
    said, _ = after(TypeWidth(unit="B", wide_mm=500.0))
    said, found = after(Say(rule=Wide(id="mine", unit="B", wide_mm=480.0)), said)
    assert found["B"].width_mm == pytest.approx(480.0)
    assert sum(isinstance(r, Wide) for r in said.rules) == 1
