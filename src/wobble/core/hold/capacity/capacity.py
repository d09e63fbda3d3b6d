"""What one screw carries: sideways by the dowel equations with a gap, and against being pulled out.

Sources: AWC Technical Report 12, *General Dowel Equations for Calculating Lateral Connection Values*, table 1-1 (single
shear, with a gap g between the members); NDS 2018: dowel bearing 12.3.3, reduction terms table 12.3.1B, bending yield
strengths appendix I, withdrawal 12.2-1 (lag screws) and 12.2-2 (wood screws), pull-through of heads 12.2-6, lateral and
withdrawal together 12.4-1;
dowel bearing of concrete and of steel sheet in tables 12E and 12N. Screws in steel sheet: AISI S100-16, J4.3.1 (tilting
and bearing) and J4.4.1 (pull-out), safety factor 3. Bending of wood: NDS Supplement table 4A.
Inside, inches and pounds as in the sources; outside, millimetres and newtons.

All are planning figures for dry wood at room temperature: the fixing's maker and the local code go first.
"""

from __future__ import annotations

import math
from typing import Literal

from wobble.core.errors import WobbleError
from wobble.core.job import Value
from wobble.core.job.backing import Species

MM_PER_INCH = 25.4
NEWTON_PER_POUND = 4.4482216
PERMANENT = 0.9
"""Load duration factor for what hangs there for good (NDS table 2.3.2)."""
SMALL_IN = 0.25
LEAST_PENETRATION_D = 6.0

SPECIFIC_GRAVITY: dict[Species, float] = {
    "spruce-pine-fir": 0.42,
    "hem-fir": 0.43,
    "douglas fir": 0.50,
    "southern pine": 0.55,
    "oak": 0.67,
    "plywood": 0.42,
}
"""NDS 2018 table 12.3.3A; plywood of unknown species as table 12.3.3B."""
OtherMain = Literal["steel", "masonry"]
OTHER_BEARING_PSI: dict[OtherMain, float] = {"steel": 61_850.0, "masonry": 7_500.0}
"""NDS 2018 tables 12N (sheet of 33 ksi) and 12E (concrete of 2500 psi)."""
SHEET_MPA = 310.0
"""Tensile strength of the sheet of a light metal stud (45 ksi)."""
SHEET_SAFETY = 3.0
WITHDRAWAL_SAFETY = 5.0
"""What the withdrawal values of the NDS are below the average that pulled out; yielding holds its R_d, 2.2 and more."""
BENDING_MPA = 6.0
"""Spruce-pine-fir No. 2, bending, 875 psi; the weakest of the usual framing, for all of them."""
Mode = Literal["Im", "Is", "II", "IIIm", "IIIs", "IV"]


class CapacityError(WobbleError):
    """A connection that the equations do not cover."""

    code = "capacity"


class Screw(Value, frozen=True, kw_only=True):
    """A wood screw: shank and root diameter, and whole and threaded length, mm; and its bending yield strength, MPa.

    Without a strength the one usual for its diameter is taken (NDS appendix I).
    """

    shank_mm: float = 5.0
    root_mm: float = 3.3
    long_mm: float = 80.0
    thread_mm: float = 50.0
    yield_mpa: float | None = None


class Lateral(Value, frozen=True, kw_only=True):
    """What a screw carries sideways: newtons by mode of yielding, before and after reduction, and the least."""

    yields_n: dict[Mode, float]
    design_n: dict[Mode, float]
    mode: Mode
    capacity_n: float


def bearing_psi(gravity: float, diameter_in: float) -> float:
    """Return the dowel bearing strength of wood, psi: 16600 G^1.84 under a quarter inch; above it along the grain."""
    if diameter_in < SMALL_IN:
        return float(16_600.0 * gravity**1.84)
    return 11_200.0 * gravity


def usual_yield_psi(diameter_in: float) -> float:
    """Return the bending yield strength usual for a screw of a diameter, psi (NDS appendix I)."""
    for most, psi in ((0.142, 100_000.0), (0.177, 90_000.0), (0.236, 80_000.0), (0.273, 70_000.0)):
        if diameter_in <= most:
            return psi
    return 45_000.0


