"""The production server as `./run serve` starts it: hashed files, memory, and what a kill leaves behind."""

from __future__ import annotations

import json
import os
import re
import signal
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from http.cookiejar import CookieJar
from pathlib import Path

from tools.look import free_port

ROOT = Path(__file__).resolve().parents[2]
ENOUGH_WRITTEN = 12
MOST_RESIDENT_MB = 400


class Visitor:
    """Somebody at the server, with cookies and the token."""

    def __init__(self, address: str) -> None:
        self.address, self.jar = address, CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def call(self, method: str, path: str, value: object = None) -> object:
        token = next((c.value or "" for c in self.jar if c.name == "csrftoken"), "")
        data = None if method == "GET" else json.dumps(value).encode()
        request = urllib.request.Request(self.address + path, data, {"X-CSRFToken": token}, method=method)
        with self.opener.open(request, timeout=30) as answer:
            return json.load(answer)


@contextmanager
def server(data: Path) -> Iterator[tuple[str, int]]:
    """Start the server on the folder's data; give its address and process group."""
    port = free_port()
    code = f"import runpy, sys; sys.argv = ['run', 'demo', '{port}']; runpy.run_path('run', run_name='__main__')"
    env = {**os.environ, "WOBBLE_DATA": str(data)}
    env.pop("DJANGO_SETTINGS_MODULE", None)
    process = subprocess.Popen(
        ["python3", "-c", code], cwd=ROOT, env=env, start_new_session=True, stdout=subprocess.DEVNULL
    )
    address = f"http://127.0.0.1:{port}"
    try:
        for _ in range(600):
            try:
                urllib.request.urlopen(address + "/api/session", timeout=2).close()
                break
            except OSError:
                time.sleep(0.1)
        yield address, process.pid
    finally:
        with suppress(ProcessLookupError):
            os.killpg(process.pid, signal.SIGTERM)
        process.wait(20)


def resident_mb(group: int) -> float:
    """Return the memory of all processes of a group, each page that they share counted once."""
    total = 0
    for folder in Path("/proc").iterdir():
        if not folder.name.isdigit():
            continue
        try:
            stat = (folder / "stat").read_text().rsplit(")", 1)[1].split()
            if int(stat[2]) == group:
                rollup = (folder / "smaps_rollup").read_text()
                total += int(re.search(r"^Pss:\s+(\d+) kB", rollup, re.MULTILINE)[1])  # type: ignore[index]
        except OSError:
            continue
    return total / 1024


def test_hashed_files_memory_and_a_kill(tmp_path):
    """One server start for three facts, as starting it takes seconds."""
    with server(tmp_path) as (address, group):
        ines = Visitor(address)
        ines.call("GET", "/api/session")
        ines.call("POST", "/api/session/demo")
        _check_files(address)
        jobs = ines.call("GET", "/api/jobs")
        assert isinstance(jobs, list)
        for _ in range(6):  # both workers solve
            for job in jobs:
                stored = ines.call("GET", f"/api/jobs/{job['id']}")
                for place in stored["job"]["places"]:  # type: ignore[index]
                    ines.call("GET", f"/api/jobs/{job['id']}/places/{place['id']}/fit")
                    ines.call("GET", f"/api/jobs/{job['id']}/places/{place['id']}/gauge")
        assert resident_mb(group) < MOST_RESIDENT_MB
        workroom = next(job["id"] for job in jobs if job["name"] == "Gable workroom")
        acknowledged = _write_until_killed(ines, workroom, group)
    assert len(acknowledged) >= ENOUGH_WRITTEN
    with server(tmp_path) as (address, _):
        ines = Visitor(address)
        ines.call("GET", "/api/session")
        ines.call("POST", "/api/session/demo")
        stored = ines.call("GET", f"/api/jobs/{workroom}")
        kept = {r["id"] for r in stored["job"]["places"][0]["facts"]}  # type: ignore[index]
        assert set(acknowledged) <= kept


def _check_files(address: str) -> None:
    with urllib.request.urlopen(address + "/", timeout=10) as page:
        assert page.headers["Cache-Control"] == "no-cache"
        text = page.read().decode()
    names = re.findall(r'(?:src|href)="(/assets/[^"]+)"', text)
    assert any(name.endswith(".js") for name in names)
    for name in names:
        with urllib.request.urlopen(address + name, timeout=10) as file:
            assert "immutable" in file.headers["Cache-Control"]
            if name.endswith(".css"):
                assert "url(http" not in file.read().decode()


def _write_until_killed(visitor: Visitor, job: str, group: int) -> list[str]:
    """Send readings one by one, kill everything in the midst of them; return those that were acknowledged."""
    acknowledged: list[str] = []
    reading = {
        "fact": "offset",
        "instrument": "laser",
        "taken_at": "2026-03-08T10:00:00Z",
        "surface": "floor",
        "at": [1570, 300],
        "set_up": "line-1",
        "value_mm": 1002.5,
    }
    killer: subprocess.Popen[bytes] | None = None
    try:
        for i in range(2000):
            body = {"facts": [reading | {"id": f"r{i}"}]}
            visitor.call("POST", f"/api/jobs/{job}/places/north/facts", body)
            acknowledged.append(f"r{i}")
            if len(acknowledged) == ENOUGH_WRITTEN:  # however slow the machine: the next ones are being written
                kill = f"import time, os; time.sleep(0.2); os.killpg({group}, 9)"
                killer = subprocess.Popen(["python3", "-c", kill])
    except (OSError, urllib.error.URLError):
        pass
    assert killer is not None, "the server went before it was killed"
    killer.wait(10)
    return acknowledged
