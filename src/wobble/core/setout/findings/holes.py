"""What is told of holes, hatches and lids: plugs that do not pass, edges that break out, lids over a seam."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from wobble.core.contents import things_in
from wobble.core.figure import Figure, Step
from wobble.core.finding import Finding
from wobble.core.job import Cell, Hole, Shelved, Unit
from wobble.core.setout.boards import seams
from wobble.core.setout.cells import LaidCell, cell_at
from wobble.core.setout.sheet import Sheet

LEAST_EDGE_MM = 40.0
"""What stays of a board beside a hole that is narrower than this breaks out when it is cut or leant on."""
LEAST_STRIP_MM = 50.0
"""A strip behind a lid that its hinges are screwed to."""
PLUG_ROOM_MM = 5.0
BOARD_MOST_MM = 60.0
"""A cell that begins nearer than this to an end of its box lies at it: no board is thicker."""
NEAR_MM = 0.5


def board_size(unit: Unit, hole: Hole) -> tuple[float, float]:
    """Return the size of the board that a hole is in, as one faces it, mm."""
    match hole.inside:
        case "top":
            return unit.width_mm, unit.depth_mm
        case "left side" | "right side":
            return unit.depth_mm, unit.height_mm
        case _:
            return unit.width_mm, unit.height_mm


def edges(sheet: Sheet) -> Iterator[Finding]:
    """Holes that lie outside their board or leave too little beside them; strips too narrow for hinges."""
    for unit in sheet.place.units:
        for hole in unit.holes:
            wide, high = board_size(unit, hole)
            rests = (
                hole.at[0],
                wide - hole.at[0] - hole.size[0],
                hole.at[1],
                high - hole.at[1] - hole.size[1] - (hole.strip_mm if hole.kind == "lid" else 0.0),
            )
            left = min(rests)
            if left < -0.5:
                yield Finding(
                    code="hole-outside",
                    severity="stop",
                    title=f"{hole.name} is larger than its board",
                    text=f"{unit.name}’s {hole.inside} measures {sheet.say(wide)} by {sheet.say(high)}; the hole "
                    f"reaches {sheet.say(-left)} past it.",
                    about=(unit.id, hole.id),
                )
            elif left < LEAST_EDGE_MM and hole.kind != "lid":
                yield Finding(
                    code="hole-edge",
                    severity="mind",
                    title=f"{hole.name}: {sheet.say(left)} is left beside it",
                    text=f"Less than {sheet.say(LEAST_EDGE_MM)} breaks out under the saw. Move it in, or let it run "
                    "out to the edge as a notch.",
                    figure=_of(left, "Board left beside the hole"),
                    about=(unit.id, hole.id),
                )
            if hole.kind == "lid" and hole.strip_mm < LEAST_STRIP_MM:
                yield Finding(
                    code="lid-strip",
                    severity="mind",
                    title=f"{hole.name} wants a fixed strip behind it",
                    text=f"Its hinges need {sheet.say(LEAST_STRIP_MM)} that stay; {sheet.say(hole.strip_mm)} is said.",
                    about=(unit.id, hole.id),
                )


def plugs(sheet: Sheet) -> Iterator[Finding]:
    """Plugs larger than the hole that they must pass, or with no hole at all."""
    for unit in sheet.place.units:
        ways = [h for h in unit.holes if h.kind in ("cable hole", "cut-out", "hatch")]
        for hole in ways:
            yield from _through(sheet, unit, hole, hole.plug_mm, hole.name)
        for thing in things_in(unit):
            if not thing.plug_mm:
                continue
            widest = max(ways, key=lambda h: min(h.size), default=None)
            if widest is None:
                yield Finding(
                    code="plug-larger",
                    severity="mind",
                    title=f"{thing.name} has a plug and {unit.name} no hole",
                    text=f"Bore {sheet.say(thing.plug_mm + PLUG_ROOM_MM)} before the boards are glued, where its cable "
                    "leaves.",
                    about=(unit.id, thing.name),
                )
            else:
                yield from _through(sheet, unit, widest, thing.plug_mm, thing.name)


def _through(sheet: Sheet, unit: Unit, hole: Hole, plug: float, name: str) -> Iterator[Finding]:
    if plug and min(hole.size) < plug:
        yield Finding(
            code="plug-larger",
            severity="stop",
            title=f"The plug of {name} does not pass {hole.name}",
            text=f"It measures {sheet.say(plug)}, the hole {sheet.say(min(hole.size))}. Bore "
            f"{sheet.say(plug + PLUG_ROOM_MM)} before the boards are glued; a cable cannot be cut for it.",
            figure=_of(min(hole.size) - plug, "Hole less plug"),
            about=(unit.id, hole.id, name),
        )


def over_seams(sheet: Sheet) -> Iterator[Finding]:
    """Lids and hatches that lie over a seam of the board that they are cut from."""
    for unit in sheet.place.units:
        for at in seams(unit.board, unit.width_mm):
            for hole in unit.holes:
                if hole.inside == "top" and hole.at[0] - LEAST_EDGE_MM < at < hole.at[0] + hole.size[0] + LEAST_EDGE_MM:
                    yield Finding(
                        code="lid-over-seam",
                        severity="mind",
                        title=f"{hole.name} lies over a seam",
                        text=f"The board is put together {sheet.say(at)} from its left end, as it is bought in "
                        f"{sheet.say(unit.board.stock_mm if unit.board else 0.0)}. Put the seam over a support, "
                        "clear of the opening.",
                        about=(unit.id, hole.id),
                    )


@dataclass(frozen=True)
class _Free:
    """What is free between boards, seen from the front: from and to, along and up, mm."""

    along: tuple[float, float]
    up: tuple[float, float]

    def past(self, left: float, right: float, low: float, high: float) -> tuple[float, float] | None:
        """Return how far a hole must move, along and up, to lie in it; None where it is larger."""
        moves = []
        for (least, most), begin, end in ((self.along, left, right), (self.up, low, high)):
            if end - begin > most - least:
                return None
            moves.append(max(least - begin, 0.0) + min(most - end, 0.0))
        return moves[0], moves[1]

    def meets(self, left: float, right: float, low: float, high: float) -> bool:
        """Return whether any of a hole lies in it."""
        return left < self.along[1] and right > self.along[0] and low < self.up[1] and high > self.up[0]


def on_boards(sheet: Sheet) -> Iterator[Finding]:
    """Holes that fall on a board inside the box: a divider, a side, a fixed shelf.

    A lid or a hatch in a top may lie over a divider, which bears its edge.
    """
    for unit in sheet.place.units:
        if unit.insides is None:
            continue
        for hole in unit.holes:
            if hole.inside == "top" and hole.kind in ("lid", "hatch"):
                continue
            free = list(_free(unit, unit.insides.cell, sheet.cells[unit.id][0], hole))
            at = (hole.at[0], hole.at[0] + hole.size[0], hole.at[1], hole.at[1] + hole.size[1])
            if not any(f.meets(*at) for f in free):
                continue  # in the base, or beside all that is told of the inside
            moves = [m for f in free if (m := f.past(*at)) is not None]
            least = min(moves, key=lambda m: abs(m[0]) + abs(m[1]), default=None)
            if least is not None and max(map(abs, least)) < NEAR_MM:
                continue
            yield Finding(
                code="hole-on-board",
                severity="mind",
                title=f"{hole.name} falls on a board in {unit.name}",
                text="It is wider than what is free between two boards: cut the board round it, or split the hole."
                if least is None
                else f"Move it {_moved(sheet, hole, least)} and it lies between the boards.",
                about=(unit.id, hole.id),
            )


def _free(unit: Unit, whole: Cell, cells: Iterable[LaidCell], hole: Hole) -> Iterator[_Free]:
    """Yield what is free behind the board that a hole is in: between dividers, and above and below fixed shelves."""
    everywhere = (-math.inf, math.inf)
    for cell in (c for c in cells if c.leaf):
        r = cell.rect
        along, up = (r.x_mm, r.x_mm + r.wide_mm), (r.z_mm, r.z_mm + r.high_mm)
        fill = cell_at(whole, cell.path).fill
        shelves = sorted(cell.shelves_at) if isinstance(fill, Shelved) and fill.held == "fixed" else []
        thick = fill.thick_mm if isinstance(fill, Shelved) else 0.0
        floors = [up[0], *(z + thick for z in shelves)]
        levels = list(zip(floors, [*shelves, up[1]], strict=True))
        if hole.inside == "back":
            yield from (_Free(along, level) for level in levels)
        elif hole.inside == "top" and up[1] > unit.height_mm - BOARD_MOST_MM:
            yield _Free(along, everywhere)
        elif (hole.inside == "left side" and along[0] < BOARD_MOST_MM) or (
            hole.inside == "right side" and along[1] > unit.width_mm - BOARD_MOST_MM
        ):
            yield from (_Free(everywhere, level) for level in levels)


def _moved(sheet: Sheet, hole: Hole, by: tuple[float, float]) -> str:
    across = ("forward", "back") if hole.inside in ("left side", "right side") else ("to the right", "to the left")
    words = [f"{sheet.say(abs(by[0]))} {across[by[0] < 0]}"] if abs(by[0]) >= NEAR_MM else []
    if abs(by[1]) >= NEAR_MM:
        words.append(f"{sheet.say(abs(by[1]))} {'down' if by[1] < 0 else 'up'}")
    return " and ".join(words)


def mirrored(sheet: Sheet) -> Iterator[Finding]:
    """A unit that is the mirror image of another: named, so that nobody cuts it twice the same way."""
    for unit in sheet.place.units:
        of = sheet.by_id.get(unit.mirror_of or "")
        if of is None:
            continue
        laid = sheet.cells[unit.id][0] if unit.insides is not None else ()
        hung = sorted({leaf.hangs for cell in laid for leaf in cell.door if leaf.hangs in ("left", "right")})
        holes = "; ".join(
            f"{h.name} {sheet.say(board_size(unit, h)[0] - h.at[0] - h.size[0])} from its right" for h in unit.holes
        )
        yield Finding(
            code="mirror-image",
            severity="mind",
            title=f"{unit.name} is {of.name} seen in a mirror",
            text=f"Seen from the front{f', its doors hang {hung[0]}' if len(hung) == 1 else ''}"
            f"{f'; {holes}' if holes else ''}. Mark the seen face and the left end on each of its boards before "
            "cutting.",
            about=(unit.id, of.id),
        )


def _of(value: float, label: str) -> Figure:
    return Figure(value_mm=value, sd_mm=0.0, working=(Step(label=label, value_mm=value),))


HOLE_RULES = (edges, plugs, over_seams, on_boards, mirrored)
