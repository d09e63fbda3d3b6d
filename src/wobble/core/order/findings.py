"""What is told of the order: when it ends, what is in no session, what the user's order breaks, what traps itself."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from wobble.core.finding import Finding, in_order
from wobble.core.job import Job
from wobble.core.order.hours.bound import Bound
from wobble.core.order.hours.serial import Placed, Task, good_for
from wobble.core.order.hours.windows import DAY_MIN, Window, minutes_at, origin_of
from wobble.core.order.ties.sequence import Ordered

LONG_REST_MIN = 6 * 60


@dataclass(frozen=True)
class Told:
    """All that Order's findings look at."""

    job: Job
    ordered: Ordered
    tasks: tuple[Task, ...]
    placed: Mapping[str, Placed]
    windows: Sequence[Window]
    least: Bound
    now: datetime
    assumed: bool

    def name(self, key: str) -> str:
        """Return what a step is called."""
        return next((s.name for s in self.ordered.steps if s.key == key), key)

    def day(self, minute: int) -> str:
        """Return a day and hour as one says them."""
        at = origin_of(self.now) + timedelta(minutes=minute)
        return f"{at:%a} {at.day} {at:%b}, {at:%H:%M}"


def told(t: Told) -> tuple[Finding, ...]:
    """Return all that is told of the order, stops first."""
    return in_order(finding for rule in RULES for finding in rule(t))


def _ends(t: Told) -> Iterator[Finding]:
    if not t.tasks:
        yield Finding(
            code="all-done", severity="fine", title="Every step is done", text="Nothing is left of this job to do."
        )
        return
    if t.placed and len(t.placed) == len(t.tasks):
        end = max(p.end for p in t.placed.values())
        hours = sum((p.end - p.start) * len(p.people) for x in t.placed.values() for p in x.pieces) / 60
        sooner = f"No plan ends before {t.day(t.least.end)}" if t.least.end < end else "No plan ends sooner"
        yield Finding(
            code="ends",
            severity="fine",
            title=f"Done by {t.day(end)}",
            text=f"{hours:.0f} working hours in {len({x.pieces[0].start // DAY_MIN for x in t.placed.values()})} days. "
            f"{sooner}: what waits for what, and the hours there are, say so. Lengths are planning figures; they "
            "follow your own pace as you log it.",
        )


def _assumed(t: Told) -> Iterator[Finding]:
    if t.assumed and t.tasks:
        yield Finding(
            code="sessions-assumed",
            severity="mind",
            title="When you work is assumed",
            text="Tuesday and Thursday evenings from 19:00 to 21:00 and Saturdays from 9:00 to 13:00, one person. Say "
            "your own sessions, and the days follow.",
        )


def _late(t: Told) -> Iterator[Finding]:
    origin = origin_of(t.now)
    for d in t.job.sessions.deadlines:
        by = minutes_at(d.by, "00:00", origin) + DAY_MIN
        named = [p for p in t.placed.values() if (not d.steps or p.key in d.steps) and p.end > by]
        unplaced = [x.key for x in t.tasks if x.key not in t.placed and (not d.steps or x.key in d.steps)]
        if named or unplaced:
            last = max(named, key=lambda p: p.end) if named else None
            need = sum((p.end - max(p.start, by)) for p in named)
            yield Finding(
                code="late",
                severity="stop",
                title=f"{d.name}: not done by {d.by}",
                text=(
                    f"{len(named)} steps end after it, the last of them “{t.name(last.key)}” {t.day(last.end)}. "
                    f"Some {need / 60:.0f} hours more before that day, or a second pair of hands, would do."
                    if last is not None
                    else f"“{t.name(unplaced[0])}” is in no session."
                ),
                about=(d.id, *(p.key for p in named[:6]), *unplaced[:3]),
            )


def _no_session(t: Told) -> Iterator[Finding]:
    lost = {x.key for x in t.tasks if x.key not in t.placed}
    for task in t.tasks:
        if task.key not in lost or any(k in lost for k, _ in task.before):
            continue
        yield Finding(
            code="no-session",
            severity="stop",
            title=f"No session takes “{t.name(task.key)}”",
            text=_why_none(task, t.windows) + f" {len(lost) - 1} steps wait for it."
            if len(lost) > 1
            else _why_none(task, t.windows),
            about=(task.key,),
        )


def _why_none(task: Task, windows: Sequence[Window]) -> str:
    minutes, people = task.modes[0].minutes, task.modes[0].people
    if not windows:
        return "There is no session at all: say when you work."
    good = [w for w in windows if good_for(task, w)]
    if not good:
        return "It wants a machine, or a house, that no session has: say of a session that it is there."
    able = [w for w in good if any(sum(p in (m.who or task.who) for p in w.people) >= m.people for m in task.modes)]
    if not able:
        if people > 1:
            return f"It wants {people} people, and no session has so many who may do it: ask somebody for one."
        return "Nobody who is there may do it: let somebody, or have a licensed trade come."
    longest = max(w.end - w.start for w in able)
    return (
        f"It takes {minutes} minutes in one go, as it cannot stop half way, and the longest session has {longest}: "
        "add one that is longer."
    )


