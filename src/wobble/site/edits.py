"""Changes to a stored job: one transaction each, refused when made from an older revision, and noted."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any
from uuid import UUID

import msgspec
from django.db import transaction
from django.db.models import F

from wobble.core import job as core
from wobble.core.errors import WobbleError
from wobble.core.formats.document import check_job, check_reading
from wobble.site import models, rows


class NotThere(WobbleError):
    """There is no such thing, or it is not the user's: the two are told alike."""

    code = "not-found"


class Stale(WobbleError):
    """An edit was made from an older revision.

    Attributes:
        revision: The job's revision now.
        changes: What changed since the edit's revision, oldest first.
    """

    code = "stale"

    def __init__(self, revision: int, changes: tuple[str, ...]) -> None:
        super().__init__(
            "The job was changed since you opened it: " + "; ".join(changes) + ".",
            mend="Look at the change, then make yours again.",
        )
        self.revision = revision
        self.changes = changes


class Contradiction(WobbleError):
    """A reading's, note's or mark's id was sent before with other contents.

    Attributes:
        theirs: What is stored under that id, in its plain form.
    """

    code = "differs"

    def __init__(self, message: str, *, mend: str, theirs: Any) -> None:
        super().__init__(message, mend=mend)
        self.theirs: dict[str, Any] = msgspec.to_builtins(theirs)


