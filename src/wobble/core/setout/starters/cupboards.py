"""Starters of boxes: runs, tall cupboards, wall units, bought ones built in, a box on a counter, lofts."""

from __future__ import annotations

from wobble.core.job import (
    Board,
    Cell,
    Centred,
    Columns,
    Door,
    Edge,
    Existing,
    Front,
    HeightStack,
    Hung,
    Insides,
    Member,
    OnCleats,
    OnPieces,
    OnShims,
    Place,
    Rows,
    Shelved,
    SurfaceName,
    ToeKickBox,
)
from wobble.core.setout.starters.kinds import Draft, Starter
from wobble.core.setout.starters.questions import Answers, StarterError, choice, count, length

ALCOVE: tuple[SurfaceName, ...] = ("floor", "back", "left", "right")


def _run(a: Answers) -> Place:
    n, wide = a.count("boxes"), a.mm("wide")
    deep, base, board = a.usual(560, 22), a.usual(100, 4), a.usual(40, 1.5)
    draft = Draft(a, "alcove", ALCOVE, wide, a.usual(700, 28), a.usual(2400, 96))
    filler = a.usual(20, 1)
    share = (wide - 2 * filler) / n
    drawers = a.word("first") == "drawers"
    boxes = []
    for i in range(n):
        first = i == 0 and drawers
        boxes.append(
            draft.unit(
                "drawers" if first else "base",
                "Drawers" if first else "Cabinet",
                x_mm=filler + i * share,
                width_mm=share,
                depth_mm=deep,
                standing=ToeKickBox(height_mm=base),
            )
        )
    draft.row(boxes, filler, filler)
    top = draft.unit(
        "top",
        "Top",
        x_mm=0.0,
        width_mm=wide,
        depth_mm=deep + a.usual(40, 1.5),
        meets=("left", "right", "back"),
        standing=OnPieces(pieces=tuple(u.id for u in boxes)),
        fastened_to=("under it",),
        board=Board(material="beech", load_kg_per_m=40.0, stock_mm=a.usual(4000, 160)),
    )
    draft.row([top], 0.0, 0.0)
    draft.heights.append(
        HeightStack(
            id="run",
            units=tuple(u.id for u in boxes),
            tops=(top.id,),
            members=(
                Member(name="base", high_mm=base),
                Member(name="box", high_mm=a.usual(720, 28.5)),
                Member(name="board", high_mm=board),
            ),
            finished_mm=a.mm("high"),
            gives="box",
            beside="a worktop",
        )
    )
    return draft.place()


def _tall(a: Answers) -> Place:
    n, wide, high = a.count("sections"), a.mm("wide"), a.mm("high")
    deep, base = a.mm("deep"), a.usual(80, 3)
    draft = Draft(a, "alcove", (*ALCOVE, "ceiling"), wide, max(deep * 1.2, deep + 50.0), a.mm("room"))
    filler = a.usual(25, 1)
    share = (wide - 2 * filler) / n
    inside = {
        "shelves": Cell(fill=Shelved(count=4), door=Door(hangs="left")),
        "hooks over a shoe shelf": Cell(
            fill=Rows(cells=(Cell(size_mm=a.usual(250, 10), fill=Shelved(count=1)), Cell())), door=Door(hangs="left")
        ),
        "open": Cell(fill=Shelved(count=4, held="fixed")),
    }[a.word("inside")]
    boxes = [
        draft.unit(
            "tall",
            "Section",
            x_mm=filler + i * share,
            width_mm=share,
            depth_mm=deep,
            height_mm=high,
            standing=ToeKickBox(height_mm=base),
            insides=Insides(cell=inside),
            front=Front(opens="nothing" if a.word("inside") == "open" else "door hinged left"),
            fixing_heights_mm=(high / 2, high - a.usual(60, 2.5)),
        )
        for i in range(n)
    ]
    draft.row(boxes, filler, filler)
    draft.heights.append(
        HeightStack(
            id="press",
            units=tuple(u.id for u in boxes),
            members=(Member(name="base", high_mm=base), Member(name="box", high_mm=high - base)),
            finished_mm=high,
            gives="box",
        )
    )
    return draft.place()


