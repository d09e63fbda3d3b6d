"""What Hold asks to be made: ledgers, split battens, timbers, cleats, spacers, members that bridge, packing blocks."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.figure import Figure, Step
from wobble.core.hold.fastened.required import Held
from wobble.core.hold.overhead import Overhead
from wobble.core.hold.rests.battens import BATTEN_HIGH_MM
from wobble.core.hold.rests.cleats import ShelfCleat
from wobble.core.hold.rests.ledgers import LEDGER_HIGH_MM, Ledger
from wobble.core.hold.rests.nailers import Nailer
from wobble.core.hold.screws import LEDGER
from wobble.core.job import Place, Unit
from wobble.core.job.unit import Hung, OnCleats
from wobble.core.part import Dimension, Fastener, Part, Role

KERF_MM = 3.0
"""What the cut between the halves of a split batten takes."""
TIMBER_HIGH_MM = 60.0
KNOWN = "the wall measured and what is behind it found: where it is fastened, and how long it is"
"""What a part waits for of which it is not known where it goes."""


def hold_parts(
    place: Place,
    held: tuple[Held, ...],
    ledgers: tuple[Ledger, ...],
    cleats: tuple[ShelfCleat, ...],
    overhead: tuple[Overhead, ...],
    nailers: tuple[Nailer, ...],
    fasteners: tuple[Fastener, ...],
) -> tuple[Part, ...]:
    """Return every part that Hold asks for."""
    made = (
        *(_ledger(item) for item in ledgers),
        *(part for item in held for part in _behind(place, item)),
        *(_cleat(place, item) for item in cleats),
        *(part for item in overhead for part in _bridges(item)),
        *(_nailer(item) for item in nailers),
        *_blocks(fasteners),
    )
    return (*made, *_as_set_out(place, made))


def _as_set_out(place: Place, made: tuple[Part, ...]) -> Iterator[Part]:
    """Yield what else units rest on or hook over, while it is not known where: rough sizes, and what they wait for.

    One ledger may do for a whole row once it is known where studs are; until then each unit has its own.
    """
    there = {p.id for p in made} | {(p.role, unit) for p in made if p.role != "cleat" for unit in p.of}
    for unit in place.units:
        for part in _rough(unit):
            if part.id not in there and (part.role, unit.id) not in there:
                yield part


def _rough(unit: Unit) -> Iterator[Part]:
    match unit.standing:
        case Hung(by="ledger"):
            size = unit.width_mm, LEDGER_HIGH_MM, LEDGER.thick_mm
            yield _waiting(unit, "ledger", f"ledger-{unit.id}", "ledger", "spruce-pine-fir", size)
        case Hung(by="split batten", thick_mm=thick):
            size = unit.width_mm, 2 * BATTEN_HIGH_MM - thick + KERF_MM, thick
            name = f"split batten of {unit.name}, both halves"
            yield _waiting(unit, "split batten", _split_id(unit), name, "plywood", size)
        case OnCleats(thick_mm=thick, high_mm=high):
            for wall in unit.meets:
                size = unit.width_mm if wall == "back" else unit.depth_mm, high, thick
                name = f"cleat of {unit.name}, {wall} wall"
                yield _waiting(unit, "cleat", f"cleat-{unit.id}-{wall}", name, "spruce-pine-fir", size)


def _waiting(unit: Unit, role: Role, key: str, name: str, material: str, size: tuple[float, float, float]) -> Part:
    long, wide, thick = size
    return Part(
        id=key,
        role=role,
        of=(unit.id,),
        name=name,
        material=material,
        thick_mm=thick,
        blank_mm=(long, wide),
        finished=(_said("long", long),),
        ready=(KNOWN,),
    )


def _split_id(unit: Unit) -> str:
    """Return the id of a unit's split batten: a wall of battens has others of its own."""
    return f"{'split-' if unit.body is not None else ''}batten-{unit.id}"


def _said(label: str, mm: float) -> Dimension:
    return Dimension(
        label=label, figure=Figure(value_mm=mm, sd_mm=0.0, working=(Step(label="As planned", value_mm=mm),))
    )


def _name(place: Place, unit_id: str) -> str:
    return next((u.name for u in place.units if u.id == unit_id), unit_id)


