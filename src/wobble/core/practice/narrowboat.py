"""The Narrowboat galley: a curved side, taken from the boat's own floor, all made up.

Nothing is level and the boat lists, so heights count from its own floor and the side is read as profiles from a stick
at the ribs.
"""

from __future__ import annotations

from datetime import UTC, datetime

import numpy as np

from wobble.core.facts import READING_KINDS, FoundBy
from wobble.core.gauge.stations import stations
from wobble.core.job import (
    Backing,
    Cell,
    Detection,
    Door,
    Doorway,
    Drawers,
    Gap,
    HighSpot,
    Insides,
    Instrument,
    Job,
    Obstacle,
    Place,
    Profile,
    Reading,
    SetUp,
    Shelved,
    Slides,
    StandUp,
    Unit,
    with_facts,
)
from wobble.core.job.board import Board
from wobble.core.job.unit import Front, Hung, Opens, ScrewFeet, UnitKind
from wobble.core.practice.gable import demo_kit
from wobble.core.practice.hours import weekends
from wobble.core.practice.instruments import read_offsets
from wobble.core.practice.rooms import Hump, TrueSurface
from wobble.core.practice.said import touching
from wobble.core.practice.survey import numbered

WIDTH_MM, DEPTH_MM, HEIGHT_MM = 2420.0, 650.0, 1900.0
RIBS_MM = (310.0, 910.0, 1510.0, 2110.0)
STICK_AT_MM = 583.0
"""Where the stick stood: nobody measured that."""
RULE = Instrument(id="rule", name="Steel rule on a stick", kind="tape", sigma_mm=0.7)
EDGE = Instrument(id="edge", name="Straightedge and feelers", kind="tape", sigma_mm=0.4)
STRING = SetUp(id="string", name="String over the floor", across="z", at_mm=150.0)
STICK = SetUp(id="stick", name="Stick square to the floor", across="y")
FEET = ScrewFeet(pitch_mm=1.5, least_mm=70.0, most_mm=125.0, now_mm=(90.0,))
KINDS: tuple[tuple[str, str, UnitKind, float, float, float, tuple[float, ...], Opens, float], ...] = (
    ("A", "Sink", "base", 60.0, 800.0, 860.0, (820.0,), "pair of doors", 28.0),
    ("B", "Drawers", "drawers", 860.0, 600.0, 860.0, (820.0,), "drawers", 34.0),
    ("C", "Locker", "tall", 1460.0, 900.0, 1700.0, (820.0, 1600.0), "door hinged right", 48.0),
)
INSIDE: dict[str, Cell] = {
    "A": Cell(door=Door(hangs="pair", hinge="piano")),
    "B": Cell(fill=Drawers(count=4, slides=Slides(kind="wood", side_mm=1.5))),
    "C": Cell(fill=Shelved(count=3, held="fixed"), door=Door(hangs="right", hinge="piano")),
}
BEGUN = datetime(2026, 4, 11, 10, 20, tzinfo=UTC)

FLOOR = TrueSurface(
    (WIDTH_MM, DEPTH_MM),
    gradient=(0.0015, -0.002),
    bow_mm=(-3.0, 0.5),
    humps=(Hump(1.8, (1500.0, 200.0), (240.0, 200.0)),),
)
RIPPLE = TrueSurface((WIDTH_MM, HEIGHT_MM), gradient=(0.002, 0.0), bow_mm=(4.0, 0.0))


def side_mm(spots: np.ndarray) -> np.ndarray:
    """Return how far out the boat's side stands: tumbling home above the gunwale, in at the foot; mm, at (x, z)."""
    up = np.asarray(spots, dtype=float)[:, 1] / HEIGHT_MM
    curve = 62.0 - 150.0 * up + 170.0 * up**2 + 60.0 * up**3
    return np.asarray(curve + RIPPLE.at(spots))


def narrowboat_galley() -> Job:
    """Return the demo job: floor from a string, the side as profiles at the ribs, hollows under a straightedge."""
    place = _place()
    floor = np.asarray([s.at for s in stations(place) if s.surface == "floor"], dtype=float)
    readings: list[Reading] = [*read_offsets(FLOOR, "floor", floor, STRING, RULE, seed=410)]
    readings += [_profile(x, i) for i, x in enumerate(RIBS_MM)]
    readings += _gaps()
    return Job(
        name="Narrowboat galley",
        address="On the Dunmere cut",
        note="Worktop against the curved side, between two bulkheads. The boat lists: all counts from its floor.",
        instruments=(RULE, EDGE),
        kit=demo_kit(),
        sessions=weekends("Marit"),
        places=(with_facts(place, READING_KINDS, numbered(readings, "nb", "Marit", BEGUN, 60)),),
        way_in=(
            Doorway(name="Side hatch", width_mm=640.0, height_mm=1240.0),
            StandUp(name="Cabin", height_mm=1880.0),
        ),
    )


