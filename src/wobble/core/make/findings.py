"""What to tell of making: what stops a cut, what is assumed, what was cut and does no more, what waits."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from wobble.core.facts import CutDone
from wobble.core.finding import Finding, in_order
from wobble.core.job import Job, SheetStock
from wobble.core.length import spoken
from wobble.core.make.construction.units import is_box
from wobble.core.make.layout.handling import Limits, broken_down, limits_of
from wobble.core.make.layout.laid import LaidSheet, Layout
from wobble.core.make.layout.layouts import JOINED, SEAMED
from wobble.core.make.marked import MarkedPart
from wobble.core.make.settings import SAW_CAUTION, Setting
from wobble.core.make.stock import NOMINAL_MM, SAME_THICK_MM, comes_in, material_of
from wobble.core.part import Part

TWO_LIFT = 2.0
"""Two people lift twice what one lifts."""


@dataclass(frozen=True)
class Bench:
    """All that Make's findings look at."""

    job: Job
    parts: tuple[MarkedPart, ...]
    layout: Layout
    settings: tuple[Setting, ...]
    cuts: tuple[tuple[str, CutDone], ...]
    no_room: tuple[Part, ...] = ()

    def say(self, mm: float) -> str:
        """Return a length as the user reads it."""
        return spoken(mm, self.job.units)


def told(bench: Bench) -> tuple[Finding, ...]:
    """Return all that is told of making, stops first."""
    return in_order(finding for rule in RULES for finding in rule(bench))


def _nothing(bench: Bench) -> Iterator[Finding]:
    if not bench.parts and not bench.no_room:
        yield Finding(
            code="nothing-made",
            severity="mind",
            title="Nothing is made yet",
            text="No unit of this job is made by you, and nothing is cut to fit. In Set out, say of a box that it is "
            "made, or add a shelf, a top or a frame; its parts then come here by themselves.",
        )


def _no_room(bench: Bench) -> Iterator[Finding]:
    for part in bench.no_room:
        least = min(part.finished, key=lambda d: d.figure.value_mm)
        yield Finding(
            code="no-room",
            severity="stop",
            title=f"No room for the {part.name}",
            text=f"What its unit leaves for it is {bench.say(least.figure.value_mm)} {least.label}: its boards take "
            "more than there is. Make the unit larger in Set out, or build it of thinner boards.",
            figure=least.figure,
            about=(*part.of, part.id),
        )


def _missing(bench: Bench) -> Iterator[Finding]:
    for lack in bench.layout.missing:
        part = next(p.part for p in bench.parts if p.key == lack.key)
        long, wide = (bench.say(mm) for mm in part.blank_mm)
        a, b = lack.largest_mm
        largest = f"{bench.say(a)} by {bench.say(b)}" if b else bench.say(a)
        text = (
            f"{long} by {wide} is larger than any stock gives once its edges are trimmed; the largest is {largest}. "
            "Add larger stock, or split it in Set out where a seam may be."
            if lack.too_large
            else "The stock is used up. Add more to the stock list, or a price for what can be bought."
        )
        yield Finding(
            code="stock-missing",
            severity="stop",
            title=f"No stock for {lack.quantity} × {lack.mark}, {part.name}",
            text=text,
            about=(lack.key,),
        )


def _assumed(bench: Bench) -> Iterator[Finding]:
    groups = [g for g in bench.layout.groups if g.assumed]
    if groups:
        what = ", ".join(sorted({f"{g.material} {bench.say(g.thick_mm)}" for g in groups}))
        yield Finding(
            code="assumed-stock",
            severity="mind",
            title="Stock of usual trade sizes is assumed",
            text=f"Your stock list has nothing of {what}. Put in what your shop sells, its size and its thickness as "
            "you measure it: sums and layouts follow.",
            about=tuple(sorted({g.material for g in groups})),
        )


