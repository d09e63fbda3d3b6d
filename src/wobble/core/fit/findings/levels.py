"""What to tell of the level: where it starts, what is shimmed, cut and packed."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.confidence import SURE, risk_words
from wobble.core.figure import Figure
from wobble.core.finding import Finding
from wobble.core.fit.findings.case import Case, place_of, say, unit_name
from wobble.core.length import format_spread, up_to_mark

MOST_CUT_MM = 25.0
"""More than this is not cut off a base: its plinth would look crooked, and boxes have no more."""


def untied(case: Case) -> Iterator[Finding]:
    """A fixed top means nothing when no line of known height ties the floor to the mark."""
    if case.contact is None or case.contact.high_spot.tied:
        return
    if case.fixed_top:
        yield Finding(
            code="height-unknown",
            severity="stop",
            title="The floor's height is not known",
            text="A fixed top needs the floor tied to the datum mark. Give one level line its height over the mark, "
            "or start level from the high spot.",
        )
    else:
        yield Finding(
            code="height-from-high-spot",
            severity="mind",
            title="Heights count from the high spot",
            text="No level line has a known height, so the base is given from the floor's high spot. The shims hold.",
        )


def base_height(case: Case) -> Iterator[Finding]:
    """Where level starts, and what must come off the base for it."""
    if case.plan is None or case.contact is None:
        return
    base = case.plan.base
    if not case.contact.on_floor:
        yield Finding(
            code="heights-from-mark",
            severity="fine",
            title="Heights count from the mark",
            text="Nothing stands on the floor here, so that all is set out up and down from the datum mark.",
            figure=base.height,
        )
        return
    where = place_of(case, base.high_spot_at, "floor")
    if base.deepest_cut_mm > case.kit.tolerance_mm:
        yield _cut(case, where)
        return
    counted = "over the datum mark" if base.tied else f"over the floor at {where}"
    yield Finding(
        code="base-height",
        severity="fine",
        title="Level starts here",
        text=f"Underside of the run {counted}. The floor is highest at {where}, known to "
        f"{format_spread(base.over_high_spot.sd_mm, case.units)}.",
        figure=base.height,
    )
    short = base.sure_over_mm - base.over_high_spot.value_mm
    if base.clear_share < SURE and short > case.kit.tolerance_mm and case.plan.shims:
        yield Finding(
            code="may-touch",
            severity="mind",
            title="The floor may stand over the line",
            text=f"{risk_words(1 - base.clear_share).capitalize()} that it does somewhere. Start "
            f"{say(case, up_to_mark(base.sure_over_mm, case.units))} over the high spot to be nearly sure, or read it "
            f"near {where}.",
            figure=base.over_high_spot,
        )


def _cut(case: Case, where: str) -> Finding:
    """Return what must come off the base; more than a base has is no cut, but a height that what stands cannot meet."""
    assert case.plan is not None  # noqa: S101 - asked for by who calls
    base = case.plan.base
    cut = [s for s in case.plan.shims if s.filling.kind == "cut"]
    over = base.over_high_spot
    turned = tuple(replace(step, sign=-1 if step.sign == 1 else 1) for step in over.working[::-1])
    figure = Figure(value_mm=base.deepest_cut_mm, sd_mm=over.sd_mm, working=turned)
    if case.fixed_top is not None and base.deepest_cut_mm > MOST_CUT_MM:
        return Finding(
            code="top-too-low",
            severity="stop",
            title="What stands is higher than the top asked for",
            text=f"By this much, over the floor at {where}; no base can be cut down so far. Ask for a higher top, or "
            "build lower.",
            figure=figure,
            about=tuple(s.support for s in cut),
        )
    shortened = (
        f"{len(cut)} of {len(case.plan.shims)} supports must be shortened."
        if cut
        else "No support stands there, but a plinth would touch."
    )
    return Finding(
        code="cut-down",
        severity="mind",
        title="Cut the base down",
        text=f"The floor stands over the underside by this much at {where}. {shortened} Raise the line to cut less.",
        figure=figure,
        about=tuple(s.support for s in cut),
    )


def shim_stacks(case: Case) -> Iterator[Finding]:
    """Blocks, stacks the kit cannot make, gaps not known well enough; then the good word."""
    if case.plan is None:
        return
    shims = case.plan.shims
    blocks = [s for s in shims if s.filling.kind == "block"]
    if blocks:
        frame = 2 * len(blocks) > len(shims)
        largest = max(blocks, key=lambda s: s.gap.value_mm)
        yield Finding(
            code="too-tall",
            severity="mind",
            title=f"{len(blocks)} gap{'s' if len(blocks) > 1 else ''} past the kit",
            text=f"More than {say(case, case.kit.max_stack_mm)} of loose shims creeps. "
            + ("Build a base frame, level it first." if frame else "Put a packing block there and shim on it."),
            figure=largest.gap,
            about=tuple(s.support for s in blocks),
        )
    unmade = [s.support for s in shims if not s.filling.within_tolerance]
    if unmade:
        yield Finding(
            code="kit-misses",
            severity="mind",
            title=f"{len(unmade)} gap{'s' if len(unmade) > 1 else ''} the kit cannot make",
            text=f"The nearest stack is more than {say(case, case.kit.tolerance_mm)} off. "
            "Add a thinner shim or a tapered pair to the kit.",
            about=tuple(unmade),
        )
    vague = [s for s in shims if s.gap.sd_mm > 2 * case.kit.tolerance_mm]
    if vague:
        worst = max(vague, key=lambda s: s.gap.sd_mm)
        yield Finding(
            code="vague-shims",
            severity="mind",
            title=f"{len(vague)} support{'s' if len(vague) > 1 else ''} not known well",
            text=f"Worst under {unit_name(case, worst.unit)}, {worst.corner}. One more reading beside it settles it.",
            figure=worst.gap,
            about=tuple(s.support for s in vague),
        )
    stacked = [s for s in shims if s.filling.kind == "stack"]
    bare = sum(s.filling.kind == "bare" for s in shims)
    if stacked:
        largest = max(stacked, key=lambda s: s.gap.value_mm)
        yield Finding(
            code="shims",
            severity="fine",
            title=f"{len(stacked)} supports shimmed, {bare} bare",
            text=f"Largest under {unit_name(case, largest.unit)}, {largest.corner}.",
            figure=largest.gap,
            about=(largest.support,),
        )


def packing(case: Case) -> Iterator[Finding]:
    """How deep the packing behind the run is; Hold says behind which screws."""
    if case.plan is None or not case.plan.packings:
        return
    largest = max(case.plan.packings, key=lambda p: p.gap.value_mm)
    deep = largest.gap.value_mm > case.kit.max_stack_mm
    yield Finding(
        code="packing-deep" if deep else "packing",
        severity="mind" if deep else "fine",
        title="Packing behind the run",
        text=f"Deepest behind {unit_name(case, largest.unit)}, {largest.side}. A screw pulled up on an empty gap "
        "racks the box; Hold says what goes behind each."
        + (" So deep a gap wants a batten or a turned run." if deep else ""),
        figure=largest.gap,
        caution="Wires and pipes may lie behind the lining: detect, isolate, then drill.",
        about=(largest.fixing,),
    )
