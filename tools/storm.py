"""Devices type, forms are edited, lines are cut, the server is killed and its disk fills, for some minutes.

A ledger that knows nothing of the server notes what was acknowledged. In the end everything in it must be there, once,
and nothing that nobody sent.
"""

from __future__ import annotations

import argparse
import contextlib
import http.client
import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from tools.look import free_port

ROOT = Path(__file__).resolve().parents[1]
DEVICES = 6
PATIENCE_S = 12


@dataclass
class Ledger:
    """What was sent, and what of it was acknowledged, by whoever sent it."""

    sent: set[str] = field(default_factory=set)
    kept: set[str] = field(default_factory=set)
    fields: dict[str, list[float]] = field(default_factory=dict)
    """Values sent of each device's own field since the last that was acknowledged, that one first."""
    faults: list[str] = field(default_factory=list)
    told: dict[str, int] = field(default_factory=dict)
    lock: threading.Lock = field(default_factory=threading.Lock)

    def note(self, what: str) -> None:
        """Count something that happened."""
        with self.lock:
            self.told[what] = self.told.get(what, 0) + 1


class Server:
    """The server as `./run serve` starts it, that can be killed and started again on the same data."""

    def __init__(self, data: Path) -> None:
        self.data, self.port = data, free_port()
        self.process: subprocess.Popen[bytes] | None = None
        self.start()

    def start(self) -> None:
        """Start it, and wait until it answers."""
        env = {**os.environ, "WOBBLE_DATA": str(self.data), "PYTHONPATH": str(ROOT / "src")}
        env |= {"DJANGO_SETTINGS_MODULE": "wobble.site.settings", "OPENBLAS_NUM_THREADS": "1", "WOBBLE_DEMO": "1"}
        binary = Path(sys.executable).parent
        if not (self.data / "wobble.sqlite3").exists():
            prepare = [str(binary / "django-admin"), "prepare", "--demo"]
            subprocess.run(prepare, env=env, check=True, stdout=subprocess.DEVNULL)
        command = [str(binary / "gunicorn"), "wobble.site.wsgi:application", "--bind", f"127.0.0.1:{self.port}"]
        command += ["--config", "python:wobble.site.gunicorn_settings"]
        self.process = subprocess.Popen(command, env=env, start_new_session=True, stderr=subprocess.DEVNULL)
        ends = time.monotonic() + 30
        while time.monotonic() < ends:
            with contextlib.suppress(OSError, http.client.HTTPException):
                Device(self.port).call("GET", "/api/session")
                return
            time.sleep(0.1)
        raise RuntimeError("the server does not start")

    def kill(self) -> None:
        """End all of its processes at once, whatever they do."""
        assert self.process is not None  # noqa: S101 - started above
        os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait(20)
        time.sleep(1.5)  # what computes notices that its parent is gone


class Device:
    """A line to the server, with cookies."""

    def __init__(self, port: int) -> None:
        self.port = port
        self.cookies: dict[str, str] = {}

    def call(self, method: str, path: str, value: object = None) -> tuple[int, Any]:
        """Make one call on a line of its own."""
        line = http.client.HTTPConnection("127.0.0.1", self.port, timeout=PATIENCE_S)
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        headers |= {"Content-Type": "application/json", "X-CSRFToken": self.cookies.get("csrftoken", "")}
        try:
            line.request(method, path, None if value is None else json.dumps(value), headers)
            answer = line.getresponse()
            body = answer.read()
            for name, header in answer.getheaders():
                if name.lower() == "set-cookie":
                    key, _, rest = header.strip().partition("=")
                    self.cookies[key] = rest.partition(";")[0]
            return answer.status, json.loads(body) if body else None
        finally:
            line.close()

    def cut(self, method: str, path: str, value: object, after: int) -> None:
        """Begin a call and cut the line after some bytes, or before the answer is read."""
        import socket

        data = json.dumps(value).encode()
        head = f"{method} {path} HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n"
        head += f"Cookie: {'; '.join(f'{k}={v}' for k, v in self.cookies.items())}\r\n"
        head += f"X-CSRFToken: {self.cookies.get('csrftoken', '')}\r\nContent-Length: {len(data)}\r\n\r\n"
        with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", self.port), timeout=5) as line:
            line.sendall((head.encode() + data)[:after])

    def enter(self) -> str:
        """Sign in to the demo; return the address of the workroom."""
        self.call("GET", "/api/session")
        self.call("POST", "/api/session/demo")
        jobs = self.call("GET", "/api/jobs")[1]
        return "/api/jobs/" + next(str(job["id"]) for job in jobs if job["name"] == "Gable workroom")


