"""What a unit says of its boards beside their sizes: holes, lids and cut-outs, and an edge that is curved."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from msgspec.structs import replace

from wobble.core.job import Unit
from wobble.core.length import LengthUnit
from wobble.core.make.construction.curved import with_curve
from wobble.core.make.construction.holes import with_holes
from wobble.core.part import Part


def as_said(unit: Unit, parts: Iterable[Part], lengths: LengthUnit = "mm") -> Iterator[Part]:
    """Yield a unit's parts with what it says of them; what is made of several pieces has it once they are one."""
    for part in with_holes(unit, parts, lengths):
        made = with_curve(unit, part, lengths)
        pieces = part.quantity > 1 and part.role in ("top", "shelf")
        yield _once_joined(made) if pieces else made


def _once_joined(part: Part) -> Part:
    said = [d.words for d in part.drillings] + ([part.curve.words] if part.curve is not None else [])
    if not said:
        return part
    joins = "; ".join((part.joins or "joined", *said))
    return replace(part, drillings=(), curve=None, joins=joins)
