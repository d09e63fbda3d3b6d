"""Simulated instruments read a true place; a survey of what they read gives that place back within what it claims."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import WHEN
from wobble.core.errors import DocumentError
from wobble.core.formats.checks import check_job
from wobble.core.gauge.checks import findings, found
from wobble.core.gauge.surveyed import surveyed
from wobble.core.job import (
    Corner,
    FlipCheck,
    Gap,
    HookCheck,
    Instrument,
    Job,
    Offset,
    Place,
    Profile,
    Reading,
    Scan,
    SetUp,
    Slope,
    Span,
    SquareCheck,
    SurfaceName,
)
from wobble.core.practice import simulated
from wobble.core.practice.rooms import TrueSurface
from wobble.core.practice.simulated import Simulated, TruePlace
from wobble.core.stages import survey_of

WIDTH, DEPTH, HEIGHT = 2000.0, 600.0, 2200.0
SURFACES: tuple[SurfaceName, ...] = ("floor", "ceiling", "back", "left", "right")
LINES = (
    SetUp(id="level", name="Level line", across="z", at_mm=1000.0),
    SetUp(id="plumb", name="Plumb plane", across="y", at_mm=700.0),
    SetUp(id="side", name="Plumb plane across", across="x", at_mm=900.0),
    SetUp(id="stick", name="Stick of unknown place", across="y"),
)
TRUE_LINES = {"level": 1000.0, "plumb": 700.0, "side": 900.0, "stick": 612.0}
LINE_OF = {"floor": "level", "ceiling": "level", "back": "plumb", "left": "side", "right": "side"}
SIZES = {"floor": (WIDTH, DEPTH), "ceiling": (WIDTH, DEPTH), "back": (WIDTH, HEIGHT)}
LASER = simulated.laser_line(0.5)


def true_place(rng: np.random.Generator) -> TruePlace:
    """A place that falls, leans and bows, its floor hollow; nothing in it is drawn from the estimator's prior."""
    surfaces = {}
    for name in SURFACES:
        level = {"ceiling": HEIGHT, "right": WIDTH}.get(name, 0.0)
        surfaces[name] = TrueSurface(
            SIZES.get(name, (DEPTH, HEIGHT)),
            level_mm=level + rng.uniform(-6, 6),
            gradient=(rng.uniform(-0.008, 0.008), rng.uniform(-0.008, 0.008)),
            bow_mm=(rng.uniform(-4, 0 if name == "floor" else 4), rng.uniform(-2, 2)),
        )
    return TruePlace(surfaces, TRUE_LINES, WIDTH)


def common(id_: str, **more: object) -> dict[str, Any]:
    return {"id": id_, "instrument": "none yet", "taken_at": WHEN, **more}


def ground_round(place_: TruePlace, rng: np.random.Generator, *surfaces: SurfaceName) -> list[Reading]:
    """Offsets on an even grid of the named surfaces, so that a kind is asked on top of something known."""
    out: list[Reading] = []
    for surface in surfaces:
        u, v = SIZES.get(surface, (DEPTH, HEIGHT))
        for i in range(4):
            for j in range(3):
                at = (u * (0.05 + 0.3 * i), v * (0.1 + 0.4 * j))
                blank = Offset(
                    **common(f"{surface}-{i}{j}", surface=surface, at=at, set_up=LINE_OF[surface], value_mm=0)
                )
                out.append(LASER.read(blank, place_, rng))
    return out


def asked_slope(rng: np.random.Generator) -> list[Reading]:
    xs = rng.uniform(100, WIDTH - 700, 3)
    return [
        Slope(**common(f"s{i}", surface="floor", start=(x, 200.0), end=(x + 600, 350.0), value=0, unit=unit))
        for i, (x, unit) in enumerate(zip(xs, ("mm", "mm/m", "mm"), strict=True))
    ]


def asked_gap(rng: np.random.Generator) -> list[Reading]:
    x = rng.uniform(100, 500)
    spots = ((x, 300.0), (x + 1400, 300.0), (x + 700, 300.0))
    return [Gap(**common("g", surface="floor", start=spots[0], end=spots[1], at=spots[2], value_mm=0))]


def asked_corner(rng: np.random.Generator) -> list[Reading]:
    return [
        Corner(**common(f"c{side}", corner=side, height_mm=z, along_mm=550, out_mm=580, value_mm=1))
        for side, z in (("back-left", rng.uniform(100, 2000)), ("back-right", 1200.0))
    ]


