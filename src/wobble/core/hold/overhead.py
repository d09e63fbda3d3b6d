"""A rack under a ceiling: eye bolts into joists, chains at an angle, and members that bridge two joists.

Four hangers never share evenly: on a stiff rack two across a diagonal can carry all, so each is planned for half. A
chain that leans by θ pulls with V / cos θ, and its bolt sideways with V · tan θ.
"""

from __future__ import annotations

import math
from typing import Literal

from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import GRAVITY
from wobble.core.figure import Figure, Step
from wobble.core.fit.overhead.hangers import Hanger, hangs_from_ceiling
from wobble.core.hold.capacity.capacity import Screw, beam_use, free_end, together, withdrawal
from wobble.core.hold.into import Context
from wobble.core.hold.loads import weight_kg
from wobble.core.hold.screws import NO_PACKING, POINT_MM, REFUSED, WOODEN, Candidate, Through, penetration, screwed
from wobble.core.hold.services import kept_from, too_deep
from wobble.core.hold.structure.joists import Joists
from wobble.core.job import Unit, Value
from wobble.core.job.backing import Backing, Runs
from wobble.core.part import Fastener

SHARE = 0.5
MOST_LEAN_DEG = 30.0
BOLT_MM, BOLT_ROOT_MM, BOLT_THREAD_MM = 8.0, 5.9, 60.0
BOLTS_APART_MM = 64.0
"""Eight diameters: nearer to each other two bolts split the joist, or are one."""
EYE_MM = 15.0
"""How far below the lining the eye is pulled at."""
BRIDGE_WIDE_MM, BRIDGE_HIGH_MM, BRIDGE_PAST_MM = 38.0, 89.0, 60.0
BRIDGE_APART_MM = 25.0
BRIDGE = Through("member", BRIDGE_HIGH_MM, "spruce-pine-fir", 8.0, 5.6, 60.0, 5.0)
OVERHEAD = (
    "A load over people's heads: a planning figure. Follow the makers of bolts and chain and the local code, try it "
    "with more than it will carry, and never hang on a doubt."
)


class Bridge(Value, frozen=True, kw_only=True):
    """A member screwed across two joists, on edge, for a hanger between them.

    Attributes:
        long_mm: Its length. wide_mm: Its thickness. high_mm: Its height. joists: Where the two are, on the lines' axis.
        use: Share of its bending strength. screws: How many hold its harder loaded end.
        screw_mm: Their length as sold; 0 where none can be driven. shank_mm: Their thickness.
    """

    long_mm: float
    wide_mm: float
    high_mm: float
    joists: tuple[float, float]
    use: float
    screws: int
    screw_mm: float
    shank_mm: float


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


def racks(context: Context, joists: Joists, hangers: tuple[Hanger, ...]) -> list[tuple[Overhead, tuple[Fastener, ...]]]:
    """Return how every rack of a place hangs from the joists over it, with its bolts and screws."""
    out = []
    for unit in context.place.units:
        mine = [h for h in hangers if h.unit == unit.id]
        if not hangs_from_ceiling(unit) or not mine:
            continue
        held: list[_Hung] = []
        for hanger in mine:
            one = _held(context, joists, unit, hanger)
            bolts = [f.at for _, driven in held for f in driven if f.kind == "eye bolt"]
            if any(f.kind == "eye bolt" and math.dist(f.at, at) < BOLTS_APART_MM for f in one[1] for at in bolts):
                why = "Two bolts would stand in one spot: a wider rack, or its hangers nearer to its corners."
                one = _nothing(hanger, one[0].load_n, why), ()
            held.append(one)
        over = Overhead(
            unit=unit.id,
            runs=joists.runs,
            runs_sure=joists.sure,
            weight_kg=weight_kg(unit),
            hangers=tuple(h for h, _ in held),
            enough=all(h.enough for h, _ in held) and joists.sure >= SURE_TO_BITE,
            caution=OVERHEAD,
        )
        out.append((over, tuple(f for _, driven in held for f in driven)))
    return out


_Hung = tuple[HangerHeld, tuple[Fastener, ...]]


def _held(context: Context, joists: Joists, unit: Unit, hanger: Hanger) -> _Hung:
    backing = context.into["ceiling"].backing
    load = SHARE * weight_kg(unit) * GRAVITY * (1.0 + context.driving_g)
    drop = max(hanger.long.value_mm, 1.0)
    across = joists.axis
    known = joists.lines
    # nothing hangs over people's heads from a joist that only its spacing says is there
    lines = sorted(line.at_mm for line in known.lines if line.found_by and known.bites(line.at_mm) >= SURE_TO_BITE)
    if backing.kind not in WOODEN or not lines:
        return _nothing(hanger, load, _why(backing)), ()
    if too_deep(backing.lining_mm + BOLT_THREAD_MM, backing):
        why = "A bolt would go deeper than is allowed here: find out first what runs above."
        return _nothing(hanger, load, why), ()
    if backing.deep_mm < BOLT_THREAD_MM + POINT_MM:
        why = "The joists are shallower than a bolt's thread is long: bolt right through, with plates above."
        return _nothing(hanger, load, why), ()
    want = hanger.at[across]
    for line in sorted(lines, key=lambda x: abs(x - want)):
        lean = math.degrees(math.atan2(abs(line - want), drop))
        at = (line, hanger.at[1]) if across == 0 else (hanger.at[0], line)
        if lean > MOST_LEAN_DEG:
            break
        if kept_from(context.place, at, backing, "ceiling"):
            continue
        bolted = _bolted(backing, known.bites(line), hanger, load, at, lean)
        if bolted.enough:
            return bolted, (_bolt(unit, backing, bolted),)
    below, above = [x for x in lines if x <= want], [x for x in lines if x > want]
    if below and above:
        return _bridged(context, joists, unit, hanger, load, (want, below[-1], above[0]))
    return _nothing(hanger, load, "It lies past the last joist that was found: look further, or move the rack."), ()


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


