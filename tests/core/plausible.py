"""Made-up jobs of all sorts, as people might describe them: half measured, half said, sometimes wrong.

`python -m tests.core.plausible 2000` solves as many and stops at the first that is not answered as it should be.
"""

from __future__ import annotations

import math
import re
import sys
import time
from collections.abc import Iterator
from datetime import timedelta
from typing import Any, get_args

import msgspec
import numpy as np

from tests.catalogue import EXACT, LINE, PLUMB, WHEN
from wobble.core import solve
from wobble.core.axes import SURFACE_AXES, SurfaceName
from wobble.core.errors import WobbleError
from wobble.core.facts import Detection, Fact, Note, Obstacle, ObstacleKind, Offset, Slope, Span, Treatment
from wobble.core.figure import Figure
from wobble.core.formats.checks import check_job
from wobble.core.formats.document import read_job, write_job
from wobble.core.job import (
    BackLine,
    Boarding,
    Body,
    Closing,
    Curve,
    Doorway,
    FixedTop,
    Framing,
    HangingWall,
    HighSpot,
    Instrument,
    Job,
    Moulding,
    Place,
    SetUp,
    ShimKit,
    ShimPiece,
    Stair,
    StandUp,
    Threshold,
    TrimSet,
    Turn,
    Unit,
    WallOpening,
    surface_extent,
)
from wobble.core.job.backing import Anchor, Backing, BackingKind, Runs, ServiceRule
from wobble.core.job.board import Board, MaterialName
from wobble.core.job.decided import SideMethodName, Split
from wobble.core.job.unit import (
    Air,
    Angled,
    BaseFrame,
    Contents,
    FastenedTo,
    Front,
    Hung,
    Legs,
    OnCleats,
    OnShims,
    Opens,
    ScrewFeet,
    ScribeAllowance,
    ToeKickBox,
    UnitKind,
)
from wobble.core.part import Fastener
from wobble.core.setout.curves import EDGES
from wobble.core.stages import solve_glance

SIDE = SetUp(id="side", name="Side plane", across="x", at_mm=1000.0)
LOST = SetUp(id="lost", name="Line of unknown height", across="z")
LEVEL = Instrument(id="level", name="Level", kind="level", sigma_mm=0.5)
MOST_SECONDS = 5.0


def _pick(rng: np.random.Generator, alias: Any) -> Any:
    choices = alias if isinstance(alias, list | tuple) else get_args(alias)
    return choices[int(rng.integers(len(choices)))]


def plausible_job(seed: int) -> Job:
    """Return a job that somebody might describe; the same for the same seed."""
    rng = np.random.default_rng(seed)
    places = [_place(rng, "one")]
    if rng.random() < 0.15:
        places.append(_place(rng, "two"))
        if {"right"} <= set(places[0].surfaces):
            places[0] = msgspec.structs.replace(places[0], right_is_back_of="two")
    kit = ShimKit(pieces=(), tapers=()) if rng.random() < 0.05 else ShimKit()
    if rng.random() < 0.2:
        kit = ShimKit(pieces=(ShimPiece(thickness_mm=4.0, count=3),), tapers=())
    return Job(
        name=f"Job {seed}",
        units="in" if rng.random() < 0.3 else "mm",
        instruments=(EXACT, LEVEL),
        kit=kit,
        places=tuple(places),
        way_in=_way_in(rng),
    )


def _way_in(rng: np.random.Generator) -> tuple[Any, ...]:
    passages: list[Any] = [
        Doorway(name="Door", width_mm=760.0, height_mm=1980.0),
        Turn(name="Turn", from_mm=900.0, into_mm=850.0),
        Stair(name="Stair", width_mm=800.0, headroom_mm=1900.0),
        StandUp(name="Hall", height_mm=2300.0),
        Threshold(name="Step", height_mm=180.0),
    ]
    return tuple(p for p in passages if rng.random() < 0.2)


