"""The job document: what goes in comes out, and what is wrong is named by its path with the mend."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.catalogue import box, floor_at, grid, job_of, offset, slope
from wobble.cli import main
from wobble.core.errors import DocumentError
from wobble.core.formats.document import LARGEST_DOCUMENT_BYTES, job_schema, read_job, write_job
from wobble.core.job import FixedTop, Job
from wobble.core.practice.gable import empty_job, gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.vestry import vestry_press

SCHEMA = Path(__file__).parents[2] / "docs" / "schema" / "job.schema.json"


AT_ONCE = """
import sys, threading
from pathlib import Path
from wobble.core import load
sys.setswitchinterval(1e-6)
data, met, names = Path(sys.argv[1]).read_bytes(), threading.Barrier(8), []
def read():
    met.wait()
    names.append(load(data).name)
threads = [threading.Thread(target=read) for _ in range(8)]
[t.start() for t in threads], [t.join() for t in threads]
print(len(names), set(names))
"""


def spoilt(change) -> bytes:
    """Return the demo document with one change made to its plain form."""
    plain = json.loads(write_job(gable_workroom()))
    change(plain)
    return json.dumps(plain).encode()


def fault_of(data: bytes) -> DocumentError:
    with pytest.raises(DocumentError) as fault:
        read_job(data)
    assert fault.value.mend
    return fault.value


@pytest.mark.parametrize(
    "job",
    [gable_workroom(), vestry_press(), narrowboat_galley(), empty_job(), Job(name="bare")],
    ids=lambda job: job.name,
)
def test_round_trip_loses_nothing_and_follows_the_schema(job):
    written = write_job(job)
    assert read_job(written) == job
    assert write_job(read_job(written)) == written
    jsonschema.Draft202012Validator(json.loads(SCHEMA.read_bytes())).validate(json.loads(written))


@settings(max_examples=40)
@given(
    st.lists(st.tuples(st.floats(0, 3000), st.floats(0, 600), st.floats(-2000, 2000)), max_size=6),
    st.floats(1, 2000),
    st.text(max_size=30),
)
def test_any_job_comes_back_the_same(places, top, name):
    readings = [offset(f"r{i}", "floor", (x, y), v) for i, (x, y, v) in enumerate(places)]
    job = job_of(*readings, units=(box("A"),), datum=FixedTop(top_mm=top))
    renamed = read_job(write_job(job)).__class__(name=name, places=job.places, instruments=job.instruments)
    assert read_job(write_job(renamed)) == renamed


def test_the_schema_in_the_repository_is_the_one_in_force():
    assert SCHEMA.read_bytes() == job_schema()
    jsonschema.Draft202012Validator.check_schema(json.loads(job_schema()))


@pytest.mark.parametrize(
    ("change", "path"),
    [
        (lambda d: d.update(colour="red"), "$"),
        (lambda d: d["places"][0].update(width="wide"), "$.places[0]"),
        (lambda d: d["places"][0]["facts"][3].update(value_mm="ten"), "$.places[0].facts[3].value_mm"),
        (lambda d: d["places"][0]["facts"][2].update(at=[9000, 60]), "$.places[0].facts[2]"),
        (lambda d: d["places"][0]["facts"][2].update(instrument="ghost"), "$.places[0].facts[2].instrument"),
        (lambda d: d["places"][0]["facts"][2].update(set_up="ghost"), "$.places[0].facts[2].set_up"),
        (lambda d: d["places"][0]["facts"][2].update(set_up="plumb-1"), "$.places[0].facts[2].set_up"),
        (lambda d: d["places"][0]["facts"][2].update(surface="ceiling"), "$.places[0].facts[2].surface"),
        (lambda d: d["places"][0]["facts"][2].update(supersedes="gw-39"), "$.places[0].facts[2].supersedes"),
        (lambda d: d["places"][0]["facts"][2].update(id="gw-01"), "$.places[0].facts[2]"),
        (
            lambda d: d["places"][0]["facts"][58].update(end=d["places"][0]["facts"][58]["start"]),
            "$.places[0].facts[58]",
        ),
        (lambda d: d["places"][0].update(width_mm=-5), "$.places[0].width_mm"),
        (lambda d: d["kit"]["tapers"][0].update(thick_mm=0.5), "$.kit.tapers[0].thick_mm"),
        (lambda d: d.update(version=3), "$.version"),
        (lambda d: d.pop("name"), "$"),
    ],
)
def test_a_fault_is_named_by_its_path(change, path):
    assert fault_of(spoilt(change)).path == path


def steepen(plain) -> None:
    """Make the first slope of the demo one of 5000 degrees."""
    plain["places"][0]["facts"][58] |= {"unit": "deg", "value": 5000}


def astray(plain) -> None:
    """Put a detection far outside its place before all else."""
    found = {"fact": "detection", "id": "far", "taken_at": "2026-03-07T10:00:00Z", "found_by": "scanner"}
    plain["places"][0]["facts"].insert(0, found | {"surface": "back", "at": [9999, 600]})


def crowd(plain) -> None:
    """Read one spot 2001 times."""
    facts = plain["places"][0]["facts"]
    facts[:] = [facts[0] | {"id": f"r{i}"} for i in range(2001)]


@pytest.mark.parametrize(
    ("change", "path", "says"),
    [
        (lambda d: d["places"][0].update(width_mm=-5), "$.places[0].width_mm", "From 0.001 to 100000 mm"),
        (
            lambda d: d["places"][0].update(kind="cave"),
            "$.places[0].kind",
            "alcove, corner, open, overhead, under a slope",
        ),
        (lambda d: d["places"][0]["datum"].update(over_mm=900), "$.places[0].datum.over_mm", "From -100 to 500 mm"),
        (lambda d: d["places"][0].update(name=""), "$.places[0].name", "length >= 1"),
        (
            lambda d: d["places"][0]["facts"][0].update(fact="guess"),
            "$.places[0].facts[0].fact",
            "offset, slope, span",
        ),
        (steepen, "$.places[0].facts[58]", "5000"),
        (astray, "$.places[0].facts[0].at", "outside its place: 9999 mm is not within"),
        (crowd, "$.places[0].facts", "2000"),
    ],
)
def test_a_fault_says_limits_options_and_units(change, path, says):
    fault = fault_of(spoilt(change))
    assert fault.path.startswith(path)
    assert says in fault.message


def test_a_key_that_stands_twice_is_named():
    fault = fault_of(b'{"name": "A", "name": "B"}')
    assert (fault.path, "twice" in fault.message, fault.mend) == ("$.name", True, "Keep one of the two.")


def test_another_encoding_is_named_with_the_byte_and_a_mark_at_the_start_is_none():
    written = write_job(gable_workroom())
    assert read_job("\ufeff".encode() + written) == gable_workroom()
    fault = fault_of('{"name": "Ä"}'.encode("latin-1"))
    assert "UTF-8: byte 10" in fault.message


def test_nan_and_infinity_are_named_by_their_path():
    text = write_job(gable_workroom()).decode()
    first = json.loads(text)["places"][0]["facts"][0]["value_mm"]
    for bad in ("NaN", "Infinity", "-Infinity"):
        fault = fault_of(text.replace(f'"value_mm": {first}', f'"value_mm": {bad}', 1).encode())
        assert fault.path == "$.places[0].facts[0].value_mm"


@pytest.mark.parametrize("data", [b"", b"{", b"[]", b"null", b"\xff\xfe", b'{"name": 1e999}', b"[" * 5000])
def test_what_is_no_document_is_refused_without_a_crash(data):
    fault_of(data)


def test_a_huge_file_is_refused_before_it_is_read():
    fault = fault_of(b" " * (LARGEST_DOCUMENT_BYTES + 1))
    assert "10 MB" in fault.message


def test_the_command_line_solves_a_document(tmp_path, capfdbinary):
    job = job_of(
        *floor_at(grid(3000, 600, 5, 2), lambda x, y: 0.0), slope("s", (0, 0), (900, 0), 0.0), units=(box("A"),)
    )
    path = tmp_path / "job.json"
    path.write_bytes(write_job(job))
    assert main(["solve", str(path)]) == 0
    result = json.loads(capfdbinary.readouterr().out)
    assert result["format"] == "wobble-result"
    assert len(result["places"][0]["fit"]["plan"]["shims"]) == 4


def test_the_command_line_names_the_fault(tmp_path, capsys):
    path = tmp_path / "job.json"
    path.write_bytes(spoilt(lambda d: d["places"][0].update(depth_mm="deep")))
    assert main(["solve", str(path)]) == 1
    assert "$.places[0].depth_mm" in capsys.readouterr().err
    assert main(["check", str(tmp_path / "nowhere.json")]) == 1
    assert "nowhere.json" in capsys.readouterr().err


def test_the_first_documents_of_a_process_may_be_read_by_several_threads_at_once(tmp_path):
    path = tmp_path / "job.json"
    path.write_bytes(write_job(gable_workroom()))
    src = str(Path(__file__).parents[2] / "src")
    done = subprocess.run(
        [sys.executable, "-c", AT_ONCE, str(path)], env={"PYTHONPATH": src}, capture_output=True, text=True, check=False
    )
    assert (done.returncode, done.stdout.strip()) == (0, "8 {'Gable workroom'}"), done.stderr[-500:]
