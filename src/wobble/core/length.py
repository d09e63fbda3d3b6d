"""Lengths as people write them: millimetres, and inches as decimals or fractions.

Everything inside the core is millimetres; this module is the only place that knows inches.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from wobble.core.errors import LengthError

MM_PER_INCH = 25.4
EIGHT_FEET_M = 96 * MM_PER_INCH / 1000
SLIGHT_MM = 0.05
"""What is less than this is nothing on any rule."""
LengthUnit = Literal["mm", "in"]

_METRIC = {"mm": Fraction(1), "cm": Fraction(10), "m": Fraction(1000)}
_INCH = Fraction(254, 10)
_NUMBER = r"(?:\d+(?:[.,]\d+)?|[.,]\d+)"
_METRIC_FORM = re.compile(rf"({_NUMBER})\s*(mm|cm|m)")
_FEET_FORM = re.compile(rf"({_NUMBER})\s*(?:'|ft|feet|foot)\s*-?\s*(.*)")
_INCH_MARK = re.compile(r'\s*(?:"|\'\'|in|inch|inches)$')
_MIXED_FORM = re.compile(r"(?:(\d+)(?:\s+|\s*-\s*))?(\d+)\s*/\s*(\d+)")
_DECIMAL_FORM = re.compile(_NUMBER)
_TYPOGRAPHIC = str.maketrans({"′": "'", "’": "'", "″": '"', "”": '"', "“": '"', "−": "-", "–": "-", "⁄": "/"})
_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}
_MEND = 'Write it like 337, 33.7 cm, 13 1/4" or 5\' 3 1/2".'


def parse_length(text: str, unit: LengthUnit = "mm") -> float:
    """Read a length and return it in millimetres.

    Args:
        text: What was typed. Signs, decimals with point or comma, fractions, and the units mm, cm, m, ', " are known.
        unit: The unit of a bare number. A fraction without a unit is always inches, as no metric tape has one.

    Returns:
        The length, mm.

    Raises:
        LengthError: The text is empty, is no length, or has a denominator of zero.

    Examples:
        >>> parse_length("13 1/4", "in"), parse_length("-3"), parse_length("62 cm")
        (336.55, -3.0, 620.0)
    """
    cleaned = text.translate(_TYPOGRAPHIC)
    for sign, fraction in _VULGAR.items():
        cleaned = cleaned.replace(sign, f" {fraction}")
    cleaned = " ".join(cleaned.lower().split())
    negative = cleaned.startswith("-")
    body = cleaned.lstrip("+-").strip() if cleaned[:1] in "+-" and not cleaned.startswith(("--", "++")) else cleaned
    if not body:
        raise LengthError("There is no number here.", mend=_MEND)
    value = _metric(body)
    if value is None:
        value = _feet_and_inches(body, unit)
    if value is None:
        raise LengthError(f"“{text}” is not a length.", mend=_MEND)
    return float(-value if negative else value)


def _metric(body: str) -> Fraction | None:
    match = _METRIC_FORM.fullmatch(body)
    return _decimal(match[1]) * _METRIC[match[2]] if match else None


def _feet_and_inches(body: str, unit: LengthUnit) -> Fraction | None:
    feet = Fraction(0)
    has_feet = _FEET_FORM.fullmatch(body) if "''" not in body else None
    if has_feet:
        feet, body = _decimal(has_feet[1]) * 12 * _INCH, has_feet[2].strip()
        if not body:
            return feet
    marked = _INCH_MARK.search(body)
    inches = _INCH_MARK.sub("", body).strip()
    mixed = _MIXED_FORM.fullmatch(inches)
    if mixed:
        if int(mixed[3]) == 0:
            raise LengthError("A fraction cannot have 0 below the line.", mend=_MEND)
        return feet + (int(mixed[1] or 0) + Fraction(int(mixed[2]), int(mixed[3]))) * _INCH
    if not _DECIMAL_FORM.fullmatch(inches):
        return None
    in_inches = bool(marked) or bool(has_feet) or unit == "in"
    return feet + _decimal(inches) * (_INCH if in_inches else 1)


def _decimal(text: str) -> Fraction:
    return Fraction(text.replace(",", ".") if not text.startswith((",", ".")) else "0." + text[1:])


@dataclass(frozen=True, slots=True)
class FractionalInches:
    """A length to the nearest fraction of an inch, with what the rounding left over.

    Attributes:
        text: Such as ``13 1/4"``.
        remainder_mm: True length less the printed one, mm.
    """

    text: str
    remainder_mm: float


def to_fractional_inches(value_mm: float, denominator: Literal[16, 32] = 16) -> FractionalInches:
    """Return a length to the nearest 1/16 or 1/32 inch; halves round away from zero.

    Raises:
        LengthError: The value is not finite.
    """
    _require_finite(value_mm)
    ticks = math.floor(abs(value_mm) / MM_PER_INCH * denominator + 0.5)
    whole, rest = divmod(ticks, denominator)
    parts = [str(whole)] if whole or not rest else []
    if rest:
        parts.append(str(Fraction(rest, denominator)))
    sign = -1 if value_mm < 0 else 1
    text = ("-" if sign < 0 and ticks else "") + " ".join(parts) + '"'
    return FractionalInches(text, value_mm - sign * ticks * MM_PER_INCH / denominator)


def format_length(value_mm: float, unit: LengthUnit = "mm", *, decimals: int = 1) -> str:
    """Return a length for display with its unit; inches to the nearest 1/32, and what is too little for that as such.

    Raises:
        LengthError: The value is not finite.
    """
    _require_finite(value_mm)
    if unit == "in":
        slight = SLIGHT_MM <= abs(value_mm) < MM_PER_INCH / 64
        return '<1/64"' if slight else to_fractional_inches(value_mm, 32).text
    return f"{value_mm + 0.0:.{decimals}f} mm".replace("-0.0 mm", "0.0 mm")


def spoken(value_mm: float, unit: LengthUnit = "mm") -> str:
    """Return a length for a sentence: whole millimetres without a decimal."""
    return format_length(value_mm, unit, decimals=0 if abs(value_mm - round(value_mm)) < 0.05 else 1)


FINE_MARK_MM: dict[LengthUnit, float] = {"mm": 0.5, "in": MM_PER_INCH / 16}


def up_to_mark(value_mm: float, unit: LengthUnit = "mm") -> float:
    """Return the next mark of a rule at or over a length, mm: half millimetres, or sixteenths of an inch."""
    return math.ceil(value_mm / FINE_MARK_MM[unit] - 1e-9) * FINE_MARK_MM[unit]


def down_to_mark(value_mm: float, unit: LengthUnit = "mm") -> float:
    """Return the last mark of a rule at or under a length, mm, for what must not be larger."""
    return math.floor(value_mm / FINE_MARK_MM[unit] + 1e-9) * FINE_MARK_MM[unit]


def format_spread(sd_mm: float, unit: LengthUnit = "mm") -> str:
    """Return an uncertainty for display, rounded up so that it never claims too much."""
    _require_finite(sd_mm)
    if unit == "in":
        return f'± {math.ceil(sd_mm / MM_PER_INCH * 100) / 100:.2f}"'
    return f"± {math.ceil(sd_mm * 10 - 1e-9) / 10:.1f} mm"


def format_slope(mm_per_m: float, unit: LengthUnit = "mm", spread: float | None = None) -> str:
    """Return how much something leans for display: mm over a metre, or inches over the height of a wall, 8 feet.

    Args:
        mm_per_m: The slope; its size is told, not its sign.
        unit: As the rule reads.
        spread: Its uncertainty, mm per m, told beside it and rounded up.
    """
    _require_finite(mm_per_m)
    if unit == "in":
        known = "" if spread is None else f" {format_spread(spread * EIGHT_FEET_M, unit)}"
        return f"{format_length(abs(mm_per_m) * EIGHT_FEET_M, unit)}{known} in 8 ft"
    known = "" if spread is None else f" {format_spread(spread).removesuffix(' mm')}"
    return f"{abs(mm_per_m):.1f}{known} mm per m"


def _require_finite(value_mm: float) -> None:
    if not math.isfinite(value_mm):
        raise LengthError("A length must be a finite number.")