def _ledger(item: Ledger) -> Part:
    long = item.end_mm - item.start_mm
    return Part(
        id=item.id,
        role="ledger",
        of=item.units,
        name="ledger",
        material="spruce-pine-fir",
        thick_mm=item.thick_mm,
        blank_mm=(long, item.high_mm),
        finished=(_said("long", long),),
    )


def _behind(place: Place, item: Held) -> Iterator[Part]:
    unit = next(u for u in place.units if u.id == item.unit)
    if item.batten is not None:
        # both halves are ripped out of one board by one bevelled cut, which shares the thickness
        blank = 2 * item.batten.high_mm - item.batten.thick_mm + KERF_MM
        yield Part(
            id=_split_id(unit),
            role="split batten",
            of=(unit.id,),
            name=f"split batten of {unit.name}, both halves",
            material="plywood",
            thick_mm=item.batten.thick_mm,
            blank_mm=(unit.width_mm, blank),
            finished=(_said("long", unit.width_mm), _said("high, each half", item.batten.high_mm)),
        )
        for spacer in item.batten.spacers:
            yield Part(
                id=f"spacer-{unit.id}-{spacer.side}",
                role="spacer",
                of=(unit.id,),
                name=f"spacer behind the foot of {unit.name}, {spacer.side}",
                thick_mm=max(spacer.thick.value_mm, 0.0),
                blank_mm=(TIMBER_HIGH_MM, TIMBER_HIGH_MM),
                finished=(Dimension(label="thick", figure=spacer.thick),),
                ready=("the batten on the wall",),
            )
    if item.ground is not None:
        long = item.ground.end_mm - item.ground.start_mm
        yield Part(
            id=f"timber-{unit.id}",
            role="timber",
            of=(unit.id,),
            name=f"timber behind {unit.name}",
            material="spruce-pine-fir",
            thick_mm=item.ground.thick_mm,
            blank_mm=(long, TIMBER_HIGH_MM),
            finished=(_said("long", long),),
        )


def _cleat(place: Place, item: ShelfCleat) -> Part:
    unit = next(u for u in place.units if u.id == item.unit)
    thick, high = (
        (unit.standing.thick_mm, unit.standing.high_mm) if isinstance(unit.standing, OnCleats) else (20.0, 40.0)
    )
    return Part(
        id=f"cleat-{unit.id}-{item.wall}",
        role="cleat",
        of=(unit.id,),
        name=f"cleat of {unit.name}, {item.wall} wall",
        material="spruce-pine-fir",
        thick_mm=thick,
        blank_mm=(item.long_mm, high),
        finished=(_said("long", item.long_mm),),
    )


def _bridges(item: Overhead) -> Iterator[Part]:
    for hanger in item.hangers:
        if hanger.bridge is not None:
            yield Part(
                id=f"bridge-{item.unit}-{hanger.corner.replace(' ', '-')}",
                role="bridging member",
                of=(item.unit,),
                name=f"member over two joists, {hanger.corner}",
                material="spruce-pine-fir",
                thick_mm=hanger.bridge.wide_mm,
                blank_mm=(hanger.bridge.long_mm, hanger.bridge.high_mm),
                finished=(_said("long", hanger.bridge.long_mm),),
            )


def _nailer(item: Nailer) -> Part:
    return Part(
        id=item.id,
        role="nailer",
        of=(item.unit,),
        name=("nailer for " if item.runs == "up" else "blocking for ") + item.why,
        material="spruce-pine-fir",
        thick_mm=item.narrow_mm,
        blank_mm=(item.long.value_mm, item.wide_mm),
        finished=(Dimension(label="long", figure=item.long),),
        quantity=len(item.rows),
    )


def _blocks(fasteners: tuple[Fastener, ...]) -> Iterator[Part]:
    """Yield the blocks that gaps past the kit ask for, shims going on top of them."""
    for f in fasteners:
        if f.filling is not None and f.filling.block_mm:
            yield Part(
                id=f"block-{f.id}",
                role="packing block",
                of=(f.unit,),
                name=f"packing block behind screw {f.order}",
                thick_mm=f.filling.block_mm,
                blank_mm=(TIMBER_HIGH_MM, TIMBER_HIGH_MM),
                finished=(_said("thick", f.filling.block_mm),),
            )
