"""Sessions as windows of minutes from one moment on: what comes back every week, single ones, days off.

A minute is one of the wall clock, counted from midnight of the first day.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from wobble.core.job.sessions import WEEKDAYS, Habit, OneOff, Person, Sessions

DAY_MIN = 24 * 60
WEEKS = 60
"""So far ahead is looked: what is not done in a year is told, and not planned."""
ALONE = Person(id="you", name="You")
ASSUMED = (
    Habit(id="evenings", name="Evening", days=("tue", "thu"), starts="19:00", minutes=120),
    Habit(id="saturdays", name="Saturday", days=("sat",), starts="09:00", minutes=240),
)
"""What is taken where nobody has said when: two evenings and a Saturday morning a week."""


@dataclass(frozen=True)
class Window:
    """One session: from which minute to which, who is there, which machines only now, and what it is good for."""

    start: int
    end: int
    name: str
    people: tuple[str, ...]
    machines: frozenset[str]
    where: str
    habit: str


def people_of(sessions: Sessions) -> tuple[Person, ...]:
    """Return who works: the people named, else one."""
    return sessions.people or (ALONE,)


def minutes_at(day: str, clock: str, origin: datetime) -> int:
    """Return the minute of an hour on a day."""
    return int((datetime.fromisoformat(f"{day}T{clock}") - origin).total_seconds() // 60)


def origin_of(now: datetime) -> datetime:
    """Return midnight of the day of a moment."""
    return now.replace(hour=0, minute=0, second=0, microsecond=0)


def windows(sessions: Sessions, now: datetime, weeks: int = WEEKS) -> tuple[Window, ...]:
    """Return the sessions from a moment on, in their order; one that runs is what is left of it.

    Two that overlap are joined into the later's hours cut off: nobody is in two sessions at once.
    """
    origin = origin_of(now)
    first = int((now - origin).total_seconds() // 60)
    nobody = (people_of(sessions)[0].id,)
    known = {p.id for p in people_of(sessions)}
    habits = sessions.habits or (() if sessions.one_offs else ASSUMED)
    off = set(sessions.off)
    found: list[tuple[int, Window]] = []

    def add(rank: int, said: Habit | OneOff, day: str) -> None:
        start = minutes_at(day, said.starts, origin)
        people = tuple(p for p in said.people if p in known) or nobody
        found.append(
            (
                rank,
                Window(start, start + said.minutes, said.name, people, frozenset(said.machines), said.where, said.id),
            )
        )

    for one in sessions.one_offs:
        add(0, one, one.on)
    for n in range(-1, weeks * 7):
        day = origin + timedelta(days=n)
        name = day.date().isoformat()
        if name in off:
            continue
        for habit in habits:
            if WEEKDAYS[day.weekday()] in habit.days:
                add(1, habit, name)
    kept: list[Window] = []
    for _, w in sorted(found, key=lambda f: (f[0], f[1].start)):
        for part in _free(w, [t for t in kept if t.start < w.end and t.end > w.start]):
            if part.end > first:
                start = max(part.start, first)
                kept.append(Window(start, part.end, w.name, w.people, w.machines, w.where, w.habit))
    return tuple(sorted(kept, key=lambda w: w.start))


def _free(window: Window, taken: Sequence[Window]) -> list[Window]:
    """Return what is left of a window beside others."""
    parts = [(window.start, window.end)]
    for t in taken:
        parts = (
            [(a, b) for lo, hi in parts for a, b in ((lo, min(hi, t.start)), (max(lo, t.end), hi)) if b - a > 0]
            if any(lo < t.end and hi > t.start for lo, hi in parts)
            else parts
        )
    return [Window(a, b, window.name, window.people, window.machines, window.where, window.habit) for a, b in parts]
