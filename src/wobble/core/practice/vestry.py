"""The Vestry press: a tall cupboard walled in on three sides of a thick-walled vestry, all made up.

Its front corners are narrower than its inside, which a width taken at the back would not show.
"""

from __future__ import annotations

from datetime import UTC, datetime

import numpy as np
from msgspec.structs import replace

from wobble.core.facts import READING_KINDS
from wobble.core.job import (
    Backing,
    Board,
    Cell,
    Closing,
    Columns,
    Corner,
    Door,
    Doorway,
    Drawers,
    HighSpot,
    Insides,
    Instrument,
    Job,
    Offset,
    Place,
    Reading,
    Rows,
    SetUp,
    Shelved,
    Span,
    SurfaceName,
    Threshold,
    Turn,
    Unit,
    with_facts,
)
from wobble.core.job.backing import Anchor
from wobble.core.job.unit import Front, ToeKickBox
from wobble.core.practice.gable import demo_kit
from wobble.core.practice.hours import lunch_hours
from wobble.core.practice.instruments import read_spans
from wobble.core.practice.rooms import Hump, TrueSurface
from wobble.core.practice.survey import numbered, read_round

WIDTH_MM, DEPTH_MM, HEIGHT_MM = 1430.0, 640.0, 2460.0
TAPE = Instrument(id="tape", name="Tape, checked", kind="tape", sigma_mm=0.8)
LASER = Instrument(id="laser", name="Cross-line laser and rule", kind="laser line", sigma_mm=0.6)
LEVEL = SetUp(id="line-1", name="Level line", across="z", at_mm=1000.0)
PLUMB = SetUp(id="plumb-1", name="Plumb plane before the press", across="y", at_mm=700.0)
ACROSS = SetUp(id="plumb-2", name="Plumb plane up the middle", across="x", at_mm=715.0)
LINES: dict[SurfaceName, SetUp] = {"floor": LEVEL, "back": PLUMB, "left": ACROSS, "right": ACROSS}
ANCHOR = Anchor(name="Plug 10 × 80 with its screw", pull_n=420.0, shear_n=700.0, embed_mm=60.0, drill_mm=10.0)
"""With figures as a maker would list them for a sound old wall."""
BEGUN = datetime(2026, 5, 16, 14, 5, tzinfo=UTC)
MISREAD = ("back-5", 1)
"""Station whose reading has two digits swapped, and where."""

TRUTHS: dict[SurfaceName, TrueSurface] = {
    "floor": TrueSurface(
        (WIDTH_MM, DEPTH_MM),
        level_mm=4.0,
        gradient=(-0.0035, -0.004),
        humps=(Hump(2.5, (900.0, 350.0), (260.0, 240.0)),),
    ),
    "back": TrueSurface(
        (WIDTH_MM, HEIGHT_MM), level_mm=-3.0, gradient=(0.004, -0.003), bow_mm=(-4.0, 3.0), corner_mm=(3.5, 2.5)
    ),
    "left": TrueSurface(
        (DEPTH_MM, HEIGHT_MM), level_mm=-2.0, gradient=(0.016, 0.002), bow_mm=(1.0, -4.0), corner_mm=(2.0, 0.0)
    ),
    "right": TrueSurface(
        (DEPTH_MM, HEIGHT_MM),
        level_mm=WIDTH_MM - 4.0,
        gradient=(-0.012, 0.0035),
        bow_mm=(0.5, 3.0),
        corner_mm=(-2.0, 0.0),
    ),
    "ceiling": TrueSurface(
        (WIDTH_MM, DEPTH_MM), level_mm=HEIGHT_MM - 12.0, gradient=(0.006, -0.008), bow_mm=(-3.0, 0.0)
    ),
}


