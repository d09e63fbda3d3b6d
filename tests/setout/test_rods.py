"""The long rod: rules over edges, with numbers worked out by hand; and a check that knows nothing of elimination."""

from __future__ import annotations

import numpy as np
import pytest

from tests.setout.places import codes, laid, laid_unit, measured, piece, place_of, to_wall, touch, units_of
from wobble.core.job import AsWide, At, Centred, Edge, Equal, Existing, LinedUp, Rule, WallOpening, Wide
from wobble.core.setout.long_rod import Walls, long_rod, wall_name

FOUR = tuple(piece(i, x) for i, x in zip("ABCD", (0.0, 600.0, 1200.0, 1800.0), strict=True))
RUN = (
    to_wall("r1", "A", "left", 20.0),
    touch("r2", "A", "B"),
    touch("r3", "B", "C"),
    touch("r4", "C", "D"),
    to_wall("r5", "D", "right", 20.0),
    Equal(id="r6", units=("A", "B", "C", "D")),
)


def test_four_equal_boxes_share_what_two_fillers_leave():
    """(2400 − 2 × 20) / 4 = 590: edges at 20, 610, 1200, 1790, 2380."""
    found = units_of(place_of(*FOUR, rules=RUN))
    assert [found[i].x_mm for i in "ABCD"] == pytest.approx([20, 610, 1200, 1790])
    assert [found[i].width_mm for i in "ABCD"] == pytest.approx([590] * 4)


def test_shares_follow_the_walls_as_they_are_measured():
    """Walls at 12 and 2391: (2391 − 12 − 40) / 4 = 584.75, the first at 32.

    Between the readings a wall may stand proud of them by a little, and a box meets it where it is proudest.
    """
    place = measured(*FOUR, left=12.0, right=2391.0, rules=RUN)
    found = units_of(place)
    assert found["A"].x_mm == pytest.approx(32.0, abs=0.8)
    assert found["D"].width_mm == pytest.approx(584.75, abs=0.5)
    assert "walls-not-measured" not in codes(laid(place))
    assert "walls-not-measured" in codes(laid(place_of(*FOUR, rules=RUN)))


def test_an_edge_carries_the_walls_uncertainty_on():
    """Wall to wall: variance 4 + 9 − 2 × 1 = 11. One of two equal ones: half of it, √11 / 2."""
    place = place_of(
        piece("A"),
        piece("B"),
        rules=(
            to_wall("r1", "A", "left"),
            touch("r2", "A", "B"),
            to_wall("r3", "B", "right"),
            Equal(id="r4", units=("A", "B")),
        ),
    )
    walls = Walls(
        (wall_name("left", "A"), wall_name("right", "B")),
        np.array([3.0, 2395.0]),
        np.array([[4.0, 1.0], [1.0, 9.0]]),
        (True, True),
    )
    rod = long_rod(place, walls)
    assert rod.width["A"].value_mm == pytest.approx(1196.0)
    assert rod.width["A"].sd_mm == pytest.approx(11**0.5 / 2)
    assert rod.left["B"].value_mm == pytest.approx(1199.0)
    # the middle of both walls: variance (4 + 9 + 2) / 4
    assert rod.left["B"].sd_mm == pytest.approx((15 / 4) ** 0.5)


def test_what_is_said_twice_differently_is_told_with_those_that_say_so():
    """A from 40, 500 wide, to 600: misses 60. The later one is not followed."""
    rules = (
        At(id="r1", edge=Edge(of="A", edge="left"), at_mm=40.0),
        Wide(id="r2", unit="A", wide_mm=500.0),
        At(id="r3", edge=Edge(of="A", edge="right"), at_mm=600.0),
    )
    out = laid(place_of(piece("A"), rules=rules))
    (finding,) = [f for f in out.findings if f.code == "rules-disagree"]
    assert finding.figure is not None
    assert finding.figure.value_mm == pytest.approx(60.0)
    assert set(finding.about) == {"r1", "r2", "r3"}
    assert {r.id: r.stands for r in out.rules} == {"r1": "holds", "r2": "holds", "r3": "contradicts"}
    assert laid_unit(out, "A").unit.width_mm == pytest.approx(500.0)


def test_what_is_said_twice_alike_is_no_contradiction():
    rules = (Wide(id="r1", unit="A", wide_mm=500.0), Wide(id="r2", unit="A", wide_mm=500.0))
    out = laid(place_of(piece("A"), rules=rules))
    assert [r.stands for r in out.rules] == ["holds", "repeats"]
    assert "rules-disagree" not in codes(out)


