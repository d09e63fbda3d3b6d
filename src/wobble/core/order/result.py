"""The answer of Order: steps with when and why, sessions, how early it could end, tonight, and what is told."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from wobble.core.facts import StepDone
from wobble.core.finding import Finding
from wobble.core.job import Job, Value
from wobble.core.make.result import Made
from wobble.core.order.findings import Told, told
from wobble.core.order.hours.bound import bound
from wobble.core.order.hours.serial import Placed, Task, scheduled
from wobble.core.order.hours.tasks import Logged, logged, tasks_of, wall_clock
from wobble.core.order.hours.tonight import Tonight, tonight
from wobble.core.order.hours.windows import Window, origin_of, people_of, windows
from wobble.core.order.step import Tie, WorkStep, strongest
from wobble.core.order.steps.after import afterwards
from wobble.core.order.steps.bench import at_bench, buying, coats_before, cutting
from wobble.core.order.steps.ground import measures, on_the_ground
from wobble.core.order.steps.standing import to_stand
from wobble.core.order.steps.usual import Pace
from wobble.core.order.steps.work import PlaceWork
from wobble.core.order.ties.sequence import Ordered, before, sequenced
from wobble.core.order.ties.trade import MOVE, trade_ties
from wobble.core.order.ties.traps import Fills, Need, fillings, needs, traps

StepState = Literal["done", "ready", "waits", "dries", "others", "not placed"]
ROOMY = "%Y-%m-%dT%H:%M"
"""How a moment of the wall clock is written."""


class Stretch(Value, frozen=True, kw_only=True):
    """Work on a step without a break: from when to when, by whom."""

    start: str
    end: str
    people: tuple[str, ...]


class PlannedStep(Value, frozen=True, kw_only=True):
    """A step with when it is done.

    Attributes:
        step: What. state: done, ready to begin, waits for others, dries (what it waits for is done, and not dry),
            for somebody else, or in no session. before: What ties it to what comes before, and why.
        stretches: When, by the wall clock; empty where it is done or in no session. minutes: As it is planned, the pace
            of whoever does it in. stand_in: What does for a second pair of hands then. free_from: When what it waits
            for is dry, where that is known.
    """

    step: WorkStep
    state: StepState
    before: tuple[Tie, ...]
    stretches: tuple[Stretch, ...] = ()
    minutes: int = 0
    stand_in: str = ""
    free_from: str = ""


class SessionPlan(Value, frozen=True, kw_only=True):
    """One session: from when to when, its name, who is there, how many of their minutes are used, and its steps."""

    start: str
    end: str
    name: str
    people: tuple[str, ...]
    minutes: int
    used: int
    steps: tuple[str, ...]


class PersonPace(Value, frozen=True, kw_only=True):
    """How one person works against the usual minutes."""

    person: str
    name: str
    pace: Pace


class Planned(Value, frozen=True, kw_only=True):
    """Order for a whole job.

    Attributes:
        now: The moment that it counts from. steps: All, in one order that keeps every tie. sessions: Those in use.
        ends: When the last step ends; "" where nothing is left or something is in no session. no_sooner: Before which
            no plan could end, and `path` the steps that make it so. working_minutes: What is left, people's minutes.
        paces: Of everybody. assumed: Whether sessions are assumed. findings: What is told.
    """

    now: str
    steps: tuple[PlannedStep, ...]
    sessions: tuple[SessionPlan, ...]
    ends: str
    no_sooner: str
    path: tuple[str, ...]
    working_minutes: int
    paces: tuple[PersonPace, ...]
    assumed: bool
    findings: tuple[Finding, ...]


class AskedTonight(Value, frozen=True, kw_only=True):
    """Tonight's list, with its steps."""

    tonight: Tonight
    steps: tuple[PlannedStep, ...]


@dataclass(frozen=True)
class Plot:
    """A job's steps in their order, and what is left of them to do."""

    ordered: Ordered
    log: Logged
    tasks: tuple[Task, ...]
    needs: tuple[Need, ...]
    filled: tuple[Fills, ...]
    now: datetime


