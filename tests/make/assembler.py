"""A joiner who knows nothing of how parts came about: puts the boards together and measures what stands there."""

from __future__ import annotations

import itertools
from collections.abc import Iterable

from wobble.core.part import Box, Part

NEAR = 0.01
CARCASS = {"side", "bottom", "carcass top", "stretcher", "divider", "fixed shelf"}
Span = tuple[float, float]


def spans(box: Box) -> tuple[Span, Span, Span]:
    """Return from where to where a box goes along, out and up."""
    return (
        (box.x_mm, box.x_mm + box.wide_mm),
        (box.y_mm, box.y_mm + box.deep_mm),
        (box.z_mm, box.z_mm + box.high_mm),
    )


def meet(a: Box, b: Box) -> tuple[float, float, float]:
    """Return how far two boxes are in each other, along, out and up; below zero where they are apart."""
    x, y, z = (min(p[1], q[1]) - max(p[0], q[0]) for p, q in zip(spans(a), spans(b), strict=True))
    return x, y, z


def size_of(boxes: Iterable[Box]) -> tuple[Span, Span, Span]:
    """Return from where to where boxes go together."""
    every = [spans(b) for b in boxes]
    x, y, z = ((min(s[i][0] for s in every), max(s[i][1] for s in every)) for i in range(3))
    return x, y, z


def stands(parts: Iterable[Part]) -> None:
    """Check that boards can stand as they say: sizes are those of their boxes, and none is in another.

    What is let in lies in a groove of the other board, and nowhere deeper than that groove.
    """
    parts = [p for p in parts if p.boxes]
    for part in parts:
        assert len(part.boxes) == part.quantity
        wanted = sorted([part.thick_mm, *(d.figure.value_mm for d in part.finished)])
        for b in part.boxes:
            assert all(
                abs(s - w) < NEAR for s, w in zip(sorted((b.wide_mm, b.deep_mm, b.high_mm)), wanted, strict=True)
            ), f"{part.name}: {b} is not {wanted}"
            for d in part.finished:
                steps = sum(step.sign * step.value_mm for step in d.figure.working)
                assert abs(steps - d.figure.value_mm) < NEAR, f"{part.name}: its working does not add up"
    flat = [(part, b) for part in parts for b in part.boxes]
    for (one, a), (two, b) in itertools.combinations(flat, 2):
        inside = meet(a, b)
        if min(inside) <= NEAR:
            continue
        grooves = [g.box for part in (one, two) for g in part.grooves]
        assert any(all(w >= i - NEAR for w, i in zip(meet_all(a, b, g), inside, strict=True)) for g in grooves), (
            f"{one.name} stands in {two.name} by {inside}"
        )


def meet_all(a: Box, b: Box, groove: Box) -> tuple[float, float, float]:
    """Return how much of what two boxes share lies in a groove."""
    x, y, z = (
        min(p[1], q[1], g[1]) - max(p[0], q[0], g[0]) for p, q, g in zip(spans(a), spans(b), spans(groove), strict=True)
    )
    return x, y, z


def free_around(parts: Iterable[Part], x: float, z: float, y: float) -> tuple[Span, Span]:
    """Return what is free around a point of a carcass, to the boards left, right, under and over it."""
    boards = [b for p in parts if p.role in CARCASS for b in p.boxes]
    at_height = [spans(b) for b in boards if b.z_mm < z < b.z_mm + b.high_mm and b.y_mm < y < b.y_mm + b.deep_mm]
    at_width = [spans(b) for b in boards if b.x_mm < x < b.x_mm + b.wide_mm and b.y_mm < y < b.y_mm + b.deep_mm]
    return (
        (max(s[0][1] for s in at_height if s[0][1] <= x), min(s[0][0] for s in at_height if s[0][0] >= x)),
        (max(s[2][1] for s in at_width if s[2][1] <= z), min(s[2][0] for s in at_width if s[2][0] >= z)),
    )
