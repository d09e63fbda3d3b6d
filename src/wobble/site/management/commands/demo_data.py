"""Make the demo user and the demo jobs, once."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from wobble.site.demo import make_demo


class Command(BaseCommand):
    """`demo_data`: make the demo user and the demo jobs, unless they are there."""

    help = __doc__

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Make them."""
        made = make_demo()
        self.stdout.write("Demo jobs made." if made else "Demo jobs are there.")
