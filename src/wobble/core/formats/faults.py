"""How a document's faults are told: what is wrong, where, with the limits, the unit and the options, and the mend."""

from __future__ import annotations

import json
import math
import re
from collections import Counter
from collections.abc import Iterator
from typing import Any

import msgspec
from msgspec import inspect

from wobble.core.errors import DocumentError

_PATH = re.compile(r"^(?P<message>.*?)(?: - at `(?P<path>[^`]*)`)?$", re.DOTALL)
_STEP = re.compile(r"\.([^.\[\]]+)|\[(\d+)\]")
_MENDS = (
    ("unknown field", "Take the key out, or check its spelling against the schema."),
    ("missing required field", "Add it."),
    ("Invalid enum value", "Use one of those."),
    ("Invalid value", "Use one of those."),
    ("`str` of length >= 1", "Give it a name."),
    ("matching regex", "Use letters, digits, dots, dashes and underscores, beginning with a letter or digit."),
    ("<=", "Give a smaller one."),
    (">=", "Give a larger one."),
    ("< ", "Give a smaller one."),
    ("> ", "Give a larger one."),
    ("", "Give a value of the kind that is expected."),
)
UNITS = {"mm": "mm", "kg": "kg", "deg": "degrees", "n": "N", "percent": "%", "g": "times its weight"}
"""What the last part of a field's name says of its unit."""
TWICE = "\0twice"


def refused(fault: msgspec.ValidationError, kind: Any, plain: Any) -> DocumentError:
    """Return a fault of the schema with its path, its limits, its unit, its options and its mend.

    Args:
        fault: What msgspec found.
        kind: The type that was expected of the whole.
        plain: The whole as plain data, to see which of several kinds a part is of.
    """
    match = _PATH.match(str(fault))
    message, path = (match["message"], match["path"] or "$") if match else (str(fault), "$")
    expected = _at(inspect.type_info(kind), plain, path)
    told = [f"{message}."]
    options = _options(expected)
    if options and "nvalid" in message:
        told.append(f"It may be one of: {', '.join(options)}.")
    limits = _limits(expected, path)
    if limits and "xpected" in message and ("float" in message or "int" in message):
        told.append(limits)
    mend = next(mend for start, mend in _MENDS if start in message)
    return DocumentError(" ".join(told), mend=mend, path=path)


def _at(kind: inspect.Type, plain: Any, path: str) -> inspect.Type | None:
    """Return the type that is expected at a path; None where the path leaves what is known."""
    found: inspect.Type | None = kind
    for key, index in _STEP.findall(path):
        found = _struct(found, plain)
        tagged = (
            [k for k in found.types if isinstance(k, inspect.StructType)]
            if isinstance(found, inspect.UnionType)
            else []
        )
        if key and any(k.tag_field == key for k in tagged):
            return found  # the word that says which of several kinds it is: its options are their tags
        if key and isinstance(found, inspect.StructType):
            found = next((f.type for f in found.fields if f.encode_name == key), None)
            plain = plain.get(key) if isinstance(plain, dict) else None
        elif index and isinstance(found, inspect.VarTupleType | inspect.ListType):
            found = found.item_type
            plain = plain[int(index)] if isinstance(plain, list) and int(index) < len(plain) else None
        elif index and isinstance(found, inspect.TupleType) and int(index) < len(found.item_types):
            found = found.item_types[int(index)]
            plain = plain[int(index)] if isinstance(plain, list) and int(index) < len(plain) else None
        else:
            return None
    return _struct(found, plain)


def _struct(kind: inspect.Type | None, plain: Any) -> inspect.Type | None:
    """Return of several kinds the one that the data is of, by its tag; of an optional one the one that is meant."""
    while isinstance(kind, inspect.UnionType):
        choices = [t for t in kind.types if not isinstance(t, inspect.NoneType)]
        tagged = [
            t
            for t in choices
            if isinstance(t, inspect.StructType) and isinstance(plain, dict) and plain.get(t.tag_field or "") == t.tag
        ]
        if len(choices) != 1 and not tagged:
            return kind
        kind = tagged[0] if tagged else choices[0]
    return kind


