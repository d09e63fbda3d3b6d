"""The Gable workroom: a violin repairer's attic, all made up. The demo job, measured with simulated instruments."""

from __future__ import annotations

from datetime import timedelta

import numpy as np
from msgspec.structs import replace

from wobble.core.facts import READING_KINDS, FoundBy, Sees
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.stations import Station, stations
from wobble.core.job import (
    Backing,
    Cell,
    Columns,
    Construction,
    Detection,
    Door,
    Doorway,
    Drawers,
    Edge,
    HeightStack,
    HighSpot,
    Insides,
    Instrument,
    Job,
    LinedUp,
    Member,
    Obstacle,
    Offset,
    Place,
    Reading,
    SetUp,
    Shelved,
    ShimKit,
    ShimPiece,
    Slope,
    Stair,
    SurfaceName,
    Taper,
    Turn,
    Unit,
    with_facts,
)
from wobble.core.job.board import Board
from wobble.core.job.unit import Front, Hung
from wobble.core.practice.bench import PLY, demo_workshop
from wobble.core.practice.hours import evenings_and_saturdays
from wobble.core.practice.instruments import FIRST_READING, read_offsets
from wobble.core.practice.rooms import Hump, TrueSurface
from wobble.core.practice.said import shelved, touching

WIDTH_MM, DEPTH_MM, HEIGHT_MM = 3240.0, 640.0, 2280.0
TRUE_SECOND_LINE_MM = 1043.6
"""Where the laser stood after it was moved: nobody measured that, the adjustment finds it."""
MISREAD_STATION = "floor-5"
MISREAD_MM = 10.0

LASER = Instrument(id="laser", name="Cross-line laser and rule", kind="laser line", sigma_mm=0.6)
LEVEL = Instrument(id="level-600", name="Spirit level, 600", kind="level", sigma_mm=0.5)
MORNING = SetUp(id="line-1", name="Level line, morning", across="z", at_mm=1000.0)
AFTERNOON = SetUp(id="line-2", name="Level line, moved to the door", across="z")
PLUMB = SetUp(id="plumb-1", name="Plumb line off the back", across="y", at_mm=700.0)
MIDDLE = SetUp(id="plumb-2", name="Plumb plane up the middle", across="x", at_mm=1620.0)

FLOOR = TrueSurface(
    (WIDTH_MM, DEPTH_MM),
    level_mm=-9.0,
    gradient=(0.0024, -0.006),
    bow_mm=(4.5, 0.6),
    humps=(Hump(2.6, (2180.0, 330.0), (300.0, 260.0)), Hump(-2.2, (850.0, 120.0), (320.0, 240.0))),
    boards=(0.3, 140.0, 0.7),
)
BACK = TrueSurface(
    (WIDTH_MM, HEIGHT_MM),
    level_mm=2.0,
    gradient=(0.0012, -0.004),
    bow_mm=(-7.0, 2.0),
    humps=(Hump(4.0, (760.0, 620.0), (330.0, 300.0)),),
    corner_mm=(3.0, 4.0),
)
GABLE = TrueSurface(
    (DEPTH_MM, HEIGHT_MM), level_mm=-6.0, gradient=(0.004, 0.011), bow_mm=(0.5, 3.0), corner_mm=(2.0, 0.0)
)
"""The gable leans into the room as it goes up."""
BREAST = TrueSurface(
    (DEPTH_MM, HEIGHT_MM), level_mm=WIDTH_MM + 3.0, gradient=(-0.009, 0.002), bow_mm=(-1.0, -2.0), corner_mm=(-1.5, 0.0)
)
SIDES: dict[SurfaceName, TrueSurface] = {"left": GABLE, "right": BREAST}


