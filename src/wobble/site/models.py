"""The rows. What was found out is a row a fact, written once; what is decided is a document a place and a job.

Whatever changes carries the job's revision.
"""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class LiveJobs(models.Manager["Job"]):
    """Jobs that nobody deleted."""

    def get_queryset(self) -> models.QuerySet[Job]:
        """Return those, for all that asks for jobs and does not say that it wants the deleted ones too."""
        return super().get_queryset().filter(deleted=None)


class Job(models.Model):
    """A job of one user: what is decided for all its places as one document. `revision` grows with every change.

    One that is deleted is kept for a while, whole, and is there for nobody but whoever brings it back.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="jobs")
    name = models.CharField(max_length=200)
    address = models.CharField(max_length=200, blank=True)
    decided = models.JSONField(default=dict)
    revision = models.PositiveIntegerField(default=1)
    created = models.DateTimeField(auto_now_add=True)
    changed = models.DateTimeField(auto_now=True)
    deleted = models.DateTimeField(null=True, db_index=True)

    objects = LiveJobs()
    every = models.Manager()

    class Meta:
        """Newest first."""

        ordering = ("-changed",)

    def __str__(self) -> str:
        return self.name


class Change(models.Model):
    """What changed at a revision, for whoever edits from an older one."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="changes")
    revision = models.PositiveIntegerField()
    at = models.DateTimeField(auto_now_add=True)
    by = models.CharField(max_length=150)
    what = models.CharField(max_length=300)

    class Meta:
        """One line a revision."""

        ordering = ("revision",)
        constraints = (models.UniqueConstraint(fields=("job", "revision"), name="one_change_a_revision"),)

    def __str__(self) -> str:
        return f"{self.revision}: {self.what}"


class ShelfInstrument(models.Model):
    """An instrument on a user's own shelf, to be taken into any job with the checks that it went through."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="shelf")
    key = models.CharField(max_length=80)
    value = models.JSONField()

    class Meta:
        """One instrument a key."""

        ordering = ("id",)
        constraints = (models.UniqueConstraint(fields=("owner", "key"), name="one_instrument_a_key"),)


class Place(models.Model):
    """A place of a job: what is decided for it, as one document without its facts; `position` is its turn there."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="places")
    position = models.PositiveIntegerField()
    key = models.CharField(max_length=80)
    decided = models.JSONField()

    class Meta:
        """One place a key, in the document's order."""

        ordering = ("position",)
        constraints = (models.UniqueConstraint(fields=("job", "key"), name="one_place_a_key"),)


class Fact(models.Model):
    """A fact as it came. Only `aside` may change; the order is that of arrival. `kind` is the fact's own tag."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="facts")
    key = models.CharField(max_length=80)
    kind = models.CharField(max_length=30)
    fact = models.JSONField()
    aside = models.JSONField(null=True)

    class Meta:
        """The client's id makes sending twice store once."""

        ordering = ("id",)
        constraints = (models.UniqueConstraint(fields=("place", "key"), name="one_fact_an_id"),)


class Invitation(models.Model):
    """A link that is good once: to become a user, or for a new password of `user`."""

    key = models.CharField(max_length=64, unique=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True)
    until = models.DateTimeField()
