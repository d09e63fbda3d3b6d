"""Backups: everything in one file, made while the server runs, and put back; the last seven nights are kept.

The database is copied by SQLite's own backup, which takes what is committed, wherever it stands: a plain copy of the
file would miss what is still in its log.
"""

from __future__ import annotations

import json
import os
import shutil
import socket
import sqlite3
import tempfile
import zipfile
from datetime import UTC, datetime, timedelta
from pathlib import Path

from wobble.core.errors import WobbleError
from wobble.site.room import ANSWERS, computing_socket

FORMAT = "wobble-backup"
DATABASE = "wobble.sqlite3"
KEY = "secret-key"
PHOTOS = "photos"
NIGHTS = 7
NIGHTLY = "night-"


class BackupError(WobbleError):
    """A backup that cannot be made or put back."""

    code = "backup"


def back_up(data: Path, into: Path | None = None, name: str = "wobble-") -> Path:
    """Write everything of a data folder into one file; return where it is.

    Args:
        data: The server's folder, WOBBLE_DATA; the server may be running.
        into: The folder for the file; `backups` in the data folder where none is given.
        name: How the file's name begins.

    Raises:
        BackupError: There is nothing to back up, or the copy is not sound.
    """
    if not (data / DATABASE).exists():
        raise BackupError(f"There is no {DATABASE} in {data}.", mend="Say by WOBBLE_DATA where the data is.")
    folder = into or data / "backups"
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    stamp = datetime.now(UTC).strftime("%Y-%m-%dT%H%M%SZ")
    path = folder / f"{name}{stamp}.zip"
    with tempfile.TemporaryDirectory(dir=folder) as scratch:
        copy = Path(scratch) / DATABASE
        _copy(data / DATABASE, copy)
        draft = Path(scratch) / "backup.zip"
        with zipfile.ZipFile(draft, "w", zipfile.ZIP_DEFLATED) as made:
            made.writestr("about.json", json.dumps({"format": FORMAT, "version": 1, "made": stamp}))
            made.write(copy, DATABASE)
            if (data / KEY).exists():
                made.write(data / KEY, KEY)
            for photo in sorted((data / PHOTOS).rglob("*")):
                if photo.is_file():
                    made.write(photo, f"{PHOTOS}/{photo.relative_to(data / PHOTOS)}")
        draft.chmod(0o600)
        draft.replace(path)
    return path


def _copy(source: Path, target: Path) -> None:
    with sqlite3.connect(source) as live, sqlite3.connect(target) as copy:
        live.backup(copy)
        (verdict,) = copy.execute("PRAGMA quick_check").fetchone()
    live.close()
    copy.close()
    if verdict != "ok":
        raise BackupError(f"The copy of the database is not sound: {verdict}", mend="Restore an earlier backup.")


def restore(data: Path, path: Path) -> Path | None:
    """Put a backup back in place of what is there; return where what was there has been backed up, if there was any.

    Raises:
        BackupError: It is no backup, it is not sound, or the server runs.
    """
    if running(data):
        raise BackupError("The server is running on this data.", mend="Stop it, then restore.")
    try:
        with zipfile.ZipFile(path) as found:
            about = json.loads(found.read("about.json"))
            names = [n for n in found.namelist() if n in (DATABASE, KEY) or n.startswith(f"{PHOTOS}/")]
            if about.get("format") != FORMAT or DATABASE not in names:
                raise KeyError("about.json")
            before = back_up(data, name="before-restore-") if (data / DATABASE).exists() else None
            data.mkdir(parents=True, exist_ok=True, mode=0o700)
            with tempfile.TemporaryDirectory(dir=data) as scratch:
                found.extractall(scratch, names)
                fresh = Path(scratch)
                _copy(fresh / DATABASE, fresh / "sound.sqlite3")  # opens, reads and checks all of it
                for rest in ("-wal", "-shm"):
                    (data / f"{DATABASE}{rest}").unlink(missing_ok=True)
                _put(fresh / "sound.sqlite3", data / DATABASE)
                # revisions are counted from the backup's again: an answer kept of one may be of another job by then
                shutil.rmtree(data / ANSWERS, ignore_errors=True)
                if (fresh / KEY).exists():
                    _put(fresh / KEY, data / KEY)
                if (fresh / PHOTOS).exists():
                    if (data / PHOTOS).exists():
                        (data / PHOTOS).rename(fresh / "photos-before")
                    (fresh / PHOTOS).rename(data / PHOTOS)
    except (OSError, KeyError, ValueError, zipfile.BadZipFile, sqlite3.DatabaseError) as fault:
        raise BackupError(
            f"{path.name} is no backup that can be put back: {fault}", mend="Choose a file that ./run backup made."
        ) from fault
    return before


def _put(source: Path, target: Path) -> None:
    source.chmod(0o600)
    source.replace(target)


def running(data: Path) -> bool:
    """Return whether a server computes on this data."""
    with socket.socket(socket.AF_UNIX) as line:
        try:
            line.connect(str(computing_socket(data)))
        except OSError:
            return False
    return True


def nightly(data: Path, now: datetime) -> Path | None:
    """Back up where the last night's backup is a day old, and keep the newest seven; None where none was due."""
    folder = data / "backups"
    kept = sorted(folder.glob(f"{NIGHTLY}*.zip"))
    if kept and now - datetime.fromtimestamp(kept[-1].stat().st_mtime, UTC) < timedelta(hours=23.5):
        return None
    made = back_up(data, name=NIGHTLY)
    os.utime(made, (now.timestamp(), now.timestamp()))
    for old in kept[: -(NIGHTS - 1)]:
        old.unlink()
    return made
