"""A rack under a ceiling: eye bolts into joists, chains at an angle, and members that bridge two joists.

Four hangers never share evenly: on a stiff rack two across a diagonal can carry all, so each is planned for half. A
chain that leans by θ pulls with V / cos θ, and its bolt sideways with V · tan θ.
"""

from __future__ import annotations

import math
from typing import Literal

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import GRAVITY
from wobble.core.fit.overhead.hangers import Hanger, hangs_from_ceiling
from wobble.core.hold.capacity.capacity import Screw, beam_use, free_end, together, withdrawal
from wobble.core.hold.loads import weight_kg
from wobble.core.hold.screws import WOODEN
from wobble.core.hold.services import kept_from, too_deep
from wobble.core.hold.structure.lines import Structure
from wobble.core.job import Place, Unit, Value
from wobble.core.job.backing import Backing, Runs

SHARE = 0.5
MOST_LEAN_DEG = 30.0
BOLT_MM, BOLT_ROOT_MM, BOLT_THREAD_MM = 8.0, 5.9, 60.0
EYE_MM = 15.0
"""How far below the lining the eye is pulled at."""
BRIDGE_WIDE_MM, BRIDGE_HIGH_MM, BRIDGE_PAST_MM = 38.0, 89.0, 60.0
BRIDGE_SHANK_MM, BRIDGE_THREAD_MM = 8.0, 60.0
OVERHEAD = (
    "A load over people's heads: a planning figure. Follow the makers of bolts and chain and the local code, try it "
    "with more than it will carry, and never hang on a doubt."
)


class Bridge(Value, frozen=True, kw_only=True):
    """A member screwed across two joists, on edge, for a hanger between them.

    Attributes:
        long_mm: Its length. wide_mm: Its thickness. high_mm: Its height. joists: Where the two are, on the lines' axis.
        use: Share of its bending strength. screws: How many hold its harder loaded end.
    """

    long_mm: float
    wide_mm: float
    high_mm: float
    joists: tuple[float, float]
    use: float
    screws: int


class HangerHeld(Value, frozen=True, kw_only=True):
    """How one hanger is held.

    Attributes:
        corner: Of the rack. at: Where it is fixed on the ceiling, (along, out). how: By what.
        load_n: What it is planned for. lean_deg: How far its chain leans. chain_n: What pulls in the chain.
        chain_mm: Length of the chain; 0 where the ceiling is not measured. bolt_mm: Length of the bolt, under its eye.
        bites: Chance that the bolt meets a joist. use: Share of the bolt's capacity, or the member's.
        bridge: The member, where there is one. enough: Whether it holds. instead: What to do where it does not.
    """

    corner: str
    at: tuple[float, float]
    how: Literal["eye bolt", "bridging member", "nothing yet"]
    load_n: float
    lean_deg: float
    chain_n: float
    chain_mm: float
    bolt_mm: float
    bites: float
    use: float
    bridge: Bridge | None
    enough: bool
    instead: str


class Overhead(Value, frozen=True, kw_only=True):
    """How a rack hangs: which way the joists run and how sure that is, its weight, its hangers, and the caution."""

    unit: str
    runs: Runs
    runs_sure: float
    weight_kg: float
    hangers: tuple[HangerHeld, ...]
    enough: bool
    caution: str


def racks(
    place: Place, backing: Backing, joists: Structure, runs: Runs, runs_sure: float, hangers: tuple[Hanger, ...]
) -> tuple[Overhead, ...]:
    """Return how every rack of a place hangs from the joists over it."""
    out = []
    for unit in place.units:
        mine = [h for h in hangers if h.unit == unit.id]
        if not hangs_from_ceiling(unit) or not mine:
            continue
        held = tuple(_held(place, backing, joists, runs, unit, h) for h in mine)
        out.append(
            Overhead(
                unit=unit.id,
                runs=runs,
                runs_sure=runs_sure,
                weight_kg=weight_kg(unit),
                hangers=held,
                enough=all(h.enough for h in held) and runs_sure >= SURE_TO_BITE,
                caution=OVERHEAD,
            )
        )
    return tuple(out)


