"""The methods of where level starts, compared by their consequences, with one proposed and the reason."""

from __future__ import annotations

import math
from typing import Literal

from wobble.core.fit.level.plan import Trade, run_height, trade
from wobble.core.fit.run.contact import FloorContact
from wobble.core.job import Datum, FixedTop, HighSpot, ShimKit, Value

TOP_STEP_MM = 5.0


class DatumMethod(Value, frozen=True, kw_only=True):
    """One way to decide: the datum it leads to, what that costs, and whether it is proposed and why."""

    method: Literal["high spot", "fixed top"]
    datum: Datum
    cost: Trade
    proposed: bool
    reason: str


def methods(contact: FloorContact, chosen: Datum, kit: ShimKit) -> tuple[DatumMethod, ...]:
    """Return the methods, each with its own datum: the one chosen where it is of that method, else a usual one.

    Without heights tied to the datum mark there is no fixed top to compare with. Proposed is the height that was asked
    for where nothing need be cut for it, since somebody has a table or a sill to meet; else the high spot.
    """
    tallest = run_height(contact.units)
    # a line set under the high spot is no way to propose: the method is then shown as it would be from the spot itself
    usable = isinstance(chosen, HighSpot) and chosen.over_mm >= -kit.tolerance_mm
    high = chosen if isinstance(chosen, HighSpot) and usable else HighSpot()
    compared: list[tuple[Literal["high spot", "fixed top"], Datum, float]] = [("high spot", high, high.over_mm)]
    if contact.high_spot.tied:
        usual = math.ceil((contact.high_spot.value_mm + tallest) / TOP_STEP_MM) * TOP_STEP_MM
        top = chosen if isinstance(chosen, FixedTop) else FixedTop(top_mm=usual)
        compared.append(("fixed top", top, top.top_mm - top.cushion_mm - tallest - contact.high_spot.value_mm))
    costs = [trade(contact, over, kit) for _, _, over in compared]
    kept = isinstance(chosen, FixedTop) and len(costs) > 1 and costs[1].deepest_cut_mm <= kit.tolerance_mm
    best = 1 if kept else 0
    return tuple(
        DatumMethod(method=name, datum=datum, cost=cost, proposed=i == best, reason=_reason(name, cost, best=i == best))
        for i, ((name, datum, _), cost) in enumerate(zip(compared, costs, strict=True))
    )


def _reason(method: Literal["high spot", "fixed top"], cost: Trade, *, best: bool) -> str:
    if method == "high spot":
        return "cuts nothing; no height to meet" if best else "cuts nothing, but loses your height"
    if cost.deepest_cut_mm > 0:
        return "meets the height, but the base must be cut"
    return "meets your height and cuts nothing" if best else "to meet a table, sill or neighbour"