def _wall_units(a: Answers) -> Place:
    n, wide = a.count("boxes"), a.mm("wide")
    draft = Draft(a, "corner", ("floor", "back", "left"), wide, a.usual(640, 25), a.usual(2400, 96))
    counter = Existing(
        id="top",
        name="Top that stays",
        x_mm=0.0,
        width_mm=wide,
        height_mm=a.mm("top"),
        depth_mm=a.usual(600, 24),
    )
    draft.existing.append(counter)
    share = wide / n
    high = a.usual(640, 25)
    boxes = [
        draft.unit(
            "wall",
            "Wall unit",
            x_mm=i * share,
            width_mm=share,
            height_mm=high,
            over_base_mm=a.mm("top") + a.mm("over"),
            standing=Hung(by="split batten" if a.word("hung") == "a split batten" else "rail"),
            fixing_heights_mm=(high - a.usual(60, 2.5),),
        )
        for i in range(n)
    ]
    draft.row(boxes, a.usual(15, 0.5), 0.0)
    return draft.place()


def _built_in(a: Answers) -> Place:
    n, wide, unit_wide = a.count("boxes"), a.mm("wide"), a.mm("bought")
    if n * unit_wide > wide:
        raise StarterError(
            f"{n} side by side are wider than the place.",
            mend="Take fewer or narrower ones, or measure the place again.",
            path="$.answers.bought",
        )
    high, deep = a.mm("high"), a.mm("deep")
    draft = Draft(a, "alcove", ALCOVE, wide, deep * 1.2, a.usual(2400, 96))
    room = max(wide - n * unit_wide, 0.0) / 2
    boxes = [
        draft.unit(
            "tall" if high >= a.usual(1500, 60) else "drawers",
            "Bought",
            x_mm=room + i * unit_wide,
            width_mm=unit_wide,
            depth_mm=deep,
            height_mm=high,
            ready_made=True,
            standing=OnShims(),
            toe_recess_mm=0.0,
            insides=None,
            fixing_heights_mm=(high - a.usual(60, 2.5),),
        )
        for i in range(n)
    ]
    draft.row(boxes, None, None, equal=False)
    for box in boxes:
        draft.keep_width(box.id, unit_wide)
    draft.rule(lambda id_: Centred(id=id_, units=tuple(b.id for b in boxes)))
    side = a.usual(18, 0.5)
    for end in ("left", "right"):
        panel = draft.unit(
            "panel",
            f"End panel, {end}",
            x_mm=max(room - side, 0.0) if end == "left" else min(room + n * unit_wide, wide - side),
            width_mm=side,
            depth_mm=deep + a.usual(20, 1),
            height_mm=high,
            fixing_heights_mm=(),
            fastened_to=("neighbours",),
        )
        box = boxes[0] if end == "left" else boxes[-1]
        own, to = ("right", "left") if end == "left" else ("left", "right")
        draft.lined_up(Edge(of=panel.id, edge=own), Edge(of=box.id, edge=to))  # type: ignore[arg-type]
    return draft.place()


def _on_counter(a: Answers) -> Place:
    wide, high = a.mm("wide"), a.mm("high")
    place_wide = max(a.mm("counter"), wide)
    draft = Draft(a, "open", ("back",), place_wide, a.usual(640, 25), a.usual(2400, 96))
    draft.existing.append(
        Existing(
            id="counter",
            name="Counter that stays",
            x_mm=0.0,
            width_mm=place_wide,
            height_mm=a.mm("top"),
            depth_mm=a.usual(600, 24),
        )
    )
    inside = (
        Insides(cell=Cell(door=Door(hangs="up")))
        if a.word("front") == "a flap that lifts"
        else (
            Insides(cell=Cell(fill=Shelved(count=1), door=Door(hangs="pair")))
            if a.word("front") == "doors"
            else Insides(cell=Cell(fill=Columns(cells=(Cell(), Cell()))))
        )
    )
    draft.unit(
        "wall",
        "Box on the counter",
        x_mm=(place_wide - wide) / 2,
        width_mm=wide,
        depth_mm=a.mm("deep"),
        height_mm=high,
        over_base_mm=a.mm("top"),
        standing=OnPieces(pieces=("counter",)),
        insides=inside,
        front=Front(opens="pair of doors" if a.word("front") == "doors" else "nothing"),
        fixing_heights_mm=(high - a.usual(40, 1.5),),
    )
    draft.rule(lambda id_: Centred(id=id_, units=("A",), on="counter"))
    return draft.place()


