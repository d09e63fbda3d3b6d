"""All jobs of one user as one ZIP of job documents, and such a ZIP back in: every job or none."""

from __future__ import annotations

import io
import json
import re
import zipfile
from typing import Any
from zlib import error as zlib_error

from django.db import transaction

from wobble.core import job as core
from wobble.core.errors import DocumentError
from wobble.core.formats.document import read_job, write_job
from wobble.site import edits, models, rows

FORMAT = "wobble-jobs"
MOST_JOBS = 500
MOST_BYTES = 200 * 2**20
"""What a ZIP may come to when it is unpacked."""


def packed(user: Any) -> bytes:
    """Return a ZIP with every job of a user as its document."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        made.writestr("about.json", json.dumps({"format": FORMAT, "version": 1}))
        for n, row in enumerate(models.Job.objects.filter(owner=user).order_by("created"), 1):
            name = re.sub(r"[^a-z0-9]+", "-", row.name.lower()).strip("-")[:60] or "job"
            made.writestr(f"{n:03d}-{name}.wobble.json", write_job(rows.job_value(row)))
    return out.getvalue()


def unpacked(user: Any, data: bytes) -> list[models.Job]:
    """Store every job of such a ZIP as a new one of a user.

    Raises:
        DocumentError: It is no such ZIP, or one of its jobs cannot be taken; none is stored then.
    """
    jobs = _read(data)
    with transaction.atomic():
        return [edits.create_job(user, job) for job in jobs]


def _read(data: bytes) -> list[core.Job]:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as found:
            inside = [i for i in found.infolist() if i.filename.endswith(".wobble.json")]
            if len(inside) > MOST_JOBS or sum(i.file_size for i in inside) > MOST_BYTES:
                raise DocumentError(
                    f"It holds {len(inside)} jobs; the most is {MOST_JOBS}, and {MOST_BYTES // 2**20} MB unpacked.",
                    mend="Bring them in as several files.",
                )
            if not inside:
                raise DocumentError(
                    "There is no job in this file.", mend="Choose a ZIP that “Save all jobs” made, or a job document."
                )
            return [_job(found, i) for i in inside]
    except (zipfile.BadZipFile, zlib_error, EOFError, NotImplementedError, RuntimeError) as fault:
        raise DocumentError(f"This ZIP cannot be read: {fault}.", mend="Save it again, and send that file.") from fault


def _job(found: zipfile.ZipFile, item: zipfile.ZipInfo) -> core.Job:
    with found.open(item) as file:
        text = file.read(item.file_size + 1)  # never more than it said
    if len(text) > item.file_size:
        raise DocumentError(f"{item.filename} is larger than the ZIP says.", mend="Save it again.", path=item.filename)
    try:
        return read_job(text)
    except DocumentError as fault:
        raise DocumentError(fault.message, mend=fault.mend, path=f"{item.filename}: {fault.path}") from fault
