"""What a moulding lies against: how far its wall falls back under it, and how the ceiling rises and falls over it."""

from __future__ import annotations

import itertools
import math
from typing import Literal

import numpy as np

from wobble.core.figure import Figure, Step
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.shares import Share, shares
from wobble.core.gauge.survey import Survey
from wobble.core.job import Unit

SPOTS = 25
UNDER_CEILING_MM = 60.0
"""What ends so near under a ceiling is seen against it."""


def hollow(survey: Survey, unit: Unit, up: float) -> Figure | None:
    """Return the largest gap behind a straight moulding that touches its wall where that is proudest."""
    if "back" not in survey.place.surfaces or not survey.measured("back"):
        return None
    x = np.linspace(unit.x_mm, unit.right_mm, SPOTS)
    spots = np.column_stack([x, np.full(SPOTS, min(max(up, 0.0), survey.place.height_mm))])
    joint = survey.adjustment.at(("back", spots))
    left, middle, right, share = _deepest(x, joint.mean)
    weights = np.zeros(SPOTS)
    weights[left] += 1 - share
    weights[right] += share
    weights[middle] -= 1.0
    sd = math.sqrt(max(float(weights @ joint.covariance @ weights), 0.0))
    at = (float(x[middle]), float(spots[middle, 1]))
    value = max(float(weights @ joint.mean), 0.0)
    rests = shares(survey, "back", spots[[middle]])[0]
    step = Step(label="The wall behind it", surface="back", at=at, value_mm=value, sd_mm=sd, rests_on=rests)
    return Figure(value_mm=value, sd_mm=sd, working=(step,))


def _deepest(x: Floats, y: Floats) -> tuple[int, int, int, float]:
    """Return where a line over the highest points stands highest over what lies between: both points, and where."""
    hull: list[int] = []
    for i in range(len(x)):
        while len(hull) > 1 and (y[hull[-1]] - y[hull[-2]]) * (x[i] - x[hull[-2]]) <= (y[i] - y[hull[-2]]) * (
            x[hull[-1]] - x[hull[-2]]
        ):
            hull.pop()
        hull.append(i)
    best = (-1.0, 0, 0, 0, 0.0)
    for a, b in itertools.pairwise(hull):
        for i in range(a, b + 1):
            share = float((x[i] - x[a]) / (x[b] - x[a]))
            gap = float((1 - share) * y[a] + share * y[b] - y[i])
            if gap > best[0]:
                best = (gap, a, i, b, share)
    return best[1:]


def under_ceiling(survey: Survey, unit: Unit, base: float, out: float) -> Figure | None:
    """Return how far the ceiling rises and falls over a moulding held level; None where none is near or read."""
    place = survey.place
    if "ceiling" not in place.surfaces or not survey.measured("ceiling"):
        return None
    x = np.linspace(unit.x_mm, unit.right_mm, SPOTS)
    spots = np.column_stack([x, np.full(SPOTS, min(out, place.depth_mm))])
    joint = survey.adjustment.at(("ceiling", spots))
    low, high = int(np.argmin(joint.mean)), int(np.argmax(joint.mean))
    top = base + unit.over_base_mm + unit.height_mm
    if not -UNDER_CEILING_MM < float(joint.mean[low]) - top < UNDER_CEILING_MM:
        return None
    weights = np.zeros(SPOTS)
    weights[high] += 1.0
    weights[low] -= 1.0
    value, sd = float(weights @ joint.mean), math.sqrt(max(float(weights @ joint.covariance @ weights), 0.0))
    rests = shares(survey, "ceiling", spots[[high, low]])

    def step(label: str, i: int, sign: Literal[1, -1], rest: tuple[Share, ...]) -> Step:
        at = (float(x[i]), float(spots[i, 1]))
        mean, own = float(joint.mean[i]), float(joint.sd[i])
        return Step(label=label, surface="ceiling", at=at, sign=sign, value_mm=mean, sd_mm=own, rests_on=rest)

    steps = (step("Ceiling where it is highest", high, 1, rests[0]), step("and lowest", low, -1, rests[1]))
    return Figure(value_mm=value, sd_mm=sd, working=steps)
