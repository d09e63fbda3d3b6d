"""The answer of Set for one place: its checks, what to do now, what the plan could follow."""

from __future__ import annotations

from collections.abc import Sequence

from wobble.core.facts import AsSet, Followed, Otherwise, StepDone, active
from wobble.core.finding import Finding
from wobble.core.job import Value
from wobble.core.order.steps.work import PlaceWork
from wobble.core.set.advice import Advice, advice
from wobble.core.set.changes import Change, again
from wobble.core.set.check import Check
from wobble.core.set.checks import checks
from wobble.core.set.findings import Told, told
from wobble.core.set.freedoms import Freedoms, by_unit, freedoms
from wobble.core.set.stands import STILL_MM


class StandsNow(Value, frozen=True, kw_only=True):
    """How a unit stands against its plan: to the right, up, and its rises, with what they are known to, mm.

    `rise_mm` is over its width, `out_mm` over its depth. `followed` says that the plan follows all of it.
    """

    unit: str
    right_mm: float
    up_mm: float
    up_sd_mm: float
    rise_mm: float
    out_mm: float
    readings: tuple[str, ...]
    followed: bool


class PlaceSet(Value, frozen=True, kw_only=True):
    """Set for one place.

    Attributes:
        place: Which. checks: All, in the order of setting. advice: What to do now. stands: How units stand that were
            read. pending: Units that stand otherwise than planned, and the plan does not follow yet.
        otherwise: What was found otherwise. done: Steps of the place that are done. findings: What is told.
    """

    place: str
    checks: tuple[Check, ...]
    advice: tuple[Advice, ...]
    stands: tuple[StandsNow, ...]
    pending: tuple[str, ...]
    otherwise: tuple[Otherwise, ...]
    done: tuple[str, ...]
    findings: tuple[Finding, ...]


class Proposal(Value, frozen=True, kw_only=True):
    """What would change if the plan followed what stands: readings that it would follow, and every figure that moves.

    `again` counts parts that would be cut once more, `spared` those that were cut and still do.
    """

    readings: tuple[str, ...]
    changes: tuple[Change, ...]
    again: int
    spared: int


def place_set(work: PlaceWork) -> PlaceSet:
    """Return what is checked in a place, what to do now, and what the plan could follow."""
    facts = active(work.place.facts)
    readings = [f for f in facts if isinstance(f, AsSet)]
    named = {key for f in facts if isinstance(f, Followed) for key in f.readings}
    found = checks(work)
    now = advice(work, found, readings)
    stands = tuple(
        _stands(unit, stood, own, named)
        for unit, own in by_unit(readings).items()
        if (stood := freedoms(own)) is not None
    )
    out = {a.of for a in now}
    pending = tuple(s.unit for s in stands if not s.followed and s.unit not in out and _moved(s))
    done = tuple(f.step for f in facts if isinstance(f, StepDone))
    otherwise = tuple(f for f in facts if isinstance(f, Otherwise))
    return PlaceSet(
        place=work.place.id,
        checks=found,
        advice=now,
        stands=stands,
        pending=pending,
        otherwise=otherwise,
        done=done,
        findings=told(Told(work, found, now, pending, otherwise, frozenset(done))),
    )


def _stands(unit: str, found: Freedoms, own: Sequence[AsSet], named: set[str]) -> StandsNow:
    return StandsNow(
        unit=unit,
        right_mm=found.dx,
        up_mm=found.dz,
        up_sd_mm=found.dz_sd,
        rise_mm=float(found.mean[2]) * found.stands.wide_mm,
        out_mm=float(found.mean[3]) * found.stands.deep_mm,
        readings=tuple(f.id for f in own),
        followed=all(f.id in named for f in own),
    )


def _moved(s: StandsNow) -> bool:
    return abs(s.up_mm) >= max(STILL_MM, s.up_sd_mm) or abs(s.right_mm) >= 2 * STILL_MM


def proposal(readings: tuple[str, ...], found: tuple[Change, ...]) -> Proposal:
    """Return what would change, counted."""
    spared = len({c.about for c in found if c.cut in ("spared", "trim")})
    return Proposal(readings=readings, changes=found, again=again(found), spared=spared)
