"""Make a user, or give one a new password."""

from __future__ import annotations

from getpass import getpass
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError, CommandParser

from wobble.site.people import Unfit, anybody, make, set_password


class Command(BaseCommand):
    """`user NAME`."""

    help = "Make a user, or give the one of that name a new password; asks for it, or reads it from standard input."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the name."""
        parser.add_argument("name")
        parser.add_argument("--stdin", action="store_true", help="read the password from standard input")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Ask for the password, and store it."""
        name = options["name"]
        password = input() if options["stdin"] else getpass(f"Password for {name}: ")
        found = get_user_model().objects.filter(username=name).first()
        try:
            if found is None:
                make(name, password, admin=not anybody())
            else:
                set_password(found, password)
        except Unfit as fault:
            raise CommandError(str(fault)) from fault
        self.stdout.write(f"{name} can sign in." if found is None else f"{name} has a new password.")
