"""What will stand, hang or lie in a place: cabinets, benches, shelves, tops, and how each is held up."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.job.board import Board
from wobble.core.job.framing import Body
from wobble.core.job.insides import Content, Hole, Insides
from wobble.core.value import Coordinate, Key, NotNegative, Positive, Title, Value

UnitKind = Literal[
    "base",
    "drawers",
    "tall",
    "wall",
    "bench",
    "shelves",
    "shelf",
    "top",
    "panel",
    "face frame",
    "base frame",
    "rack",
    "platform",
    "boarding",
    "trim",
    "moulding",
    "batten wall",
    "peg wall",
    "cushion",
    "stored",
]
FLAT: tuple[UnitKind, ...] = ("top", "shelf")
"""Kinds that lie flat between walls and are cut to them."""
ON_WALLS: tuple[UnitKind, ...] = ("boarding", "trim", "moulding", "batten wall", "peg wall")
"""Kinds that lie against a wall, piece by piece, and go in as boards."""
LAID: tuple[UnitKind, ...] = ("cushion", "stored")
"""Kinds that are laid or put where something else carries them, last of all, and fastened to nothing."""
LOOSE: tuple[UnitKind, ...] = ("top", "shelf", "face frame", *ON_WALLS, *LAID)
"""Kinds that stand in no run: what is cut to the walls by itself, lies against one, or is put on something."""
BODIES: dict[UnitKind, str] = {
    "base frame": "framing",
    "platform": "framing",
    "rack": "framing",
    "boarding": "boarding",
    "trim": "trim",
    "moulding": "moulding",
    "batten wall": "hanging wall",
    "peg wall": "hanging wall",
}
"""Which kinds have a body of their own, and which."""
TALL_FROM_MM = 1500.0
"""From this height on a unit is stood up like a tall one, whatever it is called."""


class OnShims(Value, frozen=True, kw_only=True, tag_field="on", tag="shims"):
    """Its own base stands on shims at four corners."""


class ToeKickBox(Value, frozen=True, kw_only=True, tag_field="on", tag="toe-kick box"):
    """It stands on a separate box of `height_mm`, which is levelled on shims first; part of the unit's height."""

    height_mm: Positive = 100.0


class BaseFrame(Value, frozen=True, kw_only=True, tag_field="on", tag="base frame"):
    """A frame of `height_mm` under the whole run, levelled once; the units are then set on it. Part of the height."""

    height_mm: Positive = 80.0


class ScrewFeet(Value, frozen=True, kw_only=True, tag_field="on", tag="feet"):
    """Four screw feet: rise of a full turn, least and most length under the box, and how long each is now.

    `now_mm` is in the order back left, back right, front right, front left; one number stands for all four.
    """

    pitch_mm: Annotated[float, Meta(gt=0, le=10)] = 1.5
    least_mm: NotNegative = 80.0
    most_mm: Positive = 120.0
    now_mm: Annotated[tuple[NotNegative, ...], Meta(min_length=1, max_length=4)] = (100.0,)


class Legs(Value, frozen=True, kw_only=True, tag_field="on", tag="legs"):
    """Four legs, each cut to length: `long_mm` as bought, `finished_mm` at the run's base line, part of the height."""

    long_mm: Positive = 720.0
    finished_mm: Positive = 680.0


class OnCleats(Value, frozen=True, kw_only=True, tag_field="on", tag="cleats"):
    """It lies on cleats `thick_mm` thick and `high_mm` high along the walls that it meets."""

    thick_mm: Positive = 20.0
    high_mm: Positive = 40.0


class Hung(Value, frozen=True, kw_only=True, tag_field="on", tag="hung"):
    """It hangs on the wall or from the ceiling, and nothing stands under it.

    On a wall it hangs by screws through its own rail, rests on a ledger that is fixed first, or hooks over a bevelled
    split batten `thick_mm` thick.
    """

    by: Literal["rail", "ledger", "split batten"] = "rail"
    thick_mm: Positive = 18.0


class OnPieces(Value, frozen=True, kw_only=True, tag_field="on", tag="pieces"):
    """It rests on other pieces, named by their ids: on a box, a platform, a counter that stays, a top."""

    pieces: Annotated[tuple[Key, ...], Meta(min_length=1, max_length=40)]


Standing = OnShims | ToeKickBox | BaseFrame | ScrewFeet | Legs | OnCleats | Hung | OnPieces
FastenedTo = Literal["back", "left", "right", "ceiling", "floor", "neighbours", "under it", "nothing"]


Contents = Literal[
    "not said",
    "nothing",
    "crockery",
    "books",
    "files",
    "tools",
    "bedding",
    "clothes",
    "tins",
    "a person sitting",
    "a person standing",
]
Opens = Literal["nothing", "door hinged left", "door hinged right", "pair of doors", "drawers"]


