"""The production server as `./run serve` starts it: hashed files, memory, and what a kill leaves behind."""

from __future__ import annotations

import gzip
import hashlib
import http.client
import io
import json
import os
import re
import signal
import socket
import ssl
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

import pytest
from PIL import Image
from tools.look import free_port
from waitress import wasyncore
from waitress.server import create_server

from wobble.site import server as paced
from wobble.site.tls import certify

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


DOOR = 443
"""How far over its own port a server has the one for encrypted pages."""


def _free(port: int) -> bool:
    """Return whether nobody has a port: the browsers of tests beside this one take some, too."""
    with socket.socket() as tried:
        try:
            tried.bind(("", port))
        except OSError:
            return False
    return True


@contextmanager
def server(data: Path, how: str = "demo", *options: str) -> Iterator[tuple[str, int]]:
    """Start the server on the folder's data; give its address and process group."""
    port = next(port for port in iter(free_port, None) if _free(port + DOOR))
    argv = ["run", how, str(port), *options]
    code = f"import runpy, sys; sys.argv = {argv!r}; runpy.run_path('run', run_name='__main__')"
    env = {**os.environ, "WOBBLE_DATA": str(data)}
    for name in ("DJANGO_SETTINGS_MODULE", "WOBBLE_DEMO"):
        env.pop(name, None)
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
        _check_stalled(address)
        _check_computed_once(ines, jobs)
        workroom = next(job["id"] for job in jobs if job["name"] == "Gable workroom")
        pictures: list[str] = []
        sender = threading.Thread(target=_send_pictures_until_killed, args=(address, ines, workroom, pictures))
        sender.start()
        acknowledged = _write_until_killed(ines, workroom, group)
        sender.join(60)
    assert len(acknowledged) >= ENOUGH_WRITTEN
    assert pictures
    with server(tmp_path) as (address, _):
        ines = Visitor(address)
        ines.call("GET", "/api/session")
        ines.call("POST", "/api/session/demo")
        stored = ines.call("GET", f"/api/jobs/{workroom}")
        kept = {r["id"] for r in stored["job"]["places"][0]["facts"]}  # type: ignore[index]
        assert set(acknowledged) <= kept
        folder = tmp_path / "photos" / workroom
        assert {f"{digest}.jpg" for digest in pictures} <= {p.name for p in folder.glob("*.jpg")}
        for digest in pictures:  # whole, as it was told: its name is the digest of what is in it
            assert hashlib.sha256((folder / f"{digest}.jpg").read_bytes()).hexdigest() == digest
        assert ines.call("GET", f"/api/jobs/{workroom}/places/north/proposal")


def _send_pictures_until_killed(address: str, user: Visitor, job: str, acknowledged: list[str]) -> None:
    """Send pictures, one after the other, while the plan is asked for anew; note those that were acknowledged."""
    token = next((c.value or "" for c in user.jar if c.name == "csrftoken"), "")
    for n in range(10_000):
        out = io.BytesIO()
        Image.effect_noise((600, 400), 20 + n).convert("RGB").save(out, "JPEG")
        request = urllib.request.Request(
            f"{address}/api/jobs/{job}/photos", out.getvalue(), {"X-CSRFToken": token}, method="POST"
        )
        try:
            with user.opener.open(request, timeout=30) as answer:
                acknowledged.append(json.load(answer)["file"])
            user.opener.open(f"{address}/api/jobs/{job}/places/north/proposal", timeout=30).close()
        except (OSError, ValueError, http.client.HTTPException):
            return


def _check_stalled(address: str) -> None:
    """Two hundred who never finish their headers or their body hold up nobody, and are sent away."""
    host, port = address.removeprefix("http://").split(":")
    halves = (
        b"GET /api/session HTTP/1.1\r\nHost: localhost\r\n",
        b"POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Length: 5000\r\n\r\n{",
    )
    held = []
    for n in range(200):
        held.append(socket.create_connection((host, int(port))))
        held[-1].sendall(halves[n % 2])
    for _ in range(3):
        began = time.monotonic()
        urllib.request.urlopen(address + "/api/session", timeout=10).close()
        assert time.monotonic() - began < 1.0
    for line in held:
        line.close()


def test_who_drips_a_byte_now_and_then_is_sent_away_and_who_is_slow_is_served(monkeypatch):
    monkeypatch.setattr(paced, "GRACE_S", 0.2)
    heard: list[int] = []

    def app(environ: dict[str, Any], start: Any) -> list[bytes]:
        heard.append(len(environ["wsgi.input"].read()))
        start("200 OK", [("Content-Length", "2")])
        return [b"ok"]

    lines: dict[int, Any] = {}
    made = create_server(app, map=lines, host="127.0.0.1", port=0, threads=2)
    where = ("127.0.0.1", made.effective_port)
    head = b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 3000\r\n\r\n"
    dripping, in_headers, slow = (socket.create_connection(where, timeout=2) for _ in range(3))
    dripping.sendall(head)
    slow.sendall(head + b"x" * 1000)  # that bought two seconds more
    began = time.monotonic()
    while time.monotonic() - began < 0.6:
        for line in (dripping, in_headers):
            with suppress(OSError):
                line.sendall(b"x")
        time.sleep(0.03)
        paced.turn(lines, 0.01)
    slow.sendall(b"x" * 2000)
    answer = b""
    slow.setblocking(False)
    while not answer.endswith(b"ok") and time.monotonic() - began < 10:
        paced.turn(lines, 0.05)
        with suppress(BlockingIOError):
            answer += slow.recv(1000)
    assert answer.endswith(b"ok")
    assert heard == [3000]
    for line in (dripping, in_headers):
        with suppress(ConnectionResetError):
            assert line.recv(10) == b""
        line.close()
    slow.close()
    made.task_dispatcher.shutdown()
    wasyncore.close_all(lines)


