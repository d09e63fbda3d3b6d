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
Positive = Annotated[float, Meta(gt=0, le=100_000)]
NotNegative = Annotated[float, Meta(ge=0, le=100_000)]
Coordinate = Annotated[float, Meta(ge=-100_000, le=100_000)]
Count = Annotated[int, Meta(ge=0, le=100_000)]
Moment = Annotated[datetime, Meta(tz=True)]
"""A time with its zone: only such can be put in order."""


class Value(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Base of all values of a job: frozen, compared by content, unknown keys refused."""
