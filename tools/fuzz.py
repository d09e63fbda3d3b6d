"""Odd bodies to every call that takes one, and accepted edits between them: nothing may be answered with a 5xx.

Each case starts from a body that is good, drawn from what is stored now, and is bent at some place; what is accepted
stays, so that later cases meet jobs that grew odd by small steps. Answers are asked for now and then.
"""

from __future__ import annotations

import argparse
import json
import random
from collections import Counter
from collections.abc import Callable
from copy import deepcopy
from dataclasses import dataclass, field
from typing import Any

from django.test import Client

from wobble.core.setout.starters.begin import STARTERS

ODD: tuple[Any, ...] = (
    None, True, "", " ", "x" * 5000, "☃", "../..", "1e9", -1, 0, 1, 0.001, 1e-9, 99_999.0, 1e300, 2**63, [], {}, [[]],
    [1, 2], {"a": 1}, "2026-03-07T10:00:00Z", "0001-01-01T00:00:00+14:00", "floor", "back", "left", "gravity", "A",
)  # fmt: skip


SET_OUT = ("units", "rules", "heights", "existing", "openings")


@dataclass
class Fuzzer:
    """Sends cases to one user's jobs by Django's test client, and counts the answers."""

    client: Client
    rng: random.Random
    told: Counter[int] = field(default_factory=Counter)
    failed: list[str] = field(default_factory=list)
    accepted: int = 0

    def call(self, method: str, path: str, value: Any = None) -> Any:
        """Make a call; note what failed."""
        data = value if isinstance(value, bytes) else json.dumps(value).encode()
        answer = self.client.generic(method, f"/api{path}", data, content_type="application/json")
        self.told[answer.status_code] += 1
        if answer.status_code >= 500:
            self.failed.append(f"{method} {path} {data[:3000]!r}: {answer.status_code} {answer.content[:300]!r}")
        return answer

    def run(self, cases: int, *documents: bytes) -> None:
        """Send so many cases, beginning anew from the next of the documents every few hundred."""
        job: dict[str, Any] = {}
        for n in range(cases):
            if n % 400 == 0:
                job = json.loads(self.call("POST", "/jobs", documents[n // 400 % len(documents)]).content)
            method, path, body = self.case(job)
            if self.call(method, path, body).status_code == 200:
                self.accepted += 1
                if self.rng.random() < 0.12:
                    self.look(job)
                job = json.loads(self.call("GET", f"/jobs/{job['id']}").content)

    def look(self, job: dict[str, Any]) -> None:
        """Ask for one of the answers of each place."""
        for place in job["job"]["places"][:2]:
            what = self.rng.choice(("fit", "hold", "gauge", "traits", "setout"))
            self.call("GET", f"/jobs/{job['id']}/places/{place['id']}/{what}")

    def case(self, job: dict[str, Any]) -> tuple[str, str, Any]:
        """Return a call with a body that is bent somewhere."""
        jobs, places = f"/jobs/{job['id']}", job["job"]["places"]
        place = self.rng.choice(places)
        here = f"{jobs}/places/{place['id']}"
        own = job["job"]

        def part(value: dict[str, Any], *names: str) -> dict[str, Any]:
            return {name: value[name] for name in names}

        ways: tuple[Callable[[], tuple[str, str, Any]], ...] = (
            lambda: ("PUT", f"{jobs}/about", self.edit(part(own, "name", "address", "note", "units"))),
            lambda: ("PUT", f"{jobs}/kit", self.edit(part(own, "kit"))),
            lambda: ("PUT", f"{jobs}/instruments", self.edit(part(own, "instruments"))),
            lambda: ("PUT", f"{jobs}/way-in", self.edit(part(own, "way_in"))),
            lambda: ("PUT", f"{jobs}/places", self.edit(place | {"facts": []})),
            lambda: ("PUT", f"{jobs}/places", self.edit(place | {"facts": []})),
            lambda: ("PUT", f"{here}/decisions", self.edit(part(place, "datum", "back_line", "closing"))),
            lambda: ("PUT", f"{here}/backing", self.edit(part(place, "backing", "overhead", "underfoot"))),
            lambda: ("POST", f"{here}/facts", self.facts(place)),
            lambda: ("POST", f"{here}/facts", self.facts(place)),
            lambda: ("POST", f"{here}/fit", self.bent(part(place, "datum", "back_line", "closing"))),
            lambda: ("PUT", f"{here}/setout", self.edit(part(place, *SET_OUT))),
            lambda: ("PUT", f"{here}/setout", self.edit(part(place, *SET_OUT))),
            lambda: ("POST", f"{here}/setout", self.bent({"said": part(place, *SET_OUT), "move": self.move(place)})),
            lambda: ("POST", f"{jobs}/begin", self.bent(self.begin())),
            lambda: ("POST", f"{here}/furring", self.bent({"low_mm": 200, "high_mm": 1400, "pitch_mm": 600})),
            lambda: ("POST", "/jobs/divide", self.bent({"how": "boards", "long_mm": 3000, "piece_mm": 100})),
            lambda: ("POST", "/jobs/grid", self.bent({"how": "pegs", "high_mm": 900, "pitch_mm": 25})),
            lambda: ("POST", "/jobs", self.torn(json.dumps(own).encode())),
            lambda: ("PUT", "/shelf", self.bent(own["instruments"][0] if own["instruments"] else {})),
        )
        return self.rng.choice(ways)()

    def move(self, place: dict[str, Any]) -> Any:
        """Return something that is done on the rods."""
        ids = [u["id"] for u in place["units"]] or ["A"]
        one, other = self.rng.choice(ids), self.rng.choice(ids)
        edge = {"of": one, "edge": self.rng.choice(("left", "middle", "right"))}
        return self.rng.choice(
            (
                None,
                {
                    "move": "drag",
                    "edge": edge,
                    "at_mm": self.rng.uniform(0, 3000),
                    "to": {"of": other, "edge": "right"},
                },
                {"move": "type", "edge": edge, "at_mm": self.rng.uniform(0, 3000)},
                {"move": "type width", "unit": one, "wide_mm": self.rng.uniform(1, 3000)},
                {
                    "move": "insert",
                    "kind": self.rng.choice(("base", "top", "rack", "boarding", "stored")),
                    "after": one,
                },
                {"move": "split", "unit": one, "parts": 3},
                {"move": "merge", "units": ids[:2]},
                {"move": "copy", "unit": one, "deeper_mm": 40},
                {"move": "mirror", "unit": one},
                {"move": "delete", "ids": [one]},
                {"move": "say", "rule": {"rule": "as wide as", "id": "f", "unit": one, "than": other, "more_mm": 3}},
            )
        )

    def begin(self) -> Any:
        """Return answers to a starter's questions."""
        starter = self.rng.choice(STARTERS)
        answers: dict[str, Any] = {}
        for q in starter.questions:
            if self.rng.random() < 0.5:
                continue
            low, high = (q.least_mm, q.most_mm) if q.kind == "length" else (q.least, q.most)
            answers[q.id] = self.rng.choice(q.options) if q.kind == "choice" else self.rng.choice((low, high))
        return {"starter": starter.id, "id": f"b{self.rng.getrandbits(30):x}", "name": "B", "answers": answers}

    def edit(self, drawn: dict[str, Any]) -> Any:
        """Return an edit of a form: what it was drawn from, and that with something bent."""
        body = {"was": drawn, "now": self.bent(drawn), "settle": None}
        return self.bent(body) if self.rng.random() < 0.05 else body

    def facts(self, place: dict[str, Any]) -> Any:
        """Return facts like those that are there, under new ids, one of them bent."""
        known = place["facts"] or [{"fact": "note", "id": "n", "text": "x", "taken_at": "2026-03-07T10:00:00Z"}]
        some = [deepcopy(self.rng.choice(known)) for _ in range(self.rng.choice((1, 1, 2, 5)))]
        for fact in some:
            fact["id"] = f"fuzz-{self.rng.getrandbits(40):x}"
            fact["supersedes"] = self.rng.choice((None, None, self.rng.choice(known)["id"]))
        return {"facts": self.bent(some) if self.rng.random() < 0.7 else some}

    def bent(self, value: Any) -> Any:
        """Return a copy with one to three places bent."""
        out = deepcopy(value)
        for _ in range(self.rng.choice((1, 1, 1, 2, 3))):
            holder, key = self._somewhere(out)
            if holder is None:
                return out
            self._bend(holder, key)
        return out

    def _somewhere(self, value: Any) -> tuple[Any, Any]:
        holder, key = None, None
        while isinstance(value, (dict, list)) and value:
            holder, key = value, self.rng.choice(list(value) if isinstance(value, dict) else range(len(value)))
            value = value[key]
            if self.rng.random() < 0.08:
                break
        return holder, key

    def _bend(self, holder: Any, key: Any) -> None:
        now = holder[key]
        kind = self.rng.random()
        if kind < 0.45 and isinstance(now, (int, float)) and not isinstance(now, bool):
            holder[key] = self.rng.choice((now * 0.5, now * 2, now * 10, -now, now + 1, now + 0.3, 0, round(now)))
        elif kind < 0.55 and isinstance(holder, list):
            holder.insert(0, deepcopy(now))
        elif kind < 0.68:
            del holder[key]
        elif kind < 0.74 and isinstance(holder, dict):
            holder[self.rng.choice(("odd", "id", "fact", "kind"))] = now
        else:
            holder[key] = deepcopy(self.rng.choice(ODD))

    def torn(self, text: bytes) -> bytes:
        """Return a document with some of its bytes changed, lost or doubled."""
        out = bytearray(text)
        for _ in range(self.rng.choice((1, 2, 5))):
            at = self.rng.randrange(len(out))
            match self.rng.randrange(4):
                case 0:
                    out[at] = self.rng.randrange(256)
                case 1:
                    del out[at : at + self.rng.randrange(1, 40)]
                case 2:
                    out[at:at] = out[at : at + 60]
                case _:
                    out[at:at] = self.rng.choice((b"9", b"-", b"1e99", b'"', b"[[", b"null", b"\\u0000"))
        return bytes(out)


def main() -> None:
    """Run so many cases on a throwaway database, and say what came of them."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("cases", type=int, nargs="?", default=20_000)
    parser.add_argument("--seed", type=int, default=1)
    options = parser.parse_args()

    import os
    import tempfile

    with tempfile.TemporaryDirectory(prefix="wobble-fuzz-") as data:
        os.environ |= {"WOBBLE_DATA": data, "WOBBLE_DEMO": "1"}
        import django

        django.setup()
        from django.core.management import call_command

        from wobble.core.formats.document import write_job
        from wobble.core.practice.drying_loft import drying_loft
        from wobble.core.practice.gable import gable_workroom
        from wobble.core.practice.narrowboat import narrowboat_galley
        from wobble.core.practice.signal_cabin import signal_cabin
        from wobble.core.practice.vestry import vestry_press

        call_command("migrate", verbosity=0)
        client = Client(HTTP_HOST="localhost", raise_request_exception=False)
        client.post("/api/session/demo", {}, content_type="application/json")
        fuzzer = Fuzzer(client, random.Random(options.seed))  # noqa: S311
        jobs = (gable_workroom, signal_cabin, narrowboat_galley, drying_loft, vestry_press)
        fuzzer.run(options.cases, *(write_job(job()) for job in jobs))
    print(f"{options.cases} cases, {fuzzer.accepted} accepted; answers {dict(sorted(fuzzer.told.items()))}")
    for failure in fuzzer.failed[:20]:
        print(failure)
    raise SystemExit(1 if fuzzer.failed else 0)


if __name__ == "__main__":
    main()
