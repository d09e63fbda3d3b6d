"""Whether the parts of a job go together, past what its schema can say: each fault with its path and its mend."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np

from wobble.core.errors import DocumentError, SurveyError
from wobble.core.facts import READING_KINDS, Fact
from wobble.core.formats.faults import check_unique
from wobble.core.formats.set_out import check_set_out
from wobble.core.gauge.observe import square_defect
from wobble.core.job import (
    SURFACE_AXES,
    AsSet,
    Bought,
    Corner,
    CutDone,
    Detection,
    FlipCheck,
    Followed,
    Gap,
    HookCheck,
    Instrument,
    Job,
    Known,
    LengthStock,
    Note,
    Obstacle,
    Offset,
    Otherwise,
    Photo,
    Place,
    Profile,
    Reading,
    Scan,
    SheetStock,
    Slope,
    SquareCheck,
    StepDone,
    reading_spots,
    surface_extent,
)
from wobble.core.job.sessions import Deadline, Habit, OneOff, OwnStep, Person, Visit
from wobble.core.job.unit import ScrewFeet

MOST_READINGS = 2000
MOST_FACTS = 8000
"""So many readings of a place are adjusted together in a few seconds, whatever their noise."""
EDGE_TOLERANCE_MM = 0.5
STRAIGHTEDGE_TOLERANCE_MM = 5.0


def check_job(job: Job) -> None:
    """Check what the schema cannot say: that ids are unique, names point somewhere and readings lie in their place.

    Raises:
        DocumentError: With the path of the first fault.
    """
    check_unique("$.instruments", [i.id for i in job.instruments], "instrument")
    check_unique("$.constructions", [c.id for c in job.constructions], "way of building")
    check_unique("$.places", [b.id for b in job.places], "place")
    _check_sessions(job)
    _check_workshop(job)
    instruments = {i.id for i in job.instruments}
    for i, taper in enumerate(job.kit.tapers):
        if taper.thick_mm <= taper.thin_mm:
            raise DocumentError(
                "A wedge's thick end is not thicker than its thin end.",
                mend="Swap them.",
                path=f"$.kit.tapers[{i}].thick_mm",
            )
    for i, instrument in enumerate(job.instruments):
        _check_instrument(instrument, f"$.instruments[{i}]")
    for i, place in enumerate(job.places):
        _check_place(place, instruments, f"$.places[{i}]")
    _check_corners(job)


def _check_sessions(job: Job) -> None:
    """Check that sessions name people and machines that are there."""
    sessions = job.sessions
    named: tuple[tuple[str, Sequence[Person | Habit | OneOff | Visit | Deadline | OwnStep], str], ...] = (
        ("people", sessions.people, "person"),
        ("habits", sessions.habits, "session that comes back"),
        ("one_offs", sessions.one_offs, "session"),
        ("visits", sessions.visits, "visit"),
        ("deadlines", sessions.deadlines, "deadline"),
        ("own", sessions.own, "step of your own"),
    )
    for name, values, word in named:
        check_unique(f"$.sessions.{name}", [v.id for v in values], word)
    people = {p.id for p in sessions.people}
    machines = {m.id for m in job.workshop.machines}
    said: tuple[tuple[str, tuple[Habit | OneOff, ...]], ...] = (
        ("habits", sessions.habits),
        ("one_offs", sessions.one_offs),
    )
    for name, ones in said:
        for i, one in enumerate(ones):
            for field, known, there in (("people", people, one.people), ("machines", machines, one.machines)):
                for k, key in enumerate(there):
                    if key not in known:
                        raise DocumentError(
                            f"“{one.name}” names “{key}”, which is not among the job's {field}.",
                            mend=f"Name one of {', '.join(sorted(known)) or 'none'}, or put it there first.",
                            path=f"$.sessions.{name}[{i}].{field}[{k}]",
                        )
    for k, key in enumerate(sessions.machines_away):
        if key not in machines:
            raise DocumentError(
                f"There is no machine “{key}”.",
                mend="Name one of the workshop's machines.",
                path=f"$.sessions.machines_away[{k}]",
            )


def _check_workshop(job: Job) -> None:
    """Check that stock, shops and ways of building name what is there, and that sizes go together."""
    shop = job.workshop
    check_unique("$.workshop.stock", [s.id for s in shop.stock], "item of the stock list")
    check_unique("$.workshop.shops", [s.id for s in shop.shops], "shop")
    check_unique("$.workshop.got", [g.part for g in shop.got], "part that is not made")
    check_unique("$.workshop.machines", [m.id for m in shop.machines], "machine")
    items = {s.id: s for s in shop.stock}
    for i, sold in enumerate(shop.shops):
        check_unique(f"$.workshop.shops[{i}].prices", [o.item for o in sold.prices], "price")
        for k, offer in enumerate(sold.prices):
            if offer.item not in items:
                raise DocumentError(
                    f"“{sold.name}” sells “{offer.item}”, which is not on the stock list.",
                    mend="Put it on the list first, or take its price out.",
                    path=f"$.workshop.shops[{i}].prices[{k}].item",
                )
    for i, item in enumerate(shop.stock):
        if not isinstance(item, LengthStock):
            continue
        for k, defect in enumerate(item.defects):
            if not defect.from_mm < defect.to_mm <= item.long_mm:
                raise DocumentError(
                    f"A defect of “{item.name}” goes from {defect.from_mm:g} to {defect.to_mm:g} mm "
                    f"of {item.long_mm:g}.",
                    mend="Give the nearer end first, both within the board.",
                    path=f"$.workshop.stock[{i}].defects[{k}]",
                )
    for i, way in enumerate(job.constructions):
        if way.board is not None and not isinstance(items.get(way.board), SheetStock):
            raise DocumentError(
                f"“{way.name}” is built of “{way.board}”, which is no sheet of the stock list.",
                mend="Name a sheet of the stock list, or none.",
                path=f"$.constructions[{i}].board",
            )


def _check_instrument(instrument: Instrument, path: str) -> None:
    """Check that an instrument's checks are of its kind."""
    fitting = {
        "level": FlipCheck,
        "digital level": FlipCheck,
        "laser line": FlipCheck,
        "tape": HookCheck,
        "square": SquareCheck,
    }
    kind = fitting.get(instrument.kind)
    for k, check in enumerate(instrument.checks):
        if kind is None or not isinstance(check, kind):
            raise DocumentError(
                f"A {instrument.kind} cannot be checked that way.",
                mend="Flip a level, turn a laser half round, measure one length twice with a tape, or draw, flip and "
                "draw with a square.",
                path=f"{path}.checks[{k}]",
            )


