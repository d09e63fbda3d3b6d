"""Changes to a stored job: one transaction each, brought onto what is stored now, and noted."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import timedelta
from typing import Any, Generic, TypeVar
from uuid import UUID

import msgspec
from django.db import OperationalError, transaction
from django.utils import timezone

from wobble.core import job as core
from wobble.core.errors import DocumentError, NotThere, WobbleError
from wobble.core.facts import READING_KINDS, Fact
from wobble.core.formats.checks import check_facts, check_job, check_room
from wobble.core.formats.set_out import check_set_out
from wobble.core.setout.laid import SetOut
from wobble.site import models, photos, room, rows
from wobble.site.rebase import Settle, rebased

T = TypeVar("T")
S = TypeVar("S", bound=msgspec.Struct)


class Contradiction(WobbleError):
    """A fact's id was sent before with other contents, or what it supersedes was changed by somebody else.

    Attributes:
        theirs: What is stored under that id, in its plain form.
    """

    code = "differs"

    def __init__(self, message: str, *, mend: str, theirs: Any) -> None:
        super().__init__(message, mend=mend)
        self.theirs: dict[str, Any] = msgspec.to_builtins(theirs)


def find_job(user: Any, job_id: UUID) -> models.Job:
    """Return a user's job.

    Raises:
        NotThere: There is none of that id, or it is another user's.
    """
    row = models.Job.objects.filter(owner=user, id=job_id).first()
    if row is None:
        raise NotThere("There is no such job.", mend="Go back to your jobs.")
    return row


def revision_of(user: Any, job_id: UUID) -> int:
    """Return the revision of a user's job, and nothing more of it.

    Raises:
        NotThere: There is none of that id, or it is another user's.
    """
    found: int | None = models.Job.objects.filter(owner=user, id=job_id).values_list("revision", flat=True).first()
    if found is None:
        raise NotThere("There is no such job.", mend="Go back to your jobs.")
    return found


def find_place(job: models.Job, place_key: str) -> models.Place:
    """Return a place of a job, or raise NotThere."""
    row = job.places.filter(key=place_key).first()
    if row is None:
        raise NotThere(f"There is no place “{place_key}” in this job.", mend="Choose one of the job's places.")
    return row


@contextmanager
def changing(user: Any, job_id: UUID, what: str, *, check: bool = True) -> Iterator[models.Job]:
    """Open a change to a job: the body's writes and the new revision are stored together, or not at all.

    Args:
        user: Whose job it must be.
        job_id: The job.
        what: The change in a few words.
        check: Whether the whole job is checked in the end; not where the body has checked all that it adds.

    Raises:
        NotThere: It is not the user's job.
    """
    with transaction.atomic():
        row = find_job(user, job_id)
        yield row
        row.revision += 1  # nobody writes between: the transaction began by taking its turn
        row.save(update_fields=("revision", "changed"))
        models.Change.objects.create(job=row, revision=row.revision, by=user.get_username(), what=what[:300])
        if check:
            check_job(rows.job_value(row))


class Edit(msgspec.Struct, Generic[T], frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A value as a form was drawn from it, and as it should be; `settle` chooses where both sides changed a thing."""

    was: T
    now: T
    settle: Settle | None = None


def decide(user: Any, job_id: UUID, edit: Edit[S], kind: type[S], *, place_key: str = "", what: str) -> models.Job:
    """Store what a form changed of some decided values, whose fields are those of `kind`; all others stay.

    Raises:
        NotThere: It is not the user's job or place.
        Clash: Somebody else changed the same since, and nobody has chosen between the two.
    """
    names = [field.name for field in msgspec.structs.fields(kind)]
    with changing(user, job_id, what) as row:
        place = find_place(row, place_key) if place_key else None
        stored = rows.decided_of(row if place is None else place, names)
        made = rebased(kind, was=edit.was, now=edit.now, stored=stored, revision=row.revision, settle=edit.settle)
        changed = {name: getattr(made, name) for name in names}
        if place is None:
            rows.store_decided(row, **changed)
        else:
            rows.store_decided_of(place, **changed)
    return row


