"""What fits into one evening: so many minutes, so many hands, and what it frees.

Of all sets of steps that may be done one after the other now, the one is taken that is worth most: its own minutes, its
share in what it frees (a step that waits for two others counts half for each), and a tenth of the minutes that
something then dries while nobody works. Nothing in it closes what a later step needs: ties say that already. The search
is exact; where it would look at too many sets, the answer says that it is not.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.budget import spend
from wobble.core.job import Value
from wobble.core.order.hours.serial import LEAST_PIECE_MIN, Mode, Task, _serial, good_for
from wobble.core.order.hours.windows import Window

REST_SHARE = 0.1
MOST_SETS = 200_000


class Tonight(Value, frozen=True, kw_only=True):
    """A list for one session.

    Attributes:
        steps: Keys in the order in which to do them. minutes: How long they take. begun: A step that may be begun with
            what is left, and `begun_minutes` of it. frees: Steps that may then begin, or begin to count their rest.
        exact: Whether no better set fits.
    """

    steps: tuple[str, ...]
    minutes: int
    begun: str = ""
    begun_minutes: int = 0
    frees: tuple[str, ...] = ()
    stand_ins: tuple[tuple[str, str], ...] = ()
    exact: bool = True


@dataclass
class _Best:
    worth: float = -1.0
    chosen: tuple[str, ...] = ()
    sets: int = 0


def worths(tasks: Sequence[Task]) -> dict[str, float]:
    """Return what each step is worth tonight, in minutes."""
    minutes = {t.key: t.modes[0].minutes for t in tasks}
    own = {t.key: float(minutes[t.key]) for t in tasks}
    for t in tasks:
        waits = [(k, rest) for k, rest in t.before if k in own]
        for k, _ in waits:
            own[k] += minutes[t.key] / len(waits)
    for t in tasks:
        own[t.key] += REST_SHARE * max((rest for s in tasks for k, rest in s.before if k == t.key), default=0)
    return own


def tonight(tasks: Sequence[Task], window: Window) -> Tonight:
    """Return what to do in one session that begins now.

    Args:
        tasks: All that is left, in an order that keeps what waits for what.
        window: The session: its minutes and who is there.
    """
    able = _may(tasks, window)
    worth, minutes = worths(tasks), window.end - window.start
    one = len(window.people) == 1
    fastest = {t.key: min(m.minutes for m in t.modes) for t in able}
    hands = {t.key: min(m.minutes * m.people for m in t.modes) for t in able}
    order = list(able)
    best = _Best()

    def room(chosen: tuple[Task, ...]) -> bool:
        if sum(hands[t.key] for t in chosen) > minutes * len(window.people):
            return False
        if one and not any(t.at for t in chosen):
            return sum(fastest[t.key] for t in chosen) <= minutes
        return len(_serial(chosen, (window,), {t.key: n for n, t in enumerate(chosen)})) == len(chosen)

    def look(at: int, chosen: tuple[Task, ...], names: frozenset[str], sum_: float) -> None:
        best.sets += 1
        if best.sets > MOST_SETS:
            return
        if best.sets % 500 == 0:
            spend()
        if sum_ > best.worth:
            best.worth, best.chosen = sum_, tuple(t.key for t in chosen)
        left = minutes * len(window.people) - sum(hands[t.key] for t in chosen)
        if sum_ + _most(order[at:], worth, hands, left) <= best.worth:
            return
        for n in range(at, len(order)):
            t = order[n]
            if all(k in names for k, rest in t.before if k in mine):
                more = (*chosen, t)
                if room(more):
                    look(n + 1, more, names | {t.key}, sum_ + worth[t.key])

    mine = {t.key for t in tasks}
    look(0, (), frozenset(), 0.0)
    return _told(tasks, able, window, best)


def _may(tasks: Sequence[Task], window: Window) -> tuple[Task, ...]:
    """Return steps that could be done in a session at all: not before what is not done, or not dry, by then."""
    mine: dict[str, Task] = {}
    known = {t.key for t in tasks}
    for t in tasks:
        modes = tuple(
            m
            for m in t.modes
            if m.people <= sum(p in (m.who or t.who) for p in window.people) and m.minutes <= window.end - window.start
        )
        before = [(k, rest) for k, rest in t.before if k in known]
        free = t.release <= window.start and all(k in mine and rest == 0 for k, rest in before)
        if modes and not t.others and free and good_for(t, window):
            mine[t.key] = Task(t.key, modes, t.splits, t.who, t.where, t.needs, t.at, t.before, t.release)
    return tuple(mine.values())


def _most(left: Sequence[Task], worth: Mapping[str, float], hands: Mapping[str, int], minutes: float) -> float:
    """Return what the rest could be worth at most: the best by minute first, the last one in part."""
    total = 0.0
    for t in sorted(left, key=lambda t: -worth[t.key] / hands[t.key]):
        if hands[t.key] >= minutes:
            return total + worth[t.key] * minutes / hands[t.key]
        total += worth[t.key]
        minutes -= hands[t.key]
    return total


def _told(tasks: Sequence[Task], able: Sequence[Task], window: Window, best: _Best) -> Tonight:
    chosen = [t for t in able if t.key in best.chosen]
    placed = _serial(chosen, (window,), {t.key: n for n, t in enumerate(chosen)})
    steps = tuple(sorted(best.chosen, key=lambda k: placed[k].start if k in placed else 0))
    end = max((p.end for p in placed.values()), default=window.start)
    done = set(steps)
    known = {t.key for t in tasks}
    frees = tuple(
        t.key
        for t in tasks
        if t.key not in done
        and any(k in done for k, _ in t.before)
        and all(k in done or k not in known for k, _ in t.before)
    )
    stand_ins = tuple((k, placed[k].mode.stand_in) for k in steps if k in placed and placed[k].mode.stand_in)
    found = Tonight(
        steps=steps, minutes=end - window.start, frees=frees, stand_ins=stand_ins, exact=best.sets <= MOST_SETS
    )
    return _with_begun(found, tasks, done, window, end)


def _with_begun(found: Tonight, tasks: Sequence[Task], done: set[str], window: Window, end: int) -> Tonight:
    """Add a step that may be torn, to be begun with what is left."""
    left, known = window.end - end, {t.key for t in tasks}
    if left < LEAST_PIECE_MIN:
        return found
    for t in tasks:
        here = t.splits and t.key not in done and t.release <= window.start and good_for(t, window)
        free = all(k not in known or (k in done and rest == 0) for k, rest in t.before)
        mode = next((m for m in t.modes if m.people == 1 and set(window.people) & (m.who or t.who)), Mode(0, 9))
        if here and free and mode.people == 1 and mode.minutes > left:
            return replace(found, begun=t.key, begun_minutes=left)
    return found
