"""Make over the API: the answer and its revisions, a longer search, the workshop's edits, tables in and out."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
from msgspec.structs import replace

from wobble.core.formats.parts_table import write_parts
from wobble.core.make.cutting.tables import read_wanted
from wobble.core.practice.gable import gable_workroom
from wobble.core.stages import solve_make


@pytest.fixture
def stored(ines) -> dict[str, Any]:
    return dict(ines.import_job())


def test_what_is_cut_is_a_fact_and_changes_the_answer(ines, stored):
    path = f"/jobs/{stored['id']}/make"
    status, before = ines.get(path)
    assert status == 200
    side = next(p for p in before["parts"] if p["part"]["id"] == "side-A-left")
    assert (side["state"], side["to_cut"]) == ("now", 1)
    fact = {"fact": "cut", "id": "c-1", "taken_at": "2026-11-02T10:00:00Z", "part": "side-A-left"}
    for _ in range(2):  # sent twice, kept once
        assert ines.post(f"/jobs/{stored['id']}/places/north/facts", {"facts": [fact]})[0] == 200
    after = next(p for p in ines.get(path)[1]["parts"] if p["key"] == side["key"])
    assert (after["state"], after["to_cut"]) == ("cut", 0)
    short = fact | {"id": "c-2", "came": "short", "supersedes": "c-1"}
    assert ines.post(f"/jobs/{stored['id']}/places/north/facts", {"facts": [short]})[0] == 200
    again = ines.get(path)[1]
    assert next(p for p in again["parts"] if p["key"] == side["key"])["to_cut"] == 1
    assert "cut-again" in {f["code"] for f in again["findings"]}


def test_a_longer_search_is_never_worse_and_stays(ines, stored):
    path = f"/jobs/{stored['id']}/make"
    quick = ines.get(path)[1]["layout"]
    status, longer = ines.post(path, {"seconds": 1.0, "seed": 5})
    assert status == 200

    def cost(layout):
        return sum(s["long_mm"] * s["wide_mm"] for s in layout["sheets"]), layout["price"]

    assert longer["layout"]["price"] <= quick["price"]
    assert cost(ines.get(path)[1]["layout"]) == cost(longer["layout"])
    assert ines.post(path, {"seconds": 60})[0] == 422


def test_the_workshop_is_edited_like_all_that_is_decided(ines, stored):
    was = stored["job"]["workshop"]
    now = was | {"kerf_mm": 2.2}
    status, changed = ines.put(f"/jobs/{stored['id']}/workshop", {"was": {"workshop": was}, "now": {"workshop": now}})
    assert status == 200
    assert changed["job"]["workshop"]["kerf_mm"] == 2.2
    other = was | {"trim_mm": 8.0}  # from what was there before: both changes stay
    _, both = ines.put(f"/jobs/{stored['id']}/workshop", {"was": {"workshop": was}, "now": {"workshop": other}})
    assert (both["job"]["workshop"]["kerf_mm"], both["job"]["workshop"]["trim_mm"]) == (2.2, 8.0)
    bad = was | {"shops": [{"id": "s", "name": "S", "prices": [{"item": "nothing", "price": 1.0}]}]}
    status, fault = ines.put(f"/jobs/{stored['id']}/workshop", {"was": {"workshop": was}, "now": {"workshop": bad}})
    assert (status, fault["path"]) == (422, "$.workshop.shops[0].prices[0].item")


def test_stock_goes_out_and_comes_in_as_a_table(ines, stored):
    text = ines.client.get(f"/api/jobs/{stored['id']}/stock.csv").content.decode()
    status, read = ines.post(f"/jobs/{stored['id']}/stock.csv", {"text": text})
    assert status == 200
    assert read["stock"] == [
        s | ({"defects": []} if "defects" in s else {}) for s in stored["job"]["workshop"]["stock"]
    ]
    bad = "sold_as,name,thick_mm\nsheet,Ply,thick\n"
    status, fault = ines.post(f"/jobs/{stored['id']}/stock.csv", {"text": bad})
    assert status == 422
    assert "line 2, column thick_mm" in fault["message"]
    # two rows of one name, and one that is called as the second would be: each has an id of its own
    alike = (
        "sold_as,name,id\nsheet,Ply,a\nsheet,Ply,a\nsheet,Ply,a-2\nsheet,Ply," + "b" * 75 + "\nsheet,Ply," + "b" * 75
    )
    _, read = ines.post(f"/jobs/{stored['id']}/stock.csv", {"text": alike})
    assert len({s["id"] for s in read["stock"]}) == 5
    prices = "item,price\nBirch plywood 18,71.5\nNails,3\n"
    _, found = ines.post(f"/jobs/{stored['id']}/prices.csv", {"text": prices})
    assert found == {"offers": [{"item": "ply-18", "price": 71.5}], "unknown": ["Nails"]}


def test_parts_and_sheets_are_given_as_files(ines, stored):
    parts = ines.client.get(f"/api/jobs/{stored['id']}/parts.csv").content.decode()
    wanted = read_wanted("\n".join(line for line in parts.splitlines() if '"' not in line and ",0.0," not in line))
    assert {"A1", "B1"} <= {w.name.split()[0] for w in wanted} | {line.split(",")[0] for line in parts.splitlines()}
    svg = ines.client.get(f"/api/jobs/{stored['id']}/sheets/2.svg")
    assert svg.status_code == 200
    assert b'width="2500mm" height="1250mm"' in svg.content
    dxf = ines.client.get(f"/api/jobs/{stored['id']}/sheets/2.dxf")
    assert b"LWPOLYLINE" in dxf.content
    assert ines.client.get(f"/api/jobs/{stored['id']}/sheets/99.svg").status_code == 404
    part = f"/api/jobs/{stored['id']}/parts/A1"
    assert b" up; its " in ines.client.get(f"{part}/part.svg").content
    assert b"HOLES" in ines.client.get(f"{part}/part.dxf").content
    _, pages = ines.get(f"/jobs/{stored['id']}/parts/A1/tiles")
    assert pages["words"][0].startswith("A1 ")
    assert all(t["svg"].startswith("<svg") for t in pages["tiles"])
    status, fault = ines.get(f"/jobs/{stored['id']}/parts/Z99/tiles")
    assert (status, fault["mend"]) == (404, "Marks are on the parts list.")


def test_in_inches_the_parts_list_has_their_sizes_on_a_rule_too():
    """A side of 728 by 560 of 17.6: 28 21/32 (727.9), 22 1/16 (560.4), 11/16 (17.5) to a 32nd; grooves so too."""
    made = solve_make(replace(gable_workroom(), units="in"))
    rows_ = list(csv.DictReader(io.StringIO(write_parts(made.parts, "in"))))
    side = next(r for r in rows_ if r["mark"] == "A1")
    assert side["length_mm"] == "728.0"
    assert [side[k] for k in ("length", "width", "thickness")] == ['28 21/32"', '22 1/16"', '11/16"']
    assert side["grooves"] == 'groove 1/4" × 5/16", 15/32" from back edge'
    assert "length" not in next(csv.DictReader(io.StringIO(write_parts(made.parts, "mm"))))


def test_the_aims_are_held_beside_each_other(ines, stored):
    status, found = ines.get(f"/jobs/{stored['id']}/aims")
    assert status == 200
    by_aim = {o["aim"]: o for o in found}
    assert set(by_aim) == {"fewest sheets", "fewest settings", "fewest metres"}
    assert len({o["sheets"] for o in found}) == 1  # the aim counts after price and sheets
    assert by_aim["fewest settings"]["settings"] <= by_aim["fewest sheets"]["settings"]
    assert by_aim["fewest metres"]["sawn_m"] <= by_aim["fewest sheets"]["sawn_m"]
