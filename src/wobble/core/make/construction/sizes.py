"""Sizes of parts with their working, and the boxes in which they stand."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.figure import Figure, Step
from wobble.core.part import Box, Dimension, Part, Role

_Term = tuple[str, float]


def sized(label: str, *terms: _Term, sd_mm: float = 0.0) -> Dimension:
    """Return a size as the sum of what it is built up from; what is taken off is given below zero."""
    steps = tuple(
        Step(label=name, sign=-1 if value < 0 else 1, value_mm=abs(value), sd_mm=sd_mm if i == 0 else 0.0)
        for i, (name, value) in enumerate(terms)
        if i == 0 or value
    )
    return Dimension(label=label, figure=Figure(value_mm=sum(value for _, value in terms), sd_mm=sd_mm, working=steps))


def board_part(
    role: Role,
    unit_id: str,
    unit_name: str,
    what: str,
    boxes: tuple[Box, ...],
    long: Dimension,
    wide: Dimension,
    thick_mm: float,
    material: str,
    *,
    key: str = "",
) -> Part:
    """Return a part cut from a sheet or a board, alike in all of its boxes."""
    return Part(
        id=f"{role.replace(' ', '-')}-{unit_id}{'-' + key if key else ''}",
        role=role,
        of=(unit_id,),
        name=f"{what} of {unit_name}",
        material=material,
        thick_mm=thick_mm,
        blank_mm=(long.figure.value_mm, wide.figure.value_mm),
        finished=(long, wide),
        quantity=len(boxes),
        grain="length",
        boxes=boxes,
    )


def banded(part: Part, edges: tuple[str, ...], band_mm: float) -> Part:
    """Return a part with edges banded: what the banding takes is cut off its blank, once for each edge that has it."""
    along = sum(e in ("front edge", "back edge", "left edge", "right edge") for e in edges)
    across = sum(e in ("lower end", "upper end", "left end", "right end") for e in edges)
    long, wide = part.blank_mm
    return replace(part, banded=edges, blank_mm=(long - across * band_mm, wide - along * band_mm))


def box(x: float, y: float, z: float, wide: float, deep: float, high: float) -> Box:
    """Return a box by its corner and its size, mm."""
    return Box(x_mm=x, y_mm=y, z_mm=z, wide_mm=wide, deep_mm=deep, high_mm=high)
