"""Make the database ready for a server: of today's form, with demo data or a first code."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

from wobble.site.people import anybody, first_code


class Command(BaseCommand):
    """`prepare [--demo]`: what `./run` does before it becomes the server, in one process as each takes seconds."""

    help = __doc__
    requires_system_checks = ()  # they are for who changes Wobble, and run with its tests

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take whether the demo is wanted."""
        parser.add_argument("--demo", action="store_true", help="make the demo user and jobs, unless they are there")

    def handle(self, *_args: Any, demo: bool, **_options: Any) -> None:
        """Migrate, then make the demo's jobs, or say the code by which the first user is made from elsewhere."""
        call_command("migrate", verbosity=0, skip_checks=True)
        if demo:
            from wobble.site.demo import make_demo  # the core takes a second, and only the demo needs it here

            self.stdout.write("Demo jobs made." if make_demo() else "Demo jobs are there.")
        elif not anybody():
            self.stdout.write(
                f"· Nobody can sign in yet: make the first user in the browser, elsewhere with {first_code()}"
            )