def _other_thickness(bench: Bench) -> Iterator[Finding]:
    told: set[tuple[str, float]] = set()
    for sheet in (s for s in bench.job.workshop.stock if isinstance(s, SheetStock)):
        if sheet.measured_mm is None or abs(sheet.measured_mm - sheet.thick_mm) < SAME_THICK_MM:
            continue
        reckoned = [
            p
            for p in bench.parts
            if p.to_cut
            and comes_in(p.part) == "sheet"
            and material_of(p.part).casefold() == sheet.material.casefold()
            and abs(p.part.thick_mm - sheet.thick_mm) < SAME_THICK_MM
            and sheet.true_mm > p.part.thick_mm - NOMINAL_MM
        ]
        if reckoned and (sheet.material, sheet.true_mm) not in told:
            told.add((sheet.material, sheet.true_mm))
            yield Finding(
                code="other-thickness",
                severity="mind",
                title=f"{sheet.name} measures {bench.say(sheet.true_mm)}",
                text=f"{len(reckoned)} parts are reckoned {bench.say(sheet.thick_mm)} thick. Name this sheet in the "
                "way of building, and every size that its thickness enters is worked out anew.",
                about=(sheet.id,),
            )


def _cut_already(bench: Bench) -> Iterator[Finding]:
    known = {p.key for p in bench.parts}
    for one in bench.parts:
        for check in one.checked:
            if check.then == "usable":
                continue
            again = check.then == "cut again"
            yield Finding(
                code="cut-again" if again else "trim-cut",
                severity="stop" if again else "mind",
                title=f"{one.mark}, {one.part.name}: {check.then}",
                text=f"{check.count} cut: {check.words}.",
                about=(one.key,),
            )
    for place, cut in bench.cuts:
        if f"{place}/{cut.part}" not in known:
            yield Finding(
                code="unknown-cut",
                severity="mind",
                title="Something was cut that is no part any more",
                text=f"“{cut.part}” was cut and is not in the list now: what it was for has changed. It is an offcut.",
                about=(cut.id,),
            )


def _angled(bench: Bench) -> Iterator[Finding]:
    for place in bench.job.places:
        for unit in place.units:
            if unit.angled is None or not is_box(unit) or unit.ready_made:
                continue
            own = [p.part for p in bench.parts if p.place == place.id and unit.id in p.part.of]
            lose = [p for p in own if p.corner is not None]
            upright = "".join(
                f" {p.name.capitalize()} stands in it: less deep, its front edge bevelled {p.bevel_deg:.1f}°."
                for p in own
                if p.role == "divider" and p.bevel_deg
            )
            yield Finding(
                code="angled-by-hand",
                severity="mind",
                title=f"{unit.name}: its {unit.angled.end} end is cut back",
                text=f"{sum(p.quantity for p in lose)} boards lose a corner, each as its part says: lay them on each "
                f"other by their other end and their rear edge, and cut them together.{upright}",
                about=(unit.id,),
            )


def _bought_whole(bench: Bench) -> Iterator[Finding]:
    whole = [u for place in bench.job.places for u in place.units if is_box(u) and u.ready_made and u.body is None]
    if whole:
        yield Finding(
            code="bought-whole",
            severity="fine",
            title=f"{len(whole)} bought whole",
            text=", ".join(u.name for u in whole) + ": taken as ready-made, no parts to cut. Say “made” in Set out to "
            "see what making it takes instead.",
            about=tuple(u.id for u in whole),
        )


def _joined(bench: Bench) -> Iterator[Finding]:
    on = [p for b in bench.layout.lengths for p in b.parts] + [p for s in bench.layout.sheets for p in s.parts]
    for one in bench.parts:
        long, wide = one.part.blank_mm
        if one.part.role in (*JOINED, *SEAMED) and any(
            p.key == one.key and (p.long_mm < long - 1 or p.wide_mm < wide - 1) for p in on
        ):
            yield Finding(
                code="made-of-several",
                severity="mind",
                title=f"{one.mark}, {one.part.name}: joined of equal pieces",
                text=f"It is {bench.say(long)} by {bench.say(wide)}, and no stock is so large. The joints go where "
                "something is behind them that both pieces are fastened to.",
                about=(one.key,),
            )


