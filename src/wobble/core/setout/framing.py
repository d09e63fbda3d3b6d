"""What is laid out of members and boards: frames under decks, boards over a wall, trim, walls that things hang on.

Bending of members: one span, evenly loaded, 5 w l⁴ / (384 E I) and w l² / 8 W. Strength: EN 338 C16, 16 N/mm², by
k_mod 0.8 and γ_M 1.3 of EN 1995-1-1, and loads by 1.5, which leaves 6.5 N/mm². Planning figures.
"""

from __future__ import annotations

import itertools
import math

from wobble.core.contents import GRAVITY
from wobble.core.figure import Figure, Step
from wobble.core.job import Boarding, Framing, HangingWall, Place, TrimSet, Unit, Value
from wobble.core.length import LengthUnit, format_length
from wobble.core.setout.boards import MATERIALS, MODULUS_SPREAD, SAG_SHARE
from wobble.core.setout.divide import Divided, DivideError, equal_trim, true_boards

ALLOWED_MPA = 6.5
"""What a member may be bent to, N/mm²: the head of this module says how it comes about."""
MOST_MEMBERS = 200
EDGE_MM = 5.0
"""Two members nearer than this are one."""
PEG_KG_PER_PEG = 8.0
"""What one peg of 20 mm hardwood, let in 18 mm and standing out a hand's length, is planned to carry."""


class MemberLine(Value, frozen=True, kw_only=True):
    """One member: where its left (or rear) edge is from the frame's own end, its length, and what it is under."""

    at_mm: float
    long_mm: float
    under: str = ""


LEAST_LONG_MM = 1.0
"""A member that would be shorter is none: the rails fill the frame."""


class FrameLaid(Value, frozen=True, kw_only=True):
    """A frame as it comes out.

    Attributes:
        wide_mm: Its length over all along the wall. deep_mm: From its rear edge to its front, without fascia.
        members: From the left (or from the back). span_mm: What each spans. bends: In the middle under its load.
        limit_mm: A three-hundredth of the span. bent_mpa: How much it is bent. other_way: How many times as much the
            same member would bend lying the other way.
        deck_span_mm: The deck's longest span between members.
    """

    wide_mm: float
    deep_mm: float
    members: tuple[MemberLine, ...]
    span_mm: float
    bends: Figure
    limit_mm: float
    bent_mpa: float
    other_way: float
    deck_span_mm: float

    @property
    def holds_members(self) -> bool:
        """Whether there is room for members beside each other, and for their length between the rails."""
        return self.deck_span_mm >= 0 and all(m.long_mm > LEAST_LONG_MM for m in self.members)

    @property
    def strong(self) -> bool:
        """Whether its members neither bend too far nor too hard."""
        return self.bends.value_mm <= self.limit_mm and self.bent_mpa <= ALLOWED_MPA


def frame_laid(unit: Unit, body: Framing, place: Place) -> FrameLaid:
    """Return a frame's members: at both ends, under every unit's middle that it carries, none too far apart."""
    upright, lying = (body.wide_mm, body.narrow_mm) if body.stands == "on edge" else (body.narrow_mm, body.wide_mm)
    deep = max(unit.depth_mm - body.front_back_mm - body.rear_off_mm - body.fascia_mm, 1.0)
    along, span = (unit.width_mm, deep) if body.across else (deep, unit.width_mm)
    lines: list[tuple[float, str]] = [(lying / 2, "end"), (along - lying / 2, "end")]
    if body.across:
        lines += [(at, name) for at, name in _carried(unit, place) if lying / 2 < at < along - lying / 2]
    lines = _apart(sorted(lines), lying)
    placed: list[tuple[float, str]] = [lines[0]]
    for at, name in lines[1:]:
        gap = at - placed[-1][0]
        n = min(math.ceil((gap - lying) / body.most_apart_mm - 1e-9), MOST_MEMBERS) if gap > lying else 1
        before = placed[-1][0]
        placed += [(before + gap * (k + 1) / n, "") for k in range(max(n, 1) - 1)]
        placed.append((at, name))
    long = max(span - 2 * body.narrow_mm, LEAST_LONG_MM)
    members = tuple(MemberLine(at_mm=at - lying / 2, long_mm=long, under=name) for at, name in placed)
    apart = max((b.at_mm - a.at_mm for a, b in itertools.pairwise(members)), default=along)
    bends, bent = _bending(body, span, apart, upright, lying)
    return FrameLaid(
        wide_mm=unit.width_mm,
        deep_mm=deep,
        members=members,
        span_mm=span,
        bends=bends,
        limit_mm=span * SAG_SHARE,
        bent_mpa=bent,
        other_way=(upright / lying) ** 2,
        deck_span_mm=apart - lying,
    )


