"""The Drying loft: a potter's, all made up. A rack under the ceiling, shelves on cleats, pegs; no floor is used."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from msgspec.structs import replace

from wobble.core.facts import READING_KINDS, AsSet, Fact, FoundBy, Note, StepDone
from wobble.core.job import (
    Backing,
    Board,
    Content,
    Detection,
    Edge,
    Framing,
    FrontEdge,
    Hanging,
    HangingWall,
    Hung,
    Instrument,
    Job,
    LinedUp,
    OnCleats,
    Place,
    SetUp,
    StandUp,
    SurfaceName,
    Unit,
    WallOpening,
    with_facts,
)
from wobble.core.job.rules import PLACE
from wobble.core.practice.gable import demo_kit
from wobble.core.practice.rooms import Hump, TrueSurface
from wobble.core.practice.survey import numbered, read_round

WIDTH_MM, DEPTH_MM, HEIGHT_MM = 2620.0, 760.0, 2500.0
BEGUN = datetime(2026, 4, 11, 9, 20, tzinfo=UTC)
LASER = Instrument(id="laser", name="Cross-line laser and rule", kind="laser line", sigma_mm=0.6)
LEVEL = SetUp(id="line", name="Level line at eye height", across="z", at_mm=1400.0)
PLUMB = SetUp(id="plumb", name="Plumb plane off the back", across="y", at_mm=900.0)
ACROSS = SetUp(id="across", name="Plumb plane up the middle", across="x", at_mm=1310.0)
LINES: dict[SurfaceName, SetUp] = {"ceiling": LEVEL, "back": PLUMB, "left": ACROSS, "right": ACROSS}
TRUTHS: dict[SurfaceName, TrueSurface] = {
    "back": TrueSurface(
        (WIDTH_MM, HEIGHT_MM),
        level_mm=2.0,
        gradient=(0.002, 0.003),
        bow_mm=(6.0, -3.0),
        humps=(Hump(-3.5, (1700.0, 900.0), (400.0, 350.0)),),
        corner_mm=(2.0, 1.0),
    ),
    "left": TrueSurface((DEPTH_MM, HEIGHT_MM), level_mm=4.0, gradient=(0.006, -0.004), bow_mm=(0.0, 4.0)),
    "right": TrueSurface((DEPTH_MM, HEIGHT_MM), level_mm=WIDTH_MM - 5.0, gradient=(-0.004, 0.006), bow_mm=(0.0, -3.0)),
    "ceiling": TrueSurface(
        (WIDTH_MM, DEPTH_MM), level_mm=HEIGHT_MM - 6.0, gradient=(0.004, -0.005), bow_mm=(-5.0, 0.0)
    ),
}
LEFT_STUDS: tuple[tuple[float, FoundBy], ...] = (
    (60.0, "scanner"),
    (62.0, "magnet"),
    (262.0, "scanner"),
    (266.0, "magnet"),
)
SHELVES_MM = (620.0, 1000.0, 1380.0)
WINDOW = WallOpening(
    id="window", name="North light", x_mm=1640.0, width_mm=700.0, height_mm=650.0, sill_mm=1300.0, covering_mm=30.0
)


def drying_loft() -> Job:
    """Return the demo job: back, side walls and ceiling read from three planes; nothing stands on the floor."""
    place = _place()
    readings = read_round(place, TRUTHS, LINES, LASER, seed=510)
    return Job(
        name="Drying loft",
        address="Over the kiln at Clay Yard",
        note="Ware dries on shelves and a rack; tools hang on pegs. The floor stays free for the cart.",
        instruments=(LASER,),
        kit=demo_kit(),
        places=(_begun(with_facts(place, READING_KINDS, numbered(readings, "dl", "Noor", BEGUN))),),
        way_in=(StandUp(name="Loft hatch, then upright", height_mm=2380.0),),
    )


def _place() -> Place:
    shelves = tuple(_shelf(i, over) for i, over in enumerate(SHELVES_MM))
    rack = Unit(
        id="R",
        name="R Rack",
        kind="rack",
        x_mm=200.0,
        width_mm=1900.0,
        depth_mm=600.0,
        height_mm=70.0,
        over_base_mm=1960.0,
        standing=Hung(by="ledger"),
        fastened_to=("back", "ceiling"),
        fixing_heights_mm=(35.0,),
        support_inset_mm=60.0,
        weight_kg=22.0,
        body=Framing(wide_mm=70.0, narrow_mm=45.0, most_apart_mm=400.0, deck_mm=18.0, load_kg_per_m2=60.0),
        things=(
            Content(
                name="Ware board of bowls",
                width_mm=560.0,
                depth_mm=300.0,
                height_mm=160.0,
                weight_kg=9.0,
                count=6,
            ),
        ),
    )
    pegs = Unit(
        id="P",
        name="P Pegs",
        kind="peg wall",
        x_mm=1640.0,
        width_mm=700.0,
        depth_mm=18.0,
        height_mm=620.0,
        over_base_mm=600.0,
        fixing_heights_mm=(40.0, 580.0),
        body=HangingWall(
            by="pegs",
            pitch_mm=150.0,
            member_mm=20.0,
            behind_mm=20.0,
            hangs=(
                Hanging(id="loops", name="Turning tools", at=(120.0, 450.0), weight_kg=1.5, out_mm=90.0),
                Hanging(id="rolls", name="Slab rollers", at=(460.0, 300.0), weight_kg=6.0, out_mm=120.0),
                Hanging(id="sieve", name="Glaze sieves", at=(300.0, 0.0), weight_kg=2.5, out_mm=140.0),
            ),
        ),
    )
    return Place(
        id="north-end",
        name="North end",
        kind="overhead",
        character="rough",
        width_mm=WIDTH_MM,
        depth_mm=DEPTH_MM,
        height_mm=HEIGHT_MM,
        surfaces=("back", "left", "right", "ceiling"),
        set_ups=(LEVEL, PLUMB, ACROSS),
        units=(*shelves, pegs, rack),
        rules=(
            *(
                LinedUp(id=f"r{i + 1}", edge=Edge(of=s.id, edge="left"), to=Edge(of=PLACE, edge="left"))
                for i, s in enumerate(shelves)
            ),
            LinedUp(id="r8", edge=Edge(of="P", edge="left"), to=Edge(of="window", edge="left")),
            LinedUp(id="r9", edge=Edge(of="P", edge="right"), to=Edge(of="window", edge="right")),
        ),
        openings=(WINDOW,),
        facts=(*_studs(), *_joists()),
        backing=Backing(),
        overhead=Backing(runs="out"),
    )


def _shelf(i: int, over: float) -> Unit:
    """Return one of the three shelves at the left, each its own trapezoid between the wall and its free end."""
    unit = Unit(
        id="ABC"[i],
        name=f"{'ABC'[i]} Ware shelf",
        kind="shelf",
        x_mm=0.0,
        width_mm=1400.0,
        depth_mm=320.0,
        height_mm=22.0,
        over_base_mm=over,
        fixing_heights_mm=(),
        toe_recess_mm=0.0,
        standing=OnCleats(),
        meets=("left", "back"),
        fastened_to=("left", "back"),
        ready_made=False,
        board=Board(material="ash", load_kg_per_m=18.0, stock_mm=2400.0, edge=FrontEdge(thick_mm=20.0, high_mm=60.0)),
    )
    return replace(unit, depth_mm=380.0) if i == 0 else unit


def _studs() -> tuple[Detection, ...]:
    left = tuple(
        Detection(
            id=f"left-{i + 1}",
            surface="left",
            at=(out, 1200.0),
            found_by=by,
            sees="centre" if by == "scanner" else "screw",
            taken_at=BEGUN,
            taken_by="Noor",
        )
        for i, (out, by) in enumerate(LEFT_STUDS)
    )
    spots = [(at, by) for at in (140.0, 742.0, 1338.0, 1944.0, 2540.0) for by in ("scanner", "magnet")]
    return left + tuple(
        Detection(
            id=f"stud-{i + 1}",
            at=(at + (4.0 if by == "magnet" else 0.0), 1200.0),
            found_by="magnet" if by == "magnet" else "scanner",
            sees="screw" if by == "magnet" else "centre",
            taken_at=BEGUN,
            taken_by="Noor",
        )
        for i, (at, by) in enumerate(spots)
    )


def _joists() -> tuple[Detection, ...]:
    found: FoundBy = "nail seen"
    spots = [(at, out) for at in (60.0, 460.0, 858.0, 1262.0, 1660.0, 2058.0, 2460.0) for out in (120.0, 380.0, 620.0)]
    return tuple(
        Detection(
            id=f"joist-{i + 1}",
            surface="ceiling",
            at=spot,
            found_by=found,
            sees="screw",
            taken_at=BEGUN,
            taken_by="Noor",
        )
        for i, spot in enumerate(spots)
    )


def _begun(place: Place) -> Place:
    """Return the place after a first evening: what was bought, the lowest cleats up and tried, what was agreed."""
    later = BEGUN + timedelta(days=4)
    done: tuple[Fact, ...] = (
        StepDone(
            id="dl-buy", taken_at=later, taken_by="Noor", step="buy", name="Buy what is not at hand", minutes=85.0
        ),
        Note(
            id="dl-oil",
            taken_at=later,
            taken_by="Noor",
            text="Shelves oiled; pegs left bare",
            kind="agreed",
        ),
        StepDone(
            id="dl-cleats",
            taken_at=later + timedelta(hours=3),
            taken_by="Noor",
            step=f"hang-on/{place.id}/A",
            name="Fix what A Ware shelf rests on",
            minutes=35.0,
        ),
        AsSet(
            id="dl-bites",
            taken_at=later + timedelta(hours=3, minutes=2),
            taken_by="Noor",
            check=f"bites/{place.id}/A/rests",
            came="right",
            of="A",
        ),
    )
    return replace(place, facts=(*place.facts, *done))
