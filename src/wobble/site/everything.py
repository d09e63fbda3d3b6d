"""All jobs of one user as one ZIP of job documents, and such a ZIP back in: every job or none."""

from __future__ import annotations

import io
import json
import re
import zipfile
from pathlib import Path
from typing import Any
from zlib import error as zlib_error

from django.db import transaction

from wobble.core import job as core
from wobble.core.errors import DocumentError
from wobble.core.formats.document import read_job, write_job
from wobble.site import edits, models, photos, rows

FORMAT = "wobble-jobs"
DOCUMENT = ".wobble.json"
MOST_JOBS = 500
MOST_BYTES = 400 * 2**20
"""What a ZIP may come to when it is unpacked."""


def packed(user: Any) -> bytes:
    """Return a ZIP with every job of a user as its document."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        made.writestr("about.json", json.dumps({"format": FORMAT, "version": 1}))
        for n, row in enumerate(models.Job.objects.filter(owner=user).order_by("created"), 1):
            _add(made, row, f"{n:03d}-")
    return out.getvalue()


def packed_job(row: models.Job, log: bytes) -> bytes:
    """Return a ZIP with one job's document, its pictures, and its log."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        made.writestr("about.json", json.dumps({"format": FORMAT, "version": 1}))
        made.writestr("log.json", log)
        _add(made, row, "")
    return out.getvalue()


def _add(made: zipfile.ZipFile, row: models.Job, before: str) -> None:
    """Add a job's document, and its pictures in a folder of the same name."""
    name = before + (re.sub(r"[^a-z0-9]+", "-", row.name.lower()).strip("-")[:60] or "job")
    made.writestr(f"{name}{DOCUMENT}", write_job(rows.job_value(row)))
    for path in photos.all_of(row.pk):
        made.write(path, f"{name}/{path.name}", zipfile.ZIP_STORED)


def unpacked(user: Any, data: bytes) -> list[models.Job]:
    """Store every job of such a ZIP as a new one of a user, its pictures with it.

    Raises:
        DocumentError: It is no such ZIP, or one of its jobs cannot be taken; none is stored then.
    """
    found = _read(data)
    made: list[models.Job] = []
    try:
        with transaction.atomic():
            for job, pictures in found:
                row = edits.create_job(user, job)
                made.append(row)
                for name, picture in pictures:
                    photos.put_back(row.pk, name, picture)
    except Exception:
        for row in made:  # no job is there: none of its pictures is either
            photos.drop(row.pk)
        raise
    return made


Found = tuple[core.Job, list[tuple[str, bytes]]]


def _read(data: bytes) -> list[Found]:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as found:
            inside = [i for i in found.infolist() if i.filename.endswith(DOCUMENT)]
            if len(inside) > MOST_JOBS or sum(i.file_size for i in found.infolist()) > MOST_BYTES:
                raise DocumentError(
                    f"It holds {len(inside)} jobs; the most is {MOST_JOBS}, and {MOST_BYTES // 2**20} MB unpacked.",
                    mend="Bring them in as several files.",
                )
            if not inside:
                raise DocumentError(
                    "There is no job in this file.", mend="Choose a ZIP that “Save all jobs” made, or a job document."
                )
            return [(_job(found, i), _pictures(found, i.filename.removesuffix(DOCUMENT))) for i in inside]
    except (zipfile.BadZipFile, zlib_error, EOFError, NotImplementedError, RuntimeError) as fault:
        raise DocumentError(f"This ZIP cannot be read: {fault}.", mend="Save it again, and send that file.") from fault


def _pictures(found: zipfile.ZipFile, name: str) -> list[tuple[str, bytes]]:
    own = [i for i in found.infolist() if re.fullmatch(re.escape(name) + r"/[0-9a-f]{64}\.jpg", i.filename)]
    return [(Path(i.filename).stem, found.read(i)) for i in own if i.file_size <= photos.MOST_BYTES]


def _job(found: zipfile.ZipFile, item: zipfile.ZipInfo) -> core.Job:
    with found.open(item) as file:
        text = file.read(item.file_size + 1)  # never more than it said
    if len(text) > item.file_size:
        raise DocumentError(f"{item.filename} is larger than the ZIP says.", mend="Save it again.", path=item.filename)
    try:
        return read_job(text)
    except DocumentError as fault:
        raise DocumentError(fault.message, mend=fault.mend, path=f"{item.filename}: {fault.path}") from fault
