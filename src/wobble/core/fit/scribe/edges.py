"""Edges beside the side walls that are scribed: the plinth and the ends to the floor, the head strip to the ceiling."""

from __future__ import annotations

from typing import Literal

import numpy as np

from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.supports import front_row
from wobble.core.fit.run.tiers import Tier, tiers, upright
from wobble.core.fit.scribe.line import Edge, Scribe, scribes
from wobble.core.fit.surfaces.walls import Walls
from wobble.core.gauge.survey import Survey
from wobble.core.job import Place, Unit
from wobble.core.job.unit import BaseFrame, OnShims, ScrewFeet, ToeKickBox

PLINTH_THICK_MM = 18.0
PLINTH_MM = 100.0
"""Height of a plinth under a run whose units do not say how high theirs is."""
HEAD_MOST_MM = 200.0
"""A gap up to the ceiling that is wider than this is left open, or closed with more than a strip."""
MEETS_MM = 250.0
"""An end of a run this near to a side wall is closed against it."""
STRAIGHT_MM = 2.0
"""Units whose fronts stand this near to each other share one plinth."""


def edge_scribes(survey: Survey, place: Place, walls: Walls, stand: Stand, *, tied: bool) -> tuple[Scribe, ...]:
    """Return the cuts to the floor, where lines tie it to the datum mark, and to the ceiling, where it is near."""
    out: list[Edge] = []
    board_mm = place.closing.board_mm
    for tier in tiers(place):
        if tier.name == "standing" and tied and survey.measured("floor"):
            out += [_plinth(group, stand, board_mm, i) for i, group in enumerate(_groups(tier, stand))]
            out += [_end(tier.units[0], "left", stand), _end(tier.last, "right", stand)]
            out += _returns(place, tier, stand)
        if walls.ceiling is not None:
            out += [e for u in tier.units if (e := _head(survey, u, stand, board_mm)) is not None]
    for unit in place.units:
        if unit.kind == "panel" and survey.measured("back"):
            out.append(_panel_back(place, unit, stand))
        if unit.kind == "face frame":
            out += _stiles(walls, unit, stand)
    return scribes(survey, out)


def _panel_back(place: Place, unit: Unit, stand: Stand) -> Edge:
    """Return the back edge of an upright panel, counted from its front edge; its outside is the face."""
    low, high = upright(unit, stand.base_mm)
    middle = (unit.x_mm + unit.right_mm) / 2
    front = stand.back_at(unit) + unit.depth_mm
    others = [u for u in place.units if u.id != unit.id and not u.flat]
    outside_left = not others or middle <= min(u.x_mm for u in others) + unit.width_mm
    return Edge(
        id=f"back-{unit.id}",
        piece=f"{unit.name}, its back edge, from its front, seen from the {'left' if outside_left else 'right'}",
        edge="back edge",
        surface="back",
        start=(middle, low),
        end=(middle, high),
        reference_mm=(front, front),
        sign=1.0,
        along="up from its foot",
        # whoever looks at its left face has the wall at the left hand
        hand="left" if outside_left else "right",
        thick_mm=unit.width_mm,
        across=(1.0, 0.0) if outside_left else (-1.0, 0.0),
        anchor=stand.back_anchor,
    )


def _stiles(walls: Walls, unit: Unit, stand: Stand) -> list[Edge]:
    """Return both stiles of a face frame that is a unit by itself, counted from its middle, in its own plane."""
    low, high = upright(unit, stand.base_mm)
    front = stand.back_at(unit) + unit.depth_mm
    middle = (unit.x_mm + unit.right_mm) / 2
    known: tuple[tuple[Literal["left", "right"], bool], ...] = (
        ("left", walls.left is not None),
        ("right", walls.right is not None),
    )
    return [
        Edge(
            id=f"stile-{unit.id}-{side}",
            piece=f"{unit.name}, {side} stile, from its middle",
            edge="left edge" if side == "left" else "right edge",
            surface=side,
            start=(front, low),
            end=(front, high),
            reference_mm=(middle, middle),
            sign=1.0 if side == "left" else -1.0,
            along="up from its foot",
            hand=side,
            thick_mm=unit.depth_mm,
            across=(-1.0, 0.0),
        )
        for side, there in known
        if there
    ]


def _groups(tier: Tier, stand: Stand) -> list[list[Unit]]:
    """Return the units that share one straight plinth."""
    groups: list[list[Unit]] = []
    for unit in tier.units:
        last = groups[-1][-1] if groups else None
        beside = last is not None and unit.x_mm - last.right_mm <= STRAIGHT_MM
        if last is not None and beside and abs(_front(last, stand) - _front(unit, stand)) <= STRAIGHT_MM:
            groups[-1].append(unit)
        else:
            groups.append([unit])
    return groups


