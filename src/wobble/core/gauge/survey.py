"""The survey of a place: the readings adjusted, doubted and adjusted again. The way in to this stage.

Suspect readings are left out of the figures until they are taken again; nothing is thrown away. A set-up that was
knocked in the midst of its round counts as two, a surface that steps as one with an edge, though nobody said so.
"""

from __future__ import annotations

import math
from collections import Counter
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from wobble.core.gauge.adjust import Adjustment, adjust
from wobble.core.gauge.doubts.causes import likely_cause
from wobble.core.gauge.doubts.doubt import (
    PAIR,
    Disagreement,
    Knock,
    by_reading,
    critical_z,
    disagreements,
    limit_z,
    tails,
    without_worst,
)
from wobble.core.gauge.doubts.explain import LEAST_SHIFT_MM, FoundEdge, Rivals, explained
from wobble.core.gauge.doubts.refine import changed, refined
from wobble.core.gauge.observe import Observation, lean_name, leans_along, observations, unknowns
from wobble.core.gauge.prior import SurfacePrior, surface_prior
from wobble.core.gauge.share import borrowed
from wobble.core.job import TOWARDS_INSTALLER, Instrument, Job, Measured, Place, Reading, SurfaceName, active_readings

TIED_SD_MM = 25.0
"""A surface whose place is better known than this is tied to the datum mark (or to the corner, for a wall)."""
MOST_OBSERVATIONS = 1200
"""More numbers than this are not adjusted together: time grows with the cube, and surfaces are known long before."""
MISREAD_MM = 10.0
"""The slip of the rule that people make most: one centimetre."""
SURE_OF_LEAN_Z2 = 8.0
"""What the squared ratios of a line's leans must come to before they are told: once in fifty by chance for two."""


@dataclass(frozen=True)
class Thinned:
    """A reading of many numbers of which only some are used: which, how many, and how many it has."""

    reading_id: str
    used: int
    of: int


@dataclass(frozen=True)
class Leaning:
    """A set-up that leans: along which axis, by how much, mm per m, and how well that is known."""

    set_up: str
    axis: str
    by: float
    sd: float


@dataclass(frozen=True)
class Survey:
    """All that is known of a place's surfaces.

    Attributes:
        place: The place as measured.
        adjustment: The adjustment of all readings that agree.
        disagreements: One verdict per standing reading of the place's own, in order.
        readings: The readings by id.
        knock: The set-up that was knocked, if one was.
        thinned: Readings of many numbers of which only some are used.
        instruments: What the job has to measure with.
        edges: Where a surface steps, as its readings show, and nobody has said. rivals: An edge or a knock: it is not
            known which. leaning: Set-ups that lean. bends: Surfaces that
            turn sharply, as a ceiling does at its knee, though nobody said so.
    """

    place: Measured
    adjustment: Adjustment
    disagreements: tuple[Disagreement, ...]
    readings: dict[str, Reading]
    knock: Knock | None = None
    thinned: tuple[Thinned, ...] = ()
    instruments: tuple[Instrument, ...] = ()
    edges: tuple[FoundEdge, ...] = ()
    rivals: Rivals | None = None
    leaning: tuple[Leaning, ...] = ()
    bends: tuple[SurfaceName, ...] = ()

    @property
    def suspects(self) -> tuple[Disagreement, ...]:
        """The readings to take again, worst first."""
        return tuple(sorted((d for d in self.disagreements if d.suspect), key=lambda d: -abs(d.z)))

    @property
    def contradicting(self) -> tuple[Disagreement, ...]:
        """The last two readings where they contradict each other: none of them is put out, as nobody can tell which."""
        kept = [d for d in self.disagreements if not d.suspect]
        limit = critical_z(len(self.disagreements))
        return tuple(d for d in kept if abs(d.z) > limit) if len(kept) == PAIR else ()

    @cached_property
    def unseen(self) -> tuple[Disagreement, ...]:
        """Readings of one number at which a misread of one centimetre would not be seen, the blindest first.

        A misread shows where it is past the limit times what the others and the surface leave open there.
        """
        limit = limit_z(self.adjustment)
        one = Counter(o.reading_id for o in self.adjustment.observations)
        sigma = {o.reading_id: o.sigma_mm for o in self.adjustment.observations}
        blind = [
            d
            for d in self.disagreements
            if one[d.reading_id] == 1
            and limit * d.sd_mm * tails(np.asarray(d.sd_mm), np.asarray(sigma[d.reading_id])) > MISREAD_MM
        ]
        return tuple(sorted(blind, key=lambda d: -d.sd_mm))

    def measured(self, surface: SurfaceName) -> int:
        """Return how many numbers in use touch a surface."""
        return self._touching[surface]

    @cached_property
    def _touching(self) -> Counter[SurfaceName]:
        return Counter(s for o in self.adjustment.observations for s in {s for s, _, _ in o.surface_terms})

    def cause(self, doubt: Disagreement) -> str:
        """Return what a disagreement looks like, in words; empty where nothing plain explains it."""
        return likely_cause(self.readings[doubt.reading_id], doubt, self.adjustment, self.place)


@dataclass(frozen=True)
class SurveyInput:
    """All that a survey rests on: a place as measured, those that share a corner with it, and the instruments."""

    place: Measured
    neighbours: tuple[Measured, ...]
    instruments: tuple[Instrument, ...]


def survey_input(job: Job, place: Place) -> SurveyInput:
    """Return what the survey of a place of a job rests on."""
    beside = tuple(b.measured for b in job.places if b.id == place.right_is_back_of or b.right_is_back_of == place.id)
    return SurveyInput(place.measured, beside, job.instruments)


