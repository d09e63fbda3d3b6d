"""Steps put into sessions: serial schedule generation, many times over, the best kept.

Resource-constrained scheduling with calendars: each step goes to the earliest time at which what it waits for is
done and dry, enough people who may do it are there and free, and its machine is. The first in turn is the one that must
start soonest for the end to hold (latest start); forwards and backwards in turn, and again with the turns disturbed
(Kolisch & Hartmann 1999). Times are minutes of the wall clock.
"""

from __future__ import annotations

import bisect
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from random import Random

from wobble.core.budget import spend
from wobble.core.order.hours.windows import Window

LEAST_PIECE_MIN = 15
"""Nobody gets out the tools for less, unless it is the rest."""
ROUNDS = 5
SHAKEN = (0.03, 0.1, 0.3, 1.0)
"""How far turns are disturbed, as shares of the whole length: a little, and so much that any order may come."""
ALONE_SOONER_MIN = 12 * 60
"""With a second pair of hands there, nobody does alone what wants two, unless that were half a day sooner."""


@dataclass(frozen=True)
class Mode:
    """One way to do a step: how long, by how many; `stand_in` names what does for a second pair of hands.

    `who` says by whom, where it is not anybody who may do the step.
    """

    minutes: int
    people: int
    stand_in: str = ""
    who: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Task:
    """A step as the schedule sees it.

    Attributes:
        key: Of the step. modes: Ways to do it, the best first. splits: Whether it may be torn.
        who: People who may do it; empty where somebody else does it, who takes no session.
        where: What its session must be good for; "" for any. needs: Machines of which one must be in the session.
        at: Machine that one at a time uses; "" for none. before: What it waits for, each with minutes of rest after it.
        release: Minute from which on it may begin: what is drying already. fixed: Minute at which others come.
        by: Minute by which it must be done; None for none.
    """

    key: str
    modes: tuple[Mode, ...]
    splits: bool = False
    who: frozenset[str] = frozenset()
    where: str = ""
    needs: frozenset[str] = frozenset()
    at: str = ""
    before: tuple[tuple[str, int], ...] = ()
    release: int = 0
    fixed: int | None = None
    by: int | None = None

    @property
    def others(self) -> bool:
        """Whether somebody else does it."""
        return not self.who


@dataclass(frozen=True)
class Piece:
    """A stretch of work on one step: from which minute to which, by whom."""

    start: int
    end: int
    people: tuple[str, ...]


@dataclass(frozen=True)
class Placed:
    """A step in its sessions, in which way it is done."""

    key: str
    pieces: tuple[Piece, ...]
    mode: Mode

    @property
    def start(self) -> int:
        """Its first minute."""
        return self.pieces[0].start

    @property
    def end(self) -> int:
        """The minute after its last."""
        return self.pieces[-1].end


@dataclass
class _Board:
    """Sessions while they fill: who is busy when, and which machine is."""

    windows: Sequence[Window]
    busy: dict[str, list[tuple[int, int]]] = field(default_factory=dict)
    ends: list[int] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.ends = [w.end for w in self.windows]

    def free(self, who: str, start: int, end: int) -> bool:
        spans = self.busy.get(who)
        if not spans:
            return True
        i = bisect.bisect_right(spans, (start, math.inf)) - 1
        if i >= 0 and spans[i][1] > start:
            return False
        return i + 1 >= len(spans) or spans[i + 1][0] >= end

    def take(self, who: str, start: int, end: int) -> None:
        bisect.insort(self.busy.setdefault(who, []), (start, end))


def good_for(task: Task, window: Window) -> bool:
    """Return whether a step can be done in a session at all, whoever is free."""
    where = window.where == "anywhere" or not task.where or window.where == task.where
    return where and (not task.needs or bool(task.needs & window.machines))


