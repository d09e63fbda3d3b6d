"""All stages of a job, one after the other, and what is remembered between two decisions."""

from wobble.core.stages.known import find_place, floor_contact_of, rests_on, survey_of, walls_of
from wobble.core.stages.solve import (
    PlaceFit,
    PlaceResult,
    Result,
    compare,
    forget,
    solve,
    solve_fit,
    solve_furring,
    solve_gauge,
    solve_hold,
    solve_traits,
    with_decisions,
)

__all__ = [
    "PlaceFit",
    "PlaceResult",
    "Result",
    "compare",
    "find_place",
    "floor_contact_of",
    "forget",
    "rests_on",
    "solve",
    "solve_fit",
    "solve_furring",
    "solve_gauge",
    "solve_hold",
    "solve_traits",
    "survey_of",
    "walls_of",
    "with_decisions",
]
