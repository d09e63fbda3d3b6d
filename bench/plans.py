"""How far plans of steps end past the bound, on made-up jobs, each walked by a checker of its own."""

from __future__ import annotations

from dataclasses import dataclass

from tests.order.walker import NOW, faults, late_by, made_up

from wobble.core.stages import solve_order


@dataclass(frozen=True)
class Plans:
    """So many plans, their faults, and how far each ends past its bound, as a share of the time to that."""

    n: int
    faults: int
    late: tuple[float, ...]


def plans(n: int) -> Plans:
    """Plan and walk so many made-up jobs."""
    late, wrong = [], 0
    for seed in range(n):
        job = made_up(seed)
        planned = solve_order(job, NOW)
        wrong += len(faults(job, planned))
        if (share := late_by(planned)) is not None:
            late.append(share)
    return Plans(n, wrong, tuple(late))