def _rings(t: Told) -> Iterator[Finding]:
    for ring, out in t.ordered.rings:
        names = [t.name(k) for k in dict.fromkeys(ring)]
        yield Finding(
            code="ring",
            severity="stop" if out.kind in ("trap", "way in") else "mind",
            title=f"“{t.name(out.first)}” and “{t.name(out.then)}” trap each other",
            text=f"Each must come before the other: {'; '.join(names)}. The plan leaves out one reason: {out.why}. "
            "Leave one of them loose until the other is done, or build it so that it can be taken apart.",
            about=tuple(dict.fromkeys(ring))[:8],
        )


def _said(t: Told) -> Iterator[Finding]:
    for b in t.ordered.broken:
        if b.tie is None:
            continue
        if b.first in t.job.sessions.dropped:
            yield Finding(
                code="dropped",
                severity="mind",
                title=f"Left out: {b.first.replace('/', ', ')}",
                text=f"“{t.name(b.then)}” wanted it before: {b.tie.why}. Be sure that it is done otherwise, or put it "
                "back.",
                about=(b.first, b.then),
            )
        elif b.kept:
            yield Finding(
                code="turned",
                severity="mind",
                title=f"“{t.name(b.first)}” before “{t.name(b.then)}”, as you said",
                text=f"The plan would have it the other way: {b.tie.why}.",
                about=(b.first, b.then),
            )
        else:
            yield Finding(
                code="not-turned",
                severity="mind",
                title=f"“{t.name(b.first)}” cannot come before “{t.name(b.then)}”",
                text=f"“{t.name(b.tie.first)}” must come before “{t.name(b.tie.then)}”: {b.tie.why}. The order stays; "
                "take the wish back, or drop the step that stands between.",
                about=(b.first, b.then),
            )
    for key in t.ordered.unknown:
        yield Finding(
            code="step-unknown",
            severity="mind",
            title="A step that you named is not there any more",
            text=f"“{key}”: the plan has changed since. What you said of it counts for nothing now; take it out.",
            about=(key,),
        )


def _trades(t: Told) -> Iterator[Finding]:
    origin = origin_of(t.now)
    dated = {k for v in t.job.sessions.visits for k in (*v.does, f"visit/{v.id}")}
    for task in t.tasks:
        if task.others and task.key not in dated and task.key in t.placed:
            days = t.job.sessions.trade_days
            yield Finding(
                code="trade-no-date",
                severity="mind",
                title=f"“{t.name(task.key)}”: no date yet",
                text=f"A licensed trade does it. {days} days from when it may begin are reckoned, to "
                f"{t.day(t.placed[task.key].end)}: book it, and say the day.",
                about=(task.key,),
            )
        if task.fixed is not None and task.key in t.placed and t.placed[task.key].start > task.fixed:
            visit = next(v for v in t.job.sessions.visits if task.key in (*v.does, f"visit/{v.id}"))
            yield Finding(
                code="visit-early",
                severity="stop",
                title=f"{visit.name} comes before it can be begun",
                text=f"They come {t.day(minutes_at(visit.on, visit.starts, origin))}; what must be done before ends "
                f"{t.day(t.placed[task.key].start)}. Move the day, or find the hours.",
                about=(task.key, visit.id),
            )


def _alone(t: Told) -> Iterator[Finding]:
    by_way: dict[str, list[Placed]] = {}
    for p in t.placed.values():
        if p.mode.stand_in:
            by_way.setdefault(p.mode.stand_in, []).append(p)
    for way, steps in by_way.items():
        names = "; ".join(f"{t.name(p.key)} ({p.mode.minutes} min)" for p in sorted(steps, key=lambda p: p.start))
        yield Finding(
            code="alone",
            severity="mind",
            title=f"{len(steps)} {'step wants' if len(steps) == 1 else 'steps want'} two, and you are alone then",
            text=f"{names}. Instead of a second pair of hands: {way}.",
            about=tuple(p.key for p in steps),
        )


def _dries(t: Told) -> Iterator[Finding]:
    """Tell the longest wait that holds all up, and what is done meanwhile."""
    longest: tuple[int, str, str] | None = None
    for task in t.tasks:
        for k, rest in task.before:
            if (
                rest >= LONG_REST_MIN
                and k in t.placed
                and task.key in t.placed
                and (longest is None or rest > longest[0])
            ):
                longest = (rest, k, task.key)
    if longest is None:
        return
    rest, first, then = longest
    meanwhile = [
        p.key
        for p in t.placed.values()
        if t.placed[first].end <= p.start < t.placed[first].end + rest and p.key not in (first, then)
    ]
    what = "; ".join(t.name(k) for k in meanwhile[:3])
    yield Finding(
        code="dries",
        severity="fine",
        title=f"After “{t.name(first)}”: {rest / 60:.0f} hours until it is dry",
        text=(f"Meanwhile: {what}." if what else "Nothing else can be done meanwhile in your sessions.")
        + ("" if t.job.sessions.air == "warm and dry" else f" Reckoned for air that is {t.job.sessions.air}."),
        about=(first, then),
    )


RULES = (_no_session, _late, _rings, _trades, _said, _assumed, _alone, _ends, _dries)
