"""What Fit is about to decide, as weighted sums of surface values: what Gauge's next reading should tell of."""

from __future__ import annotations

import numpy as np

from wobble.core.fit.run.contact import FloorContact
from wobble.core.gauge.next import Requested
from wobble.core.gauge.prior import Floats
from wobble.core.job import SurfaceName


def requested(contact: FloorContact) -> tuple[Requested, ...]:
    """Return every shim (high spot less floor) and every packing (proudest spot less wall) of a run."""
    out: list[Requested] = []
    if contact.supports:
        floor = np.asarray([s.at for s in contact.supports], dtype=float)
        out.append(_less(contact.high_spot.at, floor, "floor"))
    if contact.back_high is not None and contact.fixings:
        base = contact.high_spot.value_mm if contact.high_spot.tied else 0.0
        wall = np.asarray([(f.x_mm, base + f.over_base_mm) for f in contact.fixings], dtype=float)
        out.append(_less(contact.back_high.at, wall, "back"))
    return tuple(out)


def _less(high: tuple[float, float], spots: Floats, surface: SurfaceName) -> Requested:
    weights = np.hstack([-np.eye(len(spots)), np.ones((len(spots), 1))])
    return Requested(surface, np.vstack([spots, [high]]), weights)