def gable_workroom() -> Job:
    """Return the demo job: 78 readings, one of them a slip of one centimetre on the rule."""
    place = _place()
    round_ = stations(place)
    floor = [s for s in round_ if s.surface == "floor"]
    back = [s for s in round_ if s.surface == "back"]
    half = len(floor) // 2
    readings: tuple[Reading, ...] = (
        *_read(floor[:half], FLOOR, "floor", MORNING, 11),
        *_read([floor[0], floor[half - 1], *floor[half:]], FLOOR, "floor", AFTERNOON, 12, TRUE_SECOND_LINE_MM),
        *_read(back, BACK, "back", PLUMB, 13),
        *_slopes(),
        *(r for side in SIDES for r in _read_side(side, [s for s in round_ if s.surface == side])),
    )
    in_order: tuple[Reading, ...] = tuple(
        replace(r, id=f"gw-{i + 1:02d}", taken_by="Ines", taken_at=FIRST_READING + timedelta(seconds=45 * i))
        for i, r in enumerate(readings)
    )
    return Job(
        name="Gable workroom",
        address="Attic at Quill Lane",
        note="Bench run for the violin shop: four base units between the gable and the chimney breast.",
        instruments=(LASER, LEVEL),
        kit=demo_kit(),
        sessions=evenings_and_saturdays("Ines", "Tomo"),
        constructions=(
            Construction(
                id="bench",
                name="Sides through, back in a groove, stretchers",
                top="stretchers",
                board=PLY,
                handle_apart_mm=128.0,
            ),
            Construction(
                id="wall", name="Sides through, back in a groove, whole top", board=PLY, handle_apart_mm=128.0
            ),
        ),
        workshop=demo_workshop(),
        places=(with_facts(place, READING_KINDS, in_order),),
        way_in=(
            Doorway(name="Street door", width_mm=860.0, height_mm=1980.0),
            Stair(name="Attic stair", width_mm=780.0, headroom_mm=1950.0, slope_deg=42.0),
            Turn(name="Landing", from_mm=880.0, into_mm=940.0, height_mm=2150.0),
        ),
    )


def empty_job() -> Job:
    """Return a job to start from: instruments and a kit, nothing measured."""
    return Job(name="First job", instruments=(LASER, LEVEL), kit=demo_kit())


def _place() -> Place:
    widths = (("A", "Drawers", 700.0), ("B", "Press", 800.0), ("C", "Bench left", 800.0), ("D", "Bench right", 700.0))
    x, units = 110.0, []
    for id_, name, width in widths:
        units.append(
            Unit(
                id=id_,
                name=f"{id_} {name}",
                x_mm=x,
                width_mm=width,
                depth_mm=560.0,
                height_mm=728.0,
                fixing_heights_mm=(130.0, 650.0),
                weight_kg=24.0,
                holds="tools",
                front=Front(opens="drawers" if id_ == "A" else "pair of doors"),
                insides=Insides(cell=Cell(fill=Drawers(count=4))) if id_ == "A" else shelved(1),
                ready_made=False,
                board=Board(material="plywood"),
            )
        )
        x += width
    units += [_above("E", "E Glue and clamps", 110.0), _above("F", "F Tonewood", 1910.0), _top()]
    return Place(
        id="north",
        name="North run",
        kind="alcove",
        surfaces=("floor", "back", "left", "right"),
        width_mm=WIDTH_MM,
        depth_mm=DEPTH_MM,
        height_mm=HEIGHT_MM,
        set_ups=(MORNING, AFTERNOON, PLUMB, MIDDLE),
        units=tuple(units),
        rules=(
            *touching(units[:4]),
            LinedUp(id="r5", edge=Edge(of="E", edge="left"), to=Edge(of="A", edge="left")),
            LinedUp(id="r6", edge=Edge(of="F", edge="right"), to=Edge(of="D", edge="right")),
        ),
        heights=(
            HeightStack(
                id="bench",
                units=("A", "B", "C", "D"),
                tops=("T",),
                members=(Member(name="box", high_mm=728.0), Member(name="board", high_mm=40.0)),
                finished_mm=768.0,
                gives="box",
                beside="a worktop",
            ),
        ),
        facts=(
            *_studs(),
            Obstacle(
                id="outlet-1",
                taken_at=FIRST_READING,
                taken_by="Ines",
                name="Outlet",
                kind="outlet",
                surface="back",
                at=(1835.0, 255.0),
                size=(86.0, 86.0),
                proud_mm=9.0,
                treatment="access hole",
            ),
            Obstacle(
                id="board-1",
                taken_at=FIRST_READING,
                taken_by="Ines",
                name="Window board",
                kind="window board",
                surface="back",
                at=(260.0, 1010.0),
                size=(980.0, 28.0),
                proud_mm=45.0,
            ),
        ),
        datum=HighSpot(over_mm=0.5),
        backing=Backing(),
    )


