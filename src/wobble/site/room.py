"""Room on the disk: how a full one is known, and a little that is kept so that deleting always works."""

from __future__ import annotations

import hashlib
import os
import tempfile
from contextlib import suppress
from pathlib import Path

from django.conf import settings
from django.db import OperationalError

RESERVED_BYTES = 4 * 2**20
"""Enough for the log of a deletion of the largest job."""


ANSWERS = "answers"
"""The folder of kept answers, in the data folder."""
LONGEST_SOCKET = 100
"""The system takes a little more for the address of a socket."""


def computing_socket(data: Path) -> Path:
    """Return where what computes for a data folder listens: in it, or under a short name where that is long."""
    path = data.resolve() / "computing.socket"
    if len(os.fsencode(path)) <= LONGEST_SOCKET:
        return path
    short = hashlib.sha256(os.fsencode(path)).hexdigest()[:24]
    return Path(tempfile.gettempdir()) / f"wobble-{short}.socket"


def is_full(fault: OperationalError) -> bool:
    """Return whether the database says that there is no room."""
    return any(said in str(fault).lower() for said in ("is full", "disk i/o error", "unable to open"))


def _reserve() -> Path:
    return Path(settings.DATA) / "reserve"


def reserve() -> None:
    """Keep room for deleting, if there is any."""
    with suppress(OSError):
        if not _reserve().exists():
            _reserve().write_bytes(b"\0" * RESERVED_BYTES)


def give_up() -> None:
    """Use the room that was kept."""
    _reserve().unlink(missing_ok=True)
