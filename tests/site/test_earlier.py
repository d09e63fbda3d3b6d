"""What earlier versions made goes on: a database of theirs, with its jobs, and documents of version 1."""

from __future__ import annotations

import json
import sqlite3
from pathlib import Path

import pytest
from django.core.management import call_command
from django.db import connections
from django.test.utils import override_settings

from wobble.core.formats.document import read_job, write_job
from wobble.core.stages import solve_fit, solve_hold
from wobble.site import rows
from wobble.site.models import Fact, Job, Place

HERE = Path(__file__).parent / "databases"
FIRST = json.loads((HERE / "before_facts.json").read_text())
"""Jobs by name: their documents of version 1, and figures that the version which wrote them gave."""


@pytest.fixture
def first_tables(tmp_path, django_db_blocker):
    """A database as it was before there were facts, opened as one of ours and brought up to date."""
    path = tmp_path / "first.sqlite3"
    with sqlite3.connect(path) as made:
        made.executescript((HERE / "before_facts.sql").read_text())
    made.close()
    settings = {**connections.databases["default"], "NAME": str(path)}
    with django_db_blocker.unblock(), override_settings():
        connections.databases["first"] = settings
        try:
            call_command("migrate", database="first", verbosity=0)
            yield "first"
        finally:
            connections["first"].close()
            del connections.databases["first"]
            del connections["first"]


def test_jobs_of_an_earlier_database_read_the_same(first_tables):
    """Every job is there, equal to its document of version 1, and its owner's."""
    stored = {row.name: row for row in Job.objects.using(first_tables)}
    assert set(stored) == set(FIRST)
    for name, row in stored.items():
        assert row.owner.username == "ines"
        assert rows.job_value(row) == read_job(json.dumps(FIRST[name]["document"]).encode())


def test_rows_with_the_words_of_the_version_between_read_the_same(first_tables):
    """Written back as they were for a while, in closings, alternatives, units and detections, and migrated again."""
    before = {row.name: rows.job_value(row) for row in Job.objects.using(first_tables)}
    call_command("migrate", "wobble", "0008", database=first_tables, verbosity=0)
    for model in (Place, Fact):
        for row in model.objects.using(first_tables):
            field = "decided" if model is Place else "fact"
            plain = json.dumps(getattr(row, field))
            for today, then in (("method", "school"), ("scribe_allowance", "spare"), ("found_by", "method")):
                plain = plain.replace(f'"{today}":', f'"{then}":')
            setattr(row, field, json.loads(plain))
            row.save()
    found = Fact.objects.using(first_tables).filter(kind="detection").first()
    assert found is not None
    assert "method" in found.fact
    call_command("migrate", database=first_tables, verbosity=0)
    assert {row.name: rows.job_value(row) for row in Job.objects.using(first_tables)} == before


@pytest.mark.parametrize("name", FIRST)
def test_a_document_of_version_1_keeps_all_that_was_entered(name):
    """What was read, found, written and decided is counted and compared in the plain document, list by list."""
    old = FIRST[name]["document"]["bays"][0]
    job = read_job(json.dumps(FIRST[name]["document"]).encode())
    place = job.places[0]
    for reading, before in zip(place.readings, old["readings"], strict=True):
        assert (reading.id, reading.taken_by, reading.supersedes) == (
            before["id"],
            before["taken_by"],
            before["supersedes"],
        )
        assert (reading.aside is None) == (before["aside"] is None)
    assert [(d.at, d.found_by, d.sees) for d in place.detections] == [
        (tuple(d["at"]), d["method"], d["sees"]) for d in old["detections"]
    ]
    assert [(o.name, o.kind, o.at, o.treatment) for o in place.obstacles] == [
        (m["name"], m["kind"], tuple(m["at"]), m["treatment"]) for m in old["marks"]
    ]
    assert [(n.text, n.taken_by) for n in place.notes] == [(n["text"], n["written_by"]) for n in old["notes"]]
    assert [u.id for u in place.units] == [u["id"] for u in old["units"]]
    assert len({fact.id for fact in place.facts}) == len(place.facts)
    assert read_job(write_job(job)) == job


def test_the_words_of_version_1_become_those_of_today():
    place = read_job(json.dumps(FIRST["Gable workroom"]["document"]).encode()).places[0]
    assert place.closing.method == "end panel"
    assert place.alternatives[0].closing.method == "face frame first"
    note = next(n for n in place.notes if n.text.startswith("Damp"))
    assert note.id != "stud-1", "a detection has that id, and a fact's is its own"


@pytest.mark.parametrize("name", FIRST)
def test_figures_of_an_earlier_version_hold(name):
    """Where the floor is has not changed by how it is written down.

    By how it is worked out it has: a surface is judged without its worst reading (decision 24), and what it does
    between readings is integrated over (25). No figure moved by more than half of the uncertainty that stands beside
    it; a reading with another sign, line or spot moves them by millimetres.
    """
    job = read_job(json.dumps(FIRST[name]["document"]).encode())
    place = job.places[0].id
    fit, hold = solve_fit(job, place), solve_hold(job, place)
    assert fit.plan is not None
    base = fit.plan.base.height
    assert base.value_mm == pytest.approx(FIRST[name]["base_mm"], abs=0.15)
    assert {shim.support for shim in fit.plan.shims} == set(FIRST[name]["shims"])
    for shim in fit.plan.shims:
        assert shim.gap.sd_mm < 1.5
        assert shim.gap.value_mm == pytest.approx(FIRST[name]["shims"][shim.support], abs=shim.gap.sd_mm / 2)
    assert {h.unit for h in hold.held} == set(FIRST[name]["screws"])


@pytest.mark.parametrize(
    ("change", "path"),
    [
        (lambda bay: bay["readings"].append("five"), "$.places[0].facts"),
        (lambda bay: bay["marks"][0].pop("kind"), "$.places[0].facts"),
        (lambda bay: bay.update(units="none"), "$.places[0].units"),
    ],
)
def test_what_is_wrong_in_a_document_of_version_1_is_refused_and_not_dropped(change, path):
    from wobble.core.errors import DocumentError

    document = json.loads(json.dumps(FIRST["Gable workroom"]["document"]))
    change(document["bays"][0])
    with pytest.raises(DocumentError) as fault:
        read_job(json.dumps(document).encode())
    assert fault.value.path.startswith(path)