def _place(rng: np.random.Generator, key: str) -> Place:
    wide, deep, high = (float(rng.choice(c)) for c in ([900, 1800, 2400, 4200], [400, 600, 900], [900, 2300, 2500]))
    surfaces: list[SurfaceName] = [s for s in get_args(SurfaceName) if rng.random() < 0.7] or ["back"]
    bare = Place(
        id=key,
        name=key.capitalize(),
        kind=_pick(rng, ("open", "corner", "alcove", "under a slope", "overhead", "vehicle")),
        frame="body" if rng.random() < 0.2 else "gravity",
        character=_pick(rng, ("true", "typical", "rough")),
        width_mm=wide,
        depth_mm=deep,
        height_mm=high,
        surfaces=tuple(surfaces),
        set_ups=(LINE, PLUMB, SIDE, LOST),
    )
    return msgspec.structs.replace(
        bare,
        facts=tuple(_facts(rng, bare)),
        units=tuple(_units(rng, bare)),
        datum=FixedTop(
            top_mm=float(rng.choice([60, 450, 748, 900, 2100])),
            to=_pick(rng, ("a height", "a table", "a seat", "a worktop")),
            cushion_mm=float(rng.choice([0, 60])),
        )
        if rng.random() < 0.4
        else HighSpot(over_mm=float(rng.choice([-20, 0, 0, 3, 40]))),
        back_line=BackLine(off_mm=float(rng.choice([0, 0, 19])), turn_mm_per_m=float(rng.choice([0, 0, 8, -8]))),
        closing=Closing(
            method=_pick(rng, SideMethodName),
            split=_pick(rng, Split),
            centre_mm=wide / 2 if rng.random() < 0.5 else None,
            board_mm=float(rng.choice([12, 19, 400])),
            mullion_mm=float(rng.choice([19, 40, 500])),
        ),
        backing=_backing(rng) if rng.random() < 0.7 else None,
        overhead=_backing(rng) if rng.random() < 0.5 else None,
        underfoot=_backing(rng) if rng.random() < 0.5 else None,
        openings=tuple(_openings(rng, wide, high)),
    )


def _backing(rng: np.random.Generator) -> Backing:
    return Backing(
        kind=_pick(rng, BackingKind),
        lining_mm=float(rng.choice([0, 12.5, 60, 190])),
        runs=_pick(rng, Runs),
        rule=_pick(rng, ServiceRule),
        anchor=Anchor() if rng.random() < 0.5 else None,
        deepest_mm=None if rng.random() < 0.7 else 45.0,
        driving_g=float(rng.choice([0, 0, 0.4])),
    )


def _units(rng: np.random.Generator, place: Place) -> Iterator[Unit]:
    x = float(rng.choice([0, 0, 4, 60, 300]))
    for i in range(int(rng.integers(0, 6))):
        wide = float(rng.choice([19, 300, 600, 900, place.width_mm]))
        high = float(rng.choice([18, 28, 400, 720, 1400, 2100, 2600]))
        standing = _pick(
            rng,
            (
                OnShims(),
                OnShims(),
                ToeKickBox(),
                BaseFrame(),
                ScrewFeet(),
                Legs(),
                OnCleats(),
                Hung(),
                Hung(by="ledger"),
                Hung(by="split batten"),
            ),
        )
        on_it = rng.random() < 0.2
        kind = _pick(rng, UnitKind)
        yield Unit(
            id=f"U{i}",
            name=f"Unit {i}",
            kind=kind,
            body=_body(rng, kind) if rng.random() < 0.8 else None,
            curve=_curve(rng, kind) if rng.random() < 0.3 else None,
            x_mm=x,
            width_mm=wide,
            depth_mm=float(rng.choice([19, 300, 560, 700])),
            height_mm=high,
            toe_recess_mm=float(rng.choice([0, 60, 600])),
            support_inset_mm=float(rng.choice([0, 40, 500])),
            fixing_heights_mm=_pick(rng, ((), (650.0,), (130.0, 650.0), (high * 0.9,))),
            over_base_mm=float(rng.choice([0, 0, 0, 720, 1400, -500])),
            out_mm=float(rng.choice([0, 0, 0, 20, 560, 5000])),
            ready_made=bool(rng.random() < 0.5),
            weight_kg=float(rng.choice([0, 30, 200])),
            feet_in_mm=float(rng.choice([0, 0, 90])),
            holds=_pick(rng, Contents),
            standing=standing,
            front=Front(opens=_pick(rng, Opens), openings=int(rng.integers(1, 5))),
            scribe_allowance=ScribeAllowance(left_mm=float(rng.choice([0, 20]))),
            meets=tuple(w for w in ("left", "right", "back") if rng.random() < 0.4),
            angled=Angled(end="left", along_mm=200.0, deep_mm=150.0) if rng.random() < 0.1 else None,
            air=Air(sides_mm=20.0, back_mm=30.0, top_mm=40.0) if rng.random() < 0.1 else None,
            board=Board(material=_pick(rng, MaterialName)) if rng.random() < 0.4 else None,
            fastened_to=_fastened_to(rng),
        )
        if not on_it:
            x += wide + float(rng.choice([0, 0, 3, 20, 400]))


