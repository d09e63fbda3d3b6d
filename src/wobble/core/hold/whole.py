"""All of Hold for one bay, from its detections, its units and the plan of Fit."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.behind import Backing, Behind, Detection, Runs
from wobble.core.fit.ground import Ground
from wobble.core.fit.plan import Plan
from wobble.core.fit.whole import Whole, stand_of
from wobble.core.hold.fastening import Held, hold
from wobble.core.hold.joins import Joined, joined
from wobble.core.hold.lines import Contradiction, Spacing, Structure, StructureLine, joists, structure
from wobble.core.hold.overhead import Overhead, racks
from wobble.core.hold.rests import ShelfCleat, shelf_cleats
from wobble.core.hold.screws import Wall
from wobble.core.hold.services import Plate, plates
from wobble.core.hold.underfoot import Floor, FloorFixed, floor_fixed
from wobble.core.job import Bay, Job, Value


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


class BayHold(Value, frozen=True, kw_only=True):
    """Hold for one bay.

    Attributes:
        bay: Which. back: What is known behind its back. elsewhere: Behind its side walls, ceiling and floor.
        held: How each unit is fastened, in the order of work; empty while there is no plan.
        cleats: Of shelves, with their screws. overhead: How racks hang. underfoot: What is screwed to the floor.
        joined: Neighbours screwed together. plates: Where wires and pipes cross studs.
    """

    bay: str
    back: Lines
    elsewhere: tuple[Lines, ...]
    held: tuple[Held, ...]
    cleats: tuple[ShelfCleat, ...]
    overhead: tuple[Overhead, ...]
    underfoot: tuple[FloorFixed, ...]
    joined: tuple[Joined, ...]
    plates: tuple[Plate, ...]


def hold_whole(job: Job, bay: Bay, ground: Ground | None, plan: Plan | None, whole: Whole) -> BayHold:
    """Return what lies behind a bay's surfaces and how its units, as Fit places them, are fastened to it."""
    backing, over = bay.backing or Backing(), bay.overhead or Backing(lining_mm=12.5, deep_mm=140.0)
    known = _structures(bay, backing)
    joisted, runs, runs_sure = joists(found_on(bay, "ceiling"), bay.width_mm, bay.depth_mm, over.stud_mm, over.runs)
    under = bay.underfoot or Backing(lining_mm=18.0, deep_mm=140.0)
    below, below_runs, below_sure = joists(
        found_on(bay, "floor"), bay.width_mm, bay.depth_mm, under.stud_mm, under.runs
    )
    held: tuple[Held, ...] = ()
    cleats: tuple[ShelfCleat, ...] = ()
    screwed_down: tuple[FloorFixed, ...] = ()
    if ground is not None and plan is not None:
        wall = Wall(bay, backing, known, ground, plan, job.kit, job.units, _level_line(bay))
        held = hold(wall, tuple(g.unit for g in whole.going))
        stand = stand_of(ground, plan.base.height.value_mm)
        floor = Floor(under, below, below_runs)
        screwed_down = floor_fixed(bay, floor, plan, stand, backing.driving_g)
        cleats = _numbered(shelf_cleats(wall, whole.flats, stand), sum(len(h.points) for h in held))
    sides = tuple(_lines(s, known[s], "not known", 1.0) for s in SIDES if known[s].lines)
    ceiling = (_lines("ceiling", joisted, runs, runs_sure),) if joisted.lines else ()
    boards = (_lines("floor", below, below_runs, below_sure),) if below.lines else ()
    return BayHold(
        bay=bay.id,
        back=_lines("back", known["back"], "not known", 1.0),
        elsewhere=(*sides, *ceiling, *boards),
        held=held,
        cleats=cleats,
        underfoot=screwed_down,
        overhead=racks(bay, over, joisted, runs, runs_sure, whole.hangers),
        joined=joined(bay),
        plates=plates(bay, tuple(line.at_mm for line in known["back"].lines), job.units),
    )


SIDES: tuple[Behind, ...] = ("left", "right")


def found_on(bay: Bay, surface: Behind) -> tuple[Detection, ...]:
    """Return what was found behind one surface."""
    return tuple(d for d in bay.detections if d.surface == surface)


def _structures(bay: Bay, backing: Backing) -> dict[Behind, Structure]:
    """Return what is known behind each wall of a bay; all are taken to be made alike."""
    wide: dict[Behind, float] = {"back": bay.width_mm, "left": bay.depth_mm, "right": bay.depth_mm}
    return {s: structure(found_on(bay, s), mm, backing.stud_mm, backing.kind) for s, mm in wide.items()}


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


def _level_line(bay: Bay) -> float | None:
    """Return the height of the first level line that is known."""
    return next((s.at_mm for s in bay.set_ups if s.across == "z" and s.at_mm is not None), None)


def _numbered(cleats: tuple[ShelfCleat, ...], drilled: int) -> tuple[ShelfCleat, ...]:
    """Return cleats with their screws numbered on from what is drilled before them."""
    out = []
    for cleat in cleats:
        points = tuple(replace(p, order=drilled + i + 1) for i, p in enumerate(cleat.points))
        drilled += len(points)
        out.append(replace(cleat, points=points))
    return tuple(out)