def _carried(unit: Unit, place: Place) -> list[tuple[float, str]]:
    """Return the middles of units that stand on a frame, from its left end."""
    top = unit.over_base_mm + unit.height_mm
    return [
        (u.x_mm + u.width_mm / 2 - unit.x_mm, u.id)
        for u in place.units
        if u.id != unit.id and abs(u.over_base_mm - top) < 3.0 and u.x_mm < unit.right_mm and u.right_mm > unit.x_mm
    ]


def _apart(lines: list[tuple[float, str]], lying: float) -> list[tuple[float, str]]:
    """Return lines without those that would lie in the one before; ends stay."""
    out: list[tuple[float, str]] = []
    for at, name in lines:
        if out and at - out[-1][0] < lying + EDGE_MM:
            if name == "end":
                if out[-1][1] != "end":
                    out.pop()
                out.append((at, name))
            continue
        out.append((at, name))
    return out


def _bending(body: Framing, span: float, apart: float, upright: float, lying: float) -> tuple[Figure, float]:
    load = body.load_kg_per_m2 * GRAVITY / 1e6 * apart  # N per mm
    inertia = lying * upright**3 / 12
    modulus = MATERIALS[body.material].modulus_mpa
    bends = 5 * load * span**4 / (384 * modulus * inertia)
    bent = load * span**2 / 8 / (inertia / (upright / 2))
    step = Step(label=f"{body.load_kg_per_m2:g} kg/m² evenly on a member between its ends, 5wl⁴/384EI", value_mm=bends)
    return Figure(value_mm=bends, sd_mm=bends * MODULUS_SPREAD, working=(step,)), bent


class BoardsLaid(Value, frozen=True, kw_only=True):
    """Boards or trim over a wall: where each begins, how wide the last is, and the division in words."""

    at: tuple[float, ...]
    board_mm: float
    last_mm: float | None
    gap_mm: float
    words: str
    fault: str = ""


def boards_laid(unit: Unit, body: Boarding | TrimSet, units: LengthUnit) -> BoardsLaid:
    """Return how boards cover a wall from the first, or trim is spaced; what cannot be is said in `fault`."""
    try:
        match body:
            case Boarding(runs=runs, board_mm=board, gap_mm=gap, cap_mm=cap):
                along = unit.width_mm if runs == "up" else unit.height_mm - cap
                divided = _from_the_first(along, board, gap, units)
                width = board
            case TrimSet(piece_mm=piece, most_apart_mm=apart, seams_mm=seams):
                divided = equal_trim(unit.width_mm, apart, piece, seams, units)
                width = piece
    except DivideError as fault:
        wide = body.board_mm if isinstance(body, Boarding) else body.piece_mm
        return BoardsLaid(
            at=(), board_mm=wide, last_mm=None, gap_mm=0.0, words="", fault=f"{fault.message} {fault.mend}"
        )
    return BoardsLaid(
        at=divided.at, board_mm=width, last_mm=divided.last_mm, gap_mm=divided.opening_mm, words=divided.working
    )


def _from_the_first(along: float, board: float, gap: float, units: LengthUnit) -> Divided:
    """Boards start whole at the first one, which is set level or plumb; only the last is ripped."""
    laid = true_boards(along, board, gap, units)
    whole = math.floor((along + gap) / (board + gap))
    rest = along - whole * (board + gap)
    if laid.last_mm is None or rest <= gap:
        return laid
    return Divided(
        opening_mm=gap,
        last_mm=rest,
        at=tuple(k * (board + gap) for k in range(whole + 1)),
        working=f"{whole} whole boards from the first, the last ripped to {format_length(rest, units, decimals=1)}",
    )


class HangingLaid(Value, frozen=True, kw_only=True):
    """A wall that things hang on: heights of its members over its underside, what it carries, and its moment.

    `moment_nm` is what their weights turn out of the wall; `off_line` are those that hang between members.
    """

    at: tuple[float, ...]
    carries_kg: float
    moment_nm: float
    off_line: tuple[str, ...]
    too_heavy: tuple[str, ...]


def hanging_laid(unit: Unit, body: HangingWall) -> HangingLaid:
    """Return where the members of a hanging wall lie, and what they carry."""
    n = max(1, math.floor((unit.height_mm - body.member_mm) / body.pitch_mm) + 1)
    at = tuple(k * body.pitch_mm for k in range(min(n, 400)))
    off, heavy = [], []
    for thing in body.hangs:
        height = thing.at[1]
        near = any(low - EDGE_MM <= height <= low + body.member_mm + EDGE_MM for low in at)
        if not near or thing.at[0] > unit.width_mm:
            off.append(thing.id)
        if body.by == "pegs" and thing.weight_kg > PEG_KG_PER_PEG:
            heavy.append(thing.id)
    return HangingLaid(
        at=at,
        carries_kg=sum(t.weight_kg for t in body.hangs),
        moment_nm=sum(t.weight_kg * GRAVITY * t.out_mm / 1000 for t in body.hangs),
        off_line=tuple(off),
        too_heavy=tuple(heavy),
    )
