"""Pictures: kept as files in the data folder, by the digest of what is in them; small, upright, and without a place.

A picture is read and written anew: what a phone writes into it beside the picture (where it was taken, by which phone)
is not in the file that is kept. It is on the disk before anybody is told that it is kept.
"""

from __future__ import annotations

import hashlib
import io
import os
import shutil
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from uuid import UUID

import msgspec
from django.conf import settings
from PIL import Image, ImageOps, UnidentifiedImageError

from wobble.core.errors import DocumentError, NotThere
from wobble.site.backup import PHOTOS

MOST_BYTES = 20 * 2**20
"""What a phone makes at most; bytes."""
MOST_PIXELS = 80_000_000
LONGEST_PX = 2000
"""Enough to read a tape in it; more is scaled down."""
QUALITY = 82
MOST_OF_A_JOB = 1000
FORMATS = ("JPEG", "PNG", "WEBP")


class KeptPhoto(msgspec.Struct, frozen=True, kw_only=True):
    """A picture that is kept: the digest by which it is found, and its size."""

    file: str
    wide_px: int
    high_px: int


def folder(job: UUID) -> Path:
    """Return where a job's pictures are."""
    return Path(settings.DATA) / PHOTOS / str(job)


def keep(job: UUID, data: bytes) -> KeptPhoto:
    """Keep a picture of a job; the same one twice is one.

    Raises:
        DocumentError: It is no picture that can be read, too large, or there are too many.
    """
    if len(data) > MOST_BYTES:
        raise DocumentError(
            f"The picture has {len(data) / 2**20:.0f} MB; the most is {MOST_BYTES // 2**20}.",
            mend="Take it smaller, or send a part of it.",
            path="photo",
        )
    picture = _read(data)
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=QUALITY, optimize=True)
    written = out.getvalue()
    digest = hashlib.sha256(written).hexdigest()
    kept = KeptPhoto(file=digest, wide_px=picture.width, high_px=picture.height)
    path = folder(job) / f"{digest}.jpg"
    if path.exists():
        return kept
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    if sum(1 for _ in path.parent.glob("*.jpg")) >= MOST_OF_A_JOB:
        raise DocumentError(
            f"A job keeps {MOST_OF_A_JOB} pictures at most.", mend="Begin another job for the rest.", path="photo"
        )
    _write(path, written)
    return kept


def _read(data: bytes) -> Image.Image:
    try:
        with Image.open(io.BytesIO(data), formats=FORMATS) as found:
            if found.width * found.height > MOST_PIXELS:
                raise DocumentError(
                    f"It has {found.width} by {found.height} pixels; the most is {MOST_PIXELS // 10**6} million.",
                    mend="Take it with fewer.",
                    path="photo",
                )
            upright = ImageOps.exif_transpose(found)
            picture = upright.convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError) as fault:
        raise DocumentError(
            f"This is no picture that can be read: {fault}.", mend="Send a JPEG, PNG or WebP.", path="photo"
        ) from fault
    picture.thumbnail((LONGEST_PX, LONGEST_PX))
    # a picture of its own: nothing that was written beside the old one comes along
    plain = Image.new("RGB", picture.size)
    plain.paste(picture)
    return plain


def _write(path: Path, data: bytes) -> None:
    """Write a file whole or not at all, and return only when it is on the disk."""
    draft = path.with_suffix(f".{os.getpid()}-{id(data)}.draft")
    try:
        with draft.open("wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        draft.replace(path)
        held = os.open(path.parent, os.O_RDONLY)
        try:
            os.fsync(held)
        finally:
            os.close(held)
    except OSError:
        with suppress(OSError):
            draft.unlink()
        raise


def put_back(job: UUID, digest: str, data: bytes) -> None:
    """Keep a picture that a ZIP brings, under the name that the job's facts know it by.

    Raises:
        DocumentError: It is not what its name says, or no picture.
    """
    if hashlib.sha256(data).hexdigest() != digest:
        raise DocumentError(
            f"The picture {digest[:12]}… is not what it was.", mend="Save the ZIP again, and send that.", path=digest
        )
    _read(data)
    path = folder(job) / f"{digest}.jpg"
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    _write(path, data)


def read(job: UUID, digest: str) -> bytes:
    """Return a picture of a job.

    Raises:
        NotThere: None of that digest is kept of it.
    """
    try:
        return (folder(job) / f"{digest}.jpg").read_bytes()
    except (OSError, ValueError) as fault:
        raise NotThere("This picture is not kept here.", mend="Send it again.") from fault


def all_of(job: UUID) -> Iterator[Path]:
    """Yield the files of a job's pictures."""
    yield from sorted(folder(job).glob("*.jpg"))


def drop(job: UUID) -> None:
    """Throw a job's pictures away, with the job."""
    shutil.rmtree(folder(job), ignore_errors=True)
