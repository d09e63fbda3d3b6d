"""What a plan comes to in things: parts to make, and fasteners to drive; later stages read these two lists alone."""

from __future__ import annotations

from typing import Literal

from wobble.core.facts import Behind
from wobble.core.figure import Figure
from wobble.core.job import Curve, Value
from wobble.core.packing import Filling

FastenerKind = Literal["screw", "lag screw", "anchor", "eye bolt"]
Role = Literal[
    "filler",
    "end panel",
    "cover moulding",
    "top",
    "shelf",
    "cleat",
    "stile",
    "mullion",
    "ledger",
    "split batten",
    "timber",
    "nailer",
    "spacer",
    "bridging member",
    "leg",
    "plinth",
    "skirting return",
    "head strip",
    "packing block",
    "side",
    "bottom",
    "carcass top",
    "stretcher",
    "divider",
    "fixed shelf",
    "loose shelf",
    "back",
    "toe kick",
    "base frame",
    "rail",
    "door",
    "drawer side",
    "drawer end",
    "drawer bottom",
    "drawer front",
    "pull-out board",
    "panel",
    "member",
    "deck",
    "fascia",
    "board",
    "cap",
    "trim",
    "batten",
    "peg board",
    "peg",
    "cushion board",
    "edging",
]
When = Literal["now", "after", "marked in place", "glued, then trimmed"]


class Fastener(Value, frozen=True, kw_only=True):
    """One screw, bolt or anchor, with what is packed behind the part that it goes through.

    Attributes:
        id: Its own, the same while it stands at the same spot. kind: What it is. unit: Of which unit.
        part: Through what: a rail, a strap, a ledger, a batten, a timber, a cleat, a base, a side.
        joins: What it goes through, and what it holds in: units by their ids, surfaces by their names.
        surface: Into which surface; None where it goes into another unit or part.
        at: Where on that surface; without one, up over the run's base and out from the backs, mm.
        order: Its turn in the drilling list, from 1. bites: Chance that it meets what holds, 0 to 1.
        packing: What is packed behind the part there, and `filling` how; None where nothing need be.
        shank_mm: Its diameter. screw_mm: Its length, as sold. long: What that is built up from.
        reach_mm: How deep in what holds. through_mm: Thickness of what it goes through first.
        pilot_mm: Hole in what holds; 0 for none. clearance_mm: Hole through the part.
        check: What to do before it is drilled; "" for nothing beyond the usual.
    """

    id: str
    kind: FastenerKind = "screw"
    unit: str
    part: str = "rail"
    joins: tuple[str, str]
    surface: Behind | None = "back"
    at: tuple[float, float]
    order: int = 0
    bites: float
    packing: Figure
    filling: Filling | None = None
    shank_mm: float
    screw_mm: float
    long: Figure
    reach_mm: float
    through_mm: float
    pilot_mm: float
    clearance_mm: float
    check: str = ""


class Dimension(Value, frozen=True, kw_only=True):
    """One size of a part as it is in the end: which, with its working."""

    label: str
    figure: Figure


class Box(Value, frozen=True, kw_only=True):
    """Where a part stands in its unit, mm: its corner nearest to left, back and underside, and its size that way.

    Along the unit from its left, out from its back, up from its underside: a back that lies behind the unit begins
    below zero.
    """

    x_mm: float
    y_mm: float
    z_mm: float
    wide_mm: float
    deep_mm: float
    high_mm: float


class Groove(Value, frozen=True, kw_only=True):
    """A groove or a rebate: how wide and deep, how far its near edge is from which edge of the part, and its box."""

    kind: Literal["groove", "rebate"]
    wide_mm: float
    deep_mm: float
    from_mm: float
    edge: str
    box: Box


HoleUse = Literal["shelf pin", "hinge cup", "screw", "pocket", "cable", "cut-out", "handle", "drain"]


class Drilling(Value, frozen=True, kw_only=True):
    """Holes of one sort in a part: how wide, how deep (0 for through), and where they are, in words too.

    `at` gives each one's middle, mm, along the part's length from its lower or left end, and across its width from its
    back edge, or its left or lower one where it stands at the front. `size_mm` is along and across, where not round.
    """

    use: HoleUse
    face: str
    diameter_mm: float
    size_mm: tuple[float, float] | None = None
    deep_mm: float = 0.0
    at: tuple[tuple[float, float], ...]
    words: str


class CutCorner(Value, frozen=True, kw_only=True):
    """A front corner that is cut off a board, as its unit's end is cut back.

    Attributes:
        end: At which end. along_mm: What its front edge loses. deep_mm: How far from the front the cut runs.
        rear_mm: What its rear edge loses, where the cut runs out there.
        angle_deg: Between the cut and the front edge. words: All of that.
    """

    end: Literal["left", "right"]
    along_mm: float
    deep_mm: float
    rear_mm: float = 0.0
    angle_deg: float
    words: str


class CurvedEdge(Value, frozen=True, kw_only=True):
    """An edge that is cut to a part of a circle.

    Attributes:
        curve: Which edge, how far it rises and which way. chord_mm: Its length along. radius_mm: Of the trammel.
        marks: Along the edge, and in from it, mm. words: All of that.
    """

    curve: Curve
    chord_mm: float
    radius_mm: float
    marks: tuple[tuple[float, float], ...]
    words: str


class Wait(Value, frozen=True, kw_only=True):
    """What must be known or done before a part may be cut: a key that a fact can name, and the words for it.

    `measured` says that the fact brings a length, which then takes the place of the size that was planned.
    """

    key: str
    words: str
    measured: bool = False


class Part(Value, frozen=True, kw_only=True):
    """One part to make, or several alike.

    Attributes:
        id: Its own. role: What it is. of: Units that it belongs to. name: What it is called.
        material: Of what, where that was said. thick_mm: Its thickness; 0 where it is bought to fit.
        blank_mm: Length and width to cut before anything is fitted. finished: Its sizes in the end.
        cuts: Cut lines of it, by their ids. quantity: How many alike.
        ready: What must be known or done before it may be cut; empty where it may be cut now.
        when: Whether it is cut now, after what `waits` names, marked in place, or glued up first.
        grain: Along its length, or of no matter. hand: For left or right, where the two are not alike.
        banded: Edges that are banded. seen: Faces that are seen. face_up: Which face lies up on the bench.
        end: What is written on its lower end. joins: How it is joined to the others.
        grooves, drillings: What is cut into it. corner: What is cut off it at an end. curve: An edge that is curved.
        bevel_deg: Of its long edge, from its face; 0 for square.
        boxes: Where each of them stands in its unit.
    """

    id: str
    role: Role
    of: tuple[str, ...]
    name: str
    material: str = ""
    thick_mm: float = 0.0
    blank_mm: tuple[float, float]
    finished: tuple[Dimension, ...] = ()
    cuts: tuple[str, ...] = ()
    quantity: int = 1
    ready: tuple[str, ...] = ()
    when: When = "now"
    waits: tuple[Wait, ...] = ()
    grain: Literal["length", ""] = ""
    hand: Literal["left", "right", ""] = ""
    banded: tuple[str, ...] = ()
    seen: tuple[str, ...] = ()
    face_up: str = ""
    end: str = ""
    joins: str = ""
    grooves: tuple[Groove, ...] = ()
    drillings: tuple[Drilling, ...] = ()
    corner: CutCorner | None = None
    curve: CurvedEdge | None = None
    bevel_deg: float = 0.0
    boxes: tuple[Box, ...] = ()
