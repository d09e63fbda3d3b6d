"""The few questions of a starter, and their answers: usual values in the user's own units, whole or half inches."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal

from msgspec import Meta

from wobble.core.errors import WobbleError
from wobble.core.job import Value
from wobble.core.length import LengthUnit, format_length
from wobble.core.setout.starters.usual import pick


class StarterError(WobbleError):
    """An answer that a starter cannot be made from."""

    code = "starter"


class Question(Value, frozen=True, kw_only=True):
    """One question: its words, what kind of answer it wants, the usual one, and its limits.

    A length's usual value is in mm, and what is usual where people read inches; counts and choices are one.
    """

    id: str
    words: str
    kind: Literal["length", "count", "choice"] = "length"
    usual_mm: float = 0.0
    usual_in: float = 0.0
    least_mm: float = 1.0
    most_mm: float = 20_000.0
    usual: int = 1
    least: int = 1
    most: int = 12
    options: tuple[str, ...] = ()


Answer = Annotated[float, Meta(ge=0, le=100_000)] | Annotated[str, Meta(max_length=80)]


class Answers:
    """Answers to a starter's questions, the usual ones where nothing was said; lengths in mm.

    Raises:
        StarterError: An answer is of another kind, or outside its limits.
    """

    def __init__(self, questions: tuple[Question, ...], said: Mapping[str, float | str], lengths: LengthUnit) -> None:
        self.lengths: LengthUnit = lengths
        self._values: dict[str, float] = {}
        self._words: dict[str, str] = {}
        for q in questions:
            answer = said.get(q.id)
            match q.kind:
                case "choice":
                    word = q.options[0] if answer is None else str(answer)
                    if word not in q.options:
                        raise StarterError(
                            f"“{word}” is no answer to: {q.words}",
                            mend=f"Choose one of: {', '.join(q.options)}.",
                            path=f"$.answers.{q.id}",
                        )
                    self._words[q.id] = word
                case "length":
                    value = pick(lengths, q.usual_mm, q.usual_in) if answer is None else _number(q, answer)
                    _within(q, value, q.least_mm, q.most_mm, lengths)
                    self._values[q.id] = value
                case "count":
                    value = float(q.usual) if answer is None else _number(q, answer)
                    if value != int(value) or not q.least <= value <= q.most:
                        raise StarterError(
                            f"{value:g} is no answer to: {q.words}",
                            mend=f"A whole number from {q.least} to {q.most}.",
                            path=f"$.answers.{q.id}",
                        )
                    self._values[q.id] = value

    def mm(self, id_: str) -> float:
        """Return a length, mm."""
        return self._values[id_]

    def count(self, id_: str) -> int:
        """Return a count."""
        return int(self._values[id_])

    def word(self, id_: str) -> str:
        """Return a choice."""
        return self._words[id_]

    def usual(self, mm: float, inches: float) -> float:
        """Return a usual length, mm, in whole millimetres or whole and half inches."""
        return pick(self.lengths, mm, inches)


def _number(question: Question, answer: float | str) -> float:
    if isinstance(answer, str):
        raise StarterError(
            f"“{answer}” is no number.", mend=f"Give a number for: {question.words}", path=f"$.answers.{question.id}"
        )
    return float(answer)


def _within(question: Question, value: float, least: float, most: float, lengths: LengthUnit) -> None:
    if not least <= value <= most:
        low, high = (format_length(mm, lengths, decimals=0) for mm in (least, most))
        raise StarterError(
            f"{format_length(value, lengths)} is no answer to: {question.words}",
            mend=f"A length from {low} to {high}.",
            path=f"$.answers.{question.id}",
        )


def length(id_: str, words: str, mm: float, inches: float, least: float = 1.0, most: float = 20_000.0) -> Question:
    """Return a question for a length, with its usual answers in mm and in inches, and its limits in mm."""
    return Question(id=id_, words=words, usual_mm=mm, usual_in=inches, least_mm=least, most_mm=most)


def count(id_: str, words: str, usual: int, least: int = 1, most: int = 12) -> Question:
    """Return a question for a whole number."""
    return Question(id=id_, words=words, kind="count", usual=usual, least=least, most=most)


def choice(id_: str, words: str, *options: str) -> Question:
    """Return a question for one of several; the first is usual."""
    return Question(id=id_, words=words, kind="choice", options=options)
