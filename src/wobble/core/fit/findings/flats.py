"""What to tell of tops, shelves and racks."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.confidence import SURE
from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, say, unit_name
from wobble.core.fit.overhead.hangers import hangs_from_ceiling
from wobble.core.length import down_to_mark


def flat_parts(case: Case) -> Iterator[Finding]:
    """Tops and shelves: whether they get in, how they sag, what the wood does."""
    made = {part.unit for part in case.fitted.flats}
    for unit in case.place.units if case.plan is not None else ():
        if unit.flat and unit.id not in made:
            yield Finding(
                code="flat-no-room",
                severity="stop",
                about=(unit.id,),
                title=f"The walls leave {unit.name} no room",
                text="Where it lies, what it is cut to stands past its other end. Check which walls it meets, and from "
                "which line they were read.",
            )
    for part in case.fitted.flats:
        name = unit_name(case, part.unit)
        if part.tilt is not None and max(part.tilt.straight, part.tilt.tilted) < SURE:
            yield Finding(
                code="top-stuck",
                about=(part.unit,),
                severity="stop",
                title=f"{name} does not get between the walls whole",
                text=f"It measures {say(case, part.tilt.swing_mm)} more on its way down. Make it in two with a seam, "
                "or leave it short by as much under a cover strip.",
                figure=part.at_back,
            )
        elif part.tilt is not None:
            straight = part.tilt.straight >= SURE
            yield Finding(
                code="top-goes",
                about=(part.unit,),
                severity="fine",
                title=f"{name} goes in {'level' if straight else 'with one end up'}",
                text="It slides in from the front."
                if straight
                else f"One end comes down last, from {say(case, part.tilt.room_mm)} up. "
                f"Leave {say(case, part.tilt.swing_mm)} for the swing, or bevel that end beneath.",
                figure=part.at_back,
            )
        if part.sag is not None and part.sag.supports:
            n, apart = part.sag.supports, say(case, down_to_mark(part.sag.spacing_mm, case.units))
            yield Finding(
                code="sag",
                about=(part.unit,),
                severity="mind",
                title=f"{name} sags: {n} support{'s' if n > 1 else ''} between the ends",
                text=f"At most {apart} apart; without, it hangs by this much after "
                "years. A planning figure for the load that you gave.",
                figure=part.sag.later,
            )
        if part.moves is not None and part.moves.value_mm > 1.0:
            yield Finding(
                code="moves",
                about=(part.unit,),
                severity="mind",
                title=f"{name} moves with the seasons",
                text=f"Leave {say(case, part.gap_mm)} at the back and fix it through slots.",
                figure=part.moves,
            )
        if part.seams_at:
            at = ", ".join(say(case, mm) for mm in part.seams_at)
            yield Finding(
                code="seam",
                about=(part.unit,),
                severity="mind",
                title=f"{name} is longer than its stock",
                text=f"Seams at {at}.",
            )


def racks(case: Case) -> Iterator[Finding]:
    """Hangers of a rack: whether its ceiling is known, and how much they differ."""
    for unit in case.place.units:
        if not hangs_from_ceiling(unit):
            continue
        mine = [h for h in case.fitted.hangers if h.unit == unit.id]
        if not mine:
            yield Finding(
                code="rack-ceiling-unknown",
                about=(unit.id,),
                severity="mind",
                title=f"{unit.name} hangs from a ceiling that is not measured",
                text="Read the ceiling over its corners: each hanger is then told by itself.",
                caution=OVERHEAD,
            )
            continue
        short, long = min(mine, key=lambda h: h.long.value_mm), max(mine, key=lambda h: h.long.value_mm)
        low = short.long.value_mm < 0
        differ = say(case, long.long.value_mm - short.long.value_mm)
        yield Finding(
            code="rack-into-ceiling" if low else "rack",
            about=(unit.id,),
            severity="stop" if low else "fine",
            title=f"{unit.name} {'stands into the ceiling' if low else f'hangs level by {len(mine)} hangers'}",
            text=f"Lower it by {say(case, -short.long.value_mm)}."
            if low
            else f"From {say(case, short.long.value_mm)} ({short.corner}) to {say(case, long.long.value_mm)} "
            f"({long.corner}): they differ by {differ}.",
            figure=short.long,
            caution=OVERHEAD,
        )


OVERHEAD = "A load overhead: fix it into joists only, by what Hold says, and never into the lining."