def test_a_row_is_centred_on_a_window_and_another_is_as_wide_as_what_stays():
    """Window 800 to 1700, middle 1250; A and B of 400 and 500 touch: from 800 to 1700. C is 640 + 10 wide."""
    window = WallOpening(id="w", name="Window", x_mm=800.0, width_mm=900.0, height_mm=900.0, sill_mm=900.0)
    stove = Existing(id="s", name="Stove", x_mm=1700.0, width_mm=640.0, height_mm=800.0, depth_mm=300.0)
    place = place_of(
        piece("A", 0, 400),
        piece("B", 400, 500),
        piece("C", 100, 300, over_base_mm=1500.0),
        openings=(window,),
        existing=(stove,),
        rules=(
            touch("r1", "A", "B"),
            Centred(id="r2", units=("A", "B"), on="w"),
            AsWide(id="r3", unit="C", than="s", more_mm=10.0),
            LinedUp(id="r4", edge=Edge(of="C", edge="middle"), to=Edge(of="s", edge="middle")),
        ),
    )
    found = units_of(place)
    assert (found["A"].x_mm, found["B"].right_mm) == pytest.approx((800.0, 1700.0))
    assert (found["C"].x_mm, found["C"].width_mm) == pytest.approx((1695.0, 650.0))


def test_a_rule_that_names_what_is_gone_is_not_followed_and_says_so():
    out = laid(place_of(piece("A", 30.0), rules=(touch("r1", "gone", "A"),)))
    assert out.rules[0].stands == "names nothing"
    assert laid_unit(out, "A").unit.x_mm == pytest.approx(30.0)


def test_no_room_is_told_and_leaves_fit_a_unit_to_look_at():
    """Between 1000 and the right wall stand 800 and B; B keeps 600 of 1400, so C is left 0."""
    rules = (
        At(id="r1", edge=Edge(of="A", edge="left"), at_mm=1000.0),
        Wide(id="r2", unit="A", wide_mm=800.0),
        touch("r3", "A", "B"),
        Wide(id="r4", unit="B", wide_mm=700.0),
        touch("r5", "B", "C"),
        to_wall("r6", "C", "right"),
    )
    place = place_of(piece("A"), piece("B"), piece("C"), rules=rules)
    out = laid(place)
    (finding,) = [f for f in out.findings if f.code == "no-width"]
    assert finding.about == ("C",)
    assert finding.figure is not None
    assert finding.figure.value_mm == pytest.approx(-100.0)
    assert units_of(place)["C"].width_mm == pytest.approx(1.0)


@pytest.mark.parametrize("seed", range(12))
def test_random_rules_hold_or_are_told_to_contradict(seed):
    """Whatever is said: each rule that is told to hold is true of the edges that come out."""
    rng = np.random.default_rng(seed)
    units = [piece(f"u{i}", float(rng.uniform(0, 1800)), float(rng.uniform(100, 500))) for i in range(5)]
    rules: list[Rule] = []
    for k in range(8):
        a, b = (str(u) for u in rng.choice([u.id for u in units], 2, replace=False))
        side, other = (str(s) for s in rng.choice(["left", "middle", "right"], 2))
        rules.append(
            [
                Wide(id=f"r{k}", unit=a, wide_mm=float(rng.uniform(100, 500))),
                Equal(id=f"r{k}", units=(a, b)),
                AsWide(id=f"r{k}", unit=a, than=b, more_mm=float(rng.integers(-20, 20))),
                At(id=f"r{k}", edge=Edge(of=a, edge=side), at_mm=float(rng.uniform(0, 2000))),  # type: ignore[arg-type]
                LinedUp(id=f"r{k}", edge=Edge(of=a, edge=side), to=Edge(of=b, edge=other), off_mm=5.0),  # type: ignore[arg-type]
                Centred(id=f"r{k}", units=(a, b), on="place"),
            ][int(rng.integers(6))]
        )
    place = place_of(*units, rules=tuple(rules))
    walls = {("left", u.id): 0.0 for u in units} | {("right", u.id): 2400.0 for u in units}
    names = tuple(wall_name(*key) for key in walls)
    rod = long_rod(place, Walls(names, np.array(list(walls.values())), np.zeros((10, 10)), (True,) * 10))
    clashing = {c.id for c in rod.clashes}

    def at(edge: Edge) -> float:
        return (
            rod.left[edge.of].value_mm
            + {"left": 0.0, "middle": 0.5, "right": 1.0}[edge.edge] * rod.width[edge.of].value_mm
        )

    for rule in rules:
        if rule.id in clashing:
            continue
        match rule:
            case Wide(unit=unit, wide_mm=wide):
                misses = rod.width[unit].value_mm - wide
            case Equal(units=(one, two)):
                misses = rod.width[one].value_mm - rod.width[two].value_mm
            case AsWide(unit=unit, than=than, more_mm=more):
                misses = rod.width[unit].value_mm - rod.width[than].value_mm - more
            case At(edge=edge, at_mm=where):
                misses = at(edge) - where
            case LinedUp(edge=edge, to=to, off_mm=off):
                misses = at(edge) - at(to) - off
            case Centred(units=(one, two)):
                misses = (at(Edge(of=one, edge="left")) + at(Edge(of=two, edge="right"))) / 2 - 1200.0
            case _:
                raise AssertionError(rule)
        assert abs(misses) < 0.06, rule
