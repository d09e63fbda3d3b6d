"""The axes of a place and its surfaces.

Right-handed, mm; x along the back from the nominal left wall, y out of the back into the room, z up from the datum
mark. A spot on a surface is a pair: (x, y) on floor and ceiling, (x, z) on the back, (y, z) on left and right.
"""

from __future__ import annotations

from typing import Literal

SurfaceName = Literal["floor", "ceiling", "back", "left", "right"]
Axis = Literal["x", "y", "z"]
Spot = tuple[float, float]

SURFACE_AXES: dict[SurfaceName, tuple[Axis, Axis, Axis]] = {
    "floor": ("x", "y", "z"),
    "ceiling": ("x", "y", "z"),
    "back": ("x", "z", "y"),
    "left": ("y", "z", "x"),
    "right": ("y", "z", "x"),
}
"""The two axes of a spot on the surface, then the axis along which the surface is measured."""

TOWARDS_INSTALLER: dict[SurfaceName, int] = {"floor": 1, "ceiling": -1, "back": 1, "left": 1, "right": -1}
"""Sign of *proud*: +1 where a larger coordinate stands towards the installer."""
