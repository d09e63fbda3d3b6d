"""What is told of a carcass inside: what does not go in, what is too tall, too narrow, in the way or not chosen."""

from __future__ import annotations

from collections.abc import Iterator

from wobble.core.contents import CONTENTS_KG_PER_M3, ROW_HIGH_MM, contents_of
from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.job import Board, Cell, Columns, Content, Drawers, Hung, OnCleats, PullOut, Rows, Shelved, Unit
from wobble.core.setout.boards import sag
from wobble.core.setout.cells import LaidCell, under_box_mm
from wobble.core.setout.sheet import Sheet
from wobble.core.setout.ways import construction_of

LEAST_DRAWER_MM = 40.0
"""A drawer's box lower than this holds nothing."""
LEAST_OPENING_MM = 30.0
UP_OPENS_MM = 50.0
"""A flap that opens upwards needs its own height over its hinge, and this much for a handle."""


def _of(value: float, label: str, sd: float = 0.0) -> Figure:
    return Figure(value_mm=value, sd_mm=sd, working=(Step(label=label, value_mm=value, sd_mm=sd),))


def cell_at(root: Cell, path: str) -> Cell:
    """Return the cell at a path."""
    for part in path.split(".") if path else ():
        cells = root.fill.cells if isinstance(root.fill, Columns | Rows) else ()
        root = cells[int(part)]
    return root


def _each(sheet: Sheet) -> Iterator[tuple[Unit, Cell, LaidCell]]:
    for unit in sheet.place.units:
        if unit.insides is not None:
            for laid in sheet.cells[unit.id][0]:
                yield unit, cell_at(unit.insides.cell, laid.path), laid


def overfull(sheet: Sheet) -> Iterator[Finding]:
    """Parts of a split that ask for more than there is once the boards are taken off."""
    for unit in sheet.place.units:
        for short in sheet.cells[unit.id][1] if unit.insides is not None else ():
            yield Finding(
                code="cells-overfull",
                severity="stop",
                title=f"{unit.name}: its parts ask for more than there is",
                text=f"With the boards between them taken off {sheet.say(short.free_mm)} is left, and the parts that "
                f"have a size ask for {sheet.say(short.asked_mm)}. Let one of them follow.",
                figure=_of(short.free_mm - short.asked_mm, "What is left less what is asked"),
                about=(unit.id, short.path or "all"),
            )
        if unit.insides is not None and not sheet.cells[unit.id][1]:
            for laid in sheet.cells[unit.id][0]:
                if laid.leaf and min(laid.seen.wide_mm, laid.seen.high_mm) < LEAST_OPENING_MM:
                    least = min(laid.seen.wide_mm, laid.seen.high_mm)
                    yield Finding(
                        code="cells-overfull",
                        severity="stop",
                        title=f"{unit.name}: an opening of {sheet.say(least)}",
                        text="Boards and frame leave it no more. Ask for fewer parts, or make the unit larger.",
                        figure=_of(least, "What is free"),
                        about=(unit.id, laid.path or "all"),
                    )


def drawers(sheet: Sheet) -> Iterator[Finding]:
    """Drawers taller than their opening less what slides want, and slides behind a frame's lip."""
    for unit, cell, laid in _each(sheet):
        if not isinstance(cell.fill, Drawers | PullOut):
            continue
        slides, sides = cell.fill.slides, laid.spacers_mm
        where = (unit.id, laid.path or "all")
        if isinstance(cell.fill, Drawers):
            takes = slides.over_mm + slides.under_mm
            heights = cell.fill.heights_mm[: cell.fill.count]
            asked = sum(heights) + cell.fill.count * takes + (cell.fill.count - len(heights)) * LEAST_DRAWER_MM
            if asked > laid.seen.high_mm + 0.5:
                fits = (laid.seen.high_mm - cell.fill.count * takes) / cell.fill.count
                yield Finding(
                    code="drawer-too-tall",
                    severity="stop",
                    title=f"{unit.name}: drawers taller than their opening",
                    text=f"{sheet.say(laid.seen.high_mm)} is free for {cell.fill.count}, and each wants "
                    f"{sheet.say(takes)} of clearance: boxes of {sheet.say(max(fits, 0.0))} all alike are the most.",
                    figure=_of(laid.seen.high_mm - asked, "What is free less what they ask"),
                    about=where,
                )
        narrow = min(d.wide_mm for d in laid.drawers)
        if narrow < LEAST_OPENING_MM:
            yield Finding(
                code="drawer-narrow",
                severity="stop",
                title=f"{unit.name}: slides leave the drawers {sheet.say(narrow)}",
                text="Make the opening wider, or take slides that lie under the box.",
                about=where,
            )
        if max(sides) > 0:
            said = sheet.say(sides[0]) if abs(sides[0] - sides[1]) < 0.05 else f"{sheet.say(sides[0])} left and "
            said += "" if abs(sides[0] - sides[1]) < 0.05 else f"{sheet.say(sides[1])} right"
            yield Finding(
                code="behind-lip",
                severity="mind",
                title=f"{unit.name}: space the slides out past the frame",
                text=f"The frame stands {said} past the boards. Screw spacers as thick to both sides, and make "
                f"the boxes {sheet.say(laid.drawers[0].wide_mm)} wide.",
                figure=_of(max(sides), "Frame past the board"),
                about=where,
            )