def yields(
    q_side: float, q_main: float, side: float, main: float, gap: float, moment_side: float, moment_main: float
) -> dict[Mode, float]:
    """Return the yield load of every mode (TR12 table 1-1), in the units of q · length.

    Args:
        q_side: Bearing resistance of the side member for each length.
        q_main: Of the main member.
        side: Bearing length in the side member.
        main: In the main member.
        gap: Between the two.
        moment_side: Yield moment of the dowel in the side member.
        moment_main: In the main member.
    """

    def solve(a: float, b: float, c: float) -> float:
        return (-b + math.sqrt(b * b - 4 * a * c)) / (2 * a)

    crush = (q_side * side**2 / 4 if side else 0.0), q_main * main**2 / 4
    return {
        "Im": q_main * main,
        "Is": q_side * side if side else math.inf,
        "II": solve(1 / (4 * q_side) + 1 / (4 * q_main), side / 2 + gap + main / 2, -crush[0] - crush[1]),
        "IIIm": solve(1 / (2 * q_side) + 1 / (4 * q_main), gap + main / 2, -moment_side - crush[1]),
        "IIIs": solve(1 / (4 * q_side) + 1 / (2 * q_main), side / 2 + gap, -crush[0] - moment_main),
        "IV": solve(1 / (2 * q_side) + 1 / (2 * q_main), gap, -moment_side - moment_main),
    }


def reduction(diameter_in: float, mode: Mode) -> float:
    """Return the reduction term R_d of a mode, load along the grain (NDS table 12.3.1B)."""
    if diameter_in <= 0.17:
        return 2.2
    if diameter_in < SMALL_IN:
        return 10 * diameter_in + 0.5
    return {"Im": 4.0, "Is": 4.0, "II": 3.6, "IIIm": 3.2, "IIIs": 3.2, "IV": 3.2}[mode]


def lateral(
    screw: Screw, *, side_mm: float, gap_mm: float, main_mm: float, side: Species, main: Species | OtherMain
) -> Lateral:
    """Return what a screw carries sideways through a rail, across packing and lining, into what holds.

    Args:
        screw: The screw; its root diameter resists, as the thread crosses the gap.
        side_mm: Thickness of the rail.
        gap_mm: Packing and lining together, which bear nothing.
        main_mm: How deep it reaches into the stud or wall; for steel the thickness of its sheet.
        side: Wood of the rail.
        main: Wood of the stud, or what else holds.

    Raises:
        CapacityError: It reaches less than six diameters deep into wood or masonry: no value may be stated.
    """
    d = screw.root_mm / MM_PER_INCH
    if main != "steel" and main_mm < LEAST_PENETRATION_D * screw.root_mm:
        raise CapacityError(
            f"The screw reaches {main_mm:.0f} mm into the stud; under {LEAST_PENETRATION_D:.0f} diameters it holds "
            "nothing that may be counted on.",
            mend="Take a longer screw.",
        )
    strength = usual_yield_psi(d) if screw.yield_mpa is None else screw.yield_mpa * 145.0377
    moment = strength * d**3 / 6
    found = yields(
        bearing_psi(SPECIFIC_GRAVITY[side], d) * d,
        _bearing_of(main, d) * d,
        side_mm / MM_PER_INCH,
        main_mm / MM_PER_INCH,
        gap_mm / MM_PER_INCH,
        moment,
        moment,
    )
    design = {mode: load / reduction(d, mode) * PERMANENT * NEWTON_PER_POUND for mode, load in found.items()}
    least = min(design, key=lambda mode: design[mode])
    return Lateral(
        yields_n={mode: load * NEWTON_PER_POUND for mode, load in found.items()},
        design_n=design,
        mode=least,
        capacity_n=design[least],
    )


def _bearing_of(main: Species | OtherMain, diameter_in: float) -> float:
    if main == "steel" or main == "masonry":
        return OTHER_BEARING_PSI[main]
    return bearing_psi(SPECIFIC_GRAVITY[main], diameter_in)


