"""Make the certificate for encrypted pages, by an authority of one's own."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand

from wobble.site.tls import AUTHORITY, certify, names


class Command(BaseCommand):
    """`certify`: for `./run serve --https`."""

    help = __doc__

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Make it; print its path, that of the authority, and the names that it is for, a line each."""
        folder = Path(settings.DATA) / "tls"
        called = names()
        self.stdout.write("\n".join((str(certify(folder, called)), str(folder / AUTHORITY), ",".join(called))))
