"""All stages of a job, one after the other, and what is remembered between two decisions."""

from wobble.core.stages.glance import Glance, StageAt, solve_glance, solve_planned
from wobble.core.stages.known import find_place, floor_contact_of, rests_on, survey_of, walls_of
from wobble.core.stages.making import AimOutcome, compare_aims, solve_make
from wobble.core.stages.ordering import FinishingOutcome, compare_finishing, solve_order, solve_tonight
from wobble.core.stages.practising import Practised, solve_practice
from wobble.core.stages.rods import PlaceRod, solve_rods
from wobble.core.stages.setting import following, solve_proposal, solve_record, solve_set
from wobble.core.stages.setting_out import Tried, set_out, solve_setout, try_setout, with_set_out
from wobble.core.stages.solve import (
    PlaceFit,
    PlaceResult,
    compare,
    solve_fit,
    solve_furring,
    solve_gauge,
    solve_hold,
    solve_traits,
    with_decisions,
)
from wobble.core.stages.whole import Result, forget
from wobble.core.stages.whole import solve_job as solve

__all__ = [
    "AimOutcome",
    "FinishingOutcome",
    "Glance",
    "PlaceFit",
    "PlaceResult",
    "PlaceRod",
    "Practised",
    "Result",
    "StageAt",
    "Tried",
    "compare",
    "compare_aims",
    "compare_finishing",
    "find_place",
    "floor_contact_of",
    "following",
    "forget",
    "rests_on",
    "set_out",
    "solve",
    "solve_fit",
    "solve_furring",
    "solve_gauge",
    "solve_glance",
    "solve_hold",
    "solve_make",
    "solve_order",
    "solve_planned",
    "solve_practice",
    "solve_proposal",
    "solve_record",
    "solve_rods",
    "solve_set",
    "solve_setout",
    "solve_tonight",
    "solve_traits",
    "survey_of",
    "try_setout",
    "walls_of",
    "with_decisions",
    "with_set_out",
]
