"""The site's secret key: made on the first start, kept beside the database."""

from __future__ import annotations

import os
import secrets
from pathlib import Path


def secret_key(folder: Path) -> str:
    """Return the key kept in a folder, made now if there is none; two processes starting at once agree on one."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    path = folder / "secret-key"
    draft = folder / f"secret-key.{os.getpid()}"
    if not path.exists():
        draft.touch(mode=0o600)
        draft.write_text(secrets.token_urlsafe(48))
        try:
            os.link(draft, path)  # fails if another process was first: then that one's key counts
        except FileExistsError:
            pass
        finally:
            draft.unlink()
    return path.read_text()
