"""A face frame fitted first: its stiles, its openings, and where the dividers of the box behind stand.

The box is narrower than the place, so that it goes in; the frame in front is cut to both walls. Each stile is as wide
as the gap there and the side of the box behind, so that its inner edge is flush with the inside. Between two openings
of one box the divider stands flush with the edge of the opening at its left; what the upright is wider than it is
packed out at its right, so that drawers run past the frame there too.
"""

from __future__ import annotations

import math

from wobble.core.figure import Figure, Step
from wobble.core.fit.run.tiers import Tier
from wobble.core.job import Unit, Value
from wobble.core.job.decided import Closing


class Stile(Value, frozen=True, kw_only=True):
    """One upright at a wall: how wide at the foot and the head once scribed, and the blank to cut it from."""

    side: str
    bottom: Figure
    top: Figure
    blank_mm: float


class FrameOpening(Value, frozen=True, kw_only=True):
    """One opening of the frame: before which unit, its left edge along the place, and its width."""

    unit: str
    left_mm: float
    wide_mm: float


class Divider(Value, frozen=True, kw_only=True):
    """A divider of a box behind an upright: where its left face stands in the box, and what is packed at its right."""

    unit: str
    from_left_mm: float
    spacer_mm: float


class FaceFrame(Value, frozen=True, kw_only=True):
    """A face frame as it must be made.

    Attributes:
        blank_mm: Width over all before scribing. stiles: At the walls. openings: From the left.
        uprights: Middle and width of each upright between openings, mm. dividers: Of the boxes behind.
        too_wide_mm: What the boxes as drawn are wider than what goes in for sure; 0 where they go in.
    """

    blank_mm: float
    stiles: tuple[Stile, ...]
    openings: tuple[FrameOpening, ...]
    uprights: tuple[tuple[float, float], ...]
    dividers: tuple[Divider, ...]
    too_wide_mm: float


def face_frame(
    tier: Tier, gaps: tuple[tuple[str, Figure, Figure, float], ...], frame_mm: float, box_mm: float, closing: Closing
) -> FaceFrame | None:
    """Return the face frame before a tier; None where an opening or an upright is left no width, as boxes overlap.

    Args:
        tier: The boxes behind it, from the left.
        gaps: At each wall its side, the gap at the foot and the head, and the blank of a strip that would fill it.
        frame_mm: Blank of the frame over all.
        box_mm: Width of boxes that goes in for sure.
        closing: Thickness of boards, and width of uprights within a box.
    """
    board, mullion = closing.board_mm, max(closing.mullion_mm, closing.board_mm)
    openings: list[FrameOpening] = []
    uprights: list[tuple[float, float]] = []
    dividers: list[Divider] = []
    for k, unit in enumerate(tier.units):
        wide = opening_mm(unit, board, mullion)
        if wide <= 0:
            return None
        left = unit.x_mm + board
        for i in range(unit.front.openings):
            openings.append(FrameOpening(unit=unit.id, left_mm=left, wide_mm=wide))
            if i + 1 < unit.front.openings:
                edge = left + wide
                uprights.append((edge + mullion / 2, mullion))
                dividers.append(Divider(unit=unit.id, from_left_mm=edge - unit.x_mm, spacer_mm=mullion - board))
                left = edge + mullion
        if k + 1 < len(tier.units):
            start, end = unit.right_mm - board, tier.units[k + 1].x_mm + board
            if end <= start:
                return None
            uprights.append(((start + end) / 2, end - start))
    return FaceFrame(
        blank_mm=frame_mm,
        stiles=tuple(
            Stile(side=side, bottom=_with_side(low, board), top=_with_side(high, board), blank_mm=blank + board)
            for side, low, high, blank in gaps
        ),
        openings=tuple(openings),
        uprights=tuple(uprights),
        dividers=tuple(dividers),
        too_wide_mm=max(0.0, float(math.ceil(tier.width_mm - box_mm))),
    )


def opening_mm(unit: Unit, board_mm: float, mullion_mm: float) -> float:
    """Return the width of each of a box's openings: its inside, less the uprights between, shared equally."""
    n = unit.front.openings
    return (unit.width_mm - 2 * board_mm - (n - 1) * mullion_mm) / n


def _with_side(gap: Figure, board_mm: float) -> Figure:
    step = Step(label="Side of the box behind", value_mm=board_mm)
    return Figure(value_mm=gap.value_mm + board_mm, sd_mm=gap.sd_mm, working=(*gap.working, step))