def _front(unit: Unit, stand: Stand) -> float:
    return front_row(unit, stand.back_at(unit))


def _high(unit: Unit) -> float:
    """Return how high a unit's plinth is over the run's base line."""
    match unit.standing:
        case ToeKickBox(height_mm=high) | BaseFrame(height_mm=high):
            return high
        case ScrewFeet(now_mm=now):
            return max(now)
        case _:
            return PLINTH_MM


def _plinth(units: list[Unit], stand: Stand, board_mm: float, number: int) -> Edge:
    top = stand.base_mm + min(_high(u) for u in units)
    front = _front(units[0], stand)
    return Edge(
        id=f"plinth-{number + 1}",
        piece=f"plinth under {units[0].name}" + (f" to {units[-1].name}" if len(units) > 1 else ""),
        edge="bottom edge",
        surface="floor",
        start=(units[0].x_mm, front),
        end=(units[-1].right_mm, front),
        reference_mm=(top, top),
        sign=1.0,
        along="from its left end",
        hand="near",
        thick_mm=board_mm,
        across=(0.0, -1.0),
    )


def _returns(place: Place, tier: Tier, stand: Stand) -> list[Edge]:
    """Return the foot of each skirting return along a free end of the run, where skirting was taken out behind it."""
    out = []
    for obstacle in place.obstacles:
        if obstacle.kind != "skirting" or obstacle.surface != "back" or obstacle.treatment != "remove":
            continue
        for unit, side in ((tier.units[0], "left"), (tier.last, "right")):
            x = unit.x_mm if side == "left" else unit.right_mm
            if not obstacle.at[0] < x < obstacle.at[0] + obstacle.size[0] or _meets_wall(place, x, side):
                continue
            back, front = stand.back_at(unit), stand.back_at(unit) + unit.depth_mm
            top = stand.base_mm + obstacle.at[1] + obstacle.size[1]
            out.append(
                Edge(
                    id=f"return-{obstacle.id}-{side}",
                    piece=f"{obstacle.name} returned along the {side} end of {unit.name}",
                    edge="bottom edge",
                    surface="floor",
                    start=(x, back if side == "left" else front),
                    end=(x, front if side == "left" else back),
                    reference_mm=(top, top),
                    sign=1.0,
                    along="from the wall" if side == "left" else "from its front",
                    hand="near",
                    thick_mm=obstacle.proud_mm or PLINTH_THICK_MM,
                )
            )
    return out


def _meets_wall(place: Place, x_mm: float, side: str) -> bool:
    """Return whether an end of a run is closed against a side wall, so that nothing returns along it."""
    gap = x_mm if side == "left" else place.width_mm - x_mm
    return side in place.surfaces and gap < MEETS_MM


def _end(unit: Unit, side: Literal["left", "right"], stand: Stand) -> Edge:
    """Return the foot of an end panel: what it needs to reach the floor below the run's base line."""
    back = stand.back_at(unit)
    reach = _high(unit) if isinstance(unit.standing, ToeKickBox | BaseFrame | ScrewFeet) else unit.height_mm
    reached = "its head" if isinstance(unit.standing, OnShims) else "the box"
    top = stand.base_mm + reach
    x = unit.x_mm if side == "left" else unit.right_mm
    # seen from outside, the front of a left end lies at the right, and of a right end at the left
    start, end = (back, back + unit.deep_at(side)), (back + unit.deep_at(side), back)
    ahead, behind = start if side == "left" else end
    return Edge(
        id=f"foot-{unit.id}-{side}",
        piece=f"{side} end of {unit.name}, its foot, from {reached}",
        edge="bottom edge",
        surface="floor",
        start=(x, ahead),
        end=(x, behind),
        reference_mm=(top, top),
        sign=1.0,
        along="from its back" if side == "left" else "from its front",
        hand="near",
        thick_mm=19.0,
    )


def _head(survey: Survey, unit: Unit, stand: Stand, board_mm: float) -> Edge | None:
    """Return the strip between a unit's top and a ceiling that is near."""
    _, top = upright(unit, stand.base_mm)
    front = stand.back_at(unit) + unit.depth_mm
    middle = survey.adjustment.mean(("ceiling", np.array([[(unit.x_mm + unit.right_mm) / 2, front]])))
    left = float(middle[0]) - top
    if not 0 < left <= HEAD_MOST_MM:
        return None
    return Edge(
        id=f"head-{unit.id}",
        piece=f"head strip over {unit.name}",
        edge="top edge",
        surface="ceiling",
        start=(unit.x_mm, front),
        end=(unit.right_mm, front),
        reference_mm=(top, top),
        sign=-1.0,
        along="from its left end",
        hand="far",
        thick_mm=board_mm,
        across=(0.0, -1.0),
    )
