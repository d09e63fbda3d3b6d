"""What a piece is that is no box: frames and platforms, boards over a wall, trim, mouldings, battens or pegs."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.job.board import MaterialName
from wobble.core.value import Key, NotNegative, Positive, Title, Value


class Framing(Value, frozen=True, kw_only=True, tag_field="body", tag="framing"):
    """Members under a deck or under units: their true section, spacing, and which way they stand.

    Attributes:
        narrow_mm, wide_mm: The section as measured; on edge the wide side stands upright.
        most_apart_mm: Longest span of the deck between members. across: Whether they run from front to back.
        deck_mm: Thickness of the deck; 0 without. front_back_mm: How far the frame stands back at the front (a toe
            recess); rear_off_mm: at the back (clear of a skirting). fascia_mm: A board before it, taken off its depth.
        load_kg_per_m2: What the deck carries, evenly. loose: Not fastened to what it carries.
    """

    narrow_mm: Positive = 45.0
    wide_mm: Positive = 70.0
    stands: Literal["on edge", "on the flat"] = "on edge"
    material: MaterialName = "pine"
    most_apart_mm: Positive = 400.0
    across: bool = True
    deck_mm: NotNegative = 18.0
    front_back_mm: NotNegative = 0.0
    rear_off_mm: NotNegative = 0.0
    fascia_mm: NotNegative = 0.0
    load_kg_per_m2: Annotated[float, Meta(ge=0, le=2000)] = 200.0
    loose: bool = False


class Boarding(Value, frozen=True, kw_only=True, tag_field="body", tag="boarding"):
    """Boards over a wall from a first one that is level or plumb, with equal gaps, the last one ripped."""

    runs: Literal["along", "up"] = "along"
    board_mm: Positive = 120.0
    thick_mm: Positive = 15.0
    gap_mm: NotNegative = 3.0
    cap_mm: NotNegative = 0.0


class TrimSet(Value, frozen=True, kw_only=True, tag_field="body", tag="trim"):
    """Upright trim spaced evenly, one piece over each seam (mm from the left end)."""

    piece_mm: Positive = 60.0
    thick_mm: Positive = 12.0
    most_apart_mm: Positive = 450.0
    seams_mm: Annotated[tuple[NotNegative, ...], Meta(max_length=40)] = ()


class Moulding(Value, frozen=True, kw_only=True, tag_field="body", tag="moulding"):
    """A moulding that runs along a wall or along fronts, and round corners: skirting, dado, pelmet, cornice.

    Attributes:
        thick_mm: Of the stock. spring_deg: How far its back leans from the wall where it bridges wall and ceiling; 0
            lies flat on the wall. How far it reaches down the wall is the piece's height.
        left_mm, right_mm: How far it goes on round that end: along the side wall where the piece meets that wall, back
            to the wall where it runs before something and ends freely; 0 where it ends there.
        inside: How inside corners are joined. stock_mm: Its longest length as sold or carried in.
        round_mm: Radius of the curve that it is bent to, its width the chord; 0 for straight.
    """

    thick_mm: Positive = 15.0
    spring_deg: Annotated[float, Meta(ge=0, le=75)] = 0.0
    left_mm: NotNegative = 0.0
    right_mm: NotNegative = 0.0
    inside: Literal["coped", "mitred"] = "coped"
    stock_mm: Annotated[float, Meta(ge=100, le=20_000)] = 2400.0
    round_mm: NotNegative = 0.0

    def goes_on(self, end: Literal["left", "right"]) -> float:
        """How far it goes on round an end, mm."""
        return self.left_mm if end == "left" else self.right_mm


class Hanging(Value, frozen=True, kw_only=True):
    """What hangs on battens or pegs: where, what it weighs, and how far its weight stands out of the wall."""

    id: Key
    name: Title
    at: tuple[NotNegative, NotNegative]
    weight_kg: Annotated[float, Meta(ge=0, le=500)] = 1.0
    out_mm: NotNegative = 100.0


class HangingWall(Value, frozen=True, kw_only=True, tag_field="body", tag="hanging wall"):
    """A wall of battens (one over the other) or of pegs in holes, at a pitch, and what hangs on it.

    `behind_mm` is the depth of the cross strips that a panel with holes needs behind it.
    """

    by: Literal["battens", "pegs"] = "battens"
    pitch_mm: Positive = 150.0
    member_mm: Positive = 70.0
    thick_mm: Positive = 18.0
    behind_mm: NotNegative = 0.0
    hangs: Annotated[tuple[Hanging, ...], Meta(max_length=60)] = ()


Body = Framing | Boarding | TrimSet | Moulding | HangingWall
