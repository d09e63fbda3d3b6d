"""Steps at the bench: what is bought, cut, drilled, finished and put together before anything is carried in."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from wobble.core.confidence import SURE
from wobble.core.job import Unit
from wobble.core.make.coats import CoatStep, area_inside, area_seen
from wobble.core.make.marked import MarkedPart
from wobble.core.make.result import Made
from wobble.core.order.step import WorkStep
from wobble.core.order.steps.usual import GLUE_H, WOOD_FILLER_H, dries, rounded
from wobble.core.order.steps.work import PlaceWork, marks
from wobble.core.part import Wait

BUY_MIN, SHOP_MIN = 60.0, 30.0
CUT_SET_UP_MIN, CUT_PART_MIN, CUT_METRE_MIN = 15.0, 2.5, 1.5
DRILL_SET_UP_MIN, HOLE_MIN, GROOVE_MIN = 10.0, 0.3, 1.5
ASSEMBLE_MIN, ASSEMBLE_PART_MIN = 15.0, 5.0
DRY_MIN, DRY_PART_MIN, NARROW_MM = 5.0, 1.5, 10.0
COAT_MIN, COAT_M2_MIN, SAND_MIN, SAND_M2_MIN = 10.0, 8.0, 5.0, 6.0
"""Usual minutes, for somebody who has done it before: to go and come back, per shop; to set a saw, per part, per metre;
to set a drill, per hole, per groove; per box and part; to fit it dry, where it
is tried in its place if less than that is to spare; per coat and square metre."""
AT_BENCH = ("loose shelf", "door", "drawer side", "drawer end", "drawer bottom", "drawer front", "pull-out board")
"""Parts of a unit that are not in its carcass when that is put together."""
DRAWER_ROLES = ("drawer side", "drawer end", "drawer bottom")
GATED = ("template-", "width-", "place-", "slides-", "hinge-", "dry-fit-", "before-")
"""What parts wait for that somebody has to do or measure; what is scribed where it stands is roughed out before."""
SAW_CAUTION = (
    "Guard and riving knife on; push sticks; eyes, ears and lungs covered. Nobody reaches past a running blade."
)
DUST_CAUTION = "Dust out of the room and out of the lungs; old paint may hold lead: test before sanding."
COAT_CAUTION = "Air the room, no flame; oily rags spread flat outdoors: they can catch fire by themselves."


def gates_of(part: MarkedPart) -> tuple[Wait, ...]:
    """Return what a part waits for that is a step of its own."""
    return tuple(w for w in part.part.waits if w.key.startswith(GATED))


def cut_group(part: MarkedPart) -> str:
    """Return what a part is cut with: all that may be cut now, else what waits for the same gates of the same unit."""
    waits = gates_of(part)
    if not waits:
        return ""
    kinds = sorted({_kind(w.key) for w in waits})
    return f"{'+'.join(kinds)}-{part.part.of[0] if part.part.of else ''}"


def _kind(key: str) -> str:
    return next(g for g in GATED if key.startswith(g)).rstrip("-")


def buying(made: Made) -> Iterator[WorkStep]:
    """Yield the trip for what is bought; nothing where all is at hand."""
    lines = [line for line in made.buying.list if line.packs > line.bought]
    if not lines:
        return
    shops = made.buying.baskets[0].shops if made.buying.baskets else ()
    yield WorkStep(
        key="buy",
        kind="buy",
        name="Buy what is not at hand",
        minutes=rounded(BUY_MIN + SHOP_MIN * max(len(shops) - 1, 0)),
        where="anywhere",
        why="nothing is cut before its stock is here, and fittings say sizes",
        how=tuple(f"{line.packs - line.bought} × {line.what}" for line in lines[:40]),
    )


def cutting(work: PlaceWork) -> Iterator[WorkStep]:
    """Yield what is cut: now in one go, and after each gate what that releases."""
    groups: dict[str, list[MarkedPart]] = {}
    for part in work.parts:
        if part.to_cut and part.state not in ("bought", "kept", "mended"):
            groups.setdefault(cut_group(part), []).append(part)
    for group, parts in groups.items():
        n = sum(p.to_cut for p in parts)
        metres = sum(p.to_cut * (p.part.blank_mm[0] + p.part.blank_mm[1]) for p in parts) / 1000
        minutes = CUT_SET_UP_MIN + CUT_PART_MIN * n + CUT_METRE_MIN * metres
        rough = [p for p in parts if p.part.cuts]
        words = gates_of(parts[0])[0].words if group else ""
        yield WorkStep(
            key=work.key("cut", group or "now"),
            kind="cut",
            name=f"Cut {n} {'part' if n == 1 else 'parts'}" + _after_words(work, parts[0]),
            place=work.place.id,
            of=tuple(dict.fromkeys(u for p in parts for u in p.part.of)),
            parts=tuple(p.key for p in parts),
            minutes=rounded(minutes),
            skill="sawing",
            machines=("table saw", "track saw", "hand-held saw"),
            where="workshop",
            splits=True,
            why="cut at one setting of the saw, widest first" if not group else f"their sizes follow from {words}",
            how=(*_cut_lines(parts), *((_rough_words(rough),) if rough else ())),
            bring=marks(parts),
            caution=SAW_CAUTION,
        )


CUT_TO = {
    "template": "to the template",
    "width": "to the measured width",
    "place": "to the struck level",
    "slides": "once the slides are here",
    "hinge": "once the hinges are here",
    "dry-fit": "to the opening as it stands",
    "before": "to what is on the wall",
}


def _after_words(work: PlaceWork, part: MarkedPart) -> str:
    waits = gates_of(part)
    if not waits:
        return " that are sure now"
    unit = work.unit(part.part.of[0]) if part.part.of else None
    kinds = dict.fromkeys(_kind(w.key) for w in waits)
    return (f" for {unit.name}" if unit else "") + ", " + " and ".join(CUT_TO[k] for k in kinds)


def _cut_lines(parts: Sequence[MarkedPart]) -> tuple[str, ...]:
    return tuple(f"{p.mark}: {p.part.name}" for p in parts[:30])


def _rough_words(parts: Sequence[MarkedPart]) -> str:
    return f"Rough out over size, to be marked in place: {', '.join(p.mark for p in parts)}"


def at_bench(work: PlaceWork) -> Iterator[WorkStep]:
    """Yield drilling, finish inside and assembly of every unit that is built here, and of its drawers."""
    for unit in work.place.units:
        parts = work.parts_of(unit)
        for name, what, some in (
            (unit.id, f"the parts of {unit.name}", [p for p in parts if p.part.role not in DRAWER_ROLES]),
            (f"drawers-{unit.id}", f"the drawers of {unit.name}", [p for p in parts if p.part.role in DRAWER_ROLES]),
        ):
            yield from _drilled(work, unit, name, what, some)
        carcass = [p for p in parts if p.part.role not in AT_BENCH]
        if work.built(unit) or (unit.body is not None and unit.kind in ("platform", "base frame", "rack") and carcass):
            assembled = _assembled(work, unit, carcass)
            if assembled.rests_h:
                yield _dry_fitted(work, unit, carcass)
            yield assembled
        if any(p.part.role in DRAWER_ROLES for p in parts):
            made = [p for p in parts if p.part.role in DRAWER_ROLES]
            yield WorkStep(
                key=work.key("assemble", f"drawers-{unit.id}"),
                kind="assemble",
                name=f"Put the drawer boxes of {unit.name} together",
                place=work.place.id,
                of=(unit.id,),
                parts=tuple(p.key for p in made),
                minutes=rounded(ASSEMBLE_MIN + ASSEMBLE_PART_MIN * sum(p.part.quantity for p in made) / 2),
                skill="fixing",
                where="workshop",
                rests_h=GLUE_H,
                rests_why="glue",
                why="square by their diagonals while the glue is wet",
                bring=marks(made),
            )


def _drilled(work: PlaceWork, unit: Unit, name: str, what: str, parts: Sequence[MarkedPart]) -> Iterator[WorkStep]:
    parts = [p for p in parts if p.part.drillings or p.part.grooves]
    holes = sum(len(d.at) * p.part.quantity for p in parts for d in p.part.drillings)
    grooves = sum(len(p.part.grooves) * p.part.quantity for p in parts)
    if parts:
        yield WorkStep(
            key=work.key("drill", name),
            kind="drill",
            name=f"Drill and groove {what}",
            place=work.place.id,
            of=(unit.id,),
            parts=tuple(p.key for p in parts),
            minutes=rounded(DRILL_SET_UP_MIN + HOLE_MIN * holes + GROOVE_MIN * grooves),
            skill="sawing",
            machines=("drill press", "drill", "router"),
            where="workshop",
            splits=True,
            why="a drill reaches a flat board, and not into a glued box",
            how=tuple(f"{p.mark}: {d.words}" for p in parts for d in p.part.drillings)[:30],
            bring=marks(parts),
        )


def _dry_fitted(work: PlaceWork, unit: Unit, parts: Sequence[MarkedPart]) -> WorkStep:
    """Return the fit without glue: in its place too where it goes in narrowly, and is made where it is fitted."""
    access = work.access_of(unit)
    narrow = [p for p in access.passes if p.chance < SURE or p.spare_mm < NARROW_MM] if access else []
    tried = work.job.sessions.workshop == "at the place"
    n = sum(p.part.quantity for p in parts)
    return WorkStep(
        key=work.key("dry fit", unit.id),
        kind="dry fit",
        name=f"Fit {unit.name} together dry",
        place=work.place.id,
        of=(unit.id,),
        parts=tuple(p.key for p in parts),
        minutes=rounded(DRY_MIN + DRY_PART_MIN * n),
        skill="fixing",
        where="workshop",
        why="glue forgives nothing: what does not close now is planed, or cut again, before it is wet",
        how=(
            "Clamp it up without glue: every joint closes by hand, both diagonals alike",
            "Hold its outer width against the plan, and shelves, drawers and backs in their grooves",
            *(
                f"{p.where}: try it there loose as it is, {work.say(max(p.spare_mm, 0.0))} to spare"
                for p in narrow
                if tried
            ),
            "Mark the joints in pairs, then take it apart",
        ),
        bring=(*marks(parts), "clamps"),
    )


def _assembled(work: PlaceWork, unit: Unit, parts: Sequence[MarkedPart]) -> WorkStep:
    built = next((c for c in work.job.constructions if unit.insides and c.id == unit.insides.built), None)
    glued = built is None or built.joined in ("dowels", "screws")
    n = sum(p.part.quantity for p in parts)
    return WorkStep(
        key=work.key("assemble", unit.id),
        kind="assemble",
        name=f"Put {unit.name} together",
        place=work.place.id,
        of=(unit.id,),
        parts=tuple(p.key for p in parts),
        minutes=rounded(ASSEMBLE_MIN + ASSEMBLE_PART_MIN * n),
        skill="fixing",
        where="workshop",
        rests_h=GLUE_H if glued else 0.0,
        rests_why="glue" if glued else "",
        why="all its parts are here; rails and backs go in while the glue is wet, and it is pulled square by them",
        how=(
            *(f"{p.mark}: {p.part.name}, {p.part.joins}" for p in parts if p.part.joins),
            "Measure both diagonals before the glue sets: alike is square",
        )[:30],
        bring=(*marks(parts), "clamps", "glue"),
    )


def coats_before(work: PlaceWork, made: Made) -> Iterator[WorkStep]:
    """Yield the coats of what is made, in their order; what is fitted where it stands gets its own after."""
    mine = [p for p in work.parts if not p.part.cuts and p.state not in ("bought", "kept", "mended")]
    every = sum(p.part.quantity * (area_seen(p.part) + area_inside(p.part)) for p in made.parts)
    own = sum(p.part.quantity * (area_seen(p.part) + area_inside(p.part)) for p in mine)
    if not own or not every:
        return
    for n, coat in enumerate(made.finish.steps, 1):
        yield coat_step(work, coat, n, own / every, "")


def coat_step(work: PlaceWork, coat: CoatStep, n: int, share: float, late: str) -> WorkStep:
    """Return one step of a finish, for a share of the job's faces."""
    wet = coat.kind is not None or "seal cut edges" in coat.what
    hours = coat.dries_h if coat.kind else WOOD_FILLER_H if n == 1 or wet else 0.0
    m2 = coat.m2 * share
    minutes = COAT_MIN + COAT_M2_MIN * m2 if wet else SAND_MIN + SAND_M2_MIN * m2
    return WorkStep(
        key=work.key("coat", f"{late}{n}"),
        kind="coat",
        name=coat.what[0].upper() + coat.what[1:],
        place=work.place.id,
        minutes=rounded(minutes),
        skill="finishing",
        splits=not wet,
        where="place" if late else "workshop",
        rests_h=dries(hours, work.job.sessions.air) if hours else 0.0,
        rests_why=coat.kind or ("filler" if hours else ""),
        why="each coat on a dry one" if coat.kind else "what is under a coat is seen through it",
        how=(
            f"{m2:.1f} m²" + (f", {coat.litres * share:.2f} l" if coat.litres else ""),
            *(("Tape over what is glued or screwed later",) if n == 1 and not late else ()),
        ),
        caution=COAT_CAUTION if coat.kind else DUST_CAUTION if "sand" in coat.what else "",
    )
