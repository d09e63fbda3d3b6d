"""Wobble as a library: load a job, ask its survey, solve it. These names stay as they are.

`docs/library.md` shows them at work, and is run as a test.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

import numpy as np

from wobble.core.axes import Spot, SurfaceName
from wobble.core.errors import SurveyError
from wobble.core.formats.document import read_job
from wobble.core.gauge import adjust
from wobble.core.gauge.observe import line_name
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import Job
from wobble.core.stages import Result, survey_of
from wobble.core.stages import solve as solve_stages


@dataclass(frozen=True)
class Suspect:
    """A reading that the others contradict: its fact, by how much, mm, and the slip that explains it, if one does."""

    fact: str
    by_mm: float
    sd_mm: float
    looks_like: str


@dataclass(frozen=True)
class PlaceSurvey:
    """What the readings of one place say of its surfaces.

    Attributes:
        place: Id of the place. suspects: Readings to take again, worst first.
        set_ups: Where each set-up turned out to stand, and how well that is known, mm, by its id.
    """

    place: str
    suspects: tuple[Suspect, ...]
    set_ups: Mapping[str, tuple[float, float]]
    _survey: Survey

    def at(self, surface: SurfaceName, spots: Iterable[Spot]) -> tuple[Floats, Floats]:
        """Return where a surface stands at some spots.

        Args:
            surface: One that the place has.
            spots: (first axis, second axis) of each, mm: (x, y) on floor and ceiling, (x, z) on the back, (y, z) on
                the sides.

        Returns:
            Expected coordinate and standard uncertainty, mm, each of shape (n_spots,).

        Raises:
            SurveyError: The place has no such surface.
        """
        mean, sd = self._survey.adjustment.mean_and_sd((self._known(surface), _array(spots)))
        return np.asarray(mean), np.asarray(sd)

    def draws(self, surface: SurfaceName, spots: Iterable[Spot], n: int, seed: int) -> Floats:
        """Return joint draws of a surface at some spots, mm, of shape (n, n_spots): for maxima and chances.

        Raises:
            SurveyError: The place has no such surface.
        """
        joint = self._survey.adjustment.at((self._known(surface), _array(spots)))
        return adjust.draws(joint, n, seed)

    def _known(self, surface: SurfaceName) -> SurfaceName:
        if surface not in self._survey.place.surfaces:
            raise SurveyError(
                f"The place has no {surface}.", mend=f"Ask for one of {', '.join(self._survey.place.surfaces)}."
            )
        return surface


def _array(spots: Iterable[Spot]) -> Floats:
    return np.asarray(list(spots), dtype=float).reshape(-1, 2)


def load(document: bytes) -> Job:
    """Return the job in a job document of any version.

    Raises:
        DocumentError: It is no such document, or contradicts itself; with the path of the fault and the mend.
    """
    return read_job(document)


def survey(job: Job, place_id: str) -> PlaceSurvey:
    """Return what the readings of a place say.

    Raises:
        SurveyError: The job has no such place.
    """
    found = survey_of(job, place_id)
    return PlaceSurvey(
        place=place_id,
        suspects=tuple(Suspect(d.reading_id, d.by_mm, d.sd_mm, found.cause(d)) for d in found.suspects),
        set_ups={s.id: found.adjustment.unknown(line_name(s.id)) for s in found.place.set_ups},
        _survey=found,
    )


def solve(job: Job) -> Result:
    """Return the results of all places of a job: findings, parts, fasteners, and each stage by itself."""
    return solve_stages(job)
