"""Starters of what one sits at, works at or puts things on: seats, desks, shelves, a vehicle's side."""

from __future__ import annotations

from wobble.core.job import (
    BaseFrame,
    Board,
    Cell,
    Columns,
    Front,
    FrontEdge,
    HeightStack,
    Hole,
    Insides,
    Member,
    OnCleats,
    OnPieces,
    Place,
    Shelved,
    Unit,
    WallOpening,
)
from wobble.core.setout.starters.cupboards import ALCOVE
from wobble.core.setout.starters.kinds import Draft, Starter
from wobble.core.setout.starters.questions import Answers, choice, count, length


def _seat(a: Answers) -> Place:
    wide, n, cushion = a.mm("wide"), a.count("boxes"), a.mm("cushion")
    base, board, deep = a.usual(64, 2.5), a.usual(18, 0.5), a.mm("deep")
    draft = Draft(a, "alcove", ALCOVE, wide, a.usual(700, 28), a.usual(2400, 96))
    if a.word("against") == "a window":
        span = wide * 0.6
        draft.openings.append(
            WallOpening(
                id="window",
                name="Window",
                x_mm=(wide - span) / 2,
                width_mm=span,
                height_mm=a.usual(1200, 48),
                sill_mm=a.usual(900, 36),
                covering_mm=a.usual(60, 2.5),
            )
        )
    filler = a.usual(20, 1)
    share = (wide - 2 * filler) / n
    boxes = [
        draft.unit(
            "bench",
            "Seat",
            x_mm=filler + i * share,
            width_mm=share,
            depth_mm=deep,
            standing=BaseFrame(height_mm=base),
            holds="a person sitting",
        )
        for i in range(n)
    ]
    draft.row(boxes, filler, filler)
    seat = draft.unit(
        "top",
        "Seat board",
        x_mm=0.0,
        width_mm=wide,
        depth_mm=deep + a.usual(20, 1),
        height_mm=board,
        meets=("left", "right", "back"),
        standing=OnPieces(pieces=tuple(u.id for u in boxes)),
        fastened_to=("under it",),
        board=Board(material="plywood", load_kg_per_m=30.0, stock_mm=max(share * 2, a.usual(2440, 96))),
        holds="a person sitting",
        holes=tuple(_lid(a, i, filler + i * share, share, deep) for i in range(n)),
    )
    draft.row([seat], 0.0, 0.0)
    tops = [seat.id]
    if cushion:
        draft.unit(
            "cushion",
            "Cushion",
            x_mm=filler,
            width_mm=wide - 2 * filler,
            depth_mm=deep,
            height_mm=cushion,
            standing=OnPieces(pieces=(seat.id,)),
        )
        tops.append(draft.units[-1].id)
    layers = [
        Member(name="base", high_mm=base),
        Member(name="box", high_mm=a.usual(340, 13.5)),
        Member(name="board", high_mm=board),
    ]
    if cushion:
        layers.append(Member(name="cushion", high_mm=cushion))
    table = a.word("against") == "a table"
    draft.heights.append(
        HeightStack(
            id="seat",
            units=tuple(u.id for u in boxes),
            tops=tuple(tops),
            members=tuple(layers),
            finished_mm=a.mm("high"),
            gives="box",
            beside_mm=a.usual(735, 29) if table else a.usual(900, 36) if draft.openings else None,
            beside="a table" if table else "a sill",
        )
    )
    return draft.place()


def _lid(a: Answers, i: int, x: float, share: float, deep: float) -> Hole:
    edge = a.usual(60, 2.5)
    return Hole(
        id=f"lid-{i + 1}",
        name=f"Lid {i + 1}",
        kind="lid",
        inside="top",
        at=(x + edge, a.usual(20, 1)),
        size=(share - 2 * edge, deep - a.usual(130, 5)),
        strip_mm=a.usual(80, 3),
    )


def _desk(a: Answers) -> Place:
    wide, deep = a.mm("wide"), a.mm("deep")
    draft = Draft(a, "alcove", ALCOVE, wide, max(deep * 1.1, deep + 50.0), a.usual(2400, 96))
    thick = a.usual(28, 1)
    hole = a.mm("plug")
    top = draft.unit(
        "top",
        "Desk top",
        x_mm=0.0,
        width_mm=wide,
        depth_mm=deep,
        height_mm=thick,
        over_base_mm=a.mm("high") - thick,
        meets=("left", "right", "back"),
        standing=OnCleats(),
        fastened_to=("left", "right", "back"),
        board=Board(
            material="beech",
            load_kg_per_m=25.0,
            stock_mm=a.usual(4000, 160),
            edge=FrontEdge(thick_mm=a.usual(20, 1), high_mm=a.usual(60, 2.5)),
        ),
        holes=(
            Hole(
                id="cable",
                name="Cable hole",
                kind="cable hole",
                inside="top",
                at=(max(wide - a.usual(300, 12), 0.0), max(deep - a.usual(120, 5), 0.0)),
                size=(hole + 5.0, hole + 5.0),
                plug_mm=hole,
            ),
        ),
    )
    draft.row([top], 0.0, 0.0)
    if a.word("beside") == "a drawer unit":
        box = draft.unit(
            "drawers",
            "Drawer unit",
            x_mm=a.usual(20, 1),
            width_mm=a.usual(400, 16),
            depth_mm=deep - a.usual(40, 1.5),
            height_mm=a.mm("high") - thick - a.usual(2, 0.0),
        )
        draft.row([box], a.usual(20, 1), None)
        draft.keep_width(box.id, a.usual(400, 16))
    return draft.place()


