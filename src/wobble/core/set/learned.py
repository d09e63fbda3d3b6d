"""What a place's surfaces are known by from what stands: the floor under shims, the walls beside gaps.

Each comes as a reading like any other, so that Gauge adjusts it with all that was read before. What is read of a wall
is how far its head is from its foot, and how far both walls are apart: where a unit stands along does not enter either.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from wobble.core.axes import SurfaceName
from wobble.core.facts import READING_KINDS, AsSet, Followed, Offset, Slope, Span, active, reading_spots
from wobble.core.fit.run.tiers import tier_of
from wobble.core.job import Instrument, Place, SetUp, Unit
from wobble.core.set.freedoms import Freedoms, by_unit, freedoms

AS_SET, BESIDE = "as-set", "as-set-beside"
INSTRUMENTS = (
    Instrument(id=AS_SET, name="What stands", sigma_mm=0.6),
    Instrument(id=BESIDE, name="Gaps beside what stands", sigma_mm=1.0),
)
"""Shims are read to half a millimetre, and a unit rests on its stiffest corners. Two gaps by a rule, and a side that is
known to be plumb to half a millimetre over its height, come to 0.8; joints of a run to a little more."""
UPRIGHT_BY = ("level-along/", "plumb-side/")
"""What says how upright a unit's sides are."""


def learned(place: Place) -> tuple[tuple[SetUp, ...], tuple[Offset | Slope | Span, ...]]:
    """Return what surfaces are known by from units that the plan was to follow, with the lines that it counts from."""
    facts = active(place.facts)
    # a wall is told of by what it is beside: one that nobody read would be taken for read by that alone
    walls = {surface for f in facts if isinstance(f, READING_KINDS) for surface, _ in reading_spots(f)}
    named = {key for f in facts if isinstance(f, Followed) for key in f.readings}
    told = by_unit(f for f in facts if isinstance(f, AsSet) and f.id in named and f.stands is not None)
    lines, offsets = _floor(place, told)
    return lines, (*offsets, *_walls(place, told, walls & {"left", "right"}))


def _first(own: Iterable[AsSet]) -> dict[str, AsSet]:
    """Return what was read of each check before anything was turned or shimmed."""
    first: dict[str, AsSet] = {}
    for f in sorted(own, key=lambda f: f.taken_at):
        first.setdefault(f.check, f)
    return first


def _floor(place: Place, told: dict[str, list[AsSet]]) -> tuple[tuple[SetUp, ...], tuple[Offset, ...]]:
    """Return the floor as units tell it that stood on shims of known thickness, before anything under them was changed.

    Only where heights count from the datum mark: else a unit says nothing of where the floor is.
    """
    if "floor" not in place.surfaces:
        return (), ()
    lines, offsets = [], []
    for unit, own in told.items():
        first = _first(f for f in own if f.stands is not None and f.stands.tied and f.stands.on)
        if not any(c.startswith("height/") for c in first):
            continue
        found = freedoms(first.values())
        if found is None:
            continue
        line = SetUp(id=f"{AS_SET}-{unit}", name=f"Underside of {unit}", across="z", at_mm=found.stands.under_mm)
        lines.append(line)
        for n, packed in enumerate(found.stands.on):
            up, _ = found.up_at(*packed.at)
            inside = 0 <= packed.at[0] <= place.width_mm and 0 <= packed.at[1] <= place.depth_mm
            if inside:
                offsets.append(
                    Offset(
                        id=f"{AS_SET}-{unit}-{n}",
                        instrument=AS_SET,
                        taken_at=max(f.taken_at for f in own),
                        surface="floor",
                        at=packed.at,
                        set_up=line.id,
                        value_mm=packed.mm - up,
                    )
                )
    return tuple(lines), tuple(offsets)


def _walls(place: Place, told: dict[str, list[AsSet]], walls: set[SurfaceName]) -> Iterator[Slope | Span]:
    """Yield the walls beside what stands: each from foot to head, and how far apart at a run's two gaps."""
    feet: dict[str, tuple[AsSet, Freedoms]] = {}
    for unit, own in told.items():
        newest = {f.check: f for f in sorted(own, key=lambda f: f.taken_at) if f.value_mm is not None}
        found = freedoms(own)
        if found is None:
            continue
        for side in ("left", "right"):
            foot = next((f for c, f in newest.items() if c.startswith(f"beside-{side}-foot/")), None)
            head = next((f for c, f in newest.items() if c.startswith(f"beside-{side}-head/")), None)
            if foot is None or side not in walls:
                continue
            feet[f"{side}/{unit}"] = (foot, found)
            upright = any(c.startswith(UPRIGHT_BY) for c in newest)
            if head is not None and upright and (wall := _from_foot_to_head(place, side, foot, head, found)):
                yield wall
    runs: dict[str, list[Unit]] = {}
    for u in sorted(place.units, key=lambda u: u.x_mm):
        if not u.flat:
            runs.setdefault(tier_of(place.units, u), []).append(u)
    for run in runs.values():  # clamped face to face from end to end: all of them stand
        left, right = feet.get(f"left/{run[0].id}"), feet.get(f"right/{run[-1].id}")
        if left is not None and right is not None and all(u.id in told for u in run):
            yield from _apart(place, run[-1].right_mm - run[0].x_mm, left, right)


def _spot(place: Place, found: Freedoms, up: float) -> tuple[float, float] | None:
    """Return where the front edge of a unit's side meets a wall: out and up; None outside the place."""
    at = (found.stands.out_mm + found.stands.deep_mm, found.stands.under_mm + up)
    return at if 0 <= at[0] <= place.depth_mm and at[1] <= place.height_mm else None


def _from_foot_to_head(place: Place, side: str, foot: AsSet, head: AsSet, found: Freedoms) -> Slope | None:
    start, end = _spot(place, found, 0.0), _spot(place, found, found.stands.high_mm)
    if start is None or end is None or foot.value_mm is None or head.value_mm is None:
        return None
    edge = -float(found.mean[2]) * found.stands.high_mm  # its right end up, its head goes to the left
    opens = head.value_mm - foot.value_mm
    return Slope(
        id=f"{BESIDE}-{foot.of}-{side}",
        instrument=BESIDE,
        taken_at=max(foot.taken_at, head.taken_at),
        surface="left" if side == "left" else "right",
        start=start,
        end=end,
        value=edge - opens if side == "left" else edge + opens,
    )


def _apart(place: Place, run_mm: float, left: tuple[AsSet, Freedoms], right: tuple[AsSet, Freedoms]) -> Iterator[Span]:
    (low, a), (high, _) = left, right
    at = _spot(place, a, 0.0)
    if at is None or low.value_mm is None or high.value_mm is None:
        return
    wide = low.value_mm + run_mm + high.value_mm
    if wide > 0:
        yield Span(
            id=f"{BESIDE}-{low.of}-{high.of}",
            instrument=BESIDE,
            taken_at=max(low.taken_at, high.taken_at),
            between="left-right",
            at=at,
            value_mm=wide,
        )
