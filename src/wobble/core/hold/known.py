"""What is known of the studs or joists of one surface, as it is told."""

from __future__ import annotations

from wobble.core.facts import Behind
from wobble.core.hold.into import Into
from wobble.core.hold.structure.contradictions import Contradiction
from wobble.core.hold.structure.joists import Joists
from wobble.core.hold.structure.lines import Spacing, StructureLine
from wobble.core.job import Value
from wobble.core.job.backing import Runs


class Lines(Value, frozen=True, kw_only=True):
    """What is known of the studs or joists of one surface.

    Attributes:
        surface: Which. runs: Which way its lines run, for a ceiling or a floor. runs_sure: How sure that is, 0 to 1.
        said: Which way somebody said. other_way: Whether what was found says that they run the other way.
        spacings: Hypotheses on how far they stand apart, likeliest first. lines: From the left, or from the back.
        odd: Detections that fit no line. against: What contradicts what.
    """

    surface: Behind
    runs: Runs
    runs_sure: float
    said: Runs = "not known"
    other_way: bool = False
    spacings: tuple[Spacing, ...]
    lines: tuple[StructureLine, ...]
    odd: tuple[str, ...]
    against: tuple[Contradiction, ...]


def known_lines(into: Into, joists: Joists | None = None) -> Lines:
    """Return what is known behind a surface; `joists` says which way its lines run."""
    known = into.known
    return Lines(
        surface=into.surface,
        runs=joists.runs if joists is not None else "not known",
        runs_sure=joists.sure if joists is not None else 1.0,
        said=joists.said if joists is not None else "not known",
        other_way=joists.against_what_was_said if joists is not None else False,
        spacings=known.spacings,
        lines=known.lines,
        odd=known.odd,
        against=known.against,
    )
