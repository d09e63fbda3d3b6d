"""Say the code by which the first user is made from another machine, where there is nobody yet."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from wobble.site.people import anybody, first_code


class Command(BaseCommand):
    """`first_code`: for `./run serve`, before it becomes the server."""

    help = __doc__

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Print it."""
        if not anybody():
            self.stdout.write(
                f"· Nobody can sign in yet: make the first user in the browser, elsewhere with {first_code()}"
            )
