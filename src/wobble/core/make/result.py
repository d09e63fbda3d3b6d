"""The answer of Make: parts with their states, the layout, settings, what is bought, the finish, and what is told."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from wobble.core.facts import Bought, CutDone
from wobble.core.finding import Finding
from wobble.core.job import Job, Value
from wobble.core.make.buying import Buying, buying
from wobble.core.make.coats import Finished, finished
from wobble.core.make.findings import Bench, told
from wobble.core.make.got import Spared, spared
from wobble.core.make.layout.laid import Layout
from wobble.core.make.marked import MarkedPart
from wobble.core.make.settings import Setting, settings
from wobble.core.part import Fastener, Part


class Made(Value, frozen=True, kw_only=True):
    """Make for a whole job; `spared` are parts that are not made."""

    parts: tuple[MarkedPart, ...]
    layout: Layout
    settings: tuple[Setting, ...]
    buying: Buying
    finish: Finished
    findings: tuple[Finding, ...]
    spared: tuple[Spared, ...] = ()


def made(
    job: Job,
    parts: Sequence[MarkedPart],
    fasteners: Iterable[Fastener],
    layout: Layout,
    cuts: Sequence[tuple[str, CutDone]],
    bought: Iterable[Bought],
    no_room: Sequence[Part] = (),
) -> Made:
    """Return all that follows from parts and their layout.

    Args:
        job: Whose workshop counts.
        parts: Of all places, marked.
        fasteners: Of all places.
        layout: Of the parts that are still to be cut.
        cuts: What was cut, each with its place.
        bought: What was bought.
        no_room: Parts of which their unit leaves nothing.
    """
    at = settings(job, parts, layout)
    coats = finished(job, parts)
    return Made(
        parts=tuple(parts),
        layout=layout,
        settings=at,
        buying=buying(job, parts, fasteners, layout, coats, bought),
        finish=coats,
        spared=spared(job, parts, layout),
        findings=told(Bench(job, tuple(parts), layout, at, tuple(cuts), tuple(no_room))),
    )