def asked_square(rng: np.random.Generator) -> list[Reading]:
    z = rng.uniform(100, 2000)
    plain = common("q", corner="back-left", height_mm=z, along_mm=400, out_mm=400, how="square", value_mm=0)
    return [Corner(**plain)]


def asked_spans(rng: np.random.Generator) -> list[Reading]:
    across = [
        Span(**common(f"w{i}", between="left-right", at=(y, rng.uniform(50, 2150)), value_mm=1))
        for i, y in enumerate((40.0, 300.0, 560.0))
    ]
    up = [Span(**common("h", between="floor-ceiling", at=(rng.uniform(100, 1900), 300.0), value_mm=1))]
    return [*across, *up]


def asked_profile(rng: np.random.Generator) -> list[Reading]:
    x = rng.uniform(200, 1800)
    heights = tuple((float(z), 0.0) for z in range(100, 2200, 300))
    return [Profile(**common("p", surface="back", along_mm=x, set_up="stick", points=heights))]


def asked_scan(rng: np.random.Generator) -> list[Reading]:
    points = tuple((float(u), float(v), 0.0) for u in range(100, 2000, 300) for v in (100, 300, 500))
    return [Scan(**common("scan", surface="floor", set_up="level", points=points, tilt_mm_per_m=2.0))]


def asked_offset(rng: np.random.Generator) -> list[Reading]:
    return [Offset(**common("o", surface="left", at=(rng.uniform(50, 550), 800.0), set_up="side", value_mm=0))]


KINDS = {
    "offset": (asked_offset, simulated.laser_line(0.5)),
    "slope": (asked_slope, simulated.bubble_level(0.7)),
    "gap": (asked_gap, Simulated(Instrument(id="edge", name="Feelers", sigma_mm=0.3), 0.1)),
    "diagonal": (asked_corner, simulated.tape()),
    "square": (asked_square, simulated.square()),
    "spans": (asked_spans, simulated.laser_meter()),
    "profile": (asked_profile, simulated.tape()),
    "scan": (asked_scan, LASER),
}


@pytest.mark.parametrize("kind", KINDS)
def test_a_survey_made_from_a_truth_returns_it_within_its_uncertainty(kind):
    """The truth lies in the 95 % interval nearly always, in no seed far out of it, and the kind narrows it."""
    ask, tool = KINDS[kind]
    z, narrowed = [], []
    for seed in range(24):
        rng = np.random.default_rng(seed)
        truth = true_place(rng)
        base = ground_round(truth, rng, *(SURFACES if kind in ("diagonal", "square", "spans") else ("floor", "back")))
        mine = [tool.read(blank, truth, rng) for blank in ask(rng)]
        adjustment, before = adjusted([*base, *mine], tool).adjustment, adjusted(base, tool).adjustment
        own = {r.id for r in mine}
        terms = [term for o in adjustment.observations if o.reading_id in own for term in o.surface_terms]
        for surface, spot in {(surface, spot) for surface, spot, _ in terms}:
            mean, sd = adjustment.mean_and_sd((surface, np.array([spot])))
            z.append((mean[0] - truth.value(surface, spot)) / sd[0])
            narrowed.append(sd[0] / before.mean_and_sd((surface, np.array([spot])))[1][0])
    assert np.mean(np.abs(z) < 1.96) > 0.9
    assert np.max(np.abs(z)) < 4
    assert np.median(narrowed) < 0.99


def adjusted(readings: list[Reading], *tools: Simulated):
    """The survey of readings taken with the laser and other tools."""
    place = Place(
        id="place",
        name="Place",
        width_mm=WIDTH,
        depth_mm=DEPTH,
        height_mm=HEIGHT,
        surfaces=SURFACES,
        set_ups=LINES,
        facts=tuple(readings),
    )
    known = {t.instrument.id: t.instrument for t in (*tools, LASER)}
    job = Job(name="", instruments=tuple(known.values()), places=(place,))
    check_job(job)
    return survey_of(job, job.places[0].id)


