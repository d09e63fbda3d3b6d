"""What to do now where a check is out, before the next thing leans on it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from wobble.core.facts import AsSet
from wobble.core.job import Value
from wobble.core.job.unit import Hung, Legs, ScrewFeet
from wobble.core.length import format_length, spoken
from wobble.core.order.steps.work import PlaceWork
from wobble.core.packing import fill
from wobble.core.set.check import Check
from wobble.core.set.freedoms import Freedoms, freedoms
from wobble.core.set.planned import supports_of
from wobble.core.set.stands import STILL_MM

LEVELLED = ("level-along", "level-out", "height", "step-left", "step-right", "plumb-side", "plumb-front")
"""Checks that are mended under the unit's supports, all at once."""


class Move(Value, frozen=True, kw_only=True):
    """What to do at one corner: up (or down) by how much, mm, as turns of a foot, or as what lies under it then."""

    corner: str
    at: tuple[float, float]
    up_mm: float
    sd_mm: float
    turns: float | None = None
    under_mm: float | None = None
    pieces_mm: tuple[float, ...] = ()


class Advice(Value, frozen=True, kw_only=True):
    """What to do about one unit's checks that are out: in words, and corner by corner."""

    of: str
    checks: tuple[str, ...]
    words: tuple[str, ...]
    moves: tuple[Move, ...] = ()


def advice(work: PlaceWork, checks: Sequence[Check], readings: Sequence[AsSet]) -> tuple[Advice, ...]:
    """Return what to do now, unit by unit, where something is out."""
    out = []
    for unit in work.units:
        mine = [c for c in checks if c.of == unit.id and c.state == "out"]
        if not mine:
            continue
        own = [f for f in readings if f.of == unit.id]
        stood = freedoms(own)
        words: list[str] = []
        moves: tuple[Move, ...] = ()
        if stood is not None and any(c.kind in LEVELLED for c in mine):
            moves = tuple(_moves(work, unit.id, stood, once=_once(own)))
            words += [_said(work, m) for m in moves]
        if not moves:
            words += [w for c in mine for w in _lifted(work, c)]
        words += [w for c in mine for w in _other(work, c)]
        out.append(Advice(of=unit.id, checks=tuple(c.key for c in mine), words=tuple(words), moves=moves))
    return tuple(out)


def _once(own: Sequence[AsSet]) -> bool:
    """Return whether nothing was changed under a unit since its plan was made: each of its checks was read once."""
    kinds = [f.check for f in own if f.check.split("/")[0] in LEVELLED]
    return len(kinds) == len(set(kinds))


def _moves(work: PlaceWork, key: str, stood: Freedoms, *, once: bool) -> Iterator[Move]:
    """Yield what each corner is moved by, so that the unit stands level at its height.

    Where its height was not read, nothing says that it should be higher: the corner that stands highest stays.
    """
    unit = work.unit(key)
    if unit is None:
        return
    shims = supports_of(work, unit)
    up = {s.support: stood.up_at(*s.at) for s in shims}
    if not up:
        return
    height_read = stood.dz_sd < 1.0
    highest = 0.0 if height_read else max(u for u, _ in up.values())
    for s in shims:
        off, sd = up[s.support]
        by = highest - off
        if abs(by) < STILL_MM:
            continue
        turns = by / unit.standing.pitch_mm if isinstance(unit.standing, ScrewFeet) else None
        under: float | None = None
        pieces: tuple[float, ...] = ()
        if once and turns is None and not isinstance(unit.standing, Legs):
            laid = next((p.mm for p in stood.stands.on if p.corner == s.corner and p.at == s.at), None)
            if laid is not None:
                under = laid + by
                filled = fill(max(under, 0.0), work.job.kit)
                pieces = filled.stack.pieces_mm if filled.stack is not None else ()
        yield Move(corner=s.corner, at=s.at, up_mm=by, sd_mm=sd, turns=turns, under_mm=under, pieces_mm=pieces)


