"""What a unit hooks over: a split batten, bevelled."""

from __future__ import annotations

import numpy as np

from wobble.core.figure import Figure, Step
from wobble.core.fit.level.plan import packings_at
from wobble.core.fit.run.supports import Fixing
from wobble.core.hold.into import Context
from wobble.core.hold.rests.ledgers import FOOT_UP_MM, Spacer, under_line
from wobble.core.job import Unit, Value

BATTEN_HIGH_MM, BATTEN_UNDER_MM = 70.0, 60.0
BATTEN_ROWS_MM = (12.0, -12.0)
"""Where its two rows of screws stand over its middle."""
FLAT_MM = 3.0
"""The sharp tip of a bevel is taken off."""
LIFT_PLAY_MM = 3.0


class SplitBatten(Value, frozen=True, kw_only=True):
    """A bevelled split batten: one half on the wall, the other behind the unit's top, hooked over it.

    Attributes:
        top_mm: Height of the wall half's tip over the datum mark. under_line_mm: Below a level line, where known.
        thick_mm: Thickness of both halves. high_mm: Height of each before it is split. bevel_deg: Of the cut.
        engagement_mm: How far they hook over each other. lift_mm: How far the unit is lifted to hook it on.
        room_mm: What is free above it; None where nothing is known. lifts: Whether that is enough.
        spacers: Behind its foot.
    """

    top_mm: float
    under_line_mm: float | None
    thick_mm: float
    high_mm: float
    bevel_deg: float
    engagement_mm: float
    lift_mm: float
    room_mm: float | None
    lifts: bool
    spacers: tuple[Spacer, ...]


def split_batten(context: Context, unit: Unit, thick_mm: float) -> SplitBatten:
    """Return the batten that a unit hooks over, with the spacers at its foot and the room that it needs above."""
    engagement = thick_mm - FLAT_MM
    lift = engagement + LIFT_PLAY_MM
    low = context.plan.base.height.value_mm + unit.over_base_mm
    top = low + unit.height_mm
    room = _room_above(context, unit, top)
    inset = min(unit.support_inset_mm, unit.width_mm / 2)
    sides = (("left", unit.x_mm + inset), ("right", unit.right_mm - inset))
    fixings = tuple(
        Fixing(f"{unit.id}.foot.{side}", unit.id, side, x, unit.over_base_mm + FOOT_UP_MM) for side, x in sides
    )
    spacers = []
    for (side, _), packing in zip(
        sides, packings_at(context.contact, context.plan.base, context.kit, fixings), strict=False
    ):
        step = Step(label="Thickness of the batten", value_mm=thick_mm)
        thick = Figure(
            value_mm=packing.gap.value_mm + thick_mm, sd_mm=packing.gap.sd_mm, working=(step, *packing.gap.working)
        )
        spacers.append(Spacer(side=side, up_mm=packing.at[1], thick=thick))
    tip = top - BATTEN_UNDER_MM + BATTEN_HIGH_MM / 2
    return SplitBatten(
        top_mm=tip,
        under_line_mm=under_line(context, tip),
        thick_mm=thick_mm,
        high_mm=BATTEN_HIGH_MM,
        bevel_deg=45.0,
        engagement_mm=engagement,
        lift_mm=lift,
        room_mm=room,
        lifts=room is None or room >= lift,
        spacers=tuple(spacers),
    )


def _room_above(context: Context, unit: Unit, top_mm: float) -> float | None:
    """Return what is free over a unit: to what stands over it, and to the ceiling at its lowest likely."""
    free = [
        u.over_base_mm - unit.over_base_mm - unit.height_mm
        for u in context.place.units
        if u.over_base_mm >= unit.over_base_mm + unit.height_mm - 1
        and u.x_mm < unit.right_mm
        and u.right_mm > unit.x_mm
    ]
    survey = context.contact.survey
    if "ceiling" in context.place.surfaces and survey.measured("ceiling"):
        spots = np.array([(x, unit.depth_mm / 2) for x in np.linspace(unit.x_mm, unit.right_mm, 5)])
        mean, sd = survey.adjustment.mean_and_sd(("ceiling", spots))
        free.append(float((mean - 2 * sd).min()) - top_mm)
    return min(free, default=None)
