"""What several stages rest on, each worked out once: a place's survey, its walls as draws, what its run stands on."""

from __future__ import annotations

from collections.abc import Hashable
from typing import Any

from msgspec import json
from msgspec.structs import replace

from wobble.core.errors import NotThere
from wobble.core.fit.run.contact import Behind, BehindInput, FloorContact, FloorContactInput, HighPoint, behind, contact
from wobble.core.fit.run.tiers import on_floor
from wobble.core.fit.surfaces.walls import Walls, walls
from wobble.core.gauge.adjust import MOST_ASKED, MOST_ASKED_BYTES
from wobble.core.gauge.survey import Survey, SurveyInput, survey, survey_input
from wobble.core.job import Job, Measured, Place, Sessions
from wobble.core.stages.remember import FEW, Remembered


def find_place(job: Job, place_id: str) -> Place:
    """Return a place by its id.

    Raises:
        NotThere: The job has no such place.
    """
    for place in job.places:
        if place.id == place_id:
            return place
    raise NotThere(f"There is no place “{place_id}” in this job.", mend="Choose one of the job's places.")


MB = 2**20


def _survey_bytes(found: Survey) -> int:
    # its covariance, factor, weights and inverse, each square in the readings; what it was asked last
    return 40_000 + 32 * len(found.adjustment.observations) ** 2 + MOST_ASKED * MOST_ASKED_BYTES


def _walls_bytes(found: Walls) -> int:
    drawn = (found.left, found.right, found.ceiling)
    return 10_000 + sum(d.sampled.nbytes + d.mean.nbytes for d in drawn if d is not None)


def _high_bytes(*points: HighPoint | None) -> int:
    return sum(p.draws_mm.nbytes for p in points if p is not None)


def _behind_bytes(found: Behind | None) -> int:
    if found is None:
        return 200
    return 10_000 + found.area.nbytes + found.mean.nbytes + _high_bytes(found.high, found.hung)


def _contact_bytes(found: FloorContact) -> int:
    return 20_000 + _high_bytes(found.high_spot) + found.floor_at_supports.covariance.nbytes


def which(place: Measured) -> Hashable:
    """Return what tells one place from others, of this job or another, whatever is read of it later."""
    first = place.facts[0] if place.facts else None
    return (place.id, place.name, None if first is None else (first.id, first.taken_at))


def which_of(given: SurveyInput) -> Hashable:
    """Return which place a survey is of."""
    return which(given.place)


_SURVEYS = Remembered[SurveyInput, Survey](_survey_bytes, 40 * MB, which_of, FEW)
_WALLS = Remembered[SurveyInput, Walls](_walls_bytes, 30 * MB, which_of, FEW)
_BEHIND = Remembered[BehindInput, "Behind | None"](_behind_bytes, 8 * MB, lambda given: which_of(given.survey))
_CONTACTS = Remembered[FloorContactInput, FloorContact](_contact_bytes, 12 * MB, lambda given: which_of(given.survey))


def _survey(given: SurveyInput) -> Survey:
    return _SURVEYS.get(given, lambda: survey(given))


def _walls(given: SurveyInput) -> Walls:
    return _WALLS.get(given, lambda: walls(_survey(given)))


def _behind(given: BehindInput) -> Behind | None:
    return _BEHIND.get(given, lambda: behind(_survey(given.survey), given.units, given.turn_mm_per_m))


def _floor_contact(given: FloorContactInput) -> FloorContact:
    return _CONTACTS.get(
        given, lambda: contact(_survey(given.survey), given.units, given.back_line, _behind(given.behind))
    )


def survey_of(job: Job, place_id: str) -> Survey:
    """Return the survey of a place; the last few are remembered by what was measured, whatever was decided since."""
    return _survey(survey_input(job, find_place(job, place_id)))


def walls_of(job: Job, place_id: str) -> Walls:
    """Return a place's side walls and ceiling as draws, remembered by what was measured."""
    return _walls(survey_input(job, find_place(job, place_id)))


def floor_contact_of(job: Job, place_id: str) -> FloorContact | None:
    """Return what a run stands on and against; None without units, or where they stand on a floor nobody read.

    Remembered whatever the datum and the kit: turning those needs no new survey.
    """
    place = find_place(job, place_id)
    if not place.units or (any(on_floor(u) for u in place.units) and not survey_of(job, place_id).measured("floor")):
        return None
    return _floor_contact(FloorContactInput(survey_input(job, place), place.units, place.back_line))


KEPT: tuple[Remembered[Any, Any], ...] = (_SURVEYS, _WALLS, _BEHIND, _CONTACTS)
"""All that is remembered here."""


def bearing_on(job: Job, place_id: str) -> tuple[str, Job]:
    """Return all that the answers of a place rest on: what a job is called, and its other places, are no part of it.

    Without a place, all that the answers for the whole job rest on.

    Raises:
        NotThere: The job has no such place.
    """
    if not place_id:  # what is made is made for all places together
        return "", replace(job, address="", note="")
    place = find_place(job, place_id)
    near = {p.id for p in survey_input(job, place).neighbours} | {place_id}
    places = tuple(p for p in job.places if p.id in near)
    return place_id, replace(job, name="", address="", note="", places=places, sessions=Sessions())


def rests_on(job: Job, place_id: str) -> bytes:
    """Return in one form all that the answers of a place rest on.

    Raises:
        NotThere: The job has no such place.
    """
    return json.encode(bearing_on(job, place_id))