class MarkEdit(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A mark made or changed on site; `was` is what it was changed from, None where it is new."""

    mark: core.Mark
    was: core.Mark | None = None


class Finds(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Notes and marks from site; each has an id made by whoever found it."""

    notes: tuple[core.Note, ...] = ()
    marks: tuple[MarkEdit, ...] = ()


def find_job(user: Any, job_id: UUID) -> models.Job:
    """Return a user's job.

    Raises:
        NotThere: There is none of that id, or it is another user's.
    """
    row = models.Job.objects.select_related("kit").filter(owner=user, id=job_id).first()
    if row is None:
        raise NotThere("There is no such job.", mend="Go back to your jobs.")
    return row


def find_bay(job: models.Job, bay_key: str) -> models.Bay:
    """Return a bay of a job, or raise NotThere."""
    row = job.bays.filter(key=bay_key).first()
    if row is None:
        raise NotThere(f"There is no bay “{bay_key}” in this job.", mend="Choose one of the job's bays.")
    return row


@contextmanager
def changing(user: Any, job_id: UUID, *, revision: int | None, what: str) -> Iterator[models.Job]:
    """Open a change to a job: the body's writes and the new revision are stored together, or not at all.

    Args:
        user: Whose job it must be.
        job_id: The job.
        revision: What the user saw; None for a change that is true whatever else changed, such as a new reading.
        what: The change in a few words, for whoever edits from an older revision.

    Raises:
        NotThere: It is not the user's job.
        Stale: The job has moved on from `revision`.
    """
    with transaction.atomic():
        row = find_job(user, job_id)
        if revision is not None and revision != row.revision:
            since = row.changes.filter(revision__gt=revision).values_list("what", flat=True)
            raise Stale(row.revision, tuple(since) or ("it was changed elsewhere",))
        yield row
        models.Job.objects.filter(pk=row.pk).update(revision=F("revision") + 1)
        row.refresh_from_db()
        row.save(update_fields=("changed",))
        models.Change.objects.create(job=row, revision=row.revision, by=user.get_username(), what=what)
        check_job(rows.job_value(row))


def create_job(user: Any, value: core.Job) -> models.Job:
    """Store a new job of a user; the value must have been checked."""
    with transaction.atomic():
        row = rows.store_job(user, value)
        models.Change.objects.create(job=row, revision=1, by=user.get_username(), what="the job was made")
        return row


def add_readings(
    user: Any, job_id: UUID, bay_key: str, readings: tuple[core.Reading, ...]
) -> tuple[models.Job, list[str], list[str]]:
    """Store readings; those sent before are left as they are.

    Returns:
        The job, the ids stored now, and the ids that were there already.

    Raises:
        NotThere: It is not the user's job or bay.
        DocumentError: A reading does not fit its bay; none of them is stored.
        Contradiction: An id was used before for another reading; none of them is stored.
    """
    job = find_job(user, job_id)
    known = dict(find_bay(job, bay_key).readings.values_list("key", "fact"))
    fresh = [r for r in readings if r.id not in known]
    again = [r for r in readings if r.id in known]
    if not fresh:
        _check_same(again, known)
        return job, [], [r.id for r in again]
    n = len(fresh)
    what = f"{n} reading{'s' if n > 1 else ''} taken in {bay_key}"
    with changing(user, job_id, revision=None, what=what) as job:
        row = find_bay(job, bay_key)
        known = dict(row.readings.values_list("key", "fact"))  # once more, now that no other writer can come between
        _check_same([r for r in readings if r.id in known], known)
        bay = next(b for b in rows.job_value(job).bays if b.id == bay_key)
        instruments = set(job.instruments.values_list("key", flat=True))
        across: dict[str, str] = {s.id: s.across for s in bay.set_ups}
        fresh = [r for r in readings if r.id not in known]
        for i, reading in enumerate(fresh):
            check_reading(bay, reading, instruments, across, f"$.readings[{i}]")
        models.Reading.objects.bulk_create(rows.reading_row(row, reading) for reading in fresh)
    return job, [r.id for r in fresh], [r.id for r in readings if r.id in known]


def _check_same(readings: list[core.Reading], known: dict[str, Any]) -> None:
    for reading in readings:
        # compared as values: JSON knows no tuples, so the plain forms differ where the readings do not
        stored: core.Reading = msgspec.convert(known[reading.id], core.Reading)
        if stored != msgspec.structs.replace(reading, aside=None):
            raise Contradiction(
                f"Reading “{reading.id}” was stored before with other contents.",
                mend="A reading is never overwritten: send yours under a new id that supersedes it.",
                theirs=stored,
            )


def set_aside(user: Any, job_id: UUID, bay_key: str, reading_key: str, aside: core.Aside | None) -> models.Job:
    """Set a reading aside, or (None) put it back in use. Doing so twice is once."""
    job = find_job(user, job_id)
    row = find_bay(job, bay_key).readings.filter(key=reading_key).first()
    if row is None:
        raise NotThere(f"There is no reading “{reading_key}”.", mend="Look at the bay's readings again.")
    plain = msgspec.to_builtins(aside)
    if (row.aside is None) == (plain is None):
        return job
    what = f"a reading in {bay_key} was {'put back' if aside is None else 'set aside'}"
    with changing(user, job_id, revision=None, what=what) as job:
        models.Reading.objects.filter(pk=row.pk).update(aside=plain)
    return job


def add_finds(user: Any, job_id: UUID, bay_key: str, finds: Finds) -> models.Job:
    """Store notes and marks; those stored before are left as they are, so that sending twice is once.

    Raises:
        NotThere: It is not the user's job or bay.
        DocumentError: One does not fit its bay; none is stored.
        Contradiction: A note differs from the one of its id, or a mark was changed since by somebody else.
    """
    job = find_job(user, job_id)
    if _changed_bay(rows.job_value(job), bay_key, finds) is None:
        return job
    names = [*(f"note in {bay_key}" for _ in finds.notes), *(f"{e.mark.name} in {bay_key}" for e in finds.marks)]
    with changing(user, job_id, revision=None, what=", ".join(names)[:300]) as job:
        bay = _changed_bay(rows.job_value(job), bay_key, finds)
        if bay is not None:
            rows.store_bay_lists(find_bay(job, bay_key), bay)
    return job


def _changed_bay(job: core.Job, bay_key: str, finds: Finds) -> core.Bay | None:
    """Return the bay with the finds in it; None where it has them all."""
    bay = next((b for b in job.bays if b.id == bay_key), None)
    if bay is None:
        raise NotThere(f"There is no bay “{bay_key}” in this job.", mend="Choose one of the job's bays.")
    notes = {n.id: n for n in bay.notes}
    for note in finds.notes:
        if notes.setdefault(note.id, note) != note:
            mend = "A note is never overwritten: write a new one."
            raise Contradiction("That note was stored before with other words.", mend=mend, theirs=notes[note.id])
    marks = {m.id: m for m in bay.marks}
    for edit in finds.marks:
        stored = marks.get(edit.mark.id)
        if stored is not None and stored not in (edit.mark, edit.was):
            raise Contradiction(
                f"“{stored.name}” was changed elsewhere since you saw it.",
                mend="Look at both and choose which holds.",
                theirs=stored,
            )
        marks[edit.mark.id] = edit.mark
    changed = msgspec.structs.replace(bay, notes=tuple(notes.values()), marks=tuple(marks.values()))
    return None if changed == bay else changed


def add_detections(user: Any, job_id: UUID, bay_key: str, found: tuple[core.Detection, ...]) -> models.Job:
    """Store what was found behind a lining; what is there already is left as it is, so that sending twice is once."""
    job = find_job(user, job_id)
    known = {d["id"] for d in find_bay(job, bay_key).detections}
    if all(d.id in known for d in found):
        return job
    with changing(user, job_id, revision=None, what=f"something found behind {bay_key}") as job:
        row = find_bay(job, bay_key)
        known = {d["id"] for d in row.detections}
        row.detections = [*row.detections, *(msgspec.to_builtins(d) for d in found if d.id not in known)]
        row.save(update_fields=("detections",))
    return job


def take_detection_back(user: Any, job_id: UUID, bay_key: str, key: str) -> models.Job:
    """Take a detection back; taking one back that is not there does nothing."""
    with changing(user, job_id, revision=None, what=f"something found behind {bay_key} was taken back") as job:
        row = find_bay(job, bay_key)
        row.detections = [d for d in row.detections if d["id"] != key]
        row.save(update_fields=("detections",))
    return job


def shelf(user: Any) -> tuple[core.Instrument, ...]:
    """Return a user's own instruments."""
    found = models.ShelfInstrument.objects.filter(owner=user).values_list("value", flat=True)
    return tuple(msgspec.convert(value, core.Instrument) for value in found)


def put_on_shelf(user: Any, instrument: core.Instrument) -> None:
    """Put an instrument on a user's shelf, in place of the one of its id."""
    plain = {"value": msgspec.to_builtins(instrument)}
    models.ShelfInstrument.objects.update_or_create(owner=user, key=instrument.id, defaults=plain)


def take_off_shelf(user: Any, key: str) -> None:
    """Take an instrument off a user's shelf; taking one off that is not there does nothing."""
    models.ShelfInstrument.objects.filter(owner=user, key=key).delete()
