"""What Fit asks to be made: fillers, frames, tops and shelves, legs, plinths, head strips, returns, blocks."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.figure import Figure, Step
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.mouldings.running import MouldingLength, face_mm
from wobble.core.fit.mouldings.words import end_words, scarf_words, way_words
from wobble.core.fit.result import FitResult
from wobble.core.fit.scribe.line import Scribe
from wobble.core.fit.sides.closing import Sides
from wobble.core.job import Moulding, Place, Unit
from wobble.core.part import Dimension, Part, Role
from wobble.core.setout.boards import seams

STANDS = "the run standing, measured beside it"
"""What a strip that is scribed to a wall waits for."""
TEMPLATE = "a template, or the walls measured at its height"
BLOCK_MM = 60.0
SCRIBED: tuple[tuple[str, Role], ...] = (("plinth-", "plinth"), ("head-", "head strip"), ("return-", "skirting return"))


def fit_parts(place: Place, plan: Plan | None, fitted: FitResult) -> tuple[Part, ...]:
    """Return every part that Fit asks for; while there is no plan, tops and shelves as they are set out."""
    if plan is None:
        return (*_as_set_out(place), *_mouldings(place, fitted))
    return (
        *(part for sides in fitted.sides for part in _sides(place, sides)),
        *_flats(place, fitted),
        *_legs(place, fitted),
        *_strips(place, fitted),
        *_blocks(plan),
        *_mouldings(place, fitted),
    )


def _said(label: str, mm: float) -> Dimension:
    return Dimension(
        label=label, figure=Figure(value_mm=mm, sd_mm=0.0, working=(Step(label="As planned", value_mm=mm),))
    )


def _sides(place: Place, sides: Sides) -> Iterator[Part]:
    closing = place.closing
    names = {u.id: u.name for u in place.units}
    if closing.method == "fillers":
        for f in sides.fillers:
            if f.largest.value_mm <= 0:
                continue
            yield Part(
                id=f"filler-{sides.tier}-{f.side}",
                role="filler",
                of=(f.unit,),
                name=f"{f.side} filler at {names[f.unit]}",
                thick_mm=closing.board_mm,
                blank_mm=(f.long_mm, f.blank_mm),
                finished=(
                    Dimension(label="at the foot", figure=f.bottom),
                    Dimension(label="at the head", figure=f.top),
                ),
                cuts=(f"{sides.tier}-{f.side}",),
                ready=(STANDS,),
            )
    if closing.method == "cover moulding":
        for f in sides.fillers:
            yield Part(
                id=f"moulding-{sides.tier}-{f.side}",
                role="cover moulding",
                of=(f.unit,),
                name=f"cover moulding, {f.side} of {names[f.unit]}",
                thick_mm=closing.moulding_mm[1],
                blank_mm=(f.long_mm, closing.moulding_mm[0]),
                finished=(_said("long", f.long_mm),),
            )
    if sides.frame is None:
        return
    tall = max((f.long_mm for f in sides.fillers), default=0.0)
    for stile in sides.frame.stiles:
        yield Part(
            id=f"stile-{sides.tier}-{stile.side}",
            role="stile",
            of=tuple(f.unit for f in sides.fillers if f.side == stile.side),
            name=f"{stile.side} stile",
            thick_mm=closing.board_mm,
            blank_mm=(tall, stile.blank_mm),
            finished=(
                Dimension(label="at the foot", figure=stile.bottom),
                Dimension(label="at the head", figure=stile.top),
            ),
            cuts=(f"{sides.tier}-{stile.side}",),
            ready=(STANDS,),
        )
    for i, (_, wide) in enumerate(sides.frame.uprights):
        yield Part(
            id=f"mullion-{sides.tier}-{i + 1}",
            role="mullion",
            of=(),
            name=f"mullion {i + 1}",
            thick_mm=closing.board_mm,
            blank_mm=(tall, wide),
            finished=(_said("wide", wide), _said("long", tall)),
        )


def _flats(place: Place, fitted: FitResult) -> Iterator[Part]:
    units = {u.id: u for u in place.units}
    for part in fitted.flats:
        unit = units[part.unit]
        cuts = tuple(s.id for s in fitted.scribes if s.id.startswith(f"{unit.id}-") and s.flat)
        sizes = (
            Dimension(label="along the back", figure=part.at_back),
            Dimension(label="along the front", figure=part.at_front),
            Dimension(label="deep at the left", figure=part.at_left),
            Dimension(label="deep at the right", figure=part.at_right),
        )
        flat = _flat(unit, part.blank_mm, len(part.seams_at) + 1, sizes)
        yield replace(flat, cuts=cuts, ready=(TEMPLATE,) if cuts else ())


def _as_set_out(place: Place) -> Iterator[Part]:
    """Yield tops and shelves of a place that is not measured yet: one that meets a wall waits for it."""
    for unit in (u for u in place.units if u.flat):
        sizes = (_said("long", unit.width_mm), _said("wide", unit.depth_mm))
        n = len(seams(unit.board, unit.width_mm)) + 1
        yield replace(_flat(unit, (unit.width_mm, unit.depth_mm), n, sizes), ready=(TEMPLATE,) if unit.meets else ())


def _flat(unit: Unit, blank_mm: tuple[float, float], pieces: int, finished: tuple[Dimension, ...]) -> Part:
    return Part(
        id=f"flat-{unit.id}",
        role="top" if unit.kind == "top" else "shelf",
        of=(unit.id,),
        name=unit.name,
        material=unit.board.material if unit.board is not None else "",
        thick_mm=unit.height_mm,
        blank_mm=(blank_mm[0] / pieces, blank_mm[1]),
        finished=finished,
        quantity=pieces,
    )


def _mouldings(place: Place, fitted: FitResult) -> Iterator[Part]:
    units = {u.id: u for u in place.units}
    for made in fitted.mouldings:
        unit = units[made.unit]
        if isinstance(unit.body, Moulding):
            yield from (_length(unit, unit.body, one) for one in made.lengths)


def _length(unit: Unit, body: Moulding, one: MouldingLength) -> Part:
    ends = (("left", one.left), ("right", one.right))
    cut = "; ".join(f"{name} end {end_words(end)}" for name, end in ends)
    return Part(
        id=one.id,
        role="trim",
        of=(unit.id,),
        name=f"{unit.name}, {way_words(one.along)}",
        thick_mm=body.thick_mm,
        blank_mm=(one.blank_mm, face_mm(unit, body)),
        finished=(Dimension(label="long", figure=one.long),),
        quantity=one.pieces,
        seen=("front face",),
        end="seen from its face: left end at your left",
        joins=cut + (f"; {one.pieces} pieces, {scarf_words(unit)}" if one.pieces > 1 else ""),
    )


def _legs(place: Place, fitted: FitResult) -> Iterator[Part]:
    names = {u.id: u.name for u in place.units}
    for leg in fitted.legs:
        if leg.long.value_mm > 0:
            yield Part(
                id=f"leg-{leg.support}",
                role="leg",
                of=(leg.unit,),
                name=f"leg of {names[leg.unit]}, {leg.corner}",
                blank_mm=(leg.long.value_mm + max(leg.cut_mm, 0.0), 0.0),
                finished=(Dimension(label="long", figure=leg.long),),
            )


def _strips(place: Place, fitted: FitResult) -> Iterator[Part]:
    """Yield what else is cut to a surface out of a blank: plinths, head strips, returned skirting."""
    for scribe in fitted.scribes:
        role = next((r for start, r in SCRIBED if scribe.id.startswith(start)), None)
        if role is not None and scribe.blank_mm > 0:
            yield _strip(place, scribe, role)


def _strip(place: Place, scribe: Scribe, role: Role) -> Part:
    widest = max(scribe.line, key=lambda p: p.left_mm)
    figure = Figure(
        value_mm=widest.left_mm,
        sd_mm=widest.sd_mm,
        working=(Step(label="Left of it where it is widest", value_mm=widest.left_mm, sd_mm=widest.sd_mm),),
    )
    return Part(
        id=scribe.id,
        role=role,
        of=tuple(u.id for u in place.units if u.name in scribe.piece),
        name=scribe.piece,
        thick_mm=scribe.thick_mm,
        blank_mm=(scribe.long_mm, scribe.blank_mm),
        finished=(_said("long", scribe.long_mm), Dimension(label="wide where widest", figure=figure)),
        cuts=(scribe.id,),
        ready=(STANDS,),
    )


def _blocks(plan: Plan) -> Iterator[Part]:
    for shim in plan.shims:
        if shim.filling.block_mm:
            yield Part(
                id=f"block-{shim.support}",
                role="packing block",
                of=(shim.unit,),
                name=f"packing block under {shim.corner}",
                thick_mm=shim.filling.block_mm,
                blank_mm=(BLOCK_MM, BLOCK_MM),
                finished=(_said("thick", shim.filling.block_mm),),
            )
