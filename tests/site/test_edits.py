"""Forms of one job on two devices: each keeps what it changed, and nobody's work is undone by a form that is old.

The merge is held against rules that know nothing of how it is made, on made-up documents.
"""

from __future__ import annotations

from copy import deepcopy
from typing import Any

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wobble.site.rebase import Clash, Settle, Side, rebased

READING = {
    "fact": "offset",
    "id": "late",
    "surface": "floor",
    "at": [700.0, 100.0],
    "value_mm": 1002.0,
    "set_up": "line-1",
    "instrument": "laser",
    "taken_at": "2026-03-08T11:00:00Z",
}
OUTLET = {
    "fact": "obstacle",
    "id": "new-outlet",
    "kind": "outlet",
    "name": "Found later",
    "surface": "back",
    "at": [1200.0, 300.0],
    "size": [80.0, 80.0],
    "taken_at": "2026-03-08T11:01:00Z",
}
STUD = {
    "fact": "detection",
    "id": "late-stud",
    "at": [900.0, 700.0],
    "found_by": "magnet",
    "sees": "screw",
    "taken_at": "2026-03-08T11:02:00Z",
}


def place(job: dict[str, Any]) -> dict[str, Any]:
    return dict(job["places"][0])


def part(job: dict[str, Any], *names: str) -> dict[str, Any]:
    return {name: deepcopy(job[name]) for name in names}


def about(job: dict[str, Any]) -> dict[str, Any]:
    return part(job, "name", "address", "note", "units")


def kit(job: dict[str, Any]) -> dict[str, Any]:
    return part(job, "kit")


def instruments(job: dict[str, Any]) -> dict[str, Any]:
    return part(job, "instruments")


def way_in(job: dict[str, Any]) -> dict[str, Any]:
    return part(job, "way_in")


def decisions(job: dict[str, Any]) -> dict[str, Any]:
    return part(place(job), "datum", "back_line", "closing")


def made_of(job: dict[str, Any]) -> dict[str, Any]:
    return part(place(job), "backing", "overhead", "underfoot")


def set_at(value: dict[str, Any], path: str, to: Any) -> dict[str, Any]:
    """Return a copy with one thing changed; steps are keys, and places in lists."""
    out = at = deepcopy(value)
    *steps, last = [int(s) if s.isdigit() else s for s in path.split(".")]
    for step in steps:
        at = at[step]  # type: ignore[index]
    at[last] = to  # type: ignore[index]
    return out


def get_at(value: Any, path: str) -> Any:
    for step in path.split("."):
        value = value[int(step) if step.isdigit() else step]
    return value


FORMS = {
    "about": ("about", about, ("name", "Attic", "Loft"), ("note", "Mind the stair", "")),
    "kit": ("kit", kit, ("kit.tolerance_mm", 0.7, 0.8), ("kit.least_overlap_mm", 22.0, 0)),
    "instruments": (
        "instruments",
        instruments,
        ("instruments.0.sigma_mm", 0.9, 1.1),
        ("instruments.1.name", "Mine", 0),
    ),
    "way in": ("way-in", way_in, ("way_in.0.width_mm", 700.0, 710.0), ("way_in.0.height_mm", 1900.0, 0)),
    "the place": ("places", place, ("units.0.width_mm", 580.0, 590.0), ("units.1.depth_mm", 555.0, 0)),
    "decisions": (
        "places/north/decisions",
        decisions,
        ("back_line.off_mm", 3.0, 5.0),
        ("closing.clearance_mm", 4.5, 0),
    ),
    "what it is made of": (
        "places/north/backing",
        made_of,
        ("backing.lining_mm", 15.0, 18.0),
        ("backing.clear_mm", 60.0, 0),
    ),
}


@pytest.fixture
def drawn(ines):
    """The address of a job and the job as two devices drew their forms from it."""
    stored = ines.import_job()
    assert stored["job"]["way_in"], "the demo job has a way in"
    return f"/jobs/{stored['id']}", stored["job"]


@pytest.mark.parametrize("name", FORMS)
def test_a_form_that_is_old_undoes_nothing(ines, drawn, name):
    """Meanwhile a phone changed another field of the same form, and found things in the place."""
    address, job = drawn
    route, of, (mine, to, _), (other, their, _) = FORMS[name]
    was = of(job)
    phone = {"was": was, "now": set_at(was, other, their)}
    assert ines.put(f"{address}/{route}", phone)[0] == 200
    assert ines.post(f"{address}/places/north/facts", {"facts": [READING, OUTLET, STUD]})[0] == 200
    status, after = ines.put(f"{address}/{route}", {"was": was, "now": set_at(was, mine, to)})
    assert status == 200, after
    kept = of(after["job"])
    assert (get_at(kept, mine), get_at(kept, other)) == (to, their)
    found = {fact["id"] for fact in place(after["job"])["facts"]}
    assert {"late", "new-outlet", "late-stud"} <= found


@pytest.mark.parametrize("name", FORMS)
@pytest.mark.parametrize("side", ["yours", "theirs"])
def test_what_two_changed_differently_is_shown_and_chosen(ines, drawn, name, side):
    address, job = drawn
    route, of, (path, mine, theirs), (other, beside, _) = FORMS[name]
    was = of(job)
    now = set_at(set_at(was, path, mine), other, beside)
    assert ines.put(f"{address}/{route}", {"was": was, "now": set_at(was, path, theirs)})[0] == 200
    before = ines.get(address)[1]
    status, fault = ines.put(f"{address}/{route}", {"was": was, "now": now})
    assert (status, fault["code"], fault["revision"]) == (409, "clash", before["revision"])
    assert [(s["yours"], s["theirs"]) for s in fault["sides"]] == [(mine, theirs)]
    assert fault["sides"][0]["path"].endswith(path.rsplit(".", 1)[-1])
    assert ines.get(address)[1] == before, "nothing is stored before somebody chose"
    settle = {"side": side, "revision": fault["revision"]}
    status, after = ines.put(f"{address}/{route}", {"was": was, "now": now, "settle": settle})
    assert status == 200, after
    kept = of(after["job"])
    assert get_at(kept, path) == (mine if side == "yours" else theirs)
    assert get_at(kept, other) == beside, "what only one changed needs no choice"


