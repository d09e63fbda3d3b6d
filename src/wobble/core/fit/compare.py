"""What a set of decisions comes to, in the few figures by which sets are compared side by side."""

from __future__ import annotations

from wobble.core.finding import Finding
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.result import FitResult
from wobble.core.job import Value


class Outcome(Value, frozen=True, kw_only=True):
    """The consequences of one set of decisions.

    Attributes:
        name: Of the set; "" for what stands now. stops: How many findings stop the job. minds: How many want minding.
        shims: How many supports are shimmed or turned. largest_mm: Largest gap under one.
        cut_mm: Deepest cut off a base. packed_mm: Deepest packing behind a fixing.
        goes_in: Least chance of any unit of getting to its place, 0 to 1; None where nothing tells.
        fillers_mm: Narrowest and widest gap at the sides; None without side walls.
        scribed_mm: Deepest that is scribed off an edge.
        top_mm: Height of the run over the datum mark or the high spot.
    """

    name: str
    stops: int
    minds: int
    shims: int
    largest_mm: float
    cut_mm: float
    packed_mm: float
    goes_in: float | None
    fillers_mm: tuple[float, float] | None
    scribed_mm: float
    top_mm: float | None


def outcome(name: str, plan: Plan | None, fitted: FitResult, findings: tuple[Finding, ...]) -> Outcome:
    """Return the few figures of one set of decisions."""
    shims = plan.shims if plan else ()
    gaps = [f for sides in fitted.sides for f in sides.fillers]
    chances = [g.chance for g in fitted.access if g.passes]
    return Outcome(
        name=name,
        stops=sum(f.severity == "stop" for f in findings),
        minds=sum(f.severity == "mind" for f in findings),
        shims=sum(s.filling.kind not in ("bare", "cut") for s in shims),
        largest_mm=max((s.gap.value_mm for s in shims), default=0.0),
        cut_mm=plan.base.deepest_cut_mm if plan else 0.0,
        packed_mm=max((p.gap.value_mm for p in plan.packings), default=0.0) if plan else 0.0,
        goes_in=min(chances) if chances else None,
        fillers_mm=(min(f.least.value_mm for f in gaps), max(f.largest.value_mm for f in gaps)) if gaps else None,
        scribed_mm=max((s.compass_mm for s in fitted.scribes), default=0.0),
        top_mm=plan.base.tops_mm[0] if plan and plan.base.tops_mm else None,
    )
