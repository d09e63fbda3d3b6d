"""What is told to the installer: one sentence with its severity and figure. Every stage tells in this form."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from msgspec.structs import force_setattr

from wobble.core.codes import SUBJECT_OF, Code, Subject
from wobble.core.figure import Figure
from wobble.core.job import Value

Severity = Literal["stop", "mind", "fine"]
ORDER: dict[Severity, int] = {"stop": 0, "mind": 1, "fine": 2}


class Finding(Value, frozen=True, kw_only=True):
    """One sentence to the installer.

    Attributes:
        code: Stable name of the rule. severity: stop, mind or fine.
        title: The finding in a few words. text: What it means and what to do.
        figure: The length that it is about, if any. caution: The safety word that belongs beside it, if any.
        about: Keys of what it is about: ids of units, facts, supports, fasteners, parts; names of sides and tiers.
            With the code they tell one finding from another. subject: What the code is about, in words.
    """

    code: Code
    severity: Severity
    title: str
    text: str
    figure: Figure | None = None
    caution: str = ""
    about: tuple[str, ...] = ()
    subject: Subject = "the readings"

    def __post_init__(self) -> None:
        """Say the subject: it follows from the code, and is sent with it."""
        force_setattr(self, "subject", SUBJECT_OF[self.code])


def in_order(found: Iterable[Finding]) -> tuple[Finding, ...]:
    """Return findings with stops first; within a severity they stay in their order."""
    return tuple(sorted(found, key=lambda finding: ORDER[finding.severity]))
