"""What one request may ask: every value has a least and a most, and what is too much is told in time."""

from __future__ import annotations

import json
import threading
import time
from functools import partial
from typing import Any

import jsonschema
import pytest
from msgspec.structs import replace
from tools.write_schemas import OPENAPI

from wobble.core.budget import GivenUp, TooMuch, spend, within
from wobble.core.formats.document import write_job
from wobble.core.practice.corner import practice_job
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import known
from wobble.core.stages.remember import FEW, Remembered
from wobble.site import computing
from wobble.site.answers import MOST_OF_A_USER, Busy, _Turns


def unbounded(schema: dict[str, Any], components: dict[str, Any], path: str, seen: set[str]) -> list[str]:
    """Return every number, list and text of a schema that nothing bounds."""
    if "$ref" in schema:
        name = schema["$ref"].rsplit("/", 1)[1]
        if name in seen:
            return []
        seen.add(name)
        return unbounded(components[name], components, name, seen)
    out = [p for key in ("anyOf", "oneOf") for s in schema.get(key, ()) for p in unbounded(s, components, path, seen)]
    if "enum" in schema or "const" in schema:
        return out
    kinds = schema.get("type", ())
    kinds = kinds if isinstance(kinds, list) else [kinds]
    for name, part in schema.get("properties", {}).items():
        out += unbounded(part, components, f"{path}.{name}", seen)
    if "array" in kinds:
        if "maxItems" not in schema:
            out.append(path)
        for part in (schema.get("items"), *schema.get("prefixItems", ())):
            out += unbounded(part, components, f"{path}[]", seen) if isinstance(part, dict) else []
    if {"number", "integer"} & set(kinds):
        ends = ("minimum", "exclusiveMinimum"), ("maximum", "exclusiveMaximum")
        out += [path] if not all(any(name in schema for name in names) for names in ends) else []
    if "string" in kinds and "maxLength" not in schema and "format" not in schema:
        out.append(path)
    return out


def test_every_value_that_a_call_takes_has_a_least_and_a_most():
    document = json.loads(OPENAPI.read_text())
    components = document["components"]["schemas"]
    found, bodies = [], 0
    for path, methods in document["paths"].items():
        for method, call in methods.items():
            schema = call.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema")
            if schema:
                bodies += 1
                found += unbounded(schema, components, f"{method} {path}", set())
    assert bodies > 15
    assert not found


@pytest.mark.parametrize(
    "ask",
    [
        {"how": "boards", "long_mm": 3000, "piece_mm": 0.001},
        {"how": "trim", "long_mm": 3000, "piece_mm": 0.001, "most_apart_mm": 0.001},
    ],
)
def test_a_division_into_more_than_can_be_counted_is_refused_at_once(ines, ask):
    began = time.monotonic()
    status, fault = ines.post("/jobs/divide", ask)
    assert status == 422
    assert "most is 2000" in fault["message"]
    assert "digit" in fault["mend"]
    assert time.monotonic() - began < 3.0


def test_a_wall_of_a_million_pegs_is_refused_at_once(ines):
    status, fault = ines.post("/jobs/grid", {"how": "pegs", "high_mm": 3000, "wide_mm": 3000, "pitch_mm": 0.1})
    assert (status, fault["code"]) == (422, "grid")
    assert "most is 20,000" in fault["message"]


def test_a_unit_with_a_digit_too_many_is_still_answered_in_time(ines):
    stored = ines.import_job()
    place = stored["job"]["places"][0]
    wide = json.loads(json.dumps(place))
    wide["units"][0]["width_mm"] = 60_000.0
    assert ines.put(f"/jobs/{stored['id']}/places", {"was": place, "now": wide})[0] == 200
    began = time.monotonic()
    status, fit = ines.get(f"/jobs/{stored['id']}/places/north/fit")
    assert status == 200
    assert any(f["severity"] == "stop" for f in fit["findings"])
    assert time.monotonic() - began < 8.0


