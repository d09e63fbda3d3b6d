"""What is kept beside the server: backups while it runs, all jobs of one user, and a full disk."""

from __future__ import annotations

import io
import sqlite3
import zipfile
from datetime import UTC, datetime, timedelta

import pytest

from wobble.site import backup, room
from wobble.site.backup import BackupError, back_up, nightly, restore


@pytest.fixture
def data(tmp_path):
    """A folder with a database whose newest row stands in its log only."""
    live = sqlite3.connect(tmp_path / backup.DATABASE)
    live.execute("PRAGMA journal_mode=WAL")
    live.execute("PRAGMA wal_autocheckpoint=0")
    live.execute("CREATE TABLE job (name TEXT)")
    live.execute("INSERT INTO job VALUES ('Mill loft')")
    live.commit()
    (tmp_path / backup.KEY).write_text("secret")
    (tmp_path / backup.PHOTOS / "a").mkdir(parents=True)
    (tmp_path / backup.PHOTOS / "a" / "1.jpg").write_bytes(b"picture")
    yield tmp_path
    live.close()


def names(path) -> list[str]:
    found = sqlite3.connect(path)
    try:
        return [name for (name,) in found.execute("SELECT name FROM job ORDER BY name")]
    finally:
        found.close()


def test_a_backup_holds_what_a_plain_copy_misses_and_goes_back(data, tmp_path_factory):
    plain = tmp_path_factory.mktemp("copied") / "copy.sqlite3"
    plain.write_bytes((data / backup.DATABASE).read_bytes())
    with pytest.raises(sqlite3.OperationalError):
        names(plain)
    made = back_up(data)
    assert made.stat().st_mode & 0o077 == 0
    fresh = tmp_path_factory.mktemp("fresh")
    assert restore(fresh, made) is None
    assert names(fresh / backup.DATABASE) == ["Mill loft"]
    assert (fresh / backup.KEY).read_text() == "secret"
    assert (fresh / backup.PHOTOS / "a" / "1.jpg").read_bytes() == b"picture"


def test_what_is_there_is_backed_up_before_it_is_replaced(data, tmp_path_factory):
    made = back_up(data)
    other = tmp_path_factory.mktemp("other")
    with sqlite3.connect(other / backup.DATABASE) as live:
        live.execute("CREATE TABLE job (name TEXT)")
        live.execute("INSERT INTO job VALUES ('Signal cabin')")
    live.close()
    (other / room.ANSWERS).mkdir()
    (other / room.ANSWERS / "job-place-fit.newest").write_text("12 of another history")
    before = restore(other, made)
    assert before is not None
    assert not (other / room.ANSWERS).exists(), "a revision of the backup may be another's number"
    assert names(other / backup.DATABASE) == ["Mill loft"]
    restore(other, before)
    assert names(other / backup.DATABASE) == ["Signal cabin"]


@pytest.mark.parametrize("what", ["no zip", "no backup", "torn"])
def test_what_is_no_backup_is_refused_and_nothing_changes(data, what):
    path = data / "odd.zip"
    if what == "no zip":
        path.write_bytes(b"not a zip")
    elif what == "no backup":
        with zipfile.ZipFile(path, "w") as made:
            made.writestr("readme.txt", "hello")
    else:
        with zipfile.ZipFile(back_up(data)) as sound, zipfile.ZipFile(path, "w") as made:
            made.writestr("about.json", sound.read("about.json"))
            made.writestr(backup.DATABASE, sound.read(backup.DATABASE)[:3000])
    with pytest.raises(BackupError):
        restore(data, path)
    assert names(data / backup.DATABASE) == ["Mill loft"]


def test_seven_nights_are_kept(data):
    start = datetime(2026, 3, 1, 2, 0, tzinfo=UTC)
    for night in range(10):
        made = nightly(data, start + timedelta(days=night))
        assert made is not None
        made.rename(made.with_name(f"night-2026-03-{night + 1:02d}.zip"))
        assert nightly(data, start + timedelta(days=night, hours=3)) is None
    kept = sorted(path.name for path in (data / "backups").glob("night-*.zip"))
    assert kept == [f"night-2026-03-{n:02d}.zip" for n in range(4, 11)]


def test_all_jobs_go_out_as_one_file_and_come_in_again_whole(ines, tomas):
    ines.import_job()
    ines.import_job()
    packed = ines.client.get("/api/jobs/all.zip")
    assert packed["Content-Type"] == "application/zip"
    status, made = tomas.send("POST", "/jobs/all.zip", packed.content)
    assert (status, [job["name"] for job in made]) == (200, ["Gable workroom"] * 2)
    mine, his = (user.get(f"/jobs/{user.get('/jobs')[1][0]['id']}")[1]["job"] for user in (ines, tomas))
    assert mine == his


def zipped(**files: bytes) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        for name, text in files.items():
            made.writestr(f"{name}.wobble.json", text)
    return out.getvalue()


def test_a_zip_with_one_bad_job_brings_in_none_and_says_which(ines):
    good = b'{"format":"wobble-job","version":2,"name":"Good"}'
    status, fault = ines.send("POST", "/jobs/all.zip", zipped(good=good, bad=b'{"format":"wobble-job"}'))
    assert status == 422
    assert fault["path"].startswith("bad.wobble.json")
    assert ines.get("/jobs")[1] == []
    for odd in (b"no zip", zipped(), zipped(bomb=b"0" * 210_000_000)):
        assert ines.send("POST", "/jobs/all.zip", odd)[0] == 422


def test_a_full_disk_is_told_and_deleting_still_works(ines, settings, tmp_path, monkeypatch):
    """The database says that it is full until the room that was kept for this is given up."""
    from django.db import OperationalError

    from wobble.site import models

    settings.DATA = tmp_path
    room.reserve()
    stored = ines.import_job()

    def full(real):
        def no_room(self, *args, **kwargs):
            if (tmp_path / "reserve").exists():
                raise OperationalError("database or disk is full")
            return real(self, *args, **kwargs)

        return no_room

    monkeypatch.setattr(models.Change, "save", full(models.Change.save))
    monkeypatch.setattr(models.Job, "save", full(models.Job.save))
    monkeypatch.setattr(models.Job, "delete", full(models.Job.delete))
    before = ines.get(f"/jobs/{stored['id']}")[1]
    note = {"fact": "note", "id": "n", "text": "damp", "taken_at": "2026-03-07T10:00:00Z"}
    status, fault = ines.post(f"/jobs/{stored['id']}/places/north/facts", {"facts": [note]})
    assert (status, fault["code"]) == (507, "full")
    assert ines.get(f"/jobs/{stored['id']}")[1] == before
    for kept in (1, 0):  # into the bin, and out of it for good
        assert ines.send("DELETE", f"/jobs/{stored['id']}")[0] == 200
        assert ines.get("/jobs")[1] == []
        assert len(ines.get("/jobs/deleted")[1]) == kept
    assert (tmp_path / "reserve").stat().st_size == room.RESERVED_BYTES


def test_nothing_is_restored_under_a_running_server_however_long_its_folder_is_called(data, tmp_path_factory):
    import socket

    made = back_up(data)
    for name in ("short", "long" * 30):
        folder = tmp_path_factory.mktemp(name)
        address = room.computing_socket(folder)
        with socket.socket(socket.AF_UNIX) as listener:
            listener.bind(str(address))
            listener.listen()
            with pytest.raises(BackupError, match="running"):
                restore(folder, made)
        address.unlink()
        restore(folder, made)
        assert names(folder / backup.DATABASE) == ["Mill loft"]
