"""The API: whose jobs they are, that readings are facts, and that nobody overwrites what he has not seen."""

from __future__ import annotations

import json
from copy import deepcopy
from typing import Any

import pytest
from django.test import Client
from tools.write_schemas import FIELDS, GLOSSARY, OPENAPI, fields, glossary, openapi

from wobble.core.formats.document import read_job, write_job
from wobble.core.length import parse_length
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import solve_fit, solve_gauge, solve_traits
from wobble.site import rows
from wobble.site.models import Fact, Job

READING = {
    "fact": "offset",
    "id": "0b0c7f7e-6b50-4b5e-8a43-2f9b6f1f0001",
    "instrument": "laser",
    "taken_at": "2026-03-08T10:00:00Z",
    "surface": "floor",
    "at": [1570, 300],
    "set_up": "line-1",
    "value_mm": 1002.5,
}


def edit(drawn: dict[str, Any], **changed: Any) -> dict[str, Any]:
    """A form's edit of some fields, from the values that it was drawn from."""
    return {"was": {name: drawn[name] for name in changed}, "now": changed}


def place_path(stored, rest=""):
    return f"/jobs/{stored['id']}/places/north{rest}"


def test_a_stranger_gets_nothing(db):
    client = Client()
    for path in ("/api/jobs", "/api/jobs/7a0d3c1e-0000-4000-8000-000000000000/places/north/fit"):
        answer = client.get(path)
        assert answer.status_code == 401
        assert answer.json()["mend"]


def test_an_edit_without_the_token_is_refused(ines):
    status, _ = ines.send("POST", "/jobs", write_job(gable_workroom()), token="")
    assert status == 403
    assert not Job.objects.exists()


def test_signing_in_needs_the_right_password(ines):
    client = Client(enforce_csrf_checks=True)
    token = client.get("/api/session").json()["csrf"]

    def attempt(password):
        body = json.dumps({"user": "ines", "password": password})
        return client.post("/api/session", body, content_type="application/json", headers={"X-CSRFToken": token})

    refused = attempt("clean hands")
    assert (refused.status_code, refused.json()["code"]) == (403, "sign-in")
    assert client.get("/api/jobs").status_code == 401
    assert attempt("dusty hands").json()["user"] == "ines"
    assert client.get("/api/jobs").status_code == 200


def test_the_demo_button_works_only_where_the_demo_is_open(db, settings):
    client = Client()
    settings.DEMO = False
    assert client.post("/api/session/demo").status_code == 403
    settings.DEMO = True
    assert client.post("/api/session/demo").json()["name"] == "Ines"
    assert {job["name"] for job in client.get("/api/jobs").json()} == {
        "Gable workroom",
        "Vestry press",
        "Narrowboat galley",
        "Drying loft",
        "Signal cabin",
        "First job",
    }


def test_jobs_are_listed_last_changed_first(ines):
    made = [ines.import_job() for _ in range(4)]
    about = {name: made[1]["job"][name] for name in ("name", "address", "note", "units")}
    ines.put(f"/jobs/{made[1]['id']}/about", {"was": about, "now": about | {"note": "seen"}, "settle": None})
    listed = [job["id"] for job in ines.get("/jobs")[1]]
    assert listed == [made[i]["id"] for i in (1, 3, 2, 0)]


def test_every_call_on_a_job_refuses_another_user(ines, tomas):
    """All calls that the API document lists, each with the least body that it takes: as if there were no such job."""
    stored = ines.import_job()
    document = json.loads(OPENAPI.read_text())
    asked = 0
    for path, methods in document["paths"].items():
        if "{job_id}" not in path:
            continue
        for method, call in methods.items():
            ids = {
                "job_id": stored["id"],
                "place_id": "north",
                "fact_id": "gw-05",
                "scribe_id": "T-back",
                "rod": "long",
                "mark": "A1",
                "form": "svg",
                "number": 1,
                "what": "parts",
                "day": "2026-03-07",
                "digest": "0" * 64,
            }
            query = "?surface=floor&name=a.xyz" if path.endswith("/scan") else ""
            schema = call.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema")
            body = least(schema, document["components"]["schemas"]) if schema else None
            address = path.removeprefix("/api").format(**ids) + query
            status, fault = tomas.get(address) if method == "get" else tomas.send(method.upper(), address, body)
            assert (status, fault["code"]) == (404, "not-found"), (method, path, fault)
            asked += 1
    assert asked >= 20
    assert ines.get(f"/jobs/{stored['id']}")[1] == stored