@pytest.mark.parametrize("when", ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-12:00", "1969-12-31T00:00:00Z"])
def test_odd_dates_are_refused_with_their_place(ines, when):
    stored = ines.import_job()
    note = {"fact": "note", "id": "n", "text": "damp", "taken_at": when}
    status, fault = ines.post(f"/jobs/{stored['id']}/places/north/facts", {"facts": [note]})
    assert (status, fault["code"]) == (422, "document")
    assert "facts[0]" in fault["path"]


@pytest.mark.parametrize("number", ["1e-320", "1e400", "-0.0000001", "123456789012345678901234567890", "NaN"])
def test_odd_numbers_are_refused(ines, number):
    stored = ines.import_job()
    body = f'{{"how":"boards","long_mm":{number},"piece_mm":100}}'.encode()
    assert ines.send("POST", "/jobs/divide", body)[0] == 422
    assert ines.get(f"/jobs/{stored['id']}")[0] == 200


@pytest.mark.parametrize("rest", ["fit", "hold", "gauge", "traits", "alternatives"])
def test_a_place_that_is_not_there_is_not_there(ines, rest):
    stored = ines.import_job()
    status, fault = ines.get(f"/jobs/{stored['id']}/places/nowhere/{rest}")
    assert (status, fault["code"]) == (404, "not-found")


def test_what_nobody_foresaw_is_told_under_a_number_that_is_logged(ines, monkeypatch, caplog):
    def broken(*_args: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setitem(computing.WORK, "fit", broken)
    ines.client.raise_request_exception = False
    stored = ines.import_job()
    status, fault = ines.get(f"/jobs/{stored['id']}/places/north/fit")
    assert (status, fault["code"]) == (500, "server")
    assert fault["message"].split()[-1].strip(".") in caplog.text
    assert "ZeroDivisionError" in caplog.text


# --- turns, time and memory -------------------------------------------------------------------------------------------


def test_a_computation_ends_when_its_time_is_up_or_nobody_waits():
    with pytest.raises(TooMuch, match="more than 0 s"), within(0.0):
        spend()
    with pytest.raises(GivenUp), within(60.0, lambda: True):
        spend()
    with pytest.raises(TooMuch, match="memory"), within(60.0):
        raise MemoryError
    spend()  # outside nothing is limited


def test_a_user_has_so_many_turns_and_others_keep_theirs():
    turns = _Turns()
    held = [turns.taken(1) for _ in range(MOST_OF_A_USER)]
    for turn in held:
        turn.__enter__()
    with pytest.raises(Busy), turns.taken(1):
        pass
    with turns.taken(2):
        pass
    held.pop().__exit__(None, None, None)
    with turns.taken(1):
        pass


def test_the_same_is_worked_out_once_for_all_who_ask_and_kept_by_its_bytes():
    made: list[int] = []
    kept = Remembered[int, bytes](len, 100)

    def work() -> bytes:
        made.append(1)
        time.sleep(0.05)
        return b"x" * 40

    askers = [threading.Thread(target=kept.get, args=(1, work)) for _ in range(8)]
    for asker in askers:
        asker.start()
    for asker in askers:
        asker.join()
    assert len(made) == 1
    kept.get(2, work)
    kept.get(3, work)  # the first has to go for it
    assert kept.n_bytes == 80
    kept.get(1, work)
    assert len(made) == 4
    kept.get(9, lambda: b"y" * 400)  # larger than all that may be kept
    assert kept.n_bytes == 0


def test_of_one_thing_only_the_last_few_are_kept_and_others_stay():
    made: list[str] = []
    kept = Remembered[str, bytes](len, 10_000, lambda key: key[0], FEW)

    def ask(*keys: str) -> None:
        for key in keys:
            kept.get(key, partial(of, key))

    def of(key: str) -> bytes:
        made.append(key)
        return b"x" * 10

    ask("b1", *(f"a{n}" for n in range(FEW)))
    ask("a0", "a9")  # a0 was asked for again: what goes is a1
    assert kept.n_bytes == 10 * (1 + FEW)
    made.clear()
    ask("b1", "a0", "a9", "a1")
    assert made == ["a1"]
    kept.clear()
    assert kept.n_bytes == 0


def test_a_place_that_is_read_again_and_again_leaves_little_behind():
    """Each reading makes another survey of the same place; the one before is asked for by nobody."""
    job = gable_workroom()
    place = job.places[0]
    for cache in known.KEPT:
        cache.clear()
    for n in range(2 * FEW):
        fewer = replace(place, facts=place.facts[: len(place.facts) - n])
        known.survey_of(replace(job, places=(fewer,)), place.id)
    surveys = known.KEPT[0]
    one = surveys.n_bytes / FEW
    assert 0 < one < 2_000_000
    known.survey_of(job, place.id)
    assert surveys.n_bytes <= 1.1 * FEW * one


def test_who_fails_is_not_remembered():
    kept = Remembered[str, bytes](len, 100)
    with pytest.raises(ZeroDivisionError):
        kept.get("a", lambda: 1 // 0)  # type: ignore[arg-type, return-value]
    assert kept.get("a", lambda: b"well") == b"well"


def test_questions_go_to_a_process_that_computes_and_that_is_replaced_when_it_is_ended(settings, tmp_path, monkeypatch):
    """One question that does not end is ended by the system; the next is answered."""
    import os
    import signal

    settings.DATA = tmp_path
    monkeypatch.setattr(computing, "LONGEST_S", 0.3)
    monkeypatch.setattr(computing, "GRACE_S", 0.3)
    monkeypatch.setattr(computing, "_back_up", lambda: None)
    monkeypatch.setattr(computing, "work", _work)
    keeper = os.fork()
    if not keeper:
        os.setsid()
        try:
            computing.start()
            time.sleep(30)
        finally:
            os._exit(0)
    try:
        while not computing.address().exists():
            time.sleep(0.01)
        time.sleep(0.1)
        assert computing.ask(_question("pid"), lambda: False)[0].body != str(os.getpid()).encode()
        for slow in ("slow", "deaf"):
            with pytest.raises(TooMuch):
                computing.ask(_question(slow), lambda: False)
        with pytest.raises(GivenUp):
            computing.ask(_question("deaf"), lambda: True)
        assert computing.ask(_question("pid"), lambda: False)[0].body.isdigit()
    finally:
        os.killpg(keeper, signal.SIGKILL)
        os.waitpid(keeper, 0)


def _question(what: str) -> computing.Question:
    from uuid import UUID

    return computing.Question(what=(what,), job=UUID(int=0), revision=1, place="p")


def _work(question: computing.Question) -> tuple[computing.Answer, ...]:
    import os

    if question.what == ("slow",):
        for _ in range(100):
            time.sleep(0.05)
            spend()
    if question.what == ("deaf",):
        ends = time.monotonic() + 20
        while time.monotonic() < ends:
            pass
    return (computing.Answer(body=str(os.getpid()).encode()),)


def practice_corner():
    return practice_job(3, "mm")


@pytest.mark.parametrize("make", [gable_workroom, vestry_press, narrowboat_galley, practice_corner])
def test_answers_keep_to_the_schema_that_the_document_of_calls_gives(ines, make):
    stored = ines.import_job(write_job(make()))
    document = json.loads(OPENAPI.read_text())
    place = stored["job"]["places"][0]["id"]
    marks = [p["mark"] for p in ines.get(f"/jobs/{stored['id']}/make")[1]["parts"]]
    asked = 0
    for path, methods in document["paths"].items():
        if "{fact_id}" in path or "{scribe_id}" in path or path.endswith("/document") or "get" not in methods:
            continue
        content = methods["get"]["responses"]["200"].get("content", {}).get("application/json")
        if content is None or "{key}" in path:
            continue
        if path.endswith("/practice") and make is not practice_corner:
            continue
        if "{mark}" in path and not marks:
            continue
        mark = marks[0] if marks else ""
        address = path.removeprefix("/api").format(job_id=stored["id"], place_id=place, rod="upright", mark=mark)
        status, value = ines.get(address)
        assert status == 200
        schema = {"components": document["components"], **content["schema"]}
        jsonschema.Draft202012Validator(schema).validate(value)
        asked += 1
    assert asked >= 8


XYZ = b"property float x\nproperty float y\nproperty float z\nend_header\n"


@pytest.mark.parametrize(
    "body",
    [
        b"ply\nformat ascii 1.0\nelement vertex 1000000000000\n" + XYZ + b"1 2 3\n",
        b"ply\nformat ascii 1.0\nelement vertex -5\n" + XYZ + b"1 2 3\n",
        b"ply\nformat binary_little_endian 1.0\nelement vertex 99999999999\nproperty double x\nproperty double y\n"
        b"property double z\nend_header\n" + b"\0" * 48,
        b"ply\nformat ascii 1.0\nelement vertex 9" + b"9" * 5000 + b"\nproperty float x\nend_header\n",
        b"ply\nformat ascii 1.0\nelement vertex two\nproperty float x\nend_header\n",
        b"ply\n" + b"comment x\n" * 100_000,
    ],
)
def test_a_scan_whose_header_lies_is_refused(ines, body):
    stored = ines.import_job()
    began = time.monotonic()
    status, fault = ines.send("POST", f"/jobs/{stored['id']}/places/north/scan?surface=floor&name=a.ply", body)
    assert (status, fault["code"]) == (422, "document"), fault
    assert fault["mend"]
    assert time.monotonic() - began < 8.0
