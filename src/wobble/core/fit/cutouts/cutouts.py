"""What is done about each obstacle for each unit: where the hole, the notch or the grille goes, and how large.

Sizes count from the unit's own left edge and underside, as they are marked out on the unit at the bench, and never
reach past it. An obstacle counts at its true size; one that stands behind a unit counts while it is near its back.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from wobble.core.codes import CutoutCode
from wobble.core.finding import Severity
from wobble.core.fit.cutouts.services import CAUTIONS
from wobble.core.fit.run.stand import Stand
from wobble.core.job import Obstacle, ObstacleKind, Place, SurfaceName, Unit, Value
from wobble.core.length import LengthUnit, format_length

PLAY_MM = 5.0
"""A hole is this much larger than what comes through it, all round: nothing is ever quite where it was measured."""
HAND_MM = 60.0
"""Room for a hand and a spanner beside a valve."""
TIGHT_MM = 25.0
"""Less than this beside a valve, a lever or a spout and it cannot be used, or is bumped open."""
TOLD_MM = 200.0
"""How far off something that is used by hand is told with the clearance beside it."""
BEHIND_MM = 150.0
"""What lies on a wall is behind a unit whose back stands this near to it."""
OVER_WIRE_MM = 6.0
NOTCH_PLAY_MM = 2.0
GRILLE_OPEN = 0.6
"""Share of a usual grille that is open: its outside must be larger than the duct by that."""
TOE_GRILLE_MM = 70.0
UNDER_BOARD_MM = 3.0
BY_HAND: tuple[ObstacleKind, ...] = ("valve", "spout")


class Size(Value, frozen=True, kw_only=True):
    """One size to mark out, mm."""

    label: str
    mm: float


class Cutout(Value, frozen=True, kw_only=True):
    """What is done about one obstacle for one unit.

    Attributes:
        code: Stable name of the answer. obstacle: The obstacle's id, or "" for what an appliance wants. unit: Which.
        severity: stop while the plan lacks what must be there. what: In a few words. text: What to do.
        sizes: To mark out. caution: The safety word.
    """

    code: CutoutCode
    obstacle: str
    unit: str
    severity: Severity
    what: str
    text: str
    sizes: tuple[Size, ...] = ()
    caution: str = ""


Box = tuple[tuple[float, float], tuple[float, float], tuple[float, float]]
"""From and to along, out and up, mm."""


@dataclass(frozen=True)
class _Met:
    """An obstacle as a unit meets it: its lower corner counted from the unit's left edge and underside (or back)."""

    obstacle: Obstacle
    unit: Unit
    along: float
    up: float
    behind: float
    units: LengthUnit

    def said(self, mm: float) -> str:
        return format_length(mm, self.units)

    @property
    def face(self) -> tuple[float, float]:
        """How wide and high the unit is where it is marked out: its back, its side, or its bottom."""
        unit = self.unit
        match self.obstacle.surface:
            case "left" | "right":
                return unit.depth_mm, unit.height_mm
            case "floor":
                return unit.width_mm, unit.depth_mm
            case _:
                return unit.width_mm, unit.height_mm

    def hole(self, play: float) -> tuple[Size, ...]:
        """Return the hole round the obstacle, with play, as far as the unit reaches."""
        wide, high = self.obstacle.size
        (left, right), (low, top) = (
            (max(at - play, 0.0), min(at + size + play, most))
            for at, size, most in zip((self.along, self.up), (wide, high), self.face, strict=True)
        )
        second = "from its back" if self.obstacle.surface == "floor" else "from its underside"
        first = "from its back" if self.obstacle.surface in ("left", "right") else "from its left edge"
        return (
            Size(label=first, mm=left),
            Size(label=second, mm=low),
            Size(label="wide", mm=right - left),
            Size(label="high" if self.obstacle.surface != "floor" else "deep", mm=top - low),
        )

    def answer(
        self, code: CutoutCode, severity: Severity, what: str, text: str, sizes: tuple[Size, ...] = ()
    ) -> Cutout:
        return Cutout(
            code=code,
            obstacle=self.obstacle.id,
            unit=self.unit.id,
            severity=severity,
            what=what,
            text=text,
            sizes=sizes,
            caution=CAUTIONS.get(self.obstacle.kind, ""),
        )


def cutouts(place: Place, stand: Stand, units: LengthUnit) -> tuple[Cutout, ...]:
    """Return what is done about every obstacle for every unit that meets it, then what appliances want."""
    out: list[Cutout] = []
    for unit in place.units:
        for obstacle in place.obstacles:
            met = _meet(place, unit, obstacle, stand, units)
            if met is not None:
                out += _answers(met)
            else:
                out += _beside(place, unit, obstacle, stand, units)
        out += _board_over(place, unit, stand, units)
        out += _air(place, unit, stand, units)
    return tuple(out)


def behind_mm(place: Place, unit: Unit) -> float:
    """Return how far the back of a unit stands off the proudest spot of the wall, mm."""
    return place.back_line.off_mm + unit.out_mm