def least(schema: dict[str, Any], known: dict[str, Any]) -> Any:
    """Return the least value that a JSON schema takes."""
    if "$ref" in schema:
        return least(known[schema["$ref"].split("/")[-1]], known)
    for choice in ("anyOf", "oneOf"):
        if choice in schema:
            return least(schema[choice][0], known)
    if "const" in schema or "enum" in schema:
        return schema.get("const", schema.get("enum", [None])[0])
    match schema.get("type"):
        case "object":
            return {name: least(schema["properties"][name], known) for name in schema.get("required", ())}
        case "array":
            n = schema.get("minItems", 0)
            items = schema.get("prefixItems") or [schema.get("items", {})] * n
            return [least(item, known) for item in items[: max(n, len(schema.get("prefixItems", ())))]]
        case "string":
            return "2026-03-08T10:00:00Z" if schema.get("format") == "date-time" else "a"
        case "number" | "integer":
            return max(schema.get("minimum", 0), schema.get("exclusiveMinimum", 0) + 1, 1)
        case "boolean":
            return False
    return None


def test_import_and_export_lose_nothing(ines):
    document = write_job(gable_workroom())
    stored = ines.import_job(document)
    exported = ines.client.get(f"/api/jobs/{stored['id']}/document")
    assert exported.content == document
    assert 'filename="gable-workroom.wobble.json"' in exported["Content-Disposition"]
    assert rows.job_value(Job.objects.get()) == gable_workroom()


def test_a_spoilt_document_stores_nothing_and_names_the_path(ines):
    plain = json.loads(write_job(gable_workroom()))
    plain["places"][0]["units"][2]["width_mm"] = "wide"
    status, fault = ines.post("/jobs", plain)
    assert (status, fault["path"]) == (422, "$.places[0].units[2].width_mm")
    status, fault = ines.post("/jobs", b" " * (10 * 1024 * 1024 + 1))
    assert status == 422
    assert "10 MB" in fault["message"]
    assert not Job.objects.exists()


def test_the_api_answers_what_the_core_answers(ines):
    stored = ines.import_job()
    import msgspec

    for path, solved in (("/fit", solve_fit), ("/gauge", solve_gauge), ("/traits", solve_traits)):
        assert ines.get(place_path(stored, path))[1] == json.loads(
            msgspec.json.encode(solved(gable_workroom(), "north"))
        )


def test_a_reading_sent_twice_is_stored_once(ines):
    stored = ines.import_job()
    path = place_path(stored, "/facts")
    first = ines.post(path, {"facts": [READING]})[1]
    second = ines.post(path, {"facts": [READING]})[1]
    assert (first["stored"], first["known"]) == ([READING["id"]], [])
    assert (second["stored"], second["known"]) == ([], [READING["id"]])
    assert second["revision"] == first["revision"]
    assert Fact.objects.filter(key=READING["id"]).count() == 1


def test_a_reading_is_never_overwritten(ines):
    stored = ines.import_job()
    ines.post(place_path(stored, "/facts"), {"facts": [READING]})
    status, fault = ines.post(place_path(stored, "/facts"), {"facts": [READING | {"value_mm": 999.0}]})
    assert (status, fault["code"]) == (409, "differs")
    assert Fact.objects.get(key=READING["id"]).fact["value_mm"] == 1002.5


@pytest.mark.parametrize(
    ("change", "word"),
    [
        ({"at": [99999, 60]}, "outside its place"),
        ({"set_up": "ghost"}, "no set-up"),
        ({"value_mm": None}, "value_mm"),
        ({"fact": "guess"}, "guess"),
    ],
)
def test_one_bad_reading_of_a_batch_stores_none(ines, change, word):
    stored = ines.import_job()
    good = READING | {"id": "good"}
    status, fault = ines.post(place_path(stored, "/facts"), {"facts": [good, READING | change]})
    assert status == 422
    assert word in fault["message"] + fault["path"]
    assert "[1]" in fault["path"]
    assert not Fact.objects.filter(key="good").exists()


