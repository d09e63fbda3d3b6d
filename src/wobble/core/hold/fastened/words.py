"""What is said of how a unit is held: the working, what to do instead, the caution."""

from __future__ import annotations

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import contents_words
from wobble.core.hold.capacity.capacity import SHEET_SAFETY, WITHDRAWAL_SAFETY
from wobble.core.hold.fastened.required import Required, fixing_heights
from wobble.core.hold.into import Context
from wobble.core.hold.loads import tips, weight_kg
from wobble.core.hold.rests.battens import SplitBatten
from wobble.core.hold.screws import REFUSED, SIDE_KEPT_MM, WOODEN, Candidate
from wobble.core.job import Unit
from wobble.core.length import format_length

LOCKING = (
    "In a vehicle: locking nuts or thread lock, washers that cannot turn, and a look at all of them after a drive."
)

MOST_MOVED_MM, MOVE_STEP_MM = 300.0, 5.0


def working(context: Context, required: Required, weakest: Candidate | None) -> tuple[str, ...]:
    """Return how the verdict comes about, sentence by sentence."""
    said = [f"{weight_kg(required.unit):.0f} kg with what it holds ({contents_words(required.unit)})."]
    thrown = context.backing.driving_g
    if required.carried:
        said.append(f"It is carried from below; a hand at its top pulls the top row with {required.pull:.0f} N.")
    else:
        said.append(
            f"Shear {required.shear:.0f} N; half its depth over the top row's height pulls with {required.pull:.0f} N."
        )
    if thrown:
        said.append(f"Driving, {thrown:g} of its weight throws it about: that is in both.")
    if weakest is not None:
        f = weakest.fastener
        packed = format_length(max(f.packing.value_mm, 0.0), context.units)
        long = format_length(f.screw_mm, context.units, decimals=0)
        said.append(
            f"One {f.shank_mm:g} × {long} {f.kind} across {packed} of packing and the lining: "
            f"{weakest.lateral_n:.0f} N sideways (dowel equations with the gap), {weakest.withdrawal_n:.0f} N out."
        )
        said.append(_safety(context))
    return tuple(said)


def _safety(context: Context) -> str:
    match context.backing.kind:
        case "metal studs":
            return f"For good, with a safety of {SHEET_SAFETY:g} on the sheet (AISI S100)."
        case "masonry":
            return "What its maker recommends for the anchor, and no more than the screw bends at across the gap."
        case _:
            return (
                f"For good, with a safety of 2.2 or more on yielding and {WITHDRAWAL_SAFETY:g} on pulling out, "
                "as the code's values hold."
            )


def instead(
    context: Context, required: Required, n: int, batten: SplitBatten | None, *, holds: bool, sure: bool
) -> str:
    """Return what to do where a unit does not hold, or what to mind where it does; "" where nothing is to be said."""
    kind = context.backing.kind
    if kind == "masonry" and context.backing.anchor is None:
        return "Say which anchor: its maker's loads, depth and hole for this wall decide where it may stand."
    if kind != "masonry" and not context.back.lines:
        return "Find the studs first: scanner and magnet along the height of the rail."
    if batten is not None and not batten.lifts:
        lift = format_length(batten.lift_mm, context.units)
        return f"It cannot be lifted over its batten: it wants {lift} free above. Screw it through its rail instead."
    if holds:
        if not sure:
            return "Find the doubtful studs by a second method before anything hangs."
        if n == 1 and kind in WOODEN:
            return "One stud only behind it: screw it to its neighbours too, so that it cannot turn."
        return ""
    if n < 2:
        return _too_few(context, required)
    if batten is not None:
        return "More than the batten's screws hold: more studs, or let it rest on a ledger instead."
    if required.carried:
        return "More pulls at its top than these hold: fix it higher up too, to more studs, and to its neighbours."
    if kind not in WOODEN:
        return "More than these hold: more rows of screws, a stronger anchor, or something to stand on."
    return "Rest it on a ledger along the wall, screwed into every stud, and let these screws only hold it back."


def _too_few(context: Context, required: Required) -> str:
    """Return why too few screws hold: what is kept clear of and what is refused, before any want of studs."""
    found = required.found
    if found.avoided or found.refused:
        why = [f"kept clear of {w}" for w in found.avoided] + [REFUSED[r] for r in found.refused]
        return (
            f"There is something to screw into behind it, but {'; '.join(why)}. Move the unit or its fixing heights, "
            "or let it rest on a ledger elsewhere."
        )
    if context.backing.kind == "masonry":
        return "It is too narrow for two anchors with their distance to its edges: hold it by its neighbours too."
    moved = _moved(context, required.unit)
    return (
        f"Too few studs behind it: {moved}a rail or ledger over all studs of the run, screwed into each, carries "
        "it; or put blocking in."
    )


def _moved(context: Context, unit: Unit) -> str:
    """Return by how little the unit is moved so that two sure studs lie behind it, in words; "" where none is near."""
    up = unit.over_base_mm + max(fixing_heights(unit), default=unit.height_mm)
    studs = [x for line in context.back.lines if context.back.bites(x := line.at(up)) >= SURE_TO_BITE]
    beside = [
        u
        for u in context.place.units
        if u.id != unit.id
        and not u.flat
        and u.over_base_mm < unit.over_base_mm + unit.height_mm
        and u.over_base_mm + u.height_mm > unit.over_base_mm
    ]
    steps = int(MOST_MOVED_MM / MOVE_STEP_MM)
    for by in sorted((k * MOVE_STEP_MM for k in range(-steps, steps + 1) if k), key=abs):
        low, high = unit.x_mm + by, unit.right_mm + by
        free = low >= 0 and high <= context.place.width_mm and all(high <= o.x_mm or low >= o.right_mm for o in beside)
        if free and sum(low + SIDE_KEPT_MM <= x <= high - SIDE_KEPT_MM for x in studs) >= 2:
            side = "right" if by > 0 else "left"
            return f"moved {format_length(abs(by), context.units, decimals=0)} to the {side} it has two; else "
    return ""


def caution(unit: Unit, driving_g: float, *, carried: bool) -> str:
    """Return the safety word for a unit; "" where nothing may fall or tip."""
    said = []
    if not carried:
        said.append(
            "A load overhead: a planning figure. Follow the screws' maker and the local code; never hang on a doubt."
        )
    elif tips(unit):
        said.append("It can tip: fix it before anything is put in, and keep children off open drawers.")
    if driving_g:
        said.append(LOCKING)
    return " ".join(said)