def obstacle_box(place: Place, obstacle: Obstacle) -> Box:
    """Return the room that an obstacle takes, out of its nominal surface."""
    (a, b), (w, h), proud = obstacle.at, obstacle.size, obstacle.proud_mm
    boxes: dict[SurfaceName, Box] = {
        "back": ((a, a + w), (0.0, proud), (b, b + h)),
        "left": ((0.0, proud), (a, a + w), (b, b + h)),
        "right": ((place.width_mm - proud, place.width_mm), (a, a + w), (b, b + h)),
        "floor": ((a, a + w), (b, b + h), (0.0, proud)),
        "ceiling": ((a, a + w), (b, b + h), (place.height_mm - proud, place.height_mm)),
    }
    return boxes[obstacle.surface]


def unit_box(place: Place, unit: Unit, stand: Stand) -> Box:
    """Return the room that a unit takes, its back counted from the proudest spot of the wall."""
    back, low = behind_mm(place, unit), stand.base_mm + unit.over_base_mm
    return (unit.x_mm, unit.right_mm), (back, back + unit.depth_mm), (low, low + unit.height_mm)


def _meet(place: Place, unit: Unit, obstacle: Obstacle, stand: Stand, units: LengthUnit) -> _Met | None:
    """Return an obstacle as a unit meets it; None where the two pass each other."""
    theirs, ours = obstacle_box(place, obstacle), unit_box(place, unit, stand)
    behind = behind_mm(place, unit)
    reach = {"back": max(BEHIND_MM - obstacle.proud_mm, 0.0), "left": PLAY_MM, "right": PLAY_MM}
    near = reach.get(obstacle.surface, 0.0)
    across = {"back": 1, "left": 0, "right": 0, "floor": 2, "ceiling": 2}[obstacle.surface]
    if obstacle.surface == "ceiling" or (obstacle.surface == "floor" and not unit.stands):
        return None
    for axis, (one, other) in enumerate(zip(theirs, ours, strict=True)):
        if axis == across and obstacle.surface == "floor":
            continue  # whatever comes out of the floor under a unit comes into it
        more = near if axis == across else 0.0
        if one[0] >= other[1] + more or one[1] + more <= other[0]:
            return None
    first, second = {"back": (0, 2), "left": (1, 2), "right": (1, 2), "floor": (0, 1)}[obstacle.surface]
    return _Met(obstacle, unit, theirs[first][0] - ours[first][0], theirs[second][0] - ours[second][0], behind, units)


def _answers(met: _Met) -> Iterator[Cutout]:
    obstacle, unit = met.obstacle, met.unit
    if obstacle.treatment == "remove":
        yield _removed(met)
        return
    if obstacle.treatment == "move by a licensed trade":
        text = "Have it moved before anything is set, and measure again where it comes out."
        yield met.answer("moved-first", "mind", "moved first", text)
        return
    match obstacle.kind:
        case "outlet" | "switch":
            yield _electric(met)
        case "wire":
            yield _wire(met)
        case "pipe" | "valve" | "spout":
            text = f"Keep {met.said(HAND_MM)} beside it free for a hand and a spanner, and a panel that comes off."
            yield met.answer("access-panel", "mind", "access panel", text, met.hole(HAND_MM))
        case "vent":
            yield _vent(met)
        case "skirting" | "trim" | "casing":
            yield _skirting(met)
        case "radiator":
            text = (
                "It heats what stands before it and nothing else: leave it free, with air below and above, or have it "
                "moved."
            )
            yield met.answer("radiator-covered", "stop", "covered", text)
        case "column" | "bulkhead" | "wheel arch":
            yield _notched(met, PLAY_MM, "Notch the unit round it, {} deep; nothing bears on it.")
        case "window board":
            yield _notched(
                met, NOTCH_PLAY_MM, "The unit stands behind it: lower its top below the board, or notch it, {} deep."
            )
    if obstacle.surface == "floor" and unit.kind == "platform":
        text = "A hatch that lifts out over it, with room for both hands."
        yield met.answer("hatch", "mind", "hatch", text, met.hole(HAND_MM))


def _electric(met: _Met) -> Cutout:
    """An outlet or switch behind something fixed must stay in reach: that is a stop until the plan has the hole."""
    if met.unit.flat:
        text = "Notch its edge round it, so that a plug goes in and the plate comes off."
        return met.answer("outlet-notch", "mind", "notch", text, met.hole(PLAY_MM))
    if met.obstacle.treatment in ("access hole", "notch"):
        text = "Cut a hole in the back so that it can be reached and unplugged."
        return met.answer("access-hole", "fine", "access hole", text, met.hole(PLAY_MM))
    text = (
        "It would be buried. Say “access hole” for it, move the unit, or have it moved: what is plugged in must be "
        "reached and unplugged."
    )
    return met.answer("outlet-buried", "stop", "buried", text, met.hole(PLAY_MM))


