"""How many readings the base height needs: stations chosen one by one against a regular grid, on made-up floors."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wobble.core.fit.run.contact import HighPoint, high_point
from wobble.core.gauge.stations import Station, next_reading
from wobble.core.gauge.survey import Survey
from wobble.core.job import READING_KINDS, Instrument, Job, Place, SetUp, with_facts
from wobble.core.practice.instruments import read_offsets
from wobble.core.practice.rooms import ROOM_SIZE_MM, Room, made_up_room
from wobble.core.stages import survey_of

Floats = NDArray[np.float64]
TOOL = Instrument(id="rule", name="Laser and rule", sigma_mm=0.6)
LINE = SetUp(id="line", name="Level line", across="z", at_mm=1000.0)
GRIDS = ((5, 3), (7, 3), (8, 4))


@dataclass(frozen=True)
class Race:
    """Readings that a regular grid took, and those that chosen stations needed for the same uncertainty."""

    grid: int
    chosen: float

    @property
    def saved(self) -> float:
        """Share of the readings that was not needed."""
        return 1 - self.chosen / self.grid


def races(n_rooms: int) -> list[Race]:
    """Race chosen stations against regular grids; means over the rooms."""
    return [Race(n * m, float(np.mean([_chosen(seed, n, m) for seed in range(n_rooms)]))) for n, m in GRIDS]


def _spots(n_along: int, n_out: int) -> Floats:
    width, depth, _ = ROOM_SIZE_MM
    along, out = np.linspace(60, width - 60, n_along), np.linspace(60, depth - 60, n_out)
    return np.stack(np.meshgrid(along, out), axis=-1).reshape(-1, 2)


def _surveyed(room: Room, spots: Floats, seed: int) -> Survey:
    width, depth, height = ROOM_SIZE_MM
    place = Place(id="place", name="Place", width_mm=width, depth_mm=depth, height_mm=height, set_ups=(LINE,))
    readings = read_offsets(room.surfaces["floor"], "floor", spots, LINE, TOOL, seed=seed)
    job = Job(name="", instruments=(TOOL,), places=(with_facts(place, READING_KINDS, readings),))
    return survey_of(job, job.places[0].id)


def _base_height(found: Survey) -> tuple[HighPoint, Floats]:
    """Return the floor's high spot and the area on which it was sought."""
    area = _spots(33, 7)
    return high_point(found, "floor", area, 0.0)[0], area


def _chosen(seed: int, n_along: int, n_out: int) -> int:
    """Return how many chosen readings reach what the regular grid reaches."""
    room = made_up_room(seed)
    target = _base_height(_surveyed(room, _spots(n_along, n_out), seed))[0].sd_mm
    candidates = [
        Station(id=str(i), surface="floor", at=(float(x), float(y))) for i, (x, y) in enumerate(_spots(17, 5))
    ]
    taken = [0, 8, 16, 68, 84]  # both ends and the middle, to begin with
    while len(taken) < n_along * n_out:
        at = np.asarray([candidates[i].at for i in taken])
        found = _surveyed(room, at, seed)
        high, area = _base_height(found)
        if high.sd_mm <= target:
            break
        mean, _ = found.adjustment.mean_and_sd(("floor", area))
        apart = found.adjustment.sd_apart("floor", area, area[int(np.argmax(mean))])
        chance = np.exp(-0.5 * ((mean.max() - mean) / np.maximum(apart, 0.3)) ** 2)
        open_stations = [s for i, s in enumerate(candidates) if i not in taken]
        proposed = next_reading(found, open_stations, "floor", area, TOOL, weights=chance / chance.sum())
        if proposed is None:
            break
        taken.append(int(proposed.station))
    return len(taken)
