"""What is done about each thing in the way of a unit: where the hole, the notch or the grille goes, and how large.

Sizes count from the unit's own left edge and underside, as they are marked out on the unit at the bench.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from wobble.core.fit.cutouts.services import CAUTIONS
from wobble.core.fit.run.stand import Stand
from wobble.core.job import Obstacle, Place, Unit, Value
from wobble.core.length import LengthUnit, format_length

PLAY_MM = 5.0
"""A hole is this much larger than what comes through it, all round: nothing is ever quite where it was measured."""
HAND_MM = 60.0
"""Room for a hand and a spanner beside a valve."""
OVER_WIRE_MM = 6.0
NOTCH_PLAY_MM = 2.0
GRILLE_OPEN = 0.6
"""Share of a usual grille that is open: its outside must be larger than the duct by that."""
TOE_GRILLE_MM = 70.0
UNDER_BOARD_MM = 3.0


class Size(Value, frozen=True, kw_only=True):
    """One size to obstacle out, mm."""

    label: str
    mm: float


class Around(Value, frozen=True, kw_only=True):
    """What is done about one thing for one unit.

    Attributes:
        obstacle: The thing's id, or "" for what an appliance wants. unit: Which unit. stops: Whether it stops the job.
        what: In a few words. text: What to do. sizes: To obstacle out. caution: The safety word.
    """

    obstacle: str
    unit: str
    stops: bool
    what: str
    text: str
    sizes: tuple[Size, ...]
    caution: str = ""


@dataclass(frozen=True)
class _Met:
    """A obstacle as a unit meets it: its lower corner counted from the unit's left edge and underside (or back)."""

    obstacle: Obstacle
    unit: Unit
    along: float
    up: float
    units: LengthUnit

    def said(self, mm: float) -> str:
        return format_length(mm, self.units)

    def hole(self, play: float) -> tuple[Size, ...]:
        wide, high = self.obstacle.size
        return (
            Size(label="from its left edge", mm=self.along - play),
            Size(label="from its underside", mm=self.up - play),
            Size(label="wide", mm=wide + 2 * play),
            Size(label="high", mm=high + 2 * play),
        )


def around(place: Place, stand: Stand, units: LengthUnit) -> tuple[Around, ...]:
    """Return what is done about every obstacle for every unit that meets it, then what appliances want."""
    out: list[Around] = []
    for unit in place.units:
        for obstacle in place.obstacles:
            met = _meet(place, unit, obstacle, stand, units)
            if met is not None:
                out += _answers(met)
        out += _board_over(place, unit, stand, units)
        out += _air(place, unit, stand, units)
    return tuple(out)


def _meet(place: Place, unit: Unit, obstacle: Obstacle, stand: Stand, units: LengthUnit) -> _Met | None:
    low = stand.base_mm + unit.over_base_mm
    back = stand.back_at(unit)
    match obstacle.surface:
        case "back":
            spans = ((unit.x_mm, unit.right_mm), (low, low + unit.height_mm))
        case "floor" if unit.stands:
            spans = ((unit.x_mm, unit.right_mm), (back, back + unit.depth_mm))
        case "left" | "right":
            spans = ((back, back + unit.depth_mm), (low, low + unit.height_mm))
            gap = unit.x_mm if obstacle.surface == "left" else place.width_mm - unit.right_mm
            if gap >= obstacle.proud_mm + PLAY_MM:
                return None
        case _:
            return None
    for (start, end), at, size in zip(spans, obstacle.at, obstacle.size, strict=True):
        if at >= end or at + size <= start:
            return None
    return _Met(obstacle, unit, obstacle.at[0] - spans[0][0], obstacle.at[1] - spans[1][0], units)


def _answers(met: _Met) -> Iterator[Around]:
    obstacle, unit = met.obstacle, met.unit
    caution = CAUTIONS.get(obstacle.kind, "")

    def say(what: str, text: str, sizes: tuple[Size, ...] = (), *, stops: bool = False) -> Around:
        return Around(
            obstacle=obstacle.id, unit=unit.id, stops=stops, what=what, text=text, sizes=sizes, caution=caution
        )

    if obstacle.treatment == "remove":
        yield _removed(met, say("", "").caution)
        return
    if obstacle.treatment == "move by a licensed trade":
        yield say("moved first", "Have it moved before anything is set, and measure again where it comes out.")
        return
    match obstacle.kind:
        case "outlet" | "switch":
            text = "Cut a hole in the back so that it can be reached and unplugged; never bury it."
            yield say("access hole", text, met.hole(PLAY_MM))
        case "wire":
            deep = max(obstacle.proud_mm, 0.0) + OVER_WIRE_MM
            text = f"Bridge it: furring of {met.said(deep)} above and below, so that no back presses on it."
            yield say("furring", text, (Size(label="furring deep", mm=deep),))
        case "pipe" | "valve" | "spout":
            text = f"Keep {met.said(HAND_MM)} beside it free for a hand and a spanner, and a panel that comes off."
            yield say("access panel", text, met.hole(HAND_MM))
        case "vent":
            yield _vent(met, caution)
        case "skirting" | "trim" | "casing":
            yield _skirting(met, caution)
        case "column" | "bulkhead" | "wheel arch":
            text = f"Notch the unit round it, {met.said(obstacle.proud_mm + PLAY_MM)} deep; nothing bears on it."
            sizes = (*met.hole(PLAY_MM), Size(label="deep", mm=obstacle.proud_mm + PLAY_MM))
            yield say("notch", text, sizes)
        case "window board":
            text = "The unit stands behind it: lower its top below the board, or notch it round."
            yield say(
                "notch", text, (*met.hole(NOTCH_PLAY_MM), Size(label="deep", mm=obstacle.proud_mm + NOTCH_PLAY_MM))
            )
    if obstacle.surface == "floor" and unit.kind == "platform":
        yield say("hatch", "A hatch that lifts out over it, with room for both hands.", met.hole(HAND_MM))