def vestry_press() -> Job:
    """Return the demo job: an alcove of five surfaces with widths, corners and one reading with its digits swapped."""
    place = _place()
    round_ = read_round(place, TRUTHS, LINES, LASER, seed=310)
    readings: tuple[Reading, ...] = (*_misread(round_), *_widths(), *_corners())
    return Job(
        name="Vestry press",
        address="St Orrin's, north side",
        note="A tall press for vestments between two buttresses. The front edges lean in.",
        instruments=(LASER, TAPE),
        kit=demo_kit(),
        sessions=lunch_hours("Tomas", "Ilse"),
        places=(with_facts(place, READING_KINDS, numbered(readings, "vp", "Tomas", BEGUN)),),
        way_in=(
            Doorway(name="Vestry door", width_mm=790.0, height_mm=1880.0),
            Turn(name="Passage corner", from_mm=1040.0, into_mm=980.0, height_mm=2400.0),
            Threshold(name="Stone step", height_mm=120.0),
        ),
    )


def _place() -> Place:
    press = Unit(
        id="P",
        name="P Press",
        kind="tall",
        x_mm=70.0,
        width_mm=1290.0,
        depth_mm=560.0,
        height_mm=2150.0,
        toe_recess_mm=0.0,
        fixing_heights_mm=(300.0, 1900.0),
        weight_kg=96.0,
        holds="clothes",
        ready_made=False,
        board=Board(material="plywood"),
        standing=ToeKickBox(height_mm=100.0),
        front=Front(opens="pair of doors", handle_mm=28.0),
        insides=Insides(
            cell=Cell(
                fill=Rows(
                    cells=(
                        Cell(size_mm=420.0, fill=Drawers(count=2)),
                        Cell(fill=Columns(cells=(Cell(), Cell(fill=Shelved(count=2))))),
                    )
                ),
                door=Door(hangs="pair", hinge="cup"),
            )
        ),
    )
    return Place(
        id="alcove",
        name="North alcove",
        kind="alcove",
        character="rough",
        width_mm=WIDTH_MM,
        depth_mm=DEPTH_MM,
        height_mm=HEIGHT_MM,
        surfaces=("floor", "back", "left", "right", "ceiling"),
        set_ups=(LEVEL, PLUMB, ACROSS),
        units=(press,),
        datum=HighSpot(over_mm=2.0),
        closing=Closing(split="equal"),
        backing=Backing(kind="masonry", lining_mm=20.0, anchor=ANCHOR),
    )


def _misread(readings: tuple[Reading, ...]) -> tuple[Reading, ...]:
    """Swap two digits of one reading on the back: 698 becomes 689, say."""
    out: list[Reading] = []
    for r in readings:
        if isinstance(r, Offset) and r.id == MISREAD[0]:
            digits = f"{r.value_mm:.1f}"
            k = MISREAD[1]
            r = replace(r, value_mm=float(digits[:k] + digits[k + 1] + digits[k] + digits[k + 2 :]))
        out.append(r)
    return tuple(out)


def _widths() -> tuple[Span, ...]:
    """Return the width at three depths and three heights; the smallest is at a front edge."""
    spots = np.array([(y, z) for y in (60.0, 320.0, 620.0) for z in (120.0, 1200.0, 2200.0)])
    return read_spans((TRUTHS["left"], TRUTHS["right"]), "left-right", spots, TAPE, seed=330)


def _corners() -> tuple[Corner, ...]:
    """Return both corners by legs of 600 and their diagonal, read to the half millimetre."""
    out = []
    for i, (corner, side) in enumerate((("back-left", "left"), ("back-right", "right"))):
        at = 0.0 if side == "left" else WIDTH_MM
        along = at + (600.0 if side == "left" else -600.0)
        back = TRUTHS["back"].at(np.array([[at, 1200.0], [along, 1200.0]]))
        wall = TRUTHS["left" if side == "left" else "right"].at(np.array([[0.0, 1200.0], [600.0, 1200.0]]))
        legs = np.array([along - at, back[1] - back[0]]), np.array([wall[1] - wall[0], 600.0])
        diagonal = round(float(np.linalg.norm(legs[0] - legs[1])) * 2) / 2
        out.append(
            Corner(
                id=f"corner-{i}",
                instrument=TAPE.id,
                taken_at=BEGUN,
                corner="back-left" if corner == "back-left" else "back-right",
                height_mm=1200.0,
                along_mm=600.0,
                out_mm=600.0,
                value_mm=diagonal,
            )
        )
    return tuple(out)
