"""Named places and surveys that the tests share: plain truths whose answers can be worked out by hand."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import UTC, datetime
from typing import Any

from wobble.core.hold.fastened.required import Held
from wobble.core.hold.result import PlaceHold
from wobble.core.job import (
    Detection,
    Instrument,
    Job,
    Obstacle,
    Offset,
    Place,
    Reading,
    SetUp,
    ShimKit,
    ShimPiece,
    Slope,
    SurfaceName,
    Unit,
)

WHEN = datetime(2026, 3, 7, 9, 30, tzinfo=UTC)
EXACT = Instrument(id="exact", name="Exact", kind="water level", sigma_mm=0.01)
RULE = Instrument(id="rule", name="Rule", sigma_mm=0.5)
LINE = SetUp(id="line", name="Level line", across="z", at_mm=1000.0, made_with="exact")
LOST_LINE = SetUp(id="lost", name="Moved line", across="z", made_with="exact")
PLUMB = SetUp(id="plumb", name="Plumb plane", across="y", at_mm=500.0, made_with="exact")

Surface = Callable[[float, float], float]


def floor_at(
    spots: Sequence[tuple[float, float]],
    height: Surface,
    *,
    line: SetUp = LINE,
    line_at: float = 1000.0,
    instrument: Instrument = EXACT,
    prefix: str = "f",
) -> tuple[Offset, ...]:
    """Return readings down from a line, exactly as the floor's height over the mark makes them."""
    return tuple(
        offset(f"{prefix}{i}", "floor", at, line_at - height(*at), line=line, instrument=instrument)
        for i, at in enumerate(spots)
    )


def offset(
    id_: str,
    surface: SurfaceName,
    at: tuple[float, float],
    value: float,
    *,
    line: SetUp = LINE,
    instrument: Instrument = EXACT,
) -> Offset:
    """Return one reading from a line."""
    return Offset(
        id=id_, instrument=instrument.id, taken_at=WHEN, surface=surface, at=at, set_up=line.id, value_mm=value
    )


def slope(id_: str, start: tuple[float, float], end: tuple[float, float], rise: float) -> Slope:
    """Return one level reading on the floor."""
    return Slope(id=id_, instrument=EXACT.id, taken_at=WHEN, surface="floor", start=start, end=end, value=rise)


def grid(width: float, depth: float, n_along: int, n_out: int) -> list[tuple[float, float]]:
    """Return an even grid of spots, edges included."""
    return [(width * i / (n_along - 1), depth * j / (n_out - 1)) for j in range(n_out) for i in range(n_along)]


def job_of(
    *readings: Reading,
    width: float = 3000.0,
    depth: float = 600.0,
    units: tuple[Unit, ...] = (),
    set_ups: tuple[SetUp, ...] = (LINE, LOST_LINE, PLUMB),
    surfaces: tuple[SurfaceName, ...] = ("floor", "back"),
    kit: ShimKit | None = None,
    detections: tuple[Detection, ...] = (),
    obstacles: tuple[Obstacle, ...] = (),
    **place: object,
) -> Job:
    """Return a job of one place."""
    made = Place(
        id="place",
        name="Place",
        width_mm=width,
        depth_mm=depth,
        height_mm=2400.0,
        set_ups=set_ups,
        surfaces=surfaces,
        facts=(*readings, *detections, *obstacles),
        units=units,
        **place,  # type: ignore[arg-type]
    )
    return Job(name="Test", instruments=(EXACT, RULE), kit=kit or plain_kit(), places=(made,))


def plain_kit() -> ShimKit:
    """Return a kit of 1, 2 and 5 mm shims, as many as wanted, and no tapers."""
    return ShimKit(pieces=tuple(ShimPiece(thickness_mm=t) for t in (1.0, 2.0, 5.0)), tapers=())


def box(id_: str = "A", x: float = 0.0, width: float = 600.0, **more: object) -> Unit:
    """Return a base unit whose supports stand exactly at its corners, 560 deep."""
    plain: dict[str, object] = {"depth_mm": 560.0, "height_mm": 720.0, "toe_recess_mm": 0.0, "support_inset_mm": 0.0}
    plain |= {"holds": "nothing"}
    return Unit(id=id_, name=f"Unit {id_}", x_mm=x, width_mm=width, **(plain | more))  # type: ignore[arg-type]


class Screwed:
    """How a unit is held, with its own screws and what it rests on."""

    def __init__(self, held: Held, hold: PlaceHold) -> None:
        self.held = held
        self.points = tuple(f for f in hold.fasteners if f.id in held.fasteners)
        self.rests_on = next((ledger for ledger in hold.ledgers if ledger.id == held.ledger), None)

    def __getattr__(self, name: str) -> Any:
        return getattr(self.held, name)


def screwed(hold: PlaceHold) -> tuple[Screwed, ...]:
    """Return every unit of a place as it is held."""
    return tuple(Screwed(held, hold) for held in hold.held)
