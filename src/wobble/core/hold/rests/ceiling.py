"""A box screwed up through its top into the joists over it, with packing in the gap: it hangs so, or leans there.

A rigid top shares a load among its screws so that force and moments balance and the sum of the squares is least. No set
of screws shares evenly, so the hardest pulled is planned for a quarter more, and of four or fewer each for half of it
all, as a rack's hangers are.
"""

from __future__ import annotations

import math

import numpy as np

from wobble.core.contents import GRAVITY
from wobble.core.figure import Figure, Step
from wobble.core.fit.overhead.hangers import hangs_from_ceiling
from wobble.core.fit.run.stand import Stand
from wobble.core.gauge.prior import Floats
from wobble.core.hold.capacity.capacity import head_pull, together
from wobble.core.hold.into import Context
from wobble.core.hold.loads import HAND_PULL_N, rests, weight_kg
from wobble.core.hold.rests.cavity import NOMINAL_SD_MM, PACKED_MM, SHARE, SideHeld, no_less
from wobble.core.hold.screws import REFUSED, UNEVEN, WOODEN, Candidate, Refusal, Through, screwed
from wobble.core.hold.services import kept_from
from wobble.core.hold.structure.joists import Joists
from wobble.core.job import Unit
from wobble.core.part import Fastener

WASHER_MM = 20.0
"""Across the washer or the broad head that bears on the top from inside."""
IN_MM = 40.0
LEAST, FEW, SHARE_OF_FEW = 3, 4, 0.5
HELD_TOO: tuple[str, ...] = ("back", "left", "right", "neighbours")


def ceiling_held(context: Context, joists: Joists, stand: Stand) -> list[tuple[SideHeld, tuple[Fastener, ...]]]:
    """Return how boxes are fastened to the ceiling that they are said to be fastened to: all but racks."""
    asked = [u for u in context.place.units if "ceiling" in u.fastened_to]
    return [_held(context, joists, stand, u) for u in asked if not u.flat and not hangs_from_ceiling(u)]


def _held(context: Context, joists: Joists, stand: Stand, unit: Unit) -> tuple[SideHeld, tuple[Fastener, ...]]:
    backing = context.into["ceiling"].backing
    through = Through("top", context.place.closing.board_mm, "plywood", 6.0, 4.2, 40.0, 4.0)
    back = stand.back_at(unit)
    middle = np.array([unit.x_mm + unit.width_mm / 2, back + unit.depth_mm / 2])
    hangs = not rests(context.place, unit)
    held_too = bool(set(unit.fastened_to) & set(HELD_TOO))
    weight = (SHARE if held_too else 1.0) * weight_kg(unit) * GRAVITY
    thrown = weight * context.driving_g
    load = weight + thrown if hangs else max(HAND_PULL_N, thrown)
    found: list[Candidate] = []
    refused: list[Refusal] = []
    spots = joists.crossings((unit.x_mm, unit.right_mm), (back, back + unit.depth_mm), IN_MM, found_only=True)
    gap = _gap(context, stand, unit, (float(middle[0]), float(middle[1])))
    for at in spots:
        here = _gap(context, stand, unit, at)
        gap = max(gap, here, key=lambda g: g.value_mm)
        if here.value_mm > PACKED_MM or kept_from(context.place, at, backing, "ceiling"):
            continue
        made = screwed(context, unit.id, at, here, through, surface="ceiling")
        if isinstance(made, Candidate):
            found.append(made)
        else:
            refused.append(made)
    use = _standing(found, load) if not hangs else _hanging(found, load, thrown, middle, through, held_too=held_too)
    enough = len(found) >= 2 and use <= 1
    chosen = tuple(c.fastener for c in found)
    held = SideHeld(
        unit=unit.id,
        wall="ceiling",
        gap=gap,
        load_n=load,
        fasteners=tuple(f.id for f in chosen),
        use=min(use, 99.0),
        enough=enough,
        instead="" if enough else _instead(context, gap, refused, found=len(found) >= 2),
    )
    return held, chosen


def _standing(found: list[Candidate], load: float) -> float:
    """Return the share of the weakest screw's capacity that is used by what tips a box: it pulls at them sideways."""
    return UNEVEN * load / len(found) / min(c.lateral_n for c in found) if found else math.inf


def _hanging(
    found: list[Candidate], load: float, thrown: float, middle: Floats, through: Through, *, held_too: bool
) -> float:
    """Return the share of the hardest loaded screw's capacity that is used by what hangs, and is thrown about."""
    if not found:
        return math.inf
    shares = pulled(np.array([c.fastener.at for c in found]), middle)
    if shares is None:
        if not held_too:
            return math.inf
        # what else holds it keeps it from turning about the one joist
        shares = np.full(len(found), max(UNEVEN / len(found), SHARE_OF_FEW))
    bears = head_pull(WASHER_MM, through.thick_mm, through.wood)
    side = UNEVEN * thrown / len(found)
    return max(
        together(share * load, side, min(c.withdrawal_n, bears), c.lateral_n)
        for share, c in zip(shares.tolist(), found, strict=True)
    )


def pulled(spots: Floats, middle: Floats) -> Floats | None:
    """Return what share of a weight at `middle` (x, y) each screw is planned for; spots are of shape (n, 2).

    None where they do not keep it from tipping: all of them in one line.
    """
    n = len(spots)
    balance = np.vstack([np.ones(n), (spots - middle).T])
    if n < LEAST or np.linalg.matrix_rank(balance, tol=1.0) < len(balance):
        return None
    shares = UNEVEN * np.abs(np.linalg.pinv(balance) @ np.array([1.0, 0.0, 0.0]))
    return np.asarray(np.maximum(shares, SHARE_OF_FEW) if n <= FEW else shares)


def _gap(context: Context, stand: Stand, unit: Unit, at: tuple[float, float]) -> Figure:
    """Return the gap between a box's top and the ceiling at (along, out); never less than nothing."""
    survey = context.contact.survey
    top = stand.base_mm + unit.over_base_mm + unit.height_mm
    if survey.measured("ceiling"):
        mean, sd = (float(v[0]) for v in survey.adjustment.mean_and_sd(("ceiling", np.array([at]))))
        label = "Ceiling, as measured"
    else:
        mean, sd, label = context.place.height_mm, NOMINAL_SD_MM, "Ceiling, as said: it is not measured"
    steps = (
        Step(label=label, value_mm=mean, sd_mm=sd, surface="ceiling", at=at),
        Step(label=f"Top of {unit.name}", sign=-1, value_mm=top),
    )
    return no_less(Figure(value_mm=mean - top, sd_mm=sd, working=steps))


def _instead(context: Context, gap: Figure, refused: list[Refusal], *, found: bool) -> str:
    if gap.value_mm > PACKED_MM:
        return "The gap is too wide to pack: screw timbers across the joists first, and the box to those."
    if context.into["ceiling"].backing.kind not in WOODEN:
        return "A ceiling without wood in it wants anchors that their maker lists for loads over people's heads."
    if found:
        return (
            "What was found over it does not carry it without tipping: screw timbers across two joists first, and the "
            "box to those, or fasten it to the wall too."
        )
    if refused:
        return f"It cannot be screwed up: {REFUSED[refused[0]]}. Find out first what runs above."
    return "Find the joists over it first: two methods, at three places along each."
