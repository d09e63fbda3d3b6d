"""How early it could end at all: along what waits for what, and by the work that comes before.

Each step alone in empty sessions, never before what it waits for is done and dry, nor before all the work that must
precede it has had its minutes of somebody's time. No schedule ends earlier.
"""

from __future__ import annotations

import bisect
from collections.abc import Sequence
from dataclasses import dataclass

from wobble.core.order.hours.serial import Task, good_for
from wobble.core.order.hours.windows import Window


@dataclass(frozen=True)
class Bound:
    """The minute before which it cannot end, and the steps that make it so."""

    end: int
    path: tuple[str, ...]


class _Time:
    """People's minutes in sessions, summed up."""

    def __init__(self, windows: Sequence[Window]) -> None:
        self.windows = windows
        self.ends = [w.end for w in windows]

    def after(self, start: int, work: float) -> int:
        """Return the minute at which so many people's minutes have passed since a start."""
        for w in self.windows[bisect.bisect_right(self.ends, start) :]:
            there = (w.end - max(w.start, start)) * len(w.people)
            if work <= there:
                return max(w.start, start) + int(work / len(w.people))
            work -= there
        return start


def _alone(task: Task, time: _Time, est: int) -> tuple[int, int] | None:
    """Return the earliest start and end of a step in empty sessions, in the way that ends first; None for never.

    What may be torn is torn into pieces of any length here, and so ends no later than any schedule lets it.
    """
    if task.others:
        at = max(est, task.fixed or 0)
        return at, at + task.modes[0].minutes
    found: list[tuple[int, int]] = []
    for mode in task.modes:
        left, first = mode.minutes, None
        for w in time.windows[bisect.bisect_right(time.ends, est) :]:
            able = sum(p in (mode.who or task.who) for p in w.people)
            if able < mode.people or not good_for(task, w):
                continue
            at = max(w.start, est)
            if w.end - at >= left:
                found.append((at if first is None else first, at + left))
                break
            if task.splits:
                left -= w.end - at
                first = at if first is None else first
    return (min(s for s, _ in found), min(e for _, e in found)) if found else None


def bound(tasks: Sequence[Task], windows: Sequence[Window]) -> Bound:
    """Return how early the last of some steps could end; `tasks` in an order that keeps what waits for what."""
    time = _Time(windows)
    work = {t.key: 0.0 if t.others else float(min(m.minutes * m.people for m in t.modes)) for t in tasks}
    starts: dict[str, int] = {}
    ends: dict[str, int] = {}
    before: dict[str, frozenset[str]] = {}
    came: dict[str, str] = {}
    for t in tasks:
        own = [k for k, _ in t.before if k in ends]
        before[t.key] = frozenset(own).union(*(before[k] for k in own))
        est = t.release
        for k, rest in t.before:
            if k in ends and ends[k] + rest > est:
                est, came[t.key] = ends[k] + rest, k
        every = sorted((starts[k], work[k]) for k in before[t.key])
        later = sum(w for _, w in every)
        for at, w in every:
            est = max(est, time.after(at, later)) if later else est
            later -= w
        alone = _alone(t, time, est)
        if alone is None:
            continue
        starts[t.key], ends[t.key] = alone
    if not ends:
        return Bound(0, ())
    last = max(ends, key=lambda k: ends[k])
    path = [last]
    while path[-1] in came:
        path.append(came[path[-1]])
    total = sum(w for k, w in work.items() if k in ends)
    first = min(starts.values())
    return Bound(max(ends[last], time.after(first, total)), tuple(reversed(path)))
