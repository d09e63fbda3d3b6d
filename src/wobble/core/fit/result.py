"""All of Fit beside shims and packing, from one contact, its walls and the plan: each part asked once, in order."""

from __future__ import annotations

from dataclasses import dataclass

from wobble.core.fit.access.access import Access, Way, access
from wobble.core.fit.cutouts.boxes import Cutout
from wobble.core.fit.cutouts.cutouts import cutouts
from wobble.core.fit.level.feet import Carried, Foot, Leg, feet, legs
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.level.ways import LevelMethod, LineMethod, level_methods, line_methods
from wobble.core.fit.mouldings.running import MouldingFit, mouldings
from wobble.core.fit.overhead.hangers import Hanger, hangers
from wobble.core.fit.run.contact import FloorContact
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import TierName
from wobble.core.fit.scribe.edges import edge_scribes
from wobble.core.fit.scribe.line import Scribe
from wobble.core.fit.sides.closing import Sides, sides
from wobble.core.fit.sides.strips import one_blank, side_scribes
from wobble.core.fit.sides.swings import Swing, past_walls, swings
from wobble.core.fit.surfaces.walls import Walls
from wobble.core.fit.tops.flat import FlatPart, flat_parts
from wobble.core.gauge.survey import Survey
from wobble.core.job import Job, Place


@dataclass(frozen=True)
class FitResult:
    """What follows from a plan beside its shims and packing; empty while there is no plan."""

    levelling: tuple[LevelMethod, ...] = ()
    lines: tuple[LineMethod, ...] = ()
    feet: tuple[Foot, ...] = ()
    legs: tuple[Leg, ...] = ()
    sides: tuple[Sides, ...] = ()
    flats: tuple[FlatPart, ...] = ()
    scribes: tuple[Scribe, ...] = ()
    access: tuple[Access, ...] = ()
    cutouts: tuple[Cutout, ...] = ()
    swings: tuple[Swing, ...] = ()
    hangers: tuple[Hanger, ...] = ()
    mouldings: tuple[MouldingFit, ...] = ()


def stand_of(contact: FloorContact, base_mm: float) -> Stand:
    """Return where a run stands, for what is measured from the datum mark and the corner."""
    back = contact.back_line_mm if contact.back_high is None or contact.back_high.tied else 0.0
    hung = contact.hung_line_mm if contact.hung_high is not None and contact.hung_high.tied else None
    anchor = contact.back_high.at if contact.back_high is not None and not contact.back_high.tied else None
    return Stand(base_mm if contact.high_spot.tied else 0.0, back, contact.turn, hung, anchor)


def fit_result(
    survey: Survey,
    place: Place,
    walls: Walls,
    contact: FloorContact,
    plan: Plan,
    job: Job,
    moved: dict[TierName, float],
) -> FitResult:
    """Return what follows from a plan; `walls` are with what stands proud of them, `moved` what the split moved."""
    units = job.units
    stand = stand_of(contact, plan.base.height.value_mm)
    carried = tuple(Carried(support, shim.gap) for support, shim in zip(contact.supports, plan.shims, strict=True))
    turned = feet(contact, carried)
    by_walls = past_walls(place, walls, stand)
    met = sides(survey, place, walls, stand, moved, by_walls, units)
    met, strips = one_blank(met, side_scribes(survey, place, met))
    flats, edges = flat_parts(survey, place, walls, stand)
    return FitResult(
        levelling=level_methods(contact, plan, turned, job.kit, units),
        lines=line_methods(contact, walls, units),
        feet=turned,
        legs=legs(contact, carried),
        sides=met,
        flats=flats,
        scribes=(
            *strips,
            *edges,
            *edge_scribes(survey, place, walls, stand, tied=contact.high_spot.tied),
        ),
        access=access(Way(place, job.way_in, walls, stand, met, units, flats)),
        cutouts=cutouts(place, stand, units),
        swings=swings(job, place, by_walls, stand),
        hangers=hangers(survey, place.units, walls, stand),
        mouldings=mouldings(survey, place, walls, stand, job.workshop.kerf_mm),
    )
