"""Starters: each makes a whole set-out, in millimetres and in inches, before anything is measured."""

from __future__ import annotations

import pytest

from tests.setout.places import job_of
from wobble.core import solve
from wobble.core.formats.document import read_job, write_job
from wobble.core.length import MM_PER_INCH
from wobble.core.setout.starters.begin import STARTERS, begin, offered
from wobble.core.setout.starters.questions import StarterError
from wobble.core.stages import solve_setout

IDS = [s.id for s in STARTERS]
BOXES = ("base", "drawers", "tall", "wall", "bench", "shelves")


@pytest.mark.parametrize("lengths", ["mm", "in"])
@pytest.mark.parametrize("starter", IDS)
def test_usual_answers_make_a_whole_document_that_nothing_stops(starter, lengths):
    place = begin(starter, "p", "P", {}, lengths)
    job = job_of(place, units=lengths)
    assert read_job(write_job(job)) == job
    out = solve_setout(job, "p")
    assert not [f.title for f in out.findings if f.severity == "stop"]
    result = solve(job).places[0]
    # nobody has read the floor nor looked for studs; nothing else stops it
    assert {f.code for f in result.findings if f.severity == "stop"} <= {
        "no-floor",
        "no-plan",
        "not-held",
        "side-not-held",
    }
    boxed = [u for u in place.units if u.kind in BOXES and not (u.ready_made and starter == "built-in")]
    assert all(u.insides is not None for u in boxed)


@pytest.mark.parametrize("starter", STARTERS, ids=IDS)
def test_three_to_six_questions_with_whole_or_half_inches(starter):
    assert 3 <= len(starter.questions) <= 6
    lengths = [q for q in starter.questions if q.kind == "length"]
    assert all(q.usual_in * 2 == int(q.usual_in * 2) for q in lengths)
    assert all(q.usual_mm == int(q.usual_mm) for q in lengths)
    # both are usual: within a tenth of each other
    assert all(abs(q.usual_in * MM_PER_INCH - q.usual_mm) <= 0.1 * q.usual_mm for q in lengths)
    assert all(q.least_mm <= q.usual_mm <= q.most_mm for q in lengths)


@pytest.mark.parametrize("starter", STARTERS, ids=IDS)
def test_every_answer_at_its_limits_is_answered(starter):
    """All smallest, all largest, each choice: a document that goes together, and findings, never a fault."""
    for pick in ("least", "most"):
        said: dict[str, float | str] = {}
        for q in starter.questions:
            if q.kind == "length":
                said[q.id] = q.least_mm if pick == "least" else q.most_mm
            elif q.kind == "count":
                said[q.id] = float(q.least if pick == "least" else q.most)
            else:
                said[q.id] = q.options[0 if pick == "least" else -1]
        if starter.id == "built-in":  # twelve pieces of 20 m are wider than any place: a refusal, with its mend
            said["bought"] = min(float(said["bought"]), float(said["wide"]) / float(said["boxes"]))
        job = job_of(begin(starter.id, "p", "P", said, "mm"))
        assert read_job(write_job(job)) == job
        solve_setout(job, "p")


def test_answers_that_cannot_be_taken_say_which_and_what_would_do():
    with pytest.raises(StarterError, match="no answer") as caught:
        begin("run", "p", "P", {"boxes": 2.5}, "mm")
    assert caught.value.path == "$.answers.boxes"
    with pytest.raises(StarterError) as caught:
        begin("run", "p", "P", {"wide": 5.0}, "in")
    assert '11 13/16"' in caught.value.mend
    with pytest.raises(StarterError, match="wider than the place"):
        begin("built-in", "p", "P", {"wide": 1000.0, "boxes": 3.0, "bought": 400.0}, "mm")
    with pytest.raises(StarterError, match="is not asked"):
        begin("run", "p", "P", {"colour": "red"}, "mm")
    with pytest.raises(StarterError, match="no starter"):
        begin("spaceship", "p", "P", {}, "mm")


def test_each_is_drawn_from_what_it_makes():
    told = offered("mm")
    assert len(told) == 14
    assert all(s.sketch for s in told)
    assert len({str(s.sketch) for s in told}) == 14
