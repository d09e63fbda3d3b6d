"""How runs come to stand in made-up places: with checks and a plan that follows, and by the first plan blindly."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

import numpy as np

from wobble.core.job import Instrument, Job, Place, SetUp, Unit
from wobble.core.practice.installer import Body, Installer
from wobble.core.practice.instruments import read_offsets
from wobble.core.practice.rooms import Room, made_up_room
from wobble.core.set.tolerances import level
from wobble.core.stages import solve_set

LINE = SetUp(id="line", name="Level line", across="z", at_mm=1000.0)
RULE = Instrument(id="rule", name="Rule", sigma_mm=0.7)
BEGUN = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
JOINT_MM = 1.0
"""Tops that meet may differ by what the eye and a worktop take."""
WIDTHS = (700.0, 800.0, 600.0)


@dataclass(frozen=True)
class Stood:
    """How one run came to stand: the worst of each kind, mm, and whether all is within tolerance."""

    level_mm: float
    joint_mm: float
    fine: bool


@dataclass(frozen=True)
class Settings:
    """How many of so many runs came to stand within tolerance, and the middle of the worst."""

    n: int
    followed: tuple[Stood, ...]
    blind: tuple[Stood, ...]


def job_in(room: Room, seed: int) -> Job:
    """Return a run of three boxes on shims, over a floor read twice as sparsely as it is crooked."""
    width, depth, height = room.size
    spots = np.array([(x, y) for y in (60.0, 540.0) for x in np.linspace(60.0, width - 60.0, 7)])
    readings = read_offsets(room.surfaces["floor"], "floor", spots, LINE, RULE, seed=seed)
    x, units = 300.0, []
    for n, wide in enumerate(WIDTHS):
        units.append(
            Unit(
                id="ABC"[n],
                name=f"Box {'ABC'[n]}",
                x_mm=x,
                width_mm=wide,
                depth_mm=560.0,
                height_mm=720.0,
                weight_kg=20.0,
            )
        )
        x += wide
    place = Place(
        id="p",
        name="Place",
        width_mm=width,
        depth_mm=depth,
        height_mm=height,
        surfaces=("floor", "back"),
        set_ups=(LINE,),
        units=tuple(units),
        facts=tuple(readings),
    )
    return Job(name="Run", instruments=(RULE,), places=(place,))


def stood(bodies: Sequence[Body]) -> Stood:
    """Return how a run stands in truth."""
    tilts, fine = [], True
    for b in bodies:
        for rise, over in ((b.ry * b.stands.wide_mm, b.stands.wide_mm), (b.rx * b.stands.deep_mm, b.stands.deep_mm)):
            tilts.append(abs(rise))
            fine = fine and abs(rise) <= level(over)
    run = sorted(bodies, key=lambda b: b.stands.x_mm)
    joints = [
        abs(a.top_at(a.stands.x_mm + a.stands.wide_mm) - b.top_at(b.stands.x_mm)) for a, b in itertools.pairwise(run)
    ]
    fine = fine and max(joints, default=0.0) <= JOINT_MM
    return Stood(max(tilts), max(joints, default=0.0), fine)


def install(seed: int, *, checks: bool) -> Stood:
    """Return how a run comes to stand in one made-up place."""
    room = made_up_room(seed)
    floor = room.surfaces["floor"]
    installer = Installer(
        job=job_in(room, seed),
        place="p",
        floor=lambda x, y: float(floor.at(np.array([[x, y]]))[0]),
        solve=solve_set,
        rng=np.random.default_rng(seed),
        clock=BEGUN,
        checks=checks,
        follows=checks,
    )
    for unit in ("A", "C", "B"):
        installer.set_unit(unit)
    return stood(list(installer.stood.values()))


def settings(n: int, first_seed: int = 80_000) -> Settings:
    """Install so many runs both ways."""
    seeds = range(first_seed, first_seed + n)
    return Settings(n, tuple(install(s, checks=True) for s in seeds), tuple(install(s, checks=False) for s in seeds))
