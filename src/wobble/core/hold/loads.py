"""What a unit weighs when full, and how that loads its screws. Weights and loads are planning figures.

A hung unit's weight shears all its screws and, as it stands out of the wall, pulls at the top row: W · (half its
depth) over the height of that row above the unit's foot, where it bears. A standing one's is carried by the floor; its
top row keeps it from tipping under a hand's pull at its top. In a vehicle everything also pulls, and shears, with a
share of its weight that the user sets.
"""

from __future__ import annotations

import math

from wobble.core.contents import GRAVITY, full_kg, person_kg
from wobble.core.fit.overhead.hangers import back_on_wall
from wobble.core.fit.run.tiers import tier_of
from wobble.core.job import LAID, ON_WALLS, HangingWall, Place, Unit
from wobble.core.job.unit import TALL_FROM_MM

BOX_KG_PER_M2 = 12.0
"""What a box weighs that nobody weighed, for each square metre of its six sides and its fronts: 18 mm board."""
BOARD_KG_PER_M3 = 550.0
"""What boards on a wall weigh that nobody weighed."""
HAND_PULL_N = 220.0
"""A hand's pull, or a child on an open drawer, at the top of what stands."""


def weight_kg(unit: Unit) -> float:
    """Return what a unit weighs when full, with whoever is on it."""
    w, d, h = (mm / 1000 for mm in (unit.width_mm, unit.depth_mm, unit.height_mm))
    if unit.kind in (*ON_WALLS, *LAID):
        hangs = sum(t.weight_kg for t in unit.body.hangs) if isinstance(unit.body, HangingWall) else 0.0
        return (unit.weight_kg or BOARD_KG_PER_M3 * w * d * h) + hangs + full_kg(unit)
    doors = w * h if unit.front.opens != "nothing" else 0.0
    own = unit.weight_kg or BOX_KG_PER_M2 * (2 * (w * d + d * h + h * w) + doors)
    return own + full_kg(unit) + person_kg(unit)


def tips(unit: Unit) -> bool:
    """Return whether a unit is of those that tip: tall, or with drawers that are pulled out."""
    return unit.height_mm >= TALL_FROM_MM or unit.front.opens == "drawers"


def rests(place: Place, unit: Unit) -> bool:
    """Return whether something below carries a unit: the floor, or another unit whose top it stands on."""
    return tier_of(place.units, unit) != "hung"


def loads(
    unit: Unit, *, carried: bool | None = None, driving_g: float = 0.0, off_mm: float = 0.0
) -> tuple[float, float]:
    """Return shear on all screws and pull on the top row, N.

    Args:
        unit: What is held.
        carried: Whether something below carries it; as it stands where None.
        driving_g: How hard it is braked or thrown, in weights.
        off_mm: How far its back stands off what the screws hold in: a batten's thickness.
    """
    top = max(unit.fixing_heights_mm, default=unit.height_mm)
    weight = weight_kg(unit) * GRAVITY
    thrown = driving_g * weight
    out = unit.depth_mm / 2 + off_mm
    if back_on_wall(unit):  # half of it hangs in front, and keeps it from turning
        return math.hypot(weight / 2, thrown), thrown * (unit.height_mm / 2) / top
    if isinstance(unit.body, HangingWall):  # what hangs there stands further out than the boards
        out += sum(t.weight_kg * GRAVITY * t.out_mm for t in unit.body.hangs) / weight
    tipped = thrown * (unit.height_mm / 2) / top
    if not (unit.stands if carried is None else carried):
        return math.hypot(weight, thrown), weight * out / top + tipped
    pulled = HAND_PULL_N if tips(unit) else HAND_PULL_N / 2
    return thrown, max(pulled * unit.height_mm / top, tipped)
