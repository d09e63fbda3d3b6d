"""What is other than before: two plans of one place held against each other, figure by figure."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Literal

from wobble.core.fit.level.plan import Plan
from wobble.core.hold.result import PlaceHold
from wobble.core.job import Place, Value
from wobble.core.make.marked import MarkedPart
from wobble.core.set.planned import packed_mm

SAME_MM = 0.3
"""A figure that moves by less is the same one."""


class Change(Value, frozen=True, kw_only=True):
    """One figure before and after: of what, and what becomes of what was cut to it.

    `spared` says of a part that was cut that it still does; `again` that it is cut once more.
    """

    kind: Literal["base", "place", "shim", "part", "screw"]
    name: str
    about: str
    before_mm: float | None
    after_mm: float | None
    cut: Literal["", "spared", "trim", "again"] = ""


class Side(Value, frozen=True, kw_only=True):
    """One plan of a place, as far as it is held against another."""

    place: Place
    plan: Plan | None
    hold: PlaceHold
    parts: tuple[MarkedPart, ...]


def changes(before: Side, after: Side, done: frozenset[str]) -> tuple[Change, ...]:
    """Return what is other in a plan than in the one before.

    Args:
        before: The plan in force.
        after: The plan that would follow.
        done: Units that stand already: nothing under them is changed by a plan.
    """
    return (
        *_base(before, after),
        *_places(before, after, done),
        *_shims(before, after, done),
        *_parts(before, after),
        *_screws(before, after, done),
    )


def _base(before: Side, after: Side) -> Iterator[Change]:
    if before.plan is None or after.plan is None:
        return
    a, b = before.plan.base.height.value_mm, after.plan.base.height.value_mm
    if before.plan.base.tied and abs(a - b) >= SAME_MM:
        yield Change(kind="base", name="Height of the base", about="base", before_mm=a, after_mm=b)


def _places(before: Side, after: Side, done: frozenset[str]) -> Iterator[Change]:
    was = {u.id: u for u in before.place.units}
    for u in after.place.units:
        old = was.get(u.id)
        if old is not None and u.id not in done and abs(old.x_mm - u.x_mm) >= SAME_MM:
            yield Change(kind="place", name=f"{u.name}: its left edge", about=u.id, before_mm=old.x_mm, after_mm=u.x_mm)


def _shims(before: Side, after: Side, done: frozenset[str]) -> Iterator[Change]:
    if before.plan is None or after.plan is None:
        return
    was = {s.support: s for s in before.plan.shims}
    names = {u.id: u.name for u in after.place.units}
    for s in after.plan.shims:
        old = was.get(s.support)
        if old is None or s.unit in done:
            continue
        a, b = packed_mm(old), packed_mm(s)
        if abs(a - b) >= SAME_MM:
            name = f"{names.get(s.unit, s.unit)}, {s.corner}"
            yield Change(kind="shim", name=name, about=s.support, before_mm=a, after_mm=b)


def _sizes(part: MarkedPart) -> Mapping[str, float]:
    return {d.label: d.figure.value_mm for d in part.part.finished}


def _parts(before: Side, after: Side) -> Iterator[Change]:
    was = {p.key: p for p in before.parts}
    for p in after.parts:
        old = was.get(p.key)
        if old is None:
            yield Change(
                kind="part",
                name=f"{p.mark} {p.part.name}: new",
                about=p.key,
                before_mm=None,
                after_mm=p.part.blank_mm[0],
            )
            continue
        sizes = _sizes(old)
        for label, mm in _sizes(p).items():
            if label in sizes and abs(sizes[label] - mm) >= SAME_MM:
                yield Change(
                    kind="part",
                    name=f"{p.mark} {p.part.name}, {label}",
                    about=p.key,
                    before_mm=sizes[label],
                    after_mm=mm,
                    cut=_becomes(p),
                )
    here = {p.key for p in after.parts}
    for p in before.parts:
        if p.key not in here:
            yield Change(
                kind="part",
                name=f"{p.mark} {p.part.name}: no more",
                about=p.key,
                before_mm=p.part.blank_mm[0],
                after_mm=None,
            )


def _becomes(part: MarkedPart) -> Literal["", "spared", "trim", "again"]:
    then = {c.then for c in part.checked}
    if "cut again" in then:
        return "again"
    return "trim" if "trim" in then else "spared" if then else ""


def _screws(before: Side, after: Side, done: frozenset[str]) -> Iterator[Change]:
    was = {f.id: f for f in before.hold.fasteners}
    names = {u.id: u.name for u in after.place.units}
    for f in after.hold.fasteners:
        old = was.get(f.id)
        if f.unit in done:
            continue
        if old is None:
            name = f"{names.get(f.unit, f.unit)}: a screw {f.part} into the {f.surface or 'other'}"
            yield Change(kind="screw", name=name, about=f.id, before_mm=None, after_mm=f.screw_mm)
        elif abs(old.screw_mm - f.screw_mm) >= SAME_MM:
            name = f"{names.get(f.unit, f.unit)}: screw {f.order}, its length"
            yield Change(kind="screw", name=name, about=f.id, before_mm=old.screw_mm, after_mm=f.screw_mm)


def again(found: Iterable[Change]) -> int:
    """Return how many parts are cut once more."""
    return len({c.about for c in found if c.cut == "again"})
