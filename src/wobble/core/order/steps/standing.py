"""Steps that set things: carried in, levelled, set, cables through, fastened, lined; tops and frames."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from wobble.core.fit.level.plan import Shim
from wobble.core.hold.rests.nailers import Nailer
from wobble.core.job import Unit
from wobble.core.job.unit import FLAT, LAID, ON_WALLS, TALL_FROM_MM, BaseFrame, Hung, OnCleats, ToeKickBox
from wobble.core.length import format_length, format_spread
from wobble.core.make.construction.units import is_box
from wobble.core.order.step import StandIn, WorkStep
from wobble.core.order.steps.usual import ADHESIVE_H, rounded
from wobble.core.order.steps.work import FROM_BELOW, HUNG_ON, PlaceWork, marks, screws_to_bring
from wobble.core.part import Fastener

TWO_LIFT_KG, OVERHEAD_KG, ALONE_KG, LONG_MM = 25.0, 12.0, 60.0, 2000.0
"""What one person lifts, holds overhead, and gets in alone with a truck; what is longer wants two ends held."""
CARRY_MIN, HEAVY_MIN, LEVEL_MIN, SET_MIN, SHIM_MIN, SCREW_MIN, FASTEN_MIN, BOARD_MIN = 10, 10, 40, 20, 4, 2.5, 5, 7
NAILER_MIN = 5
"""To hold a piece between studs and drive its screws slantwise."""
STACK_HAND = ("spirit level", "hammer")
TIP_CAUTION = "It can tip while it is moved and until it is screwed: keep it tied, nobody in front of it."
LOAD_CAUTION = "Loads are planning figures; the fastening is tried with a hand's weight before anything goes on it."
TOED = "Two screws slantwise through each end; leave out what a plate or stud already there does"
DRILL_CAUTION = "Detect, isolate, then drill."
HOIST = StandIn(
    what="a hired lift or a hoist from an eye bolt that its own figure bears raises it; a prop stands under it before "
    "anybody lets go",
    slower=1.8,
)
OVERHEAD_CAUTION = "Nobody stands under it while it hangs by one screw."


def to_stand(work: PlaceWork) -> Iterator[WorkStep]:
    """Yield all that sets the units of a place, in the order in which they go in."""
    if any((u.stands and is_box(u)) or u.kind in ("platform", "base frame") for u in work.place.units):
        yield _level(work)
    for unit in work.units:
        if unit.kind in LAID:
            continue
        yield from _rests(work, unit)
        if unit.kind in ON_WALLS:
            yield _lined(work, unit)
        elif unit.kind == "face frame":
            yield _frame(work, unit)
        elif unit.kind in FLAT:
            yield _top(work, unit)
        else:
            yield _carried(work, unit)
            yield _set(work, unit)
        if any(h.kind == "cable hole" for h in unit.holes) or _behind(work, unit):
            yield _cables(work, unit)
        own = [f for f in work.fasteners_of(unit) if f.part not in HUNG_ON]
        if own and unit.kind not in ON_WALLS:
            yield _fastened(work, unit, own)


def _level(work: PlaceWork) -> WorkStep:
    plan, base = work.plan, [u for u in work.place.units if isinstance(u.standing, BaseFrame | ToeKickBox)]
    how = ["Strike the level line round the place"]
    if plan is not None:
        at = plan.base.high_spot_at
        how.append(f"Highest floor at {work.say(at[0])} along, {work.say(at[1])} out: begin there")
    shims = [s for s in (plan.shims if plan else ()) if any(u.id == s.unit for u in base)]
    how += shim_lines(work, shims)
    return WorkStep(
        key=work.key("level"),
        kind="level",
        name="Level the bases on the floor" if base else "Strike the level line and mark the high spot",
        place=work.place.id,
        of=tuple(u.id for u in base),
        minutes=rounded(LEVEL_MIN + SHIM_MIN * len(shims) if base else LEVEL_MIN / 2),
        skill="measuring",
        why="lowest first: whatever is out here is out in all that stands on it",
        how=tuple(how),
        bring=(*shims_to_bring(work, shims), *STACK_HAND, "line or laser"),
    )


def shim_lines(work: PlaceWork, shims: list[Shim]) -> list[str]:
    """Return shims as lines: where, how much, of which pieces."""
    out = []
    for s in shims:
        units = work.job.units
        gap = f"{format_length(s.gap.value_mm, units)} {format_spread(2 * s.gap.sd_mm, units)}"
        words = s.corner.replace("-", " ")
        match s.filling.kind:
            case "stack":
                pieces = s.filling.stack.pieces_mm if s.filling.stack else ()
                words += f": {gap}" + (f", {' + '.join(format_length(p, units) for p in pieces)}" if pieces else "")
            case "bare":
                words += ": bare"
            case "cut":
                words += f": cut {format_length(s.filling.cut_mm or 0.0, units)} off"
            case "leg":
                words += f": leg cut to {_leg(work, s.support)}" if _leg(work, s.support) else ": leg cut to length"
            case "foot":
                words += f": foot; the floor is {gap} under the line"
            case other:
                words += f": {gap}, {other}"
        out.append(words)
    return out


def _leg(work: PlaceWork, support: str) -> str:
    """Return how long a leg is cut, in words; nothing where it is not known yet."""
    part = next((p for p in work.parts if p.part.id == f"leg-{support}"), None)
    long = next((d.figure for d in part.part.finished if d.label == "long"), None) if part is not None else None
    return format_length(long.value_mm, work.job.units) if long is not None else ""


def shims_to_bring(work: PlaceWork, shims: list[Shim]) -> tuple[str, ...]:
    """Return the shims to bring, counted by their thickness."""
    found: Counter[float] = Counter()
    for s in shims:
        found.update(s.filling.stack.pieces_mm if s.filling.stack is not None else ())
    units = work.job.units
    return tuple(f"{n} × shim {format_length(mm, units)}" for mm, n in sorted(found.items(), reverse=True))


def _rests(work: PlaceWork, unit: Unit) -> Iterator[WorkStep]:
    """Yield the fixing of what a unit rests on or hangs from, before it comes."""
    driven = [f for f in work.hold.fasteners if f.part in HUNG_ON and f.unit == unit.id]
    parts = work.parts_of(unit, "cleat", "ledger", "split batten", "timber", "nailer")
    if not driven and not parts:
        return
    pieces = sum(len(n.rows) for n in work.hold.nailing.nailers if n.unit == unit.id)
    nailed = [_nailer_line(work, n) for n in work.hold.nailing.nailers if n.unit == unit.id]
    heights = [f"{c.wall}: top {work.say(c.top_mm)} over the mark" for c in work.hold.cleats if c.unit == unit.id]
    heights += [
        f"top {work.say(ledger.top_mm)} over the mark" for ledger in work.hold.ledgers if unit.id in ledger.units
    ]
    way = "nailed" if unit.kind in ON_WALLS else "screwed"
    yield WorkStep(
        key=work.key("hang on", unit.id),
        kind="hang on",
        name=f"Put in what {unit.name} is {way} to" if nailed else f"Fix what {unit.name} rests on",
        place=work.place.id,
        of=(unit.id,),
        parts=tuple(p.key for p in parts),
        minutes=rounded(10 + SCREW_MIN * 1.5 * sum(f.part != "nailer" for f in driven) + NAILER_MIN * pieces),
        splits=pieces > 1,
        skill="fixing",
        machines=("drill",),
        why="no hand gets behind the boards afterwards; ends that are nailed to nothing work loose"
        if nailed and unit.kind in ON_WALLS
        else "too few studs stand behind it, and no hand gets there once the lining is on"
        if nailed
        else "it carries the unit while that is screwed, and sets its height",
        how=(
            *nailed,
            *((TOED,) if nailed else ()),
            *heights,
            *screw_lines(work, [f for f in driven if f.part != "nailer"]),
        ),
        bring=(*marks(parts), *screws_to_bring(driven, work), "spirit level"),
        caution=DRILL_CAUTION,
    )


def _nailer_line(work: PlaceWork, nailer: Nailer) -> str:
    """Return where a nailer goes, in words."""
    up = ", ".join(work.say(z) for z in nailer.rows)
    along = f"from {work.say(nailer.low[0])} along"
    long = f"{work.say(nailer.long.value_mm)} long"
    return f"for {nailer.why}: {'upright' if nailer.runs == 'up' else 'across'}, {along}, {up} up, {long}"


def screw_lines(work: PlaceWork, driven: list[Fastener]) -> tuple[str, ...]:
    """Return screws as lines: which, where, and what is packed behind."""
    lines = []
    for f in driven[:30]:
        where = (
            f"{f.surface}, {work.say(f.at[0])} along, {work.say(f.at[1])} up"
            if f.surface
            else f"{' to '.join(f.joins)}"
        )
        packed = f", {work.say(f.packing.value_mm)} packed" if f.packing.value_mm > 0.5 else ""
        lines.append(f"{f.kind} {f.shank_mm:g} × {work.say(f.screw_mm)}: {where}{packed}")
    return tuple(dict.fromkeys(lines))


def heavy(unit: Unit) -> bool:
    """Return whether two people carry a unit."""
    return unit.weight_kg > TWO_LIFT_KG or unit.height_mm >= TALL_FROM_MM or unit.width_mm > LONG_MM


def alone_in(unit: Unit) -> StandIn | None:
    """Return how one person gets a heavy unit in, where that can be done."""
    if unit.weight_kg > ALONE_KG:
        return None
    how = "a sack truck and a blanket, walked corner by corner, doors and shelves out of it"
    return StandIn(what=how, slower=1.6)


def _carried(work: PlaceWork, unit: Unit) -> WorkStep:
    access = work.access_of(unit)
    two = heavy(unit)
    return WorkStep(
        key=work.key("carry", unit.id),
        kind="carry",
        name=f"Carry {unit.name} in",
        place=work.place.id,
        of=(unit.id,),
        minutes=rounded(CARRY_MIN + (HEAVY_MIN if two else 0)),
        people=2 if two else 1,
        stand_in=alone_in(unit) if two else None,
        skill="lifting",
        why=access.why if access else "",
        how=tuple(f"{p.where}: {p.how}" for p in access.passes if p.how) if access else (),
        caution=(access.caution if access else "") or (TIP_CAUTION if unit.height_mm >= TALL_FROM_MM else ""),
    )


def _set(work: PlaceWork, unit: Unit) -> WorkStep:
    own_base = isinstance(unit.standing, BaseFrame | ToeKickBox)
    shims = [s for s in (work.plan.shims if work.plan else ()) if s.unit == unit.id and not own_base]
    hung = isinstance(unit.standing, Hung) or work.is_hung(unit)
    two = (hung and unit.weight_kg > OVERHEAD_KG) or heavy(unit)
    rests = hung and isinstance(unit.standing, Hung) and unit.standing.by != "rail"
    prop = (
        "it rests on its strip while the first screw goes in"
        if rests
        else "a block screwed to a stud under it, or a prop cut to height; first screw, then level on it"
    )
    return WorkStep(
        key=work.key("set", unit.id),
        kind="set",
        name=f"Set {unit.name}" + (" on its strip" if rests else ""),
        place=work.place.id,
        of=(unit.id,),
        minutes=rounded(SET_MIN + SHIM_MIN * len(shims) + (10 if hung else 0)),
        people=2 if two else 1,
        stand_in=_alone(unit, prop if hung else "") if two else None,
        skill="lifting" if two else "fixing",
        why="lowest first, the datum piece first, each to the last",
        how=(
            *shim_lines(work, shims),
            "Level both ways and plumb before anything leans on it; clamp flush to its neighbour",
        ),
        bring=(*shims_to_bring(work, shims), *STACK_HAND, "clamps"),
        caution=OVERHEAD_CAUTION if hung else TIP_CAUTION if unit.height_mm >= TALL_FROM_MM else "",
    )


def _alone(unit: Unit, prop: str) -> StandIn | None:
    """Return what does for the second pair of hands: a prop for what hangs, a hoist past what one lifts to it."""
    if not prop:
        return alone_in(unit)
    return HOIST if unit.weight_kg > TWO_LIFT_KG else StandIn(what=prop)


def _behind(work: PlaceWork, unit: Unit) -> bool:
    """Return whether something that is wanted later lies in the wall behind a unit."""
    return any(
        o.surface == "back"
        and o.treatment == "access hole"
        and o.at[0] < unit.right_mm
        and o.at[0] + o.size[0] > unit.x_mm
        and o.at[1] - work.base_mm < unit.over_base_mm + unit.height_mm
        and o.at[1] + o.size[1] - work.base_mm > unit.over_base_mm
        for o in work.obstacles
    )


def _cables(work: PlaceWork, unit: Unit) -> WorkStep:
    plugs = [h for h in unit.holes if h.kind == "cable hole"]
    return WorkStep(
        key=work.key("cables", unit.id),
        kind="cables",
        name=f"Cables and plugs through {unit.name}",
        place=work.place.id,
        of=(unit.id,),
        minutes=rounded(10 + 5 * len(plugs)),
        why="a hand still reaches in; what closes it comes after",
        how=tuple(f"{h.name}: {work.say(h.size[0])} by {work.say(h.size[1])} in the {h.inside}" for h in plugs),
        caution="Cables are drawn, not wired: what is wired is for a licensed trade.",
    )


def _fastened(work: PlaceWork, unit: Unit, own: list[Fastener]) -> WorkStep:
    return WorkStep(
        key=work.key("fasten", unit.id),
        kind="fasten",
        name=f"Screw {unit.name} fast" + (" from below" if own[0].part == FROM_BELOW else ""),
        place=work.place.id,
        of=(unit.id,),
        minutes=rounded(FASTEN_MIN + SCREW_MIN * len(own)),
        skill="fixing",
        machines=("drill",),
        why="checked level and flush before, as a screw pulls it out again",
        how=screw_lines(work, own),
        bring=(*screws_to_bring(own, work), "clamps", "packing"),
        caution=DRILL_CAUTION + (" " + TIP_CAUTION if unit.height_mm >= TALL_FROM_MM else ""),
    )


def _top(work: PlaceWork, unit: Unit) -> WorkStep:
    scribes = [s for s in work.scribes if s.id.startswith(f"flat-{unit.id}") or unit.name in s.piece]
    long = unit.width_mm > LONG_MM or unit.weight_kg > TWO_LIFT_KG
    on_cleats = isinstance(unit.standing, OnCleats)
    return WorkStep(
        key=work.key("top", unit.id),
        kind="top",
        name=f"Fit {unit.name}" + (" onto its cleats" if on_cleats else ""),
        place=work.place.id,
        of=(unit.id,),
        parts=tuple(p.key for p in work.parts_of(unit)),
        minutes=rounded(30 + 20 * len(unit.meets)),
        people=2 if long else 1,
        stand_in=StandIn(what="a trestle or a prop at one end, cut to its height") if long else None,
        skill="fixing",
        why="dry first: sand where it touches, then lay it",
        how=(
            *(f"{s.edge} to the {s.surface}: compass at {work.say(s.compass_mm)}" for s in scribes),
            *_under_it(work, unit),
        ),
        bring=(*marks(work.parts_of(unit)), "compass", "block plane"),
        caution=LOAD_CAUTION if on_cleats else "",
    )


def _under_it(work: PlaceWork, unit: Unit) -> tuple[str, ...]:
    """Return what is tried while a top lies loose: handles that its edge would lock in."""
    behind = [u.name for u in work.carried_by(unit) if u.front.opens != "nothing" or u.insides is not None]
    if not behind or all(unit.out_mm + unit.depth_mm < u.out_mm + u.depth_mm for u in work.carried_by(unit)):
        return ()
    return (
        f"While it lies loose: try every door and drawer of {', '.join(behind)} with its handle on, under its edge",
    )


def _frame(work: PlaceWork, unit: Unit) -> WorkStep:
    return WorkStep(
        key=work.key("frame", unit.id),
        kind="frame",
        name=f"Fix {unit.name}",
        place=work.place.id,
        of=(unit.id,),
        parts=tuple(p.key for p in work.parts_of(unit)),
        minutes=rounded(45),
        people=2 if unit.width_mm > LONG_MM else 1,
        stand_in=StandIn(what="clamps and a block under its lower rail") if unit.width_mm > LONG_MM else None,
        skill="fixing",
        why="it hides the boxes' edges, and is set when those no longer move",
        bring=marks(work.parts_of(unit)),
    )


def _lined(work: PlaceWork, unit: Unit) -> WorkStep:
    parts = work.parts_of(unit)
    n = sum(p.part.quantity for p in parts if p.part.role != "peg")
    return WorkStep(
        key=work.key("line", unit.id),
        kind="line",
        name=f"Put up {unit.name}",
        place=work.place.id,
        of=(unit.id,),
        parts=tuple(p.key for p in parts),
        minutes=rounded(15 + BOARD_MIN * max(n, 1)),
        skill="fixing",
        splits=True,
        rests_h=ADHESIVE_H if unit.kind in ("trim", "moulding") else 0.0,
        rests_why="adhesive" if unit.kind in ("trim", "moulding") else "",
        why="the first board level or plumb, the others from it; the last is measured at both ends and ripped",
        bring=(*marks(parts), *screws_to_bring(work.fasteners_of(unit), work)),
        caution=DRILL_CAUTION,
    )
