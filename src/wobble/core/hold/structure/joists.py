"""Joists over a ceiling or under a floor: which way they run, and where."""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.facts import Detection
from wobble.core.hold.structure.lines import Structure, structure
from wobble.core.job.backing import Runs

SAID_SURE = 0.95
"""How sure it is which way joists run where somebody said so and nothing was found."""
SAID_LOG = math.log(SAID_SURE / (1.0 - SAID_SURE))


@dataclass(frozen=True)
class Joists:
    """The lines over a ceiling or under a floor, which way they run, how sure that is, and whether it was said."""

    lines: Structure
    runs: Runs
    sure: float
    said: Runs

    @property
    def against_what_was_said(self) -> bool:
        """Whether what was found says that they run the other way."""
        return self.said not in ("not known", self.runs)

    @property
    def axis(self) -> int:
        """Which coordinate of a spot counts across them."""
        return 1 if self.runs == "along" else 0

    def crossings(
        self, along: tuple[float, float], out: tuple[float, float], in_mm: float, *, found_only: bool = False
    ) -> list[tuple[float, float]]:
        """Return where sure joists cross a rectangle: each at both ends of it, `in_mm` in from its edges.

        With `found_only` none counts that only its spacing says is there.
        """
        known = self.lines
        sure = [x.at_mm for x in known.lines if known.bites(x.at_mm) >= SURE_TO_BITE and (x.found_by or not found_only)]
        across, ends = (along, out) if self.axis == 0 else (out, along)
        met = [x for x in sure if across[0] + in_mm / 2 <= x <= across[1] - in_mm / 2]
        spots = itertools.product(met, (ends[0] + in_mm, ends[1] - in_mm))
        return [(x, y) if self.axis == 0 else (y, x) for x, y in spots]


def joists(detections: tuple[Detection, ...], long_mm: float, deep_mm: float, width_mm: float, said: Runs) -> Joists:
    """Return the joists over a ceiling, which way they run, and how sure that is, 0 to 1.

    Joists that run out from the back are lines at places along it; such as run along it are lines at places out. Both
    are weighed: the detections gather on lines one way, and fall anywhere the other way. What was said counts as one
    likely guess among them and gives way to what was found.
    """
    turned = tuple(replace(d, at=(d.at[1], d.at[0])) for d in detections)
    out, along = structure(detections, long_mm, width_mm), structure(turned, deep_mm, width_mm)
    n = len([d for d in detections if d.sees not in ("miss", "something else")])
    if n == 0:
        return Joists(along if said == "along" else out, said, 0.0 if said == "not known" else SAID_SURE, said)
    more = (out.evidence - n * math.log(deep_mm)) - (along.evidence - n * math.log(long_mm))
    more += {"out": SAID_LOG, "along": -SAID_LOG}.get(said, 0.0)
    share = 1.0 / (1.0 + math.exp(-max(min(more, 50.0), -50.0)))
    return Joists(out, "out", share, said) if share >= 0.5 else Joists(along, "along", 1.0 - share, said)
