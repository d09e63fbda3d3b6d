"""One order that keeps every tie: what a user's own order breaks, what traps itself, and what comes before what."""

from __future__ import annotations

import heapq
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from wobble.core.job.sessions import Sessions
from wobble.core.order.step import PHASE, Tie, WorkStep
from wobble.core.order.ties.traps import Fills, Need, blocked


@dataclass(frozen=True)
class Broken:
    """What a user's order, or a dropped step, breaks: which, the tie that stood against it, and what else to do."""

    first: str
    then: str
    tie: Tie | None
    kept: bool


@dataclass(frozen=True)
class Ordered:
    """Steps in an order that keeps all ties: the steps, the ties that count, what is broken, and rings that trap.

    `rings` are steps that wait for each other; one tie of each was left out, which is named with it.
    """

    steps: tuple[WorkStep, ...]
    ties: tuple[Tie, ...]
    broken: tuple[Broken, ...]
    rings: tuple[tuple[tuple[str, ...], Tie], ...]
    unknown: tuple[str, ...] = ()


SOFTNESS = {"way in": 0, "trap": 1, "dries": 2, "trade": 3, "gate": 4, "said": 5}
"""Which tie of a ring is left out first: one without which the work still can be done, if worse."""


def sequenced(
    steps: Sequence[WorkStep], ties: Iterable[Tie], sessions: Sessions, needs: Sequence[Need], filled: Sequence[Fills]
) -> Ordered:
    """Return steps in one order that keeps what can be kept of ties, of a user's own order and of room.

    Args:
        steps: Of all places, the user's own among them.
        ties: What ties them.
        sessions: What the user says: own order, steps that are dropped.
        needs: The room that steps need; also what two pieces take together.
        filled: What steps leave standing.
    """
    by_key = {s.key: s for s in steps}
    kept = [t for t in ties if t.first in by_key and t.then in by_key and t.first != t.then]
    kept, broken_by_drop = _without(kept, [k for k in sessions.dropped if k in by_key])
    steps = [s for s in steps if s.key not in sessions.dropped]
    kept, broken = _as_said(kept, sessions, {s.key for s in steps})
    rings: list[tuple[tuple[str, ...], Tie]] = []
    named = {*by_key}
    unknown = tuple(
        k for k in (*sessions.dropped, *(k for t in sessions.turned for k in (t.first, t.then))) if k not in named
    )
    for _ in range(60):
        kept, more = _without_rings(steps, kept)
        rings += more
        order = _topological(steps, kept)
        late = _walled_in(order, needs, filled)
        if late is None or any((late.first, late.then) == (r.first, r.then) for _, r in rings):
            break
        kept.append(late)
    return Ordered(tuple(order), tuple(kept), (*broken_by_drop, *broken), tuple(rings), unknown)


def _without(ties: list[Tie], dropped: Sequence[str]) -> tuple[list[Tie], list[Broken]]:
    """Return ties without some steps: what came before each still comes before what came after it."""
    broken = []
    for key in dropped:
        before, after = [t for t in ties if t.then == key], [t for t in ties if t.first == key]
        broken += [Broken(key, t.then, t, kept=False) for t in after if t.kind in ("gate", "trap") or t.firm][:3]
        ties = [t for t in ties if key not in (t.first, t.then)]
        ties += [
            Tie(first=a.first, then=b.then, kind=b.kind, why=b.why, rests=a.rests, firm=a.firm and b.firm)
            for a in before
            for b in after
        ]
    return list({(t.first, t.then): t for t in ties}.values()), broken


def _as_said(ties: list[Tie], sessions: Sessions, keys: set[str]) -> tuple[list[Tie], list[Broken]]:
    """Return ties with the order that the user has said: it stands where nothing firm is against it."""
    broken = []
    for wish in sessions.turned:
        if wish.first not in keys or wish.then not in keys or wish.first == wish.then:
            continue
        said = Tie(first=wish.first, then=wish.then, kind="said", why="you said so", rests=False)
        path = _path(ties, wish.then, wish.first)
        while path is not None:
            soft = next((t for t in path if not t.firm), None)
            if soft is None:
                hard = min(path, key=lambda t: SOFTNESS[t.kind])
                broken.append(Broken(wish.first, wish.then, hard, kept=False))
                break
            broken.append(Broken(wish.first, wish.then, soft, kept=True))
            ties = [t for t in ties if t is not soft]
            path = _path(ties, wish.then, wish.first)
        else:
            ties = [*ties, said]
    return ties, broken