def _removed(met: _Met, caution: str) -> Around:
    obstacle, unit = met.obstacle, met.unit
    start, end = max(obstacle.at[0], unit.x_mm), min(obstacle.at[0] + obstacle.size[0], unit.right_mm)
    sizes: tuple[Size, ...] = (Size(label="cut out from, along", mm=start), Size(label="to", mm=end))
    text = f"Take it out from {met.said(start)} to {met.said(end)} along, and return its ends against the unit's sides."
    if obstacle.surface != "back" or obstacle.kind not in ("skirting", "trim", "casing"):
        text, sizes = "Take it away before anything is set.", ()
    return Around(
        obstacle=obstacle.id, unit=unit.id, stops=False, what="taken out", text=text, sizes=sizes, caution=caution
    )


def _vent(met: _Met, caution: str) -> Around:
    free = met.obstacle.size[0] * met.obstacle.size[1]
    long = free / (GRILLE_OPEN * TOE_GRILLE_MM)
    fits = long <= met.unit.width_mm - 2 * met.unit.support_inset_mm
    text = (
        f"Carry it to the front by a duct of its own, {met.said(met.obstacle.size[0])} × "
        f"{met.said(met.obstacle.size[1])}, and let it out through a grille {met.said(TOE_GRILLE_MM)} high and "
        f"{met.said(long)} long in the toe-kick ({GRILLE_OPEN * 100:.0f} % open)."
    )
    if not fits:
        text += " That is longer than this unit: let the grille run on, or leave the unit away from it."
    sizes = (Size(label="grille long", mm=long), Size(label="grille high", mm=TOE_GRILLE_MM))
    return Around(
        obstacle=met.obstacle.id, unit=met.unit.id, stops=not fits, what="vent", text=text, sizes=sizes, caution=caution
    )


def _skirting(met: _Met, caution: str) -> Around:
    obstacle, unit = met.obstacle, met.unit
    if obstacle.treatment == "notch":
        deep, high = obstacle.proud_mm + NOTCH_PLAY_MM, met.up + obstacle.size[1] + NOTCH_PLAY_MM
        text = f"Notch both sides at the back foot, {met.said(deep)} deep and {met.said(high)} high."
        sizes = (Size(label="notch deep", mm=deep), Size(label="notch high", mm=high))
        return Around(
            obstacle=obstacle.id, unit=unit.id, stops=False, what="notch", text=text, sizes=sizes, caution=caution
        )
    off = obstacle.proud_mm + 1.0
    text = (
        f"Hold the backs {met.said(off)} clear of the wall and let the top reach back over it by as much; or notch the "
        "sides, or take it out and return it."
    )
    sizes = (Size(label="backs clear of the wall", mm=off), Size(label="top overhangs at the back", mm=off))
    return Around(
        obstacle=obstacle.id, unit=unit.id, stops=False, what="hold back", text=text, sizes=sizes, caution=caution
    )


def _board_over(place: Place, unit: Unit, stand: Stand, units: LengthUnit) -> Iterator[Around]:
    """Yield how far the top of a unit stays under a window board over it; a seat with its cushion likewise."""
    top = stand.base_mm + unit.over_base_mm + unit.height_mm
    for obstacle in place.obstacles:
        over = obstacle.kind == "window board" and obstacle.surface == "back"
        if (
            not over
            or obstacle.at[0] >= unit.right_mm
            or obstacle.at[0] + obstacle.size[0] <= unit.x_mm
            or obstacle.at[1] < top
        ):
            continue
        left = obstacle.at[1] - top
        tight = left < UNDER_BOARD_MM
        after = ", which paint will close: lower it." if tight else "; a splash-back or a cushion fits in."
        text = f"Its top ends {format_length(left, units)} under the board{after}"
        yield Around(
            obstacle=obstacle.id,
            unit=unit.id,
            stops=False,
            what="under the board",
            text=text,
            sizes=(Size(label="left under the board", mm=left),),
            caution="A seat under a window wants a guard where somebody can fall out." if unit.kind == "bench" else "",
        )


def _air(place: Place, unit: Unit, stand: Stand, units: LengthUnit) -> Iterator[Around]:
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
        ("behind it", place.back_line.off_mm + unit.out_mm, unit.air.back_mm),
        ("over it", above, unit.air.top_mm),
    ):
        if has < wants:
            text = f"It has {format_length(has, units)} {where} and wants {format_length(wants, units)}."
            yield Around(
                obstacle="",
                unit=unit.id,
                stops=True,
                what="air",
                text=text,
                sizes=(Size(label=f"lacking {where}", mm=wants - has),),
                caution="An appliance without its air overheats: keep to its maker's figures.",
            )
