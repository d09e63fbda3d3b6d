"""Steps that are found in readings though nobody said so."""

from __future__ import annotations

from datetime import UTC, datetime

from msgspec.structs import replace

from wobble.core.facts import Offset
from wobble.core.practice.gable import gable_workroom
from wobble.core.stages import solve_gauge


def test_readings_of_another_room_find_no_edge_twice():
    """Five in a row were read off the wrong line, two of them 290 mm out: what explains them is told once."""
    job = gable_workroom()
    place = job.places[0]
    stations = solve_gauge(job, place.id).stations
    last = max(i for i, s in enumerate(stations) if s.surface == "floor")
    line = {f.surface: f.set_up for f in reversed(place.facts) if isinstance(f, Offset)}
    odd = [
        Offset(
            id=f"odd-{i}",
            instrument="laser",
            taken_at=datetime(2026, 3, 8, 11, tzinfo=UTC),
            surface=s.surface,
            at=s.at,
            set_up=line[s.surface],
            value_mm=990.6,
            supersedes=s.read_by,
        )
        for i, s in enumerate(stations[last - 2 : last + 3])
    ]
    found = solve_gauge(replace(job, places=(replace(place, facts=(*place.facts, *odd)),)), place.id).edges
    assert len({(e.surface, e.axis, e.low, e.high) for e in found}) == len(found)