def _fastened_to(rng: np.random.Generator) -> tuple[FastenedTo, ...]:
    """Return nothing said for most, else one or two of all that there is, or "nothing" alone."""
    if rng.random() < 0.6:
        return ()
    picked = tuple(dict.fromkeys(_pick(rng, FastenedTo) for _ in range(int(rng.integers(1, 3)))))
    return ("nothing",) if "nothing" in picked else picked


def _curve(rng: np.random.Generator, kind: str) -> Curve | None:
    edges = EDGES.get(kind, ())
    if not edges:
        return None
    rise = float(rng.choice([1, 60, 300, 2000]))
    return Curve(edge=_pick(rng, edges), rise_mm=rise, way=_pick(rng, ("out", "in")))


def _body(rng: np.random.Generator, kind: str) -> Body | None:
    if kind == "boarding":
        return Boarding(runs=_pick(rng, ("along", "up")), board_mm=float(rng.choice([95, 120, 2000])))
    if kind == "trim":
        return TrimSet(seams_mm=(300.0,) if rng.random() < 0.5 else ())
    if kind == "moulding":
        return Moulding(
            thick_mm=float(rng.choice([9, 15, 40, 120])),
            spring_deg=float(rng.choice([0, 38, 45, 75])),
            left_mm=float(rng.choice([0, 60, 900])),
            right_mm=float(rng.choice([0, 60, 5000])),
            inside=_pick(rng, ("coped", "mitred")),
            stock_mm=float(rng.choice([100, 900, 2400])),
            round_mm=float(rng.choice([0, 0, 0, 50, 900, 9000])),
        )
    if kind in ("batten wall", "peg wall"):
        return HangingWall(by="pegs" if kind == "peg wall" else "battens", pitch_mm=float(rng.choice([60, 150, 900])))
    if kind in ("rack", "platform", "base frame"):
        return Framing(across=bool(rng.random() < 0.5), deck_mm=float(rng.choice([0, 18])))
    return None


def _openings(rng: np.random.Generator, wide: float, high: float) -> Iterator[WallOpening]:
    for i in range(int(rng.choice([0, 0, 1, 2]))):
        kind: Any = _pick(rng, ("window", "door", "no wall"))
        yield WallOpening(
            id=f"w{i}",
            name=f"Opening {i}",
            kind=kind,
            x_mm=float(rng.uniform(-100, wide)),
            width_mm=float(rng.choice([300, 900, wide])),
            height_mm=float(rng.choice([400, 2000, high])),
            sill_mm=900.0 if kind == "window" else 0.0,
        )