def doors(sheet: Sheet) -> Iterator[Finding]:
    """Doors whose hinge nobody chose, and flaps that open into what is above them."""
    open_ = [(u, laid, cell.door) for u, cell, laid in _each(sheet) if cell.door is not None]
    waiting = [u for u, _, door in open_ if door.hinge == "not chosen"]
    if waiting:
        units = list({u.id: u for u in waiting}.values())
        yield Finding(
            code="hinge-not-chosen",
            severity="mind",
            title="Choose the hinges before cutting",
            text=f"{', '.join(u.name for u in units)}: how far a door may lie over, and where its cups are bored, is "
            "on the hinge's sheet. Until then the doors' sizes are as drawn, and not for the saw.",
            about=tuple(u.id for u in units),
        )
    for unit, laid, door in open_:
        if door.hangs == "up":
            yield from _flap(sheet, unit, laid)


def _flap(sheet: Sheet, unit: Unit, laid: LaidCell) -> Iterator[Finding]:
    leaf = laid.door[0].at
    hinge = unit.over_base_mm + leaf.z_mm + leaf.high_mm
    needs = hinge + leaf.high_mm + UP_OPENS_MM
    above = [
        u
        for u in sheet.place.units
        if u.id != unit.id
        and u.x_mm < unit.right_mm
        and u.right_mm > unit.x_mm
        and hinge - 1.0 <= u.over_base_mm < needs
        and u.out_mm + u.depth_mm > unit.out_mm + unit.depth_mm
    ]
    if above:
        yield Finding(
            code="lid-room",
            severity="stop",
            title=f"{unit.name}: its flap opens into {above[0].name}",
            text=f"It swings up to {sheet.say(needs)}, and {above[0].name} stands out over it from "
            f"{sheet.say(above[0].over_base_mm)}. Hinge it below, or hold what is above back.",
            about=(unit.id, above[0].id),
        )
    elif needs > sheet.place.height_mm:
        yield Finding(
            code="lid-room",
            severity="mind",
            title=f"{unit.name}: its flap wants {sheet.say(needs)} of height",
            text=f"The ceiling is said to be {sheet.say(sheet.place.height_mm)} up. It opens until it touches; take "
            "stays that stop it before, and measure the ceiling there.",
            about=(unit.id, "ceiling"),
        )


