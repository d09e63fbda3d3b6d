"""What lies against a wall or on something: boarding, trim, batten and peg walls, panels, boards under cushions."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.job import Boarding, HangingWall, TrimSet, Unit
from wobble.core.length import LengthUnit, spoken
from wobble.core.make.construction.sizes import board_part, box, sized
from wobble.core.part import Drilling, Part, Wait
from wobble.core.setout.framing import BoardsLaid, HangingLaid

CUSHION_BOARD_MM = 9.0
CUSHION_IN_MM = 5.0
"""What a cushion's board is smaller at each edge, for the cloth to be drawn round it."""
PEG_LONG_MM, PEG_MM, PEG_IN_MM = 110.0, 20.0, 18.0
STRIP_MM = 45.0


def boarded(unit: Unit, body: Boarding, laid: BoardsLaid) -> Iterator[Part]:
    """Yield the boards of a wall: whole ones, the last one ripped once the others are up, and the cap."""
    up = body.runs == "up"
    cap = body.cap_mm
    long = unit.height_mm - cap if up else unit.width_mm
    whole = len(laid.at) - (laid.last_mm is not None)
    length = sized(
        "long",
        ("Height of the wall" if up else "Width of the wall", long + (cap if up else 0.0)),
        ("Cap", -cap if up else 0.0),
    )

    def at(start: float, wide: float) -> tuple[float, float, float, float, float, float]:
        size = (wide, body.thick_mm, long) if up else (long, body.thick_mm, wide)
        return (start if up else 0.0, 0.0, 0.0 if up else start, *size)

    if whole > 0:
        yield board_part(
            "board",
            unit.id,
            unit.name,
            "boards",
            tuple(box(*at(x, body.board_mm)) for x in laid.at[:whole]),
            length,
            sized("wide", ("Board as measured", body.board_mm)),
            body.thick_mm,
            "pine",
        )
    if laid.last_mm is not None:
        last = board_part(
            "board",
            unit.id,
            unit.name,
            "last board",
            (box(*at(laid.at[-1], laid.last_mm)),),
            length,
            sized("wide", ("What is left beside the last whole board", laid.last_mm)),
            body.thick_mm,
            "pine",
            key="last",
        )
        wait = Wait(
            key=f"boards-up-{unit.id}", words="the other boards up: the gap that is left, at both ends", measured=True
        )
        yield replace(last, blank_mm=(long, body.board_mm), waits=(wait,))
    if cap > 0:
        yield board_part(
            "cap",
            unit.id,
            unit.name,
            "cap",
            (box(0.0, 0.0, unit.height_mm - cap, unit.width_mm, body.thick_mm, cap),),
            sized("long", ("Width of the wall", unit.width_mm)),
            sized("wide", ("Height of the cap", cap)),
            body.thick_mm,
            "pine",
        )


def trimmed(unit: Unit, body: TrimSet, laid: BoardsLaid) -> Iterator[Part]:
    """Yield upright trim: all of one length and width."""
    yield board_part(
        "trim",
        unit.id,
        unit.name,
        "trim",
        tuple(box(m - body.piece_mm / 2, 0.0, 0.0, body.piece_mm, body.thick_mm, unit.height_mm) for m in laid.at),
        sized("long", ("Height of the wall", unit.height_mm)),
        sized("wide", ("Piece as said", body.piece_mm)),
        body.thick_mm,
        "pine",
    )


