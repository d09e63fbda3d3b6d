"""Lengths as tapes give them; the same cases are read by the front end's tests."""

from __future__ import annotations

import json
import re
from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wobble.core.confidence import _CHANCES, chance_words, risk_words
from wobble.core.errors import LengthError
from wobble.core.length import (
    down_to_mark,
    format_length,
    format_slope,
    format_spread,
    parse_length,
    to_fractional_inches,
    up_to_mark,
)

CASES = json.loads((Path(__file__).parent / "length_cases.json").read_text())
LENGTHS = st.floats(-50_000, 50_000, allow_nan=False)


@pytest.mark.parametrize(("text", "unit", "mm"), CASES["parse"])
def test_forms_that_people_write(text, unit, mm):
    assert parse_length(text, unit) == pytest.approx(mm, abs=1e-9)


@pytest.mark.parametrize("text", CASES["refuse"])
def test_what_is_no_length_is_refused_with_a_mend(text):
    with pytest.raises(LengthError) as fault:
        parse_length(text)
    assert fault.value.mend


@pytest.mark.parametrize(("mm", "denominator", "text", "remainder"), CASES["fraction"])
def test_nearest_fraction_and_what_it_leaves(mm, denominator, text, remainder):
    printed = to_fractional_inches(mm, denominator)
    assert printed.text == text
    assert printed.remainder_mm == pytest.approx(remainder, abs=1e-9)


@pytest.mark.parametrize(("mm", "text"), CASES["shown"])
def test_what_is_less_than_the_least_mark_is_not_said_to_be_nothing(mm, text):
    assert format_length(mm, "in") == text


@pytest.mark.parametrize(("mm_per_m", "unit", "spread", "text"), CASES["slope"])
def test_a_slope_is_told_over_a_metre_or_the_height_of_a_wall(mm_per_m, unit, spread, text):
    assert format_slope(mm_per_m, unit, spread) == text


@given(LENGTHS, st.sampled_from([16, 32]))
def test_printed_fraction_reads_back_within_half_a_tick(mm, denominator):
    printed = to_fractional_inches(mm, denominator)
    assert abs(parse_length(printed.text, "in") - mm) <= 25.4 / denominator / 2 + 1e-9
    assert parse_length(printed.text, "in") + printed.remainder_mm == pytest.approx(mm, abs=1e-6)
    fraction = re.search(r"(\d+)/(\d+)", printed.text)
    assert fraction is None or Fraction(fraction[0]).denominator == int(fraction[2]), "a fraction is in lowest terms"


@given(LENGTHS)
def test_millimetres_read_back(mm):
    assert parse_length(format_length(mm)) == pytest.approx(mm, abs=0.05 + 1e-9)


@given(st.floats(0, 100))
def test_a_spread_never_claims_too_much(sd):
    shown = float(format_spread(sd).split()[1])
    assert shown >= sd - 1e-8
    assert shown <= sd + 0.1


@given(st.floats(-100, 100), st.sampled_from([("mm", 0.5), ("in", 1.5875)]))
def test_a_mark_up_or_down_is_the_next_one_on_the_safe_side(mm, rule):
    unit, mark = rule
    for marked, off in ((up_to_mark(mm, unit), 1.0), (down_to_mark(mm, unit), -1.0)):
        assert -1e-6 <= off * (marked - mm) <= mark
        assert marked / mark == pytest.approx(round(marked / mark))


@given(st.floats(0, 1))
def test_chances_in_words_never_promise_more_nor_fear_less(share):
    said = {words: least for least, words in _CHANCES}
    assert said[chance_words(share)] <= share + 1e-6
    assert said.get(risk_words(share), 1.0) >= share - 1e-6


def test_chances_are_told_as_people_say_them():
    assert [chance_words(s) for s in (0.0, 0.21, 0.5, 0.94)] == [
        "next to no chance",
        "one chance in five",
        "an even chance",
        "nine chances in ten",
    ]
    assert [risk_words(s) for s in (0.21, 0.999)] == ["one chance in four", "every chance"]


def test_not_a_number_is_refused():
    with pytest.raises(LengthError):
        format_length(float("nan"))