def put_place(user: Any, job_id: UUID, edit: Edit[core.Place | None]) -> models.Job:
    """Make a place, or change what is decided for one; facts are not looked at, and stay.

    Raises:
        DocumentError: There is a place of that id already, or the edit has no place.
        Clash: Somebody else changed the same since, and nobody has chosen between the two.
    """
    if edit.now is None or (edit.was is not None and edit.was.id != edit.now.id):
        raise DocumentError("A place keeps its id.", mend="Send the place as it should be, under its own id.")
    now, was = (None if p is None else msgspec.structs.replace(p, facts=()) for p in (edit.now, edit.was))
    with changing(user, job_id, f"place {edit.now.name}") as row:
        found = row.places.filter(key=edit.now.id).first()
        if found is None and was is None and now is not None:
            check_job(core.Job(name="", places=(now,)))
            rows.store_place(row, now, row.places.count())
        elif was is None:
            raise DocumentError(
                f"There is a place “{edit.now.id}” already.", mend="Give the new one another id.", path="$.now.id"
            )
        else:
            found = find_place(row, edit.now.id)
            stored = rows.decided_place(found)
            made = rebased(core.Place, was=was, now=now, stored=stored, revision=row.revision, settle=edit.settle)
            rows.update_place(found, made)
    return row


def check_set_out_of(user: Any, job_id: UUID, place_key: str, said: SetOut) -> None:
    """Check that what is set out on a page goes together, beside what else is decided for its place.

    Raises:
        NotThere: It is not the user's job or place.
        DocumentError: It does not; with the path of the first fault.
    """
    place = rows.decided_place(find_place(find_job(user, job_id), place_key))
    own = {name: getattr(said, name) for name in SetOut.__struct_fields__}
    check_set_out(msgspec.structs.replace(place, **own), "$.said")


def create_job(user: Any, value: core.Job) -> models.Job:
    """Store a new job of a user; the value must have been checked."""
    with transaction.atomic():
        row = rows.store_job(user, value)
        models.Change.objects.create(job=row, revision=1, by=user.get_username(), what="the job was made")
        return row


KEPT_DELETED = timedelta(days=30)
"""How long a deleted job can be brought back."""


def delete_job(user: Any, job_id: UUID) -> None:
    """Delete a job: for a while it can be brought back; deleted once more it is gone for good.

    Works on a full disk too, by room that is kept for it.

    Raises:
        NotThere: It is not the user's job.
    """
    row = models.Job.every.filter(owner=user, id=job_id).first()
    if row is None:
        raise NotThere("There is no such job.", mend="Go back to your jobs.")
    if row.deleted is not None:
        _for_good(row)
        return
    row.deleted = timezone.now()
    _with_room(lambda: row.save(update_fields=["deleted"]))
    for old in models.Job.every.filter(owner=user, deleted__lt=timezone.now() - KEPT_DELETED):
        _for_good(old)


def _for_good(row: models.Job) -> None:
    key = row.pk
    _with_room(row.delete)
    photos.drop(key)


def _with_room(change: Callable[[], object]) -> None:
    """Make a change that frees room or goes before it, on a full disk by what is kept for that."""
    try:
        change()
    except OperationalError as fault:
        if not room.is_full(fault):
            raise
        room.give_up()
        change()
        room.reserve()


def deleted_jobs(user: Any) -> list[models.Job]:
    """Return the jobs of a user that can be brought back, last deleted first."""
    since = timezone.now() - KEPT_DELETED
    return list(models.Job.every.filter(owner=user, deleted__gte=since).order_by("-deleted"))


def bring_back(user: Any, job_id: UUID) -> models.Job:
    """Bring a deleted job back as it was, pictures and all.

    Raises:
        NotThere: It is not the user's, was not deleted, or was too long ago.
    """
    row = next((row for row in deleted_jobs(user) if row.pk == job_id), None)
    if row is None:
        raise NotThere("There is no such deleted job.", mend="Jobs can be brought back for 30 days.")
    row.deleted = None
    row.save(update_fields=["deleted"])
    return row