def test_taking_a_reading_again_supersedes_it_and_both_stay(ines):
    stored = ines.import_job()
    again = READING | {"id": "again", "at": [2090, 60], "value_mm": 998.5, "supersedes": "gw-05"}
    assert ines.post(place_path(stored, "/facts"), {"facts": [again]})[0] == 200
    place = ines.get(place_path(stored, "/gauge"))[1]
    assert not [v for v in place["verdicts"] if v["verdict"] == "take again"]
    assert "gw-05" not in {v["reading"] for v in place["verdicts"]}
    assert Fact.objects.filter(key="gw-05").exists()


def test_a_reading_set_aside_can_be_put_back(ines):
    stored = ines.import_job()
    path = place_path(stored, "/facts/gw-05/aside")
    reason = {"reason": "stood on a clip", "by": "Ines", "at": "2026-03-08T10:00:00Z"}
    assert ines.put(path, reason)[0] == 200
    kept = next(r for r in ines.get(f"/jobs/{stored['id']}")[1]["job"]["places"][0]["facts"] if r["id"] == "gw-05")
    assert kept["aside"]["reason"] == "stood on a clip"
    assert ines.send("DELETE", path)[0] == 200
    assert ines.get(f"/jobs/{stored['id']}")[1]["job"] == stored["job"]


def test_a_place_is_changed_and_its_readings_stay(ines):
    stored = ines.import_job()
    place = deepcopy(stored["job"]["places"][0]) | {"facts": []}
    place["units"] = place["units"][:2]
    status, after = ines.put(f"/jobs/{stored['id']}/places", {"was": stored["job"]["places"][0], "now": place})
    assert status == 200
    changed = after["job"]["places"][0]
    assert len(changed["units"]) == 2
    assert changed["facts"] == stored["job"]["places"][0]["facts"]


def test_a_place_may_not_shrink_from_under_its_readings(ines):
    stored = ines.import_job()
    place = stored["job"]["places"][0] | {"facts": [], "width_mm": 1000.0}
    status, fault = ines.put(f"/jobs/{stored['id']}/places", {"was": stored["job"]["places"][0], "now": place})
    assert status == 422
    assert "outside its place" in fault["message"]
    assert ines.get(f"/jobs/{stored['id']}")[1] == stored


def test_an_instrument_in_use_cannot_be_taken_away(ines):
    stored = ines.import_job()
    status, fault = ines.put(f"/jobs/{stored['id']}/instruments", edit(stored["job"], instruments=[]))
    assert status == 422
    assert "instrument" in fault["message"]


def test_a_turned_decision_is_tried_without_being_kept(ines):
    stored = ines.import_job()
    turned = {"datum": {"rule": "fixed top", "top_mm": 720.0}, "back_line": {"off_mm": 4.0}}
    status, tried = ines.post(place_path(stored, "/fit"), turned)
    assert status == 200
    assert any(f["code"] == "top-too-low" for f in tried["findings"])
    assert ines.get(f"/jobs/{stored['id']}")[1] == stored


def test_a_kit_is_stored_and_read_back(ines):
    stored = ines.import_job()
    kit = stored["job"]["kit"] | {"pieces": [{"thickness_mm": 1.5, "count": None}], "tapers": []}
    status, after = ines.put(f"/jobs/{stored['id']}/kit", edit(stored["job"], kit=kit))
    assert (status, after["job"]["kit"]) == (200, kit)
    assert read_job(json.dumps(after["job"]).encode()).kit.pieces[0].thickness_mm == 1.5


def test_an_unknown_call_answers_in_json(ines):
    assert ines.get("/nonsense")[0] == 404


def test_the_openapi_document_in_the_repository_is_the_one_in_force():
    assert OPENAPI.read_text() == openapi()


def test_the_forms_fields_in_the_repository_are_those_of_the_core():
    assert FIELDS.read_text() == fields()


def test_the_glossary_beside_the_readme_is_that_of_the_screens():
    assert GLOSSARY.read_text() == glossary()