def _path(ties: Sequence[Tie], start: str, end: str) -> list[Tie] | None:
    """Return ties that lead from one step to another; None where none do."""
    after: dict[str, list[Tie]] = defaultdict(list)
    for t in ties:
        after[t.first].append(t)
    came: dict[str, Tie | None] = {start: None}
    waiting = [start]
    while waiting:
        at = waiting.pop(0)
        if at == end:
            path = []
            while (tie := came[at]) is not None:
                path.append(tie)
                at = tie.first
            return path[::-1]
        for t in after[at]:
            if t.then not in came:
                came[t.then] = t
                waiting.append(t.then)
    return None


def _without_rings(steps: Sequence[WorkStep], ties: list[Tie]) -> tuple[list[Tie], list[tuple[tuple[str, ...], Tie]]]:
    """Return ties of which none waits for itself, and every ring with the tie that was left out of it."""
    rings = []
    while (ring := _ring(steps, ties)) is not None:
        out = min(ring, key=lambda t: (t.firm, SOFTNESS[t.kind]))
        if out.firm:  # what only prefers an order goes without a word
            rings.append((tuple(t.first for t in ring), out))
        ties = [t for t in ties if t is not out]
    return ties, rings


def _ring(steps: Sequence[WorkStep], ties: Sequence[Tie]) -> list[Tie] | None:
    left = {s.key for s in steps}
    live = [t for t in ties if t.first in left and t.then in left]
    while True:  # what nothing waits for, or waits for nothing, is in no ring
        firsts, thens = {t.first for t in live}, {t.then for t in live}
        fewer = [t for t in live if t.first in thens and t.then in firsts]
        if len(fewer) == len(live):
            break
        live = fewer
    for t in live:
        path = _path(live, t.then, t.first)
        if path is not None:
            return [t, *path]
    return None


def _topological(steps: Sequence[WorkStep], ties: Sequence[Tie]) -> list[WorkStep]:
    after: dict[str, list[str]] = defaultdict(list)
    waits: dict[str, int] = defaultdict(int)
    for t in ties:
        after[t.first].append(t.then)
        waits[t.then] += 1
    turn = {s.key: (PHASE[s.kind], n) for n, s in enumerate(steps)}
    by_key = {s.key: s for s in steps}
    ready = [(turn[s.key], s.key) for s in steps if not waits[s.key]]
    heapq.heapify(ready)
    out = []
    while ready:
        _, key = heapq.heappop(ready)
        out.append(by_key[key])
        for then in after[key]:
            waits[then] -= 1
            if not waits[then]:
                heapq.heappush(ready, (turn[then], then))
    return out


def _walled_in(order: Sequence[WorkStep], needs: Sequence[Need], filled: Sequence[Fills]) -> Tie | None:
    """Walk an order with what stands: return the tie that is missing where several things together close a way."""
    asked: dict[str, list[Need]] = defaultdict(list)
    leaves: dict[str, list[Fills]] = defaultdict(list)
    for need in needs:
        asked[need.step].append(need)
    for f in filled:
        leaves[f.step].append(f)
    standing: list[Fills] = []
    for step in order:
        for need in asked[step.key]:
            stops = blocked(need, standing)
            if stops:
                last = max(stops, key=standing.index)
                return Tie(
                    first=step.key,
                    then=last.step,
                    kind="way in" if need.what.startswith("the way in") else "trap",
                    why=f"{last.name}, with what stands beside it, fills the room for {need.what}",
                    rests=False,
                )
        standing += leaves[step.key]
    return None


def before(ties: Iterable[Tie]) -> Mapping[str, tuple[Tie, ...]]:
    """Return the ties of each step to what comes before it."""
    found: dict[str, list[Tie]] = defaultdict(list)
    for t in ties:
        found[t.then].append(t)
    return {key: tuple(ties) for key, ties in found.items()}