def add_facts(
    user: Any, job_id: UUID, place_key: str, facts: tuple[Fact, ...]
) -> tuple[models.Job, list[str], list[str]]:
    """Store facts; those sent before are left as they are.

    Returns:
        The job, the ids stored now, and the ids that were there already.

    Raises:
        NotThere: It is not the user's job or place.
        DocumentError: A fact does not fit its place or those before it, or an id stands twice; none is stored.
        Contradiction: An id was used before for another fact, or what an obstacle supersedes was changed by somebody
            else since; none is stored.
    """
    _check_once(facts)
    job = find_job(user, job_id)
    known = _known(find_place(job, place_key), facts)
    if all(fact.id in known for fact in facts):
        _check_same(facts, known)
        return job, [], [fact.id for fact in facts]
    with changing(user, job_id, _words(facts, place_key), check=False) as job:
        row = find_place(job, place_key)
        place = rows.place_value(row)
        known = {fact.id: fact for fact in place.facts}  # once more, now that no other writer can come between
        _check_same(facts, known)
        fresh = tuple(fact for fact in facts if fact.id not in known)
        instruments = {i["id"] for i in job.decided.get("instruments", ())}
        check_facts(place, fresh, instruments, "$.facts", {id_: type(fact) for id_, fact in known.items()})
        _check_alone(fresh, place)
        check_room(msgspec.structs.replace(place, facts=(*place.facts, *fresh)), "$.facts")
        models.Fact.objects.bulk_create(rows.fact_row(row, fact) for fact in fresh)
    return job, [fact.id for fact in fresh], [fact.id for fact in facts if fact.id in known]


def _known(place: models.Place, facts: tuple[Fact, ...]) -> dict[str, Fact]:
    stored = place.facts.filter(key__in=[fact.id for fact in facts])
    return {row.key: rows.fact_value(row) for row in stored}


def _words(facts: tuple[Fact, ...], place_key: str) -> str:
    """Return what was found out, for whoever edits from an older revision."""
    n = sum(isinstance(fact, READING_KINDS) for fact in facts)
    said = [f"{n} reading{'s' if n > 1 else ''} taken"] if n else []
    said += [fact.name for fact in facts if isinstance(fact, core.Obstacle)]
    others = len(facts) - len(said) - n + bool(n)
    said += [f"{others} thing{'s' if others > 1 else ''} found"] if others else []
    return f"{', '.join(said)} in {place_key}"[:300]


def _check_once(facts: tuple[Fact, ...]) -> None:
    seen: set[str] = set()
    for i, fact in enumerate(facts):
        if fact.id in seen:
            raise DocumentError(
                f"“{fact.id}” stands twice in one call.", mend="Give each fact its own id.", path=f"$.facts[{i}].id"
            )
        seen.add(fact.id)


def _check_same(facts: tuple[Fact, ...], known: dict[str, Fact]) -> None:
    for fact in facts:
        stored = known.get(fact.id)
        if stored is not None and msgspec.structs.replace(stored, aside=None) != msgspec.structs.replace(
            fact, aside=None
        ):
            raise Contradiction(
                f"“{fact.id}” was stored before with other contents.",
                mend="A fact is never overwritten: send yours under a new id that supersedes it.",
                theirs=stored,
            )


def _check_alone(fresh: tuple[Fact, ...], place: core.Place) -> None:
    """Check that no obstacle takes the place of one that somebody else has changed since: both would stand."""
    for fact in fresh:
        if not isinstance(fact, core.Obstacle) or fact.supersedes is None:
            continue
        theirs = next((o for o in place.obstacles if o.supersedes == fact.supersedes), None)
        if theirs is not None:
            raise Contradiction(
                f"“{theirs.name}” was changed elsewhere since you saw it.",
                mend="Look at both and choose which holds.",
                theirs=theirs,
            )


def set_aside(user: Any, job_id: UUID, place_key: str, fact_key: str, aside: core.Aside | None) -> models.Job:
    """Set a fact aside, or (None) put it back in use. Doing so twice is once.

    A reading that is set aside gives way to the one that it superseded; anything else goes with all that it superseded,
    as an obstacle that is taken away was never there in an older form either.
    """
    job = find_job(user, job_id)
    place = find_place(job, place_key)
    row = place.facts.filter(key=fact_key).first()
    if row is None:
        raise NotThere(f"There is no fact “{fact_key}”.", mend="Look at what was found in the place again.")
    plain = msgspec.to_builtins(aside)
    if (row.aside is None) == (plain is None):
        return job
    named = "a reading" if row.kind in READING_TAGS else f"an {row.kind}" if row.kind == "obstacle" else f"a {row.kind}"
    what = f"{named} in {place_key} was {'put back' if aside is None else 'set aside'}"
    with changing(user, job_id, what) as job:
        keys = [fact_key]
        if aside is not None and row.kind not in READING_TAGS:
            earlier = {key: fact.get("supersedes") for key, fact in place.facts.values_list("key", "fact")}
            while (older := earlier.get(keys[-1])) is not None and older not in keys:
                keys.append(older)
        models.Fact.objects.filter(place=place, key__in=keys).update(aside=plain)
    return job


READING_TAGS = tuple(kind.__struct_config__.tag for kind in READING_KINDS)


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