def _shelves(a: Answers) -> Place:
    n, wide, deep = a.count("shelves"), a.mm("wide"), a.mm("deep")
    draft = Draft(a, "alcove", ("back", "left", "right"), wide, deep * 1.2, a.usual(2400, 96))
    lowest, apart, thick = a.mm("lowest"), a.mm("apart"), a.usual(22, 1)
    stiff = FrontEdge(thick_mm=a.usual(20, 1), high_mm=a.usual(50, 2)) if a.word("front") == "a strip" else None
    for i in range(n):
        shelf = draft.unit(
            "shelf",
            "Shelf",
            x_mm=0.0,
            width_mm=wide,
            depth_mm=deep,
            height_mm=thick,
            over_base_mm=lowest + i * apart,
            meets=("left", "right", "back"),
            standing=OnCleats(),
            fastened_to=("left", "right", "back"),
            board=Board(material="plywood", load_kg_per_m=20.0, edge=stiff),
        )
        draft.row([shelf], 0.0, 0.0)
    return draft.place()


def _side(a: Answers) -> Place:
    wide, deep, high = a.mm("wide"), a.mm("deep"), a.mm("high")
    draft = Draft(a, "vehicle", ("floor", "back"), wide, deep * 1.2, a.usual(1600, 63), frame="body")
    n = a.count("boxes")
    base = a.usual(50, 2)
    share = wide / n
    boxes = [
        draft.unit(
            "base",
            "Locker",
            x_mm=i * share,
            width_mm=share,
            depth_mm=deep,
            height_mm=high - a.usual(20, 1),
            standing=BaseFrame(height_mm=base),
            insides=Insides(cell=Cell(fill=Columns(cells=(Cell(fill=Shelved(count=1)), Cell())))),
            front=Front(opens="nothing"),
            fastened_to=("back", "floor"),
            fixing_heights_mm=((high - a.usual(20, 1)) / 2, high - a.usual(80, 3)),
        )
        for i in range(n)
    ]
    draft.row(boxes, 0.0, 0.0)
    top = draft.unit(
        "top",
        "Worktop",
        x_mm=0.0,
        width_mm=wide,
        depth_mm=deep + a.usual(15, 0.5),
        height_mm=a.usual(20, 1),
        meets=("back",),
        standing=OnPieces(pieces=tuple(u.id for u in boxes)),
        fastened_to=("under it",),
        board=Board(material="plywood", load_kg_per_m=20.0),
    )
    draft.row([top], 0.0, 0.0)
    draft.heights.append(_side_stack(a, boxes, top, base))
    return draft.place()


def _side_stack(a: Answers, boxes: list[Unit], top: Unit, base: float) -> HeightStack:
    return HeightStack(
        id="side",
        units=tuple(u.id for u in boxes),
        tops=(top.id,),
        members=(
            Member(name="base", high_mm=base),
            Member(name="box", high_mm=a.usual(600, 24)),
            Member(name="board", high_mm=a.usual(20, 1)),
        ),
        finished_mm=a.mm("high"),
        gives="box",
        beside="a worktop",
    )


BENCHES: tuple[Starter, ...] = (
    Starter(
        "seat",
        "A bench or window seat",
        "Boxes to sit on, a board over them, perhaps a cushion.",
        (
            length("wide", "How wide is the place?", 1800, 71, 300.0),
            length("deep", "How deep is the seat?", 480, 19, 250.0, 1200.0),
            length("high", "How high is the finished seat?", 450, 18, 200.0, 900.0),
            length("cushion", "How thick is the cushion? (0 without)", 60, 2.5, 0.0, 300.0),
            count("boxes", "How many boxes?", 2),
            choice("against", "What is it against?", "a window", "a table", "a wall"),
        ),
        _seat,
    ),
    Starter(
        "desk",
        "A desk from wall to wall",
        "A top on cleats at three walls, with a hole for its cables.",
        (
            length("wide", "How wide is the place?", 1600, 63, 300.0),
            length("deep", "How deep is the desk?", 600, 24, 200.0, 1500.0),
            length("high", "How high is its top?", 730, 29, 400.0, 1400.0),
            length("plug", "How large is the largest plug?", 50, 2, 10.0, 200.0),
            choice("beside", "What stands under it?", "nothing", "a drawer unit"),
        ),
        _desk,
    ),
    Starter(
        "shelves",
        "Shelves on cleats",
        "Each cut to its own three walls.",
        (
            length("wide", "How wide is the place?", 900, 36, 150.0),
            length("deep", "How deep are they?", 280, 11, 80.0, 1000.0),
            count("shelves", "How many shelves?", 4),
            length("lowest", "How high is the lowest?", 400, 16, 0.0, 4000.0),
            length("apart", "How far apart are they?", 350, 14, 50.0, 2000.0),
            choice("front", "What stiffens the front?", "a strip", "nothing"),
        ),
        _shelves,
    ),
    Starter(
        "side",
        "A boat's or vehicle's side",
        "Lockers and a worktop against a side that curves.",
        (
            length("wide", "How long is the side?", 2000, 79, 300.0),
            length("deep", "How deep are the lockers?", 450, 18, 150.0, 1200.0),
            length("high", "How high is the worktop?", 850, 33.5, 200.0, 1500.0),
            count("boxes", "How many lockers?", 3),
        ),
        _side,
    ),
)
