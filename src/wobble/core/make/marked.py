"""Every part with its mark, what has been cut of it, and whether what was cut still does."""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Literal

from wobble.core.facts import CutDone
from wobble.core.job import Value
from wobble.core.length import LengthUnit, spoken
from wobble.core.make.when.ready import BOARDS_MM, MAY_CHANGE
from wobble.core.part import Part

State = Literal["now", "after", "marked in place", "glued, then trimmed", "cut", "bought", "kept", "mended"]
STILL_MM = 0.05
"""Sizes nearer than this are one."""


class Checked(Value, frozen=True, kw_only=True):
    """A part that was cut, held against its size as it is now: how many, what to do, and by how much.

    `off_mm` is what it is too large by, along its length and its width; below zero where it is too small.
    """

    count: int
    came: Literal["right", "short", "wrong"]
    then: Literal["usable", "trim", "cut again"]
    off_mm: tuple[float, float]
    words: str


NOT_MADE: tuple[State, ...] = ("bought", "kept", "mended")
"""Parts that nobody makes here; what is bought is still hung, what is kept or mended has what it hangs on."""


class MarkedPart(Value, frozen=True, kw_only=True):
    """A part with the mark that is written on it, its place, how many are still to be cut, and its state.

    `key` names it across all places of a job: by it parts are found on sheets, in settings and on labels.
    """

    key: str
    mark: str
    place: str
    part: Part
    to_cut: int
    state: State
    checked: tuple[Checked, ...] = ()


def key_of(place_id: str, part: Part) -> str:
    """Return the key of a part across all places of a job."""
    return f"{place_id}/{part.id}"


def marked(
    place_id: str,
    parts: Iterable[Part],
    cuts: Iterable[CutDone],
    taken: dict[str, int],
    lengths: LengthUnit = "mm",
) -> list[MarkedPart]:
    """Return parts with their marks: the unit's letter and a number, counted on in `taken` over all places."""
    by_part: dict[str, list[CutDone]] = {}
    for cut in cuts:
        by_part.setdefault(cut.part, []).append(cut)
    found = []
    for part in parts:
        letter = _letter(part)
        taken[letter] = taken.get(letter, 0) + 1
        checked = tuple(_checked(part, cut, lengths) for cut in by_part.get(part.id, ()))
        done = sum(c.count for c in checked if c.then != "cut again")
        to_cut = max(part.quantity - done, 0)
        found.append(
            MarkedPart(
                key=key_of(place_id, part),
                mark=f"{letter}{taken[letter]}",
                place=place_id,
                part=part,
                to_cut=to_cut,
                state=part.when if to_cut else "cut",
                checked=checked,
            )
        )
    return found


def _letter(part: Part) -> str:
    first = part.of[0] if part.of else "X"
    letters = re.sub(r"[^A-Za-z0-9]", "", first)
    return (letters[:3] or "X").upper()


def _checked(part: Part, cut: CutDone, lengths: LengthUnit) -> Checked:
    """Hold what was cut against the part as it is now; what came wrong, or is too small, is cut again."""
    may = MAY_CHANGE.get(part.role, BOARDS_MM)
    was = cut.size or part.blank_mm
    off = (was[0] - part.blank_mm[0], was[1] - part.blank_mm[1])
    if cut.came == "wrong" or (cut.came == "short" and cut.size is None) or min(off) < -may:
        words = (
            "cut again: it came wrong"
            if cut.came != "right"
            else f"cut again: {spoken(-min(off), lengths)} too small now"
        )
        if cut.came != "right":
            words += "; keep it for a smaller part"
        return Checked(count=cut.count, came=cut.came, then="cut again", off_mm=off, words=words)
    if max(off) > may:
        ends = [
            f"{spoken(mm, lengths)} off its {side}"
            for mm, side in zip(off, ("length", "width"), strict=True)
            if mm > may
        ]
        return Checked(count=cut.count, came=cut.came, then="trim", off_mm=off, words=f"trim {' and '.join(ends)}")
    if abs(off[0]) < STILL_MM and abs(off[1]) < STILL_MM:
        words = "as planned"
    else:
        words = f"usable: {spoken(max(map(abs, off)), lengths)} off its size now, and it may be {spoken(may, lengths)}"
    return Checked(count=cut.count, came=cut.came, then="usable", off_mm=off, words=words)
