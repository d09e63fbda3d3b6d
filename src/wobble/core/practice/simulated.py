"""Simulated instruments behind one interface: asked for a reading without its number, they read a true place.

Each has a graduation, an uncertainty, and an error of its own: a tape's worn hook, a level's bias, a square that is not
square. The truth is taken by plain geometry (vectors and differences), not by the sums that the adjustment is made of.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import partial
from typing import Protocol, TypeVar

import numpy as np
from msgspec.structs import replace

from wobble.core.gauge.prior import Floats
from wobble.core.job import (
    TOWARDS_INSTALLER,
    Corner,
    FlipCheck,
    Gap,
    HookCheck,
    Instrument,
    Moment,
    Offset,
    Profile,
    Reading,
    Scan,
    Slope,
    Span,
    Spot,
    SquareCheck,
    SurfaceName,
)

R = TypeVar("R", bound=Reading)


class Shape(Protocol):
    """A true surface."""

    def at(self, spots: Floats) -> Floats:
        """Return the true coordinate, mm, at spots of shape (n, 2)."""
        ...


@dataclass(frozen=True)
class TruePlace:
    """A place as it really is: its surfaces, and where its set-ups really stand, mm."""

    surfaces: Mapping[SurfaceName, Shape]
    lines: Mapping[str, float] = field(default_factory=dict)
    width_mm: float = 0.0

    def value(self, surface: SurfaceName, spot: Spot) -> float:
        """Return one surface value, mm."""
        return float(self.surfaces[surface].at(np.asarray([spot], dtype=float))[0])

    def off(self, surface: SurfaceName, spot: Spot, line: str) -> float:
        """Return how far a surface stands from a line, mm, positive on its usual side."""
        return TOWARDS_INSTALLER[surface] * (self.lines[line] - self.value(surface, spot))

    def corner_legs(self, reading: Corner) -> tuple[Floats, Floats]:
        """Return the two legs of a corner in plan as vectors (along x, out y), mm."""
        left = reading.corner == "back-left"
        near, far = (0.0, reading.along_mm) if left else (self.width_mm, self.width_mm - reading.along_mm)
        z = reading.height_mm
        along = np.array([far - near, self.value("back", (far, z)) - self.value("back", (near, z))])
        wall: SurfaceName = "left" if left else "right"
        out = np.array([self.value(wall, (reading.out_mm, z)) - self.value(wall, (0.0, z)), reading.out_mm])
        return along, out


@dataclass(frozen=True)
class Simulated:
    """One simulated instrument.

    Attributes:
        instrument: What the job calls it, with its uncertainty.
        graduation: What it is read to: mm, mm per m or degrees as the reading has it; 0 for none.
        own_error: How much it reads too large: mm for a tape, mm per m for a level or a square.
    """

    instrument: Instrument
    graduation: float = 0.5
    own_error: float = 0.0

    def read(self, asked: R, place: TruePlace, rng: np.random.Generator) -> R:
        """Return what is asked with the number that this instrument shows."""
        match asked:
            case Offset():
                value = place.off(asked.surface, asked.at, asked.set_up) + self._hook
                return replace(asked, instrument=self.instrument.id, value_mm=self._shown(value, rng))
            case Profile():
                points = tuple(
                    (v, self._shown(place.off(asked.surface, (asked.along_mm, v), asked.set_up) + self._hook, rng))
                    for v, _ in asked.points
                )
                return replace(asked, instrument=self.instrument.id, points=points)
            case Scan():
                seen = tuple(
                    (u, v, self._shown(place.off(asked.surface, (u, v), asked.set_up), rng)) for u, v, _ in asked.points
                )
                return replace(asked, instrument=self.instrument.id, points=seen)
            case Slope():
                return replace(asked, instrument=self.instrument.id, value=self._slope(asked, place, rng))
            case Gap():
                return replace(asked, instrument=self.instrument.id, value_mm=self._gap(asked, place, rng))
            case Corner():
                return replace(asked, instrument=self.instrument.id, value_mm=self._corner(asked, place, rng))
            case _:
                pair: tuple[SurfaceName, SurfaceName] = (
                    ("left", "right") if asked.between == "left-right" else ("floor", "ceiling")
                )
                near, far = (place.value(s, asked.at) for s in pair)
                return replace(asked, instrument=self.instrument.id, value_mm=self._shown(far - near + self._hook, rng))

    def keys(self, reading: Offset | Span) -> str:
        """Return what a meter with a keyboard's plug types for a reading: its number, then Enter."""
        return f"{reading.value_mm:g}\n"

    @property
    def _hook(self) -> float:
        return self.own_error if self.instrument.kind == "tape" else 0.0

    def _shown(self, value: float, rng: np.random.Generator) -> float:
        read = value + float(rng.normal(0, self.instrument.sigma_mm))
        return float(np.round(read / self.graduation) * self.graduation) if self.graduation else read

    def _slope(self, asked: Slope, place: TruePlace, rng: np.random.Generator) -> float:
        base = math.dist(asked.start, asked.end)
        rise = place.value(asked.surface, asked.end) - place.value(asked.surface, asked.start)
        bias = self.own_error * base / 1000
        rise += (-bias if asked.turned else bias) + float(rng.normal(0, self.instrument.sigma_mm))
        value = {"mm": rise, "mm/m": rise / base * 1000, "deg": math.degrees(math.asin(rise / base))}[asked.unit]
        return float(np.round(value / self.graduation) * self.graduation) if self.graduation else value

    def _gap(self, asked: Gap, place: TruePlace, rng: np.random.Generator) -> float:
        """Return the gap; a feeler shows none below nothing."""
        start, end = (place.value(asked.surface, spot) for spot in (asked.start, asked.end))
        share = math.dist(asked.start, asked.at) / math.dist(asked.start, asked.end)
        edge = start + share * (end - start)
        gap = TOWARDS_INSTALLER[asked.surface] * (edge - place.value(asked.surface, asked.at))
        return max(0.0, self._shown(gap, rng))

    def _corner(self, asked: Corner, place: TruePlace, rng: np.random.Generator) -> float:
        along, out = place.corner_legs(asked)
        angle = math.acos(float(along @ out) / float(np.linalg.norm(along) * np.linalg.norm(out)))
        if asked.how == "square":
            tip = asked.out_mm * math.tan(angle - math.pi / 2 - self.own_error / 1000)
            return self._shown(tip, rng)
        a, b = asked.along_mm, asked.out_mm
        return self._shown(math.sqrt(a * a + b * b - 2 * a * b * math.cos(angle)) + self._hook, rng)

    def check(self, at: Moment, rng: np.random.Generator) -> FlipCheck | HookCheck | SquareCheck:
        """Return what checking this instrument shows: a level flipped, a tape's hook, a square drawn and flipped.

        Raises:
            ValueError: It is of a kind that has no check.
        """
        shown = partial(self._shown, rng=rng)
        match self.instrument.kind:
            case "level" | "digital level" | "phone":
                rise, bias = 3.0, self.own_error * 1.2
                return FlipCheck(at=at, length_mm=1200, first_mm=shown(rise + bias), turned_mm=shown(rise - bias))
            case "tape":
                return HookCheck(at=at, hooked_mm=shown(900 + self.own_error), from_mark_mm=shown(1000))
            case "square":
                return SquareCheck(at=at, leg_mm=400, apart_mm=shown(2 * 400 * self.own_error / 1000))
            case kind:
                raise ValueError(f"A {kind} has no check.")


