"""Pictures and the record: small, upright, without a place, the owner's alone; everything out as a ZIP and in again."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path
from typing import Any

import pytest
from PIL import Image
from pypdf import PdfReader

from wobble.site import photos


@pytest.fixture
def stored(ines) -> dict[str, Any]:
    return dict(ines.import_job())


def picture(size: tuple[int, int] = (3000, 1500), *, form: str = "JPEG", exif: bool = True) -> bytes:
    """Return a picture as a phone writes it: lying on its side, with where it was taken."""
    made = Image.new("RGB", size, (120, 90, 40))
    written = Image.Exif()
    written[0x0112] = 6  # to be turned a quarter
    written[0x010F] = "Made-up phone"
    written.get_ifd(0x8825)[2] = (52.0, 12.0, 3.0)  # degrees north
    out = io.BytesIO()
    made.save(out, form, **({"exif": written} if exif else {}))
    return out.getvalue()


def send(user: Any, job: str, data: bytes) -> tuple[int, Any]:
    status, answer = user.send("POST", f"/jobs/{job}/photos", data)
    return status, answer


def test_a_picture_is_kept_small_upright_and_without_a_place(ines, stored):
    status, kept = send(ines, stored["id"], picture())
    assert status == 200
    assert (kept["wide_px"], kept["high_px"]) == (1000, 2000)
    response = ines.client.get(f"/api/jobs/{stored['id']}/photos/{kept['file']}.jpg")
    assert response.headers["Content-Type"] == "image/jpeg"
    found = Image.open(io.BytesIO(response.content))
    assert found.size == (1000, 2000)
    assert dict(found.getexif()) == {}
    assert b"Made-up phone" not in response.content
    assert send(ines, stored["id"], picture())[1] == kept  # sent twice, kept once
    assert len(list(photos.all_of(stored["id"]))) == 1
    assert send(ines, stored["id"], picture(form="PNG", exif=False))[0] == 200


def test_what_is_no_picture_or_too_large_is_refused_with_the_mend(ines, stored, monkeypatch):
    for data in (b"", b"not a picture", picture()[:200], b"%PDF-1.4"):
        status, fault = send(ines, stored["id"], data)
        assert (status, fault["path"]) == (422, "photo")
        assert "JPEG" in fault["mend"]
    monkeypatch.setattr(photos, "MOST_PIXELS", 1000)
    assert "pixels" in send(ines, stored["id"], picture())[1]["message"]
    monkeypatch.setattr(photos, "MOST_BYTES", 100)
    assert "MB" in send(ines, stored["id"], picture())[1]["message"]
    monkeypatch.undo()
    monkeypatch.setattr(photos, "MOST_OF_A_JOB", 0)
    assert "at most" in send(ines, stored["id"], picture())[1]["message"]
    assert list(photos.all_of(stored["id"])) == []


def test_a_picture_is_its_owners_alone_and_goes_with_its_job(ines, tomas, stored):
    kept = send(ines, stored["id"], picture())[1]
    assert tomas.get(f"/jobs/{stored['id']}/photos/{kept['file']}.jpg")[0] == 404
    assert send(tomas, stored["id"], picture())[0] == 404
    assert ines.get(f"/jobs/{stored['id']}/photos/{'.' * 64}.jpg")[0] == 404
    assert ines.get(f"/jobs/{stored['id']}/photos/{'0' * 64}.jpg")[0] == 404
    folder = photos.folder(stored["id"])
    assert folder.exists()
    for stays in (True, False):  # in the bin it stays with its job
        assert ines.send("DELETE", f"/jobs/{stored['id']}")[0] == 200
        assert folder.exists() is stays
        assert ines.get(f"/jobs/{stored['id']}/photos/{kept['file']}.jpg")[0] == 404


def test_a_disk_that_fails_keeps_nothing_by_halves(ines, stored, monkeypatch):
    def full(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("wobble.site.photos.os.fsync", full)
    ines.client.raise_request_exception = False
    assert send(ines, stored["id"], picture())[0] >= 500
    assert list(photos.folder(stored["id"]).iterdir()) == []


FACTS: tuple[dict[str, Any], ...] = (
    {"fact": "step", "id": "f1", "step": "buy", "name": "Buy what is not at hand", "minutes": 80},
    {"fact": "note", "id": "f2", "text": "Grey, matt", "kind": "agreed"},
    {
        "fact": "note",
        "id": "f3",
        "text": "Cut the stile on the wrong side",
        "kind": "went wrong",
        "about": "cut/north/now",
    },
    {"fact": "note", "id": "f4", "text": "Oil the top in spring", "kind": "open"},
    {"fact": "bought", "id": "f0", "item": "ply-18", "count": 2, "shop": "none-such"},
    {"fact": "otherwise", "id": "f5", "what": "wall opened", "text": "behind E"},
    {"fact": "as set", "id": "f6", "check": "level-along/north/A", "value_mm": 0.4, "expected_mm": 0.0, "of": "A"},
)


def told(ines: Any, stored: dict[str, Any]) -> dict[str, str]:
    """Write all sorts of facts down, with a picture before and one after; return the pictures."""
    digests = {}
    facts = [f | {"taken_at": f"2026-03-07T10:0{n}:00Z", "taken_by": "Ines"} for n, f in enumerate(FACTS)]
    for n, moment in enumerate(("before", "after")):
        kept = send(ines, stored["id"], picture((400 + n, 300), exif=False))[1]
        digests[moment] = kept["file"]
        photo = {"fact": "photo", "id": f"p{n}", "about": "set/north/A", "moment": moment, "taken_by": "Ines"}
        facts.append(photo | kept | {"taken_at": f"2026-03-07T11:0{n}:00Z"})
    assert ines.post(f"/jobs/{stored['id']}/places/north/facts", {"facts": facts})[0] == 200
    return digests


def test_the_record_tells_the_job_as_it_went(ines, stored):
    digests = told(ines, stored)
    record = ines.get(f"/jobs/{stored['id']}/record")[1]
    assert [e["text"] for e in record["agreed"]] == ["Grey, matt"]
    assert [e["text"] for e in record["wrong"]] == ["Cut the stile on the wrong side"]
    assert [e["text"] for e in record["left"]] == ["Oil the top in spring"]
    assert record["hours"] == [{"by": "Ines", "minutes": 80.0, "steps": 1}]
    (pair,) = record["pairs"]
    assert (pair["before"], pair["after"]) == (digests["before"], digests["after"])
    assert pair["name"] == "Set A Drawers"
    assert [e["at"] for e in record["entries"]] == sorted(e["at"] for e in record["entries"])
    assert any(e["text"] == "A Drawers: level along: 0.4 mm" for e in record["entries"])
    assert any(e["text"] == "2 × Birch plywood 18 bought at none-such" for e in record["entries"])
    pdf = PdfReader(io.BytesIO(ines.client.get(f"/api/jobs/{stored['id']}/record.pdf").content))
    text = "\n".join(p.extract_text() for p in pdf.pages)
    for said in ("Grey, matt", "Oil the top in spring", "Set A Drawers", "before", "after"):
        assert said in text
    assert sum(len(p.images) for p in pdf.pages) >= 2


def test_everything_goes_out_as_a_zip_and_comes_in_again(ines, tomas, stored):
    digests = told(ines, stored)
    data = ines.client.get(f"/api/jobs/{stored['id']}/job.zip").content
    names = zipfile.ZipFile(io.BytesIO(data)).namelist()
    assert {"about.json", "log.json", "gable-workroom.wobble.json"} <= set(names)
    status, made = tomas.send("POST", "/jobs/all.zip", data)
    assert status == 200
    again = tomas.get(f"/jobs/{made[0]['id']}")[1]
    assert again["job"] == ines.get(f"/jobs/{stored['id']}")[1]["job"]
    for digest in digests.values():
        response = tomas.client.get(f"/api/jobs/{made[0]['id']}/photos/{digest}.jpg")
        assert response.content == photos.read(stored["id"], digest)
    assert (
        tomas.get(f"/jobs/{made[0]['id']}/record")[1]["pairs"] == ines.get(f"/jobs/{stored['id']}/record")[1]["pairs"]
    )


def test_a_zip_whose_picture_is_another_brings_nothing(ines, stored, settings):
    digest = told(ines, stored)["before"]
    data = ines.client.get(f"/api/jobs/{stored['id']}/job.zip").content
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as found, zipfile.ZipFile(out, "w") as made:
        for name in found.namelist():
            made.writestr(name, picture((50, 50)) if digest in name else found.read(name))
    before = len(ines.get("/jobs")[1])
    status, fault = ines.send("POST", "/jobs/all.zip", out.getvalue())
    assert status == 422
    assert "not what it was" in fault["message"]
    assert len(ines.get("/jobs")[1]) == before
    assert len(list((Path(settings.DATA) / "photos").iterdir())) == 1


def test_set_is_answered_and_what_it_offers_is_followed(ines, stored):
    path = f"/jobs/{stored['id']}/places/north"
    found = ines.get(f"{path}/set")[1]
    by = {c["key"]: c for c in found["checks"]}
    facts = []
    for n, (key, off) in enumerate((("level-along", 0.2), ("level-out", 0.1), ("height", 1.3))):
        c = by[f"{key}/north/A"]
        fact = {"fact": "as set", "id": f"s{n}", "taken_at": f"2026-03-07T10:0{n}:00Z", "check": c["key"], "of": "A"}
        value = (c["expected_mm"] or 0.0) + off
        facts.append(fact | {"value_mm": value, "expected_mm": c["expected_mm"], "stands": c["stands"]})
    assert ines.post(f"{path}/facts", {"facts": facts})[0] == 200
    assert ines.get(f"{path}/set")[1]["pending"] == ["A"]
    offered = ines.get(f"{path}/proposal")[1]
    assert any(c["kind"] == "base" for c in offered["changes"])
    before = ines.get(f"{path}/fit")[1]["plan"]["base"]["height"]["value_mm"]
    kept = {"fact": "followed", "id": "w", "taken_at": "2026-03-07T11:00:00Z", "readings": offered["readings"]}
    assert ines.post(f"{path}/facts", {"facts": [kept]})[0] == 200
    assert ines.get(f"{path}/fit")[1]["plan"]["base"]["height"]["value_mm"] == pytest.approx(before + 1.2, abs=0.4)
    assert ines.send("PUT", f"{path}/facts/w/aside", {"reason": "no", "at": "2026-03-07T12:00:00Z"})[0] == 200
    assert ines.get(f"{path}/fit")[1]["plan"]["base"]["height"]["value_mm"] == pytest.approx(before)
    both = facts[0] | {"id": "z", "came": "right"}
    assert ines.post(f"{path}/facts", {"facts": [both]})[0] == 422  # a length, or whether it came right


def test_a_deleted_job_comes_back_whole_for_thirty_days_and_is_gone_for_good_after(ines, tomas, stored):
    from datetime import timedelta

    from django.utils import timezone

    from wobble.site import edits
    from wobble.site.models import Job

    kept = send(ines, stored["id"], picture())[1]
    address = f"/jobs/{stored['id']}"
    before = ines.get(address)[1]
    assert ines.send("DELETE", address)[0] == 200
    for gone in (address, f"{address}/places/north/fit", f"{address}/order"):
        assert ines.get(gone)[0] == 404
    assert ines.get("/jobs")[1] == []
    (line,) = ines.get("/jobs/deleted")[1]
    assert (line["id"], line["name"]) == (stored["id"], "Gable workroom")
    assert tomas.get("/jobs/deleted")[1] == []
    assert tomas.post(f"{address}/back", {})[0] == tomas.send("DELETE", address)[0] == 404
    assert ines.post(f"{address}/back", {})[0] == 200
    assert ines.get(address)[1] == before
    assert ines.client.get(f"/api{address}/photos/{kept['file']}.jpg").status_code == 200
    assert ines.post(f"{address}/back", {})[0] == 404, "it is not deleted any more"

    ines.send("DELETE", address)
    Job.every.update(deleted=timezone.now() - edits.KEPT_DELETED - timedelta(hours=1))
    assert ines.get("/jobs/deleted")[1] == []
    assert ines.post(f"{address}/back", {})[0] == 404
    ines.send("DELETE", f"/jobs/{ines.import_job()['id']}")
    assert Job.every.count() == 1, "what is past its days goes with the next that is deleted"
    assert not list(photos.all_of(stored["id"]))