def _bolt(unit: Unit, backing: Backing, bolted: HangerHeld) -> Fastener:
    steps = (
        Step(label="Lining", value_mm=backing.lining_mm),
        Step(label="Thread into the joist", value_mm=BOLT_THREAD_MM),
    )
    return Fastener(
        id=f"{unit.id}.hanger.ceiling.{bolted.at[0]:.0f}.{bolted.at[1]:.0f}",
        kind="eye bolt",
        unit=unit.id,
        part="hanger",
        joins=(unit.id, "ceiling"),
        surface="ceiling",
        at=bolted.at,
        bites=bolted.bites,
        packing=NO_PACKING,
        shank_mm=BOLT_MM,
        screw_mm=bolted.bolt_mm,
        long=Figure(value_mm=bolted.bolt_mm, sd_mm=0.0, working=steps),
        reach_mm=penetration(bolted.bolt_mm, through_mm=0.0, packed_mm=0.0, lining_mm=backing.lining_mm),
        through_mm=0.0,
        pilot_mm=BOLT_ROOT_MM,
        clearance_mm=0.0,
        check="Find it by a second method first.",
    )


def _bridged(
    context: Context, joists: Joists, unit: Unit, hanger: Hanger, load: float, spots: tuple[float, float, float]
) -> _Hung:
    """Return a member on edge across two joists, screwed up through its height into each."""
    want, *pair = spots
    span, at = pair[1] - pair[0], want - pair[0]
    backing = context.into["ceiling"].backing
    use = beam_use(load, span, at, BRIDGE_WIDE_MM, BRIDGE_HIGH_MM)
    hardest = load * max(at, span - at) / span
    ends = [(x, hanger.at[1]) if joists.axis == 0 else (hanger.at[0], x) for x in pair]
    made = [screwed(context, unit.id, end, NO_PACKING, BRIDGE, surface="ceiling") for end in ends]
    found = [m for m in made if isinstance(m, Candidate)]
    kept = [w for end in ends if (w := kept_from(context.place, end, backing, "ceiling"))]
    screws = max(2, math.ceil(hardest / min((c.withdrawal_n for c in found), default=math.inf)))
    bridge = Bridge(
        long_mm=span + 2 * BRIDGE_PAST_MM,
        wide_mm=BRIDGE_WIDE_MM,
        high_mm=BRIDGE_HIGH_MM,
        joists=(pair[0], pair[1]),
        use=use,
        screws=screws,
        screw_mm=max((c.fastener.screw_mm for c in found), default=0.0),
        shank_mm=max((c.fastener.shank_mm for c in found), default=0.0),
    )
    instead = ""
    if kept:
        instead = f"An end of it would be screwed at what is kept clear of: {kept[0]}."
    elif len(found) < 2:
        refused = next(m for m in made if not isinstance(m, Candidate))
        instead = f"It cannot be screwed up: {REFUSED[refused]}."
    elif use > 1.0:
        instead = "One member of this size bends too far: two side by side, or more hangers."
    held = HangerHeld(
        corner=hanger.corner,
        at=hanger.at,
        how="bridging member",
        load_n=load,
        lean_deg=0.0,
        chain_n=load,
        chain_mm=max(hanger.long.value_mm - BRIDGE_HIGH_MM, 0.0),
        bolt_mm=BRIDGE_HIGH_MM,
        bites=min(joists.lines.bites(x) for x in pair),
        use=use,
        bridge=bridge,
        enough=not instead,
        instead=instead,
    )
    if kept:
        return held, ()
    driven = tuple(
        replace(
            c.fastener, id=f"{c.fastener.id}.{hanger.corner.replace(' ', '-')}.{k + 1}", at=_apart(joists, c, k, screws)
        )
        for c in found
        for k in range(screws)
    )
    return held, driven


def _apart(joists: Joists, end: Candidate, k: int, n: int) -> tuple[float, float]:
    """Return where one of several screws stands at an end of a member: side by side along the joist."""
    off = (k - (n - 1) / 2) * min(BRIDGE_APART_MM, BRIDGE_WIDE_MM / n)
    x, y = end.fastener.at
    return (x, y + off) if joists.axis == 0 else (x + off, y)