def device(number: int, port: int, ends: float, ledger: Ledger) -> None:
    """Type readings and notes, and edit the own field of a form that all edit, until the time is up."""
    rng = random.Random(number)  # noqa: S311
    own = Device(port)
    job = _patiently(own.enter, ledger)
    n = 0
    while time.monotonic() < ends:
        n += 1
        try:
            if rng.random() < 0.6:
                _type(own, job, f"device-{number}-{n}", rng, ledger)
            elif rng.random() < 0.7:
                _edit(own, job, number, float(n), ledger)
            else:
                status, _ = own.call("GET", f"{job}/places/north/{rng.choice(('fit', 'gauge', 'hold'))}")
                ledger.note(f"read {status}")
        except (OSError, http.client.HTTPException, ValueError):
            ledger.note("line lost")
            time.sleep(0.3)
        time.sleep(rng.random() * 1.6)


def _patiently(enter: Any, ledger: Ledger) -> str:
    for _ in range(200):
        try:
            return str(enter())
        except (OSError, http.client.HTTPException, ValueError, StopIteration, TypeError):
            ledger.note("line lost")
            time.sleep(0.3)
    raise RuntimeError("the server does not come back")


def _type(own: Device, job: str, name: str, rng: random.Random, ledger: Ledger) -> None:
    """Send some facts, again and again as the page does, until they are acknowledged or the storm ends."""
    facts = [
        {"fact": "note", "id": f"{name}-{k}", "text": f"{name} {k}", "taken_at": "2026-03-08T11:00:00Z"}
        for k in range(rng.choice((1, 1, 3)))
    ]
    with ledger.lock:
        ledger.sent |= {str(fact["id"]) for fact in facts}
    path, body = f"{job}/places/north/facts", {"facts": facts}
    if rng.random() < 0.15:
        own.cut("POST", path, body, rng.choice((40, 300, 100_000)))
        ledger.note("cut")
    for _ in range(rng.choice((1, 2, 40))):
        try:
            status, answer = own.call("POST", path, body)
        except (OSError, http.client.HTTPException, ValueError):
            ledger.note("line lost")
            time.sleep(0.3)
            continue
        ledger.note(f"typed {status}")
        if status == 200:
            with ledger.lock:
                ledger.kept |= {*answer["stored"], *answer["known"]}
            return
        if status in (401, 403):
            own.enter()
        elif status == 422 and "most" in answer["message"]:
            return
        elif status not in (503, 507, 429):
            ledger.faults.append(f"{name}: {status} {answer}")
            return