def goes_in(sheet: Sheet) -> Iterator[Finding]:
    """Things that do not go into the cell that they are said to stand in, by size or by number."""
    for unit, cell, laid in _each(sheet):
        for thing in cell.holds if laid.leaf else ():
            short = _short(laid, thing)
            if short is not None:
                what, free, asked = short
                yield Finding(
                    code="does-not-go-in",
                    severity="stop",
                    title=f"{thing.name} does not go into {unit.name}",
                    text=f"{what}: {sheet.say(asked)} wanted{' with a hand’s room' if what == 'Height' else ''}, "
                    f"{sheet.say(free)} free."
                    if what != "Number"
                    else f"{thing.count} wanted, room for {free:.0f}. Stack them, or give them another shelf.",
                    figure=_of(free - asked, f"{what}, free less wanted") if what != "Number" else None,
                    about=(unit.id, laid.path or "all", thing.name),
                )
        if laid.leaf and cell.holds and len(cell.holds) > 1:
            taken = sum(t.width_mm * -(-t.count // t.stacked) for t in cell.holds)
            rows = 1 + len(laid.shelves_at)
            if taken > laid.seen.wide_mm * rows and not any(_short(laid, t) for t in cell.holds):
                yield Finding(
                    code="does-not-go-in",
                    severity="mind",
                    title=f"{unit.name}: its things stand {sheet.say(taken / rows)} wide",
                    text=f"{sheet.say(laid.seen.wide_mm)} is free on each of {rows}. Some must stand behind others.",
                    about=(unit.id, laid.path or "all"),
                )


def compartment_mm(laid: LaidCell) -> float:
    """Return the height that is free for a thing in a cell, mm: between shelves, or in the lowest drawer's box."""
    if laid.shelves_at:
        return laid.shelves_at[0] - laid.rect.z_mm
    if laid.drawers and laid.fill == "pull-out":
        return laid.drawers[0].opening_mm - laid.drawers[0].high_mm
    return max(d.high_mm for d in laid.drawers) if laid.drawers else laid.seen.high_mm


def _short(laid: LaidCell, thing: Content) -> tuple[str, float, float] | None:
    """Return what a thing lacks: what, how much there is and how much it asks; None where it goes in."""
    high = thing.height_mm * thing.stacked + thing.room_mm
    wide = min(d.wide_mm for d in laid.drawers) if laid.drawers else laid.seen.wide_mm
    free = compartment_mm(laid)
    for what, there, asked in (
        ("Width", wide, thing.width_mm),
        ("Height", free, high),
        ("Depth", laid.deep_mm, thing.depth_mm),
    ):
        if asked > there + 0.05:
            return what, there, asked
    floors = len(laid.drawers) if laid.fill == "drawers" else 1 + len(laid.shelves_at)
    n = int(wide // thing.width_mm) * int(laid.deep_mm // thing.depth_mm) * thing.stacked * floors
    return ("Number", n, thing.count) if n < thing.count else None


def sagging(sheet: Sheet) -> Iterator[Finding]:
    """Shelves, and bottoms of what hangs, that bend past what the eye takes for straight."""
    for unit, cell, laid in _each(sheet):
        built = construction_of(sheet.job, unit)
        boards: list[tuple[str, float, float, float]] = []
        if laid.shelf_mm is not None and isinstance(cell.fill, Shelved):
            boards.append(("shelves", *laid.shelf_mm, cell.fill.thick_mm))
        hangs = isinstance(unit.standing, Hung | OnCleats)
        if laid.leaf and hangs and laid.rect.z_mm <= under_box_mm(unit) + built.board_mm + 0.5:
            boards.append(("bottom", laid.rect.wide_mm, laid.deep_mm, built.board_mm))
        for what, long, deep, thick in boards:
            if min(long, deep) <= LEAST_OPENING_MM:
                continue
            material = unit.board.material if unit.board is not None else "particleboard"
            load = row_load(unit, cell, laid)
            bends = sag(Board(material=material, load_kg_per_m=load), long, deep, thick)
            if bends.later.value_mm <= bends.limit_mm:
                continue
            yield Finding(
                code="shelf-sags",
                severity="mind",
                title=f"{unit.name}: its {what} {'sags' if what == 'bottom' else 'sag'}",
                text=f"{sheet.say(long)} of {material} {sheet.say(thick)} thick under {load:.0f} kg a metre"
                f"{'' if cell.holds else ', as nobody said what stands there'}: {sheet.say(bends.later.value_mm)} "
                f"after years, {sheet.say(bends.limit_mm)} is straight to the eye. {sheet.say(bends.spacing_mm)} is "
                "the longest; put a divider in, stiffen the front edge, or take a thicker board.",
                figure=bends.later,
                about=(unit.id, laid.path or "all", what),
            )


def row_load(unit: Unit, cell: Cell, laid: LaidCell) -> float:
    """Return what stands on a metre of a cell's shelf, kg: its own things, or a row of what the unit holds."""
    floors = 1 + len(laid.shelves_at)
    if cell.holds:
        total = sum(t.weight_kg * t.count for t in cell.holds)
        return total / floors / max(laid.rect.wide_mm / 1000, 1e-3)
    high = min(compartment_mm(laid), ROW_HIGH_MM)
    return CONTENTS_KG_PER_M3.get(contents_of(unit), 0.0) * max(laid.deep_mm, 0.0) / 1000 * max(high, 0.0) / 1000


CELL_RULES = (overfull, drawers, doors, goes_in, sagging)
