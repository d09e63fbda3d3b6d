"""What to tell the installer, in order of consequence: what stops the job, what to mind, what is fine.

Each rule looks at one thing and gives at most a few findings; `verdicts` asks them all and puts stops first.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from wobble.core.budget import spend
from wobble.core.finding import Finding, in_order
from wobble.core.fit.findings.case import Case
from wobble.core.fit.findings.flats import flat_parts, racks
from wobble.core.fit.findings.going_in import feet_and_legs, way_in
from wobble.core.fit.findings.levels import base_height, packing, shim_stacks, untied
from wobble.core.fit.findings.mouldings import mouldings
from wobble.core.fit.findings.readings import (
    agreement,
    contradiction,
    edges_seen,
    knocked,
    leaning,
    missing,
    suspects,
    thinned,
    unseen,
)
from wobble.core.fit.findings.setting_out import SETTING_OUT_RULES
from wobble.core.fit.findings.sides import SIDE_RULES
from wobble.core.fit.findings.units import between_units, inside_corner, obstacles, overlaps, usual_heights

RULES: tuple[Callable[[Case], Iterator[Finding]], ...] = (
    suspects,
    contradiction,
    knocked,
    edges_seen,
    leaning,
    thinned,
    missing,
    untied,
    base_height,
    *SETTING_OUT_RULES,
    shim_stacks,
    packing,
    *SIDE_RULES,
    overlaps,
    between_units,
    inside_corner,
    way_in,
    feet_and_legs,
    racks,
    flat_parts,
    mouldings,
    usual_heights,
    obstacles,
    agreement,
    unseen,
)


def verdicts(case: Case) -> tuple[Finding, ...]:
    """Return all findings, stops first; within a severity in the order of the rules."""
    found: list[Finding] = []
    for rule in RULES:
        spend()
        found += rule(case)
    return in_order(found)
