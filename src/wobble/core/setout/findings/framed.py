"""What is told of frames, boards, trim and walls that things hang on."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.job import Boarding, Framing, HangingWall, TrimSet
from wobble.core.setout.curves import chord_mm, radius_mm, too_round
from wobble.core.setout.framing import ALLOWED_MPA, PEG_KG_PER_PEG, boards_laid, frame_laid, hanging_laid
from wobble.core.setout.sheet import Sheet

PLANNING = "A planning figure: local codes come first, and what people stand on is for somebody who may sign for it."
CROWDED = " That is a boarding, no trim: move a seam, or let one piece stand out of the row."
SLIVER = " The last is a sliver: move the first, or rip both ends."
DECK_SPAN_MM = {12.0: 300.0, 15.0: 350.0, 18.0: 450.0, 22.0: 600.0}
"""Longest span of a deck of wood-based panels that people step on, by its thickness: what their makers' tables give."""


def frames(sheet: Sheet) -> Iterator[Finding]:
    """How a frame is laid, and members that bend too far: on their weak side above all."""
    for unit in sheet.place.units:
        if not isinstance(unit.body, Framing):
            continue
        laid, body = frame_laid(unit, unit.body, sheet.place), unit.body
        flat = body.stands == "on the flat" and body.wide_mm > body.narrow_mm
        if not laid.holds_members:
            across = body.narrow_mm if body.stands == "on edge" else body.wide_mm
            yield Finding(
                code="frame-small",
                severity="stop",
                title=f"{unit.name} is too small for its members",
                text=f"Members of {sheet.say(across)} and rails of {sheet.say(body.narrow_mm)} leave nothing between "
                f"them in {sheet.say(laid.wide_mm)} by {sheet.say(laid.deep_mm)}: make it larger, or them slighter.",
                about=(unit.id,),
            )
            continue
        if not laid.strong:
            turned = (
                f" On edge the same member bends {1 / laid.other_way:.0f} times less."
                if flat
                else " Take a deeper member, put them closer, or prop them in the middle."
            )
            yield Finding(
                code="weak-side" if flat else "frame-bends",
                severity="stop",
                title=f"{unit.name}: its members {'lie on their weak side' if flat else 'are too slight'}",
                text=f"Over {sheet.say(laid.span_mm)} they go down {sheet.say(laid.bends.value_mm)} under "
                f"{body.load_kg_per_m2:g} kg/m², {sheet.say(laid.limit_mm)} is the most, and are bent to "
                f"{laid.bent_mpa:.1f} of {ALLOWED_MPA} N/mm².{turned}",
                caution=PLANNING,
                figure=laid.bends,
                about=(unit.id,),
            )
        else:
            weak = f" They lie on the flat, {1 / laid.other_way:.1f} times weaker than on edge." if flat else ""
            yield Finding(
                code="frame-laid",
                severity="fine",
                title=f"{unit.name}: {len(laid.members)} members of {sheet.say(laid.members[0].long_mm)}",
                text=f"In a frame {sheet.say(laid.wide_mm)} by {sheet.say(laid.deep_mm)}, at most "
                f"{sheet.say(laid.deck_span_mm)} between them; they go down {sheet.say(laid.bends.value_mm)}.{weak}",
                caution=PLANNING,
                figure=laid.bends,
                about=(unit.id,),
            )
        if body.deck_mm:
            most = max((span for thick, span in DECK_SPAN_MM.items() if thick <= body.deck_mm), default=250.0)
            if laid.deck_span_mm > most:
                yield Finding(
                    code="deck-span",
                    severity="mind",
                    title=f"{unit.name}: its deck spans {sheet.say(laid.deck_span_mm)}",
                    text=f"A deck {sheet.say(body.deck_mm)} thick wants a member every {sheet.say(most)}.",
                    caution=PLANNING,
                    about=(unit.id, "deck"),
                )