def _facts(rng: np.random.Generator, place: Place) -> Iterator[Fact]:
    n = 0
    for surface in place.surfaces:
        if rng.random() < 0.35:
            continue
        (u0, u1), (v0, v1) = surface_extent(place, surface)
        across = SURFACE_AXES[surface][2]
        line = {"z": LOST if rng.random() < 0.2 else LINE, "y": PLUMB, "x": SIDE}[across]
        usual = {"floor": 1000.0, "ceiling": place.height_mm - 1000.0, "back": 500.0, "left": 1000.0}
        base = usual.get(surface, place.width_mm - 1000.0)
        fall = rng.normal(0, 4, 2)
        for _ in range(int(rng.choice([1, 3, 12, 30]))):
            n += 1
            at = (float(rng.uniform(u0, u1)), float(rng.uniform(v0, v1)))
            value = base + fall[0] * at[0] / 1000 + fall[1] * at[1] / 1000 + rng.normal(0, 0.7)
            if rng.random() < 0.03:
                value += float(rng.choice([10, -100, 40]))
            yield Offset(
                id=f"r{n}",
                instrument=EXACT.id,
                taken_at=WHEN + timedelta(seconds=n),
                surface=surface,
                at=at,
                set_up=line.id,
                value_mm=float(round(value * 2) / 2),
            )
    if "floor" in place.surfaces and rng.random() < 0.3:
        yield Slope(
            id="slope",
            instrument="level",
            taken_at=WHEN,
            surface="floor",
            start=(0.0, 100.0),
            end=(min(600.0, place.width_mm), 100.0),
            value=2.0,
        )
    if {"left", "right"} <= set(place.surfaces) and rng.random() < 0.5:
        yield Span(
            id="span",
            instrument=EXACT.id,
            taken_at=WHEN,
            between="left-right",
            at=(place.depth_mm / 2, 400.0),
            value_mm=float(max(place.width_mm + rng.normal(0, 20), 50.0)),
        )
    if rng.random() < 0.2:
        yield Note(id="note", taken_at=WHEN, text="Damp here")
    yield from _obstacles(rng, place)
    yield from _detections(rng, place)


def _obstacles(rng: np.random.Generator, place: Place) -> Iterator[Obstacle]:
    for i in range(int(rng.integers(0, 5))):
        surface = _pick(rng, place.surfaces)
        (_, u), (_, v) = surface_extent(place, surface)
        yield Obstacle(
            id=f"o{i}",
            taken_at=WHEN,
            name=f"Thing {i}",
            kind=_pick(rng, ObstacleKind),
            surface=surface,
            at=(float(rng.uniform(0, u)), float(rng.uniform(0, v))),
            size=(float(rng.choice([20, 86, 700, 3000])), float(rng.choice([10, 86, 120, 2000]))),
            proud_mm=float(rng.choice([0, 9, 18, 250])),
            treatment=_pick(rng, Treatment),
        )


def _detections(rng: np.random.Generator, place: Place) -> Iterator[Detection]:
    if rng.random() < 0.3:
        return
    for i in range(int(rng.choice([1, 4, 12]))):
        surface: Any = _pick(rng, ("back", "back", "left", "right", "ceiling", "floor"))
        (_, u), (_, v) = surface_extent(place, surface)
        spacing = float(rng.choice([400, 600]))
        x = min(float(rng.integers(0, 8)) * spacing + 100.0 + rng.normal(0, 4), u)
        yield Detection(
            id=f"d{i}",
            taken_at=WHEN,
            surface=surface,
            at=(float(np.clip(x, 0, u)), float(rng.uniform(0, v))),
            found_by=_pick(rng, ("scanner", "magnet", "knock", "trial hole", "nail seen")),
            sees=_pick(rng, ("centre", "left edge", "right edge", "screw", "hit", "miss", "something else")),
        )


NEGATIVE = re.compile(r"(?<![\d\"”)]\s)(?<!mm\s)(?<![\w.%])[-−]\s?\d")
"""A number below nothing; what is taken off another number, as in a working, is none."""


def numbers(value: Any) -> Iterator[float]:
    """Yield every number in plain data."""
    if isinstance(value, bool):
        return
    if isinstance(value, float | int):
        yield float(value)
    elif isinstance(value, dict):
        for inner in value.values():
            yield from numbers(inner)
    elif isinstance(value, list | tuple):
        for inner in value:
            yield from numbers(inner)


def figures(value: Any) -> Iterator[Figure]:
    """Yield every figure in a value, wherever it stands."""
    if isinstance(value, Figure):
        yield value
    elif isinstance(value, msgspec.Struct):
        for name in value.__struct_fields__:
            yield from figures(getattr(value, name))
    elif isinstance(value, tuple):
        for inner in value:
            yield from figures(inner)


