"""How long things take: stated usual values, what the air makes of drying, and what was learned from the clock.

The usual minutes are planning figures for somebody who has done it before, with tidying up in them. Each step's true
length is taken as log-normal about its usual one, `SCATTER` in logs; a person's pace is one factor on all of them,
taken as log-normal about 1 with `PACE_SD`. Both being normal in logs, the pace that logged steps say is exact.
"""

from __future__ import annotations

import math
from collections.abc import Iterable

from wobble.core.job import Value
from wobble.core.job.sessions import Air

SCATTER = 0.35
"""Standard deviation of the log of one step's length: two of three are within a factor of 1.42."""
PACE_SD = 0.5
"""Of the log of a person's pace before anything is logged."""
SLOWER: dict[Air, float] = {"warm and dry": 1.0, "cool": 1.5, "cold or damp": 2.5}
"""What drying times are multiplied by: tins say theirs at some 20 °C and half saturated air."""
GLUE_H, WOOD_FILLER_H, CAULK_H, ADHESIVE_H = 12.0, 2.0, 4.0, 24.0
"""Until glue bears load, filler is sanded, caulk is painted, adhesive is let go: planning figures, the tube counts."""


class Pace(Value, frozen=True, kw_only=True):
    """How one works against the usual minutes: a factor, the factors it lies between with 95 %, from how many steps."""

    factor: float
    low: float
    high: float
    steps: int


def learned(logged: Iterable[tuple[float, float]]) -> Pace:
    """Return the pace that steps say, each as usual and true minutes.

    Normal prior and normal scatter in logs (Gelman et al., Bayesian Data Analysis, section 2.5); the middle is taken.
    """
    logs = [math.log(true / usual) for usual, true in logged if usual > 0 and true > 0]
    weight = 1 / PACE_SD**2 + len(logs) / SCATTER**2
    middle = (sum(logs) / SCATTER**2) / weight
    sd = weight**-0.5
    return Pace(
        factor=math.exp(middle), low=math.exp(middle - 1.96 * sd), high=math.exp(middle + 1.96 * sd), steps=len(logs)
    )


def dries(hours: float, air: Air) -> float:
    """Return how long something dries in some air, h."""
    return hours * SLOWER[air]


def rounded(minutes: float) -> int:
    """Return minutes up to whole fives: nobody plans finer."""
    return max(5, 5 * math.ceil(minutes / 5 - 1e-9))