def steps_of(job: Job, works: Sequence[PlaceWork], made: Made) -> tuple[tuple[WorkStep, ...], tuple[Tie, ...]]:
    """Return every step of a job and what ties them, the user's own included."""
    shared = tuple(buying(made))
    if job.sessions.workshop == "elsewhere":
        shared = (
            *shared,
            WorkStep(
                key=MOVE,
                kind="carry",
                name="Carry all that is made to the place",
                minutes=90,
                people=1,
                skill="lifting",
                where="anywhere",
                why="it is made in another house",
            ),
        )
    steps: list[WorkStep] = [*shared]
    ties: list[Tie] = []
    for work in works:
        own = (
            *on_the_ground(work),
            *cutting(work),
            *at_bench(work),
            *coats_before(work, made),
            *measures(work),
            *to_stand(work),
            *afterwards(work, made),
        )
        steps += own
        ties += traps(work, own)
        ties += trade_ties(work, (*shared, *own))
    said, said_ties = _own(job)
    return (*steps, *said), strongest((*ties, *said_ties))


def _own(job: Job) -> tuple[tuple[WorkStep, ...], tuple[Tie, ...]]:
    sessions, steps, ties = job.sessions, [], []
    for o in sessions.own:
        key = f"own/{o.id}"
        steps.append(
            WorkStep(
                key=key,
                kind="own",
                name=o.name,
                minutes=o.minutes,
                people=o.people,
                where=o.where,
                rests_h=o.rests_h,
                rests_why="rest" if o.rests_h else "",
                why=o.why or "added by you",
            )
        )
        ties += [Tie(first=k, then=key, kind="said", why="you said so") for k in o.after]
        ties += [Tie(first=key, then=k, kind="said", why="you said so") for k in o.before]
    for v in sessions.visits:
        key = f"visit/{v.id}"
        if not v.does:
            steps.append(
                WorkStep(
                    key=key,
                    kind="service",
                    name=v.name,
                    minutes=v.minutes,
                    others=True,
                    why="they come on their own day",
                )
            )
        for k in v.before:
            ties += [Tie(first=k, then=d, kind="said", why=f"done when {v.name} comes") for d in v.does or (key,)]
    return tuple(steps), tuple(ties)


def plot(job: Job, works: Sequence[PlaceWork], made: Made, done: Sequence[StepDone], now: datetime) -> Plot:
    """Return a job's steps in one order, and what is left to do.

    Args:
        job: Which.
        works: Its places with what is planned for them.
        made: What is made for it.
        done: Steps that were done.
        now: With its zone.
    """
    steps, ties = steps_of(job, works, made)
    asked = tuple(n for work in works for n in needs(work, steps))
    filled = tuple(f for work in works for f in fillings(work, steps))
    ordered = sequenced(steps, ties, job.sessions, asked, filled)
    log = logged(job, done, steps, now)
    seen = {key: 0 for work in works if work.measured for key in (work.key("clear"), work.key("survey"))}
    log = Logged(seen | dict(log.done), log.paces)
    clock = wall_clock(now, now)
    return Plot(ordered, log, tasks_of(job, ordered, log, clock), asked, filled, clock)


def planned(job: Job, found: Plot) -> Planned:
    """Return the steps of a job in its sessions."""
    spans = windows(job.sessions, found.now)
    least = bound(found.tasks, spans)
    placed = scheduled(found.tasks, spans, bound=least.end)
    steps = _steps(found, placed)
    sessions = _sessions(found, spans, placed)
    whole = len(placed) == len(found.tasks)
    end = max((p.end for p in placed.values()), default=0)
    assumed = not job.sessions.habits and not job.sessions.one_offs
    paces = tuple(PersonPace(person=p.id, name=p.name, pace=found.log.paces[p.id]) for p in people_of(job.sessions))
    return Planned(
        now=found.now.strftime(ROOMY),
        steps=steps,
        sessions=sessions,
        ends=_at(found.now, end) if placed and whole else "",
        no_sooner=_at(found.now, least.end) if least.path else "",
        path=least.path,
        working_minutes=sum(sum((p.end - p.start) * len(p.people) for p in x.pieces) for x in placed.values()),
        paces=paces,
        assumed=assumed,
        findings=told(Told(job, found.ordered, found.tasks, placed, spans, least, found.now, assumed)),
    )


