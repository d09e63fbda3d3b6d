"""Frames, platforms and racks out of members; base frames and toe kicks under boxes."""

from __future__ import annotations

import math
from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.job import BaseFrame, Framing, Place, ToeKickBox, Unit
from wobble.core.make.construction.sizes import board_part, box, sized
from wobble.core.part import Part
from wobble.core.setout.framing import FrameLaid

CROSS_APART_MM = 600.0
"""No two cross pieces of a base are further apart."""
TOUCHING_MM = 5.0


def frame_parts(unit: Unit, body: Framing, laid: FrameLaid) -> Iterator[Part]:
    """Yield members, the two that they stand between, deck and fascia."""
    upright, lying = (body.wide_mm, body.narrow_mm) if body.stands == "on edge" else (body.narrow_mm, body.wide_mm)
    # where height is said of the members alone, the deck lies on top of it
    top = max(unit.height_mm - body.deck_mm, upright)
    z = top - upright
    rear, n = body.rear_off_mm, body.narrow_mm
    if body.across:
        rails = tuple(box(0.0, y, z, unit.width_mm, n, upright) for y in (rear, rear + laid.deep_mm - n))
        members = tuple(box(m.at_mm, rear + n, z, lying, m.long_mm, upright) for m in laid.members)
        rail_long, span = unit.width_mm, ("Depth of the frame", laid.deep_mm)
    else:
        rails = tuple(box(x, rear, z, n, laid.deep_mm, upright) for x in (0.0, unit.width_mm - n))
        members = tuple(box(n, rear + m.at_mm, z, m.long_mm, lying, upright) for m in laid.members)
        rail_long, span = laid.deep_mm, ("Width of the frame", unit.width_mm)
    section = sized("wide", ("Section as measured", body.wide_mm))
    rail = sized("long", ("Over all", rail_long))
    yield board_part("member", unit.id, unit.name, "rails", rails, rail, section, n, body.material, key="rail")
    made = board_part(
        "member",
        unit.id,
        unit.name,
        "members",
        members,
        sized("long", span, ("Rails at both ends", -2 * n)),
        section,
        n,
        body.material,
    )
    yield replace(made, joins="screwed through the rails, two a joint")
    if body.deck_mm > 0:
        yield board_part(
            "deck",
            unit.id,
            unit.name,
            "deck",
            (box(0.0, rear, top, unit.width_mm, laid.deep_mm, body.deck_mm),),
            sized("long", ("Width of the frame", unit.width_mm)),
            sized("wide", ("Depth of the frame", laid.deep_mm)),
            body.deck_mm,
            "plywood",
        )
    if body.fascia_mm > 0:
        yield board_part(
            "fascia",
            unit.id,
            unit.name,
            "fascia",
            (box(0.0, rear + laid.deep_mm, 0.0, unit.width_mm, body.fascia_mm, unit.height_mm),),
            sized("long", ("Width of the frame", unit.width_mm)),
            sized("wide", ("Height of the frame", unit.height_mm)),
            body.fascia_mm,
            body.material,
        )


def toe_kick(unit: Unit, board_mm: float, material: str) -> Iterator[Part]:
    """Yield the parts of a separate box under a unit: front and back over its width, cross pieces between."""
    standing = unit.standing
    if not isinstance(standing, ToeKickBox):
        return
    yield from _ladder(
        unit,
        "toe kick",
        unit.width_mm,
        unit.depth_mm - unit.toe_recess_mm,
        min(standing.height_mm, unit.height_mm),
        board_mm,
        material,
        unit.name,
    )


def base_frames(place: Place, board_mm: float, material: str) -> Iterator[Part]:
    """Yield the frames that stand under whole runs of touching units."""
    units = sorted((u for u in place.units if isinstance(u.standing, BaseFrame)), key=lambda u: u.x_mm)
    runs: list[list[Unit]] = []
    for unit in units:
        if runs and unit.x_mm - runs[-1][-1].right_mm < TOUCHING_MM:
            runs[-1].append(unit)
        else:
            runs.append([unit])
    for run in runs:
        first = run[0]
        standing = first.standing
        high = standing.height_mm if isinstance(standing, BaseFrame) else 0.0
        recess = max(u.toe_recess_mm for u in run)
        deep = min(u.depth_mm for u in run) - recess
        wide = run[-1].right_mm - first.x_mm
        named = first.name if len(run) == 1 else f"{first.name} to {run[-1].name}"
        for part in _ladder(first, "base frame", wide, deep, high, board_mm, material, named):
            yield replace(part, of=tuple(u.id for u in run))


def _ladder(
    unit: Unit, role: str, wide: float, deep: float, high: float, t: float, material: str, named: str
) -> Iterator[Part]:
    n = max(2, math.ceil((wide - t) / CROSS_APART_MM) + 1)
    crosses = tuple(box((wide - t) * k / (n - 1), t, 0.0, t, deep - 2 * t, high) for k in range(n))
    height = sized("wide", ("Height of the base", high))
    which = "toe kick" if role == "toe kick" else "base frame"
    yield replace(
        board_part(
            "toe kick" if role == "toe kick" else "base frame",
            unit.id,
            named,
            f"{which}, front and back",
            (box(0.0, 0.0, 0.0, wide, t, high), box(0.0, deep - t, 0.0, wide, t, high)),
            sized("long", ("Width over all that stands on it", wide)),
            height,
            t,
            material,
            key="long",
        ),
        joins="screwed through into the cross pieces",
    )
    yield board_part(
        "toe kick" if role == "toe kick" else "base frame",
        unit.id,
        named,
        f"{which}, cross pieces",
        crosses,
        sized(
            "long",
            ("Depth of the unit", unit.depth_mm),
            ("Toe recess", -(unit.depth_mm - deep)),
            ("Front and back", -2 * t),
        ),
        height,
        t,
        material,
        key="cross",
    )
