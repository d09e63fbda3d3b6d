"""Answers that are kept, for all workers: each under a digest of what it rests on and of the program that gives it.

Beside them stands, for every place and question, which answer is of which revision of its job: to look that up costs no
more than a small file.
"""

from __future__ import annotations

import hashlib
import os
import shutil
from contextlib import suppress
from functools import cache
from itertools import count
from pathlib import Path
from uuid import UUID

from django.conf import settings

import wobble
from wobble.core.job import Job
from wobble.core.stages import find_place, rests_on
from wobble.site.room import ANSWERS

MOST_BYTES = 64 * 2**20
"""What is kept in all; the oldest goes first."""
TIDY_EACH = 16
"""After so many answers it is looked how much is kept."""
OF_THE_WHOLE = ("set", "proposal")
"""Answers of a place that name parts by their marks, which are counted over all places."""
_written = count()


def folder() -> Path:
    """Return where answers are kept, made now if it is not there."""
    return _folder(Path(settings.DATA))


@cache
def _folder(data: Path) -> Path:
    found = data / ANSWERS
    found.mkdir(parents=True, exist_ok=True, mode=0o700)
    return found


@cache
def _program() -> bytes:
    """Return a digest of the program: another version may give other answers."""
    found = hashlib.sha256()
    for path in sorted(Path(wobble.__file__).parent.rglob("*.py")):
        found.update(path.read_bytes())
    return found.digest()


def name_of(job: Job, place_id: str, what: str) -> str:
    """Return an answer's name.

    Raises:
        NotThere: The job has no such place.
    """
    found = hashlib.sha256(_program())
    found.update(f"{what}\0".encode())
    if what in OF_THE_WHOLE:
        found.update(f"{place_id}\0".encode())
        find_place(job, place_id)
    found.update(rests_on(job, "" if what in OF_THE_WHOLE else place_id))
    return found.hexdigest()


def read(name: str) -> bytes | None:
    """Return a kept answer; None where it is not kept."""
    try:
        return _path(name).read_bytes()
    except OSError:
        return None


def keep(name: str, answer: bytes) -> None:
    """Keep an answer, whole or not at all: a full disk keeps none, and answers go on."""
    _write(_path(name), answer)
    if next(_written) % TIDY_EACH == 0:
        _tidy()


def newest(job: UUID, place_id: str, what: str) -> tuple[int, str]:
    """Return the newest revision that was answered, and the answer's name; (0, "") where none was."""
    try:
        revision, program, name = _pointer(job, place_id, what).read_text().split()
    except (OSError, ValueError):
        return 0, ""
    return (int(revision), name) if program == _program().hex() else (0, "")


def point(job: UUID, place_id: str, what: str, revision: int, name: str) -> None:
    """Say which answer is of which revision, where it is the newest."""
    if revision >= newest(job, place_id, what)[0]:
        _write(_pointer(job, place_id, what), f"{revision} {_program().hex()} {name}".encode())


def _path(name: str) -> Path:
    return folder() / f"{name}.json"


def _pointer(job: UUID, place_id: str, what: str) -> Path:
    return folder() / f"{job}-{place_id}-{what}.newest"


def _write(path: Path, data: bytes) -> None:
    draft = path.with_suffix(f".{os.getpid()}-{id(data)}")
    try:
        draft.write_bytes(data)
        draft.replace(path)
    except OSError:
        with suppress(OSError):
            draft.unlink()


def clear() -> None:
    """Throw all answers away: they can be made again, and the room is wanted."""
    for path in folder().iterdir():
        if path.suffix != ".lock":
            with suppress(OSError):
                path.unlink()


def _tidy() -> None:
    """Throw away the oldest of what is more than may be kept."""
    found = []
    for path in folder().iterdir():
        if path.suffix != ".lock":
            with suppress(OSError):
                stat = path.stat()
                found.append((stat.st_mtime, stat.st_size, path))
    total = sum(size for _, size, _ in found)
    # what can be made again never takes the room of what cannot
    most = min(MOST_BYTES, (shutil.disk_usage(folder()).free + total) // 4)
    for _, size, path in sorted(found)[:-1]:
        if total <= most:
            break
        with suppress(OSError):
            path.unlink()
        total -= size
