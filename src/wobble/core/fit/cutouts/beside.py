"""What stays free beside a unit: by what is used by hand, under a window board, and the air of an appliance."""

from __future__ import annotations

import math
from collections.abc import Iterator

from wobble.core.fit.cutouts.boxes import Cutout, Size, behind_mm, obstacle_box, unit_box
from wobble.core.fit.cutouts.services import CAUTIONS
from wobble.core.fit.run.stand import Stand
from wobble.core.job import Obstacle, ObstacleKind, Place, Unit
from wobble.core.length import LengthUnit, format_length

TIGHT_MM = 25.0
"""Less than this beside a valve, a lever or a spout and it cannot be used, or is bumped open."""
TOLD_MM = 200.0
"""How far off something that is used by hand is told with the clearance beside it."""
UNDER_BOARD_MM = 3.0
BY_HAND: tuple[ObstacleKind, ...] = ("valve", "spout")


def beside(place: Place, unit: Unit, obstacle: Obstacle, stand: Stand, units: LengthUnit) -> Iterator[Cutout]:
    """Yield the clearance beside what is used by hand, where a unit comes near it without meeting it."""
    if obstacle.kind not in BY_HAND or obstacle.treatment in ("remove", "move by a licensed trade"):
        return
    theirs, ours = obstacle_box(place, obstacle), unit_box(place, unit, stand)
    apart = [max(other[0] - one[1], one[0] - other[1], 0.0) for one, other in zip(theirs, ours, strict=True)]
    gap = math.hypot(*apart)
    if gap > TOLD_MM:
        return
    tight = gap < TIGHT_MM
    text = f"{format_length(gap, units)} is left between the two" + (
        f"; under {format_length(TIGHT_MM, units)} it cannot be turned, or is bumped open. Move one of them."
        if tight
        else "."
    )
    yield Cutout(
        code="beside-tight" if tight else "beside-clear",
        obstacle=obstacle.id,
        unit=unit.id,
        severity="mind" if tight else "fine",
        what="clearance",
        text=text,
        sizes=(Size(label="clearance", mm=gap),),
        caution=CAUTIONS.get(obstacle.kind, "") if tight else "",
    )


def board_over(place: Place, unit: Unit, stand: Stand, units: LengthUnit) -> Iterator[Cutout]:
    """Yield how far the top of a unit stays under a window board over it; a seat with its cushion likewise."""
    top = stand.base_mm + unit.over_base_mm + unit.height_mm
    for obstacle in place.obstacles:
        over = obstacle.kind == "window board" and obstacle.surface == "back"
        beside = obstacle.at[0] >= unit.right_mm or obstacle.at[0] + obstacle.size[0] <= unit.x_mm
        if not over or beside or obstacle.at[1] < top:
            continue
        left = obstacle.at[1] - top
        tight = left < UNDER_BOARD_MM
        after = ", which paint will close: lower it." if tight else "; a splash-back or a cushion fits in."
        yield Cutout(
            code="under-board-tight" if tight else "under-board",
            obstacle=obstacle.id,
            unit=unit.id,
            severity="mind" if tight else "fine",
            what="under the board",
            text=f"Its top ends {format_length(left, units)} under the board{after}",
            sizes=(Size(label="left under the board", mm=left),),
            caution="A seat under a window wants a guard where somebody can fall out." if unit.kind == "bench" else "",
        )


def air(place: Place, unit: Unit, stand: Stand, units: LengthUnit) -> Iterator[Cutout]:
    """Yield what an appliance lacks of the air that its maker asks for."""
    if unit.air is None:
        return
    top = unit.over_base_mm + unit.height_mm
    beside = [u for u in place.units if u.id != unit.id and not u.flat and u.over_base_mm < top]
    over = [u for u in place.units if u.over_base_mm >= top and u.x_mm < unit.right_mm and u.right_mm > unit.x_mm]
    left = min((unit.x_mm - u.right_mm for u in beside if u.right_mm <= unit.x_mm + 1), default=unit.x_mm)
    past = place.width_mm - unit.right_mm
    right = min((u.x_mm - unit.right_mm for u in beside if u.x_mm >= unit.right_mm - 1), default=past)
    above = min((u.over_base_mm - top for u in over), default=place.height_mm - stand.base_mm - top)
    for where, has, wants in (
        ("at the left", left, unit.air.sides_mm),
        ("at the right", right, unit.air.sides_mm),
        ("behind it", behind_mm(place, unit), unit.air.back_mm),
        ("over it", above, unit.air.top_mm),
    ):
        if has < wants:
            text = f"It has {format_length(max(has, 0.0), units)} {where} and wants {format_length(wants, units)}."
            yield Cutout(
                code="air",
                obstacle="",
                unit=unit.id,
                severity="stop",
                what=f"air {where}",
                text=text,
                sizes=(Size(label=f"lacking {where}", mm=wants - max(has, 0.0)),),
                caution="An appliance without its air overheats: keep to its maker's figures.",
            )