def tape(hook_mm: float = 0.0, sigma_mm: float = 0.8) -> Simulated:
    """Return a tape whose hook reads `hook_mm` too long, read to the half millimetre."""
    return Simulated(Instrument(id="tape", name="Tape", kind="tape", sigma_mm=sigma_mm), 0.5, hook_mm)


def bubble_level(bias_mm_per_m: float = 0.0, sigma_mm: float = 0.5) -> Simulated:
    """Return a level with a bias, read with feelers to the half millimetre."""
    return Simulated(Instrument(id="level", name="Level", kind="level", sigma_mm=sigma_mm), 0.5, bias_mm_per_m)


def digital_level(bias_mm_per_m: float = 0.0, sigma_mm: float = 0.5) -> Simulated:
    """Return a digital level with a bias that shows twentieths of a degree."""
    tool = Instrument(id="digital", name="Digital level", kind="digital level", sigma_mm=sigma_mm)
    return Simulated(tool, 0.05, bias_mm_per_m)


def phone(bias_mm_per_m: float = 0.0, sigma_mm: float = 1.0) -> Simulated:
    """Return a phone that is laid down as a level: a large bias, and hundredths of a degree once it is steady."""
    return Simulated(Instrument(id="phone", name="Phone", kind="phone", sigma_mm=sigma_mm), 0.01, bias_mm_per_m)


def laser_meter(sigma_mm: float = 1.0) -> Simulated:
    """Return a laser distance meter that shows tenths of a millimetre and types them."""
    return Simulated(Instrument(id="meter", name="Laser meter", kind="laser meter", sigma_mm=sigma_mm), 0.1)


def laser_line(sigma_mm: float = 0.6) -> Simulated:
    """Return a laser line and a rule read to the half millimetre."""
    return Simulated(Instrument(id="laser", name="Laser line and rule", kind="laser line", sigma_mm=sigma_mm), 0.5)


def square(error_mm_per_m: float = 0.0, sigma_mm: float = 0.3) -> Simulated:
    """Return a square that is wider than square by so much over a metre, and feelers."""
    return Simulated(Instrument(id="square", name="Square", kind="square", sigma_mm=sigma_mm), 0.1, error_mm_per_m)