def _check_corners(job: Job) -> None:
    """Check that corners are shared with places that are there, and each wall with one place only."""
    taken: set[str] = set()
    for i, place in enumerate(job.places):
        other = place.right_is_back_of
        if other is None:
            continue
        path = f"$.places[{i}].right_is_back_of"
        if other == place.id or other not in {b.id for b in job.places}:
            raise DocumentError(
                f"There is no other place “{other}” to share a corner with.", mend="Name one.", path=path
            )
        if other in taken:
            raise DocumentError(
                f"The back of “{other}” is already another place's right wall.",
                mend="Choose one of the two.",
                path=path,
            )
        taken.add(other)


def _check_place(place: Place, instruments: set[str], path: str) -> None:
    check_unique(f"{path}.set_ups", [s.id for s in place.set_ups], "set-up")
    for i, set_up in enumerate(place.set_ups):
        if set_up.made_with and set_up.made_with not in instruments:
            raise DocumentError(
                f"“{set_up.name}” was made with “{set_up.made_with}”, which is no instrument of the job.",
                mend=f"Name one of {', '.join(sorted(instruments)) or 'none that there are'}, or leave it empty.",
                path=f"{path}.set_ups[{i}].made_with",
            )
    check_unique(f"{path}.units", [u.id for u in place.units], "unit")
    check_unique(f"{path}.surfaces", list(place.surfaces), "surface")
    check_unique(f"{path}.alternatives", [a.name for a in place.alternatives], "alternative")
    check_unique(f"{path}.facts", [f.id for f in place.facts], "fact")
    check_room(place, f"{path}.facts")
    for i, unit in enumerate(place.units):
        if isinstance(unit.standing, ScrewFeet) and unit.standing.least_mm >= unit.standing.most_mm:
            raise DocumentError(
                f"The feet of “{unit.name}” reach from {unit.standing.least_mm:g} to {unit.standing.most_mm:g} mm.",
                mend="Give the least length first, and a larger one as the most.",
                path=f"{path}.units[{i}].standing.most_mm",
            )
    check_set_out(place, path)
    check_facts(place, place.facts, instruments, f"{path}.facts", {})


