"""What all tests share."""

from __future__ import annotations

import os

# Playwright runs its own event loop in the thread of the browser tests, where Django would refuse the ORM.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
