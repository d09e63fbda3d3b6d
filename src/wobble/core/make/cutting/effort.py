"""How much is looked for a layout: counted in steps of the search, so that a list gets the same layout on any machine.

A clock of the work done stands behind it for lists that take longer than anybody waits: only then does a slow machine
find less, and never one that is only busy with something else.
"""

from __future__ import annotations

from time import thread_time

from wobble.core.budget import spend

STEPS_PER_S = 550_000
"""Steps that a plain machine makes in a second: a part looked at for a row is one."""

ONE_THING = 0.15
"""Share of what is left that a single thing may take."""


class Effort:
    """What is left of a search: steps, and the clock behind them."""

    def __init__(self, seconds: float, at_most_s: float) -> None:
        self._limit = max(seconds * STEPS_PER_S, 1.0)
        self._deadline = thread_time() + at_most_s
        self._done = 0

    def spend(self, steps: int) -> None:
        """Count steps that were made."""
        self._done += steps

    def affords(self, steps: int, share: float = ONE_THING) -> bool:
        """Whether a single thing of so many steps, that nothing stops once it is begun, is a share of what is left."""
        time_s = self._deadline - thread_time()
        return steps < share * min(self._limit - self._done, time_s * STEPS_PER_S)

    @property
    def share(self) -> float:
        """How much of it is spent, 0 to 1 and beyond."""
        return self._done / self._limit

    def more(self, share: float = 1.0) -> bool:
        """Whether to go on, up to a share of the whole.

        Raises:
            TooMuch: The question that this is a part of has taken all of its time.
            GivenUp: Nobody waits for its answer any more.
        """
        spend()
        return self._done < share * self._limit and thread_time() < self._deadline
