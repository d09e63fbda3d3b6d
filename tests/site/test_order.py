"""Order over the API: the plan, tonight, sessions as they are edited, the calendar, day sheets."""

from __future__ import annotations

import io
from datetime import datetime
from typing import Any

import pytest
import vobject
from pypdf import PdfReader

NOW = "2026-03-07T08:00:00+01:00"
AT = NOW.replace("+", "%2B")


@pytest.fixture
def stored(ines) -> dict[str, Any]:
    return dict(ines.import_job())


def test_the_plan_follows_what_is_said_and_what_is_done(ines, stored):
    path = f"/jobs/{stored['id']}"
    status, planned = ines.get(f"{path}/order?now={AT}")
    assert status == 200
    assert planned["now"] == "2026-03-07T08:00"
    first = next(s for s in planned["steps"] if s["state"] == "ready")
    fact = {
        "fact": "step",
        "id": "s-1",
        "taken_at": "2026-03-07T08:30:00Z",
        "step": first["step"]["key"],
        "minutes": 45,
    }
    assert ines.post(f"{path}/places/north/facts", {"facts": [fact]})[0] == 200
    later = ines.get(f"{path}/order?now={AT}")[1]
    assert next(s for s in later["steps"] if s["step"]["key"] == fact["step"])["state"] == "done"
    assert later["paces"][0]["pace"]["steps"] == 1
    was = stored["job"]["sessions"]
    now = was | {"off": ["2026-03-10"], "air": "cool"}
    status, changed = ines.put(f"{path}/sessions", {"was": {"sessions": was}, "now": {"sessions": now}})
    assert (status, changed["job"]["sessions"]["air"]) == (200, "cool")
    cold = ines.get(f"{path}/order?now={AT}")[1]
    assert not any(s["start"].startswith("2026-03-10") for s in cold["sessions"])


def test_what_is_wrong_with_sessions_is_told_with_its_path(ines, stored):
    path, was = f"/jobs/{stored['id']}/sessions", stored["job"]["sessions"]
    for now, where in (
        (was | {"off": ["2026-02-30"]}, "$.now.sessions"),
        (was | {"habits": [{"id": "h", "name": "H", "days": ["tue"], "people": ["nobody"]}]}, "$.sessions.habits[0]"),
        (was | {"machines_away": ["none"]}, "$.sessions.machines_away[0]"),
    ):
        status, fault = ines.put(path, {"was": {"sessions": was}, "now": {"sessions": now}})
        assert status == 422
        assert fault["path"].startswith(where)
        assert fault["mend"]


def test_tonight_is_asked_with_its_minutes_and_hands(ines, stored):
    path = f"/jobs/{stored['id']}/tonight"
    status, found = ines.post(path, {"now": NOW, "minutes": 120, "people": ["own", "helper"]})
    assert status == 200
    assert found["tonight"]["minutes"] <= 120
    assert ines.post(path, {"now": NOW, "minutes": 2})[0] == 422
    assert ines.get(f"/jobs/{stored['id']}/order?now=soon")[1]["path"] == "now"


def test_the_calendar_is_read_by_another_parser_with_every_session_in_it(ines, stored):
    path = f"/jobs/{stored['id']}"
    planned = ines.get(f"{path}/order?now={AT}")[1]
    response = ines.client.get(f"/api{path}/order.ics?now={AT}")
    assert response.headers["Content-Type"].startswith("text/calendar")
    found = vobject.readOne(response.content.decode())
    events = list(found.vevent_list)
    assert len(events) == len(planned["sessions"])
    assert len({e.uid.value for e in events}) == len(events)
    for event, session in zip(events, planned["sessions"], strict=True):
        assert event.dtstart.value == datetime.fromisoformat(session["start"])  # no zone: the clock on the wall
        assert event.dtend.value == datetime.fromisoformat(session["end"])
        assert "Gable" in event.summary.value
    names = {s["step"]["key"]: s["step"]["name"] for s in planned["steps"]}
    assert names[planned["sessions"][0]["steps"][0]] in events[0].description.value


def test_a_day_sheet_has_the_days_steps_and_what_to_bring(ines, stored):
    path = f"/jobs/{stored['id']}"
    planned = ines.get(f"{path}/order?now={AT}")[1]
    with_cuts = next(s for s in planned["sessions"] if any(k.startswith(("set/", "fasten/")) for k in s["steps"]))
    day = with_cuts["start"][:10]
    response = ines.client.get(f"/api{path}/days/{day}.pdf?now={AT}")
    text = "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(response.content)).pages)
    for key in with_cuts["steps"]:
        name = next(s["step"]["name"] for s in planned["steps"] if s["step"]["key"] == key)
        assert name[:30] in text
    assert "Bring" in text
    assert ines.get(f"{path}/days/2026-13-01.pdf")[0] == 422
