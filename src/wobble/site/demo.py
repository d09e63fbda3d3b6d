"""The demo user and the demo jobs."""

from __future__ import annotations

from django.contrib.auth import get_user_model
from django.db import transaction

from wobble.core.practice.drying_loft import drying_loft
from wobble.core.practice.gable import empty_job, gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.signal_cabin import signal_cabin
from wobble.core.practice.vestry import vestry_press
from wobble.site import edits

DEMO_USER = "ines"


@transaction.atomic
def make_demo() -> bool:
    """Make the demo user, who has no password, and the demo jobs; return whether they were made now."""
    user, made = get_user_model().objects.get_or_create(username=DEMO_USER, defaults={"first_name": "Ines"})
    if made:
        user.set_unusable_password()
        user.save()
        for job in (
            empty_job(),
            drying_loft(),
            signal_cabin(),
            vestry_press(),
            narrowboat_galley(),
            gable_workroom(),
        ):
            edits.create_job(user, job)
    return made
