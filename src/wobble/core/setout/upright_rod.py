"""The upright rod: stacks of heights, of which one member gives, and what rests on what."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.job import Existing, HeightStack, Place, Unit
from wobble.core.job.rules import MemberName
from wobble.core.job.unit import BaseFrame, OnPieces, ToeKickBox

LEAST_MM = 1.0
"""A member that comes out lower than this has no room."""
BOXES: tuple[MemberName, ...] = ("base", "box", "facing")
"""Members that a box's own height is made of."""


@dataclass(frozen=True)
class Layer:
    """One member of a stack as it comes out: from and to which height over the bare floor, mm; whether it gives."""

    name: MemberName
    low_mm: float
    high_mm: float
    gives: bool

    @property
    def thick_mm(self) -> float:
        """How high it is, mm; below zero where there is no room for it."""
        return self.high_mm - self.low_mm


@dataclass(frozen=True)
class Heights:
    """A stack as it comes out.

    Attributes:
        stack: Its id. layers: From the floor up; a covering that is laid later is not under the others.
        finished_mm: The finished face over the finished floor. wanted_mm: What was asked for; None where nothing was.
        covering_mm: Thickness of the covering, which the finished floor lies over the bare one. standing_mm: The bare
            floor, or the covering, that the base stands on, over the bare floor.
    """

    stack: str
    layers: tuple[Layer, ...]
    finished_mm: float
    wanted_mm: float | None
    covering_mm: float
    standing_mm: float

    def layer(self, name: MemberName) -> Layer | None:
        """Return a member by its name."""
        return next((layer for layer in self.layers if layer.name == name), None)

    @property
    def misses_mm(self) -> float:
        """How far the finished face is over what was asked for, mm."""
        return 0.0 if self.wanted_mm is None else self.finished_mm - self.wanted_mm


def stack_up(place: Place, stack: HeightStack) -> Heights:
    """Return a stack with the member that gives worked out.

    The finished height is counted from the finished floor. A covering that is laid first carries the base; one that is
    laid later comes up to it, so that everything on the bare floor is higher by it.
    """
    said = {m.name: m.high_mm for m in stack.members}
    covering = said.get("covering", 0.0)
    skirting = next((o for o in place.obstacles if o.id == stack.base_as), None)
    if skirting is not None and "base" in said and stack.gives != "base":
        # what is seen of the base is covered by the skirting, which stands on the finished floor
        said["base"] = skirting.size[1] + (covering if stack.covering_later else 0.0)
    standing = 0.0 if stack.covering_later else covering
    total = sum(high for name, high in said.items() if name != "covering")
    if stack.finished_mm is not None and stack.gives is not None and stack.gives in said and stack.gives != "covering":
        wanted = stack.finished_mm + covering - standing
        said[stack.gives] += wanted - total
    layers, low = [], standing
    for member in stack.members:
        if member.name == "covering":
            layers.append(Layer("covering", 0.0, covering, gives=False))
        else:
            high = low + said[member.name]
            layers.append(Layer(member.name, low, high, gives=member.name == stack.gives))
            low = high
    return Heights(stack.id, tuple(layers), low - covering, stack.finished_mm, covering, standing)


def stacked(unit: Unit, found: Mapping[str, Heights], place: Place) -> Unit:
    """Return a unit with the heights of the stack that it stands in."""
    for stack in place.heights:
        if unit.id in stack.units:
            return _box(unit, found[stack.id])
        if unit.id in stack.tops:
            return _top(unit, found[stack.id])
    return unit


def _box(unit: Unit, heights: Heights) -> Unit:
    own = [layer for name in BOXES if (layer := heights.layer(name)) is not None]
    if not own:
        return unit
    base = heights.layer("base")
    low = max(base.thick_mm, LEAST_MM) if base is not None else 0.0
    high = max(sum(layer.thick_mm for layer in own), LEAST_MM)
    standing = unit.standing
    if base is not None and base.thick_mm > LEAST_MM:
        match standing:
            case ToeKickBox() | BaseFrame():
                standing = replace(standing, height_mm=low)
            case _:
                pass
    return replace(unit, height_mm=high, standing=standing)


def _top(unit: Unit, heights: Heights) -> Unit:
    layer = heights.layer("cushion" if unit.kind == "cushion" else "board")
    if layer is None:
        return unit
    return replace(
        unit,
        over_base_mm=layer.low_mm - heights.standing_mm,
        height_mm=max(layer.thick_mm, LEAST_MM),
    )


def resting(units: tuple[Unit, ...], existing: tuple[Existing, ...]) -> tuple[Unit, ...]:
    """Return units with those that rest on pieces raised onto the highest of them.

    A ring of pieces that rest on each other is left as drawn; that is told elsewhere.
    """
    tops = {e.id: e.up_mm + e.height_mm for e in existing}
    by_id = {u.id: u for u in units}
    placed: dict[str, Unit] = {}

    def place(unit: Unit, trail: tuple[str, ...]) -> Unit:
        if unit.id in placed:
            return placed[unit.id]
        out = unit
        if isinstance(unit.standing, OnPieces) and unit.id not in trail:
            under = [place(by_id[p], (*trail, unit.id)) for p in unit.standing.pieces if p in by_id]
            over = [u.over_base_mm + u.height_mm for u in under]
            over += [tops[p] for p in unit.standing.pieces if p in tops]
            if over and not in_ring(unit, by_id):
                out = replace(unit, over_base_mm=max(over))
        placed[unit.id] = out
        return out

    return tuple(place(u, ()) for u in units)


def in_ring(unit: Unit, by_id: Mapping[str, Unit]) -> bool:
    """Return whether a unit rests on something that rests on it."""
    seen: set[str] = set()
    waiting = list(unit.standing.pieces) if isinstance(unit.standing, OnPieces) else []
    while waiting:
        id_ = waiting.pop()
        if id_ == unit.id:
            return True
        below = by_id.get(id_)
        if id_ not in seen and below is not None and isinstance(below.standing, OnPieces):
            seen.add(id_)
            waiting += below.standing.pieces
    return False