def _earliest(board: _Board, task: Task, mode: Mode, est: int) -> list[Piece] | None:
    """Return the earliest stretch in which a step is done in one go; None where no session takes it."""
    minutes = mode.minutes
    for w in board.windows[bisect.bisect_right(board.ends, est) :]:
        if w.end - max(w.start, est) < minutes or not good_for(task, w):
            continue
        able = [p for p in w.people if p in (mode.who or task.who)]
        if len(able) < mode.people:
            continue
        first = max(w.start, est)
        starts = {first}
        for who in (*able, *((task.at,) if task.at else ())):
            starts.update(e for _, e in board.busy.get(who, ()) if first < e <= w.end - minutes)
        for at in sorted(starts):
            if task.at and not board.free(task.at, at, at + minutes):
                continue
            free = [p for p in able if board.free(p, at, at + minutes)]
            if len(free) >= mode.people:
                return [Piece(at, at + minutes, tuple(free[: mode.people]))]
    return None


def _in_pieces(board: _Board, task: Task, mode: Mode, est: int) -> list[Piece] | None:
    """Return stretches in which a step that may be torn is done, one person at a time."""
    left, pieces, at = mode.minutes, [], est
    for w in board.windows[bisect.bisect_right(board.ends, est) :]:
        if not good_for(task, w):
            continue
        for who in (p for p in w.people if p in (mode.who or task.who)):
            at = max(w.start, at)
            spans = [s for s in board.busy.get(who, ()) if s[1] > at and s[0] < w.end]
            if task.at:
                spans = sorted(spans + [s for s in board.busy.get(task.at, ()) if s[1] > at and s[0] < w.end])
            for gap_end, gap_next in (*((s[0], s[1]) for s in spans), (w.end, w.end)):
                took = min(gap_end - at, left)
                if 0 < left - took < LEAST_PIECE_MIN:  # nobody comes back for five minutes
                    took = left - LEAST_PIECE_MIN
                if took > 0 and (took >= LEAST_PIECE_MIN or took == left):
                    pieces.append(Piece(at, at + took, (who,)))
                    left -= took
                    at += took
                    if not left:
                        return pieces
                at = max(at, gap_next)
    return None


def _place(board: _Board, task: Task, est: int) -> Placed | None:
    if task.others:
        at = max(est, task.fixed or 0)
        mode = task.modes[0]
        return Placed(task.key, (Piece(at, at + mode.minutes, ()),), mode)
    best: Placed | None = None
    for mode in task.modes:
        pieces = _earliest(board, task, mode, est)
        if task.splits and mode.people == 1:
            torn = _in_pieces(board, task, mode, est)
            if torn is not None and (pieces is None or torn[-1].end < pieces[-1].end):
                pieces = torn
        sooner = ALONE_SOONER_MIN if mode.stand_in and best is not None else 0
        if pieces is not None and (best is None or pieces[-1].end < best.end - sooner):
            best = Placed(task.key, tuple(pieces), mode)
    if best is not None:
        for piece in best.pieces:
            for who in piece.people:
                board.take(who, piece.start, piece.end)
            if task.at:
                board.take(task.at, piece.start, piece.end)
    return best


def _serial(tasks: Sequence[Task], windows: Sequence[Window], turn: Mapping[str, float]) -> dict[str, Placed]:
    """Return a schedule: the first in turn of those that may begin is placed as early as it can be."""
    by_key = {t.key: t for t in tasks}
    waits = {t.key: sum(1 for k, _ in t.before if k in by_key) for t in tasks}
    after: dict[str, list[str]] = {t.key: [] for t in tasks}
    for t in tasks:
        for k, _ in t.before:
            if k in by_key:
                after[k].append(t.key)
    ready = sorted(((turn[t.key], n, t.key) for n, t in enumerate(tasks) if not waits[t.key]), reverse=True)
    order = {t.key: n for n, t in enumerate(tasks)}
    board = _Board(windows)
    placed: dict[str, Placed] = {}
    lost: set[str] = set()
    while ready:
        _, _, key = ready.pop()
        task = by_key[key]
        if all(k not in lost for k, _ in task.before):
            est = max([task.release, *(placed[k].end + rest for k, rest in task.before if k in placed)])
            found = _place(board, task, est)
            if found is not None:
                placed[key] = found
            else:
                lost.add(key)
        else:
            lost.add(key)
        for then in after[key]:
            waits[then] -= 1
            if not waits[then]:
                bisect.insort(ready, (turn[then], order[then], then), key=lambda r: (-r[0], -r[1]))
    return placed


