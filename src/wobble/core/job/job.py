"""The whole job: the value behind the job document, the API and the database."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.job.decided import Passage
from wobble.core.job.insides import Construction
from wobble.core.job.instrument import Instrument, ShimKit
from wobble.core.job.place import Place
from wobble.core.job.sessions import Sessions
from wobble.core.job.workshop import Workshop
from wobble.core.length import LengthUnit
from wobble.core.value import Name, Text, Value


class Job(Value, frozen=True, kw_only=True):
    """A whole job: the value behind the job document, the API and the database."""

    format: Literal["wobble-job"] = "wobble-job"
    version: Literal[2] = 2
    name: Name
    address: Name = ""
    note: Text = ""
    units: LengthUnit = "mm"
    instruments: Annotated[tuple[Instrument, ...], Meta(max_length=100)] = ()
    kit: ShimKit = ShimKit()
    constructions: Annotated[tuple[Construction, ...], Meta(max_length=20)] = ()
    places: Annotated[tuple[Place, ...], Meta(max_length=50)] = ()
    way_in: Annotated[tuple[Passage, ...], Meta(max_length=20)] = ()
    workshop: Workshop = Workshop()
    sessions: Sessions = Sessions()