def _studs() -> tuple[Detection, ...]:
    """Return what a scanner and a magnet found of studs at 600: both edges of all but one, and some screws."""
    rng = np.random.default_rng(16)
    found: list[tuple[float, FoundBy, Sees]] = []
    for i, stud in enumerate(np.arange(190.0, WIDTH_MM, 600.0)):
        if i == 3:
            continue
        edges: tuple[tuple[Sees, float], ...] = (("left edge", -22.5), ("right edge", 22.5))
        found += [(float(stud + off + rng.normal(0, 3.0)), "scanner", sees) for sees, off in edges]
        found.append((float(stud + rng.uniform(-10, 10)), "magnet", "screw"))
    return tuple(
        Detection(
            id=f"stud-{i + 1}",
            at=(float(round(x)), 640.0 if found_by == "scanner" else 660.0),
            found_by=found_by,
            sees=sees,
            taken_at=FIRST_READING,
            taken_by="Ines",
        )
        for i, (x, found_by, sees) in enumerate(found)
    )


def _above(id_: str, name: str, x_mm: float) -> Unit:
    return Unit(
        id=id_,
        name=name,
        kind="wall",
        x_mm=x_mm,
        width_mm=1200.0,
        depth_mm=330.0,
        height_mm=640.0,
        over_base_mm=1400.0,
        fixing_heights_mm=(600.0,),
        weight_kg=22.0,
        holds="tools" if id_ == "E" else "tins",
        standing=Hung(),
        front=Front(opens="pair of doors"),
        board=Board(material="plywood"),
        ready_made=False,
        insides=Insides(
            built="wall",
            cell=Cell(
                fill=Columns(cells=(Cell(fill=Shelved(count=1)), Cell(fill=Shelved(count=1)))),
                door=Door(hangs="pair", hinge="cup"),
            ),
        ),
    )


def _top() -> Unit:
    return Unit(
        id="T",
        name="T Bench top",
        kind="top",
        x_mm=0.0,
        width_mm=WIDTH_MM,
        depth_mm=600.0,
        height_mm=40.0,
        over_base_mm=728.0,
        fixing_heights_mm=(),
        standing=Hung(),
        meets=("left", "right", "back"),
        board=Board(material="beech", load_kg_per_m=60.0, stock_mm=2400.0),
        weight_kg=52.0,
    )


def _read_side(side: SurfaceName, places: list[Station]) -> tuple[Offset, ...]:
    spots: Floats = np.asarray([s.at for s in places], dtype=float)
    return tuple(read_offsets(SIDES[side], side, spots, MIDDLE, LASER, seed=14 if side == "left" else 15))


def demo_kit() -> ShimKit:
    """Return the shims that the demo jobs are packed with."""
    pieces = ((1.0, 20), (2.0, 20), (3.0, 30), (5.0, 12))
    return ShimKit(
        pieces=tuple(ShimPiece(thickness_mm=t, count=n) for t, n in pieces),
        tapers=(Taper(length_mm=150.0, thin_mm=1.0, thick_mm=8.0, count=12),),
    )


def _read(
    places: list[Station],
    truth: TrueSurface,
    surface: SurfaceName,
    line: SetUp,
    seed: int,
    true_place_mm: float | None = None,
) -> tuple[Offset, ...]:
    spots: Floats = np.asarray([s.at for s in places], dtype=float)
    read = read_offsets(truth, surface, spots, line, LASER, seed=seed, true_place_mm=true_place_mm)
    return tuple(
        replace(r, value_mm=r.value_mm + (MISREAD_MM if s.id == MISREAD_STATION else 0.0), entered="")
        for r, s in zip(read, places, strict=True)
    )


def _slopes() -> tuple[Slope, ...]:
    spans = (((300.0, 60.0), (900.0, 60.0)), ((1500.0, 500.0), (2100.0, 500.0)))
    out = []
    for i, (start, end) in enumerate(spans):
        ends = FLOOR.at(np.asarray([start, end]))
        rise = round(float(ends[1] - ends[0]) * 2) / 2
        out.append(
            Slope(
                id=f"slope-{i}",
                instrument=LEVEL.id,
                taken_at=FIRST_READING,
                surface="floor",
                start=start,
                end=end,
                value=rise,
                note="Level with a feeler under the low end",
            )
        )
    return tuple(out)
