"""What is named alike, by one long word, or said twice, is drawn and listed twice: no page stops at it or runs over."""

from __future__ import annotations

import json
from typing import Any, get_args

import pytest
from django.contrib.auth import get_user_model
from tools.browser import PHONE, TABLE, overflow

from wobble.core.formats.document import read_job, write_job
from wobble.core.job import Job
from wobble.core.job.rules import MemberName
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.site import edits

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]
LONG = "Seitenverkleidungsbrettverbinder"
STAGES = ("setout", "gauge", "fit", "hold", "set", "place")


def alike(job: Job) -> Job:
    """Return a job in which everything that has a name has the same one, and what may be said twice is."""
    plain = json.loads(write_job(job))

    def rename(value: Any) -> None:
        for inner in value.values() if isinstance(value, dict) else value if isinstance(value, list) else ():
            rename(inner)
        if isinstance(value, dict) and "name" in value and value["name"] not in get_args(MemberName):
            value["name"] = LONG

    rename(plain)
    kit, sessions, shop = plain["kit"], plain["sessions"], plain["workshop"]
    for values in (kit["pieces"], kit["tapers"], shop["coats"], plain["way_in"]):
        values.extend(list(values))
    sessions["off"] = ["2027-01-06", "2027-01-06"]
    sessions["turned"] = 2 * [{"first": "buy", "then": "cut"}]
    sessions["dropped"] = ["none", "none"]
    for values in ("habits", "people"):
        sessions[values].extend([one | {"id": f"{one['id']}-too"} for one in sessions[values]])
    for place in plain["places"]:
        for fact in list(place["facts"]):
            if fact["fact"] in ("note", "obstacle", "drilled", "detection", "cut", "as set"):
                place["facts"].append(fact | {"id": f"{fact['id']}-too"})
        note = {"fact": "note", "taken_at": "2026-11-02T19:00:00Z", "taken_by": "", "text": "The door sticks."}
        place["facts"] += [note | {"id": "note-1"}, note | {"id": "note-2"}]
    return read_job(json.dumps(plain).encode())


@pytest.mark.parametrize(("made", "screen"), [(gable_workroom, TABLE), (narrowboat_galley, PHONE)])
def test_everything_is_drawn_and_listed_that_has_the_same_name_or_is_said_twice(desks, made, screen):
    desk = desks(screen)
    desk.open_demo()
    page = desk.page
    ines = get_user_model().objects.get(username="ines")
    job = f"/jobs/{edits.create_job(ines, alike(made())).pk}"
    place = made().places[0].id
    for path in (*(f"{job}/{place}/{stage}" for stage in STAGES), f"{job}/make", f"{job}/order", f"{job}/record"):
        desk.goto(path)
        assert page.locator("main").first.inner_text().strip(), path
        for n in range(page.locator(".panes button").count()):
            page.locator(".panes button").nth(n).click()
            desk.watch.still()
            assert overflow(page) <= 0, (path, n)
        assert desk.watch.faults == [], path
        assert overflow(page) <= 0, path
