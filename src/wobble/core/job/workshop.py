"""What a job is made from and with: stock and offcuts, shops and their prices, machines, how things are finished."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.value import Count, Key, NotNegative, Positive, Title, Value

Price = Annotated[float, Meta(ge=0, le=1_000_000)]
"""In the user's own money; no currency is named."""
Word = Annotated[str, Meta(min_length=1, max_length=60)]


class SheetStock(Value, frozen=True, kw_only=True, tag_field="sold_as", tag="sheet"):
    """A sheet, or an offcut of one: nominal and measured thickness, size, how many are at hand, and its price.

    `at_hand` counts what is there already; more is bought where there is a price. Grain runs along the length.
    """

    id: Key
    name: Title
    material: Word = "plywood"
    thick_mm: Positive = 18.0
    measured_mm: Positive | None = None
    long_mm: Positive = 2440.0
    wide_mm: Positive = 1220.0
    at_hand: Count = 0
    price: Price | None = None
    grain: bool = True

    @property
    def true_mm(self) -> float:
        """How thick it is: as measured, else as sold."""
        return self.thick_mm if self.measured_mm is None else self.measured_mm


class Defect(Value, frozen=True, kw_only=True):
    """A knot, a split or a nail in a board: from where to where along it, mm; no part is cut across it."""

    from_mm: NotNegative
    to_mm: Positive


class LengthStock(Value, frozen=True, kw_only=True, tag_field="sold_as", tag="length"):
    """A board or moulding sold by length, its section as measured."""

    id: Key
    name: Title
    material: Word = "pine"
    thick_mm: Positive = 20.0
    wide_mm: Positive = 95.0
    long_mm: Positive = 2400.0
    at_hand: Count = 0
    price: Price | None = None
    defects: Annotated[tuple[Defect, ...], Meta(max_length=40)] = ()


PackOf = Literal[
    "screws",
    "anchors",
    "hinges",
    "slides",
    "shelf pins",
    "handles",
    "shims",
    "banding",
    "glue",
    "sandpaper",
    "foam",
    "cloth",
    "film",
]


class Pack(Value, frozen=True, kw_only=True, tag_field="sold_as", tag="pack"):
    """Something sold by the pack: what, of which size (a screw's length, a slide's), and how many are in one.

    `holds` counts pieces, or metres of banding, square metres of cloth, or litres of glue.
    """

    id: Key
    name: Title
    of: PackOf = "screws"
    size_mm: NotNegative = 0.0
    holds: Annotated[float, Meta(gt=0, le=100_000)] = 100.0
    at_hand: Count = 0
    price: Price | None = None


FinishKind = Literal["knot sealer", "damp primer", "primer", "paint", "varnish", "oil"]


class Finish(Value, frozen=True, kw_only=True, tag_field="sold_as", tag="tin"):
    """A finish by the tin: how far a litre goes for one coat, and how long a coat dries."""

    id: Key
    name: Title
    kind: FinishKind = "paint"
    litres: Annotated[float, Meta(gt=0, le=1000)] = 1.0
    m2_per_litre: Annotated[float, Meta(gt=0, le=100)] = 12.0
    dries_h: Annotated[float, Meta(ge=0, le=1000)] = 6.0
    at_hand: Count = 0
    price: Price | None = None


StockItem = SheetStock | LengthStock | Pack | Finish


class Shop(Value, frozen=True, kw_only=True):
    """A shop: what the way there and back costs, and what it sells at which price; what is not named it has not."""

    id: Key
    name: Title
    trip: Price = 0.0
    prices: Annotated[tuple[Offer, ...], Meta(max_length=500)] = ()


class Offer(Value, frozen=True, kw_only=True):
    """What a shop asks for one item of the stock list."""

    item: Key
    price: Price


MachineKind = Literal[
    "table saw",
    "track saw",
    "hand-held saw",
    "mitre saw",
    "band saw",
    "router",
    "planer",
    "drill press",
    "drill",
    "shop",
]


class Machine(Value, frozen=True, kw_only=True):
    """A machine and its limits; 0 is no limit.

    `rip_mm` is the widest strip beside its fence, `cross_mm` the longest cut across, `thick_mm` the thickest it takes,
    `bed_mm` the longest piece that can be led through safely, `angle_deg` how far it tilts.
    """

    id: Key
    name: Title
    kind: MachineKind = "table saw"
    rip_mm: NotNegative = 0.0
    cross_mm: NotNegative = 0.0
    thick_mm: NotNegative = 0.0
    bed_mm: NotNegative = 0.0
    angle_deg: Annotated[float, Meta(ge=0, le=60)] = 45.0


class Coats(Value, frozen=True, kw_only=True):
    """How faces are finished: which finish, how many coats, on which faces; edges of panels are sealed first."""

    faces: Literal["seen", "inside", "all"] = "seen"
    finish: FinishKind = "paint"
    number: Annotated[int, Meta(ge=1, le=6)] = 2


class Got(Value, frozen=True, kw_only=True):
    """A part that is not made, by its key over all places: bought or ordered at a price, kept as it is, or mended."""

    part: Annotated[str, Meta(min_length=1, max_length=200)]
    how: Literal["bought", "kept", "mended"] = "bought"
    price: Price = 0.0


class PinnedPart(Value, frozen=True, kw_only=True):
    """A part where it lies on a pinned sheet: its key, its corner, its size, and whether it lies turned."""

    part: Annotated[str, Meta(min_length=1, max_length=200)]
    at: tuple[NotNegative, NotNegative]
    size: tuple[Positive, Positive]
    turned: bool = False


class PinnedSheet(Value, frozen=True, kw_only=True):
    """A sheet whose layout stays as it is, while its parts are wanted in the same sizes."""

    stock: Key
    parts: Annotated[tuple[PinnedPart, ...], Meta(min_length=1, max_length=300)]


Aim = Literal["fewest sheets", "fewest settings", "fewest metres"]


class Workshop(Value, frozen=True, kw_only=True):
    """What a job is made from and with. Where no stock is named, usual trade sizes are assumed, and told.

    Attributes:
        stock: The user's own shelf. shops: Where more is bought. machines: What there is to cut and drill with.
        kerf_mm: What the blade takes. trim_mm: What is cut off a sheet's edges first.
        end_trim_mm: What is cut off a board's ends. lifts_kg: What one person lifts. carries_mm: What the car takes,
            long and wide; None where sheets are brought. aim: What counts after price and number of sheets.
        coats: The finish, in the order in which it is put on. got: Parts that are not made.
        pinned: Sheets whose layout stays.
    """

    stock: Annotated[tuple[StockItem, ...], Meta(max_length=300)] = ()
    shops: Annotated[tuple[Shop, ...], Meta(max_length=8)] = ()
    machines: Annotated[tuple[Machine, ...], Meta(max_length=20)] = ()
    kerf_mm: Annotated[float, Meta(ge=0, le=20)] = 3.0
    trim_mm: Annotated[float, Meta(ge=0, le=100)] = 5.0
    end_trim_mm: Annotated[float, Meta(ge=0, le=200)] = 10.0
    lifts_kg: Annotated[float, Meta(ge=1, le=200)] = 25.0
    carries_mm: tuple[Positive, Positive] | None = None
    aim: Aim = "fewest sheets"
    coats: Annotated[tuple[Coats, ...], Meta(max_length=10)] = ()
    got: Annotated[tuple[Got, ...], Meta(max_length=500)] = ()
    pinned: Annotated[tuple[PinnedSheet, ...], Meta(max_length=200)] = ()
