"""Job documents of version 1, turned into version 2: for ever, as somebody's survey may lie in one.

Version 1 kept readings, detections, notes and marks in lists of their own, and called a place a bay. Its own words
stand here and nowhere else. Everything is plain JSON on both sides; what does not fit is left for the schema to refuse.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

Plain = dict[str, Any]
LONG_AGO = "1970-01-01T00:00:00Z"
"""When a mark was seen that nothing dates: version 1 kept no time of marks."""
UNIT_KINDS = {"front frame": "face frame"}
CLOSED_BY = {"front frame first": "face frame first", "scribed panel": "end panel"}


def from_version_1(old: Plain) -> Plain:
    """Return a document of version 1 as one of version 2."""
    job = _renamed(old, {"place": "address", "bays": "places"}) | {"version": 2}
    if "instruments" in job:
        job["instruments"] = _each(job, "instruments", _named)
    if isinstance(job.get("places"), list):
        job["places"] = [_place(bay) if isinstance(bay, dict) else bay for bay in job["places"]]
    return job


def _place(bay: Plain) -> Plain:
    place = {key: value for key, value in bay.items() if key not in ("readings", "detections", "notes", "marks")}
    place = _named(place)
    if "set_ups" in place:
        place["set_ups"] = _each(place, "set_ups", _named)
    written = {"written_at": "taken_at", "written_by": "taken_by"}
    facts = _each(bay, "readings", _tagged)
    facts += _each(bay, "detections", lambda found: _tagged(_renamed(found, {"method": "found_by"}), "detection"))
    facts += _each(bay, "notes", lambda note: _tagged(_renamed(note, written), "note"))
    times = [str(fact["taken_at"]) for fact in facts if isinstance(fact, dict) and "taken_at" in fact]
    seen_at = {"taken_at": min(times, default=LONG_AGO)}
    facts += _each(bay, "marks", lambda mark: _tagged(_named(mark) | seen_at, "obstacle"))
    if facts:
        place["facts"] = _told_apart(facts)
    if "units" in place:
        place["units"] = _each(place, "units", _unit)
    if "closing" in place:
        place["closing"] = _closing(place["closing"])
    if "alternatives" in place:
        place["alternatives"] = _each(place, "alternatives", _alternative)
    return place


def _each(of: Mapping[str, Any], key: str, turn: Callable[[Plain], Plain]) -> list[Any]:
    """Return a list with each entry turned; what is no entry at all stays as it is, for the schema to refuse."""
    found = of.get(key)
    if found is None:
        return []
    return [turn(item) if isinstance(item, dict) else item for item in found] if isinstance(found, list) else [found]


def _named(old: Plain) -> Plain:
    """Return a thing with a name: what nobody named is called by its id."""
    return old | {"name": old["id"]} if old.get("name") == "" and "id" in old else old


def _renamed(old: Mapping[str, Any], names: Mapping[str, str]) -> Plain:
    return {names.get(key, key): value for key, value in old.items()}


def _tagged(old: Plain, fact: str = "") -> Plain:
    """Return a fact under its own tag; that of a reading was called its kind."""
    if fact:
        return {"fact": fact} | old
    return {"fact": old.get("kind")} | {key: value for key, value in old.items() if key != "kind"}


def _told_apart(facts: list[Any]) -> list[Any]:
    """Return facts with ids of their own: version 1 asked for them within each list only."""
    taken: set[str] = set()
    out: list[Any] = []
    for fact in facts:
        if not isinstance(fact, dict):
            out.append(fact)
            continue
        mine, kind = fact.get("id"), fact.get("fact")
        n = 1
        while kind in ("detection", "note", "obstacle") and str(mine) in taken:
            n += 1
            mine = f"{str(fact.get('id'))[:60]}-{kind}" + (f"-{n}" if n > 2 else "")
        taken.add(str(mine))
        out.append(fact | {"id": mine})
    return out


def _unit(unit: Plain) -> Plain:
    unit = _named(dict(unit))
    if unit.get("holds") == "nothing":  # what nobody chose was written like that, and is never safe to plan with
        del unit["holds"]
    if "kind" in unit:
        unit["kind"] = UNIT_KINDS.get(unit["kind"], unit["kind"])
    if isinstance(unit.get("board"), dict):
        unit["board"] = _renamed(unit["board"], {"stuff": "material", "swing_percent": "moisture_range_percent"})
    return _renamed(unit, {"spare": "scribe_allowance"})


def _alternative(kept: Plain) -> Plain:
    return kept | {"closing": _closing(kept["closing"])} if "closing" in kept else kept


def _closing(closing: Any) -> Any:
    if not isinstance(closing, dict) or "school" not in closing:
        return closing
    return _renamed(closing, {"school": "method"}) | {"method": CLOSED_BY.get(closing["school"], closing["school"])}