def _heavy(bench: Bench) -> Iterator[Finding]:
    """Yield what is too heavy for one person, and what does not go into the car, with the cuts that make it go."""
    lifts, carries = bench.job.workshop.lifts_kg, bench.job.workshop.carries_mm
    heavy = [(n, s) for n, s in enumerate(bench.layout.sheets, 1) if s.weight_kg > lifts]
    if heavy:
        worst = max(s.weight_kg for _, s in heavy)
        people = "two people" if worst <= TWO_LIFT * lifts else "more than two people, or a trolley"
        yield Finding(
            code="heavy-sheet",
            severity="mind",
            title=f"A whole sheet weighs {worst:.0f} kg",
            text=f"{len(heavy)} sheets are more than the {lifts:g} kg that one person lifts: {people}, or have them "
            f"cut before they are carried. {_cut_before(bench, heavy)}",
            caution="Lift with straight back, sheet close to the body, gloves on; nobody alone on a stair.",
            about=tuple(sorted({s.stock for _, s in heavy})),
        )
    if carries is None:
        return
    limits = Limits(carries_mm=carries)
    over = [(n, s) for n, s in enumerate(bench.layout.sheets, 1) if s.bought and limits.over(s, (s.long_mm, s.wide_mm))]
    if over:
        sheet = over[0][1]
        long, wide = max(carries), min(carries)
        yield Finding(
            code="long-sheet",
            severity="mind",
            title=f"{len(over)} sheets do not go into the car whole",
            text=f"{bench.say(sheet.long_mm)} by {bench.say(sheet.wide_mm)}; the car takes {bench.say(long)} by "
            f"{bench.say(wide)}. Have them brought, or cut as drawn where they are bought. {_cut_before(bench, over)}",
            about=tuple(f"sheet {n}" for n, _ in over),
        )


def _cut_before(bench: Bench, sheets: Sequence[tuple[int, LaidSheet]]) -> str:
    """Return how many cuts make sheets light and small enough, and which parts stay over that."""
    cuts = sum(len(s.before) for _, s in sheets)
    text = f"The {cuts} cuts for that are numbered in squares, in Sheets." if cuts else ""
    whole = [n for n, s in sheets if broken_down(s, limits_of(s, bench.job.workshop)).over]
    if whole:
        text += f" {_sheets(whole)}: a part is over that by itself."
    return text.strip()


def _sheets(numbers: Sequence[int]) -> str:
    return f"Sheet {numbers[0]}" if len(numbers) == 1 else f"Sheets {', '.join(map(str, numbers))}"


def _machines(bench: Bench) -> Iterator[Finding]:
    if not bench.job.workshop.machines:
        return
    for setting in bench.settings:
        if not setting.machine and setting.instead:
            yield Finding(
                code="no-machine",
                severity="mind",
                title=f"No machine takes {setting.work} at {bench.say(setting.at_mm)}",
                text=setting.instead,
                caution=SAW_CAUTION if setting.work in ("rip", "break down") else "",
                about=(setting.id,),
            )


def _waits(bench: Bench) -> Iterator[Finding]:
    left: Sequence[MarkedPart] = [p for p in bench.parts if p.to_cut]
    if not left:
        return
    now = [p for p in left if p.state in ("now", "glued, then trimmed")]
    later = [p for p in left if p not in now]
    waits = {w.words for p in later for w in p.part.waits}
    text = f"{sum(p.to_cut for p in now)} pieces may be cut now."
    if later:
        text += f" {sum(p.to_cut for p in later)} wait, for {len(waits)} things; rough sizes are given meanwhile."
    yield Finding(
        code="now-and-later",
        severity="fine",
        title=f"{sum(p.to_cut for p in now)} now, {sum(p.to_cut for p in later)} later",
        text=text,
    )


def _laid_out(bench: Bench) -> Iterator[Finding]:
    used, least = sum(g.used for g in bench.layout.groups), sum(g.least for g in bench.layout.groups)
    if bench.layout.sheets or bench.layout.lengths:
        yield Finding(
            code="all-laid-out",
            severity="fine",
            title=f"{len(bench.layout.sheets)} sheets, {len(bench.layout.lengths)} lengths",
            text=f"No layout takes fewer than {least}; this takes {used}. {bench.layout.sawn_m:.0f} m are sawn in "
            f"sheets, at {bench.layout.settings} settings.",
        )


RULES = (
    _nothing,
    _no_room,
    _missing,
    _cut_already,
    _other_thickness,
    _assumed,
    _angled,
    _joined,
    _heavy,
    _machines,
    _waits,
    _laid_out,
    _bought_whole,
)