class Front(Value, frozen=True, kw_only=True):
    """What moves at the front: hinged doors or drawers, how far a handle stands off, and how many openings it has.

    `openings` lie side by side, of one width, with a divider of the box between each two.
    """

    opens: Opens = "nothing"
    handle_mm: NotNegative = 35.0
    openings: Annotated[int, Meta(ge=1, le=12)] = 1


class ScribeAllowance(Value, frozen=True, kw_only=True):
    """Material that a unit already carries past its finished edges, to be scribed off."""

    left_mm: NotNegative = 0.0
    right_mm: NotNegative = 0.0
    top_mm: NotNegative = 0.0

    def at(self, side: Literal["left", "right"]) -> float:
        """What one side carries, mm."""
        return self.left_mm if side == "left" else self.right_mm


class Angled(Value, frozen=True, kw_only=True):
    """An end that is cut back in plan: from the front corner by `along_mm` along the run and `deep_mm` in depth."""

    end: Literal["left", "right"]
    along_mm: Positive
    deep_mm: Positive


class Curve(Value, frozen=True, kw_only=True):
    """An edge that is a part of a circle over its whole length: how far it rises over its ends, out or in.

    A panel's upper edge is an arched head, its lower one an arch cut out of it; the front of a top bows or is hollow.
    """

    edge: Literal["upper", "lower", "front"]
    rise_mm: Positive
    way: Literal["out", "in"] = "out"


class Air(Value, frozen=True, kw_only=True):
    """What an appliance in the unit wants free around it, by its maker."""

    sides_mm: NotNegative = 0.0
    back_mm: NotNegative = 0.0
    top_mm: NotNegative = 0.0


class Unit(Value, frozen=True, kw_only=True):
    """A cabinet, bench, shelf or top of a run.

    `x_mm` is its left edge; `height_mm` from the underside of its supports to its top. Supports stand at the corners,
    `support_inset_mm` in from sides and back and `toe_recess_mm` back from the front. It is fixed to the back at
    `fixing_heights_mm` over the underside, `support_inset_mm` in from each side. `over_base_mm` is where its underside
    is over the run's own (a wall unit, a shelf, a top), `out_mm` how far its back stands out of the back line.
    `meets` names the walls that it is cut or scribed to; a made unit's width follows from the place, a ready-made one's
    does not. `feet_in_mm` of its height can be screwed in or left off while it is moved.
    `fastened_to` says what it is screwed to; where it is empty, what its kind usually is. `things` stand on it.
    `mirror_of` names the unit that it is the mirror image of.
    """

    id: Key
    name: Title
    kind: UnitKind = "base"
    x_mm: NotNegative
    width_mm: Positive
    depth_mm: Positive
    height_mm: Positive
    toe_recess_mm: NotNegative = 60.0
    support_inset_mm: NotNegative = 40.0
    fixing_heights_mm: Annotated[tuple[Positive, ...], Meta(max_length=12)] = (650.0,)
    over_base_mm: Coordinate = 0.0
    out_mm: NotNegative = 0.0
    ready_made: bool = True
    weight_kg: NotNegative = 0.0
    feet_in_mm: NotNegative = 0.0
    holds: Contents = "not said"
    standing: Standing = OnShims()
    front: Front = Front()
    scribe_allowance: ScribeAllowance = ScribeAllowance()
    meets: Annotated[tuple[Literal["left", "right", "back"], ...], Meta(max_length=3)] = ()
    angled: Angled | None = None
    curve: Curve | None = None
    air: Air | None = None
    board: Board | None = None
    insides: Insides | None = None
    holes: Annotated[tuple[Hole, ...], Meta(max_length=40)] = ()
    body: Body | None = None
    fastened_to: Annotated[tuple[FastenedTo, ...], Meta(max_length=7)] = ()
    things: Annotated[tuple[Content, ...], Meta(max_length=40)] = ()
    mirror_of: Key | None = None

    @property
    def right_mm(self) -> float:
        """Its right edge, mm along."""
        return self.x_mm + self.width_mm

    def deep_at(self, end: Literal["left", "right"]) -> float:
        """Return how deep it is at one end, mm: less where that end is cut back in plan."""
        angled = self.angled
        return self.depth_mm - angled.deep_mm if angled is not None and angled.end == end else self.depth_mm

    @property
    def stands(self) -> bool:
        """Whether the floor carries it."""
        hangs = isinstance(self.standing, Hung | OnCleats | OnPieces) or self.kind in (*ON_WALLS, *LAID)
        return self.over_base_mm == 0 and not hangs

    @property
    def flat(self) -> bool:
        """Whether it lies flat between walls and is cut to them."""
        return self.kind in FLAT
