"""The rows. A reading's `fact` is written once and never again; all else of a job carries the job's revision."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class Job(models.Model):
    """A job of one user. `revision` grows with every change."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="jobs")
    name = models.CharField(max_length=200)
    place = models.CharField(max_length=200, blank=True)
    note = models.TextField(blank=True)
    units = models.CharField(max_length=2, default="mm")
    way_in = models.JSONField(default=list)
    revision = models.PositiveIntegerField(default=1)
    created = models.DateTimeField(auto_now_add=True)
    changed = models.DateTimeField(auto_now=True)

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


class Placed(models.Model):
    """A row that has its place in a list of the job document, and an id of the user's own there."""

    place = models.PositiveIntegerField()
    key = models.CharField(max_length=80)

    class Meta:
        """Rows come in the document's order."""

        abstract = True
        ordering = ("place",)


class Instrument(Placed):
    """What readings of a job are taken with."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="instruments")
    name = models.CharField(max_length=200)
    kind = models.CharField(max_length=30)
    sigma_mm = models.FloatField()
    checks = models.JSONField(default=list)


class ShelfInstrument(models.Model):
    """An instrument on a user's own shelf, to be taken into any job with the checks that it went through."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="shelf")
    key = models.CharField(max_length=80)
    value = models.JSONField()

    class Meta:
        """One instrument a key."""

        ordering = ("id",)
        constraints = (models.UniqueConstraint(fields=("owner", "key"), name="one_instrument_a_key"),)


class ShimKit(models.Model):
    """The shims to hand for a job."""

    job = models.OneToOneField(Job, on_delete=models.CASCADE, related_name="kit")
    tolerance_mm = models.FloatField()
    max_stack_mm = models.FloatField()
    least_overlap_mm = models.FloatField()


class ShimPiece(models.Model):
    """Flat shims of one thickness."""

    kit = models.ForeignKey(ShimKit, on_delete=models.CASCADE, related_name="pieces")
    place = models.PositiveIntegerField()
    thickness_mm = models.FloatField()
    count = models.PositiveIntegerField(null=True)

    class Meta:
        """In the document's order."""

        ordering = ("place",)


class ShimTaper(models.Model):
    """Wedges of one shape."""

    kit = models.ForeignKey(ShimKit, on_delete=models.CASCADE, related_name="tapers")
    place = models.PositiveIntegerField()
    length_mm = models.FloatField()
    thin_mm = models.FloatField()
    thick_mm = models.FloatField()
    count = models.PositiveIntegerField(null=True)

    class Meta:
        """In the document's order."""

        ordering = ("place",)


class Bay(Placed):
    """A bay, with its decisions."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="bays")
    name = models.CharField(max_length=200)
    kind = models.CharField(max_length=20, default="open")
    frame = models.CharField(max_length=10)
    character = models.CharField(max_length=10)
    width_mm = models.FloatField()
    depth_mm = models.FloatField()
    height_mm = models.FloatField()
    surfaces = models.JSONField()
    knee = models.JSONField(null=True)
    right_is_back_of = models.CharField(max_length=80, null=True)
    datum = models.JSONField()
    back_line = models.JSONField()
    closing = models.JSONField(default=dict)
    alternatives = models.JSONField(default=list)
    backing = models.JSONField(null=True)
    overhead = models.JSONField(null=True)
    underfoot = models.JSONField(null=True)
    detections = models.JSONField(default=list)

    class Meta(Placed.Meta):
        """One bay a key."""

        constraints = (models.UniqueConstraint(fields=("job", "key"), name="one_bay_a_key"),)


class SetUp(Placed):
    """One placing of a line or plane."""

    bay = models.ForeignKey(Bay, on_delete=models.CASCADE, related_name="set_ups")
    name = models.CharField(max_length=200)
    across = models.CharField(max_length=1)
    at_mm = models.FloatField(null=True)
    sigma_mm = models.FloatField()


def on_shims() -> dict[str, str]:
    """Return how units stood before they could stand otherwise."""
    return {"on": "shims"}


class Unit(Placed):
    """A unit that will stand in a bay."""

    bay = models.ForeignKey(Bay, on_delete=models.CASCADE, related_name="units")
    name = models.CharField(max_length=200)
    kind = models.CharField(max_length=20)
    x_mm = models.FloatField()
    width_mm = models.FloatField()
    depth_mm = models.FloatField()
    height_mm = models.FloatField()
    toe_recess_mm = models.FloatField()
    support_inset_mm = models.FloatField()
    fixing_heights_mm = models.JSONField()
    over_base_mm = models.FloatField(default=0.0)
    out_mm = models.FloatField(default=0.0)
    ready_made = models.BooleanField(default=True)
    weight_kg = models.FloatField(default=0.0)
    feet_in_mm = models.FloatField(default=0.0)
    holds = models.CharField(max_length=20, default="nothing")
    standing = models.JSONField(default=on_shims)
    front = models.JSONField(default=dict)
    spare = models.JSONField(default=dict)
    meets = models.JSONField(default=list)
    angled = models.JSONField(null=True)
    air = models.JSONField(null=True)
    board = models.JSONField(null=True)


class Mark(Placed):
    """Something in the way in a bay."""

    bay = models.ForeignKey(Bay, on_delete=models.CASCADE, related_name="marks")
    name = models.CharField(max_length=200)
    kind = models.CharField(max_length=20)
    surface = models.CharField(max_length=10)
    at = models.JSONField()
    size = models.JSONField()
    proud_mm = models.FloatField()
    treatment = models.CharField(max_length=30)
    note = models.TextField(blank=True)


class Note(Placed):
    """Something seen in a bay."""

    bay = models.ForeignKey(Bay, on_delete=models.CASCADE, related_name="notes")
    text = models.TextField()
    written_at = models.DateTimeField()
    written_by = models.CharField(max_length=200, blank=True)
    surface = models.CharField(max_length=10, null=True)
    at = models.JSONField(null=True)


class Reading(models.Model):
    """A reading as it came. Only `aside` may change; the order is that of arrival."""

    bay = models.ForeignKey(Bay, on_delete=models.CASCADE, related_name="readings")
    key = models.CharField(max_length=80)
    fact = models.JSONField()
    aside = models.JSONField(null=True)

    class Meta:
        """The client's id makes sending twice store once."""

        ordering = ("id",)
        constraints = (models.UniqueConstraint(fields=("bay", "key"), name="one_reading_an_id"),)
