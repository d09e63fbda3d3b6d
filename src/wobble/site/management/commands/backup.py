"""Back up everything into one file."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from wobble.site.backup import BackupError, back_up


class Command(BaseCommand):
    """`backup [FOLDER]`."""

    help = "Back up everything into one file; the server may be running."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the folder for the file."""
        parser.add_argument("folder", nargs="?", type=Path)

    def handle(self, *_args: Any, **options: Any) -> None:
        """Make the file and say where it is."""
        try:
            self.stdout.write(str(back_up(Path(settings.DATA), options["folder"])))
        except BackupError as fault:
            raise CommandError(str(fault)) from fault
