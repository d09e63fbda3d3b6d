"""Every view and every part of it: no barrier, nothing that moves from under the finger, no page that stops.

What is named alike, by one long word, or said twice, is drawn and listed twice, and no page runs over for it.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterable
from typing import Any, get_args

import pytest
from django.contrib.auth import get_user_model
from tools.browser import PHONE, overflow

from tests.browser.conftest import Desk
from wobble.core.formats.document import read_job, write_job
from wobble.core.job import Job
from wobble.core.job.rules import MemberName
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.site import edits

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]
LONG = "Seitenverkleidungsbrettverbinder"
STAGES = ("setout", "gauge", "fit", "hold", "set", "place")
VIEWS = ("", "/new", "/empty", "/north/place", "/north/setout", "/north/gauge", "/north/fit", "/north/hold")
PANES = {
    "/make": ("Parts of making", ("Now and not yet", "Sheets", "Settings", "Buying", "Finish", "Workshop")),
    "/order": ("Parts of the order", ("Tonight", "The whole", "Day by day", "Sessions")),
    "/north/set": ("Parts of setting", ("Checks", "Before and after", "Found otherwise")),
    "/north/fit": ("Parts of the fit", ("Sides", "Cut lines", "Tops", "Going in", "Cut-outs", "Compare", "Divide")),
    "/north/hold": (
        "Parts of the hold",
        ("Drilling list", "Rests and joins", "Overhead", "Flatten", "Hang things on"),
    ),
}
FLAT = ("/make", "/order", "/north/set")
"""Those whose panes are looked at on both screens."""


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


def walked(desk: Desk, job: str, views: Iterable[str], panes: Iterable[str], *, colours: bool) -> dict[str, list[str]]:
    """Look at views and at all panes of some, and return what is wrong with each."""
    found: dict[str, list[str]] = {}
    for view in views:
        desk.goto(job + view)
        found[view] = desk.moved() + desk.barriers()
    for view in panes:
        group, names = PANES[view]
        desk.goto(job + view)
        for name in names:
            desk.page.get_by_role("group", name=group).get_by_role("button", name=name).click()
            desk.watch.still()
            desk.page.wait_for_timeout(100)  # drawings settle
            found[name] = desk.barriers(colours=colours)
    return {view: faults for view, faults in found.items() if faults}


def test_no_view_has_a_barrier_on_the_table(table):
    table.goto("/")
    assert table.barriers() == []
    job = table.open_demo()
    assert walked(table, job, VIEWS, FLAT, colours=True) == {}
    table.goto(job + "/record")
    assert table.barriers() == []
    table.goto(job + "/north/fit")
    table.page.get_by_role("button", name=re.compile("^Shim under A, front left")).last.click()
    assert table.barriers() == []
    table.goto("/")
    assert table.moved() + table.barriers() == []


def test_no_view_has_a_barrier_on_the_phone_whatever_is_called_alike_or_said_twice(desks):
    """In the dark; colours of panes are looked at on the one screen or the other."""
    desk = desks(PHONE, color_scheme="dark")
    desk.goto("/")
    assert desk.barriers() == []
    desk.open_demo()
    desk.goto("/")
    assert desk.moved() + desk.barriers() == []
    job = called_alike(gable_workroom())
    assert walked(desk, job, (*VIEWS, "/record"), FLAT, colours=False) == {}
    assert walked(desk, job, (), sorted(PANES.keys() - FLAT), colours=True) == {}
    desk.goto(job + "/north/fit")
    desk.page.get_by_role("button", name=re.compile("^Shim under A, front left")).last.click()
    assert desk.barriers() == []


def called_alike(job: Job) -> str:
    """Return the address of a job in which everything is called alike."""
    ines = get_user_model().objects.get(username="ines")
    return f"/jobs/{edits.create_job(ines, alike(job)).pk}"


def test_a_boat_in_which_all_is_called_alike_or_said_twice_is_drawn_and_listed(phone):
    page, galley = phone.page, narrowboat_galley()
    phone.open_demo()
    job = called_alike(galley)
    place = galley.places[0].id
    for path in (*(f"{job}/{place}/{stage}" for stage in STAGES), f"{job}/make", f"{job}/order"):
        phone.goto(path)
        assert page.locator("main").first.inner_text().strip(), path
        for n in range(page.locator(".panes button").count()):
            page.locator(".panes button").nth(n).click()
            phone.watch.still()
            assert overflow(page) <= 0, (path, n)
        assert phone.watch.faults == [], path
        assert overflow(page) <= 0, path
