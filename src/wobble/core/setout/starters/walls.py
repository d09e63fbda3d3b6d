"""Starters of walls: battens or pegs that things hang on, boards with a cap."""

from __future__ import annotations

from wobble.core.job import Boarding, Hanging, HangingWall, Place, WallOpening
from wobble.core.setout.starters.kinds import Draft, Starter
from wobble.core.setout.starters.questions import Answers, choice, length


def _hanging(a: Answers) -> Place:
    wide, high, pitch = a.mm("wide"), a.mm("high"), a.mm("pitch")
    pegs = a.word("by") == "pegs in holes"
    draft = Draft(a, "open", ("floor", "back"), wide, a.usual(400, 16), max(a.usual(2400, 96), a.mm("from") + high))
    member = a.usual(20, 1) if pegs else a.usual(70, 3)
    weight = 4.0
    draft.unit(
        "peg wall" if pegs else "batten wall",
        "Pegs" if pegs else "Battens",
        x_mm=0.0,
        width_mm=wide,
        height_mm=high,
        over_base_mm=a.mm("from"),
        fixing_heights_mm=tuple(h for h in (member / 2, high - member / 2) if 0 < h < high),
        body=HangingWall(
            by="pegs" if pegs else "battens",
            pitch_mm=pitch,
            member_mm=member,
            thick_mm=a.usual(18, 0.5),
            behind_mm=a.usual(20, 1) if pegs else 0.0,
            hangs=tuple(
                Hanging(
                    id=f"tool-{i + 1}",
                    name=name,
                    at=(wide * (i + 1) / 4, i * pitch),
                    weight_kg=weight,
                    out_mm=a.usual(120, 5),
                )
                for i, name in enumerate(("Clamps", "Saw"))
                if i * pitch + member <= high
            ),
        ),
    )
    return draft.place()


def _boarded(a: Answers) -> Place:
    wide, high = a.mm("wide"), a.mm("high")
    draft = Draft(a, "alcove", ("floor", "back", "left", "right"), wide, a.usual(200, 8), a.usual(2400, 96))
    if a.word("opening") == "a window":
        draft.openings.append(
            WallOpening(
                id="window",
                name="Window",
                x_mm=wide * 0.35,
                width_mm=wide * 0.3,
                height_mm=a.usual(1100, 43),
                sill_mm=a.usual(900, 36),
            )
        )
    boards = draft.unit(
        "boarding",
        "Boards",
        x_mm=0.0,
        width_mm=wide,
        depth_mm=a.usual(15, 0.5),
        height_mm=high,
        over_base_mm=0.0,
        meets=("left", "right"),
        fixing_heights_mm=(high * 0.2, high * 0.8),
        body=Boarding(
            runs="along" if a.word("runs") == "lying, from a level one" else "up",
            board_mm=a.mm("board"),
            thick_mm=a.usual(15, 0.5),
            gap_mm=a.usual(3, 0.0),
            cap_mm=a.usual(20, 1),
        ),
    )
    draft.row([boards], 0.0, 0.0)
    return draft.place()


WALLS: tuple[Starter, ...] = (
    Starter(
        "hanging-wall",
        "A wall of battens or pegs",
        "Tools, arms and shelves that hang where one wants them.",
        (
            length("wide", "How wide is the wall?", 1800, 71, 200.0),
            length("high", "How high is what hangs there?", 1200, 47, 100.0, 4000.0),
            length("from", "How high does it begin?", 900, 36, 0.0, 4000.0),
            length("pitch", "How far apart are they?", 150, 6, 20.0, 1000.0),
            choice("by", "What do things hang on?", "battens", "pegs in holes"),
        ),
        _hanging,
    ),
    Starter(
        "boarded",
        "A boarded wall with a cap",
        "Boards from a first one that is level or plumb, the last ripped.",
        (
            length("wide", "How wide is the wall?", 3000, 118, 300.0),
            length("high", "How high up do they go?", 1100, 43, 100.0, 4000.0),
            length("board", "How wide is a board, truly?", 120, 4.5, 20.0, 600.0),
            choice("runs", "How do they run?", "lying, from a level one", "upright, from a plumb one"),
            choice("opening", "What is in the wall?", "nothing", "a window"),
        ),
        _boarded,
    ),
)
