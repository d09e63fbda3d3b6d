"""The base of all values of a job, and the plain numbers and words that they are made of."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

import msgspec
from msgspec import Meta

Title = Annotated[str, Meta(min_length=1, max_length=200, pattern=r"\S")]
"""What something is called: never nothing."""
Name = Annotated[str, Meta(max_length=200)]
Key = Annotated[str, Meta(min_length=1, max_length=80, pattern=r"^[A-Za-z0-9][A-Za-z0-9._-]*$")]
Text = Annotated[str, Meta(max_length=4000)]
Positive = Annotated[float, Meta(ge=1e-3, le=100_000)]
"""A length that is there: a thousandth of a millimetre is less than any tool tells."""
NotNegative = Annotated[float, Meta(ge=0, le=100_000)]
Coordinate = Annotated[float, Meta(ge=-100_000, le=100_000)]
Count = Annotated[int, Meta(ge=0, le=100_000)]
Moment = Annotated[datetime, Meta(tz=True)]
"""A time with its zone: only such can be put in order."""


EARLIEST, LATEST = 1970, 2200


def check_year(at: datetime) -> None:
    """Check that a time can be reckoned with, in any zone.

    Raises:
        ValueError: Its year is out of reach; from a document that is told with its path.
    """
    if not EARLIEST <= at.year <= LATEST:
        raise ValueError(f"The year {at.year} is not between {EARLIEST} and {LATEST}")


class Value(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Base of all values of a job: frozen, compared by content, unknown keys refused; its hash is worked out once."""
