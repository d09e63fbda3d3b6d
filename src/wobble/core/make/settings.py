"""Settings: like cuts of all units at one setting of fence, stop, bit or angle, in the order in which a shop works.

A piece is broken down to what can be led safely, gets one true edge, is ripped to width, cut to length at a stop, then
grooved, bevelled and drilled. A machine is taken that takes the cut; where none does, it is said what would.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Literal

from wobble.core.job import Job, Machine, MachineKind, Value
from wobble.core.length import LengthUnit, spoken
from wobble.core.make.layout.laid import Layout, first_cut, stop_mm
from wobble.core.make.marked import MarkedPart

Work = Literal["break down", "true edge", "rip", "cross-cut", "groove", "bevel", "drill"]
OVER_MM = 5.0
NEAR_MM = 0.1
"""Sizes that differ by less share a setting."""
SAW_CAUTION = "Guard and riving knife on, push stick in hand, nobody behind the blade; dust mask and extraction."
CAUTIONS: dict[Work, str] = {
    "break down": "Sheet and offcut both supported; blade just through the sheet.",
    "true edge": SAW_CAUTION,
    "rip": SAW_CAUTION,
    "cross-cut": "Stop clear of the blade when it cuts, so that no offcut is caught; hands out of its line.",
    "groove": "Several shallow passes; guard or bridge over the cutter, work against its turn.",
    "bevel": "Tilted blade: the offcut must lie free above it, or it is thrown back.",
    "drill": "Work clamped down; backing board under it where a hole goes through.",
}
SHEET_SAWS: tuple[MachineKind, ...] = ("track saw", "hand-held saw", "table saw", "shop")
RIPS: tuple[MachineKind, ...] = ("table saw", "track saw", "band saw", "hand-held saw", "shop")
CROSSES: tuple[MachineKind, ...] = ("mitre saw", "table saw", "track saw", "hand-held saw", "shop")
GROOVES: tuple[MachineKind, ...] = ("router", "table saw")
DRILLS: tuple[MachineKind, ...] = ("drill press", "drill")


class Piece(Value, frozen=True, kw_only=True):
    """Parts that are cut at a setting: which, by key and mark, how many, and whether they may be cut yet."""

    key: str
    mark: str
    count: int
    ready: bool


class Setting(Value, frozen=True, kw_only=True):
    """One setting: what is done, the number to set, what else to know, who takes part, and the machine.

    Attributes:
        id: Its own, the same while the size is the same. work: What is done. at_mm: The number to set: of the fence,
            the stop, the bit. deep_mm: How deep, where it is a groove or a hole. thick_mm: Of the stock.
        from_mm: How far from the edge. words: What the number does not say. pieces: What is cut at it.
        machine: By which; "" where none takes it. instead: What would, then.
        caution: What to mind.
    """

    id: str
    work: Work
    at_mm: float
    deep_mm: float = 0.0
    from_mm: float = 0.0
    thick_mm: float
    words: str
    pieces: tuple[Piece, ...]
    machine: str
    instead: str = ""
    caution: str


def settings(job: Job, parts: Sequence[MarkedPart], layout: Layout) -> tuple[Setting, ...]:
    """Return every setting, in the order of work."""
    machines, units = job.workshop.machines, job.units
    return (
        *_broken_down(layout, machines, units),
        *_edges(parts, machines),
        *_ripped(parts, machines, units),
        *_crossed(parts, machines, units),
        *_grooved(parts, machines, units),
        *_bevelled(parts, machines),
        *_drilled(parts, machines, units),
    )


def _piece(one: MarkedPart, count: int = 0) -> Piece:
    return Piece(key=one.key, mark=one.mark, count=count or one.to_cut, ready=one.state == "now")


def _taken(
    machines: Iterable[Machine],
    kinds: tuple[MachineKind, ...],
    *,
    reach: float,
    thick: float,
    rips: bool,
    long: float = 0.0,
) -> str:
    """Return the first machine of some kinds, in their order, that takes a cut; "" where none does."""
    for kind in kinds:
        for machine in machines:
            most = machine.rip_mm if rips else machine.cross_mm
            if (
                machine.kind == kind
                and (most == 0 or reach <= most)
                and (machine.thick_mm == 0 or thick <= machine.thick_mm)
                and (machine.bed_mm == 0 or long <= machine.bed_mm)
            ):
                return machine.name
    return ""


def _instead(work: Work, machines: Sequence[Machine], units: LengthUnit = "mm") -> str:
    if not machines:
        return ""
    match work:
        case "rip" | "true edge":
            return (
                "No machine here is wide enough: a straightedge clamped on for a hand-held saw, cut "
                f"{spoken(OVER_MM, units)} over size and planed to a line; or the shop's saw; or two pieces with a "
                "seam where it is not seen."
            )
        case "cross-cut":
            return "No machine here reaches: a square clamped across for a hand-held saw, a stop block at its end."
        case "groove":
            return "No machine here cuts it: two strips glued on make a groove as well, or an applied back needs none."
        case "bevel":
            return "No machine here tilts so far: a wedge under the work makes up what the blade does not tilt."
        case _:
            return "Marked, punched and drilled by hand with a stop on the bit."


def _broken_down(layout: Layout, machines: Sequence[Machine], units: LengthUnit) -> Iterator[Setting]:
    """Yield the first cuts of sheets, like ones together: what makes them small enough to be led over a saw."""
    like: dict[tuple[float, str, str, float], list[int]] = {}
    for n, sheet in enumerate(layout.sheets, 1):
        first = first_cut(sheet)
        if first is not None:
            like.setdefault((round(stop_mm(first), 1), first.axis, sheet.name, sheet.thick_mm), []).append(n)
    for (end, axis, name, thick), numbers in sorted(like.items(), key=lambda item: item[1]):
        sheet = layout.sheets[numbers[0] - 1]
        machine = _taken(machines, SHEET_SAWS, reach=end, thick=thick, rips=axis == "y", long=sheet.long_mm)
        which = f"sheet {numbers[0]}" if len(numbers) == 1 else "sheets " + ", ".join(map(str, numbers))
        yield Setting(
            id=f"break-{numbers[0]}",
            work="break down",
            at_mm=end,
            thick_mm=thick,
            words=f"{which}, {name}: first cut {'across' if axis == 'x' else 'along'}, then as it is drawn",
            pieces=(),
            machine=machine,
            instead="" if machine else _instead("rip", machines, units),
            caution=CAUTIONS["break down"],
        )


def _gathered(items: Iterable[tuple[float, float, MarkedPart]]) -> Iterator[tuple[float, float, list[MarkedPart]]]:
    """Yield parts that share a size and a thickness, the largest first."""
    found: list[tuple[float, float, list[MarkedPart]]] = []
    for size, thick, one in sorted(items, key=lambda i: (i[1], i[0]), reverse=True):
        if found and abs(found[-1][1] - thick) < NEAR_MM and abs(found[-1][0] - size) < NEAR_MM:
            found[-1][2].append(one)
        else:
            found.append((size, thick, [one]))
    yield from found


def _waiting(parts: Sequence[MarkedPart]) -> list[MarkedPart]:
    return [p for p in parts if p.to_cut and min(p.part.blank_mm) > 0 and p.part.thick_mm > 0]


def _edges(parts: Sequence[MarkedPart], machines: Sequence[Machine]) -> Iterator[Setting]:
    solid = [
        p for p in _waiting(parts) if p.part.role in ("stile", "rail", "mullion", "filler", "top", "shelf", "edging")
    ]
    if solid:
        yield Setting(
            id="true-edge",
            work="true edge",
            at_mm=0.0,
            thick_mm=max(p.part.thick_mm for p in solid),
            words="one edge of each board planed or sawn straight: all widths are measured from it",
            pieces=tuple(_piece(p) for p in solid),
            machine=_taken(machines, ("planer", "table saw", "track saw"), reach=0.0, thick=0.0, rips=True),
            caution=CAUTIONS["true edge"],
        )


def _ripped(parts: Sequence[MarkedPart], machines: Sequence[Machine], units: LengthUnit) -> Iterator[Setting]:
    for wide, thick, some in _gathered((p.part.blank_mm[1], p.part.thick_mm, p) for p in _waiting(parts)):
        long = max(p.part.blank_mm[0] for p in some)
        machine = _taken(machines, RIPS, reach=wide, thick=thick, rips=True, long=long)
        split = any(p.part.role == "split batten" for p in some)
        double = " ripped double, then split by the bevel" if split else ""
        yield Setting(
            id=f"rip-{thick:g}-{wide:.1f}",
            work="rip",
            at_mm=wide,
            thick_mm=thick,
            words=f"fence for {sum(p.to_cut for p in some)} of {spoken(thick, units)}{double}",
            pieces=tuple(_piece(p) for p in some),
            machine=machine,
            instead="" if machine else _instead("rip", machines, units),
            caution=CAUTIONS["rip"],
        )


def _crossed(parts: Sequence[MarkedPart], machines: Sequence[Machine], units: LengthUnit) -> Iterator[Setting]:
    for long, thick, some in _gathered((p.part.blank_mm[0], p.part.thick_mm, p) for p in _waiting(parts)):
        wide = max(p.part.blank_mm[1] for p in some)
        machine = _taken(machines, CROSSES, reach=wide, thick=thick, rips=False)
        n = sum(p.to_cut for p in some)
        pairs = ", two clamped and cut together" if n > 1 and n % 2 == 0 else ""
        like = [p for p in some if p.to_cut >= 3 and p.part.grooves]
        slices = "; groove the long strip first, then slice it" if like else ""
        yield Setting(
            id=f"cross-{thick:g}-{long:.1f}",
            work="cross-cut",
            at_mm=long,
            thick_mm=thick,
            words=f"stop for {n} of {spoken(thick, units)}{pairs}{slices}",
            pieces=tuple(_piece(p) for p in some),
            machine=machine,
            instead="" if machine else _instead("cross-cut", machines),
            caution=CAUTIONS["cross-cut"],
        )


def _grooved(parts: Sequence[MarkedPart], machines: Sequence[Machine], units: LengthUnit) -> Iterator[Setting]:
    found: dict[tuple[str, float, float, float, str], list[MarkedPart]] = {}
    for one in _waiting(parts):
        for g in {(g.kind, g.wide_mm, g.deep_mm, g.from_mm, g.edge) for g in one.part.grooves}:
            found.setdefault(g, []).append(one)
    for (kind, wide, deep, from_mm, edge), some in found.items():
        thick = max(p.part.thick_mm for p in some)
        machine = _taken(machines, GROOVES, reach=wide, thick=thick, rips=True)
        yield Setting(
            id=f"{kind}-{wide:g}-{deep:g}-{from_mm:g}",
            work="groove",
            at_mm=wide,
            deep_mm=deep,
            from_mm=from_mm,
            thick_mm=thick,
            words=f"{kind} {spoken(deep, units)} deep, {spoken(from_mm, units)} from the {edge}; "
            "try it with a scrap of what goes in",
            pieces=tuple(_piece(p) for p in some),
            machine=machine,
            instead="" if machine else _instead("groove", machines),
            caution=CAUTIONS["groove"],
        )


SPLIT_DEG = 45.0


def _bevelled(parts: Sequence[MarkedPart], machines: Sequence[Machine]) -> Iterator[Setting]:
    found: dict[float, list[MarkedPart]] = {}
    for one in _waiting(parts):
        angle = SPLIT_DEG if one.part.role == "split batten" else one.part.bevel_deg
        if angle:
            found.setdefault(angle, []).append(one)
    for angle, some in found.items():
        able = [m for m in machines if m.angle_deg >= angle]
        machine = _taken(able, ("table saw", "track saw", "hand-held saw"), reach=0.0, thick=0.0, rips=True)
        yield Setting(
            id=f"bevel-{angle:g}",
            work="bevel",
            at_mm=angle,
            thick_mm=max(p.part.thick_mm for p in some),
            words=f"blade at {angle:g}°, measured from the face that is seen; long points said from that face",
            pieces=tuple(_piece(p) for p in some),
            machine=machine,
            instead="" if machine else _instead("bevel", machines),
            caution=CAUTIONS["bevel"],
        )


def _drilled(parts: Sequence[MarkedPart], machines: Sequence[Machine], units: LengthUnit) -> Iterator[Setting]:
    found: dict[tuple[str, float, float], list[tuple[MarkedPart, str, int]]] = {}
    for one in _waiting(parts):
        for d in one.part.drillings:
            key = (d.use, d.diameter_mm, round(d.deep_mm, 1))
            found.setdefault(key, []).append((one, d.words, len(d.at)))
    for (use, wide, deep), some in found.items():
        machine = _taken(machines, DRILLS, reach=0.0, thick=0.0, rips=True)
        words = list(dict.fromkeys(w for _, w, _ in some))
        yield Setting(
            id=f"drill-{use.replace(' ', '-')}-{wide:g}-{deep:g}",
            work="drill",
            at_mm=wide,
            deep_mm=deep,
            thick_mm=max(p.part.thick_mm for p, _, _ in some),
            words=f"{use}, {'through' if not deep else f'{spoken(deep, units)} deep'}: {words[0]}"
            + (f"; and {len(words) - 1} others, as their parts say" if len(words) > 1 else ""),
            pieces=tuple(_piece(p) for p in {p.key: p for p, _, _ in some}.values()),
            machine=machine,
            instead="" if machine else _instead("drill", machines),
            caution=CAUTIONS["drill"],
        )