def test_what_checks_find_worked_out_by_hand():
    """A level: 4 and 1 over 1200 are 1.25 per m out. A tape: 901.5 against 1000.5 from 100. A square: 0.8 at 400."""
    flip = found(FlipCheck(at=WHEN, length_mm=1200, first_mm=4.0, turned_mm=1.0), 0.5)
    assert [flip.value, flip.sd] == pytest.approx([1.25, 0.5 * 2**0.5 / 2 / 1.2])
    hook = found(HookCheck(at=WHEN, hooked_mm=901.5, from_mark_mm=1000.5), 0.5)
    assert [hook.value, hook.sd] == pytest.approx([1.0, 0.7071], abs=1e-4)
    off = found(SquareCheck(at=WHEN, leg_mm=400, apart_mm=0.8), 0.2)
    assert [off.value, off.sd] == pytest.approx([1.0, 0.25])


@settings(max_examples=25)
@given(st.floats(-2, 2), st.integers(0, 10_000))
def test_a_check_finds_the_instruments_own_error_within_its_uncertainty(error, seed):
    rng = np.random.default_rng(seed)
    for tool in (simulated.bubble_level(error), simulated.tape(error), simulated.square(error)):
        check = tool.check(WHEN, rng)
        (one,) = findings(replace(tool.instrument, checks=(check,)))
        # half a graduation at either end of the difference comes on top of the noise
        assert abs(one.value - error) < 4 * one.sd + (0.6 if one.unit == "mm" else 0.5)


def test_a_check_counts_from_then_on_until_the_next():
    """A tape reads 3 too long: spans before the check keep it, spans after it lose it, and the next check corrects."""
    truth = true_place(np.random.default_rng(5))
    exact = Instrument(id="tape", name="Tape", kind="tape", sigma_mm=0.05)
    first = HookCheck(at=WHEN + timedelta(hours=1), hooked_mm=903, from_mark_mm=1000)
    second = HookCheck(at=WHEN + timedelta(hours=3), hooked_mm=901, from_mark_mm=1000)
    tool = Simulated(replace(exact, checks=(first, second)), 0.0, own_error=3.0)
    at = (300.0, 1000.0)
    true_width = truth.value("right", at) - truth.value("left", at)

    def width_as_found(hours: float) -> float:
        blank = Span(**common("w", between="left-right", at=at, value_mm=1))
        one = tool.read(blank, truth, np.random.default_rng(1))
        one = replace(one, taken_at=WHEN + timedelta(hours=hours))
        mean = adjusted([one], tool).adjustment.mean(("right", np.array([at])), ("left", np.array([at])))
        return float(mean[0] - mean[1])

    assert width_as_found(0) == pytest.approx(true_width + 3, abs=0.3)
    assert width_as_found(2) == pytest.approx(true_width, abs=0.3)
    assert width_as_found(4) == pytest.approx(true_width + 2, abs=0.3)


def test_a_flipped_level_is_told_with_when_it_counts_from():
    truth = true_place(np.random.default_rng(6))
    tool = simulated.bubble_level(1.0, sigma_mm=0.1)
    tool = replace_tool(tool, checks=(tool.check(WHEN - timedelta(days=1), np.random.default_rng(3)),))
    blanks = asked_slope(np.random.default_rng(2))
    readings = [tool.read(b, truth, np.random.default_rng(i)) for i, b in enumerate(blanks)]
    found = adjusted(readings, tool)
    place = Place(id="p", name="P", width_mm=WIDTH, depth_mm=DEPTH, height_mm=HEIGHT, surfaces=SURFACES)
    (bias,) = surveyed(found, place).biases
    assert bias.since == WHEN - timedelta(days=1)
    assert bias.mm_per_m == pytest.approx(1.0, abs=0.45)


def replace_tool(tool: Simulated, **more: object) -> Simulated:
    return Simulated(replace(tool.instrument, **more), tool.graduation, tool.own_error)


def test_a_square_that_is_out_is_corrected_by_its_check():
    """A square out by 5 mm in a metre makes every corner look 0.29° off; its check takes that away."""
    truth = true_place(np.random.default_rng(8))
    tool = simulated.square(5.0, sigma_mm=0.05)
    checked = replace_tool(tool, checks=(SquareCheck(at=WHEN - timedelta(hours=1), leg_mm=400, apart_mm=4.0),))
    blank = asked_square(np.random.default_rng(8))[0]
    assert isinstance(blank, Corner)
    along, out = truth.corner_legs(blank)
    angle = np.degrees(np.arccos(along @ out / np.linalg.norm(along) / np.linalg.norm(out)))

    def as_found(with_: Simulated) -> float:
        adjustment = adjusted([with_.read(blank, truth, np.random.default_rng(1))], with_).adjustment
        z, a, b = blank.height_mm, blank.along_mm, blank.out_mm
        back = adjustment.mean(("back", np.array([[0, z], [a, z]])))
        left = adjustment.mean(("left", np.array([[0, z], [b, z]])))
        return 90 - float(np.degrees((back[1] - back[0]) / a + (left[1] - left[0]) / b))

    assert as_found(tool) - angle == pytest.approx(-np.degrees(0.005), abs=0.05)
    assert as_found(checked) == pytest.approx(angle, abs=0.05)