def boards(sheet: Sheet) -> Iterator[Finding]:
    """How boards and trim divide a wall."""
    for unit in sheet.place.units:
        if not isinstance(unit.body, Boarding | TrimSet):
            continue
        laid = boards_laid(unit, unit.body, sheet.lengths)
        if laid.fault:
            yield Finding(
                code="boards-cannot",
                severity="stop",
                title=f"{unit.name} cannot be divided so",
                text=laid.fault,
                about=(unit.id,),
            )
            continue
        first = ""
        if isinstance(unit.body, Boarding):
            first = (
                " The first is set level; all others follow it."
                if unit.body.runs == "along"
                else (" The first is set plumb; all others follow it.")
            )
        narrow = laid.last_mm is not None and laid.last_mm < laid.board_mm / 3
        crowded = isinstance(unit.body, TrimSet) and laid.gap_mm < laid.board_mm
        yield Finding(
            code="boards-laid",
            severity="mind" if narrow or crowded else "fine",
            title=f"{unit.name}: {len(laid.at)} pieces",
            text=laid.words
            + "."
            + first
            + (" The last is a sliver: move the first, or rip both ends." if narrow else ""),
            about=(unit.id,),
        )


def hanging(sheet: Sheet) -> Iterator[Finding]:
    """What hangs on battens or pegs: what it weighs and turns, and what hangs on nothing."""
    for unit in sheet.place.units:
        if not isinstance(unit.body, HangingWall):
            continue
        laid, body = hanging_laid(unit, unit.body), unit.body
        names = {t.id: t.name for t in body.hangs}
        if laid.off_line:
            yield Finding(
                code="hangs-between",
                severity="stop",
                title=f"{unit.name}: {', '.join(names[i] for i in laid.off_line)} hangs between its {body.by}",
                text=f"There is one every {sheet.say(body.pitch_mm)} from the bottom. Move the thing, or the pitch.",
                about=(unit.id, *laid.off_line),
            )
        if laid.too_heavy:
            yield Finding(
                code="peg-heavy",
                severity="stop",
                title=f"{unit.name}: {', '.join(names[i] for i in laid.too_heavy)} is too heavy for one peg",
                text=f"One peg is planned for {PEG_KG_PER_PEG:g} kg. Hang it on two, or on a batten.",
                caution=PLANNING,
                about=(unit.id, *laid.too_heavy),
            )
        behind = f" Strips {sheet.say(body.behind_mm)} deep lie behind, clear of the holes." if body.behind_mm else ""
        yield Finding(
            code="hangs",
            severity="fine",
            title=f"{unit.name}: {len(laid.at)} {body.by}, {laid.carries_kg:g} kg on them",
            text=f"Every {sheet.say(body.pitch_mm)} from its lower edge; what hangs turns {laid.moment_nm:.0f} N·m out "
            f"of the wall.{behind} Hold says what its screws carry.",
            about=(unit.id,),
        )


def curved(sheet: Sheet) -> Iterator[Finding]:
    """Edges that are curved: the radius of the trammel, or that there is none."""
    for unit in sheet.place.units:
        curve = unit.curve
        if curve is None:
            continue
        chord = chord_mm(unit)
        if too_round(curve, chord):
            yield Finding(
                code="curve-too-round",
                severity="stop",
                title=f"{unit.name}: its curve is more than half a circle",
                text=f"Over {sheet.say(chord)} it may rise {sheet.say(chord / 2)} at most. Let it rise less.",
                about=(unit.id, "curve"),
            )
            continue
        radius = radius_mm(chord, curve.rise_mm)
        yield Finding(
            code="curved",
            severity="fine",
            title=f"{unit.name}: its {curve.edge} edge is a part of a circle",
            text=f"A trammel of this radius strikes it, its middle {sheet.say(radius - curve.rise_mm)} from the chord; "
            f"it rises {sheet.say(curve.rise_mm)} over {sheet.say(chord)}. Every mark is on the part.",
            figure=Figure(value_mm=radius, sd_mm=0.0, working=(Step(label="c²/8h + h/2", value_mm=radius),)),
            about=(unit.id, "curve"),
        )


FRAMED_RULES = (frames, boards, hanging, curved)