def survey(given: SurveyInput) -> Survey:
    """Adjust all active readings of a place, and what those of places that share a corner tell of it.

    Raises:
        SurveyError: A reading names an instrument that the job does not have.
    """
    instruments: dict[str, Instrument] = {i.id: i for i in given.instruments}
    place = given.place
    standing = active_readings(place)
    told = borrowed(place, given.neighbours, instruments)
    observed, thinned = _thinned([*observations(place, standing, instruments), *told.observations])
    others = unknowns(place, standing, instruments.values()) | dict(told.unknowns or {})
    priors: dict[SurfaceName, SurfacePrior] = {s: surface_prior(place, s) for s in place.surfaces}
    found = explained(observed, priors, others, {r.id: r.taken_at for r in standing})
    priors = dict(found.priors)
    whole = found.whole or adjust(found.observed, priors, found.unknowns)
    verdicts, cleared = _cleared(whole)
    amplitudes = refined(without_worst(cleared)) if cleared.observations else {}
    if changed({s: p.amplitudes for s, p in priors.items()}, amplitudes):
        priors = {s: replace(p, amplitudes=amplitudes.get(s, p.amplitudes)) for s, p in priors.items()}
        verdicts, cleared = _cleared(whole.under(priors))
    # a sharp bend, as a ceiling has at its knee, is met by steps one after the other whose heights come to nothing
    heights = tuple(_height(edge, cleared) for edge in found.edges)
    edges = tuple(e for e in heights if abs(e.by_mm) > max(LEAST_SHIFT_MM, 2 * e.sd_mm))
    own = {r.id: r for r in standing}
    return Survey(
        place,
        cleared,
        by_reading([v for v in verdicts if v.reading_id in own]),
        own,
        _as_known(found.knock, cleared),
        thinned,
        given.instruments,
        edges,
        found.rivals,
        _leaning(place, cleared),
        tuple(dict.fromkeys(e.surface for e in heights if e not in edges)),
    )


def _height(edge: FoundEdge, adjustment: Adjustment) -> FoundEdge:
    """Return an edge as high as it came out with all else known: just beyond it less just before, meaned."""
    seen = adjustment.designs[edge.surface].spots
    rows = np.unique(np.quantile(seen[:, 1 - edge.axis], (0.1, 0.5, 0.9)))
    before, beyond = (np.empty((len(rows), 2)) for _ in range(2))
    for spots, at in zip((before, beyond), edge.between("low"), strict=True):
        spots[:, edge.axis], spots[:, 1 - edge.axis] = at, rows
    joint = adjustment.at((edge.surface, before), (edge.surface, beyond))
    weights = np.repeat((-1.0, 1.0), len(rows)) * TOWARDS_INSTALLER[edge.surface] / len(rows)
    sd = math.sqrt(max(float(weights @ joint.covariance @ weights), 0.0))
    return replace(edge, by_mm=float(weights @ joint.mean), sd_mm=sd)


def _leaning(place: Measured, adjustment: Adjustment) -> tuple[Leaning, ...]:
    """Return the set-ups that lean, where that is sure of all their axes together."""
    used = {name for o in adjustment.observations for name, _ in o.unknown_terms}
    found: list[Leaning] = []
    for s in place.set_ups:
        names = {axis: lean_name(s.id, axis) for axis in leans_along(s)}
        leans = {axis: adjustment.unknown(name) for axis, name in names.items() if name in used}
        # one axis by itself may be under what is sure though the line leans askew
        if sum((by / sd) ** 2 for by, sd in leans.values() if sd > 0) > SURE_OF_LEAN_Z2:
            found += (Leaning(s.id, axis, by, sd) for axis, (by, sd) in leans.items() if abs(by) > sd)
    return tuple(found)


def _as_known(knock: Knock | None, adjustment: Adjustment) -> Knock | None:
    """Return a knock by as much as it came out with all else known."""
    if knock is None:
        return None
    by, sd = adjustment.unknown(f"knock:{knock.set_up}")
    return replace(knock, by_mm=by, sd_mm=sd)


def _thinned(observed: list[Observation]) -> tuple[list[Observation], tuple[Thinned, ...]]:
    """Return observations, few enough to be adjusted together, and what was left out of readings of many numbers.

    Single readings all stay: there is a limit to how many a place takes. Scans and profiles share what is left.
    """
    counts = Counter(o.reading_id for o in observed)
    single = sum(n for n in counts.values() if n == 1)
    many = sum(counts.values()) - single
    if len(observed) <= MOST_OBSERVATIONS or not many:
        return observed, ()
    share = max(MOST_OBSERVATIONS - single, MOST_OBSERVATIONS // 4) / many
    out: list[Observation] = []
    used: Counter[str] = Counter()
    seen: Counter[str] = Counter()
    for o in observed:
        seen[o.reading_id] += 1
        wanted = 1 if counts[o.reading_id] == 1 else math.ceil(seen[o.reading_id] * share)
        if used[o.reading_id] < wanted:
            used[o.reading_id] += 1
            out.append(o)
    return out, tuple(Thinned(id_, used[id_], n) for id_, n in counts.items() if used[id_] < n)


def _cleared(whole: Adjustment) -> tuple[tuple[Disagreement, ...], Adjustment]:
    """Return the verdicts of all readings, and the adjustment of those that agree."""
    verdicts = disagreements(whole)
    agreeing = np.flatnonzero([not verdict.suspect for verdict in verdicts])
    return verdicts, whole if len(agreeing) == len(whole.observations) else whole.only(agreeing)
