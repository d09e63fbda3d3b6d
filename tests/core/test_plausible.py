"""Jobs of all sorts, as people might describe them, are answered: no traceback, no NaN, no negative size, in time."""

from __future__ import annotations

import pytest

from tests.core.plausible import check_answers, plausible_job


@pytest.mark.parametrize("seed", range(7000, 7040))
def test_a_made_up_job_is_answered(seed):
    check_answers(plausible_job(seed))