def free_end(screw: Screw, *, arm_mm: float, main_mm: float, main: Species) -> float:
    """Return what a bolt carries sideways at its free end, `arm_mm` out of the wood, N: an eye bolt pulled askew.

    The dowel equations with nothing at the side that could hold its head: it turns as a whole, or bends in the wood.
    """
    d, arm, deep = screw.root_mm / MM_PER_INCH, arm_mm / MM_PER_INCH, main_mm / MM_PER_INCH
    q = bearing_psi(SPECIFIC_GRAVITY[main], d) * d
    moment = usual_yield_psi(d) * d**3 / 6
    turned = yields(math.inf, q, 0.0, deep, arm, 0.0, moment)["IIIm"]
    bent = (-arm + math.sqrt(arm * arm + 2 * moment / q)) * q
    least = min(turned / reduction(d, "IIIm"), bent / reduction(d, "IV"))
    return least * PERMANENT * NEWTON_PER_POUND


def sheet_shear(screw: Screw, sheet_mm: float) -> float:
    """Return what a screw in steel sheet carries sideways before it tilts or tears the sheet, N.

    The least of 4.2 √(t³ d) F_u and 2.7 t d F_u, over 3; what it joins to the sheet is not looked at here.
    """
    d, t = screw.shank_mm, sheet_mm
    return min(4.2 * math.sqrt(t**3 * d), 2.7 * t * d) * SHEET_MPA / SHEET_SAFETY


def sheet_pull(screw: Screw, sheet_mm: float) -> float:
    """Return what pulls a screw out of steel sheet, N: 0.85 t d F_u over 3."""
    return 0.85 * sheet_mm * screw.shank_mm * SHEET_MPA / SHEET_SAFETY


def beam_use(load_n: float, span_mm: float, at_mm: float, wide_mm: float, high_mm: float) -> float:
    """Return how much of a wooden member's bending strength one load uses: M = P a (L − a) / L over b h² / 6."""
    moment = load_n * at_mm * (span_mm - at_mm) / span_mm
    return moment / (wide_mm * high_mm**2 / 6) / (BENDING_MPA * PERMANENT)


def withdrawal(screw: Screw, main_mm: float, main: Species, *, lag: bool = False) -> float:
    """Return what pulls a screw out of side grain, N: 2850 G² D for each inch of thread in the wood; for a lag
    screw 1800 G^1.5 D^0.75.
    """  # noqa: D205 - one sentence
    gravity, d = SPECIFIC_GRAVITY[main], screw.shank_mm / MM_PER_INCH
    per_inch = 1800.0 * gravity**1.5 * d**0.75 if lag else 2850.0 * gravity**2 * d
    return per_inch * min(screw.thread_mm, main_mm) / MM_PER_INCH * PERMANENT * NEWTON_PER_POUND


def head_pull(head_mm: float, thick_mm: float, side: Species) -> float:
    """Return what pulls a round head or its washer through what it holds, N; NDS 2018, 12.2-6a and b."""
    gravity = SPECIFIC_GRAVITY[side]
    head, thick = head_mm / MM_PER_INCH, thick_mm / MM_PER_INCH
    pounds = 690.0 * math.pi * head * gravity**2 * min(thick, 2.5 * head)
    return pounds * PERMANENT * NEWTON_PER_POUND


def together(pull_n: float, shear_n: float, withdrawal_n: float, lateral_n: float) -> float:
    """Return how much of a screw's capacity shear and pull use together: 1 is all of it (NDS equation 12.4-1).

    With α from the wood's surface, Z'α = W' Z' / (W' cos² α + Z' sin² α).
    """
    load = math.hypot(pull_n, shear_n)
    if load == 0:
        return 0.0
    cos2, sin2 = (shear_n / load) ** 2, (pull_n / load) ** 2
    return load / (withdrawal_n * lateral_n / (withdrawal_n * cos2 + lateral_n * sin2))
