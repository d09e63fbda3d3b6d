"""A corner to practise in: how it really is follows from a seed, and simulated instruments are read in it.

Nobody is told the truth before having measured; an apprentice reads what is left, and slips once.
"""

from __future__ import annotations

import zlib
from collections.abc import Sequence
from dataclasses import replace as put

import numpy as np
from msgspec.structs import replace

from wobble.core.errors import SurveyError
from wobble.core.job import (
    HighSpot,
    Instrument,
    Job,
    Offset,
    Place,
    Practice,
    Reading,
    SetUp,
    Span,
    SurfaceName,
    Unit,
    surface_extent,
)
from wobble.core.job.instrument import InstrumentKind
from wobble.core.length import MM_PER_INCH, LengthUnit, to_fractional_inches
from wobble.core.practice.gable import demo_kit
from wobble.core.practice.rooms import TrueSurface, made_up_room
from wobble.core.practice.simulated import R, Simulated, TruePlace

APPRENTICE = "Apprentice"
SLIP_MM = {"mm": 10.0, "in": MM_PER_INCH / 2}
"""What is misread on a rule: a centimetre, or half an inch."""
USUALLY_MM = {"z": 1000.0, "y": 700.0, "x": 900.0}
"""Where a line stands that nobody has measured, to some centimetres."""
CROOKED_MM = 9.0
"""How much the floor under the run differs at least, or there would be little to learn."""
FOOTPRINT_MM = np.asarray([(x, y) for x in (100.0, 700.0, 1300.0, 1900.0) for y in (60.0, 500.0)])
FINEST: dict[LengthUnit, float] = {"mm": 0.5, "in": MM_PER_INCH / 32}
OWN_ERRORS: dict[InstrumentKind, float] = {"tape": 0.8, "level": 0.9, "digital level": 1.2, "phone": 6.0, "square": 1.1}
"""How far each kind of instrument is off by itself in a made-up place: mm, or mm per m."""


def practice_job(seed: int, units: LengthUnit) -> Job:
    """Return a job to practise on: three base units in a made-up corner, nothing measured yet."""
    wide, deep, high, filler = (600.0, 560.0, 720.0, 40.0) if units == "mm" else _inches(24.0, 22.0, 28.5, 1.5)
    fixings = (110.0, 650.0) if units == "mm" else _inches(4.5, 25.5)
    run = tuple(
        Unit(
            id=id_,
            name=f"{id_} {name}",
            x_mm=filler + i * wide,
            width_mm=wide,
            depth_mm=deep,
            height_mm=high,
            fixing_heights_mm=fixings,
            weight_kg=26.0,
        )
        for i, (id_, name) in enumerate((("A", "Corner"), ("B", "Middle"), ("C", "End")))
    )
    lines = (1000.0, 700.0, 900.0) if units == "mm" else _inches(40.0, 28.0, 36.0)
    corner = Place(
        id="corner",
        name="The corner",
        kind="corner",
        surfaces=("floor", "back", "left"),
        width_mm=2000.0 if units == "mm" else 80 * MM_PER_INCH,
        depth_mm=620.0 if units == "mm" else 25 * MM_PER_INCH,
        height_mm=2300.0 if units == "mm" else 90 * MM_PER_INCH,
        set_ups=(
            SetUp(id="level", name="Level line", across="z", at_mm=lines[0], made_with="laser"),
            SetUp(id="back", name="Plumb line off the back", across="y", at_mm=lines[1], made_with="laser"),
            SetUp(id="side", name="Plumb line off the side", across="x", at_mm=lines[2], made_with="laser"),
        ),
        units=run,
        datum=HighSpot(over_mm=1.0),
        practice=Practice(seed=seed),
    )
    return Job(
        name="Practice corner",
        note="A made-up corner: nobody is told how it really is before having measured it.",
        units=units,
        instruments=(
            Instrument(id="laser", name="Cross-line laser and rule", kind="laser line", sigma_mm=0.6),
            Instrument(id="tape", name="Tape", kind="tape", sigma_mm=0.8),
            Instrument(id="level", name="Spirit level", kind="level", sigma_mm=0.5),
        ),
        kit=demo_kit(),
        places=(corner,),
    )


