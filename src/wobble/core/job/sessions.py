"""When a job is worked at and by whom: the user's own sessions, who can do what, dates of others, the user's own order.

Times are the clock on the wall where the job is: a day and an hour without a zone, as one says them. What dries over a
night on which the clocks change has an hour more or less than is reckoned.
"""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.value import EARLIEST, LATEST, Count, Key, Name, Title, Value

Day = Annotated[str, Meta(min_length=10, max_length=10, pattern=r"^\d{4}-\d{2}-\d{2}$")]
"""A day as ISO 8601 writes it."""
Clock = Annotated[str, Meta(min_length=5, max_length=5, pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]
"""An hour on the wall clock."""
Weekday = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
WEEKDAYS: tuple[Weekday, ...] = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
StepKey = Annotated[str, Meta(min_length=1, max_length=200)]
Minutes = Annotated[int, Meta(ge=15, le=960)]
Skill = Literal["sawing", "lifting", "fixing", "finishing", "measuring"]
Where = Literal["anywhere", "workshop", "place"]


def check_day(day: str) -> None:
    """Check that a day is one of the calendar.

    Raises:
        ValueError: There is no such day, or its year is out of reach; from a document that is told with its path.
    """
    if not EARLIEST <= date.fromisoformat(day).year <= LATEST:
        raise ValueError(f"The year of {day} is not between {EARLIEST} and {LATEST}")


class Person(Value, frozen=True, kw_only=True):
    """Somebody who works at the job, and what is not for them."""

    id: Key
    name: Title
    never: Annotated[tuple[Skill, ...], Meta(max_length=5)] = ()


class Habit(Value, frozen=True, kw_only=True):
    """Sessions that come back every week: on which days, from when, how long, with whom.

    `people` are their ids; where it is empty, the first of the job's people is there, alone. `machines` are there only
    then, by their ids. `where` says what the session is good for.
    """

    id: Key
    name: Title
    days: Annotated[tuple[Weekday, ...], Meta(min_length=1, max_length=7)]
    starts: Clock = "19:00"
    minutes: Minutes = 120
    people: Annotated[tuple[Key, ...], Meta(max_length=8)] = ()
    machines: Annotated[tuple[Key, ...], Meta(max_length=20)] = ()
    where: Where = "anywhere"


class OneOff(Value, frozen=True, kw_only=True):
    """One session on one day, beside those that come back; it takes the place of what comes back at that hour."""

    id: Key
    name: Title
    on: Day
    starts: Clock = "09:00"
    minutes: Minutes = 240
    people: Annotated[tuple[Key, ...], Meta(max_length=8)] = ()
    machines: Annotated[tuple[Key, ...], Meta(max_length=20)] = ()
    where: Where = "anywhere"

    def __post_init__(self) -> None:
        check_day(self.on)


class Visit(Value, frozen=True, kw_only=True):
    """A day on which somebody else comes: a licensed trade, a delivery, whoever lines the wall.

    `does` names the steps that are theirs; what `before` names must be done when they come.
    """

    id: Key
    name: Title
    on: Day
    starts: Clock = "08:00"
    minutes: Minutes = 120
    does: Annotated[tuple[StepKey, ...], Meta(max_length=20)] = ()
    before: Annotated[tuple[StepKey, ...], Meta(max_length=40)] = ()

    def __post_init__(self) -> None:
        check_day(self.on)


class Deadline(Value, frozen=True, kw_only=True):
    """A day by whose end some steps must be done; all of them where none is named."""

    id: Key
    name: Title
    by: Day
    steps: Annotated[tuple[StepKey, ...], Meta(max_length=40)] = ()

    def __post_init__(self) -> None:
        check_day(self.by)


class OwnStep(Value, frozen=True, kw_only=True):
    """A step that the user adds: how long, how many people, after and before what, and how long it must rest."""

    id: Key
    name: Title
    minutes: Annotated[int, Meta(ge=1, le=10_000)] = 30
    people: Annotated[int, Meta(ge=1, le=4)] = 1
    after: Annotated[tuple[StepKey, ...], Meta(max_length=40)] = ()
    before: Annotated[tuple[StepKey, ...], Meta(max_length=40)] = ()
    rests_h: Annotated[float, Meta(ge=0, le=2000)] = 0.0
    where: Where = "place"
    why: Name = ""


class Turned(Value, frozen=True, kw_only=True):
    """Two steps whose order the user has said: `first`, then `then`."""

    first: StepKey
    then: StepKey


Air = Literal["warm and dry", "cool", "cold or damp"]
Finishing = Literal["before assembly", "before setting", "after setting"]


class Sessions(Value, frozen=True, kw_only=True):
    """When a job is worked at, and in which order where the user says so.

    Attributes:
        people: Who works; nobody named is one person who can do all. habits: What comes back every week.
        one_offs: Single sessions. off: Days on which nothing is done. visits: When others come.
        deadlines: What must be done by when. own: Steps that the user adds. dropped: Steps that are not done here.
        turned: Orders that the user has said. air: How it dries where the job is.
        finishing: When what is made gets its coats. workshop: Whether parts are made where they are fitted, or are
            carried there. machines_away: Machines that are at hand only in sessions that name them.
        trade_days: How long a licensed trade or a maker takes to come, where no date is known.
    """

    people: Annotated[tuple[Person, ...], Meta(max_length=8)] = ()
    habits: Annotated[tuple[Habit, ...], Meta(max_length=20)] = ()
    one_offs: Annotated[tuple[OneOff, ...], Meta(max_length=100)] = ()
    off: Annotated[tuple[Day, ...], Meta(max_length=200)] = ()
    visits: Annotated[tuple[Visit, ...], Meta(max_length=40)] = ()
    deadlines: Annotated[tuple[Deadline, ...], Meta(max_length=40)] = ()
    own: Annotated[tuple[OwnStep, ...], Meta(max_length=100)] = ()
    dropped: Annotated[tuple[StepKey, ...], Meta(max_length=300)] = ()
    turned: Annotated[tuple[Turned, ...], Meta(max_length=100)] = ()
    air: Air = "warm and dry"
    finishing: Finishing = "before setting"
    workshop: Literal["at the place", "elsewhere"] = "at the place"
    machines_away: Annotated[tuple[Key, ...], Meta(max_length=20)] = ()
    trade_days: Count = 7

    def __post_init__(self) -> None:
        for day in self.off:
            check_day(day)
