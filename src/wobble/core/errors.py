"""Everything the core can refuse, as one tree.

WobbleError
├── LengthError       a length that cannot be read
├── DocumentError     a job document that cannot be taken, with the path of the fault
├── NotThere          something that there is not
└── SurveyError       a question that the readings cannot answer
"""

from __future__ import annotations


class WobbleError(Exception):
    """Base of all errors of the core.

    Attributes:
        code: Stable name of the kind of fault.
        message: What is wrong, in plain words.
        mend: What to do about it.
        path: Where in the job document, such as ``$.places[0].readings[3]``; empty when not from a document.
    """

    code = "wobble"

    def __init__(self, message: str, *, mend: str = "", path: str = "") -> None:
        super().__init__(" ".join(part for part in (f"{path}:" if path else "", message, mend) if part))
        self.message = message
        self.mend = mend
        self.path = path


class LengthError(WobbleError, ValueError):
    """A length that cannot be read."""

    code = "length"


class DocumentError(WobbleError, ValueError):
    """A job document that cannot be taken."""

    code = "document"


class NotThere(WobbleError, LookupError):
    """There is no such thing, or it is not the user's: the two are told alike."""

    code = "not-found"


class SurveyError(WobbleError, LookupError):
    """A question that the readings cannot answer."""

    code = "survey"
