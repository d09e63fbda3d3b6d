"""Readings of a neighbour that meets this place in an inside corner: told in this place's axes, they tell of it too.

With place A's right wall the back of place B, A's nominal right corner is B's origin: B's x runs out of A's back and
B's y back along it. The neighbour's axes need not be square to this place's, nor its marks in the very corner, so its
turn and its shift in plan are unknowns of the adjustment; heights count from one mark in both.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace

from wobble.core.gauge.observe import Observation, Term, observations, unknowns
from wobble.core.job import Instrument, Measured, Spot, SurfaceName, active_readings, surface_extent

TURN_SD = 30.0
"""How far the neighbour's axes may be turned out of square to this place's, mm per m."""
SHIFT_SD_MM = 50.0
REACH_MM = 300.0
"""What lies further outside this place than this tells nothing of it."""

Told = tuple[SurfaceName, Spot, float, float, float, str]
"""A surface value as this place has it: surface, spot, factor and constant, lever on the turn (m), and which shift."""
Teller = Callable[[SurfaceName, Spot], Told | None]


@dataclass(frozen=True, slots=True)
class Borrowed:
    """What neighbours tell of a place: their readings as linear sums in its axes, and the unknowns they bring."""

    observations: tuple[Observation, ...] = ()
    unknowns: Mapping[str, tuple[float, float]] | None = None


def borrowed(place: Measured, neighbours: Iterable[Measured], instruments: Mapping[str, Instrument]) -> Borrowed:
    """Return what the places that share a corner with a place tell of it."""
    told: list[Observation] = []
    others: dict[str, tuple[float, float]] = {}
    for other in neighbours:
        at_right = other.id == place.right_is_back_of
        tell = _from_right(place.width_mm) if at_right else _from_left(other.width_mm)
        observed = observations(other, active_readings(other), instruments)
        mine = [o for o in (_told(o, other, tell) for o in observed) if o is not None and _within(o, place)]
        if not mine:
            continue
        told += mine
        own = unknowns(other, active_readings(other), instruments.values())
        others |= {_named(name, other): prior for name, prior in own.items()}
        others |= {f"turn:{other.id}": (0.0, TURN_SD)}
        others |= {f"shift:{other.id}:{way}": (0.0, SHIFT_SD_MM) for way in ("back", "side")}
    return Borrowed(tuple(told), others)


def _from_right(width_mm: float) -> Teller:
    """Return how the place at the right tells: its back is this place's right wall, its left this place's back.

    With φ its turn: x_A = W − y_B − φ·x_B on its back, and y_A = x_B − φ·y_B on its left wall.
    """

    def tell(surface: SurfaceName, spot: Spot) -> Told | None:
        first, second = spot
        match surface:
            case "back":
                return "right", (first, second), -1.0, width_mm, -first / 1000, "side"
            case "left":
                return "back", (width_mm - first, second), 1.0, 0.0, first / 1000, "back"
            case "floor" | "ceiling":
                return surface, (width_mm - second, first), 1.0, 0.0, 0.0, ""
            case _:
                return None

    return tell


def _from_left(width_mm: float) -> Teller:
    """Return how the place at the left (`width_mm` wide) tells: its right wall is our back, its back our left wall."""

    def tell(surface: SurfaceName, spot: Spot) -> Told | None:
        first, second = spot
        match surface:
            case "right":
                return "back", (first, second), -1.0, width_mm, -first / 1000, "back"
            case "back":
                out = width_mm - first
                return "left", (out, second), 1.0, 0.0, -out / 1000, "side"
            case "floor" | "ceiling":
                return surface, (second, width_mm - first), 1.0, 0.0, 0.0, ""
            case _:
                return None

    return tell


def _told(seen: Observation, other: Measured, tell: Teller) -> Observation | None:
    """Return a neighbour's observation in this place's axes, or None where a surface of it is not this place's."""
    constant = 0.0
    terms: list[Term] = []
    extra: dict[str, float] = {}
    for surface, spot, weight in seen.surface_terms:
        told = tell(surface, spot)
        if told is None:
            return None
        name, at, factor, added, lever, shift = told
        terms.append((name, at, weight * factor))
        constant += weight * added
        if shift:
            extra[f"turn:{other.id}"] = extra.get(f"turn:{other.id}", 0.0) + weight * lever
            key = f"shift:{other.id}:{shift}"
            extra[key] = extra.get(key, 0.0) + weight
    own = tuple((_named(name, other), weight) for name, weight in seen.unknown_terms)
    return replace(
        seen,
        reading_id=f"{other.id}/{seen.reading_id}",
        value_mm=seen.value_mm - constant,
        surface_terms=tuple(terms),
        unknown_terms=(*own, *extra.items()),
    )


def _named(name: str, other: Measured) -> str:
    """Return an unknown's name in this place: lines are the neighbour's own, levels are the same ones."""
    kind, _, rest = name.partition(":")
    return name if kind == "bias" else f"{kind}:{other.id}/{rest}"


def _within(seen: Observation, place: Measured) -> bool:
    return all(surface in place.surfaces and _near(place, surface, spot) for surface, spot, _ in seen.surface_terms)


def _near(place: Measured, surface: SurfaceName, spot: Iterable[float]) -> bool:
    extent = surface_extent(place, surface)
    return all(low - REACH_MM <= at <= high + REACH_MM for at, (low, high) in zip(spot, extent, strict=True))
