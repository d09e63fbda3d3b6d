"""Whether what is set out of a place goes together: what the schema cannot say."""

from __future__ import annotations

from typing import get_args

from wobble.core.errors import DocumentError
from wobble.core.formats.faults import check_unique
from wobble.core.job import (
    AsWide,
    At,
    Cell,
    Centred,
    Columns,
    Equal,
    HeightStack,
    LinedUp,
    MemberName,
    OnPieces,
    Place,
    Rows,
    Rule,
    Unit,
)
from wobble.core.job.insides import DEEPEST
from wobble.core.job.rules import PLACE
from wobble.core.job.unit import BODIES
from wobble.core.setout.curves import EDGES

MEMBERS: tuple[str, ...] = get_args(MemberName)
"""Layers from the floor up."""


def check_set_out(place: Place, path: str) -> None:
    """Check that what is set out of a place goes together: ids, what rules and stacks name, kinds and their bodies.

    Raises:
        DocumentError: With the path of the first fault.
    """
    units = {u.id for u in place.units}
    things = {o.id for o in place.openings} | {e.id for e in place.existing} | {s.id for s in place.steps}
    named = units | things | {o.id for o in place.obstacles} | {PLACE}
    check_unique(f"{path}.rules", [r.id for r in place.rules], "rule")
    check_unique(f"{path}.heights", [s.id for s in place.heights], "stack")
    for list_, ids in (
        ("openings", [o.id for o in place.openings]),
        ("existing", [e.id for e in place.existing]),
        ("steps", [s.id for s in place.steps]),
    ):
        check_unique(f"{path}.{list_}", ids, "thing")
        for i, id_ in enumerate(ids):
            if id_ in units or id_ == PLACE:
                raise DocumentError(
                    f"“{id_}” is a unit’s id too.", mend="Give it its own.", path=f"{path}.{list_}[{i}].id"
                )
    for i, rule in enumerate(place.rules):
        _check_rule(rule, units, named, f"{path}.rules[{i}]")
    for i, stack in enumerate(place.heights):
        _check_stack(stack, f"{path}.heights[{i}]")
    for i, unit in enumerate(place.units):
        _check_unit(unit, f"{path}.units[{i}]")
    for i, step in enumerate(place.steps):
        if step.from_mm >= step.to_mm:
            raise DocumentError(
                f"“{step.name}” ends before it begins.",
                mend="Give its left end first.",
                path=f"{path}.steps[{i}].to_mm",
            )


def _check_rule(rule: Rule, units: set[str], named: set[str], path: str) -> None:
    """Check that a rule is of units that could be there; what it names may be gone, and is then not followed."""
    match rule:
        case At(edge=edge) if edge.of not in units and edge.of in named:
            raise DocumentError(
                f"“{edge.of}” stays where it is.",
                mend="Only a unit’s edge can be put somewhere.",
                path=f"{path}.edge.of",
            )
        case LinedUp(edge=edge, to=to):
            if edge.of == to.of:
                raise DocumentError(
                    "An edge cannot be lined up with its own unit.", mend="Name another one.", path=f"{path}.to.of"
                )
            if edge.of not in units and edge.of in named:
                raise DocumentError(
                    f"“{edge.of}” stays where it is.",
                    mend="Name the unit first, and what it is lined up with then.",
                    path=f"{path}.edge.of",
                )
        case Equal(units=ids) | Centred(units=ids):
            check_unique(f"{path}.units", list(ids), "unit")
        case AsWide(unit=unit, than=than) if unit == than:
            raise DocumentError("A unit is always as wide as itself.", mend="Name another one.", path=f"{path}.than")
        case _:
            pass


def _check_stack(stack: HeightStack, path: str) -> None:
    names = [m.name for m in stack.members]
    check_unique(f"{path}.members", list(names), "member")
    if names != sorted(names, key=MEMBERS.index):
        raise DocumentError(
            "The layers are not in the order in which they lie.",
            mend=f"From the floor up: {', '.join(MEMBERS)}.",
            path=f"{path}.members",
        )
    if stack.gives is not None and (stack.gives not in names or stack.gives == "covering"):
        raise DocumentError(
            f"The {stack.gives} cannot give.",
            mend="Name a layer that the stack has, not the floor.",
            path=f"{path}.gives",
        )


def _check_unit(unit: Unit, path: str) -> None:
    check_unique(f"{path}.holes", [h.id for h in unit.holes], "hole")
    tag = None if unit.body is None else unit.body.__struct_config__.tag
    if tag is not None and BODIES.get(unit.kind) != tag:
        raise DocumentError(
            f"A {unit.kind} is no {tag}.",
            mend=f"{BODIES[unit.kind].capitalize()} is what it may be." if unit.kind in BODIES else "Leave it out.",
            path=f"{path}.body",
        )
    if unit.curve is not None and unit.curve.edge not in EDGES.get(unit.kind, ()):
        edges = EDGES.get(unit.kind, ())
        raise DocumentError(
            f"The {unit.curve.edge} edge of a {unit.kind} is not curved.",
            mend=f"Its {' or '.join(edges)} edge may be." if edges else "Curve a panel, a top or a shelf.",
            path=f"{path}.curve.edge",
        )
    if isinstance(unit.standing, OnPieces) and unit.id in unit.standing.pieces:
        raise DocumentError(
            f"“{unit.name}” cannot rest on itself.", mend="Name another piece.", path=f"{path}.standing.pieces"
        )
    if unit.insides is not None:
        _check_depth(unit.insides.cell, 0, f"{path}.insides.cell")


def _check_depth(cell: Cell, depth: int, path: str) -> None:
    if isinstance(cell.fill, Columns | Rows):
        if depth >= DEEPEST:
            raise DocumentError(
                f"Cells are split within each other more than {DEEPEST} times.",
                mend="Split them into more parts at once.",
                path=f"{path}.fill",
            )
        for i, part in enumerate(cell.fill.cells):
            _check_depth(part, depth + 1, f"{path}.fill.cells[{i}]")
