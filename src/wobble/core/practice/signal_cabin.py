"""The Signal cabin: made into a study, all made up. A platform over the lever frame, a seat with a lid, a box on it."""

from __future__ import annotations

from datetime import UTC, datetime

from wobble.core.facts import READING_KINDS, Obstacle
from wobble.core.job import (
    Backing,
    BaseFrame,
    Board,
    Cell,
    Columns,
    Construction,
    Content,
    Detection,
    Door,
    Drawers,
    Edge,
    Existing,
    FramedFront,
    Framing,
    HeightStack,
    Hole,
    Insides,
    Instrument,
    Job,
    Legs,
    LinedUp,
    Member,
    OnPieces,
    Place,
    SetUp,
    Shelved,
    Stair,
    SurfaceName,
    Unit,
    WallOpening,
    with_facts,
)
from wobble.core.job.rules import PLACE, Centred, Rule, Wide
from wobble.core.practice.gable import demo_kit
from wobble.core.practice.hours import evenings_and_saturdays
from wobble.core.practice.rooms import Hump, TrueSurface
from wobble.core.practice.survey import numbered, read_round

WIDTH_MM, DEPTH_MM, HEIGHT_MM = 2760.0, 720.0, 2200.0
BEGUN = datetime(2026, 5, 16, 10, 5, tzinfo=UTC)
LASER = Instrument(id="laser", name="Cross-line laser and rule", kind="laser line", sigma_mm=0.6)
LEVEL = SetUp(id="line", name="Level line", across="z", at_mm=950.0)
PLUMB = SetUp(id="plumb", name="Plumb plane off the back", across="y", at_mm=850.0)
ACROSS = SetUp(id="across", name="Plumb plane up the middle", across="x", at_mm=1380.0)
LINES: dict[SurfaceName, SetUp] = {"floor": LEVEL, "back": PLUMB, "left": ACROSS, "right": ACROSS}
TRUTHS: dict[SurfaceName, TrueSurface] = {
    "floor": TrueSurface(
        (WIDTH_MM, DEPTH_MM),
        level_mm=-6.0,
        gradient=(-0.003, 0.004),
        bow_mm=(-5.0, 0.0),
        humps=(Hump(3.0, (600.0, 300.0), (350.0, 300.0)),),
        boards=(0.4, 120.0, 0.3),
    ),
    "back": TrueSurface(
        (WIDTH_MM, HEIGHT_MM), level_mm=1.0, gradient=(-0.002, 0.004), bow_mm=(5.0, 2.0), corner_mm=(1.0, 2.0)
    ),
    "left": TrueSurface((DEPTH_MM, HEIGHT_MM), level_mm=3.0, gradient=(0.008, 0.004), bow_mm=(0.5, -3.0)),
    "right": TrueSurface((DEPTH_MM, HEIGHT_MM), level_mm=WIDTH_MM + 2.0, gradient=(-0.006, -0.003), bow_mm=(0.5, 2.0)),
}
SEAT_MM, TABLE_MM, COVERING_MM, SKIRTING_MM = 455.0, 735.0, 8.0, 64.0
WINDOW = WallOpening(
    id="window", name="Lever window", x_mm=930.0, width_mm=900.0, height_mm=900.0, sill_mm=960.0, covering_mm=60.0
)
LEVERS = Existing(
    id="levers",
    name="Lever frame",
    x_mm=1010.0,
    width_mm=740.0,
    height_mm=300.0,
    depth_mm=380.0,
    clear_mm=20.0,
)


def signal_cabin() -> Job:
    """Return the demo job: a seat in three parts along the south wall, the middle one over the lever frame."""
    place = _place()
    readings = read_round(place, TRUTHS, LINES, LASER, seed=620)
    return Job(
        name="Signal cabin",
        address="Halt at Marren Bridge",
        note="The cabin becomes a study. The lever frame stays and is built over; the seat faces the writing table.",
        instruments=(LASER,),
        kit=demo_kit(),
        sessions=evenings_and_saturdays("Edda", "Rike"),
        constructions=(
            Construction(id="made", name="Sides through, back in a groove, face frame", face_frame=FramedFront()),
            Construction(id="plain", name="Sides through, back applied", back="applied"),
        ),
        places=(with_facts(place, READING_KINDS, numbered(readings, "sc", "Edda", BEGUN)),),
        way_in=(Stair(name="Cabin stair", width_mm=720.0, headroom_mm=1900.0, slope_deg=44.0),),
    )


def _place() -> Place:
    return Place(
        id="south-bench",
        name="South bench",
        kind="alcove",
        width_mm=WIDTH_MM,
        depth_mm=DEPTH_MM,
        height_mm=HEIGHT_MM,
        surfaces=("floor", "back", "left", "right"),
        set_ups=(LEVEL, PLUMB, ACROSS),
        units=_units(),
        rules=_rules(),
        heights=(
            HeightStack(
                id="seat",
                units=("A", "B", "C"),
                tops=("S", "Q"),
                members=(
                    Member(name="covering", high_mm=COVERING_MM),
                    Member(name="base", high_mm=SKIRTING_MM),
                    Member(name="box", high_mm=320.0),
                    Member(name="board", high_mm=18.0),
                    Member(name="cushion", high_mm=54.0),
                ),
                finished_mm=SEAT_MM,
                gives="box",
                base_as="skirting",
                beside_mm=TABLE_MM,
                beside="a table",
            ),
        ),
        existing=(LEVERS,),
        openings=(WINDOW,),
        facts=(_skirting(), *_studs()),
        backing=Backing(),
    )


