"""Steps as the schedule sees them: who may do them, in which ways, what they wait for, what is drying already."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from wobble.core.facts import StepDone
from wobble.core.job import Job
from wobble.core.job.sessions import Person
from wobble.core.order.hours.serial import Mode, Task
from wobble.core.order.hours.windows import DAY_MIN, minutes_at, origin_of, people_of
from wobble.core.order.step import WorkStep
from wobble.core.order.steps.usual import Pace, learned, rounded
from wobble.core.order.ties.sequence import Ordered


@dataclass(frozen=True)
class Logged:
    """What was logged: which steps are done and at which minute, and each person's pace."""

    done: Mapping[str, int]
    paces: Mapping[str, Pace]


def wall_clock(at: datetime, now: datetime) -> datetime:
    """Return a moment as the clock on the wall showed it, where `now` is read."""
    return at.astimezone(now.tzinfo).replace(tzinfo=None)


def logged(job: Job, facts: Iterable[StepDone], steps: Sequence[WorkStep], now: datetime) -> Logged:
    """Return what was logged of steps.

    Args:
        job: Whose people count.
        facts: Steps that were done.
        steps: All there are, for their usual minutes.
        now: With its zone.
    """
    usual = {s.key: s.minutes for s in steps}
    origin = origin_of(wall_clock(now, now))
    done: dict[str, int] = {}
    took: dict[str, list[tuple[float, float]]] = {}
    names = {p.name.casefold(): p.id for p in people_of(job.sessions)}
    first = people_of(job.sessions)[0].id
    for fact in sorted(facts, key=lambda f: f.taken_at):
        done[fact.step] = int((wall_clock(fact.taken_at, now) - origin).total_seconds() // 60)
        if fact.minutes and fact.step in usual:
            who = names.get(fact.taken_by.casefold(), first)
            took.setdefault(who, []).append((float(usual[fact.step]), fact.minutes))
    return Logged(done, {p.id: learned(took.get(p.id, ())) for p in people_of(job.sessions)})


def tasks_of(job: Job, ordered: Ordered, log: Logged, now: datetime) -> tuple[Task, ...]:
    """Return what is left to do, in its order.

    Args:
        job: Its sessions, people and machines.
        ordered: Steps with their ties.
        log: What is done already; what dries of it keeps others waiting.
        now: By the wall clock, without a zone.
    """
    sessions, origin = job.sessions, origin_of(now)
    first = int((now - origin).total_seconds() // 60)
    by_key = {s.key: s for s in ordered.steps}
    before: dict[str, list[tuple[str, int]]] = {}
    release: dict[str, int] = {}
    for t in ordered.ties:
        rest = math.ceil(by_key[t.first].rests_h * 60) if t.rests and t.first in by_key else 0
        if t.first in log.done:
            release[t.then] = max(release.get(t.then, first), log.done[t.first] + rest)
        else:
            before.setdefault(t.then, []).append((t.first, rest))
    visits = {k: minutes_at(v.on, v.starts, origin) for v in sessions.visits for k in (*v.does, f"visit/{v.id}")}
    by: dict[str, int] = {}
    for deadline in sessions.deadlines:
        end = minutes_at(deadline.by, "00:00", origin) + DAY_MIN
        for key in deadline.steps or tuple(by_key):
            by[key] = min(by.get(key, end), end)
    people = people_of(sessions)
    away = _away(job)
    saws = {m.kind for m in job.workshop.machines}
    out = []
    for step in ordered.steps:
        if step.key in log.done:
            continue
        may = frozenset(p.id for p in people if step.skill is None or step.skill not in p.never)
        theirs = step.others or step.key in visits
        lead = 0 if step.key in visits else sessions.trade_days * DAY_MIN
        has = next((m for m in step.machines if m in saws), step.machines[0] if step.machines else "")
        out.append(
            Task(
                key=step.key,
                modes=modes_of(step, people, log.paces) if not theirs else (Mode(step.minutes, 0),),
                splits=step.splits,
                who=frozenset() if theirs else may,
                where="" if step.where == "anywhere" or sessions.workshop == "at the place" else step.where,
                needs=_needs(job, step, away),
                at=f"the {has}" if step.skill == "sawing" and has else "",
                before=tuple(_with_lead(before.get(step.key, ()), lead if theirs else 0)),
                release=release.get(step.key, first) + (lead if theirs else 0),
                fixed=visits.get(step.key),
                by=by.get(step.key),
            )
        )
    return tuple(out)


def _with_lead(before: Iterable[tuple[str, int]], lead: int) -> Iterable[tuple[str, int]]:
    return ((k, rest + lead) for k, rest in before)


def modes_of(step: WorkStep, people: Sequence[Person], paces: Mapping[str, Pace]) -> tuple[Mode, ...]:
    """Return the ways in which a step is done: by each person at his own pace, by two, or by one with a stand-in."""
    may = [p for p in people if step.skill is None or step.skill not in p.never]
    if not may:
        return (Mode(step.minutes, step.people),)
    modes: list[Mode] = []
    if step.people > 1:
        slowest = max(paces[p.id].factor for p in may)
        modes.append(Mode(rounded(step.minutes * slowest), step.people))
    if step.people == 1 or step.stand_in is not None:
        slower, what = (
            (1.0, "") if step.people == 1 or step.stand_in is None else (step.stand_in.slower, step.stand_in.what)
        )
        by_time: dict[int, list[str]] = {}
        for p in may:
            by_time.setdefault(rounded(step.minutes * slower * paces[p.id].factor), []).append(p.id)
        modes += [Mode(n, 1, what, frozenset(ids)) for n, ids in sorted(by_time.items())]
    return tuple(modes)


def _away(job: Job) -> dict[str, str]:
    """Return machines that are not always at hand, by their ids, with their kinds."""
    return {m.id: m.kind for m in job.workshop.machines if m.id in job.sessions.machines_away}


def _needs(job: Job, step: WorkStep, away: Mapping[str, str]) -> frozenset[str]:
    """Return the machines of which one must be in the session: none where one that does is always there."""
    wanted = {m.id for m in job.workshop.machines if m.kind in step.machines}
    if not wanted or any(m not in away for m in wanted):
        return frozenset()
    return frozenset(wanted)