def _held(place: Place, backing: Backing, joists: Structure, runs: Runs, unit: Unit, hanger: Hanger) -> HangerHeld:
    load = SHARE * weight_kg(unit) * GRAVITY * (1.0 + backing.driving_g)
    drop = max(hanger.long.value_mm, 1.0)
    across = 0 if runs == "out" else 1
    # nothing hangs over people's heads from a joist that only its spacing says is there
    lines = sorted(line.at_mm for line in joists.lines if line.methods and joists.bites(line.at_mm) >= SURE_TO_BITE)
    if backing.kind not in WOODEN or not lines:
        return _nothing(hanger, load, _why(backing))
    if too_deep(backing.lining_mm + BOLT_THREAD_MM, backing):
        return _nothing(hanger, load, "A bolt would go deeper than is allowed here: find out first what runs above.")
    want = hanger.at[across]
    for line in sorted(lines, key=lambda x: abs(x - want)):
        lean = math.degrees(math.atan2(abs(line - want), drop))
        at = (line, hanger.at[1]) if across == 0 else (hanger.at[0], line)
        if lean > MOST_LEAN_DEG:
            break
        if kept_from(place, at, backing, "ceiling"):
            continue
        bolted = _bolted(backing, joists.bites(line), hanger, load, at, lean)
        if bolted.enough:
            return bolted
    below, above = [x for x in lines if x <= want], [x for x in lines if x > want]
    if below and above:
        return _bridged(backing, joists, hanger, load, (want, below[-1], above[0]))
    return _nothing(hanger, load, "It lies past the last joist that was found: look further, or move the rack.")


def _why(backing: Backing) -> str:
    if backing.kind not in WOODEN:
        return f"A ceiling of {backing.kind} wants anchors that their maker lists for loads over people's heads."
    return "Find the joists first: two methods, at three places along each."


def _nothing(hanger: Hanger, load: float, why: str) -> HangerHeld:
    return HangerHeld(
        corner=hanger.corner,
        at=hanger.at,
        how="nothing yet",
        load_n=load,
        lean_deg=0.0,
        chain_n=load,
        chain_mm=max(hanger.long.value_mm, 0.0),
        bolt_mm=0.0,
        bites=0.0,
        use=0.0,
        bridge=None,
        enough=False,
        instead=why,
    )


def _bolted(
    backing: Backing, bites: float, hanger: Hanger, load: float, at: tuple[float, float], lean_deg: float
) -> HangerHeld:
    lean = math.radians(lean_deg)
    bolt = Screw(shank_mm=BOLT_MM, root_mm=BOLT_ROOT_MM, long_mm=BOLT_THREAD_MM, thread_mm=BOLT_THREAD_MM)
    out = withdrawal(bolt, BOLT_THREAD_MM, backing.wood, lag=True)
    side = free_end(bolt, arm_mm=backing.lining_mm + EYE_MM, main_mm=BOLT_THREAD_MM, main=backing.wood)
    use = together(load, load * math.tan(lean), out, side)
    return HangerHeld(
        corner=hanger.corner,
        at=at,
        how="eye bolt",
        load_n=load,
        lean_deg=lean_deg,
        chain_n=load / math.cos(lean),
        chain_mm=max(hanger.long.value_mm, 0.0) / math.cos(lean),
        bolt_mm=backing.lining_mm + BOLT_THREAD_MM,
        bites=bites,
        use=use,
        bridge=None,
        enough=use <= 1.0,
        instead="" if use <= 1.0 else "More than one bolt of this size holds: a larger one, or more hangers.",
    )


def _bridged(
    backing: Backing, joists: Structure, hanger: Hanger, load: float, places: tuple[float, float, float]
) -> HangerHeld:
    want, *pair = places
    span, at = pair[1] - pair[0], want - pair[0]
    use = beam_use(load, span, at, BRIDGE_WIDE_MM, BRIDGE_HIGH_MM)
    screw = Screw(shank_mm=BRIDGE_SHANK_MM, root_mm=5.6, long_mm=140.0, thread_mm=BRIDGE_THREAD_MM)
    hardest = load * max(at, span - at) / span
    screws = max(2, math.ceil(hardest / withdrawal(screw, BRIDGE_THREAD_MM, backing.wood, lag=True)))
    bridge = Bridge(
        long_mm=span + 2 * BRIDGE_PAST_MM,
        wide_mm=BRIDGE_WIDE_MM,
        high_mm=BRIDGE_HIGH_MM,
        joists=(pair[0], pair[1]),
        use=use,
        screws=screws,
    )
    return HangerHeld(
        corner=hanger.corner,
        at=hanger.at,
        how="bridging member",
        load_n=load,
        lean_deg=0.0,
        chain_n=load,
        chain_mm=max(hanger.long.value_mm - BRIDGE_HIGH_MM, 0.0),
        bolt_mm=BRIDGE_HIGH_MM,
        bites=min(joists.bites(x) for x in pair),
        use=use,
        bridge=bridge,
        enough=use <= 1.0,
        instead="" if use <= 1.0 else "One member of this size bends too far: two side by side, or more hangers.",
    )
