"""Starters of frames: racks under a ceiling, platforms over what stays."""

from __future__ import annotations

from wobble.core.job import (
    Existing,
    Framing,
    Hung,
    Legs,
    Place,
)
from wobble.core.setout.starters.cupboards import ALCOVE
from wobble.core.setout.starters.kinds import Draft, Starter
from wobble.core.setout.starters.questions import Answers, choice, length


def _rack(a: Answers) -> Place:
    wide, deep = a.mm("wide"), a.mm("deep")
    draft = Draft(a, "overhead", ("back", "ceiling"), max(a.mm("room"), wide), deep * 1.3, a.mm("ceiling"))
    drop = a.mm("drop")
    high = a.usual(70, 3)
    draft.unit(
        "rack",
        "Rack",
        x_mm=max((max(a.mm("room"), wide) - wide) / 2, 0.0),
        width_mm=wide,
        depth_mm=deep,
        height_mm=high,
        over_base_mm=max(a.mm("ceiling") - drop - high, 0.0),
        standing=Hung(by="ledger" if a.word("back") == "on a ledger, chains in front" else "rail"),
        fastened_to=("back", "ceiling") if a.word("back") == "on a ledger, chains in front" else ("ceiling",),
        body=Framing(
            narrow_mm=a.usual(45, 2), wide_mm=high, deck_mm=a.usual(12, 0.5), most_apart_mm=a.usual(400, 16),
            load_kg_per_m2=60.0,
        ),
        fixing_heights_mm=(high / 2,),
    )  # fmt: skip
    return draft.place()


def _platform(a: Answers) -> Place:
    wide, deep, high = a.mm("wide"), a.mm("deep"), a.mm("high")
    draft = Draft(a, "alcove", ALCOVE, wide, deep * 1.05, a.usual(2400, 96))
    stays_wide, stays_high = min(a.mm("stays_wide"), wide), a.mm("stays_high")
    draft.existing.append(
        Existing(
            id="stays",
            name="What stays",
            x_mm=(wide - stays_wide) / 2,
            width_mm=stays_wide,
            height_mm=stays_high,
            depth_mm=deep * 0.6,
            clear_mm=a.usual(20, 1),
        )
    )
    member = a.usual(70, 3)
    unit = draft.unit(
        "platform",
        "Platform",
        x_mm=0.0,
        width_mm=wide,
        depth_mm=deep,
        height_mm=high,
        standing=Legs(long_mm=high, finished_mm=max(high - a.usual(18, 0.5) - member, 1.0)),
        holds="a person standing",
        fastened_to=("back", "left", "right") if a.word("loose") == "to the walls" else ("nothing",),
        fixing_heights_mm=(max(high - a.usual(40, 1.5), high / 2),),
        body=Framing(
            narrow_mm=a.usual(45, 2),
            wide_mm=member,
            deck_mm=a.usual(18, 0.5),
            most_apart_mm=a.usual(400, 16),
            fascia_mm=a.usual(18, 0.5),
            loose=a.word("loose") != "to the walls",
        ),
    )
    draft.row([unit], a.usual(5, 0.5), a.usual(5, 0.5))
    return draft.place()


FRAMES: tuple[Starter, ...] = (
    Starter(
        "rack",
        "A rack under a ceiling",
        "A frame that hangs, with what is stored on it.",
        (
            length("room", "How long is the wall?", 3000, 118, 500.0),
            length("wide", "How long is the rack?", 1500, 60, 200.0),
            length("deep", "How deep is it?", 600, 24, 150.0, 2500.0),
            length("ceiling", "How high is the ceiling?", 2600, 102, 1000.0, 8000.0),
            length("drop", "How far under the ceiling is its top?", 450, 18, 50.0, 3000.0),
            choice("back", "What holds it?", "on a ledger, chains in front", "chains at all corners"),
        ),
        _rack,
    ),
    Starter(
        "platform",
        "A platform over something that stays",
        "Members on edge under a deck, clear of what is there.",
        (
            length("wide", "How wide is the place?", 2000, 79, 300.0),
            length("deep", "How deep is the platform?", 1100, 43, 300.0, 4000.0),
            length("high", "How high is its top?", 400, 16, 100.0, 2000.0),
            length("stays_wide", "How wide is what stays?", 900, 36, 10.0),
            length("stays_high", "How high is what stays?", 250, 10, 10.0, 2000.0),
            choice("loose", "Is it fastened?", "to the walls", "loose"),
        ),
        _platform,
    ),
)