def _edit(own: Device, job: str, number: int, value: float, ledger: Ledger) -> None:
    """Change the own field of the place: a form that every device edits, from what it saw."""
    status, stored = own.call("GET", job)
    if status != 200:
        return
    unit = stored["job"]["places"][0]["units"][number % 4]
    field_name = ("weight_kg", "feet_in_mm")[number // 4 % 2]
    time.sleep(random.Random(value).random() * 0.5)  # noqa: S311 - a form stands open for a while
    place = stored["job"]["places"][0] | {"facts": []}
    changed = json.loads(json.dumps(place))
    changed["units"][number % 4][field_name] = value
    key = f"{unit['id']}.{field_name}"
    with ledger.lock:
        ledger.fields.setdefault(key, [float(unit[field_name])]).append(value)
    status, answer = own.call("PUT", f"{job}/places", {"was": place, "now": changed, "settle": None})
    ledger.note(f"edited {status}")
    if status == 200:
        with ledger.lock:
            ledger.fields[key] = [value]
    elif status == 409:
        ledger.faults.append(f"{key}: a clash over a field that one device edits: {answer['sides']}")


def weather(server: Server, ends: float, ledger: Ledger, rng: random.Random, *, disk: bool) -> None:
    """Kill, stall and fill, now and then."""
    held: list[Any] = []
    while time.monotonic() < ends - 20:
        time.sleep(rng.uniform(6, 18))
        what = rng.choice(("kill", "kill", "stall", "fill" if disk else "stall"))
        ledger.note(what)
        if what == "kill":
            server.kill()
            time.sleep(rng.uniform(0, 3))
            server.start()
        elif what == "stall":
            import socket

            for _ in range(60):
                with contextlib.suppress(OSError):
                    held.append(socket.create_connection(("127.0.0.1", server.port), timeout=2))
                    held[-1].sendall(b"POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Length: 900\r\n\r\n{")
            del held[:-120]
        else:
            ballast = server.data / "ballast"
            with contextlib.suppress(OSError), ballast.open("wb") as file:
                while True:
                    file.write(b"\0" * 2**16)
            time.sleep(rng.uniform(2, 6))
            ballast.unlink(missing_ok=True)


def settle(server: Server, ledger: Ledger) -> list[str]:
    """Return what is wrong in the end: lost, doubled, or from nobody."""
    server.kill()
    server.start()
    own = Device(server.port)
    job = _patiently(own.enter, ledger)
    stored = own.call("GET", job)[1]["job"]["places"][0]
    found = [fact["id"] for fact in stored["facts"] if fact["id"].startswith("device-")]
    faults = list(ledger.faults)
    if lost := ledger.kept - set(found):
        faults.append(f"{len(lost)} acknowledged and lost: {sorted(lost)[:5]}")
    if len(found) != len(set(found)):
        faults.append("something is there twice")
    if odd := set(found) - ledger.sent:
        faults.append(f"nobody sent {sorted(odd)[:5]}")
    for key, values in ledger.fields.items():
        unit, name = key.split(".")
        now = next(u[name] for u in stored["units"] if u["id"] == unit)
        if now not in values:
            faults.append(f"{key} is {now}; acknowledged was {values[0]}, sent since {values[1:]}")
    for path in ("fit", "hold", "gauge"):
        status, _ = own.call("GET", f"{job}/places/north/{path}")
        if status != 200:
            faults.append(f"{path} answers {status} in the end")
    return faults


def _small_disk(folder: Path) -> bool:
    """Lay a small disk under a folder, to be filled; return whether that could be done."""
    mount = ["/bin/mount", "-t", "tmpfs", "-o", "size=48m", "tmpfs", str(folder)]
    return subprocess.run(mount, check=False, stderr=subprocess.DEVNULL).returncode == 0


def main() -> None:
    """Storm for some minutes."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("minutes", type=float, nargs="?", default=60.0)
    parser.add_argument("--seed", type=int, default=1)
    options = parser.parse_args()
    ledger = Ledger()
    with tempfile.TemporaryDirectory(prefix="wobble-storm-") as folder:
        data = Path(folder)
        print("storming: read the figures in the end", flush=True)
        disk = os.geteuid() == 0 and _small_disk(data)
        server = Server(data)
        try:
            ends = time.monotonic() + options.minutes * 60
            threads = [
                threading.Thread(target=device, args=(k, server.port, ends, ledger), daemon=True)
                for k in range(DEVICES)
            ]
            for thread in threads:
                thread.start()
            weather(server, ends, ledger, random.Random(options.seed), disk=disk)  # noqa: S311
            for thread in threads:
                thread.join(120)
            faults = settle(server, ledger)
        finally:
            server.kill()
            if disk:
                subprocess.run(["/bin/umount", "-l", str(data)], check=False)
    print(f"{len(ledger.kept)} facts acknowledged of {len(ledger.sent)} sent; {dict(sorted(ledger.told.items()))}")
    print("a full disk was part of it" if disk else "no full disk: that needs the right to mount one")
    print("\n".join(faults) if faults else "nothing lost, nothing doubled")
    raise SystemExit(1 if faults else 0)


if __name__ == "__main__":
    main()
