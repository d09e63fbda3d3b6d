"""The survey of a bay: the readings adjusted, doubted and adjusted again. The way in to this stage.

Suspect readings are left out of the figures until they are taken again; nothing is thrown away.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from wobble.core.gauge.adjust import Adjustment, adjust
from wobble.core.gauge.doubt import Disagreement, disagreements
from wobble.core.gauge.observe import Observation, observations, set_up_prior
from wobble.core.gauge.prior import SurfacePrior, surface_prior
from wobble.core.gauge.refine import changed, refined
from wobble.core.job import Bay, Instrument, Job, Reading, SurfaceName, standing_readings

TIED_SD_MM = 25.0
"""A surface whose place is better known than this is tied to the datum mark (or to the corner, for a wall)."""


@dataclass(frozen=True)
class Survey:
    """All that is known of a bay's surfaces.

    Attributes:
        bay: The bay as measured.
        adjustment: The adjustment of all readings that agree.
        disagreements: One verdict per standing reading, in order.
        readings: The readings by id.
    """

    bay: Bay
    adjustment: Adjustment
    disagreements: tuple[Disagreement, ...]
    readings: dict[str, Reading]

    @property
    def suspects(self) -> tuple[Disagreement, ...]:
        """The readings to take again, worst first."""
        return tuple(sorted((d for d in self.disagreements if d.suspect), key=lambda d: -abs(d.z)))

    def measured(self, surface: SurfaceName) -> int:
        """Return how many readings in use touch a surface."""
        return sum(any(s == surface for s, _, _ in o.surface_terms) for o in self.adjustment.observations)


def survey(job: Job, bay: Bay) -> Survey:
    """Adjust all standing readings of a bay.

    Raises:
        SurveyError: A reading names an instrument that the job does not have.
    """
    instruments: dict[str, Instrument] = {i.id: i for i in job.instruments}
    standing = standing_readings(bay)
    observed = observations(bay, standing, instruments)
    set_ups = {s.id: set_up_prior(s, bay) for s in bay.set_ups}
    priors: dict[SurfaceName, SurfacePrior] = {s: surface_prior(bay, s) for s in bay.surfaces}
    whole = adjust(observed, priors, set_ups)
    verdicts = disagreements(whole)
    agreeing = _agreeing(observed, verdicts)
    cleared = whole if len(agreeing) == len(observed) else adjust(agreeing, priors, set_ups)
    amplitudes = refined(cleared) if agreeing else {}
    if changed({s: p.amplitudes for s, p in priors.items()}, amplitudes):
        priors = {s: replace(p, amplitudes=amplitudes.get(s, p.amplitudes)) for s, p in priors.items()}
        whole = adjust(observed, priors, set_ups)
        verdicts = disagreements(whole)
        agreeing = _agreeing(observed, verdicts)
        cleared = whole if len(agreeing) == len(observed) else adjust(agreeing, priors, set_ups)
    return Survey(bay, cleared, verdicts, {r.id: r for r in standing})


def _agreeing(observed: Sequence[Observation], verdicts: Sequence[Disagreement]) -> list[Observation]:
    return [o for o, verdict in zip(observed, verdicts, strict=True) if not verdict.suspect]
