"""All of Hold for one place, from its detections, its units and the plan of Fit."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.facts import Behind, Detection
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.result import Whole, stand_of
from wobble.core.fit.run.ground import Ground
from wobble.core.hold.fastening import Held, hold
from wobble.core.hold.joins import Joined, joined
from wobble.core.hold.overhead import Overhead, racks
from wobble.core.hold.rests.rests import ShelfCleat, shelf_cleats
from wobble.core.hold.screws import Wall
from wobble.core.hold.services import Plate, plates
from wobble.core.hold.structure.lines import Contradiction, Spacing, Structure, StructureLine, joists, structure
from wobble.core.hold.underfoot import Floor, FloorFixed, floor_fixed
from wobble.core.job import Job, Place, Value
from wobble.core.job.backing import Backing, Runs


class Lines(Value, frozen=True, kw_only=True):
    """What is known of the studs or joists of one surface.

    Attributes:
        surface: Which. runs: Which way its lines run, for a ceiling. runs_sure: How sure that is, 0 to 1.
        spacings: Hypotheses on how far they stand apart, likeliest first. lines: From the left, or from the back.
        odd: Detections that fit no line. against: What contradicts what.
    """

    surface: Behind
    runs: Runs
    runs_sure: float
    spacings: tuple[Spacing, ...]
    lines: tuple[StructureLine, ...]
    odd: tuple[str, ...]
    against: tuple[Contradiction, ...]


class PlaceHold(Value, frozen=True, kw_only=True):
    """Hold for one place.

    Attributes:
        place: Which. back: What is known behind its back. elsewhere: Behind its side walls, ceiling and floor.
        held: How each unit is fastened, in the order of work; empty while there is no plan.
        cleats: Of shelves, with their screws. overhead: How racks hang. underfoot: What is screwed to the floor.
        joined: Neighbours screwed together. plates: Where wires and pipes cross studs.
    """

    place: str
    back: Lines
    elsewhere: tuple[Lines, ...]
    held: tuple[Held, ...]
    cleats: tuple[ShelfCleat, ...]
    overhead: tuple[Overhead, ...]
    underfoot: tuple[FloorFixed, ...]
    joined: tuple[Joined, ...]
    plates: tuple[Plate, ...]


def hold_whole(job: Job, place: Place, ground: Ground | None, plan: Plan | None, whole: Whole) -> PlaceHold:
    """Return what lies behind a place's surfaces and how its units, as Fit places them, are fastened to it."""
    backing, over = place.backing or Backing(), place.overhead or Backing(lining_mm=12.5, deep_mm=140.0)
    known = _structures(place, backing)
    joisted, runs, runs_sure = joists(
        found_on(place, "ceiling"), place.width_mm, place.depth_mm, over.stud_mm, over.runs
    )
    under = place.underfoot or Backing(lining_mm=18.0, deep_mm=140.0)
    below, below_runs, below_sure = joists(
        found_on(place, "floor"), place.width_mm, place.depth_mm, under.stud_mm, under.runs
    )
    held: tuple[Held, ...] = ()
    cleats: tuple[ShelfCleat, ...] = ()
    screwed_down: tuple[FloorFixed, ...] = ()
    if ground is not None and plan is not None:
        wall = Wall(place, backing, known, ground, plan, job.kit, job.units, _level_line(place))
        held = hold(wall, tuple(g.unit for g in whole.going))
        stand = stand_of(ground, plan.base.height.value_mm)
        floor = Floor(under, below, below_runs)
        screwed_down = floor_fixed(place, floor, plan, stand, backing.driving_g)
        cleats = _numbered(shelf_cleats(wall, whole.flats, stand), sum(len(h.points) for h in held))
    sides = tuple(_lines(s, known[s], "not known", 1.0) for s in SIDES if known[s].lines)
    ceiling = (_lines("ceiling", joisted, runs, runs_sure),) if joisted.lines else ()
    boards = (_lines("floor", below, below_runs, below_sure),) if below.lines else ()
    return PlaceHold(
        place=place.id,
        back=_lines("back", known["back"], "not known", 1.0),
        elsewhere=(*sides, *ceiling, *boards),
        held=held,
        cleats=cleats,
        underfoot=screwed_down,
        overhead=racks(place, over, joisted, runs, runs_sure, whole.hangers),
        joined=joined(place),
        plates=plates(place, tuple(line.at_mm for line in known["back"].lines), job.units),
    )


SIDES: tuple[Behind, ...] = ("left", "right")


def found_on(place: Place, surface: Behind) -> tuple[Detection, ...]:
    """Return what was found behind one surface."""
    return tuple(d for d in place.detections if d.surface == surface)


def _structures(place: Place, backing: Backing) -> dict[Behind, Structure]:
    """Return what is known behind each wall of a place; all are taken to be made alike."""
    wide: dict[Behind, float] = {"back": place.width_mm, "left": place.depth_mm, "right": place.depth_mm}
    return {s: structure(found_on(place, s), mm, backing.stud_mm, backing.kind) for s, mm in wide.items()}


def _lines(surface: Behind, known: Structure, runs: Runs, sure: float) -> Lines:
    return Lines(
        surface=surface,
        runs=runs,
        runs_sure=sure,
        spacings=known.spacings,
        lines=known.lines,
        odd=known.odd,
        against=known.against,
    )


def _level_line(place: Place) -> float | None:
    """Return the height of the first level line that is known."""
    return next((s.at_mm for s in place.set_ups if s.across == "z" and s.at_mm is not None), None)


def _numbered(cleats: tuple[ShelfCleat, ...], drilled: int) -> tuple[ShelfCleat, ...]:
    """Return cleats with their screws numbered on from what is drilled before them."""
    out = []
    for cleat in cleats:
        points = tuple(replace(p, order=drilled + i + 1) for i, p in enumerate(cleat.points))
        drilled += len(points)
        out.append(replace(cleat, points=points))
    return tuple(out)