def _options(kind: inspect.Type | None) -> list[str]:
    """Return what may stand there, where that is a list of words."""
    if isinstance(kind, inspect.LiteralType):
        return [str(value) for value in kind.values]
    if isinstance(kind, inspect.StructType) and kind.tag is not None:
        return [str(kind.tag)]
    if isinstance(kind, inspect.UnionType):
        return [word for choice in kind.types for word in _options(choice)]
    return []


def _limits(kind: inspect.Type | None, path: str) -> str:
    """Return the least and the most of a number in words, with its unit."""
    if not isinstance(kind, inspect.FloatType | inspect.IntType):
        return ""
    low = kind.ge if kind.ge is not None else kind.gt
    high = kind.le if kind.le is not None else kind.lt
    name = re.sub(r"\[\d+\]$", "", path).rsplit(".", 1)[-1]
    unit = UNITS.get(name.rsplit("_", 1)[-1], "") if "_" in name else ""
    tail = f" {unit}" if unit else ""
    if low is not None and high is not None:
        return f"From {'above ' if kind.ge is None else ''}{low:g} to {high:g}{tail}."
    if low is not None:
        return f"{'Above' if kind.ge is None else 'At least'} {low:g}{tail}."
    return f"In {unit}." if unit else ""


def plain_json(data: bytes) -> Any:
    """Return JSON as plain data.

    Raises:
        DocumentError: It is no JSON text, a number in it is none, or a key stands twice in one object.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as fault:
        raise DocumentError(
            f"This is not text in UTF-8: byte {fault.start} cannot be read.",
            mend="Save the file as UTF-8, or choose a job document exported from Wobble.",
            path="$",
        ) from None
    try:
        plain = json.loads(text, object_pairs_hook=_told_twice)
    except json.JSONDecodeError as where:
        raise DocumentError(
            f"This is not JSON: {where.msg.lower()} at line {where.lineno}, column {where.colno}.",
            mend="Check the file there, or export it again.",
            path="$",
        ) from None
    except (RecursionError, ValueError):
        raise DocumentError(
            "This is not JSON that can be read: it is nested too deep, or a number in it is too long.",
            mend="Export it again.",
            path="$",
        ) from None
    for path, value in _odd(plain, "$"):
        if isinstance(value, float):
            mend = "Give a finite number, or take the entry out."
            raise DocumentError(f"{value} is not a length.", mend=mend, path=path)
        raise DocumentError(
            f"The key “{value}” stands twice in one object.", mend="Keep one of the two.", path=f"{path}.{value}"
        )
    return plain


def _told_twice(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    made = dict(pairs)
    if len(made) < len(pairs):
        keys = [key for key, _ in pairs]
        made[TWICE] = next(key for key in keys if keys.count(key) > 1)
    return made


def _odd(value: Any, path: str) -> Iterator[tuple[str, float | str]]:
    """Yield numbers that are none and keys that stand twice, each with its path."""
    if isinstance(value, float) and not math.isfinite(value):
        yield path, value
    elif isinstance(value, dict):
        if TWICE in value:
            yield path, value[TWICE]
        for key, inner in value.items():
            if key != TWICE:
                yield from _odd(inner, f"{path}.{key}")
    elif isinstance(value, list):
        for i, inner in enumerate(value):
            yield from _odd(inner, f"{path}[{i}]")


def check_unique(path: str, ids: list[str], what: str) -> None:
    """Check that ids are there once each.

    Raises:
        DocumentError: With the path of the last of those that are there twice.
    """
    for id_, n in Counter(ids).items():
        if n > 1:
            last = len(ids) - 1 - ids[::-1].index(id_)
            raise DocumentError(
                f"There are {n} of {what} “{id_}”.", mend="Give each its own id.", path=f"{path}[{last}]"
            )
