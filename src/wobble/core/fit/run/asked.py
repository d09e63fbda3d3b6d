"""What Fit is about to decide, as weighted sums of surface values: what Gauge's next reading should tell of."""

from __future__ import annotations

import numpy as np

from wobble.core.fit.run.ground import Ground
from wobble.core.gauge.next import Asked
from wobble.core.gauge.prior import Floats
from wobble.core.job import SurfaceName


def asked(ground: Ground) -> tuple[Asked, ...]:
    """Return every shim (high spot less floor) and every packing (proudest spot less wall) of a run."""
    out: list[Asked] = []
    if ground.supports:
        floor = np.asarray([s.at for s in ground.supports], dtype=float)
        out.append(_less(ground.high_spot.at, floor, "floor"))
    if ground.back_high is not None and ground.fixings:
        base = ground.high_spot.value_mm if ground.high_spot.tied else 0.0
        wall = np.asarray([(f.x_mm, base + f.over_base_mm) for f in ground.fixings], dtype=float)
        out.append(_less(ground.back_high.at, wall, "back"))
    return tuple(out)


def _less(high: tuple[float, float], spots: Floats, surface: SurfaceName) -> Asked:
    weights = np.hstack([-np.eye(len(spots)), np.ones((len(spots), 1))])
    return Asked(surface, np.vstack([spots, [high]]), weights)
