"""Settings for tests: the site's own, with a throwaway database file and quick passwords."""

from __future__ import annotations

import os
import tempfile
from pathlib import Path

_FOLDER = Path(tempfile.mkdtemp(prefix="wobble-test-"))
os.environ["WOBBLE_DATA"] = str(_FOLDER)
os.environ.setdefault("WOBBLE_DEMO", "1")

from wobble.site.settings import *  # noqa: E402, F403
from wobble.site.settings import DATABASES  # noqa: E402

# A file, because an in-memory database locks under the browser's parallel requests.
DATABASES["default"]["TEST"] = {"NAME": _FOLDER / "test.sqlite3"}
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
