"""Set out through the API: tried without keeping, kept beside what another changed, begun, refused with its path."""

from __future__ import annotations

import pytest

from wobble.core.formats.document import write_job
from wobble.core.practice.signal_cabin import signal_cabin
from wobble.core.setout.laid import SetOut
from wobble.site.models import Place

NAMES = SetOut.__struct_fields__


@pytest.fixture
def cabin(ines):
    return ines.import_job(write_job(signal_cabin()))


def said(stored):
    place = stored["job"]["places"][0]
    return {name: place[name] for name in NAMES}


def test_a_move_is_tried_and_nothing_is_kept(ines, cabin):
    path = f"/jobs/{cabin['id']}/places/south-bench/setout"
    move = {"move": "type width", "unit": "B", "wide_mm": 900}
    _, tried = ines.post(path, {"said": said(cabin), "move": move})
    units = {u["unit"]["id"]: u["unit"] for u in tried["laid"]["units"]}
    assert units["B"]["width_mm"] == pytest.approx(900.0)
    assert Place.objects.get(key="south-bench").decided["rules"] == said(cabin)["rules"]
    # what was tried is what is told once it is kept
    status, _ = ines.put(path, {"was": said(cabin), "now": tried["said"], "settle": None})
    assert status == 200
    assert ines.get(path)[1]["units"] == tried["laid"]["units"]


def test_two_who_set_out_different_pieces_both_keep_theirs(ines, cabin):
    path = f"/jobs/{cabin['id']}/places/south-bench/setout"
    was = said(cabin)

    def with_depth(i, mm):
        units = [dict(u) for u in was["units"]]
        units[i]["depth_mm"] = mm
        return was | {"units": units}

    assert ines.put(path, {"was": was, "now": with_depth(0, 480.0), "settle": None})[0] == 200
    assert ines.put(path, {"was": was, "now": with_depth(2, 470.0), "settle": None})[0] == 200
    decided = Place.objects.get(key="south-bench").decided
    assert [decided["units"][i]["depth_mm"] for i in (0, 2)] == [480.0, 470.0]
    status, clash = ines.put(path, {"was": was, "now": with_depth(0, 460.0), "settle": None})
    assert status == 409
    assert clash["sides"][0]["path"] == "$.units[A].depth_mm"


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"rules": [{"rule": "equal", "id": "r1", "units": ["A", "A"]}]}, "$.said.rules[0].units[1]"),
        ({"heights": [{"id": "s", "members": [{"name": "board", "high_mm": 18}, {"name": "base", "high_mm": 60}]}]},
         "$.said.heights[0].members"),
        ({"existing": [{"id": "A", "name": "A", "x_mm": 0, "width_mm": 1, "height_mm": 1, "depth_mm": 1}]},
         "$.said.existing[0].id"),
    ],
)  # fmt: skip
def test_what_does_not_go_together_is_refused_with_its_path(ines, cabin, change, path):
    sent = {"said": said(cabin) | change, "move": None}
    status, refused = ines.post(f"/jobs/{cabin['id']}/places/south-bench/setout", sent)
    assert status == 422
    assert refused["path"] == path


def test_a_body_that_is_not_of_its_kind_is_refused(ines, cabin):
    now = said(cabin)
    now["units"] = [u | ({"body": {"body": "boarding"}} if u["id"] == "A" else {}) for u in now["units"]]
    status, refused = ines.post(f"/jobs/{cabin['id']}/places/south-bench/setout", {"said": now, "move": None})
    assert (status, refused["path"]) == (422, "$.said.units[0].body")


def test_a_move_that_cannot_be_made_says_why(ines, cabin):
    sent = {"said": said(cabin), "move": {"move": "merge", "units": ["A", "D"]}}
    status, refused = ines.post(f"/jobs/{cabin['id']}/places/south-bench/setout", sent)
    assert status == 422
    assert "side by side" in refused["message"]


def test_a_place_is_begun_from_answers_in_the_jobs_own_units(ines, cabin):
    _, told = ines.get("/starters?units=in")
    assert len(told) == 14
    sent = {"starter": "run", "id": "mill", "name": "Mill wall", "answers": {"wide": 3000, "boxes": 5}}
    assert ines.post(f"/jobs/{cabin['id']}/begin", sent)[0] == 200
    place = Place.objects.get(key="mill").decided
    assert (place["width_mm"], len(place["units"])) == (3000, 6)
    status, again = ines.post(f"/jobs/{cabin['id']}/begin", sent)
    assert (status, again["path"]) == (422, "$.now.id")
    status, odd = ines.post(f"/jobs/{cabin['id']}/begin", sent | {"id": "m2", "answers": {"boxes": 40}})
    assert (status, odd["path"]) == (422, "$.answers.boxes")


def test_ways_of_building_are_said_once_and_followed(ines, cabin):
    was = cabin["job"]["constructions"]
    now = [was[0] | {"board_mm": 15.0}, *was[1:]]
    edit = {"was": {"constructions": was}, "now": {"constructions": now}, "settle": None}
    assert ines.put(f"/jobs/{cabin['id']}/constructions", edit)[0] == 200
    _, out = ines.get(f"/jobs/{cabin['id']}/places/south-bench/setout")
    tools = next(u for u in out["units"] if u["unit"]["id"] == "C")
    assert tools["cells"][0]["rect"]["x_mm"] == 15.0
