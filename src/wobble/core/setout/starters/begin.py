"""All starters, and a place begun from one."""

from __future__ import annotations

from collections.abc import Mapping

from msgspec.structs import replace

from wobble.core.job import Place, Value
from wobble.core.length import LengthUnit
from wobble.core.setout.cells import Rect
from wobble.core.setout.starters.benches import BENCHES
from wobble.core.setout.starters.cupboards import CUPBOARDS
from wobble.core.setout.starters.frames import FRAMES
from wobble.core.setout.starters.kinds import Starter
from wobble.core.setout.starters.questions import Answers, Question, StarterError
from wobble.core.setout.starters.walls import WALLS

STARTERS: tuple[Starter, ...] = (*CUPBOARDS[:2], *BENCHES[:3], *CUPBOARDS[2:], *FRAMES, *BENCHES[3:], *WALLS)


class Sketched(Value, frozen=True, kw_only=True):
    """One thing in a starter's drawing: its kind, and where it is seen from the front."""

    kind: str
    at: Rect


class StarterTold(Value, frozen=True, kw_only=True):
    """A starter as it is offered: its name, what it is for, its questions, and what it is drawn from."""

    id: str
    name: str
    words: str
    questions: tuple[Question, ...]
    wide_mm: float
    high_mm: float
    walls: tuple[str, ...]
    sketch: tuple[Sketched, ...]


def find_starter(id_: str) -> Starter:
    """Return a starter by its id.

    Raises:
        StarterError: There is none of that id.
    """
    for starter in STARTERS:
        if starter.id == id_:
            return starter
    raise StarterError(
        f"There is no starter “{id_}”.", mend=f"Choose one of: {', '.join(s.id for s in STARTERS)}.", path="$.starter"
    )


def begin(id_: str, key: str, name: str, said: Mapping[str, float | str], lengths: LengthUnit) -> Place:
    """Return a complete place from a starter's answers, the usual ones where nothing was said.

    Raises:
        StarterError: There is no such starter, or an answer cannot be taken.
    """
    starter = find_starter(id_)
    known = {q.id for q in starter.questions}
    for asked in said:
        if asked not in known:
            raise StarterError(
                f"“{asked}” is not asked.",
                mend=f"Questions are: {', '.join(sorted(known))}.",
                path=f"$.answers.{asked}",
            )
    return replace(starter.build(Answers(starter.questions, said, lengths)), id=key, name=name)


def offered(lengths: LengthUnit) -> tuple[StarterTold, ...]:
    """Return all starters as they are offered, each with what its usual answers make."""
    out = []
    for starter in STARTERS:
        place = begin(starter.id, "place", starter.name, {}, lengths)
        seen = [
            Sketched(kind=u.kind, at=Rect(x_mm=u.x_mm, z_mm=u.over_base_mm, wide_mm=u.width_mm, high_mm=u.height_mm))
            for u in place.units
        ]
        seen += [
            Sketched(kind="stays", at=Rect(x_mm=e.x_mm, z_mm=e.up_mm, wide_mm=e.width_mm, high_mm=e.height_mm))
            for e in place.existing
        ]
        seen += [
            Sketched(kind=o.kind, at=Rect(x_mm=o.x_mm, z_mm=o.sill_mm, wide_mm=o.width_mm, high_mm=o.height_mm))
            for o in place.openings
        ]
        out.append(
            StarterTold(
                id=starter.id,
                name=starter.name,
                words=starter.words,
                questions=starter.questions,
                wide_mm=place.width_mm,
                high_mm=place.height_mm,
                walls=place.surfaces,
                sketch=tuple(seen),
            )
        )
    return tuple(out)
