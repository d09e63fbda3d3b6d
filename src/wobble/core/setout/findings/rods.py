"""What the rods say: rules that cannot all hold, stacks that miss their height, pieces that rest on nothing."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.job import Equal, OnPieces
from wobble.core.setout.long_rod import LEAST_MM
from wobble.core.setout.sheet import Sheet, rule_words
from wobble.core.setout.upright_rod import in_ring

UNDER_TABLE_MM = {
    "a table": (250.0, 310.0),
    "a desk": (250.0, 310.0),
}
"""How far under its table the top of a seat is good, cushion pressed."""
SAME_MM = 0.5


def _plain(value: float, label: str) -> Figure:
    return Figure(value_mm=value, sd_mm=0.0, working=(Step(label=label, value_mm=value),))


def disagreeing(sheet: Sheet) -> Iterator[Finding]:
    """Rules that contradict each other: the later one is not followed, and those that say otherwise are named."""
    rules = {r.id: r for r in sheet.said.rules}
    for clash, misses in zip(sheet.rod.clashes, sheet.rod.misses_mm, strict=True):
        others = "; ".join(rule_words(sheet, rules[i]) for i in clash.because if i in rules)
        said = rule_words(sheet, rules[clash.id])
        yield Finding(
            code="rules-disagree",
            severity="stop",
            title="Two rules cannot both hold",
            text=f"You say: {said}. But {others or 'what is measured'} makes it miss by {sheet.say(abs(misses))}. "
            "Take one of them off.",
            figure=_plain(abs(misses), "What it misses by"),
            about=(clash.id, *clash.because),
        )


def lost(sheet: Sheet) -> Iterator[Finding]:
    """A rule that names what is not there any more, or what has no edge that is met going along: it holds nothing."""
    for rule in sheet.said.rules:
        if not isinstance(rule, Equal) and sheet.rod.stands(rule.id) == "names nothing":
            yield Finding(
                code="rule-lost",
                severity="mind",
                title="A rule names what is not there",
                text=f"You say: {rule_words(sheet, rule)}. Nothing is there for it to hold to, so the piece stands as "
                "it was drawn. Take the rule off, or say it of something else.",
                about=(rule.id,),
            )


def no_width(sheet: Sheet) -> Iterator[Finding]:
    """A unit that its rules leave no width, or push past the corner."""
    for unit in sheet.said.units:
        width, left = sheet.rod.width[unit.id], sheet.rod.left[unit.id]
        if width.value_mm <= LEAST_MM:
            yield Finding(
                code="no-width",
                severity="stop",
                title=f"There is no room for {unit.name}",
                text=f"What its neighbours and walls leave it is {sheet.say(width.value_mm)}. Make the others "
                "narrower, or take one out.",
                figure=Figure(value_mm=width.value_mm, sd_mm=width.sd_mm),
                about=(unit.id,),
            )
        elif left.value_mm < -SAME_MM:
            yield Finding(
                code="past-corner",
                severity="stop",
                title=f"{unit.name} begins past the corner",
                text=f"Its rules put its left edge {sheet.say(-left.value_mm)} to the left of where the place begins.",
                about=(unit.id,),
            )


def follows_walls(sheet: Sheet) -> Iterator[Finding]:
    """Units that follow walls: how sure their width is, or that the walls are not measured yet."""
    guessed = [u for u in sheet.said.units if not (sheet.rod.left[u.id].measured and sheet.rod.right[u.id].measured)]
    if guessed:
        names = ", ".join(u.name for u in guessed)
        yield Finding(
            code="walls-not-measured",
            severity="mind",
            title="Walls that pieces follow are not measured",
            text=f"{names}: their edges follow side walls that are taken as plumb and where you said the place ends, "
            "± 10 mm. Measure both walls, then they follow what is there.",
            about=tuple(u.id for u in guessed),
        )
    for unit in sheet.said.units:
        width = sheet.rod.width[unit.id]
        if width.sd_mm > SAME_MM and width.measured:
            yield Finding(
                code="follows-walls",
                severity="fine",
                title=f"{unit.name} follows the walls",
                text="Its width is what the narrowest place leaves it. Cut it after the walls are measured here.",
                figure=Figure(value_mm=width.value_mm, sd_mm=width.sd_mm),
                about=(unit.id,),
            )


def stacks(sheet: Sheet) -> Iterator[Finding]:
    """What gives in each stack, and stacks that miss their height or have no room for a member."""
    for stack in sheet.said.heights:
        found = sheet.heights[stack.id]
        low = next((x for x in found.layers if x.thick_mm < 0 or (x.gives and x.thick_mm <= LEAST_MM)), None)
        if low is not None:
            yield Finding(
                code="stack-no-room",
                severity="stop",
                title=f"No room for the {low.name}",
                text=f"With everything else as it is, the {low.name} would be {sheet.say(low.thick_mm)} high. Raise "
                "the finished height, or make another layer thinner.",
                figure=_plain(low.thick_mm, f"What is left for the {low.name}"),
                about=(stack.id, low.name),
            )
        elif abs(found.misses_mm) > SAME_MM:
            over = "over" if found.misses_mm > 0 else "under"
            yield Finding(
                code="stack-misses",
                severity="stop",
                title="The layers do not come to the finished height",
                text=f"They come to {sheet.say(found.finished_mm)}, {sheet.say(abs(found.misses_mm))} {over} the "
                f"{sheet.say(found.wanted_mm or 0.0)} asked for. Say which layer gives.",
                figure=_plain(found.misses_mm, "Sum of the layers less what was asked for"),
                about=(stack.id,),
            )
        elif stack.gives is not None and stack.finished_mm is not None:
            gives = found.layer(stack.gives)
            high = gives.thick_mm if gives is not None else 0.0
            yield Finding(
                code="stack-gives",
                severity="fine",
                title=f"The {stack.gives} gives: {sheet.say(high)}",
                text=f"So that the finished face is {sheet.say(stack.finished_mm)} over the finished floor.",
                figure=Figure(
                    value_mm=high,
                    sd_mm=0.0,
                    working=(
                        Step(label="Finished height", value_mm=stack.finished_mm),
                        *(
                            Step(label=layer.name.capitalize(), sign=-1, value_mm=layer.thick_mm)
                            for layer in found.layers
                            if not layer.gives and layer.name != "covering"
                        ),
                        *(
                            (Step(label="Covering, laid up to it later", value_mm=found.covering_mm),)
                            if stack.covering_later and found.covering_mm
                            else ()
                        ),
                    ),
                ),
                about=(stack.id, stack.gives),
            )


def beside(sheet: Sheet) -> Iterator[Finding]:
    """A seat too near under its table, a top that stands over the sill it should pass under."""
    for stack in sheet.said.heights:
        if stack.beside_mm is None:
            continue
        finished = sheet.heights[stack.id].finished_mm
        under = stack.beside_mm - finished
        seat = stack.beside in UNDER_TABLE_MM and any(
            sheet.by_id[u].kind == "bench" for u in stack.units if u in sheet.by_id
        )
        if seat:
            least, most = UNDER_TABLE_MM[stack.beside]
            if least <= under <= most:
                continue
            way = "Lower" if under < least else "Raise"
            by = least - under if under < least else under - most
            yield Finding(
                code="beside-height",
                severity="mind",
                title=f"The seat against {stack.beside}: {sheet.say(under)} between",
                text=f"{sheet.say(least)} to {sheet.say(most)} is good to sit at. {way} it by {sheet.say(by)}, and sit "
                "on a plank at that height before you build.",
                figure=_plain(under, f"{stack.beside.capitalize()} less the finished seat"),
                about=(stack.id,),
            )
        elif stack.beside == "a sill" and under < 0:
            yield Finding(
                code="beside-height",
                severity="mind",
                title=f"It stands {sheet.say(-under)} over the sill",
                text="What stands over a sill is seen from behind, stops the window board, and traps dust. Lower it, "
                "or hold it back from the window.",
                caution="A seat under a window wants a guard where somebody can fall out.",
                figure=_plain(-under, "Finished height less the sill"),
                about=(stack.id,),
            )


def carried(sheet: Sheet) -> Iterator[Finding]:
    """Pieces that rest on each other in a ring, on what is not there, or on what does not reach under them."""
    stay = {e.id: e for e in sheet.said.existing}
    for unit in sheet.place.units:
        if not isinstance(unit.standing, OnPieces):
            continue
        if in_ring(unit, sheet.by_id):
            yield Finding(
                code="rests-in-ring",
                severity="stop",
                title=f"{unit.name} rests on itself",
                text="What carries it is carried by it. Say what stands on the floor.",
                about=(unit.id,),
            )
            continue
        for id_ in unit.standing.pieces:
            below = sheet.by_id.get(id_)
            span = (below.x_mm, below.right_mm) if below is not None else None
            if id_ in stay:
                span = (stay[id_].x_mm, stay[id_].right_mm)
            if span is None or span[0] >= unit.right_mm or span[1] <= unit.x_mm:
                yield Finding(
                    code="rests-on-nothing",
                    severity="stop",
                    title=f"{sheet.name(id_)} is not under {unit.name}",
                    text="It is said to carry it. Move one of them, or say what else carries it.",
                    about=(unit.id, id_),
                )


ROD_RULES = (disagreeing, lost, no_width, follows_walls, stacks, beside, carried)