def _units() -> tuple[Unit, ...]:
    base = BaseFrame(height_mm=SKIRTING_MM)
    chest = Unit(
        id="A",
        name="A Chest",
        kind="bench",
        x_mm=30.0,
        width_mm=880.0,
        depth_mm=500.0,
        height_mm=391.0,
        toe_recess_mm=40.0,
        fixing_heights_mm=(340.0,),
        standing=base,
        ready_made=False,
        holds="bedding",
        insides=Insides(built="plain", cell=Cell(holds=(_blanket(),))),
    )
    tools = Unit(
        id="C",
        name="C Tools",
        kind="bench",
        x_mm=1850.0,
        width_mm=880.0,
        depth_mm=500.0,
        height_mm=391.0,
        toe_recess_mm=40.0,
        fixing_heights_mm=(340.0,),
        standing=base,
        ready_made=False,
        holds="tools",
        insides=Insides(
            built="made",
            cell=Cell(
                fill=Columns(
                    cells=(
                        Cell(fill=Drawers(count=2)),
                        Cell(
                            size_mm=300.0,
                            fill=Shelved(count=1),
                            door=Door(hangs="left", lies="inset", hinge="butt"),
                        ),
                    )
                )
            ),
        ),
    )
    return (chest, _platform(), tools, _board(), _cushion(), _shelf_box())


def _platform() -> Unit:
    return Unit(
        id="B",
        name="B Platform",
        kind="platform",
        x_mm=910.0,
        width_mm=940.0,
        depth_mm=500.0,
        height_mm=391.0,
        toe_recess_mm=0.0,
        fixing_heights_mm=(),
        standing=Legs(long_mm=400.0, finished_mm=321.0),
        holds="a person sitting",
        fastened_to=("neighbours",),
        body=Framing(narrow_mm=45.0, wide_mm=70.0, deck_mm=0.0, most_apart_mm=400.0, load_kg_per_m2=250.0),
    )


def _board() -> Unit:
    return Unit(
        id="S",
        name="S Seat board",
        kind="top",
        x_mm=0.0,
        width_mm=WIDTH_MM,
        depth_mm=520.0,
        height_mm=18.0,
        over_base_mm=391.0,
        fixing_heights_mm=(),
        meets=("left", "right", "back"),
        standing=OnPieces(pieces=("A", "B", "C")),
        fastened_to=("under it",),
        ready_made=False,
        holds="a person sitting",
        board=Board(material="plywood", load_kg_per_m=30.0, stock_mm=2440.0),
        holes=(
            Hole(
                id="lid-a",
                name="Chest lid",
                kind="lid",
                inside="top",
                at=(110.0, 20.0),
                size=(740.0, 390.0),
                strip_mm=90.0,
            ),
        ),
    )


def _cushion() -> Unit:
    return Unit(
        id="Q",
        name="Q Cushion",
        kind="cushion",
        x_mm=20.0,
        width_mm=1900.0,
        depth_mm=500.0,
        height_mm=54.0,
        over_base_mm=409.0,
        fixing_heights_mm=(),
        toe_recess_mm=0.0,
        standing=OnPieces(pieces=("S",)),
    )


def _shelf_box() -> Unit:
    """The box that stands on the seat board at the right: books, and a lamp whose plug must pass its back."""
    return Unit(
        id="D",
        name="D Book box",
        kind="shelves",
        x_mm=1960.0,
        width_mm=760.0,
        depth_mm=260.0,
        height_mm=1100.0,
        over_base_mm=409.0,
        toe_recess_mm=0.0,
        fixing_heights_mm=(550.0, 1040.0),
        standing=OnPieces(pieces=("S",)),
        ready_made=False,
        holds="books",
        board=Board(material="plywood"),
        insides=Insides(built="plain", cell=Cell(fill=Shelved(count=2, held="fixed"))),
        holes=(
            Hole(
                id="lamp",
                name="Lamp cable",
                kind="cable hole",
                inside="back",
                at=(60.0, 60.0),
                size=(60.0, 60.0),
                plug_mm=45.0,
            ),
        ),
    )


def _blanket() -> Content:
    return Content(
        name="Blanket box", width_mm=400.0, depth_mm=420.0, height_mm=220.0, weight_kg=6.0, count=2, room_mm=20.0
    )


def _rules() -> tuple[Rule, ...]:
    def left(of: str) -> Edge:
        return Edge(of=of, edge="left")

    def right(of: str) -> Edge:
        return Edge(of=of, edge="right")

    return (
        LinedUp(id="r1", edge=left("A"), to=left(PLACE), off_mm=25.0),
        LinedUp(id="r2", edge=right("C"), to=right(PLACE), off_mm=-25.0),
        LinedUp(id="r3", edge=left("B"), to=right("A")),
        LinedUp(id="r4", edge=left("C"), to=right("B")),
        Wide(id="r5", unit="B", wide_mm=940.0),
        Centred(id="r6", units=("B",), on="window"),
    )


def _skirting() -> Obstacle:
    return Obstacle(
        id="skirting",
        taken_at=BEGUN,
        taken_by="Edda",
        name="Skirting",
        kind="skirting",
        surface="back",
        at=(0.0, 0.0),
        size=(WIDTH_MM, SKIRTING_MM),
        proud_mm=12.0,
        treatment="remove",
        note="Taken off behind the seat, and put back in front of its base.",
    )


def _studs() -> tuple[Detection, ...]:
    spots = [(at, by) for at in (180.0, 782.0, 1380.0, 1984.0, 2580.0) for by in ("scanner", "magnet")]
    return tuple(
        Detection(
            id=f"stud-{i + 1}",
            at=(at + (5.0 if by == "magnet" else 0.0), 800.0),
            found_by="magnet" if by == "magnet" else "scanner",
            sees="screw" if by == "magnet" else "centre",
            taken_at=BEGUN,
            taken_by="Edda",
        )
        for i, (at, by) in enumerate(spots)
    )
