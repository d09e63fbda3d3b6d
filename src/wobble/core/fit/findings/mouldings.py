"""What to tell of mouldings: their corners, joints, walls and ceilings, and what does not bend."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, say
from wobble.core.fit.mouldings.bent import MouldingCurve
from wobble.core.fit.mouldings.corners import MouldingEnd
from wobble.core.fit.mouldings.running import MouldingFit
from wobble.core.fit.mouldings.words import scarf_words, way_words
from wobble.core.job import Moulding, Unit
from wobble.core.length import down_to_mark

OPEN_MM = 0.8
"""A joint that stands open by more is seen from where one stands."""
FILLED_MM = 3.0
"""What caulk closes and nobody sees."""


def mouldings(case: Case) -> Iterator[Finding]:
    """Every moulding: how it is cut, then what is in its way."""
    units = {u.id: u for u in case.place.units}
    for made in case.fitted.mouldings:
        unit = units[made.unit]
        if not isinstance(unit.body, Moulding):
            continue
        if made.curve is not None:
            yield _curve(case, unit, unit.body, made.curve)
            continue
        yield _laid(case, unit, unit.body, made)
        yield from _joints(unit, made)
        yield from _against(case, unit, made)


def _laid(case: Case, unit: Unit, body: Moulding, made: MouldingFit) -> Finding:
    back = made.lengths[0]
    says = [f"{way_words(one.along)} {say(case, one.long.value_mm)}" for one in made.lengths]
    seams = [f"{way_words(o.along)} in {o.pieces}, {scarf_words(unit)}" for o in made.lengths if o.pieces > 1]
    inside = [end for end in _ends(made) if end.corner is not None and end.joint != "outside mitre"]
    how = ""
    if inside and body.inside == "coped":
        how = " Cut the length along the back square into the corners, and cope the others to its face."
    elif inside:
        how = " Try each corner with two short offcuts before the long ones are cut."
    return Finding(
        code="moulding-laid",
        severity="fine",
        title=f"{unit.name}: {sum(one.pieces for one in made.lengths)} lengths",
        text=f"At its back: {', '.join(says)}." + (f" {'; '.join(seams).capitalize()}." if seams else "") + how,
        figure=back.long,
        about=(unit.id,),
    )


def _ends(made: MouldingFit) -> Iterator[MouldingEnd]:
    yield made.lengths[0].left
    yield made.lengths[0].right


def _joints(unit: Unit, made: MouldingFit) -> Iterator[Finding]:
    for side, end in zip(("left", "right"), _ends(made), strict=True):
        if end.corner is None or end.joint == "outside mitre":
            continue
        if not end.corner.measured:
            yield Finding(
                code="moulding-corner",
                severity="mind",
                title=f"{unit.name}: nobody measured its {side} corner",
                text="It is taken as square, and may be out by two degrees. Read both walls near it, or try two short "
                "offcuts there first.",
                about=(unit.id, side),
            )
        elif end.opens is not None and end.opens.value_mm > OPEN_MM:
            yield Finding(
                code="moulding-opens",
                severity="mind",
                title=f"{unit.name}: its {side} corner is {end.corner.deg:.1f}° (± {2 * end.corner.sd_deg:.1f}°)",
                text=f"Sawn for a square corner, the joint would stand open by this much. Saw both at "
                f"{end.standing_deg:.1f}° as they stand, or cope one: a cope stays closed.",
                figure=end.opens,
                about=(unit.id, side),
            )


def _against(case: Case, unit: Unit, made: MouldingFit) -> Iterator[Finding]:
    hollow, under = made.hollow, made.under
    if hollow is not None and hollow.value_mm > max(made.takes_mm, FILLED_MM):
        yield Finding(
            code="moulding-springs",
            severity="mind",
            title=f"{unit.name} springs off the wall",
            text=f"The wall falls back more than the {say(case, down_to_mark(made.takes_mm, case.units))} that it "
            "bends. Pack it out from the wall, scribe its back, or cut it in two over the hollow.",
            figure=hollow,
            about=(unit.id, "wall"),
        )
    if under is not None and under.value_mm > FILLED_MM:
        yield Finding(
            code="moulding-ceiling",
            severity="mind",
            title=f"{unit.name}: the ceiling rises and falls over it",
            text="Held level, it shows a gap that grows by this much. Scribe its upper edge to the ceiling, leave an "
            "even shadow gap, or let it follow the ceiling where nothing level is seen near it.",
            figure=under,
            about=(unit.id, "ceiling"),
        )


def _curve(case: Case, unit: Unit, body: Moulding, curve: MouldingCurve) -> Finding:
    if body.round_mm < unit.width_mm / 2:
        return Finding(
            code="moulding-curve",
            severity="stop",
            title=f"{unit.name} is wider than its curve",
            text=f"A curve of {say(case, body.round_mm)} radius is at most {say(case, 2 * body.round_mm)} wide. Make "
            "the radius larger, or the piece narrower.",
            about=(unit.id,),
        )
    arc = f"{say(case, curve.arc_mm)} along its back, and rises {say(case, curve.rise_mm)}"
    if curve.bends:
        return Finding(
            code="moulding-bends",
            severity="fine",
            title=f"{unit.name} bends to its curve",
            text=f"{arc}. It bends cold down to {say(case, curve.least_radius_mm)} radius; warm and damp, more easily.",
            about=(unit.id,),
        )
    kerfs = (
        f"{curve.kerfs} kerfs in its back, {say(case, curve.kerf_every_mm)} apart and {say(case, curve.kerf_deep_mm)} "
        "deep, close as it comes round; else glue it up of thin strips over a form"
        if curve.kerfs
        else "glue it up of thin strips over a form"
    )
    return Finding(
        code="moulding-bends",
        severity="mind",
        title=f"{unit.name} does not bend cold to its curve",
        text=f"{arc}. It breaks under {say(case, curve.least_radius_mm)} radius: {kerfs}. Try an offcut first.",
        about=(unit.id,),
    )
