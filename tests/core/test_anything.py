"""Whatever stands in a place and is behind it: Fit and Hold answer, with figures that are numbers and add up."""

from __future__ import annotations

import math
from collections.abc import Iterator

import msgspec
import numpy as np
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import LINE, PLUMB, box, floor_at, grid, job_of, offset
from wobble.core.facts import Behind, Detection, FoundBy, Sees
from wobble.core.figure import Figure
from wobble.core.job import Closing, Job, Obstacle, SetUp, SurfaceName, Unit, Value
from wobble.core.job.backing import Anchor, Backing, BackingKind, ServiceRule
from wobble.core.job.board import Board
from wobble.core.job.unit import (
    Contents,
    Front,
    Hung,
    Legs,
    OnCleats,
    OnShims,
    Opens,
    ScrewFeet,
    Standing,
    ToeKickBox,
    UnitKind,
)
from wobble.core.practice.instruments import FIRST_READING
from wobble.core.stages import solve_fit, solve_furring, solve_hold

WIDE, DEEP, HIGH = 2600.0, 620.0, 2400.0
STANDING: tuple[Standing, ...] = (
    OnShims(),
    ToeKickBox(),
    ScrewFeet(),
    Legs(),
    OnCleats(),
    Hung(),
    Hung(by="ledger"),
    Hung(by="split batten"),
)


def choices(alias: object) -> tuple[str, ...]:
    """Return what a Literal allows."""
    return tuple(alias.__args__)  # type: ignore[attr-defined]


@st.composite
def units(draw: st.DrawFn) -> tuple[Unit, ...]:
    out, x = [], draw(st.sampled_from([0.0, 40.0, 120.0]))
    for i in range(draw(st.integers(1, 4))):
        standing = draw(st.sampled_from(STANDING))
        kind = draw(st.sampled_from(choices(UnitKind)))
        wide = draw(st.sampled_from([19.0, 300.0, 600.0, 900.0]))
        high = draw(st.sampled_from([40.0, 400.0, 720.0, 2000.0]))
        over = draw(st.sampled_from([0.0, 720.0, 1400.0]))
        out.append(
            replace(
                box(f"U{i}", x=x, width=wide, kind=kind, height_mm=high, over_base_mm=over),
                depth_mm=draw(st.sampled_from([19.0, 330.0, 560.0])),
                standing=standing,
                fixing_heights_mm=draw(st.sampled_from([(), (high * 0.9,), (high * 0.2, high * 0.9)])),
                holds=draw(st.sampled_from(choices(Contents))),
                front=Front(opens=draw(st.sampled_from(choices(Opens))), openings=draw(st.integers(1, 3))),
                meets=draw(st.sampled_from([(), ("left", "right", "back"), ("back",)])),
                board=draw(st.sampled_from([None, Board(), Board(material="beech", stock_mm=700.0)])),
            )
        )
        x += wide + draw(st.sampled_from([0.0, 3.0, 80.0]))
    return tuple(out)


@st.composite
def backings(draw: st.DrawFn) -> Backing:
    return Backing(
        kind=draw(st.sampled_from(choices(BackingKind))),
        lining_mm=draw(st.sampled_from([0.0, 12.5, 60.0])),
        rule=draw(st.sampled_from(choices(ServiceRule))),
        anchor=draw(st.sampled_from([None, Anchor()])),
        deepest_mm=draw(st.sampled_from([None, 40.0])),
        driving_g=draw(st.sampled_from([0.0, 0.4])),
    )


@st.composite
def detections(draw: st.DrawFn) -> tuple[Detection, ...]:
    return tuple(
        Detection(
            id=f"d{i}",
            surface=draw(st.sampled_from(choices(Behind))),
            at=(draw(st.integers(0, 2600)) * 1.0, draw(st.integers(0, 2000)) * 1.0),
            found_by=draw(st.sampled_from(choices(FoundBy))),
            sees=draw(st.sampled_from(choices(Sees))),
            taken_at=FIRST_READING,
        )
        for i in range(draw(st.integers(0, 12)))
    )


