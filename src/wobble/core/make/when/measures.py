"""Which measure settles a size: with what, and how often, so that it is known as well as the part must be cut.

Of n readings of one length the mean has a standard uncertainty of that of one over the root of n (JCGM 100, 4.2.3),
where each is taken anew. The fewest readings that do are asked for; where no instrument at hand does in three, two
sticks slid apart and clamped carry the length itself to the saw, and no scale is read.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from wobble.core.job import Instrument
from wobble.core.job.instrument import InstrumentKind
from wobble.core.length import LengthUnit, spoken

SURE = 1.96
"""Standard uncertainties on each side within which a figure lies 95 times of 100."""
READ_ACROSS: tuple[InstrumentKind, ...] = ("laser meter", "tape")
"""What reads a length from one side to the other."""
PLAIN_TAPE = Instrument(id="tape", name="a tape", kind="tape")
STICKS_MM = 0.25
"""Standard uncertainty of a length carried by two sticks: two pencil lines' width."""
MOST_TIMES = 3
TIMES = {1: "with {}", 2: "twice with {}, the mean of both", 3: "three times with {}, the mean of all"}


@dataclass(frozen=True)
class Measure:
    """A way to know a length: its standard uncertainty, mm, and how it is told."""

    sd_mm: float
    words: str


def measure_for(may_mm: float, instruments: Iterable[Instrument], lengths: LengthUnit = "mm") -> Measure:
    """Return the fewest readings that know a length within what a part may be off, 95 times of 100.

    Args:
        may_mm: What the part's size may be off, mm.
        instruments: What there is to read with; a tape is taken to be there where nothing reads lengths.
        lengths: The units that the user reads.
    """
    across = [i for i in instruments if i.kind in READ_ACROSS] or [PLAIN_TAPE]
    for times in range(1, MOST_TIMES + 1):
        good = [i for i in across if SURE * i.sigma_mm / math.sqrt(times) <= may_mm]
        if good:
            best = min(good, key=lambda i: i.sigma_mm)
            words = f"{TIMES[times].format(best.name)}, to {spoken(may_mm, lengths)}"
            return Measure(best.sigma_mm / math.sqrt(times), words)
    words = f"with two sticks slid apart and clamped, to {spoken(may_mm, lengths)}: nothing at hand reads so finely"
    return Measure(STICKS_MM, words)