def hung_on(unit: Unit, body: HangingWall, laid: HangingLaid, lengths: LengthUnit = "mm") -> Iterator[Part]:
    """Yield battens over each other; or a board with holes, its pegs, and the strips behind it."""
    if body.by == "battens":
        yield board_part(
            "batten",
            unit.id,
            unit.name,
            "battens",
            tuple(box(0.0, 0.0, z, unit.width_mm, body.thick_mm, body.member_mm) for z in laid.at),
            sized("long", ("Width of the wall", unit.width_mm)),
            sized("wide", ("Batten as said", body.member_mm)),
            body.thick_mm,
            "pine",
        )
        return
    holes = _peg_holes(unit, body)
    board = board_part(
        "peg board",
        unit.id,
        unit.name,
        "board for pegs",
        (box(0.0, body.behind_mm, 0.0, unit.width_mm, body.thick_mm, unit.height_mm),),
        sized("long", ("Width of the wall", unit.width_mm)),
        sized("wide", ("Height of the wall", unit.height_mm)),
        body.thick_mm,
        "plywood",
    )
    drilling = Drilling(
        use="screw",
        face="front face",
        diameter_mm=body.member_mm,
        deep_mm=PEG_IN_MM,
        at=holes,
        words=f"{len(holes)} holes for pegs, {spoken(body.pitch_mm, lengths)} apart both ways, 5° up; before paint"
        + _over_strips(unit, body, holes, lengths),
    )
    yield replace(board, drillings=(drilling,), seen=("front face",))
    yield Part(
        id=f"peg-{unit.id}",
        role="peg",
        of=(unit.id,),
        name=f"pegs of {unit.name}",
        material="beech",
        thick_mm=body.member_mm,
        blank_mm=(PEG_LONG_MM, body.member_mm),
        finished=(sized("long", ("Out of the board, and what is in it", PEG_LONG_MM)),),
        quantity=len(holes),
        grain="length",
    )
    if body.behind_mm > 0:
        yield board_part(
            "batten",
            unit.id,
            unit.name,
            "strips behind the board",
            tuple(box(0.0, 0.0, z, unit.width_mm, body.behind_mm, STRIP_MM) for z in _strips(unit)),
            sized("long", ("Width of the wall", unit.width_mm)),
            sized("wide", ("Strip", STRIP_MM)),
            body.behind_mm,
            "pine",
        )


def _strips(unit: Unit) -> tuple[float, float]:
    """Return where the strips behind a board begin, up from its foot."""
    return 0.0, max(unit.height_mm - STRIP_MM, 0.0)


def _over_strips(
    unit: Unit, body: HangingWall, holes: tuple[tuple[float, float], ...], lengths: LengthUnit = "mm"
) -> str:
    """Return what is told of holes with a strip behind them: a drill that goes through the board goes into it."""
    if body.behind_mm <= 0:
        return ""
    half = body.member_mm / 2
    over = sum(any(z - half < at < z + STRIP_MM + half for z in _strips(unit)) for _, at in holes)
    if not over or body.thick_mm > PEG_IN_MM:
        return ""
    return (
        f"; {over} of them lie over a strip behind: drill those before the strip is on, or the drill goes into it, and "
        f"keep screws {spoken(body.member_mm, lengths)} clear of them"
    )


def _peg_holes(unit: Unit, body: HangingWall) -> tuple[tuple[float, float], ...]:
    """Return where pegs go: on a square pitch, alike at both edges."""

    def row(long: float) -> list[float]:
        n = max(1, int((long - body.member_mm - 20.0) // body.pitch_mm) + 1)
        first = (long - (n - 1) * body.pitch_mm) / 2
        return [first + k * body.pitch_mm for k in range(n)]

    return tuple((x, z) for z in row(unit.height_mm) for x in row(unit.width_mm))


def cushion_board(unit: Unit) -> Iterator[Part]:
    """Yield the board under a cushion, smaller than it all round by the cloth's turn."""
    long, wide = unit.width_mm - 2 * CUSHION_IN_MM, unit.depth_mm - 2 * CUSHION_IN_MM
    yield board_part(
        "cushion board",
        unit.id,
        unit.name,
        "board",
        (box(CUSHION_IN_MM, CUSHION_IN_MM, 0.0, long, wide, CUSHION_BOARD_MM),),
        sized(
            "long", ("Length of the cushion", unit.width_mm), ("For the cloth to be drawn round", -2 * CUSHION_IN_MM)
        ),
        sized("wide", ("Depth of the cushion", unit.depth_mm), ("For the cloth to be drawn round", -2 * CUSHION_IN_MM)),
        CUSHION_BOARD_MM,
        "plywood",
    )


def panel(unit: Unit, material: str) -> Iterator[Part]:
    """Yield a panel: its least size is its thickness."""
    sizes = sorted((unit.width_mm, unit.depth_mm, unit.height_mm), reverse=True)
    names = {unit.width_mm: "Width", unit.depth_mm: "Depth", unit.height_mm: "Height"}
    part = board_part(
        "panel",
        unit.id,
        unit.name,
        "panel",
        (box(0.0, 0.0, 0.0, unit.width_mm, unit.depth_mm, unit.height_mm),),
        sized("long", (f"{names[sizes[0]]} of the panel", sizes[0])),
        sized("wide", (f"{names[sizes[1]]} of the panel", sizes[1])),
        sizes[2],
        material,
    )
    yield replace(part, seen=("front face",))