SIDE_WALLS: tuple[tuple[SurfaceName, float, float], ...] = (("left", 0.0, 1.0), ("right", WIDE, -1.0))
SIDES = tuple(
    replace(offset(f"{side}{y}{z}", side, (y, z), sign * (1000.0 - at - 0.004 * y)), set_up="middle")
    for side, at, sign in SIDE_WALLS
    for y in (0.0, 300.0, 600.0)
    for z in (100.0, 1100.0, 2200.0)
)
BACK = tuple(
    replace(offset(f"b{x}{z}", "back", (x, z), 500.0 + 0.006 * z + 4 * math.sin(x / 700)), set_up="plumb")
    for x in np.linspace(0, WIDE, 6)
    for z in (100.0, 900.0, 2100.0)
)
OVER = tuple(
    replace(offset(f"c{x}{y}", "ceiling", (x, y), 1380.0 + 0.005 * x), set_up=LINE.id)
    for x in (0.0, 1300.0, 2600.0)
    for y in (50.0, 600.0)
)


def place_of(units: tuple[Unit, ...], behind: tuple[Detection, ...], backing: Backing, closing: Closing) -> Job:

    floor = floor_at(grid(WIDE, 600, 6, 3), lambda x, y: 0.003 * x - 0.002 * y)
    return job_of(
        *floor,
        *BACK,
        *SIDES,
        *OVER,
        width=WIDE,
        depth=DEEP,
        units=units,
        set_ups=(LINE, PLUMB, SetUp(id="middle", name="Middle", across="x", at_mm=1000.0)),
        surfaces=("floor", "back", "left", "right", "ceiling"),
        detections=behind,
        backing=backing,
        overhead=backing,
        underfoot=backing,
        closing=closing,
        obstacles=(
            Obstacle(
                taken_at=FIRST_READING,
                id="o",
                name="Outlet",
                kind="outlet",
                surface="back",
                at=(500.0, 300.0),
                size=(86.0, 86.0),
                proud_mm=9.0,
            ),
            Obstacle(
                taken_at=FIRST_READING,
                id="w",
                name="Wire",
                kind="wire",
                surface="back",
                at=(900.0, 800.0),
                size=(700.0, 12.0),
                proud_mm=8.0,
            ),
        ),
    )


def figures(value: object) -> Iterator[Figure]:
    """Yield every figure in a value, however deep."""
    if isinstance(value, Figure):
        yield value
    if isinstance(value, Value):
        for name in value.__struct_fields__:
            yield from figures(getattr(value, name))
    elif isinstance(value, tuple):
        for item in value:
            yield from figures(item)


@given(units(), detections(), backings(), st.sampled_from(["fillers", "face frame first", "end panel"]))
@settings(max_examples=25, suppress_health_check=list(HealthCheck))
def test_fit_and_hold_answer_whatever_is_asked(standing, behind, backing, method):
    job = place_of(standing, behind, backing, Closing(method=method))
    fit, hold = solve_fit(job, "place"), solve_hold(job, "place")
    for answer in (fit, hold):  # what travels is the same value again: no number is lost on the way
        assert msgspec.json.decode(msgspec.json.encode(answer), type=type(answer)) == answer
    for figure in (*figures(fit), *figures(hold)):
        assert math.isfinite(figure.value_mm)
        assert math.isfinite(figure.sd_mm)
        assert figure.sd_mm >= 0
    for held in hold.held:
        assert math.isfinite(held.shear_n + held.pull_n)
        if held.enough:
            assert held.use <= 1
            assert held.fasteners
    for screw in hold.fasteners:
        assert 0 <= screw.bites <= 1
        assert screw.reach_mm > 0
        if screw.surface is not None:  # what goes into a neighbour must not come through, and is sold shorter
            assert screw.screw_mm >= screw.long.value_mm - 1e-9
        assert math.isclose(sum(s.sign * s.value_mm for s in screw.long.working), screw.long.value_mm)
    assert [f.order for f in hold.fasteners] == list(range(1, len(hold.fasteners) + 1))
    assert len({f.id for f in hold.fasteners}) == len(hold.fasteners)
    for part in (*fit.parts, *hold.parts):
        assert min(part.blank_mm) >= 0
        assert part.quantity >= 1
    keys = [(f.code, f.about) for f in (*fit.findings, *hold.findings)]
    assert len(set(keys)) == len(keys), "code and what it is about tell one finding from another"
    solve_furring(job, "place", low_mm=200.0, high_mm=1800.0, pitch_mm=500.0, strip_mm=19.0, plumb=False)
