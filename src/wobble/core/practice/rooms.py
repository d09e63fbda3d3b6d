"""Made-up surfaces whose truth is known everywhere: fall, bow, local humps and hollows, filler build-up in corners."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.job import SurfaceName

ROOM_SIZE_MM = (3200.0, 620.0, 2300.0)


@dataclass(frozen=True, slots=True)
class Hump:
    """A local hump (or hollow, if negative): height mm, centre, and its radius mm in each direction."""

    height_mm: float
    centre: tuple[float, float]
    radius: tuple[float, float]


@dataclass(frozen=True, slots=True)
class TrueSurface:
    """A surface as it really is: level, two gradients in mm per mm, two bows in mm, humps, corner build-up, and boards.

    Boards are a short ripple along the first axis: height mm, pitch mm and phase in radians.
    """

    size: tuple[float, float]
    level_mm: float = 0.0
    gradient: tuple[float, float] = (0.0, 0.0)
    bow_mm: tuple[float, float] = (0.0, 0.0)
    humps: tuple[Hump, ...] = ()
    corner_mm: tuple[float, float] = (0.0, 0.0)
    boards: tuple[float, float, float] = (0.0, 100.0, 0.0)

    def at(self, spots: Floats) -> Floats:
        """Return the true coordinate, mm, at spots of shape (n, 2)."""
        p = np.asarray(spots, dtype=float)
        t = p / np.asarray(self.size)
        value = self.level_mm + p @ np.asarray(self.gradient)
        value = value + (4 * t * (1 - t)) @ np.asarray(self.bow_mm)
        for hump in self.humps:
            q = (p - np.asarray(hump.centre)) / np.asarray(hump.radius)
            value = value + hump.height_mm * np.exp(-0.5 * np.einsum("ij,ij->i", q, q))
        left, right = self.corner_mm
        value = value + left * np.exp(-p[:, 0] / 80.0) + right * np.exp(-(self.size[0] - p[:, 0]) / 80.0)
        height, pitch, phase = self.boards
        return np.asarray(value + height * np.sin(2 * np.pi * p[:, 0] / pitch + phase))


@dataclass(frozen=True, slots=True)
class Room:
    """A made-up room: width, depth and height, mm, and its true surfaces."""

    size: tuple[float, float, float]
    surfaces: dict[SurfaceName, TrueSurface]


def made_up_room(seed: int) -> Room:
    """Return a room of five crooked surfaces, the same for the same seed; each bows most along its longer side."""
    rng = np.random.default_rng(seed)
    width, depth, height = ROOM_SIZE_MM
    floor = _surface(rng, (width, depth), fall=0.005, bow=(5.0, 5.0 / 3), corner=0.0)
    back = _surface(rng, (width, height), fall=0.006, bow=(6.0, 2.0), corner=3.0)
    left = _surface(rng, (depth, height), fall=0.006, bow=(1.0, 3.0), corner=2.0, far_corner=0.0, n_humps=(0, 3))
    right = _surface(rng, (depth, height), fall=0.006, bow=(1.0, 3.0), corner=2.0, far_corner=0.0, n_humps=(0, 3))
    ceiling = _surface(rng, (width, depth), fall=0.006, bow=(3.0, 1.0), corner=0.0)
    right, ceiling = replace(right, level_mm=width), replace(ceiling, level_mm=height)
    return Room(ROOM_SIZE_MM, {"floor": floor, "back": back, "left": left, "right": right, "ceiling": ceiling})


def _surface(
    rng: np.random.Generator,
    size: tuple[float, float],
    *,
    fall: float,
    bow: tuple[float, float],
    corner: float,
    far_corner: float | None = None,
    n_humps: tuple[int, int] = (1, 4),
) -> TrueSurface:
    humps = tuple(
        Hump(
            float(rng.uniform(1.0, 4.0) * rng.choice([-1, 1])),
            (float(rng.uniform(0, size[0])), float(rng.uniform(0, size[1]))),
            (float(rng.uniform(250, 700)), float(rng.uniform(250, 700))),
        )
        for _ in range(int(rng.integers(*n_humps)))
    )
    return TrueSurface(
        size,
        gradient=(float(rng.normal(0, fall)), float(rng.normal(0, fall))),
        bow_mm=(float(rng.normal(0, bow[0])), float(rng.normal(0, bow[1]))),
        humps=humps,
        corner_mm=(
            float(rng.uniform(0, corner)),
            float(rng.uniform(0, corner if far_corner is None else far_corner)),
        ),
        boards=(float(rng.uniform(0, 0.6)), float(rng.uniform(90, 200)), float(rng.uniform(0, 2 * np.pi))),
    )