def _lofts(a: Answers) -> Place:
    n, wide, under = a.count("sections"), a.mm("wide"), a.mm("under")
    high = a.mm("room") - under
    draft = Draft(a, "alcove", ("back", "left", "right", "ceiling"), wide, a.mm("deep") * 1.1, a.mm("room"))
    share = wide / n
    gap = a.usual(10, 0.5)
    boxes = [
        draft.unit(
            "wall",
            "Loft",
            x_mm=i * share,
            width_mm=share,
            depth_mm=a.mm("deep"),
            height_mm=max(high - gap, a.usual(150, 6)),
            over_base_mm=under,
            standing=OnCleats(),
            fastened_to=("back", *(("left",) if i == 0 else ()), *(("right",) if i == n - 1 else ())),
            holds="bedding",
            fixing_heights_mm=(max(high - gap, a.usual(150, 6)) - a.usual(40, 1.5),),
        )
        for i in range(n)
    ]
    draft.row(boxes, 0.0, 0.0)
    return draft.place()


WIDE = length("wide", "How wide is the place?", 2400, 96, 300.0)
CUPBOARDS: tuple[Starter, ...] = (
    Starter(
        "run",
        "A run of cabinets",
        "Boxes on the floor side by side, with a top from wall to wall.",
        (
            WIDE,
            count("boxes", "How many boxes?", 4),
            length("high", "How high is the finished top?", 900, 36, 300.0, 1500.0),
            choice("first", "What is in the first?", "drawers", "doors"),
        ),
        _run,
    ),
    Starter(
        "tall",
        "A tall cupboard or lockers",
        "Sections as high as a person can reach, walled in or free.",
        (
            length("wide", "How wide is the place?", 1800, 72, 300.0),
            count("sections", "How many sections?", 3),
            length("high", "How high is it?", 2100, 84, 900.0, 4000.0),
            length("deep", "How deep is it?", 500, 20, 150.0, 1500.0),
            length("room", "How high is the ceiling?", 2400, 96, 1000.0, 8000.0),
            choice("inside", "What is inside?", "shelves", "hooks over a shoe shelf", "open"),
        ),
        _tall,
    ),
    Starter(
        "wall-units",
        "Wall units over a top",
        "Boxes that hang over a top that stays.",
        (
            WIDE,
            count("boxes", "How many boxes?", 3),
            length("top", "How high is the top that stays?", 900, 36, 300.0, 1600.0),
            length("over", "How far over it do they begin?", 500, 20, 100.0, 1500.0),
            choice("hung", "What do they hang by?", "screws through a rail", "a split batten"),
        ),
        _wall_units,
    ),
    Starter(
        "built-in",
        "Bought pieces made to look built in",
        "Closets or chests as bought, between end panels and fillers.",
        (
            length("wide", "How wide is the place?", 2700, 106, 300.0),
            count("boxes", "How many are there?", 3),
            length("bought", "How wide is each?", 800, 31.5, 150.0),
            length("high", "How high?", 2000, 79, 200.0, 4000.0),
            length("deep", "How deep?", 580, 23, 150.0, 1500.0),
        ),
        _built_in,
    ),
    Starter(
        "on-counter",
        "A box on a counter that stays",
        "It stands on what is there already, with a flap, doors or open.",
        (
            length("counter", "How long is the counter?", 1800, 71, 300.0),
            length("top", "How high is it?", 900, 36, 300.0, 1600.0),
            length("wide", "How wide is the box?", 900, 36, 150.0),
            length("high", "How high is the box?", 450, 18, 100.0, 2000.0),
            length("deep", "How deep is the box?", 350, 14, 100.0, 1000.0),
            choice("front", "What closes it?", "a flap that lifts", "doors", "nothing"),
        ),
        _on_counter,
    ),
    Starter(
        "lofts",
        "Lofts over closets",
        "Boxes up under the ceiling, on cleats at the walls.",
        (
            WIDE,
            count("sections", "How many sections?", 3),
            length("under", "How high is their underside?", 2050, 81, 300.0, 5000.0),
            length("room", "How high is the ceiling?", 2500, 98, 1000.0, 8000.0),
            length("deep", "How deep are they?", 580, 23, 150.0, 1500.0),
        ),
        _lofts,
    ),
)
