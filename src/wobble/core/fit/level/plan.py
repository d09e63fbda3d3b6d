"""The plan for one place: a datum turned into a base height, shims under supports and packing behind fixings."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from msgspec.structs import replace

from wobble.core.confidence import SURE
from wobble.core.figure import Figure, Step, quantile
from wobble.core.fit.run.contact import FloorContact, HighPoint
from wobble.core.fit.run.supports import Fixing
from wobble.core.fit.run.tiers import right_under
from wobble.core.gauge.shares import shares
from wobble.core.job import Datum, FixedTop, HighSpot, ShimKit, SurfaceName, Unit, Value
from wobble.core.job.unit import Legs, ScrewFeet, Standing
from wobble.core.packing import Filling, fill

CURVE_MM = tuple(float(x) for x in np.arange(-12.0, 20.5, 1.0))


class Base(Value, frozen=True, kw_only=True):
    """Where the undersides of the units stand.

    Attributes:
        height: Over the datum mark; over the floor's high spot when nothing ties the floor to the mark.
        over_high_spot: The same, counted from the floor's high spot under the run.
        tied: Whether heights are counted from the datum mark.
        high_spot_at: Likeliest (x, y) of the high spot.
        stands: Whether anything stands on the floor; else its height costs no shim and no cut.
        deepest_cut_mm: How far the floor stands over the underside at worst; 0 if nowhere.
        clear_share: Chance that the floor stands over the underside nowhere, 0 to 1.
        sure_over_mm: How far over the high spot the underside must stand to be clear of the floor with 95 %.
        tops_mm: Top of each unit in the order of the place, over the datum mark or the high spot.
    """

    height: Figure
    over_high_spot: Figure
    tied: bool
    high_spot_at: tuple[float, float]
    stands: bool
    deepest_cut_mm: float
    clear_share: float
    sure_over_mm: float
    tops_mm: tuple[float, ...]


class Shim(Value, frozen=True, kw_only=True):
    """What goes under one support."""

    support: str
    unit: str
    corner: str
    at: tuple[float, float]
    gap: Figure
    filling: Filling


class Packing(Value, frozen=True, kw_only=True):
    """What goes behind one fixing, at `at` = (x, z)."""

    fixing: str
    unit: str
    side: str
    at: tuple[float, float]
    gap: Figure
    filling: Filling


class Trade(Value, frozen=True, kw_only=True):
    """What one base height would cost: its place over the high spot, shims, the largest, the cut off the base."""

    over_mm: float
    n_shims: int
    largest_shim_mm: float
    deepest_cut_mm: float
    n_cut: int


class Plan(Value, frozen=True, kw_only=True):
    """The result of Fit for one place."""

    base: Base
    shims: tuple[Shim, ...]
    packings: tuple[Packing, ...]
    back_line: Figure | None
    trades: tuple[Trade, ...]


def plan(contact: FloorContact, datum: Datum, kit: ShimKit) -> Plan:
    """Return what a datum means for every support and fixing of a run."""
    base = plan_base(contact, datum)
    shims = _shims(contact, base, kit)
    packings = _packings(contact, base, kit)
    line = _back_line(contact)
    return Plan(
        base=base,
        shims=shims,
        packings=packings,
        back_line=line,
        trades=tuple(trade(contact, over, kit) for over in CURVE_MM),
    )


def _high_step(point: HighPoint, label: str, surface: SurfaceName) -> Step:
    return Step(
        label=label,
        surface=surface,
        at=point.at,
        value_mm=point.value_mm,
        sd_mm=point.sd_mm,
        rests_on=point.rests_on,
    )


def plan_base(contact: FloorContact, datum: Datum) -> Base:
    """Return where a datum puts the undersides of the units."""
    high = contact.high_spot
    units = contact.units
    high_step = (
        _high_step(high, "Highest floor under the run", "floor")
        if contact.on_floor
        else Step(label="The datum mark", value_mm=0.0)
    )
    match datum:
        case FixedTop(top_mm=top):
            tallest = run_height(contact.units)
            height = top - datum.cushion_mm - tallest
            steps: tuple[Step, ...] = (
                Step(label="Top asked for, over the datum mark", value_mm=top),
                Step(label="Height of the run, what lies on it included", sign=-1, value_mm=tallest),
            )
            if datum.cushion_mm:
                steps = (*steps, Step(label="Cushion on it", sign=-1, value_mm=datum.cushion_mm))
        case HighSpot(over_mm=over):
            height = high.value_mm + over
            steps = (high_step, Step(label="Set over the high spot", value_mm=over))
    over_steps = (Step(label="Base height", value_mm=height), _taken_away(high_step))
    return Base(
        height=Figure(value_mm=height, sd_mm=0.0, working=steps),
        over_high_spot=Figure(value_mm=height - high.value_mm, sd_mm=high.sd_mm, working=over_steps),
        tied=high.tied,
        high_spot_at=high.at,
        stands=bool(contact.supports),
        deepest_cut_mm=max(0.0, high.value_mm - height) if contact.supports else 0.0,
        clear_share=float((high.draws_mm <= height).mean()),
        sure_over_mm=quantile(high.draws_mm, SURE) - high.value_mm,
        tops_mm=tuple(height + u.over_base_mm + u.height_mm for u in units),
    )


def run_height(units: tuple[Unit, ...]) -> float:
    """Return the height of the run's finished tops over its base: a top that lies on what stands counts with it.

    Of what stands and is no tall unit, else of all that there is; a cushion is the datum's.
    """
    standing = [u for u in units if u.stands and u.kind not in ("tall", "base frame", "face frame") and not u.flat]
    if not standing:
        return max(u.over_base_mm + u.height_mm for u in units)
    boxes = max(u.height_mm for u in standing)
    laid = [u.over_base_mm + u.height_mm for u in units if u.flat and set(right_under(units, u)) & set(standing)]
    return max([boxes, *laid])


def _taken_away(step: Step) -> Step:
    return replace(step, sign=-1)


def _shims(contact: FloorContact, base: Base, kit: ShimKit) -> tuple[Shim, ...]:
    floor, sd = contact.floor_at_supports.mean, contact.floor_at_supports.sd
    standing = {u.id: u.standing for u in contact.units}
    shims = []
    for i, support in enumerate(contact.supports):
        gap = base.height.value_mm - float(floor[i])
        working = (
            Step(label="Base height", value_mm=base.height.value_mm),
            Step(
                label="Floor",
                surface="floor",
                at=support.at,
                sign=-1,
                value_mm=float(floor[i]),
                sd_mm=float(sd[i]),
                rests_on=contact.floor_rests_on[i],
            ),
        )
        shims.append(
            Shim(
                support=support.id,
                unit=support.unit,
                corner=support.corner,
                at=support.at,
                gap=Figure(value_mm=gap, sd_mm=float(sd[i]), working=working),
                filling=_under(standing[support.unit], gap, kit),
            )
        )
    return tuple(shims)


def _under(standing: Standing, gap_mm: float, kit: ShimKit) -> Filling:
    """Return what makes up a gap under a support: a foot that is turned, a leg that is cut, or shims."""
    match standing:
        case ScrewFeet():
            return Filling(kind="foot")
        case Legs():
            return Filling(kind="leg")
        case _:
            return fill(gap_mm, kit)


def _packings(contact: FloorContact, base: Base, kit: ShimKit) -> tuple[Packing, ...]:
    walled, height = contact.survey.place.walled, base.height.value_mm
    fixings = tuple(f for f in contact.fixings if walled(f.x_mm, height + f.over_base_mm))
    return packings_at(contact, base, kit, fixings)


def packings_at(contact: FloorContact, base: Base, kit: ShimKit, fixings: tuple[Fixing, ...]) -> tuple[Packing, ...]:
    """Return the packing behind each of some fixings; what hangs counts from a line of its own."""
    if contact.back_high is None:
        return ()
    units = {u.id: u for u in contact.units}
    hung = {f.id for f in fixings if contact.hung_high is not None and not units[f.unit].stands}
    found: dict[str, Packing] = {}
    for high, line, mine in (
        (contact.back_high, contact.back_line_mm, [f for f in fixings if f.id not in hung]),
        (contact.hung_high, contact.hung_line_mm, [f for f in fixings if f.id in hung]),
    ):
        if high is not None and mine:
            found |= _packed(contact, base, kit, _Behind(high, line, tuple(mine)))
    return tuple(found[f.id] for f in fixings)


@dataclass(frozen=True)
class _Behind:
    """Fixings that count from one line, and the proudest wall that the line touches."""

    high: HighPoint
    line_mm: float
    fixings: tuple[Fixing, ...]


def _packed(contact: FloorContact, base: Base, kit: ShimKit, behind: _Behind) -> dict[str, Packing]:
    high = behind.high
    height = base.height.value_mm
    spots = np.asarray([(f.x_mm, height + f.over_base_mm) for f in behind.fixings], dtype=float)
    adjustment = contact.survey.adjustment
    if high.tied:
        wall, sd = adjustment.mean_and_sd(("back", spots))
        shift = 0.0
    else:  # counted from the proud spot: the plumb line's own place drops out
        joint = adjustment.at(("back", np.vstack([spots, [high.at]])))
        column = joint.covariance[:, -1]
        sd = np.sqrt(np.maximum(np.diag(joint.covariance) - 2 * column + column[-1], 0.0))[:-1]
        shift = float(joint.mean[-1]) - contact.turn * high.at[0]
        wall = joint.mean[:-1]
    rests = shares(contact.survey, "back", spots)
    out = {u.id: u.out_mm for u in contact.units}
    packings = {}
    for i, fixing in enumerate(behind.fixings):
        line = behind.line_mm + contact.turn * fixing.x_mm + out[fixing.unit]
        surface = float(wall[i]) - shift
        at = (float(spots[i, 0]), float(spots[i, 1]))
        working = (
            Step(label="Back line here", value_mm=line),
            Step(
                label="Back wall",
                surface="back",
                at=at,
                sign=-1,
                value_mm=surface,
                sd_mm=float(sd[i]),
                rests_on=rests[i],
            ),
        )
        gap = line - surface
        packings[fixing.id] = Packing(
            fixing=fixing.id,
            unit=fixing.unit,
            side=fixing.side,
            at=at,
            gap=Figure(value_mm=gap, sd_mm=float(sd[i]), working=working),
            filling=fill(max(gap, 0.0), kit),
        )
    return packings


def _back_line(contact: FloorContact) -> Figure | None:
    high = contact.back_high
    if high is None:
        return None
    off = contact.back_line.off_mm
    steps = (
        _high_step(high, "Proudest wall behind the run", "back"),
        Step(label="Kept clear of it", value_mm=off),
    )
    return Figure(value_mm=contact.back_line_mm, sd_mm=high.sd_mm, working=steps)


def trade(contact: FloorContact, over_mm: float, kit: ShimKit) -> Trade:
    """Return what a base height costs that stands `over_mm` over the high spot."""
    height = contact.high_spot.value_mm + over_mm
    gaps = height - contact.floor_at_supports.mean
    return Trade(
        over_mm=over_mm,
        n_shims=int((gaps > kit.tolerance_mm).sum()),
        largest_shim_mm=float(gaps.max(initial=0.0)),
        deepest_cut_mm=max(0.0, -over_mm) if contact.supports else 0.0,
        n_cut=int((gaps < -kit.tolerance_mm).sum()),
    )