def _place() -> Place:
    units = [
        Unit(
            id=name,
            name=f"{name} {what}",
            x_mm=x,
            width_mm=width,
            depth_mm=520.0,
            height_mm=height,
            kind=kind,
            fixing_heights_mm=heights,
            standing=FEET,
            front=Front(opens=opens, handle_mm=20.0),
            insides=Insides(cell=INSIDE[name]),
            weight_kg=weight,
            ready_made=False,
            holds="nothing" if kind == "tall" else "crockery",
        )
        for name, what, kind, x, width, height, heights, opens, weight in KINDS
    ]
    units.append(
        Unit(
            id="T",
            name="T Worktop",
            kind="top",
            x_mm=60.0,
            width_mm=1400.0,
            depth_mm=580.0,
            height_mm=28.0,
            over_base_mm=860.0,
            fixing_heights_mm=(),
            standing=Hung(),
            meets=("back",),
            board=Board(material="ash", load_kg_per_m=50.0),
            weight_kg=16.0,
        )
    )
    return Place(
        id="galley",
        name="Port side",
        kind="vehicle",
        frame="body",
        width_mm=WIDTH_MM,
        depth_mm=DEPTH_MM,
        height_mm=HEIGHT_MM,
        surfaces=("floor", "back"),
        set_ups=(STRING, STICK),
        units=tuple(units),
        rules=touching(units[:-1]),
        facts=(
            *_ribs(),
            *_bearers(),
            Obstacle(
                id="wire-1",
                taken_at=BEGUN,
                taken_by="Marit",
                name="Wire, use unknown",
                kind="wire",
                surface="back",
                at=(400.0, 500.0),
                size=(900.0, 12.0),
                proud_mm=8.0,
                treatment="bridge",
            ),
            Obstacle(
                id="inlet",
                taken_at=BEGUN,
                taken_by="Marit",
                name="Water inlet",
                kind="valve",
                surface="back",
                at=(300.0, 240.0),
                size=(60.0, 60.0),
            ),
        ),
        datum=HighSpot(over_mm=1.0),
        backing=Backing(kind="ribs and battens", lining_mm=9.0, stud_mm=45.0, deep_mm=60.0, driving_g=0.3),
        underfoot=Backing(kind="ribs and battens", lining_mm=18.0, stud_mm=60.0, deep_mm=90.0, runs="out"),
    )


def _ribs() -> tuple[Detection, ...]:
    """Return what was found of the ribs: nails seen in the lining at two heights, and a magnet on screws between."""
    rng = np.random.default_rng(430)
    found: list[tuple[float, float, FoundBy]] = []
    for rib in RIBS_MM:
        found += [(rib, up, "nail seen") for up in (420.0, 1500.0)] + [(rib, 840.0, "magnet")]
    return tuple(
        Detection(
            id=f"rib-{i + 1}",
            at=(float(round(x + rng.uniform(-8.0, 8.0))), up),
            found_by=found_by,
            sees="screw",
            taken_at=BEGUN,
            taken_by="Marit",
        )
        for i, (x, up, found_by) in enumerate(found)
    )


def _bearers() -> tuple[Detection, ...]:
    """Return what was found of the bearers under the floor: nails in a row over each, every 400."""
    rng = np.random.default_rng(431)
    spots = [(at, out) for at in np.arange(150.0, WIDTH_MM, 400.0) for out in (90.0, 300.0, 560.0)]
    return tuple(
        Detection(
            id=f"bearer-{i + 1}",
            surface="floor",
            at=(float(round(x + rng.uniform(-9.0, 9.0))), out),
            found_by="nail seen",
            sees="screw",
            taken_at=BEGUN,
            taken_by="Marit",
        )
        for i, (x, out) in enumerate(spots)
    )


def _profile(x: float, i: int) -> Profile:
    rng = np.random.default_rng(420 + i)
    heights = np.arange(60.0, 1861.0, 150.0)
    spots = np.column_stack([np.full(len(heights), x), heights])
    read = STICK_AT_MM - side_mm(spots) + rng.normal(0, RULE.sigma_mm, len(heights))
    points = tuple((float(z), round(float(d) * 2) / 2) for z, d in zip(heights, read, strict=True))
    return Profile(
        id=f"profile-{i}",
        instrument=RULE.id,
        taken_at=BEGUN,
        surface="back",
        along_mm=x,
        set_up=STICK.id,
        points=points,
    )


def _gaps() -> list[Gap]:
    out = []
    for i, (x0, x1) in enumerate(((100.0, 1100.0), (1200.0, 2300.0))):
        ends, middle = FLOOR.at(np.array([[x0, 300.0], [x1, 300.0]])), FLOOR.at(np.array([[(x0 + x1) / 2, 300.0]]))
        gap = max(0.0, round(float(ends.mean() - middle[0]) * 5) / 5)
        out.append(
            Gap(
                id=f"gap-{i}",
                instrument=EDGE.id,
                taken_at=BEGUN,
                surface="floor",
                start=(x0, 300.0),
                end=(x1, 300.0),
                at=((x0 + x1) / 2, 300.0),
                value_mm=gap,
            )
        )
    return out
