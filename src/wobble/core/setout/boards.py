"""Boards: how far they sag, how many supports they want, and how far solid wood moves with the seasons.

Sources: *Wood Handbook*, Forest Products Laboratory, FPL-GTR-190 (2010): moduli of elasticity, table 5-3a (at 12 %
moisture); coefficients of dimensional change across the grain, table 13-5 (6 to 14 %), tangential, as for
flat-sawn boards. Panels: moduli usual in their standards (EN 312 P2, EN 622-5, plywood along its face grain).
Creep: what a lasting load comes to after years, over what it is at first; 1.5 for solid wood and plywood, 2 for panels
(in line with k_def of EN 1995-1-1, service class 1, for a mixed load).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from wobble.core.contents import GRAVITY
from wobble.core.figure import Figure, Step
from wobble.core.job import Value
from wobble.core.job.board import Board, MaterialName

SAG_SHARE = 1 / 300
"""What the eye takes for straight: a three-hundredth of the span, once it has crept."""
MODULUS_SPREAD = 0.15
"""Relative standard uncertainty of a modulus that was read off a table: boards differ by more than a fifth."""
MOST_SUPPORTS = 20


@dataclass(frozen=True, slots=True)
class Material:
    """A material: modulus along its length, MPa; density, kg/m³; creep factor; movement across per percent, or None."""

    modulus_mpa: float
    density: float
    creep: float
    movement: float | None = None


MATERIALS: dict[MaterialName, Material] = {
    "particleboard": Material(1800.0, 650.0, 2.0),
    "mdf": Material(2500.0, 740.0, 2.0),
    "plywood": Material(7000.0, 600.0, 1.5),
    "pine": Material(8500.0, 390.0, 1.5, 0.00212),
    "douglas fir": Material(13400.0, 510.0, 1.5, 0.00267),
    "red oak": Material(12500.0, 680.0, 1.5, 0.00369),
    "ash": Material(12000.0, 650.0, 1.5, 0.00274),
    "beech": Material(11900.0, 690.0, 1.5, 0.00431),
    "maple": Material(12600.0, 680.0, 1.5, 0.00353),
    "walnut": Material(11600.0, 590.0, 1.5, 0.00274),
    "cherry": Material(10300.0, 540.0, 1.5, 0.00248),
}


class Sag(Value, frozen=True, kw_only=True):
    """How a board bends between its ends or supports.

    Attributes:
        at_first: In the middle of one span when loaded, mm. later: After years, mm.
        limit_mm: A three-hundredth of the span. supports: How many supports between the ends keep it under that.
        spacing_mm: Longest span that does.
    """

    at_first: Figure
    later: Figure
    limit_mm: float
    supports: int
    spacing_mm: float


def stiffness(board: Board, deep_mm: float, thick_mm: float) -> float:
    """Return E·I of a board with its front edge, N·mm².

    Board and edge are one section: I about their common axis (parallel axes). The edge is of the same material and
    flush with the board's top, so that it reaches below it by its height less the board's thickness.
    """
    area, own = deep_mm * thick_mm, deep_mm * thick_mm**3 / 12
    if board.edge is None:
        return MATERIALS[board.material].modulus_mpa * own
    b, h = board.edge.thick_mm, board.edge.high_mm
    edge_area, edge_own = b * h, b * h**3 / 12
    # heights of the middles under the common top face
    middle = (area * thick_mm / 2 + edge_area * h / 2) / (area + edge_area)
    inertia = own + area * (thick_mm / 2 - middle) ** 2 + edge_own + edge_area * (h / 2 - middle) ** 2
    return MATERIALS[board.material].modulus_mpa * inertia


def sag(board: Board, long_mm: float, deep_mm: float, thick_mm: float) -> Sag:
    """Return how a board sags under its load and its own weight: simply supported at the ends and at each support.

    The middle of a span goes down by 5 w l⁴ / (384 E I) for an even load w. A board that runs on over its supports
    bends less; that is left as reserve.
    """
    material = MATERIALS[board.material]
    own_kg_per_m = material.density * deep_mm * thick_mm / 1e6
    load = (board.load_kg_per_m + own_kg_per_m) * GRAVITY / 1000.0  # N per mm
    rigid = stiffness(board, deep_mm, thick_mm)

    def bends(span: float) -> float:
        return 5 * load * span**4 / (384 * rigid)

    longest = (SAG_SHARE * 384 * rigid / (5 * load * material.creep)) ** (1 / 3)
    supports = min(max(math.ceil(long_mm / longest - 1e-9) - 1, 0), MOST_SUPPORTS)
    at_first = bends(long_mm)
    steps = (
        Step(
            label=f"Load {board.load_kg_per_m:g} and own weight {own_kg_per_m:.1f} kg/m, 5wl⁴/384EI", value_mm=at_first
        ),
    )
    crept = Step(label=f"Creep over years, × {material.creep:g}", value_mm=at_first * (material.creep - 1))
    return Sag(
        at_first=Figure(value_mm=at_first, sd_mm=at_first * MODULUS_SPREAD, working=steps),
        later=Figure(
            value_mm=at_first * material.creep,
            sd_mm=at_first * material.creep * MODULUS_SPREAD,
            working=(*steps, crept),
        ),
        limit_mm=long_mm * SAG_SHARE,
        supports=supports,
        spacing_mm=longest,
    )


def movement(board: Board, across_mm: float) -> Figure | None:
    """Return how far a solid board's width moves over a year, mm; None for panels, which hardly do."""
    coefficient = MATERIALS[board.material].movement
    if coefficient is None:
        return None
    moves = across_mm * coefficient * board.moisture_range_percent
    step = Step(label=f"Its width × {coefficient:g} × {board.moisture_range_percent:g} % of moisture", value_mm=moves)
    return Figure(value_mm=moves, sd_mm=moves * MODULUS_SPREAD, working=(step,))


def seams(board: Board | None, long_mm: float) -> tuple[float, ...]:
    """Return where equal pieces meet, so that none is longer than the stock."""
    if board is None or long_mm <= board.stock_mm:
        return ()
    n = math.ceil(long_mm / board.stock_mm)
    return tuple(long_mm * k / n for k in range(1, n))
