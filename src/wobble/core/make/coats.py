"""Coats: areas by face from the parts, what goes on them in which order, how far a tin goes, and how long it dries."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from wobble.core.job import Coats, Finish, FinishKind, Job, Value
from wobble.core.make.marked import NOT_MADE, MarkedPart
from wobble.core.make.stock import material_of
from wobble.core.part import Part, Role

USUAL: dict[FinishKind, tuple[float, float]] = {
    "knot sealer": (10.0, 2.0),
    "damp primer": (8.0, 12.0),
    "primer": (10.0, 6.0),
    "paint": (12.0, 6.0),
    "varnish": (12.0, 6.0),
    "oil": (14.0, 12.0),
}
"""What a litre covers, m², and how long a coat dries, h, where no tin says."""
SPARE = 1.1
"""A tenth more than the areas ask: what stays in tin, brush and tray."""
NEVER: tuple[Role, ...] = (
    "packing block",
    "spacer",
    "timber",
    "nailer",
    "bridging member",
    "member",
    "cleat",
    "ledger",
)
"""What nobody sees or touches stays bare."""
BOTH: tuple[Role, ...] = ("door", "drawer front", "loose shelf", "fixed shelf", "shelf", "divider", "top")
ONE: tuple[Role, ...] = (
    "filler",
    "end panel",
    "stile",
    "rail",
    "mullion",
    "plinth",
    "toe kick",
    "fascia",
    "trim",
    "board",
    "cap",
)
KNOTTY = ("pine", "douglas fir")
OPEN_GRAIN = ("mdf", "particleboard", "plywood")


class Area(Value, frozen=True, kw_only=True):
    """How much is coated of which faces, m²: faces that are seen, those inside, and cut edges of panels."""

    faces: Literal["seen", "inside", "edges"]
    m2: float


class CoatStep(Value, frozen=True, kw_only=True):
    """One step of the finish: what is done, how much it takes, litres, of which tin, and how long it dries, h."""

    what: str
    kind: FinishKind | None = None
    m2: float
    litres: float = 0.0
    tin: str = ""
    dries_h: float = 0.0
    assumed: bool = False


class Finished(Value, frozen=True, kw_only=True):
    """Areas to finish, steps in their order, and how long they dry in all, h."""

    areas: tuple[Area, ...]
    steps: tuple[CoatStep, ...]
    dries_h: float
    banding_m: float


def finished(job: Job, parts: Sequence[MarkedPart]) -> Finished:
    """Return what a job's finish takes; with no coats asked for, the areas and the banding alone."""
    made = [(p.part, p.part.quantity) for p in parts]
    seen = sum(n * area_seen(part) for part, n in made)
    inside = sum(n * area_inside(part) for part, n in made)
    edges = sum(n * edge_area(part) for part, n in made if material_of(part) in OPEN_GRAIN)
    knots = sum(n * (area_seen(part) + area_inside(part)) for part, n in made if part.material in KNOTTY)
    steps = tuple(_steps(job, seen, inside, edges, knots))
    return Finished(
        areas=(
            Area(faces="seen", m2=round(seen, 3)),
            Area(faces="inside", m2=round(inside, 3)),
            Area(faces="edges", m2=round(edges, 3)),
        ),
        steps=steps,
        dries_h=sum(s.dries_h for s in steps),
        banding_m=round(sum(p.part.quantity * banding_m(p.part) for p in parts if p.state not in NOT_MADE), 2),
    )


def _face(part: Part) -> float:
    if not part.finished or part.role in NEVER:
        return 0.0
    return part.blank_mm[0] * part.blank_mm[1] / 1e6


def area_seen(part: Part) -> float:
    """Return how much of a part is seen once it stands, m²: both faces of doors and shelves, one of what lies on."""
    face = _face(part)
    if part.role in BOTH:
        return 2 * face
    if part.role in ONE or part.seen:
        return face
    return 0.0


def area_inside(part: Part) -> float:
    """Return how much of a part is inside a unit, m²: one face of what closes it."""
    return (
        _face(part) if part.role in ("side", "bottom", "carcass top", "back", "drawer side", "drawer bottom") else 0.0
    )


def edge_area(part: Part) -> float:
    """Return the cut edges of a part that are not banded, m²."""
    long, wide = part.blank_mm
    if part.role in NEVER or part.role == "back":
        return 0.0
    round_ = 2 * (long + wide) - 1000 * banding_m(part)
    return max(round_, 0.0) * part.thick_mm / 1e6


def banding_m(part: Part) -> float:
    """Return how many metres of edge of one part are banded."""
    long, wide = part.blank_mm
    return sum(long if edge in ("front edge", "back edge") else wide for edge in part.banded) / 1000


def _steps(job: Job, seen: float, inside: float, edges: float, knots: float) -> Iterator[CoatStep]:
    coats = job.workshop.coats
    if not coats:
        return
    yield CoatStep(
        what="sand all faces to 180 and take the dust off; fill screw heads and seams", m2=_of("all", seen, inside)
    )
    if edges > 0:
        yield CoatStep(what="seal cut edges of panels with thinned primer or filler; they drink", m2=edges)
    if knots > 0 and not any(c.finish == "knot sealer" for c in coats):
        yield _coat(job, Coats(finish="knot sealer", number=1), knots, "knots sealed, or they bleed through")
    for c in coats:
        m2 = _of(c.faces, seen, inside)
        for k in range(c.number):
            yield _coat(job, c, m2, f"{c.finish}, coat {k + 1} of {c.number}, {_words(c.faces)}")
            if k < c.number - 1:
                yield CoatStep(what="sand lightly with 240 and take the dust off", m2=m2)


def _words(faces: str) -> str:
    return {"seen": "what is seen", "inside": "insides", "all": "all faces"}[faces]


def _of(faces: str, seen: float, inside: float) -> float:
    return {"seen": seen, "inside": inside, "all": seen + inside}[faces]


def _coat(job: Job, coats: Coats, m2: float, what: str) -> CoatStep:
    tin = next((s for s in job.workshop.stock if isinstance(s, Finish) and s.kind == coats.finish), None)
    covers, dries = USUAL[coats.finish] if tin is None else (tin.m2_per_litre, tin.dries_h)
    litres = m2 / covers * SPARE
    return CoatStep(
        what=what,
        kind=coats.finish,
        m2=m2,
        litres=litres,
        tin="" if tin is None else tin.id,
        dries_h=dries,
        assumed=tin is None,
    )