def asked_tonight(job: Job, found: Plot, minutes: int, people: Sequence[str], machines: Sequence[str]) -> AskedTonight:
    """Return what fits into a session that begins now.

    Args:
        job: Which.
        found: Its steps.
        minutes: How long there is.
        people: Who is there, by their ids; the first of the job's people where nobody is named.
        machines: Those that are not always at hand, and are now.
    """
    first = int((found.now - origin_of(found.now)).total_seconds() // 60)
    known = {p.id for p in people_of(job.sessions)}
    there = tuple(p for p in people if p in known) or (people_of(job.sessions)[0].id,)
    window = Window(first, first + minutes, "Now", there, frozenset(machines), "anywhere", "")
    list_ = tonight(found.tasks, window)
    wanted = {*list_.steps, list_.begun, *list_.frees}
    turn = {k: n for n, k in enumerate(list_.steps)}
    steps = sorted(
        (s for s in _steps(found, {}) if s.step.key in wanted), key=lambda s: turn.get(s.step.key, len(turn))
    )
    return AskedTonight(tonight=list_, steps=tuple(steps))


def _at(now: datetime, minute: int) -> str:
    return (origin_of(now) + timedelta(minutes=minute)).strftime(ROOMY)


def _steps(found: Plot, placed: Mapping[str, Placed]) -> tuple[PlannedStep, ...]:
    ties = before(found.ordered.ties)
    tasks = {t.key: t for t in found.tasks}
    first = int((found.now - origin_of(found.now)).total_seconds() // 60)
    out = []
    for step in found.ordered.steps:
        task, at = tasks.get(step.key), placed.get(step.key)
        if task is None:
            out.append(PlannedStep(step=step, state="done", before=ties.get(step.key, ())))
            continue
        state: StepState = "ready"
        if task.before:
            state = "waits"
        elif task.others:
            state = "others"
        elif task.release > first:
            state = "dries"
        if placed and at is None:
            state = "not placed"
        out.append(
            PlannedStep(
                step=step,
                state=state,
                before=ties.get(step.key, ()),
                stretches=tuple(
                    Stretch(start=_at(found.now, p.start), end=_at(found.now, p.end), people=p.people)
                    for p in (at.pieces if at else ())
                ),
                minutes=at.mode.minutes if at else task.modes[0].minutes,
                stand_in=at.mode.stand_in if at else "",
                free_from=_at(found.now, task.release) if task.release > first else "",
            )
        )
    return tuple(out)


def _sessions(found: Plot, spans: Sequence[Window], placed: Mapping[str, Placed]) -> tuple[SessionPlan, ...]:
    used: dict[int, list[tuple[int, str, int]]] = {}
    starts = [w.start for w in spans]
    for p in placed.values():
        for piece in p.pieces:
            n = next((i for i in range(len(starts)) if spans[i].start <= piece.start < spans[i].end), None)
            if n is not None and piece.people:
                minutes = (piece.end - piece.start) * len(piece.people)
                used.setdefault(n, []).append((piece.start, p.key, minutes))
    return tuple(
        SessionPlan(
            start=_at(found.now, spans[n].start),
            end=_at(found.now, spans[n].end),
            name=spans[n].name,
            people=spans[n].people,
            minutes=(spans[n].end - spans[n].start) * len(spans[n].people),
            used=sum(m for _, _, m in did),
            steps=tuple(dict.fromkeys(key for _, key, _ in sorted(did))),
        )
        for n, did in sorted(used.items())
    )
