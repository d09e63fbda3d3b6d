"""Many at once: one job read by sixteen connections while readings arrive, beside a view that does nothing.

Each connection behaves as a browser does: it names the answer that it has already.
"""

from __future__ import annotations

import http.client
import json
import random
import threading
import time
from dataclasses import dataclass, field
from functools import lru_cache

from tools.look import demo_server

from wobble.core import survey
from wobble.core.face import PlaceSurvey
from wobble.core.practice.gable import gable_workroom

CONNECTIONS = 16
WRITES = 0.1


@dataclass
class Visitor:
    """One connection, with its cookies and the answers that it has."""

    host: str
    cookies: dict[str, str] = field(default_factory=dict)
    etags: dict[str, str] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self.line = http.client.HTTPConnection(self.host, timeout=60)

    def call(self, method: str, path: str, value: object = None) -> tuple[int, bytes]:
        """Make a call; a read names the answer that is known already."""
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        headers |= {"Content-Type": "application/json", "X-CSRFToken": self.cookies.get("csrftoken", "")}
        if method == "GET" and path in self.etags:
            headers["If-None-Match"] = self.etags[path]
        self.line.request(method, path, None if value is None else json.dumps(value), headers)
        answer = self.line.getresponse()
        body = answer.read()
        for name, header in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = header.partition("=")
                self.cookies[key] = rest.partition(";")[0]
            if name.lower() == "etag":
                self.etags[path] = header
        return answer.status, body


def open_demo(host: str) -> tuple[Visitor, str]:
    """Return a visitor who is in the demo, and the address of the gable workroom's place."""
    visitor = Visitor(host)
    visitor.call("GET", "/api/session")
    visitor.call("POST", "/api/session/demo")
    jobs = json.loads(visitor.call("GET", "/api/jobs")[1])
    job = next(j["id"] for j in jobs if j["name"] == "Gable workroom")
    return visitor, f"/api/jobs/{job}/places/north"


@lru_cache(maxsize=1)
def _surveyed() -> PlaceSurvey:
    return survey(gable_workroom(), "north")


def reading(name: str, n: int) -> dict[str, object]:
    """Return a reading of the floor, as the demo's own readings lead one to expect it."""
    rng = random.Random(f"{name}-{n}")  # noqa: S311
    at = (float(round(rng.uniform(150, 3000))), float(round(rng.uniform(20, 500))))
    floor = float(_surveyed().at("floor", [at])[0][0])
    return {
        "fact": "offset",
        "id": f"{name}-{n}",
        "taken_at": "2026-03-08T11:00:00Z",
        "instrument": "laser",
        "surface": "floor",
        "at": at,
        "set_up": "line-1",
        "value_mm": round(1000.0 - floor + rng.gauss(0, 0.6), 1),
    }


@dataclass(frozen=True)
class Served:
    """Requests a second, and how long 95 of 100 took at most, ms; `writes` of them wrote."""

    per_second: float
    p95_ms: float
    writes: int


def load(host: str, seconds: float, *, trivial: bool) -> Served:
    """Ask by sixteen connections for some seconds."""
    first, place = open_demo(host)
    took: list[float] = []
    wrote = [0]
    failed: list[str] = []
    ends = time.perf_counter() + seconds

    def visit(k: int) -> None:
        visitor = Visitor(host, dict(first.cookies))
        rng = random.Random(k)  # noqa: S311
        n = 0
        while time.perf_counter() < ends:
            began = time.perf_counter()
            if trivial:
                status, body = visitor.call("GET", "/api/session")
            elif rng.random() < WRITES:
                n += 1
                status, body = visitor.call("POST", f"{place}/facts", {"facts": [reading(f"load-{k}", n)]})
                wrote[0] += 1
            else:
                status, body = visitor.call("GET", f"{place}/{rng.choice(('fit', 'hold'))}")
            took.append((time.perf_counter() - began) * 1000)
            if status not in (200, 304):
                failed.append(f"{status}: {body[:200]!r}")
                return

    threads = [threading.Thread(target=visit, args=(k,)) for k in range(CONNECTIONS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    if failed:
        raise RuntimeError(failed[0])
    took.sort()
    return Served(len(took) / seconds, took[int(len(took) * 0.95)], wrote[0])


def under_load(seconds: float) -> tuple[Served, Served]:
    """Serve the demo on a throwaway folder, first a view that does nothing, then the job."""
    with demo_server() as address:
        host = address.removeprefix("http://")
        return load(host, seconds / 2, trivial=True), load(host, seconds, trivial=False)
