"""What was found behind a wall and does not go together."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.facts import Detection
from wobble.core.hold.structure.members import middle_of
from wobble.core.job import Value

EDGE_MM = 8.0
"""A screw nearer to a stud's edge than this splits it or slips out."""


class Contradiction(Value, frozen=True, kw_only=True):
    """Detections that do not go together: which, where along the lines' axis, and what that looks like."""

    detections: tuple[str, ...]
    at_mm: float
    text: str


def against(
    detections: tuple[Detection, ...], odd: tuple[str, ...], inside: set[str], width_mm: float
) -> Iterator[Contradiction]:
    """Yield what contradicts what: a hole that missed where something was seen, and what fits no line or no wall."""
    for d in detections:
        if d.id in inside and d.sees != "miss":
            text = f"Found by {d.found_by} in a door or a window: is it, or the opening, somewhere else?"
            yield Contradiction(detections=(d.id,), at_mm=d.at[0], text=text)
        if d.id in odd:
            text = f"Found by {d.found_by}, it fits no line: a pipe, a batten, a clip? Find out before you drill."
            yield Contradiction(detections=(d.id,), at_mm=d.at[0], text=text)
        if d.sees != "miss":
            continue
        shown = tuple(
            o
            for o in detections
            if o.sees not in ("miss", "something else")
            and abs(middle_of(o, 1, width_mm) - d.at[0]) < width_mm / 2 - EDGE_MM
        )
        if shown:
            text = (
                f"A hole missed where the {' and '.join(sorted({o.found_by for o in shown}))} shows wood: try a "
                "finger's width aside, or look for it by another method."
            )
            yield Contradiction(detections=(d.id, *(o.id for o in shown)), at_mm=d.at[0], text=text)