def _check_computed_once(ines: Visitor, jobs: list[dict[str, str]]) -> None:
    """What has not changed is not sent again, whichever worker is asked; what changed is."""
    job = next(job["id"] for job in jobs if job["name"] == "Vestry press")
    path = f"/api/jobs/{job}/places/alcove/fit"
    with ines.opener.open(ines.address + path, timeout=10) as whole:
        etag, answer = whole.headers["ETag"], whole.read()
    small = urllib.request.Request(ines.address + path, headers={"Accept-Encoding": "gzip"})
    with ines.opener.open(small, timeout=10) as sent:
        weak, packed = sent.headers["ETag"], sent.read()
    assert len(packed) < len(answer) / 3
    assert gzip.decompress(packed) == answer
    as_weak = urllib.request.Request(ines.address + path, headers={"If-None-Match": weak})
    with pytest.raises(urllib.error.HTTPError) as same:
        ines.opener.open(as_weak, timeout=10)
    assert same.value.code == 304
    known = urllib.request.Request(ines.address + path, headers={"If-None-Match": etag})
    for _ in range(6):
        with pytest.raises(urllib.error.HTTPError) as same:
            ines.opener.open(known, timeout=10)
        assert same.value.code == 304
    stored = ines.call("GET", f"/api/jobs/{job}")
    assert isinstance(stored, dict)
    about = {name: stored["job"][name] for name in ("name", "address", "note", "units")}
    ines.call("PUT", f"/api/jobs/{job}/about", {"was": about, "now": about | {"note": "Damp"}, "settle": None})
    with pytest.raises(urllib.error.HTTPError) as same:
        ines.opener.open(known, timeout=10)
    assert same.value.code == 304, "a note changes no figure"
    closing = {name: stored["job"]["places"][0][name] for name in ("datum", "back_line", "closing")}
    turned = closing | {"datum": {"rule": "high spot", "over_mm": 7.5}}
    ines.call("PUT", f"/api/jobs/{job}/places/alcove/decisions", {"was": closing, "now": turned, "settle": None})
    with ines.opener.open(known, timeout=10) as changed:
        assert changed.status == 200
        assert json.load(changed)["datum"]["over_mm"] == 7.5


def test_encrypted_pages_by_an_authority_of_ones_own(tmp_path):
    """Started as the README says; nobody else on the machine may read what is kept."""
    (tmp_path / "photos").mkdir()
    (tmp_path / "photos" / "kept").write_text("by an earlier version")
    (tmp_path / "photos" / "kept").chmod(0o644)
    stranger = tmp_path / "tool"
    stranger.write_text("nothing of Wobble's")
    stranger.chmod(0o755)
    with server(tmp_path, "serve", "--https") as (address, _):
        door = int(address.rsplit(":", 1)[1]) + DOOR
        authority = tmp_path / "tls" / "authority.pem"
        context = ssl.create_default_context(cafile=str(authority))
        _await_door(door)
        with urllib.request.urlopen(f"https://localhost:{door}/api/session", timeout=10, context=context) as page:
            assert page.headers["Strict-Transport-Security"]
            assert "Secure" in page.headers["Set-Cookie"]
            assert json.load(page)["first"]
        with pytest.raises(urllib.error.URLError):
            urllib.request.urlopen(f"https://localhost:{door}/", timeout=10, context=ssl.create_default_context())
        odd = urllib.request.Request(f"https://localhost:{door}/api/session", headers={"Host": "elsewhere.example"})
        with pytest.raises(urllib.error.HTTPError) as refused:
            urllib.request.urlopen(odd, timeout=10, context=context)
        assert refused.value.code == 400
        assert stranger.stat().st_mode & 0o777 == 0o755
        stranger.unlink()
        for path in tmp_path.rglob("*"):
            assert not path.lstat().st_mode & 0o077, path
    before = authority.read_bytes()
    certify(tmp_path / "tls", ("localhost",))
    assert authority.read_bytes() == before, "devices trust it once"


def _await_door(port: int) -> None:
    for _ in range(600):
        with suppress(OSError), socket.create_connection(("localhost", port), timeout=1):
            return
        time.sleep(0.1)
    raise AssertionError(f"nobody listens at {port} after a minute")


def test_the_settings_for_encrypted_pages_pass_the_frameworks_own_check(tmp_path):
    env = {**os.environ, "WOBBLE_DATA": str(tmp_path), "WOBBLE_ORIGINS": "https://wobble.example"}
    check = [sys.executable, "-m", "django", "check", "--deploy", "--fail-level", "WARNING"]
    env |= {"DJANGO_SETTINGS_MODULE": "wobble.site.settings", "PYTHONPATH": str(ROOT / "src")}
    env.pop("DJANGO_ALLOW_ASYNC_UNSAFE", None)
    done = subprocess.run(check, env=env, capture_output=True, text=True, check=False, cwd=ROOT)
    assert done.returncode == 0, done.stderr


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
