"""A checker that walks a plan of steps, and knows nothing of how it was made.

It goes through the sessions minute by minute as they were said, and through the place with what stands in it, by points
in the air: a thing that is carried in must not pass through what stands, a drill needs its quarter of a metre, a hand
its opening. `python -m tests.order.walker 300` walks as many made-up jobs and prints how far their ends are from the
bound.
"""

from __future__ import annotations

import statistics
import sys
from collections import defaultdict
from datetime import UTC, date, datetime, timedelta
from itertools import product

import numpy as np
from msgspec.structs import replace

from tests.core.plausible import plausible_job
from wobble.core.job import Job, Unit
from wobble.core.job.sessions import Deadline, Habit, OneOff, Person, Sessions
from wobble.core.order.result import Planned, PlannedStep
from wobble.core.stages import solve_fit, solve_hold, solve_order

DAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
NOW = datetime(2026, 3, 7, 8, 0, tzinfo=UTC)


def faults(job: Job, planned: Planned) -> list[str]:
    """Return everything that is wrong with a plan; nothing where it can be done as it says."""
    return [*_in_time(planned), *_in_sessions(job, planned), *_in_the_room(job, planned)]


def _when(text: str) -> datetime:
    return datetime.fromisoformat(text)


def _in_time(planned: Planned) -> list[str]:
    """Nothing begins before what it needs is done, and dry."""
    out, by_key = [], {s.step.key: s for s in planned.steps}
    for s in planned.steps:
        if not s.stretches:
            continue
        minutes = sum((_when(x.end) - _when(x.start)).seconds // 60 for x in s.stretches)
        if minutes != s.minutes:
            out.append(f"{s.step.key}: {minutes} minutes of {s.minutes}")
        if len(s.stretches) > 1 and not s.step.splits:
            out.append(f"{s.step.key} is torn")
        for tie in s.before:
            first = by_key[tie.first]
            if first.state == "done":
                continue
            if not first.stretches:
                out.append(f"{s.step.key} is planned and {tie.first} is not")
                continue
            dry = timedelta(hours=first.step.rests_h if tie.rests else 0)
            if _when(s.stretches[0].start) < _when(first.stretches[-1].end) + dry:
                out.append(f"{s.step.key} begins before {tie.first} is done: {tie.why}")
    return out


def _said(job: Job, day: date) -> list[tuple[int, int, tuple[str, ...], tuple[str, ...], str]]:
    """Return the sessions of a day as they were said: from, to, people, machines, what it is good for."""
    sessions = job.sessions
    first = sessions.people[0].id if sessions.people else "you"
    if day.isoformat() in sessions.off:
        habits: list[Habit] = []
    elif sessions.habits or sessions.one_offs:
        habits = [h for h in sessions.habits if DAYS[day.weekday()] in h.days]
    else:  # what is assumed is told, word for word
        habits = [Habit(id="a", name="A", days=("tue", "thu"), starts="19:00", minutes=120)] * (day.weekday() in (1, 3))
        habits += [Habit(id="b", name="B", days=("sat",), starts="09:00", minutes=240)] * (day.weekday() == 5)
    out: list[tuple[int, int, tuple[str, ...], tuple[str, ...], str]] = []
    single = [o for o in sessions.one_offs if o.on == day.isoformat()]
    every: list[Habit | OneOff] = [*single, *habits]
    for one in every:
        start = int(one.starts[:2]) * 60 + int(one.starts[3:])
        out.append((start, start + one.minutes, tuple(one.people) or (first,), tuple(one.machines), one.where))
    return out


def _in_sessions(job: Job, planned: Planned) -> list[str]:
    """Every stretch is in a session with its people and machines, and nobody is at two things at once."""
    out = []
    never = {p.id: set(p.never) for p in job.sessions.people}
    busy: dict[str, list[tuple[datetime, datetime, str]]] = defaultdict(list)
    away = {m.id: m.kind for m in job.workshop.machines if m.id in job.sessions.machines_away}
    here = {m.kind for m in job.workshop.machines if m.id not in away}
    for s in planned.steps:
        if s.step.others:
            continue
        wants = [m for m, kind in away.items() if kind in s.step.machines] if not here & set(s.step.machines) else []
        for x in s.stretches:
            a, b = _when(x.start), _when(x.end)
            if a < _when(planned.now):
                out.append(f"{s.step.key} is in the past")
            if len(set(x.people)) != (1 if s.stand_in or s.step.people == 1 else s.step.people):
                out.append(f"{s.step.key}: {len(x.people)} people")
            if s.step.people > 1 and len(x.people) == 1 and not s.step.stand_in:
                out.append(f"{s.step.key} is done alone")
            for who in x.people:
                if s.step.skill in never.get(who, ()):
                    out.append(f"{who} may not do {s.step.key}")
                out += [f"{who} is at {k} and {s.step.key}" for c, d, k in busy[who] if a < d and c < b]
                busy[who].append((a, b, s.step.key))
            if not _fits(job, s, x.people, a, b, wants):
                out.append(f"{s.step.key} is in no session at {x.start}")
    return out


def _fits(job: Job, s: PlannedStep, people: tuple[str, ...], a: datetime, b: datetime, wants: list[str]) -> bool:
    for back in (0, 1):  # a session may have begun the day before
        day = a.date() - timedelta(days=back)
        off = back * 24 * 60
        lo, hi = a.hour * 60 + a.minute + off, b.hour * 60 + b.minute + off + (24 * 60 if b.date() > a.date() else 0)
        for start, end, there, machines, where in _said(job, day):
            place = where == "anywhere" or s.step.where in ("anywhere", where)
            place = place or job.sessions.workshop == "at the place"
            machine = not wants or set(wants) & set(machines)
            if start <= lo and hi <= end and set(people) <= set(there) and place and machine:
                return True
    return False


def _points(x: tuple[float, float], y: tuple[float, float], z: tuple[float, float], n: int = 7) -> np.ndarray:
    """Return points in a box, a little inside of its faces."""
    spans = [np.linspace(a + min(3.0, (b - a) / 2), b - min(3.0, (b - a) / 2), n) for a, b in (x, y, z)]
    return np.array(list(product(*spans)))


def _inside(points: np.ndarray, unit: Unit, skin: float = 0.0) -> bool:
    low = np.array([unit.x_mm, unit.out_mm, unit.over_base_mm]) + skin
    high = np.array([unit.right_mm, unit.out_mm + unit.depth_mm, unit.over_base_mm + unit.height_mm]) - skin
    return bool(np.any(np.all((points > low) & (points < high), axis=1)))


def _in_the_room(job: Job, planned: Planned) -> list[str]:
    """Walk the steps in their order with what stands: each thing gets in, each screw is reached from the front."""
    told = {k for f in planned.findings if f.code in ("ring", "turned", "dropped") for k in f.about}
    out: list[str] = []
    for place in job.places:
        units = {u.id: u for u in solve_fit(job, place.id).units}
        fit = solve_fit(job, place.id)
        base = fit.plan.base.height.value_mm if fit.plan is not None and fit.plan.base.tied else 0.0
        screws = [f for f in solve_hold(job, place.id).fasteners if f.surface == "back"]
        standing: dict[str, Unit] = {}
        filled: set[str] = set()
        for step in (s.step for s in planned.steps if s.step.place == place.id):
            unit = units.get(step.of[0]) if step.of else None
            if unit is None or step.key in told:
                continue
            others = [u for u in standing.values() if u.id != unit.id]
            if step.kind in ("set", "top", "frame", "put in") and not _gets_in(unit, others):
                out.append(f"{step.key}: its way in is closed")
            if step.kind == "fasten":
                for f in screws:
                    if f.unit == unit.id and f.part not in ("cleat", "ledger", "batten", "timber"):
                        x, z = f.at[0], f.at[1] - base
                        own = (unit.x_mm, unit.right_mm), (unit.over_base_mm, unit.over_base_mm + unit.height_mm)
                        spot = (max(x - 15, own[0][0]), min(x + 15, own[0][1]))
                        high = (max(z - 15, own[1][0]), min(z + 15, own[1][1]))
                        air = _points(spot, (unit.out_mm + 25, unit.out_mm + 245), high)
                        if spot[0] < spot[1] and high[0] < high[1] and any(_inside(air, o, 14.0) for o in others):
                            out.append(f"{step.key}: no room for the driver at {f.id}")
                if unit.id in filled:
                    out.append(f"{step.key}: its drawers are in")
            if step.kind in ("set", "top", "frame", "line", "put in"):
                standing[unit.id] = unit
            if step.kind == "drawers":
                filled.add(unit.id)
    return out


def _gets_in(unit: Unit, others: list[Unit]) -> bool:
    """Whether a unit comes in from the front at its height, or over that and down; tops between walls down only."""
    x, y = (unit.x_mm, unit.right_mm), (unit.out_mm, unit.out_mm + unit.depth_mm)
    z = (unit.over_base_mm, unit.over_base_mm + unit.height_mm)
    front = _points(x, (y[0], y[0] + 4000.0), (z[0] + 6.0, z[1] + 6.0), 15)
    if {"left", "right"} <= set(unit.meets) and unit.flat:
        ways = [_points(x, y, (z[0] + 5.0, z[1] + 245.0), 15)]
    elif unit.stands and not unit.flat and unit.kind != "cushion":
        ways = [front]
    else:
        ways = [front, _points(x, y, (z[0] + 5.0, z[1] + 55.0), 15)]
    return any(not any(_inside(way, o, 3.0) for o in others) for way in ways)


def made_up(seed: int) -> Job:
    """Return a made-up job with made-up sessions; the same for the same seed."""
    rng = np.random.default_rng(seed)
    people = (Person(id="a", name="A"), Person(id="b", name="B", never=("sawing",) if rng.random() < 0.5 else ()))
    both = tuple(p.id for p in people)
    days = [d for d in DAYS if rng.random() < 0.4] or ["sat"]
    habits = (
        Habit(
            id="h",
            name="H",
            days=tuple(days),  # type: ignore[arg-type]
            starts=f"{int(rng.integers(6, 20)):02d}:{int(rng.choice([0, 15, 30])):02d}",
            minutes=int(rng.choice([60, 90, 120, 180])),
            people=("a",),
        ),
        Habit(id="w", name="W", days=("sun",), starts="09:00", minutes=int(rng.choice([240, 480])), people=both),
    )
    sessions = Sessions(
        people=people,
        habits=habits,
        one_offs=(OneOff(id="o", name="O", on="2026-03-18", minutes=300, people=both),) if rng.random() < 0.3 else (),
        off=("2026-03-15", "2026-03-22") if rng.random() < 0.3 else (),
        deadlines=(Deadline(id="d", name="D", by="2026-04-30"),) if rng.random() < 0.3 else (),
        air=("warm and dry", "cool", "cold or damp")[int(rng.integers(3))],
        finishing=("before assembly", "before setting", "after setting")[int(rng.integers(3))],
        workshop="elsewhere" if rng.random() < 0.3 else "at the place",
    )
    if rng.random() < 0.1:
        sessions = Sessions()
    return replace(plausible_job(seed), sessions=sessions)


def late_by(planned: Planned) -> float | None:
    """Return how far a plan ends past its bound, as a share of the time to that; None where it has no end."""
    if not planned.ends or not planned.no_sooner:
        return None
    now, end, least = (_when(t) for t in (planned.now, planned.ends, planned.no_sooner))
    return (end - least) / (least - now) if least > now else 0.0


def main(count: int) -> int:
    """Walk so many made-up jobs; stop at the first that cannot be done as it says."""
    shares = []
    for seed in range(count):
        job = made_up(seed)
        planned = solve_order(job, NOW)
        found = faults(job, planned)
        if found:
            print(f"{seed}: {found[:5]}")
            return 1
        share = late_by(planned)
        if share is not None:
            shares.append(share)
    print(f"{count} plans walked; past the bound: median {statistics.median(shares):.1%}, worst {max(shares):.0%}")
    return 0


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 300))
