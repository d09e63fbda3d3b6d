"""How long one question may take: whoever asks sets a limit, and long computations look at it as they go."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from time import monotonic, thread_time

from wobble.core.errors import WobbleError

PATIENCE = 3.0
"""How much longer than its limit a question may take by the clock, where others have the machine beside it."""


class TooMuch(WobbleError):
    """A question takes longer, or more memory, than one question may."""

    code = "too-much"


class GivenUp(WobbleError):
    """Whoever asked does not wait for the answer any more."""

    code = "given-up"


_look: ContextVar[Callable[[], None] | None] = ContextVar("look", default=None)


@contextmanager
def within(seconds: float, gone: Callable[[], bool] = lambda: False) -> Iterator[None]:
    """Limit what is computed inside to some seconds of work, and end it once nobody waits for it.

    Work is what this thread has of the processor: a question is not refused because others keep the machine busy.

    Raises:
        TooMuch: It took longer, or more memory than there is.
        GivenUp: `gone` said that nobody waits.
    """
    worked, ends = thread_time() + seconds, monotonic() + PATIENCE * seconds

    def look() -> None:
        if thread_time() > worked or monotonic() > ends:
            raise TooMuch(
                f"This takes more than {seconds:.0f} s to work out.",
                mend="Look for a size or a count with a digit too many; else set some readings or units aside.",
            )
        if gone():
            raise GivenUp("Nobody waits for this any more.")

    token = _look.set(look)
    try:
        yield
    except MemoryError as fault:
        raise TooMuch(
            "This takes more memory than one question may.",
            mend="Look for a size or a count with a digit too many; else set some readings or units aside.",
        ) from fault
    finally:
        _look.reset(token)


def spend() -> None:
    """Look at the limit, if there is one: between the steps of a long computation."""
    look = _look.get()
    if look is not None:
        look()
