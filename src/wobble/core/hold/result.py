"""All of Hold for one place, from what was found, its units and the plan of Fit: findings, parts and fasteners."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.facts import Behind
from wobble.core.finding import Finding
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.result import FitResult, stand_of
from wobble.core.fit.run.contact import FloorContact
from wobble.core.hold.fastened.fastening import hold
from wobble.core.hold.fastened.required import Held, Holding
from wobble.core.hold.findings import findings
from wobble.core.hold.into import Context, Into
from wobble.core.hold.joins import Joined, joined
from wobble.core.hold.known import Lines, known_lines
from wobble.core.hold.overhead import Overhead, racks
from wobble.core.hold.parts import hold_parts
from wobble.core.hold.rests.cavity import SideHeld, side_held
from wobble.core.hold.rests.ceiling import ceiling_held
from wobble.core.hold.rests.cleats import ShelfCleat, shelf_cleats
from wobble.core.hold.rests.ledgers import Ledger
from wobble.core.hold.rests.nailers import Nailing, nailing, put_in
from wobble.core.hold.services import Plate, plates
from wobble.core.hold.structure.behind import behind, found_on
from wobble.core.hold.structure.joists import Joists, joists
from wobble.core.hold.underfoot import FloorFixed, floor_fixed
from wobble.core.job import Job, Place, Value
from wobble.core.job.backing import Backing
from wobble.core.packing import PieceCount, fill, pieces_wanted
from wobble.core.part import Fastener, Part

CEILING = Backing(lining_mm=12.5, deep_mm=140.0)
FLOOR = Backing(lining_mm=18.0, deep_mm=140.0)
"""What a ceiling and a floor are taken to be made of while nobody has said."""
SIDES: tuple[Behind, ...] = ("left", "right")


class PlaceHold(Value, frozen=True, kw_only=True):
    """Hold for one place.

    Attributes:
        place: Which. findings: What to tell, stops first.
        parts: What is made to hold: ledgers, battens, cleats, timbers, members that bridge.
        fasteners: Every screw, bolt and anchor, numbered in the order of work, with what is packed behind each.
        pieces: Shims to take along, under supports and behind screws.
        back: What is known behind its back. elsewhere: Behind its side walls, ceiling and floor.
        held: How each unit is fastened, in the order of work; empty while there is no plan. ledgers: What they rest on.
        cleats: Of shelves. overhead: How racks hang. underfoot: What is screwed to the floor.
        joined: Neighbours screwed together, and tops to boxes. nailing: What boards over a wall are nailed to.
        sides: Boxes screwed to the walls beside them and to the ceiling. plates: Where wires and pipes cross studs.
    """

    place: str
    findings: tuple[Finding, ...]
    parts: tuple[Part, ...]
    fasteners: tuple[Fastener, ...]
    pieces: tuple[PieceCount, ...]
    back: Lines
    elsewhere: tuple[Lines, ...]
    held: tuple[Held, ...]
    ledgers: tuple[Ledger, ...]
    cleats: tuple[ShelfCleat, ...]
    overhead: tuple[Overhead, ...]
    underfoot: tuple[FloorFixed, ...]
    joined: tuple[Joined, ...]
    nailing: Nailing
    sides: tuple[SideHeld, ...]
    plates: tuple[Plate, ...]


def hold_result(
    job: Job, place: Place, contact: FloorContact | None, plan: Plan | None, fitted: FitResult
) -> PlaceHold:
    """Return what lies behind a place's surfaces and how its units, as Fit places them, are fastened to it."""
    walls, over = place.backing or Backing(), place.overhead or CEILING
    under = place.underfoot or FLOOR
    above = joists(found_on(place, "ceiling"), place.width_mm, place.depth_mm, over.stud_mm, over.runs)
    below = joists(found_on(place, "floor"), place.width_mm, place.depth_mm, under.stud_mm, under.runs)
    into = _into(place, walls) | {
        "ceiling": Into("ceiling", over, above.lines, above.axis),
        "floor": Into("floor", under, below.lines, below.axis),
    }
    holding, cleats, hung, down, beside = Holding(), [], [], [], []
    nailed: tuple[Nailing, tuple[Fastener, ...]] = Nailing(), ()
    if contact is not None and plan is not None:
        context = Context(place, into, contact, plan, job.kit, job.units, _level_line(place))
        stand = stand_of(contact, plan.base.height.value_mm)
        holding = hold(context, tuple(g.unit for g in fitted.access))
        cleats = shelf_cleats(context, fitted.flats, stand)
        hung = racks(context, above, fitted.hangers)
        down = floor_fixed(context, below, stand)
        beside = [*side_held(context, stand), *ceiling_held(context, above, stand)]
        nailed = put_in(nailing(context), holding.blocks)
    joins = joined(place)
    others = [f for _, driven in (*cleats, *hung, *down, *beside, *joins, nailed) for f in driven]
    fasteners = tuple(
        replace(f, order=i + 1, filling=fill(max(f.packing.value_mm, 0.0), job.kit))
        for i, f in enumerate((*holding.fasteners, *others))
    )
    shims = plan.shims if plan is not None else ()
    fillings = [s.filling for s in shims] + [f.filling for f in fasteners if f.filling is not None]
    made = PlaceHold(
        place=place.id,
        findings=(),
        parts=(),
        fasteners=fasteners,
        pieces=pieces_wanted(fillings, job.kit),
        back=known_lines(into["back"]),
        elsewhere=_elsewhere(into, above, below),
        held=holding.held,
        ledgers=holding.ledgers,
        cleats=tuple(c for c, _ in cleats),
        overhead=tuple(o for o, _ in hung),
        underfoot=tuple(f for f, _ in down),
        joined=tuple(j for j, _ in joins),
        nailing=nailed[0],
        sides=tuple(s for s, _ in beside),
        plates=plates(place, tuple(line.at_mm for line in into["back"].known.lines), job.units),
    )
    return replace(
        made,
        parts=hold_parts(
            place, holding.held, holding.ledgers, made.cleats, made.overhead, nailed[0].nailers, made.fasteners
        ),
        findings=findings(job, place, made, planned=plan is not None),
    )


def _into(place: Place, backing: Backing) -> dict[Behind, Into]:
    """Return what the walls of a place are to screws; all are taken to be made alike."""
    walls: tuple[Behind, ...] = ("back", "left", "right")
    return {s: Into(s, backing, behind(place, s)) for s in walls}


def _elsewhere(into: dict[Behind, Into], above: Joists, below: Joists) -> tuple[Lines, ...]:
    sides = tuple(known_lines(into[s]) for s in SIDES if into[s].known.lines)
    ceiling = (known_lines(into["ceiling"], above),) if above.lines.lines else ()
    floor = (known_lines(into["floor"], below),) if below.lines.lines else ()
    return (*sides, *ceiling, *floor)


def _level_line(place: Place) -> float | None:
    """Return the height of the first level line that is known."""
    return next((s.at_mm for s in place.set_ups if s.across == "z" and s.at_mm is not None), None)
