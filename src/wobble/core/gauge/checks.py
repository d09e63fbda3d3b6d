"""What an instrument's checks say of its own error, and which of them counts for a reading.

A level by flipping it, a tape's hook against a mark further along the tape, a square by drawing, flipping and drawing
again, a laser by turning it half round where it stands: in each the error counts once each way, so that half the
difference is the error and the place drops out.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from wobble.core.job import FlipCheck, HookCheck, Instrument, InstrumentCheck, InstrumentKind, SquareCheck, Value

LEVEL_BIAS_SD = 0.8
"""Standard deviation of a level's bias before a flip test, mm per m: half a millimetre is what makers allow
themselves."""
PHONE_BIAS_SD = 10.0
"""And of a phone's, mm per m: its back, its case and its sensor are square to each other within half a degree or so."""
BUBBLES = ("level", "digital level", "phone")
LEAN_SD = 0.4
"""How far the plane of a plain laser may lean, mm per m: makers state 3 mm at 10 m, and some lasers were dropped."""
LEANS: dict[InstrumentKind, float] = {"water level": 0.0, "level": LEVEL_BIAS_SD, "digital level": LEVEL_BIAS_SD}
"""How far what others make may lean: water stands level, a line struck along a spirit level leans as that does."""


class CheckFound(Value, frozen=True, kw_only=True):
    """What a check found: the instrument's own error, how well it is known, and from when on it is taken off.

    `value` is how much too large the instrument reads: mm per m for a level or a square, mm for a tape.
    """

    at: datetime
    value: float
    sd: float
    unit: Literal["mm/m", "mm"]


@dataclass(frozen=True, slots=True)
class OwnError:
    """An instrument's own error as an unknown of the adjustment: its name, and mean and deviation beforehand."""

    name: str
    mean: float
    sd: float
    since: datetime | None


def found(check: InstrumentCheck, sigma_mm: float) -> CheckFound:
    """Return what a check found; `sigma_mm` is the standard uncertainty of one reading with the instrument.

    Flip: the place rises r over L and the level adds b·L, so it reads r + bL and, turned, r − bL; b = (first − turned)
    / 2L. Hook: e = hooked − (from the mark − the mark). Square: the lines open by twice its error, ε = apart / 2·leg.
    """
    match check:
        case FlipCheck(length_mm=length):
            bias = (check.first_mm - check.turned_mm) / 2 / length * 1000
            return CheckFound(at=check.at, value=bias, sd=sigma_mm / math.sqrt(2) / length * 1000, unit="mm/m")
        case HookCheck():
            error = check.hooked_mm - (check.from_mark_mm - check.mark_mm)
            return CheckFound(at=check.at, value=error, sd=sigma_mm * math.sqrt(2), unit="mm")
        case SquareCheck(leg_mm=leg):
            return CheckFound(
                at=check.at, value=check.apart_mm / 2 / leg * 1000, sd=sigma_mm / 2 / leg * 1000, unit="mm/m"
            )


def findings(instrument: Instrument) -> tuple[CheckFound, ...]:
    """Return what all checks of an instrument found, oldest first."""
    return tuple(found(check, instrument.sigma_mm) for check in sorted(instrument.checks, key=lambda c: c.at))


def own_errors(instrument: Instrument) -> tuple[OwnError, ...]:
    """Return the errors of an instrument as unknowns, in time: before its first check, then since each.

    A level that was never flipped may be out by what makers allow themselves, a phone by much more, and readings of one
    place with the level turned find it; of a tape or a square only what a check found is known.
    """
    name = error_name(instrument)
    bias = PHONE_BIAS_SD if instrument.kind == "phone" else LEVEL_BIAS_SD if instrument.kind in BUBBLES else 0.0
    before = OwnError(name, 0.0, bias, None)
    since = [OwnError(f"{name}@{i + 1}", f.value, f.sd, f.at) for i, f in enumerate(findings(instrument))]
    return (before, *since)


def lean_sd(made_with: Instrument | None) -> float:
    """Return how far a plane that an instrument made may lean, mm per m, as a standard deviation.

    A turn-round says how far it leaned one way, and nothing of which way it was put down since: the plane may lean by
    as much in any direction.
    """
    if made_with is None:
        return LEAN_SD
    known = findings(made_with)
    if known and known[-1].unit == "mm/m" and made_with.kind != "square":
        return math.hypot(known[-1].value, known[-1].sd)
    return LEANS.get(made_with.kind, LEAN_SD)


def error_name(instrument: Instrument) -> str:
    """Return the name of the unknown that is an instrument's own error before any check."""
    return f"bias:{instrument.id}"


def error_at(instrument: Instrument, taken_at: datetime) -> OwnError:
    """Return the error that counts for a reading taken at a time."""
    before, *since = own_errors(instrument)
    return next((e for e in reversed(since) if e.since is not None and e.since <= taken_at), before)
