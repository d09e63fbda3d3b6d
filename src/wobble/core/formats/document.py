"""The job document: JSON, mm, kg and degrees; the same value from a file, the API and the database.

`read_job` takes bytes that may be anything and either returns a job that holds together or names the fault's path and
how to mend it.
"""

from __future__ import annotations

import json
from typing import Any, TypeVar

import msgspec

from wobble.core.errors import DocumentError
from wobble.core.formats.checks import check_job
from wobble.core.formats.faults import plain_json, refused
from wobble.core.formats.version_1 import from_version_1
from wobble.core.job import (
    Job,
)
from wobble.core.stages import Result

T = TypeVar("T")

LARGEST_DOCUMENT_BYTES = 10 * 1024 * 1024


def write_job(job: Job) -> bytes:
    """Return the job document, indented, keys in the order of the schema."""
    return msgspec.json.format(msgspec.json.encode(job), indent=2) + b"\n"


def write_result(result: Result) -> bytes:
    """Return the result document."""
    return msgspec.json.format(msgspec.json.encode(result), indent=2) + b"\n"


def job_schema() -> bytes:
    """Return the JSON Schema (2020-12) of the job document."""
    head = {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Wobble job document, version 2"}
    return json.dumps(head | msgspec.json.schema(Job), indent=2).encode() + b"\n"


def read_job(data: bytes) -> Job:
    """Return the job in a document.

    Raises:
        DocumentError: The document is too large, is not JSON, does not follow the schema, or contradicts itself; the
            error names the path of the fault and the mend.
    """
    if len(data) > LARGEST_DOCUMENT_BYTES:
        raise DocumentError(
            f"The document has {len(data) / 1048576:.1f} MB; {LARGEST_DOCUMENT_BYTES // 1048576} MB is the most.",
            mend="Split it into several jobs.",
            path="$",
        )
    plain = plain_json(data)
    if isinstance(plain, dict) and plain.get("version") == 1:
        plain = from_version_1(plain)
    job = _converted(plain, Job)
    check_job(job)
    return job


def decode(data: bytes, kind: type[T]) -> T:
    """Return JSON as a value of a kind, its faults told as a `DocumentError`."""
    return _converted(plain_json(data), kind)


def ready(*kinds: Any) -> None:
    """Let kinds be read by several threads: done when a module is imported, which one thread does.

    msgspec works a kind out when it is first read, and two threads that begin that at once end the process.
    """
    for kind in kinds:
        msgspec.json.Decoder(kind)


ready(Job)


def _converted(plain: Any, kind: type[T]) -> T:
    try:
        return msgspec.json.decode(msgspec.json.encode(plain), type=kind)
    except msgspec.ValidationError as fault:
        raise refused(fault, kind, plain) from None