def test_answers_carry_a_policy_that_loads_nothing_from_elsewhere(db):
    policy = Client().get("/")["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "http" not in policy


def test_a_scan_is_thinned_and_comes_back_as_a_reading(ines):
    """A floor at −3 in every thousand, as a file: thinned by one call, stored by another, and the floor follows it."""
    stored = ines.import_job()
    rows_ = "\n".join(f"{x},{y},{-0.003 * x:.3f}" for x in range(0, 3240, 30) for y in range(0, 640, 30))
    status, thinned = ines.post(place_path(stored, "/scan?surface=floor&name=floor.csv"), rows_.encode())
    assert status == 200
    assert thinned["n_read"] == 108 * 22
    assert thinned["n_outside"] == 0
    scan = {key: READING[key] for key in ("instrument", "taken_at", "surface")} | {
        "fact": "scan",
        "id": "scan-1",
        "set_up": "line-2",
        "points": thinned["points"],
        "n_read": thinned["n_read"],
    }
    assert ines.post(place_path(stored, "/facts"), {"facts": [scan]})[0] == 200
    kept = ines.get(f"/jobs/{stored['id']}")[1]["job"]["places"][0]["facts"][-1]
    assert kept["points"] == thinned["points"]


@pytest.mark.parametrize(
    ("query", "data", "word"),
    [
        ("surface=floor&name=a.xyz", b"1 2\n", "three numbers"),
        ("surface=roof&name=a.xyz", b"1 2 3\n", "no surface"),
        ("surface=floor&name=a.ply", b"ply\nformat ascii 1.0\n", "no end"),
    ],
)
def test_a_bad_scan_is_refused_with_the_mend(ines, query, data, word):
    stored = ines.import_job()
    status, fault = ines.post(place_path(stored, f"/scan?{query}"), data)
    assert status == 422
    assert word in fault["message"]
    assert fault["mend"]


def test_every_demo_job_comes_back_from_the_database_as_it_was_made(ines):
    for made in (vestry_press(), narrowboat_galley(), gable_workroom()):
        stored = ines.import_job(write_job(made))
        assert rows.job_value(Job.objects.get(id=stored["id"])) == made


OBSTACLE = {
    "fact": "obstacle",
    "id": "o-1",
    "taken_at": "2026-03-08T10:00:00Z",
    "name": "Outlet by the door",
    "kind": "outlet",
    "surface": "back",
    "at": [400, 300],
    "size": [86, 86],
}
NOTE = {"fact": "note", "id": "n-1", "text": "Damp under the sill", "taken_at": "2026-03-08T10:00:00Z"}


def active(ines, stored, kind):
    """Return the facts of a kind that stand in a job, as the core has them."""
    place = read_job(json.dumps(ines.get(f"/jobs/{stored['id']}")[1]["job"]).encode()).places[0]
    return getattr(place, kind)


def test_all_kinds_of_facts_go_in_one_call_and_are_stored_once(ines):
    stored = ines.import_job()
    facts = {"facts": [READING, NOTE, OBSTACLE]}
    status, first = ines.post(place_path(stored, "/facts"), facts)
    assert (status, first["stored"]) == (200, [READING["id"], "n-1", "o-1"])
    status, again = ines.post(place_path(stored, "/facts"), facts)
    assert (status, again["revision"], again["known"]) == (200, first["revision"], first["stored"])
    assert [n.text for n in active(ines, stored, "notes")] == ["Damp under the sill"]
    assert [o.name for o in active(ines, stored, "obstacles")].count("Outlet by the door") == 1


def test_an_id_that_stands_twice_in_one_call_stores_nothing(ines):
    stored = ines.import_job()
    status, fault = ines.post(place_path(stored, "/facts"), {"facts": [NOTE, NOTE | {"text": "Another"}]})
    assert (status, fault["path"]) == (422, "$.facts[1].id")
    assert active(ines, stored, "notes") == ()


def test_an_obstacle_changed_in_two_places_is_shown_with_both_values(ines):
    """Ines sees an outlet, it is changed elsewhere, and hers is held back until she has seen both."""
    stored = ines.import_job()
    path = place_path(stored, "/facts")
    ines.post(path, {"facts": [OBSTACLE]})
    theirs = OBSTACLE | {"id": "o-2", "supersedes": "o-1", "at": [420, 300]}
    mine = OBSTACLE | {"id": "o-3", "supersedes": "o-1", "at": [390, 310]}
    assert ines.post(path, {"facts": [theirs]})[0] == 200
    status, fault = ines.post(path, {"facts": [mine]})
    assert (status, fault["code"], fault["theirs"]["at"]) == (409, "differs", [420.0, 300.0])
    assert ines.post(path, {"facts": [mine | {"supersedes": "o-2"}]})[0] == 200
    assert [o.at for o in active(ines, stored, "obstacles") if o.kind == "outlet"][-1] == (390.0, 310.0)


def test_an_obstacle_taken_away_is_gone_in_all_its_forms_and_can_be_put_back(ines):
    stored = ines.import_job()
    ines.post(place_path(stored, "/facts"), {"facts": [OBSTACLE]})
    ines.post(
        place_path(stored, "/facts"), {"facts": [OBSTACLE | {"id": "o-2", "supersedes": "o-1", "at": [420, 300]}]}
    )
    path = place_path(stored, "/facts/o-2/aside")
    assert ines.put(path, {"reason": "it was moved", "at": "2026-03-09T10:00:00Z"})[0] == 200
    assert not [o for o in active(ines, stored, "obstacles") if o.id in ("o-1", "o-2")]
    assert ines.send("DELETE", path)[0] == 200
    assert [o.at for o in active(ines, stored, "obstacles") if o.id in ("o-1", "o-2")] == [(420.0, 300.0)]


def test_a_fact_outside_its_place_is_refused_with_all_that_came_with_it(ines):
    stored = ines.import_job()
    status, fault = ines.post(place_path(stored, "/facts"), {"facts": [NOTE, OBSTACLE | {"at": [9000, 300]}]})
    assert (status, fault["code"], fault["path"]) == (422, "document", "$.facts[1].at")
    assert active(ines, stored, "notes") == ()


def test_a_fact_supersedes_only_one_of_its_own_kind(ines):
    stored = ines.import_job()
    status, fault = ines.post(place_path(stored, "/facts"), {"facts": [OBSTACLE | {"supersedes": "gw-05"}]})
    assert (status, fault["path"]) == (422, "$.facts[0].supersedes")
    assert "offset" in fault["message"]


def test_the_shelf_is_the_users_own_and_tells_what_checks_found(ines, tomas):
    level = {"id": "my-level", "name": "My level", "kind": "level", "sigma_mm": 0.5}
    flip = {
        "check": "flip",
        "at": "2026-03-08T10:00:00Z",
        "length_mm": 1200,
        "first_mm": 4,
        "turned_mm": 1,
    }
    assert ines.put("/shelf", level | {"checks": [flip]})[1][0]["name"] == "My level"
    assert [i["id"] for i in ines.get("/shelf")[1]] == ["my-level"]
    assert tomas.get("/shelf")[1] == []
    status, found = ines.post("/shelf/checks", level | {"checks": [flip]})
    assert (status, found[0]["value"], found[0]["unit"]) == (200, 1.25, "mm/m")
    hook = {"check": "hook", "at": "2026-03-08T10:00:00Z", "hooked_mm": 1, "from_mark_mm": 1}
    status, fault = ines.post("/shelf/checks", level | {"checks": [hook]})
    assert (status, fault["path"]) == (422, "$.instruments[0].checks[0]")
    assert tomas.send("DELETE", "/shelf/my-level")[1] == []
    assert ines.send("DELETE", "/shelf/my-level")[1] == []


def test_a_shared_corner_is_kept_and_the_neighbours_readings_tell(ines):
    stored = ines.import_job()
    place = stored["job"]["places"][0] | {"right_is_back_of": "east"}
    east = {"id": "east", "name": "East", "width_mm": 1500, "depth_mm": 600, "height_mm": 2300}
    status, stored = ines.put(f"/jobs/{stored['id']}/places", {"was": None, "now": east})
    assert status == 200
    status, stored = ines.put(f"/jobs/{stored['id']}/places", {"was": stored["job"]["places"][0], "now": place})
    assert (status, stored["job"]["places"][0]["right_is_back_of"]) == (200, "east")
    told = ines.get(place_path(stored, "/gauge"))[1]
    assert next(s["n_readings"] for s in told["surfaces"] if s["surface"] == "right") == 9
    bad = place | {"right_is_back_of": "north"}
    status, fault = ines.put(f"/jobs/{stored['id']}/places", {"was": stored["job"]["places"][0], "now": bad})
    assert (status, fault["path"]) == (422, "$.places[0].right_is_back_of")


def alcove(stored: dict[str, Any], rest: str) -> str:
    return f"/jobs/{stored['id']}/places/alcove{rest}"


def test_the_sides_are_decided_like_the_datum(ines):
    stored = ines.import_job(write_job(vestry_press()))
    asked = {"datum": {"rule": "high spot", "over_mm": 2.0}, "back_line": {}}
    narrow = asked | {"closing": {"split": "none at the left", "method": "face frame first"}}
    status, tried = ines.post(alcove(stored, "/fit"), narrow)
    assert status == 200
    gaps = {f["side"]: f["least"]["value_mm"] for f in tried["sides"][0]["fillers"]}
    assert gaps["left"] < 2 < 100 < gaps["right"]
    assert ines.get(alcove(stored, "/fit"))[1]["sides"][0]["fillers"][0]["least"]["value_mm"] > 50, "only tried"
    status, kept = ines.put(alcove(stored, "/decisions"), edit(stored["job"]["places"][0], **narrow))
    assert (status, kept["job"]["places"][0]["closing"]["method"]) == (200, "face frame first")
    assert ines.get(alcove(stored, "/fit"))[1]["sides"] == tried["sides"]


def test_alternatives_are_kept_and_compared(ines):
    stored = ines.import_job(write_job(vestry_press()))
    high = {"name": "higher", "datum": {"rule": "high spot", "over_mm": 12.0}, "back_line": {}}
    path = alcove(stored, "/alternatives")
    status, kept = ines.put(path, edit(stored["job"]["places"][0], alternatives=[high]))
    assert (status, kept["job"]["places"][0]["alternatives"][0]["name"]) == (200, "higher")
    status, outcomes = ines.get(path)
    assert [o["name"] for o in outcomes] == ["", "higher"]
    assert outcomes[1]["largest_mm"] - outcomes[0]["largest_mm"] == pytest.approx(10.0, abs=0.01)


def test_the_way_in_is_kept_and_tells(ines):
    stored = ines.import_job(write_job(vestry_press()))
    slot = [{"way": "doorway", "name": "Slot", "width_mm": 400, "height_mm": 500}]
    path = f"/jobs/{stored['id']}/way-in"
    status, kept = ines.put(path, edit(stored["job"], way_in=slot))
    assert (status, kept["job"]["way_in"][0]["name"]) == (200, "Slot")
    (press,) = ines.get(alcove(stored, "/fit"))[1]["access"]
    assert not press["goes_in"]
    assert press["instead"]
    bad = [{"way": "doorway", "name": "Slot", "width_mm": -1, "height_mm": 500}]
    status, fault = ines.put(path, edit(kept["job"], way_in=bad))
    assert (status, fault["path"]) == (422, "$.now.way_in[0].width_mm")


def test_a_cut_line_is_given_as_pages_and_files(ines):
    stored = ines.import_job()
    status, template = ines.get(place_path(stored, "/scribes/T-back/tiles"))
    assert status == 200
    assert len(template["tiles"]) > 15
    assert all(t["svg"].startswith("<svg") for t in template["tiles"])
    assert "FACE UP" in template["words"][1]
    for form, start in (("svg", b"<?xml"), ("dxf", b"  0\nSECTION")):
        response = ines.client.get("/api" + place_path(stored, f"/scribes/T-back/line.{form}"))
        assert response.content.startswith(start)
        assert f"north-T-back.{form}" in response["Content-Disposition"]
    assert ines.get(place_path(stored, "/scribes/T-back/line.pdf"))[0] == 404
    assert ines.get(place_path(stored, "/scribes/none/tiles"))[0] == 404


def test_a_length_is_divided(ines):
    status, found = ines.post("/jobs/divide", {"how": "openings", "long_mm": 1200, "piece_mm": 19, "count": 3})
    assert (status, found["opening_mm"]) == (200, pytest.approx(1162 / 3))
    status, fault = ines.post("/jobs/divide", {"how": "boards", "long_mm": 100, "piece_mm": 120})
    assert (status, fault["code"]) == (422, "divide")
    assert fault["mend"]


def test_what_is_found_behind_the_lining_is_stored_once_and_moves_the_screws(ines):
    stored = ines.import_job()
    before = ines.get(place_path(stored, "/hold"))[1]
    assert before["back"]["spacings"][0]["mm"] == 600
    first = before["fasteners"][0]
    miss = {
        "fact": "detection",
        "id": "hole-1",
        "at": first["at"],
        "found_by": "trial hole",
        "sees": "miss",
        "taken_at": "2026-03-08T10:00:00Z",
    }
    for _ in range(2):
        assert ines.post(place_path(stored, "/facts"), {"facts": [miss]})[0] == 200
    assert [d.id for d in active(ines, stored, "detections")].count("hole-1") == 1
    after = ines.get(place_path(stored, "/hold"))[1]
    screws = [f for f in after["fasteners"] if f["at"] == first["at"]]
    assert not screws or screws[0]["bites"] < 0.5
    aside = {"reason": "taken back", "at": "2026-03-08T10:05:00Z"}
    assert ines.put(place_path(stored, "/facts/hole-1/aside"), aside)[0] == 200
    assert ines.get(place_path(stored, "/hold"))[1] == before
    place = stored["job"]["places"][0]
    status, kept = ines.put(place_path(stored, "/backing"), edit(place, backing={"kind": "masonry"}))
    assert (status, kept["job"]["places"][0]["backing"]["kind"]) == (200, "masonry")
    assert "which anchor" in ines.get(place_path(stored, "/hold"))[1]["held"][0]["instead"]
    status, kept = ines.put(place_path(stored, "/backing"), edit(place, overhead={"runs": "along"}))
    assert (status, kept["job"]["places"][0]["overhead"]["runs"]) == (200, "along")
    assert kept["job"]["places"][0]["backing"]["kind"] == "masonry"


def test_furring_and_grids_are_laid_out_on_asking(ines):
    stored = ines.import_job()
    path = place_path(stored, "/furring")
    status, made = ines.post(path, {"low_mm": 200, "high_mm": 1400, "pitch_mm": 600})
    assert (status, made["furring"]["heights"]) == (200, [200, 800, 1400])
    assert len(made["furring"]["packings"]) == 18  # at six studs
    assert ines.post(path, {"low_mm": 1400, "high_mm": 200})[1]["code"] == "grid"
    status, laid = ines.post("/jobs/grid", {"how": "battens", "high_mm": 2000, "pitch_mm": 200})
    assert (status, len(laid["rows"])) == (200, 10)
    status, fault = ines.post("/jobs/grid", {"how": "pegs", "high_mm": 20, "pitch_mm": 25})
    assert (status, fault["code"]) == (422, "grid")


def test_a_practice_is_begun_read_and_told(ines):
    status, made = ines.post("/jobs/practice", {"units": "in", "seed": 3})
    assert status == 200
    assert made["job"]["places"][0]["practice"] == {"seed": 3}
    job = f"/jobs/{made['id']}"
    where = f"{job}/places/corner/practice"
    asked = {
        "fact": "offset",
        "id": "one",
        "instrument": "laser",
        "taken_at": "2026-03-07T09:30:00Z",
        "surface": "floor",
        "at": [101.6, 63.5],
        "set_up": "level",
        "value_mm": 0,
    }
    _, (shown,) = ines.post(where, {"asked": [asked]})
    assert 900 < shown["value_mm"] < 1130
    assert parse_length(shown["entered"], "in") == pytest.approx(shown["value_mm"], abs=1e-6)
    assert ines.get(job)[1]["job"]["places"][0]["facts"] == [], "reading an instrument stores nothing"
    assert ines.get(where)[1]["next"] == "read"
    real = ines.post("/jobs/practice", {"seed": 3})[1]["id"]
    assert ines.get(f"/jobs/{real}/places/elsewhere/practice")[0] == 404
