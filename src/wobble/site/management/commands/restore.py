"""Put a backup back."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from wobble.site.backup import BackupError, restore


class Command(BaseCommand):
    """`restore FILE`."""

    help = "Put a backup in place of what is there; what is there is backed up first, and the server must not run."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the backup's file."""
        parser.add_argument("file", type=Path)

    def handle(self, *_args: Any, **options: Any) -> None:
        """Restore, and bring the database up to date."""
        try:
            before = restore(Path(settings.DATA), options["file"])
        except BackupError as fault:
            raise CommandError(str(fault)) from fault
        call_command("migrate", verbosity=0)
        self.stdout.write("Restored." + (f" What was there is in {before}." if before else ""))