def test_a_check_of_the_wrong_kind_is_refused_by_its_path():
    tool = Instrument(id="t", name="T", kind="laser meter", checks=(HookCheck(at=WHEN, hooked_mm=1, from_mark_mm=1),))
    with pytest.raises(DocumentError, match=r"\$\.instruments\[0\]\.checks\[0\]"):
        check_job(Job(name="", instruments=(tool,)))


def test_a_scan_whose_axes_are_out_of_true_is_levelled_by_other_readings():
    """The scan falls 4 mm a metre more than the floor; six line readings put it right where its tilt is an unknown."""
    truth = true_place(np.random.default_rng(11))
    rng = np.random.default_rng(12)
    blank = asked_scan(rng)[0]
    assert isinstance(blank, Scan)
    read = LASER.read(blank, truth, rng)
    tilted = replace(read, points=tuple((u, v, d + 0.004 * (u - 1000)) for u, v, d in read.points))
    lines = [r for r in ground_round(truth, rng, "floor") if isinstance(r, Offset)][::2]
    spots = np.array([[u, v] for u, v, _ in tilted.points])
    true = truth.surfaces["floor"].at(spots)
    levelled = adjusted([*lines, replace(tilted, tilt_mm_per_m=3.0)], LASER).adjustment.mean(("floor", spots))
    trusted = adjusted([*lines, replace(tilted, tilt_mm_per_m=0.0)], LASER).adjustment.mean(("floor", spots))
    assert np.abs(levelled - true).max() < 1.2
    assert np.abs(trusted - true).max() > 1.8


def test_a_meter_types_its_number_as_a_keyboard_would():
    meter = simulated.laser_meter()
    blank = Span(**common("w", between="left-right", at=(300.0, 900.0), value_mm=1))
    reading = meter.read(blank, true_place(np.random.default_rng(3)), np.random.default_rng(4))
    typed = meter.keys(reading)
    assert typed.endswith("\n")
    assert float(typed) == pytest.approx(reading.value_mm, abs=0.01)


def test_a_phone_says_little_until_it_was_turned_round_and_then_the_floors_fall():
    """Out by 9 mm per m; read both ways at three places it is as good as a level, read once it is worth nothing."""
    tool, truth = simulated.phone(9.0), TruePlace({"floor": TrueSurface((WIDTH, DEPTH), gradient=(0.004, 0.0))})
    rng = np.random.default_rng(4)
    spots = [(100.0, 300.0), (400.0, 300.0), (700.0, 300.0)]

    def fall(*turns: bool) -> tuple[float, float]:
        read = [
            tool.read(
                Slope(
                    **common(f"s{i}{turned}"),
                    surface="floor",
                    start=at,
                    end=(at[0] + 1200.0, at[1]),
                    value=0.0,
                    unit="deg",
                    turned=turned,
                ),
                truth,
                rng,
            )
            for i, at in enumerate(spots)
            for turned in turns
        ]
        place = Place(id="p", name="P", width_mm=WIDTH, depth_mm=DEPTH, height_mm=HEIGHT, facts=tuple(read))
        known = survey_of(Job(name="", instruments=(tool.instrument,), places=(place,)), "p")
        ends = known.adjustment.at(("floor", np.array([(100.0, 300.0), (1900.0, 300.0)])))
        sd = float(np.sqrt(np.array([-1, 1]) @ ends.covariance @ np.array([-1, 1])))
        return float(ends.mean[1] - ends.mean[0]), sd

    once, unsure = fall(False)
    assert unsure > 10.0
    assert abs(once - 7.2) < 2 * unsure
    both, sure = fall(False, True)
    assert sure < 2.5
    assert both == pytest.approx(7.2, abs=2.5 * sure)