def test_a_choice_made_of_an_earlier_clash_is_asked_again(ines, drawn):
    address, job = drawn
    was = kit(job)
    for tolerance in (0.8, 0.9):
        ines.put(
            f"{address}/kit",
            {"was": kit(ines.get(address)[1]["job"]), "now": set_at(was, "kit.tolerance_mm", tolerance)},
        )
        mine = {"was": was, "now": set_at(was, "kit.tolerance_mm", 0.7)}
        seen = {"side": "yours", "revision": 2}
        status, fault = ines.put(f"{address}/kit", mine | ({"settle": seen} if tolerance == 0.9 else {}))
        assert (status, fault["sides"][0]["theirs"]) == (409, tolerance)


def test_a_unit_taken_away_there_and_changed_here_is_not_lost_without_a_word(ines, drawn):
    address, job = drawn
    was = place(job)
    fewer = was | {"units": was["units"][1:]}
    assert ines.put(f"{address}/places", {"was": was, "now": fewer})[0] == 200
    status, fault = ines.put(f"{address}/places", {"was": was, "now": set_at(was, "units.0.width_mm", 580.0)})
    assert (status, fault["sides"][0]["theirs"]) == (409, None)
    assert fault["sides"][0]["yours"]["width_mm"] == 580.0


def test_two_new_places_of_one_id_are_not_one(ines, drawn):
    address, _ = drawn
    new = {"id": "east", "name": "East", "width_mm": 1500, "depth_mm": 600, "height_mm": 2300}
    assert ines.put(f"{address}/places", {"was": None, "now": new})[0] == 200
    status, fault = ines.put(f"{address}/places", {"was": None, "now": new | {"name": "Another"}})
    assert (status, fault["path"]) == (422, "$.now.id")
    status, fault = ines.put(f"{address}/places", {"was": new | {"id": "west"}, "now": new})
    assert (status, fault["code"]) == (422, "document")


# --- the merge itself -------------------------------------------------------------------------------------------------

KEYS = st.sampled_from("abc")
LEAVES = st.integers(0, 3)
ITEMS = st.lists(
    st.fixed_dictionaries({"id": KEYS, "v": LEAVES, "w": LEAVES}), max_size=3, unique_by=lambda item: item["id"]
)
DOCUMENTS = st.fixed_dictionaries({"a": LEAVES, "b": st.dictionaries(KEYS, LEAVES), "units": ITEMS})


def merge(was: Any, now: Any, stored: Any, side: str | None = None) -> Any:
    settle = Settle(side=side, revision=1) if side else None  # type: ignore[arg-type]
    return rebased(dict, was=was, now=now, stored=stored, revision=1, settle=settle)


def leaves(value: Any, path: str = "") -> dict[str, Any]:
    """Every leaf by its path; items of lists by their ids."""
    if isinstance(value, dict):
        return {k: v for key, part in value.items() for k, v in leaves(part, f"{path}.{key}").items()}
    if isinstance(value, list):
        return {k: v for item in value for k, v in leaves(item, f"{path}[{item['id']}]").items()}
    return {path: value}


@given(DOCUMENTS, DOCUMENTS)
def test_whoever_edits_alone_gets_what_he_typed(was, now):
    assert merge(was, now, was) == now
    assert merge(was, was, now) == now
    assert merge(was, now, now) == now


@given(DOCUMENTS, DOCUMENTS, DOCUMENTS)
def test_a_leaf_is_as_whoever_changed_it_left_it(was, now, stored):
    """Leaf by leaf: what one side changed holds; what both did is told, and then as chosen."""
    absent = object()
    flat = [leaves(v) for v in (was, now, stored)]
    sides: tuple[Side, ...] = ()
    try:
        made = merge(was, now, stored)
    except Clash as clash:
        made, sides = merge(was, now, stored, "yours"), clash.sides
    told = bool(sides)
    assert all(side.yours != side.theirs for side in sides)
    out = leaves(made)
    for path in set().union(*flat):
        w, n, s = (v.get(path, absent) for v in flat)
        if n != w and s == w:
            assert out.get(path, absent) == n
        if n == w and s != w and not told:
            assert out.get(path, absent) == s
        if n != w and s != w and n != s:
            assert told, path


@given(DOCUMENTS, DOCUMENTS, DOCUMENTS)
def test_either_choice_settles_everything(was, now, stored):
    for side in ("yours", "theirs"):
        made = merge(was, now, stored, side)
        assert len({item["id"] for item in made["units"]}) == len(made["units"])


class Whole(msgspec.Struct):
    """Sound only where low is under high."""

    low: int
    high: int

    def __post_init__(self) -> None:
        if self.low > self.high:
            raise ValueError("low is over high")


def test_two_sound_changes_that_do_not_go_together_are_a_clash():
    was, now, stored = Whole(1, 5), Whole(4, 5), Whole(1, 3)
    with pytest.raises(Clash) as clash:
        rebased(Whole, was=was, now=now, stored=stored, revision=1, settle=None)
    assert clash.value.sides[0].theirs == {"low": 1, "high": 3}
