"""What Hold tells: which units hold and which do not, what contradicts what, and what to take along."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING

from wobble.core.codes import HoldCode
from wobble.core.confidence import chance_words
from wobble.core.contents import contents_words, named_kg
from wobble.core.finding import Finding, Severity, in_order
from wobble.core.hold.fastened.required import Held
from wobble.core.hold.loads import rests, tips
from wobble.core.hold.overhead import OVERHEAD
from wobble.core.job import LOOSE, ON_WALLS, Boarding, Job, Place, Unit
from wobble.core.length import format_length

if TYPE_CHECKING:
    from wobble.core.hold.result import PlaceHold

RUNS_WORDS = {"out": "out from the back", "along": "along the back", "not known": "nobody knows how"}


class Told:
    """What the rules of Hold look at."""

    def __init__(self, job: Job, place: Place, hold: PlaceHold, *, planned: bool) -> None:
        self.job, self.place, self.hold, self.planned = job, place, hold, planned

    def unit(self, id_: str) -> Unit:
        """Return a unit by its id."""
        return next(u for u in self.place.units if u.id == id_)

    def said(self, mm: float, decimals: int = 1) -> str:
        """Return a length as the user reads it."""
        return format_length(mm, self.job.units, decimals=decimals)


def findings(job: Job, place: Place, hold: PlaceHold, *, planned: bool) -> tuple[Finding, ...]:
    """Return all that Hold tells, stops first."""
    told = Told(job, place, hold, planned=planned)
    return in_order(f for rule in RULES for f in rule(told))


def no_plan(told: Told) -> Iterator[Finding]:
    """Without a plan nothing can be fastened: Fit says what is missing."""
    if told.place.units and not told.planned:
        yield Finding(
            code="no-plan",
            severity="stop",
            title="No screw can be planned yet",
            text="Fit has no plan: its stops say what is missing. What was found behind the linings is kept.",
        )


def units_held(told: Told) -> Iterator[Finding]:
    """Whether each unit holds, what with, and what to do where it does not."""
    for held in told.hold.held:
        unit = told.unit(held.unit)
        n = len(held.fasteners)
        parts = [held.working[0], held.instead]
        if held.ledger:
            parts.insert(1, "It rests on a ledger; these screws only hold it back.")
        if held.avoided and (held.enough or not held.instead):
            parts.append(f"Kept clear of {'; '.join(held.avoided)}.")
        code, severity = _verdict(held, unit)
        yield Finding(
            code=code,
            severity=severity,
            title=f"{unit.name}: {n} screw{'' if n == 1 else 's'}"
            + ("" if not n else f", used to {math.ceil(min(held.use, 9.99) * 100)} %"),
            text=" ".join(p for p in parts if p),
            caution=held.caution,
            about=(held.unit, *held.fasteners),
        )


def _verdict(held: Held, unit: Unit) -> tuple[HoldCode, Severity]:
    """Return the code and the severity of how one unit is held: what may fall on somebody is a stop."""
    if held.enough:
        return ("held-mind", "mind") if held.instead else ("held", "fine")
    if not held.fasteners:
        return "not-held", "stop" if held.overhead or tips(unit) else "mind"
    if held.use <= 1.0:
        return "held-if-found", "mind"
    return "not-enough", "stop" if held.overhead or tips(unit) else "mind"


def contents_assumed(told: Told) -> Iterator[Finding]:
    """What units are taken to hold of which nobody said: said once, as it decides every load."""
    held = [told.unit(h.unit) for h in told.hold.held]
    unsaid = [u for u in held if u.holds == "not said" and u.kind not in ON_WALLS and not named_kg(u)]
    if unsaid:
        each = ", ".join(f"{u.name}: {contents_words(u).split(',')[0]}" for u in unsaid[:4])
        more = f" and {len(unsaid) - 4} more" if len(unsaid) > 4 else ""
        yield Finding(
            code="contents-assumed",
            severity="mind",
            title="What units hold is assumed",
            text=f"Nobody said what goes in, so a usual load is planned ({each}{more}). Say it on the place's page.",
            about=tuple(u.id for u in unsaid),
        )


def contradictions(told: Told) -> Iterator[Finding]:
    """What was found behind the linings and does not go together."""
    for lines in (told.hold.back, *told.hold.elsewhere):
        for one in lines.against:
            yield Finding(
                code="found-disagrees" if len(one.detections) > 1 else "found-odd",
                severity="mind",
                title=f"At {told.said(one.at_mm, 0)}: {'two things disagree' if len(one.detections) > 1 else 'odd'}",
                text=one.text,
                about=(lines.surface, *one.detections),
            )
        if lines.other_way:
            yield Finding(
                code="joists-other-way",
                severity="stop",
                title=f"The {lines.surface}'s joists run the other way",
                text=f"They were said to run {RUNS_WORDS[lines.said]}; what was found says {RUNS_WORDS[lines.runs]}, "
                f"{chance_words(lines.runs_sure)}. All is planned by what was found: look again, "
                "and say which way they run.",
                about=(lines.surface,),
            )


def racks_held(told: Told) -> Iterator[Finding]:
    """Whether racks hang from joists that are there."""
    for over in told.hold.overhead:
        unit = told.unit(over.unit)
        wrong = sorted({h.instead for h in over.hangers if h.instead})
        turned = f" The joists run {RUNS_WORDS[over.runs]}: {chance_words(over.runs_sure)}."
        yield Finding(
            code="rack-held" if over.enough else "rack-not-held",
            severity="fine" if over.enough else "stop",
            title=f"{unit.name} hangs by {len(over.hangers)} hangers"
            if over.enough
            else f"{unit.name} does not hang yet",
            text=f"{math.ceil(over.weight_kg)} kg full ({contents_words(unit)}); each hanger is planned for half. "
            + (" ".join(wrong) if wrong else "")
            + (turned if not over.enough and not wrong else ""),
            caution=over.caution,
            about=(over.unit,),
        )


def cleats_held(told: Told) -> Iterator[Finding]:
    """Whether the cleats of shelves hold."""
    for cleat in told.hold.cleats:
        unit = told.unit(cleat.unit)
        yield Finding(
            code="cleat-held" if cleat.enough else "cleat-not-held",
            severity="fine" if cleat.enough else "stop" if not cleat.fasteners else "mind",
            title=f"{unit.name}, {cleat.wall} cleat: {len(cleat.fasteners)} screws",
            text=f"Planned for {math.ceil(cleat.load_n)} N ({contents_words(unit)}). {cleat.instead}".strip(),
            about=(cleat.unit, cleat.wall, *cleat.fasteners),
        )


def sides_held(told: Told) -> Iterator[Finding]:
    """Whether boxes hold that are screwed through their sides into the walls beside them, or up into the ceiling."""
    for side in told.hold.sides:
        unit = told.unit(side.unit)
        hung = not rests(told.place, unit)
        up = side.wall == "ceiling"
        how = "Through its top, with broad washers inside" if up else "Through its side"
        planned = f"{how}, planned for {math.ceil(side.load_n)} N ({contents_words(unit)})"
        if up and hung:
            planned += ", its top screwed or let into its sides"
        yield Finding(
            code="side-held" if side.enough else "side-not-held",
            severity="fine" if side.enough else "stop" if hung else "mind",
            title=f"{unit.name}: {len(side.fasteners)} screws into the {side.wall}{'' if up else ' wall'}",
            text=f"{planned}, with packing where each stands. {side.instead}".strip(),
            figure=side.gap,
            caution=OVERHEAD if up and hung else "",
            about=(side.unit, side.wall, *side.fasteners),
        )


def let_be(told: Told) -> Iterator[Finding]:
    """What is said to be fastened to nothing that holds it: it hangs in the air, or may tip."""
    told_of = (
        {h.unit for h in told.hold.held} | {s.unit for s in told.hold.sides} | {o.unit for o in told.hold.overhead}
    )
    told_of |= {c.unit for c in told.hold.cleats} | {u for j in told.hold.joined for u in j.units}
    for unit in told.place.units if told.planned else ():
        if not unit.fastened_to or unit.flat or unit.kind in LOOSE or unit.id in told_of:
            continue
        hung = not rests(told.place, unit)
        if not hung and not tips(unit):
            continue
        yield Finding(
            code="not-held",
            severity="stop" if hung else "mind",
            title=f"{unit.name} {'hangs from nothing' if hung else 'stands free'}",
            text="What it is said to be fastened to does not hold it. Say a wall, the ceiling, or what carries it."
            if hung
            else "A hand’s pull at its top, or a child on an open drawer, tips it. Fasten it to something.",
            caution="Tall furniture tips: people are hurt by it.",
            about=(unit.id,),
        )


def floor_held(told: Told) -> Iterator[Finding]:
    """Whether what may slide or is thrown about is screwed to the floor."""
    for fixed in told.hold.underfoot:
        unit = told.unit(fixed.unit)
        yield Finding(
            code="floor-held" if fixed.enough else "floor-not-held",
            severity="fine" if fixed.enough else "mind",
            title=f"{unit.name}: {len(fixed.fasteners)} screws into the floor",
            text=fixed.instead or "Through its base and the shims, into joists.",
            caution=fixed.caution,
            about=(fixed.unit, *fixed.fasteners),
        )


def kit(told: Told) -> Iterator[Finding]:
    """Shims that the plan takes and the kit does not have, and gaps behind screws that it cannot make."""
    short = [p for p in told.hold.pieces if p.to_hand is not None and p.wanted > p.to_hand]
    if short:
        wants = ", ".join(f"{p.wanted - (p.to_hand or 0)} of {told.said(p.thickness_mm)}" for p in short)
        yield Finding(
            code="kit-short",
            severity="mind",
            title="The kit runs short",
            text=f"Buy or cut {wants} before you start.",
        )
    missed = [f for f in told.hold.fasteners if f.filling is not None and not f.filling.within_tolerance]
    if missed:
        yield Finding(
            code="kit-misses-packing",
            severity="mind",
            title=f"{len(missed)} gap{'s' if len(missed) > 1 else ''} behind screws the kit cannot make",
            text=f"The nearest stack is more than {told.said(told.job.kit.tolerance_mm)} off. Add a thinner shim or a "
            "tapered pair to the kit.",
            about=tuple(f.id for f in missed),
        )


def nail_plates(told: Told) -> Iterator[Finding]:
    """Wires and pipes that cross a stud want a plate of steel."""
    for plate in told.hold.plates:
        yield Finding(
            code="nail-plate",
            severity="mind",
            title="A plate over what crosses a stud",
            text=plate.text,
            about=(plate.obstacle, f"{plate.at[0]:.0f}"),
        )


def boards_nailed(told: Told) -> Iterator[Finding]:
    """What boards over a wall are nailed to: pieces put in before, ends that are loose, studs that nobody found."""
    nailing = told.hold.nailing
    for unit in (u for u in told.place.units if any(n.unit == u.id for n in nailing.nailers)):
        mine = [n for n in nailing.nailers if n.unit == unit.id]
        n = sum(len(m.rows) for m in mine)
        yield Finding(
            code="nailers",
            severity="mind",
            title=f"{unit.name}: {n} piece{'' if n == 1 else 's'} between the studs first",
            text=f"For {'; '.join(dict.fromkeys(m.why for m in mine))}. A hand gets there only before the "
            f"{'boards' if isinstance(unit.body, Boarding) else 'lining'}.",
            about=(unit.id, *(m.id for m in mine)),
        )
    for loose in nailing.loose:
        unit = told.unit(loose.unit)
        yield Finding(
            code="ends-loose",
            severity="mind",
            title=f"{unit.name}: its {loose.end} ends have nothing behind them",
            text=f"They are {told.said(loose.past_mm, 0)} past the last stud and the wall is closed: glue them there, "
            "fur the wall out, or open it and put a nailer in.",
            about=(unit.id, loose.end),
        )
    for id_ in nailing.unknown:
        yield Finding(
            code="nailing-unknown",
            severity="mind",
            title=f"{told.unit(id_).name}: no stud is known behind it",
            text="What its boards are nailed to cannot be said. Find the studs behind it in Hold.",
            about=(id_,),
        )


RULES: tuple[Callable[[Told], Iterator[Finding]], ...] = (
    no_plan,
    contradictions,
    units_held,
    racks_held,
    cleats_held,
    sides_held,
    let_be,
    floor_held,
    contents_assumed,
    nail_plates,
    boards_nailed,
    kit,
)
