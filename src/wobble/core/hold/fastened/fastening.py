"""How each unit is held: by as few screws as hold, clear of services, in what lies behind; resting on ledgers."""

from __future__ import annotations

import math
from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.budget import spend
from wobble.core.confidence import SURE_TO_BITE
from wobble.core.hold.fastened.required import Held, Holding, Required, fastened, least_screws, required_of
from wobble.core.hold.fastened.words import caution, instead, working
from wobble.core.hold.into import Context
from wobble.core.hold.loads import weight_kg
from wobble.core.hold.rests.battens import split_batten
from wobble.core.hold.rests.ledgers import Ledger, ground_rail, ledger
from wobble.core.hold.screws import Candidate, fewest
from wobble.core.job.unit import Hung
from wobble.core.part import Fastener

NOTHING_HOLDS = 99.0
"""The share of nothing that a load takes."""
SAME_PLACE_MM = 30.0
TOUCH_MM = 20.0
"""Units that hang this close to each other rest on one ledger."""
LEVEL_MM = 1.0


def hold(context: Context, order: tuple[str, ...] = ()) -> Holding:
    """Return how every unit is held, its screws numbered in the order in which the units are set.

    Args:
        context: What they are fastened to.
        order: Ids of the units in the order of work; others follow from left to right.
    """
    place = {id_: i for i, id_ in enumerate(order)}
    units = sorted((u for u in context.place.units if fastened(u)), key=lambda u: (place.get(u.id, len(place)), u.x_mm))
    required = {unit.id: required_of(context, unit) for unit in units}
    on_ledgers = _ledgers(context, required)
    out: list[Held] = []
    screws: list[Fastener] = []
    for unit in units:
        spend()
        mine = on_ledgers.get(unit.id)
        held, driven = _held(context, required[unit.id], mine[0] if mine is not None else None)
        if mine is not None and mine[0].units[0] == unit.id:
            driven = (*_in_order(mine[1]), *driven)
        held, driven = _shared(held, driven, out, screws)
        numbered = tuple(replace(f, order=len(screws) + i + 1) for i, f in enumerate(driven))
        screws += numbered
        out.append(replace(held, fasteners=tuple(f.id for f in numbered)))
    ledgers = {id(found): found for found, _ in on_ledgers.values()}
    blocks = tuple(b for id_, asked in required.items() if id_ not in on_ledgers for b in asked.blocks)
    return Holding(tuple(out), tuple(ledgers.values()), tuple(screws), blocks)


def _ledgers(context: Context, required: dict[str, Required]) -> dict[str, tuple[Ledger, tuple[Candidate, ...]]]:
    """Return one ledger for every row of units side by side of which one needs or wants it, by each unit's id."""
    out: dict[str, tuple[Ledger, tuple[Candidate, ...]]] = {}
    for row in _rows([a for a in required.values() if not a.carried and a.through.part != "batten"]):
        wanted = any(isinstance(a.unit.standing, Hung) and a.unit.standing.by == "ledger" for a in row)
        if not wanted and all(a.use <= 1 for a in row):
            continue
        made = ledger(context, tuple(a.unit for a in row), sum(a.shear for a in row))
        if made is not None and made[0].use <= 1:
            out |= {a.unit.id: made for a in row}
    return out


def _rows(required: list[Required]) -> Iterator[list[Required]]:
    """Yield units that hang side by side with their undersides level."""
    row: list[Required] = []
    for one in sorted(required, key=lambda a: (round(a.unit.over_base_mm), a.unit.x_mm)):
        last = row[-1].unit if row else None
        level = last is not None and abs(last.over_base_mm - one.unit.over_base_mm) <= LEVEL_MM
        if last is not None and level and one.unit.x_mm - last.right_mm <= TOUCH_MM:
            row.append(one)
        else:
            if row:
                yield row
            row = [one]
    if row:
        yield row


def _held(context: Context, required: Required, rest: Ledger | None) -> tuple[Held, tuple[Fastener, ...]]:
    unit, carried, hooked = required.unit, required.carried, required.through.part == "batten"
    chosen, use, weakest = list(required.chosen), required.use, required.weakest
    if rest is not None:  # it rests: its own screws only hold it back
        chosen, use, weakest = fewest(required.found.candidates, 0.0, required.pull)
    tall = max(required.heights)
    wants_timber = carried and (use > 1 or not chosen)
    ground = ground_rail(context, unit, tall, required.shear, required.pull) if wants_timber else None
    if ground is not None:
        chosen, use = ground[1], ground[0].use
        weakest = min(chosen, key=lambda c: c.lateral_n)
    driven = _in_order(tuple(chosen))
    sure = all(f.bites >= SURE_TO_BITE for f in driven)
    batten = split_batten(context, unit, required.through.thick_mm) if hooked else None
    least = least_screws(carried=carried or rest is not None)
    holds = len(chosen) >= least and use <= 1.0 and (batten is None or batten.lifts)
    said = instead(context, required, len(chosen), batten, holds=holds, sure=sure)
    held = Held(
        unit=unit.id,
        weight_kg=weight_kg(unit),
        shear_n=required.shear,
        pull_n=required.pull,
        fasteners=(),
        use=min(use, NOTHING_HOLDS),
        lateral_n=weakest.lateral_n if weakest else 0.0,
        withdrawal_n=weakest.withdrawal_n if weakest else 0.0,
        working=working(context, required, weakest),
        enough=holds and sure,
        instead=said,
        avoided=required.found.avoided,
        ledger=rest.id if rest is not None else "",
        batten=batten,
        ground=ground[0] if ground is not None else None,
        overhead=not carried,
        caution=caution(unit, context.backing.driving_g, carried=carried),
    )
    return held, driven


def _in_order(found: tuple[Candidate, ...]) -> tuple[Fastener, ...]:
    return tuple(sorted((c.fastener for c in found), key=lambda f: (f.at[1], f.at[0])))


def _shared(
    held: Held, driven: tuple[Fastener, ...], before: list[Held], screws: list[Fastener]
) -> tuple[Held, tuple[Fastener, ...]]:
    """Return how a unit is held with what its timber shares with a neighbour's: screwed once, loaded by both."""
    if held.ground is None:
        return held, driven
    for other in before:
        taken = [f.at for f in screws if f.unit == other.unit and f.part == "timber"]
        mine = tuple(f for f in driven if all(math.dist(f.at, at) > SAME_PLACE_MM for at in taken))
        if other.ground is not None and held.ground is not None and len(mine) < len(driven):
            start = max(held.ground.start_mm, other.ground.end_mm) if other.ground.end_mm < held.ground.end_mm else None
            ground = replace(held.ground, start_mm=held.ground.start_mm if start is None else start)
            use = held.use + other.use
            held, driven = replace(held, ground=ground, use=use, enough=held.enough and use <= 1.0), mine
    return held, driven