def crooked(seed: int) -> int:
    """Return the first seed from one on whose floor falls or humps enough that a cabinet put down on it shows it."""
    while True:
        floor = made_up_room(seed).surfaces["floor"].at(FOOTPRINT_MM)
        if np.ptp(floor) >= CROOKED_MM:
            return seed
        seed += 1


def true_place(place: Place) -> TruePlace:
    """Return how a place of practice really is, and where its lines really stand.

    Raises:
        SurveyError: It is a real place, of which nobody knows.
    """
    if place.practice is None:
        raise SurveyError(
            f"{place.name} is a real place: Wobble does not know how it is.", mend="Measure it, or begin a practice."
        )
    surfaces: dict[SurfaceName, TrueSurface] = dict(made_up_room(place.practice.seed).surfaces)
    surfaces["right"] = put(surfaces["right"], level_mm=place.width_mm)
    surfaces["ceiling"] = put(surfaces["ceiling"], level_mm=place.height_mm)
    lines = {
        s.id: s.at_mm if s.at_mm is not None else USUALLY_MM[s.across] + zlib.crc32(s.id.encode()) % 61 - 30.0
        for s in place.set_ups
    }
    return TruePlace(surfaces, lines, place.width_mm)


def read(job: Job, place: Place, asked: Sequence[R], *, apprentice: bool) -> tuple[R, ...]:
    """Return readings as the job's instruments show them in a place of practice, each with what is read off.

    The same asked again shows another number, as it does in life: what differs is its id.

    Args:
        job: It says which instruments there are, and which unit its rules have.
        place: The place, with what was read so far.
        asked: What to read where, its number left open.
        apprentice: Whether the apprentice reads; he slips once in a job, where others around him tell.

    Raises:
        SurveyError: It is a real place, or an instrument or a line is not among those that are there.
    """
    truth = true_place(place)
    slips = apprentice and all(r.taken_by != APPRENTICE for r in place.readings)
    slip = _likely_slip(place, asked) if slips else None
    return tuple(_as_shown(job, truth, one, SLIP_MM[job.units] if i == slip else 0.0) for i, one in enumerate(asked))


def _as_shown(job: Job, truth: TruePlace, asked: R, off_mm: float) -> R:
    tool = next((i for i in job.instruments if i.id == asked.instrument), None)
    line = getattr(asked, "set_up", None)
    if tool is None or (line is not None and line not in truth.lines):
        what = f"instrument “{asked.instrument}”" if tool is None else f"line “{line}”"
        raise SurveyError(f"There is no {what} here.", mend="Choose one of those that the job has.")
    finest = {"digital level": 0.05, "phone": 0.01}.get(tool.kind, FINEST[job.units])
    dice = np.random.default_rng(zlib.crc32(asked.id.encode()))
    shown = Simulated(tool, finest, OWN_ERRORS.get(tool.kind, 0.0)).read(asked, truth, dice)
    if not isinstance(shown, Offset | Span):
        return shown
    value = shown.value_mm + off_mm
    text = f"{value:g}" if job.units == "mm" else to_fractional_inches(value, 32).text.removesuffix('"')
    return replace(shown, value_mm=value, entered=text)


def _likely_slip(place: Place, asked: Sequence[Reading]) -> int | None:
    """Return which of what is asked has most others around it: the one nearest to the middle of the back wall."""
    there = [(i, r.at) for i, r in enumerate(asked) if isinstance(r, Offset) and r.surface == "back"]
    if not there:
        return None
    middle = np.mean([at for _, at in there], axis=0)
    (_, wide), (_, high) = surface_extent(place, "back")
    return min(there, key=lambda one: abs(one[1][0] - middle[0]) / wide + abs(one[1][1] - middle[1]) / high)[0]


def _inches(*lengths: float) -> tuple[float, ...]:
    return tuple(length * MM_PER_INCH for length in lengths)
