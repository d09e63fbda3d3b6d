"""What an earlier version of the product comes to on the same bench, beside what this one does."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import tarfile
import tempfile
from collections import defaultdict, deque
from collections.abc import Iterable, Iterator
from io import BytesIO
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
NUMBER = re.compile(r"[-+]?\d+(\.\d+)?")


def measured(source: Path, options: Iterable[str]) -> list[str]:
    """Return the lines that this bench prints of the product in a folder.

    Raises:
        subprocess.CalledProcessError: That version does not answer what is asked.
    """
    found = os.environ | {"PYTHONPATH": str(source)}
    asked = [sys.executable, "-m", "bench", *options]
    ran = subprocess.run(asked, cwd=ROOT, env=found, check=True, stdout=subprocess.PIPE, text=True)  # noqa: S603
    return ran.stdout.splitlines()


def of_commit(commit: str, options: Iterable[str]) -> list[str]:
    """Return the lines that this bench prints of the product as a commit has it."""
    git = shutil.which("git") or "git"
    asked = [git, "archive", commit, "src"]
    packed = subprocess.run(asked, cwd=ROOT, check=True, stdout=subprocess.PIPE).stdout  # noqa: S603
    with tempfile.TemporaryDirectory() as folder:
        with tarfile.open(fileobj=BytesIO(packed)) as archive:
            archive.extractall(folder, filter="data")
        return measured(Path(folder) / "src", options)


def beside(now: Iterable[str], before: Iterable[str]) -> Iterator[str]:
    """Yield the lines of now, each followed by the earlier line of the same words where its figures were others."""
    earlier: dict[str, deque[str]] = defaultdict(deque)
    for line in before:
        earlier[NUMBER.sub("#", line)].append(line)
    for line in now:
        yield line
        said = earlier[NUMBER.sub("#", line)]
        if said and (was := said.popleft()) != line:
            yield f"    before: {was.strip()}"