def check_answers(job: Job) -> None:
    """Solve a job and check what holds of every answer, whatever was asked."""
    check_job(job)
    assert read_job(write_job(job)) == job
    began = time.thread_time()  # what else the machine does is not the answer's fault
    result = solve(job)
    took = time.thread_time() - began
    assert took < MOST_SECONDS * len(job.places), f"{took:.1f} s"
    assert all(math.isfinite(x) for x in numbers(msgspec.json.decode(msgspec.json.encode(result))))
    glance = solve_glance(job)
    assert glance.next.text
    assert all(math.isfinite(x) for x in numbers(msgspec.json.decode(msgspec.json.encode(glance))))
    for one in result.places:
        place = next(p for p in job.places if p.id == one.place)
        for figure in figures(one):
            assert figure.sd_mm >= 0
            if figure.working:
                told = sum(s.sign * s.value_mm for s in figure.working)
                assert math.isclose(told, figure.value_mm, abs_tol=1e-6), figure
        keys = [(f.code, f.about) for f in one.findings]
        assert len(set(keys)) == len(keys), [k for k in keys if keys.count(k) > 1]
        for finding in one.findings:
            assert not NEGATIVE.search(f"{finding.title} {finding.text}"), finding
            assert finding.title
            assert finding.text
        for cutout in one.fit.cutouts:
            assert not NEGATIVE.search(cutout.text), cutout
            assert all(size.mm >= 0 for size in cutout.sizes), cutout
        for part in one.parts:
            assert min(part.blank_mm) >= 0, part
            assert part.thick_mm >= 0, part
        check_services(place, one.fasteners)
        assert len({p.id for p in one.parts}) == len(one.parts)
        assert len({f.id for f in one.fasteners}) == len(one.fasteners)
        assert [f.order for f in one.fasteners] == list(range(1, len(one.fasteners) + 1))
        if place.units and one.fit.plan is None:
            assert any(f.severity == "stop" for f in one.fit.findings), "no plan, and nothing says why"


WIRED = ("outlet", "switch")
BACKINGS = {"ceiling": "overhead", "floor": "underfoot"}


def check_services(place: Place, fasteners: tuple[Fastener, ...]) -> None:
    """Check by rectangles alone that no screw stands on what is there to stay, nor in the lines of its wires."""
    for screw in fasteners:
        backing: Backing | None = getattr(place, BACKINGS.get(screw.surface or "", "backing"))
        clear, rule = (backing or Backing()).clear_mm, (backing or Backing()).rule
        for thing in place.obstacles:
            if thing.surface != screw.surface:
                continue
            off = [max(a - x, 0.0, x - a - s) for x, a, s in zip(screw.at, thing.at, thing.size, strict=True)]
            on_it = max(off) < clear and (thing.treatment != "remove" or thing.surface in BACKINGS)
            up_and_down = thing.kind in WIRED and rule != "all round" and off[0] < clear
            sideways = thing.kind in WIRED and rule in ("up, down and sideways", "also along corners and ceiling")
            in_line = thing.surface not in BACKINGS and (up_and_down or (sideways and off[1] < clear))
            assert not on_it, (screw.id, thing)
            assert not in_line, (screw.id, thing)


def main(n: int, first: int = 0) -> None:
    """Check as many jobs; say which one is not answered as it should be."""
    slowest = (0.0, -1)
    for seed in range(first, first + n):
        began = time.monotonic()
        try:
            check_answers(plausible_job(seed))
        except WobbleError as fault:
            raise AssertionError(f"job {seed} is refused: {fault}") from fault
        except Exception:
            print(f"job {seed}", file=sys.stderr)
            raise
        slowest = max(slowest, (time.monotonic() - began, seed))
    print(f"{n} jobs answered; the slowest in {slowest[0]:.2f} s (job {slowest[1]})")


if __name__ == "__main__":
    main(*(int(word) for word in sys.argv[1:]))