def check_room(place: Place, path: str) -> None:
    """Check that a place has no more facts than one place may have.

    Raises:
        DocumentError: It has; with the number and the most.
    """
    for n, most, what in (
        (len(place.readings), MOST_READINGS, "readings"),
        (len(place.facts), MOST_FACTS, "things found"),
    ):
        if n > most:
            raise DocumentError(
                f"Place {place.name} has {n} {what}; {most} is the most.",
                mend="Bring many points in as a scan, which is thinned, or make two places of it.",
                path=path,
            )


def check_facts(
    place: Place, facts: Sequence[Fact], instruments: set[str], path: str, earlier: Mapping[str, type[Fact]]
) -> None:
    """Check facts against their place, each with the ones that come before it.

    Args:
        place: Where they were found; its own facts are not looked at.
        facts: In the order in which they were taken.
        instruments: Ids of the instruments that the job has.
        path: Path of the list in its document.
        earlier: Kinds of the facts that are there already, by id.

    Raises:
        DocumentError: With the path of the first fault.
    """
    across: dict[str, str] = {s.id: s.across for s in place.set_ups}
    known = dict(earlier)
    for i, fact in enumerate(facts):
        here = f"{path}[{i}]"
        match fact:
            case Obstacle():
                _check_obstacle(place, fact, here)
            case Detection():
                _check_detection(place, fact, here)
            case Note():
                _check_note(fact, here)
            case CutDone() | Known() | Bought() | StepDone() | AsSet() | Followed() | Otherwise() | Photo():
                pass  # what they name may be made again under another name: Make says so where it is not there
            case _:
                check_reading(place, fact, instruments, across, here)
        _check_superseded(fact, known, here)
        known[fact.id] = type(fact)


def _check_superseded(fact: Fact, earlier: Mapping[str, type[Fact]], path: str) -> None:
    if fact.supersedes is None:
        return
    kind = earlier.get(fact.supersedes)
    if kind is None:
        raise DocumentError(
            f"It supersedes “{fact.supersedes}”, which does not come before it.",
            mend="Put the older fact first, or take “supersedes” out.",
            path=f"{path}.supersedes",
        )
    if kind is not type(fact) and not (issubclass(kind, READING_KINDS) and isinstance(fact, READING_KINDS)):
        raise DocumentError(
            f"It supersedes “{fact.supersedes}”, which is a {kind.__name__.lower()}.",
            mend="Supersede a fact of its own kind, or set that one aside.",
            path=f"{path}.supersedes",
        )


def _check_detection(place: Place, found: Detection, path: str) -> None:
    for at, (low, high) in zip(found.at, surface_extent(place, found.surface), strict=True):
        if not low - EDGE_TOLERANCE_MM <= at <= high + EDGE_TOLERANCE_MM:
            raise DocumentError(
                f"It was found outside its place: {at:g} mm is not within {low:g} to {high:g} mm.",
                mend="Correct where it was found, or make the place larger.",
                path=f"{path}.at",
            )


def _check_note(note: Note, path: str) -> None:
    if note.at is not None and note.surface is None:
        raise DocumentError(
            "The note has a spot and no surface.", mend="Name the surface that the spot is on.", path=f"{path}.surface"
        )


def _check_obstacle(place: Place, obstacle: Obstacle, path: str) -> None:
    if obstacle.surface not in place.surfaces:
        raise DocumentError(
            f"Place {place.name} has no {obstacle.surface}.",
            mend="Add the surface to the place.",
            path=f"{path}.surface",
        )
    for at, size, (low, high) in zip(obstacle.at, obstacle.size, surface_extent(place, obstacle.surface), strict=True):
        if at + size < low or at > high:
            raise DocumentError(
                f"“{obstacle.name}” lies outside its place: {at:g} to {at + size:g} mm is not within {low:g} to "
                f"{high:g} mm.",
                mend="Correct its place, or make the place larger.",
                path=f"{path}.at",
            )