def _worth(placed: Mapping[str, Placed], tasks: Sequence[Task]) -> tuple[float, ...]:
    late = sum(max(placed[t.key].end - t.by, 0) if t.key in placed else 10**6 for t in tasks if t.by is not None)
    end = max((p.end for p in placed.values()), default=0)
    return (-len(placed), late, end, sum(p.end for p in placed.values()))


def latest_starts(tasks: Sequence[Task], windows: Sequence[Window]) -> dict[str, float]:
    """Return by when each step must start, in calendar minutes before an end that is not known: less is sooner."""
    ratio = _spread(windows)
    after: dict[str, list[tuple[str, int]]] = {t.key: [] for t in tasks}
    for t in tasks:
        for k, rest in t.before:
            if k in after:
                after[k].append((t.key, rest))
    start: dict[str, float] = {}
    for t in _backwards(tasks):
        finish = min([0.0, *(start[k] - rest for k, rest in after[t.key])])
        if t.by is not None:
            finish = min(finish, t.by - 10**6)
        start[t.key] = finish - t.modes[0].minutes * (1.0 if t.others else ratio)
    return start


def _backwards(tasks: Sequence[Task]) -> list[Task]:
    """Return steps so that each comes after all that wait for it."""
    by_key = {t.key: t for t in tasks}
    seen: set[str] = set()
    out: list[Task] = []
    for root in tasks:
        stack = [(root, iter(root.before))]
        if root.key in seen:
            continue
        seen.add(root.key)
        while stack:
            task, rest = stack[-1]
            for k, _ in rest:
                if k in by_key and k not in seen:
                    seen.add(k)
                    stack.append((by_key[k], iter(by_key[k].before)))
                    break
            else:
                out.append(task)
                stack.pop()
    return out[::-1]


def _spread(windows: Sequence[Window]) -> float:
    """Return calendar minutes per working minute over the next sessions."""
    near = windows[:20]
    worked = sum(w.end - w.start for w in near)
    return (near[-1].end - near[0].start) / worked if worked else 1.0


def _mirrored(tasks: Sequence[Task], windows: Sequence[Window], end: int) -> tuple[list[Task], list[Window]]:
    """Return the same with time running backwards from an end: what waited is waited for."""
    after: dict[str, list[tuple[str, int]]] = {t.key: [] for t in tasks}
    for t in tasks:
        for k, rest in t.before:
            if k in after:
                after[k].append((t.key, rest))
    turned = [Task(t.key, t.modes, t.splits, t.who, t.where, t.needs, t.at, before=tuple(after[t.key])) for t in tasks]
    back = [
        Window(max(end - w.end, 0), end - w.start, w.name, w.people, w.machines, w.where, w.habit)
        for w in reversed(windows)
        if w.start < end
    ]
    return turned, back


def scheduled(
    tasks: Sequence[Task], windows: Sequence[Window], *, bound: int = 0, rounds: int = ROUNDS, seed: int = 1
) -> dict[str, Placed]:
    """Return the best schedule found: most steps, least past their deadlines, the earliest end.

    Args:
        tasks: In an order that keeps what waits for what.
        windows: The sessions, by their start.
        bound: No schedule ends before; one that ends then is not looked past.
        rounds: How often it is tried again with turns disturbed.
        seed: Of those.
    """
    rng = Random(seed)  # noqa: S311 - not for secrets: the same seed gives the same plan
    base = latest_starts(tasks, windows)
    scatter = max(abs(min(base.values(), default=0.0)), 1.0)
    best: dict[str, Placed] = {}
    worth: tuple[float, ...] = ()
    for n in range(rounds):
        spend()
        shaken = scatter * SHAKEN[n % len(SHAKEN)]
        turn = base if n == 0 else {k: v + rng.gauss(0.0, shaken) for k, v in base.items()}
        for _ in range(2):
            found = _serial(tasks, windows, turn)
            now = _worth(found, tasks)
            if not worth or now < worth:
                best, worth = found, now
            if len(found) < len(tasks):
                break
            end = max((p.end for p in found.values()), default=0)
            turned, back = _mirrored(tasks, windows, end)
            behind = _serial(turned, back, {k: -float(p.end) for k, p in found.items()})
            if len(behind) < len(tasks):
                break
            turn = {k: -float(p.end) for k, p in behind.items()}
        if worth and len(best) == len(tasks) and worth[1] == 0 and worth[2] <= bound:
            break
    return best
