"""Where a unit is to stand by the plan, and what is to lie under it."""

from __future__ import annotations

from wobble.core.facts import LaidUnder, Stands
from wobble.core.fit.level.plan import Shim
from wobble.core.job import Unit
from wobble.core.job.unit import BaseFrame, ToeKickBox
from wobble.core.order.steps.work import PlaceWork


def packed_mm(shim: Shim) -> float:
    """Return how thick what lies under one support is, as it is planned to be laid, mm."""
    filling = shim.filling
    match filling.kind:
        case "stack" if filling.stack is not None:
            return (filling.block_mm or 0.0) + filling.stack.thickness_mm
        case "bare":
            return 0.0
        case "block" if filling.block_mm is not None:
            return filling.block_mm + (filling.stack.thickness_mm if filling.stack else 0.0)
    return shim.gap.value_mm


def supports_of(work: PlaceWork, unit: Unit) -> tuple[Shim, ...]:
    """Return the supports that carry a unit: its own, or those of its base within its length."""
    shims = work.plan.shims if work.plan is not None else ()
    own = tuple(s for s in shims if s.unit == unit.id)
    if own or not isinstance(unit.standing, BaseFrame | ToeKickBox):
        return own
    return tuple(s for s in shims if unit.x_mm - 50 <= s.at[0] <= unit.right_mm + 50)


def stands_of(work: PlaceWork, unit: Unit) -> Stands:
    """Return where a unit is to stand."""
    return Stands(
        x_mm=unit.x_mm,
        out_mm=work.back_mm + unit.out_mm,
        under_mm=work.base_mm + unit.over_base_mm,
        tied=work.plan is not None and work.plan.base.tied,
        wide_mm=unit.width_mm,
        deep_mm=unit.depth_mm,
        high_mm=unit.height_mm,
        on=tuple(LaidUnder(at=s.at, corner=s.corner, mm=round(packed_mm(s), 3)) for s in supports_of(work, unit))[:24]
        if unit.stands
        else (),
    )
