"""All that is set out of one place, worked out once: what the findings look at and the answer shows."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from msgspec.structs import replace

from wobble.core.job import AsWide, At, Centred, Edge, Equal, Job, LinedUp, Place, Rule, Unit, Wide
from wobble.core.job.rules import PLACE
from wobble.core.length import LengthUnit, format_length
from wobble.core.setout.cells import LaidCell, Short, front_of, laid_cells
from wobble.core.setout.long_rod import LongRod, Walls, long_rod, things
from wobble.core.setout.upright_rod import Heights, resting, stack_up, stacked
from wobble.core.setout.ways import as_measured, construction_of


@dataclass(frozen=True)
class Sheet:
    """What was said of a place, and what it comes to.

    Attributes:
        job: The job that it is of. said: The place as drawn. place: As it comes out, every unit where and as large as
            its rules and stacks have it. rod: Along the place. heights: Its stacks by their ids.
    """

    job: Job
    said: Place
    place: Place
    rod: LongRod
    heights: Mapping[str, Heights]

    @property
    def lengths(self) -> LengthUnit:
        """The units that the user reads."""
        return self.job.units

    @cached_property
    def cells(self) -> dict[str, tuple[tuple[LaidCell, ...], tuple[Short, ...]]]:
        """The cells of every carcass that has any, by the unit's id."""
        return {u.id: laid_cells(u, construction_of(self.job, u)) for u in self.place.units if u.insides is not None}

    @cached_property
    def by_id(self) -> dict[str, Unit]:
        """Units as they come out."""
        return {u.id: u for u in self.place.units}

    def say(self, value_mm: float) -> str:
        """Return a length as the user reads it; whole millimetres without a decimal."""
        whole = abs(value_mm - round(value_mm)) < 1e-6
        return format_length(value_mm, self.lengths, decimals=0 if whole else 1)

    def name(self, id_: str) -> str:
        """Return what a unit or a thing is called."""
        if id_ == PLACE:
            return "the place"
        if id_ in self.by_id:
            return self.by_id[id_].name
        named = things(self.said)
        return named[id_].name if id_ in named else id_


def sheet(job: Job, place: Place, walls: Walls) -> Sheet:
    """Return a place set out: along the long rod first, then up."""
    rod = long_rod(place, walls)
    heights = {stack.id: stack_up(place, stack) for stack in place.heights}
    along = tuple(rod.placed(u) for u in place.units) if place.rules else place.units
    up = tuple(stacked(u, heights, place) for u in along) if heights else along
    fronted = tuple(u if u.insides is None else replace(u, front=front_of(u)) for u in up)
    units = resting(tuple(as_measured(job, u) for u in fronted), place.existing)
    return Sheet(job, place, place if units == place.units else replace(place, units=units), rod, heights)


def edge_words(sheet: Sheet, edge: Edge) -> str:
    """Return an edge in words."""
    if edge.of == PLACE:
        return "the middle of the place" if edge.edge == "middle" else f"the {edge.edge} wall"
    part = "middle" if edge.edge == "middle" else f"{edge.edge} edge"
    return f"the {part} of {sheet.name(edge.of)}"


def rule_words(sheet: Sheet, rule: Rule) -> str:
    """Return a rule in words, as it is read on the rod."""
    match rule:
        case At(edge=edge, at_mm=at):
            return f"{edge_words(sheet, edge)} at {sheet.say(at)}"
        case LinedUp(edge=edge, to=to, off_mm=off):
            if not off:
                return f"{edge_words(sheet, edge)} at {edge_words(sheet, to)}"
            side = "right" if off > 0 else "left"
            return f"{edge_words(sheet, edge)} {sheet.say(abs(off))} to the {side} of {edge_words(sheet, to)}"
        case Wide(unit=unit, wide_mm=wide):
            return f"{sheet.name(unit)} {sheet.say(wide)} wide"
        case Equal(units=units):
            return f"{', '.join(sheet.name(u) for u in units)} equally wide"
        case AsWide(unit=unit, than=than, more_mm=more):
            extra = "" if not more else f" and {sheet.say(abs(more))} {'more' if more > 0 else 'less'}"
            return f"{sheet.name(unit)} as wide as {sheet.name(than)}{extra}"
        case Centred(units=units, on=on):
            return f"{', '.join(sheet.name(u) for u in units)} centred on {sheet.name(on)}"


SIGNS = {"at": "·", "lined up": "⇥", "wide": "↔", "equal": "=", "as wide as": "≙", "centred": "◎"}


def rule_sign(rule: Rule) -> str:
    """Return the small sign that a rule is drawn with."""
    return SIGNS[str(rule.__struct_config__.tag)]
