"""How long one question may take: whoever asks sets a limit, and long computations look at it as they go."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from time import monotonic

from wobble.core.errors import WobbleError


class TooMuch(WobbleError):
    """A question takes longer, or more memory, than one question may."""

    code = "too-much"


class GivenUp(WobbleError):
    """Whoever asked does not wait for the answer any more."""

    code = "given-up"


_look: ContextVar[Callable[[], None] | None] = ContextVar("look", default=None)


@contextmanager
def within(seconds: float, gone: Callable[[], bool] = lambda: False) -> Iterator[None]:
    """Limit what is computed inside to some seconds, and end it once nobody waits for it.

    Raises:
        TooMuch: It took longer, or more memory than there is.
        GivenUp: `gone` said that nobody waits.
    """
    ends = monotonic() + seconds

    def look() -> None:
        if monotonic() > ends:
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