def _wire(met: _Met) -> Cutout:
    deep = met.obstacle.proud_mm + OVER_WIRE_MM
    if met.behind >= deep:
        text = f"The back stands {met.said(met.behind)} off the wall and does not press on it."
        return met.answer("wire-clear", "fine", "clear of it", text)
    text = f"Bridge it: furring of {met.said(deep)} above and below, so that no back presses on it."
    return met.answer("wire-bridged", "mind", "furring", text, (Size(label="furring deep", mm=deep),))


def _vent(met: _Met) -> Cutout:
    """A vent is never closed: that is a stop until the plan has the duct, and while its grille finds no room."""
    free = met.obstacle.size[0] * met.obstacle.size[1]
    long = free / (GRILLE_OPEN * TOE_GRILLE_MM)
    fits = long <= met.unit.width_mm - 2 * met.unit.support_inset_mm
    sizes = (Size(label="grille long", mm=long), Size(label="grille high", mm=TOE_GRILLE_MM))
    duct = (
        f"a duct of its own, {met.said(met.obstacle.size[0])} × {met.said(met.obstacle.size[1])}, and let it out "
        f"through a grille {met.said(TOE_GRILLE_MM)} high and {met.said(long)} long in the toe-kick "
        f"({GRILLE_OPEN * 100:.0f} % open)."
    )
    if not fits:
        text = (
            f"Carry it to the front by {duct} That is longer than this unit: let the grille run on, or leave the unit "
            "away."
        )
        return met.answer("vent-grille-long", "stop", "vent", text, sizes)
    if met.obstacle.treatment == "duct":
        return met.answer("vent-ducted", "fine", "vent", f"Carried to the front by {duct}", sizes)
    text = f"It would be closed. Say “duct” for it, or leave the unit away; a duct means {duct}"
    return met.answer("vent-buried", "stop", "vent", text, sizes)


def _notched(met: _Met, play: float, words: str) -> Cutout:
    """A notch round what stands into the unit; where it takes the unit's whole depth or height nothing is left."""
    deep = met.obstacle.proud_mm + play - (met.behind if met.obstacle.surface == "back" else 0.0)
    most = {"back": met.unit.depth_mm, "floor": met.unit.height_mm}.get(met.obstacle.surface, met.unit.width_mm)
    if deep <= 0:
        text = f"The back stands {met.said(met.behind)} off the wall and clears it."
        return met.answer("notch-clear", "fine", "clear of it", text)
    if deep >= most:
        text = f"It takes all of the unit's {met.said(most)} there: make the unit narrower, or leave it away."
        return met.answer("notch-too-deep", "stop", "no room", text)
    sizes = (*met.hole(play), Size(label="deep into it", mm=deep))
    return met.answer("notch", "mind", "notch", words.format(met.said(deep)), sizes)


def _removed(met: _Met) -> Cutout:
    obstacle, unit = met.obstacle, met.unit
    start, end = max(obstacle.at[0], unit.x_mm), min(obstacle.at[0] + obstacle.size[0], unit.right_mm)
    if obstacle.surface != "back" or obstacle.kind not in ("skirting", "trim", "casing"):
        return met.answer("taken-out", "mind", "taken out", "Take it away before anything is set.")
    text = f"Take it out from {met.said(start)} to {met.said(end)} along; it is returned along ends that stay free."
    sizes = (Size(label="cut out from, along", mm=start), Size(label="to", mm=end))
    return met.answer("taken-out", "mind", "taken out", text, sizes)


def _skirting(met: _Met) -> Cutout:
    obstacle, unit = met.obstacle, met.unit
    if obstacle.surface in ("left", "right"):
        return _notched(met, NOTCH_PLAY_MM, "Scribe or notch that side round it, {} deep, or hold the unit away.")
    off = obstacle.proud_mm + 1.0
    if met.behind >= off - 1e-6:
        over = met.said(met.behind - obstacle.proud_mm)
        text = f"The backs stand {met.said(met.behind)} clear of the wall and pass it by {over}."
        return met.answer("skirting-clear", "fine", "clear of it", text)
    if obstacle.treatment == "notch":
        deep = obstacle.proud_mm + NOTCH_PLAY_MM - met.behind
        high = min(met.up + obstacle.size[1] + NOTCH_PLAY_MM, unit.height_mm)
        text = f"Notch both sides at the back foot, {met.said(deep)} deep and {met.said(high)} high."
        sizes = (Size(label="notch deep", mm=deep), Size(label="notch high", mm=high))
        return met.answer("skirting-notch", "mind", "notch", text, sizes)
    text = (
        f"Hold the backs {met.said(off)} clear of the wall and let the top reach back over it by as much; or notch the "
        "sides, or take it out and return it."
    )
    sizes = (Size(label="backs clear of the wall", mm=off), Size(label="top overhangs at the back", mm=off))
    return met.answer("skirting-hold-back", "mind", "hold back", text, sizes)


def _beside(place: Place, unit: Unit, obstacle: Obstacle, stand: Stand, units: LengthUnit) -> Iterator[Cutout]:
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


def _board_over(place: Place, unit: Unit, stand: Stand, units: LengthUnit) -> Iterator[Cutout]:
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


def _air(place: Place, unit: Unit, stand: Stand, units: LengthUnit) -> Iterator[Cutout]:
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
