"""When the demo jobs are worked at: evenings, weekends, lunch hours; a second pair of hands now and then."""

from __future__ import annotations

from wobble.core.job.sessions import Habit, Person, Sessions


def _two(own: str, helper: str) -> tuple[Person, Person]:
    return Person(id="own", name=own), Person(id="helper", name=helper, never=("sawing",))


def evenings_and_saturdays(own: str, helper: str) -> Sessions:
    """Return two evenings alone and a Saturday morning with a second pair of hands."""
    return Sessions(
        people=_two(own, helper),
        habits=(
            Habit(id="evenings", name="Evening", days=("tue", "thu"), starts="19:00", minutes=120, people=("own",)),
            Habit(
                id="saturdays", name="Saturday", days=("sat",), starts="09:00", minutes=240, people=("own", "helper")
            ),
        ),
    )


def weekends(own: str) -> Sessions:
    """Return whole Saturdays alone, in a cold place."""
    return Sessions(
        people=(Person(id="own", name=own),),
        habits=(Habit(id="saturdays", name="Saturday", days=("sat",), starts="09:30", minutes=360, people=("own",)),),
        air="cool",
    )


def lunch_hours(own: str, helper: str) -> Sessions:
    """Return lunch hours alone and one long Sunday with a second pair of hands; parts are made in another house."""
    return Sessions(
        people=_two(own, helper),
        habits=(
            Habit(
                id="lunch",
                name="Lunch hour",
                days=("mon", "tue", "wed", "thu", "fri"),
                starts="12:15",
                minutes=60,
                people=("own",),
                where="workshop",
            ),
            Habit(id="sundays", name="Sunday", days=("sun",), starts="10:00", minutes=420, people=("own", "helper")),
        ),
        workshop="elsewhere",
    )