def check_reading(place: Place, reading: Reading, instruments: set[str], across: dict[str, str], path: str) -> None:
    """Check one reading against its place.

    Args:
        place: Where it was taken; its readings are not looked at.
        reading: The reading.
        instruments: Ids of the instruments that the job has.
        across: Axis of each of the place's set-ups by id.
        path: Path of the reading in its document.

    Raises:
        DocumentError: It names a missing instrument, set-up or surface, lies outside the place, or has no base length.
    """
    if reading.instrument not in instruments:
        raise DocumentError(
            f"There is no instrument “{reading.instrument}”.",
            mend="Add it to the job's instruments, or name one that is there.",
            path=f"{path}.instrument",
        )
    for surface, spot in reading_spots(reading):
        if surface not in place.surfaces:
            raise DocumentError(
                f"Place {place.name} has no {surface}.", mend="Add the surface to the place.", path=f"{path}.surface"
            )
        for axis, value, (low, high) in zip(SURFACE_AXES[surface], spot, surface_extent(place, surface), strict=False):
            if not low - EDGE_TOLERANCE_MM <= value <= high + EDGE_TOLERANCE_MM:
                raise DocumentError(
                    f"The reading lies outside its place: {axis} = {value:g} mm is not within {low:g} to {high:g} mm.",
                    mend="Correct the place, or make the place larger.",
                    path=path,
                )
    match reading:
        case Slope() | Gap() if math.dist(reading.start, reading.end) < 1.0:
            raise DocumentError(
                "It needs two different spots.", mend="Give the spots under both ends of the level or edge.", path=path
            )
        case Slope() if abs(reading.value) > (most := _steepest(reading)):
            unit = {"mm": "mm over its length", "mm/m": "mm/m", "deg": "°"}[reading.unit]
            raise DocumentError(
                f"A rise of {reading.value:g} {unit} is no floor and no wall; {most:g} {unit} is the most.",
                mend="Check the number and its unit: mm, mm/m or degrees.",
                path=f"{path}.value",
            )
        case Gap():
            _check_gap(reading, path)
        case Corner():
            _check_corner(place, reading, path)
        case Offset() | Profile() | Scan():
            _check_set_up(reading, across, path)
        case _:
            pass


def _steepest(reading: Slope) -> float:
    """Return the steepest slope that a level can be laid on, in the reading's own unit: 45°."""
    return {"mm": max(math.dist(reading.start, reading.end), 1.0), "mm/m": 1000.0, "deg": 45.0}[reading.unit]


def _check_gap(reading: Gap, path: str) -> None:
    start, end, at = (np.asarray(spot) for spot in (reading.start, reading.end, reading.at))
    edge = end - start
    share = float((at - start) @ edge / (edge @ edge))
    aside = float(np.linalg.norm(at - start - share * edge))
    if not 0 <= share <= 1 or aside > STRAIGHTEDGE_TOLERANCE_MM:
        raise DocumentError(
            "The gap does not lie under the straightedge.",
            mend="Give a spot on the line between the two where it touches.",
            path=f"{path}.at",
        )


def _check_corner(place: Place, reading: Corner, path: str) -> None:
    if "back" not in place.surfaces:
        raise DocumentError(
            f"Place {place.name} has no back.", mend="Add the surface to the place.", path=f"{path}.corner"
        )
    if reading.along_mm > place.width_mm + EDGE_TOLERANCE_MM:
        raise DocumentError(
            f"The leg of {reading.along_mm:g} mm reaches past the place.", mend="Shorten it.", path=f"{path}.along_mm"
        )
    try:
        square_defect(reading, 1.0)
    except SurveyError as fault:
        raise DocumentError(fault.message, mend=fault.mend, path=f"{path}.value_mm") from None


def _check_set_up(reading: Offset | Profile | Scan, across: dict[str, str], path: str) -> None:
    axis = SURFACE_AXES[reading.surface][2]
    if reading.set_up not in across:
        raise DocumentError(
            f"There is no set-up “{reading.set_up}” in this place.",
            mend="Add the set-up, or name one that is there.",
            path=f"{path}.set_up",
        )
    if across[reading.set_up] != axis:
        kind = "level line" if axis == "z" else "plumb plane"
        raise DocumentError(
            f"The {reading.surface} cannot be read from “{reading.set_up}”: it stands across {across[reading.set_up]}.",
            mend=f"Use a {kind} across {axis}.",
            path=f"{path}.set_up",
        )