def _said(work: PlaceWork, move: Move) -> str:
    units = work.job.units
    by = f"{format_length(abs(move.up_mm), units)} {'up' if move.up_mm > 0 else 'down'}"
    words = f"{move.corner}: {by}"
    if move.turns is not None:
        return f"{words}, {abs(move.turns):.1f} turns {'out' if move.turns > 0 else 'in'}"
    if move.under_mm is not None:
        if move.under_mm < -STILL_MM:
            return f"{words}: {format_length(-move.under_mm, units)} comes off its base there"
        words += f", {format_length(max(move.under_mm, 0.0), units)} under it then"
        if move.pieces_mm:
            words += f" ({' + '.join(format_length(p, units) for p in move.pieces_mm)})"
    return words


def _lifted(work: PlaceWork, check: Check) -> Iterator[str]:
    """Yield what to do about a level of what stands on no support of its own: by what was read of it alone."""
    unit, off = work.unit(check.of), check.readings[-1].off_mm or 0.0
    if unit is None:
        return
    say = spoken(abs(off), work.job.units)
    hung = isinstance(unit.standing, Hung)
    how = "loosen its screws there, lift it on a lever, tighten" if hung else "pack between it and what carries it"
    match check.kind:
        case "level-along":
            yield f"Its {'left' if off > 0 else 'right'} end {say} up: {how}, read again"
        case "level-out":
            low = "back" if off > 0 else "front"
            yield f"Its {low} {say} up: {'pack behind its lower edge' if hung and low == 'front' else how}, read again"
        case "height" | "step-left" | "step-right":
            down = (off > 0) != (check.kind == "step-right")
            yield f"{say} {'down: take packing out' if down else f'up: {how}'}, read again"
        case "plumb-side":
            yield f"Its head {say} to the {'left' if off > 0 else 'right'}: {how}, read again"


def _other(work: PlaceWork, check: Check) -> Iterator[str]:
    """Yield what to do about a check that is not mended under the supports."""
    off = check.readings[-1].off_mm or 0.0
    say = spoken(abs(off), work.job.units)
    match check.kind:
        case "square":
            half = spoken(abs(off) / 2, work.job.units)
            yield f"A clamp along the longer diagonal until both are alike, some {half}; then the back is fixed"
        case "plumb-front" if work.unit(check.of) is not None:
            yield (
                f"{say} {'out' if off > 0 else 'back'} at its head: loosen its screws and pack "
                f"{'behind the lower' if off > 0 else 'behind the upper'} fixing by that before it is tightened again"
            )
        case "flush":
            yield f"Loosen the clamp, {'pull the left' if off > 0 else 'pull the right'} one out by {say}, clamp again"
        case "beside-left-foot" | "beside-left-head" | "beside-right-foot" | "beside-right-head":
            yield (
                f"Its filler is {spoken(abs(check.readings[-1].value_mm or 0.0), work.job.units)} there: mark it from "
                "what stands, or move the unit before it is screwed"
            )
        case "slides":
            yield f"Unscrew the {'left' if off > 0 else 'right'} slide; set it {say} lower, on a spacer cut to height"
        case "reveal":
            half = spoken(abs(off) / 2, work.job.units)
            yield f"The hinges' side screws: {half} at each of two doors, or {say} at one"
        case "gap-to-wall":
            least = spoken(check.tolerance_mm, work.job.units)
            yield f"Up to {least} is caulked; more: scribe again, {say} deeper beside it"
        case "bites":
            yield "Say that there is no stud: Hold plans the nearest screw that bites. Leave the hole; fill it later"
        case "proud":
            yield "Drive it home, or countersink deeper; a bent one comes out"
        case "first-fit":
            yield "Where it touches, a pencil line along the wall shows; plane to it, and try again. Nothing is forced"
        case "load":
            yield "Nothing goes on it. Find the screw that gives: more, longer, or into a stud, as Hold says"
