"""Now or after: which parts may be cut, which wait for what, and what to rough out meanwhile.

A part is cut now when its finished size cannot change by more than it may, whatever is still unknown: 95 % of what may
be, by the survey's own uncertainty. What is scribed to a wall is roughed out now, wide enough for 99 %, and marked in
place. All else waits for what it names, and turns to now when that is known. One measure settles all parts of a unit:
it is as good as the one of them that may be off least asks for.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.facts import Known
from wobble.core.figure import Figure, Step
from wobble.core.job import Instrument
from wobble.core.length import LengthUnit
from wobble.core.make.stock import PANELS, material_of
from wobble.core.make.when.measures import SURE, Measure, measure_for
from wobble.core.part import Dimension, Part, Role, Wait

SURER = 2.576
"""Standard uncertainties on each side within which a figure lies 99 times of 100."""
FRONTS_MM, BOARDS_MM, ROUGH_MM = 0.5, 1.0, 2.0
MAY_CHANGE: dict[Role, float] = {
    "door": FRONTS_MM,
    "drawer front": FRONTS_MM,
    "drawer end": FRONTS_MM,
    "drawer bottom": FRONTS_MM,
    "stile": FRONTS_MM,
    "rail": FRONTS_MM,
    "mullion": FRONTS_MM,
    "filler": FRONTS_MM,
    "top": FRONTS_MM,
    "deck": ROUGH_MM,
    "member": ROUGH_MM,
    "cleat": ROUGH_MM,
    "ledger": ROUGH_MM,
    "timber": ROUGH_MM,
    "nailer": ROUGH_MM,
    "base frame": ROUGH_MM,
    "cushion board": ROUGH_MM,
    "back": ROUGH_MM,
}
"""By how much a size may still change once a part is cut, mm; a millimetre for all others."""
WIDEST_SOLID_MM = 250.0
"""Solid boards wider than this are glued up out of several, and then trimmed."""
STATED_MM = 0.5
"""Standard uncertainty of a length that came without saying how it was measured: a tape's."""
STRUCK = "its place measured once the level is struck"
PANEL_ROLES: tuple[Role, ...] = ("top", "shelf", "panel", "deck")


@dataclass(frozen=True)
class _Readied:
    """What parts are held against: what is known by now, and how each length that is not is measured, by its key."""

    known: Mapping[str, Known]
    measures: Mapping[str, Measure]


def readied(
    parts: Sequence[Part],
    known: Mapping[str, Known],
    instruments: Iterable[Instrument] = (),
    lengths: LengthUnit = "mm",
) -> tuple[Part, ...]:
    """Return parts with what each waits for, less what is known by now, and their sizes as that says."""
    least: dict[str, float] = {}
    for part in parts:
        key = _unsure(part)
        if key is not None:
            least[key] = min(least.get(key, math.inf), _may(part))
    tools = tuple(instruments)
    against = _Readied(known, {key: measure_for(may, tools, lengths) for key, may in least.items()})
    return tuple(_ready(part, against) for part in parts)


def can_be(part: Part) -> bool:
    """Whether there is anything of a part: what its unit leaves for it is more than nothing."""
    return not part.boxes or all(d.figure.value_mm > 0 for d in part.finished)


def known_by_key(facts: Iterable[Known]) -> dict[str, Known]:
    """Return what is known by its key, the latest of each."""
    return {fact.what: fact for fact in sorted(facts, key=lambda f: f.taken_at)}


def _ready(part: Part, against: _Readied) -> Part:
    known = against.known
    waits = (*part.waits, *_measured(part, against.measures), *_as_fit_says(part))
    waits = tuple({w.key: w for w in waits}.values())
    for wait in waits:
        fact = known.get(wait.key)
        if fact is not None and fact.value_mm is not None and wait.measured:
            part = _as_measured(part, wait, fact.value_mm, against.measures.get(wait.key))
    left = tuple(w for w in waits if w.key not in known)
    when = part.when
    if left:
        when = "marked in place" if part.cuts and any(w.key.startswith("stands-") for w in left) else "after"
    elif _glued(part):
        when = "glued, then trimmed"
    return replace(
        part,
        waits=left,
        ready=tuple(w.words for w in left),
        when=when,
        blank_mm=_rough(part) if left else part.blank_mm,
    )


MEASURED: dict[Role, str] = {
    "nailer": "the gap between the studs measured",
    "trim": "the walls measured at its height, or what it runs along standing",
}
"""What is measured where a part's place is not known well enough; others once the level is struck."""


def _may(part: Part) -> float:
    return MAY_CHANGE.get(part.role, BOARDS_MM)


def _width_key(part: Part) -> str | None:
    """Return under which key the width of a part's unit is known; None where it is cut to a surface, or scribed."""
    return f"width-{part.of[0]}" if part.of and part.boxes and not part.cuts else None


def _unsure(part: Part) -> str | None:
    """Return the key of the measure that a part waits for whose size is not known well enough."""
    if part.cuts or not part.of or all(SURE * d.figure.sd_mm <= _may(part) for d in part.finished):
        return None
    # cut to a surface, not to a unit: its place is measured
    return _width_key(part) or f"place-{part.id}"


def _measured(part: Part, measures: Mapping[str, Measure]) -> Iterator[Wait]:
    """Yield the measure that a part waits for, and how it is taken."""
    key = _unsure(part)
    if key is not None:
        what = "its width measured between what is set on both sides"
        words = what if part.boxes else MEASURED.get(part.role, STRUCK)
        yield Wait(key=key, words=f"{words}, {measures[key].words}", measured=True)


def _as_fit_says(part: Part) -> Iterator[Wait]:
    """Yield what Fit or Hold says that a part waits for, under a key."""
    for words in part.ready:
        kind = "stands" if "standing" in words else "template" if "template" in words else "before"
        yield Wait(key=f"{kind}-{part.id}", words=words, measured=kind == "before")


def _as_measured(part: Part, wait: Wait, mm: float, measure: Measure | None) -> Part:
    """Return a part with the size that was measured, where the wait is for one of its own sizes."""
    sd = measure.sd_mm if measure else STATED_MM
    if wait.key.startswith("width-"):
        # the unit itself is that wide now, and the part was made for it: as well known as the measure was
        known = tuple(replace(d, figure=replace(d.figure, sd_mm=min(d.figure.sd_mm, sd))) for d in part.finished)
        return replace(part, finished=known)
    label = "long" if wait.key.startswith("place-") else "wide"
    dimension = Dimension(
        label=label, figure=Figure(value_mm=mm, sd_mm=sd, working=(Step(label="As measured", value_mm=mm, sd_mm=sd),))
    )
    others = tuple(d for d in part.finished if d.label not in (label, "thick"))
    blank = (mm, part.blank_mm[1]) if label == "long" else (part.blank_mm[0], mm)
    return replace(part, finished=(*others, dimension), blank_mm=blank)


def _rough(part: Part) -> tuple[float, float]:
    """Return the size to rough out: up to whole millimetres over what a size may come to 99 times of 100."""
    spread = {d.label: SURER * d.figure.sd_mm for d in part.finished}
    if part.cuts:
        return part.blank_mm  # its allowance is in it
    long, wide = part.blank_mm
    return (_up(long, spread.get("long", 0.0)), _up(wide, spread.get("wide", 0.0)))


def _up(mm: float, spread: float) -> float:
    return float(math.ceil(mm + spread - 1e-9)) if spread else mm


def _glued(part: Part) -> bool:
    return part.role in PANEL_ROLES and material_of(part) not in PANELS and part.blank_mm[1] > WIDEST_SOLID_MM
