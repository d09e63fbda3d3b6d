"""What is done where a unit meets an obstacle, by the kind of thing it is and how it is to be treated."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from wobble.core.codes import CutoutCode
from wobble.core.finding import Severity
from wobble.core.fit.cutouts.boxes import Cutout, Size
from wobble.core.fit.cutouts.services import CAUTIONS
from wobble.core.job import Obstacle, Unit
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


@dataclass(frozen=True)
class Met:
    """An obstacle as a unit meets it: its lower corner counted from the unit's left edge and underside (or back)."""

    obstacle: Obstacle
    unit: Unit
    along: float
    up: float
    behind: float
    units: LengthUnit

    def said(self, mm: float) -> str:
        """Return a length as the user reads it."""
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
        """Return one answer to the obstacle for the unit, with the caution that its kind wants."""
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


def answers(met: Met) -> Iterator[Cutout]:
    """Yield what is done where a unit meets an obstacle."""
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


def _electric(met: Met) -> Cutout:
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


def _wire(met: Met) -> Cutout:
    deep = met.obstacle.proud_mm + OVER_WIRE_MM
    if met.behind >= deep:
        text = f"The back stands {met.said(met.behind)} off the wall and does not press on it."
        return met.answer("wire-clear", "fine", "clear of it", text)
    text = f"Bridge it: furring of {met.said(deep)} above and below, so that no back presses on it."
    return met.answer("wire-bridged", "mind", "furring", text, (Size(label="furring deep", mm=deep),))


def _vent(met: Met) -> Cutout:
    """A vent is never closed: that is a stop until the plan has the duct, and while its grille finds no room."""
    free = met.obstacle.size[0] * met.obstacle.size[1]
    long = free / (GRILLE_OPEN * TOE_GRILLE_MM)
    fits = long <= met.unit.width_mm - 2 * met.unit.support_inset_mm
    sizes = (Size(label="grille long", mm=long), Size(label="grille high", mm=TOE_GRILLE_MM))
    duct = (
        f"a duct of {met.said(met.obstacle.size[0])} × {met.said(met.obstacle.size[1])}, let out by a grille "
        f"{met.said(TOE_GRILLE_MM)} high and {met.said(long)} long in the toe-kick ({GRILLE_OPEN * 100:.0f} % open)."
    )
    if not fits:
        text = (
            f"Carry it to the front by {duct} That is longer than this unit: let the grille run on, or leave "
            "the unit away."
        )
        return met.answer("vent-grille-long", "stop", "vent", text, sizes)
    if met.obstacle.treatment == "duct":
        return met.answer("vent-ducted", "fine", "vent", f"Carried to the front by {duct}", sizes)
    text = f"It would be closed. Say “duct” for it, or leave the unit away: {duct}"
    return met.answer("vent-buried", "stop", "vent", text, sizes)


def _notched(met: Met, play: float, words: str) -> Cutout:
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


def _removed(met: Met) -> Cutout:
    obstacle, unit = met.obstacle, met.unit
    start, end = max(obstacle.at[0], unit.x_mm), min(obstacle.at[0] + obstacle.size[0], unit.right_mm)
    if obstacle.surface != "back" or obstacle.kind not in ("skirting", "trim", "casing"):
        return met.answer("taken-out", "mind", "taken out", "Take it away before anything is set.")
    text = f"Take it out from {met.said(start)} to {met.said(end)} along; it is returned along ends that stay free."
    sizes = (Size(label="cut out from, along", mm=start), Size(label="to", mm=end))
    return met.answer("taken-out", "mind", "taken out", text, sizes)


def _skirting(met: Met) -> Cutout:
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
