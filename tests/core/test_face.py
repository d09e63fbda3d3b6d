"""The public face: what its page shows is run as it stands, and says what the core says."""

from __future__ import annotations

import re
from pathlib import Path

import numpy as np
import pytest

from tests.catalogue import floor_at, grid, job_of
from wobble.core import errors, load, survey
from wobble.core.formats.document import write_job
from wobble.core.practice.gable import MISREAD_MM, gable_workroom

PAGE = Path(__file__).parents[2] / "docs" / "library.md"


def test_the_page_of_the_library_runs_as_it_stands(tmp_path, monkeypatch, capsys):
    """Every block of its code, one after the other; what it prints is checked against the demo's plain truths."""
    monkeypatch.chdir(tmp_path)
    Path("job.wobble.json").write_bytes(write_job(gable_workroom()))
    names: dict[str, object] = {}
    blocks = re.findall(r"```python\n(.*?)```", PAGE.read_text(), re.S)
    for block in blocks:
        exec(block, names)  # noqa: S102 - the page is ours
    said = capsys.readouterr().out
    assert len(blocks) >= 3
    misread = re.search(r"^gw-05 ([+-][0-9.]+) ± ([0-9.]+) a slip of one centimetre$", said, re.M)
    assert misread
    assert abs(float(misread[1]) - MISREAD_MM) < 2 * float(misread[2])
    assert re.search(r"^stop take-again ", said, re.M)
    assert re.search(r"^1 \w+ ", said, re.M)


def test_a_survey_at_spots_is_the_plain_truth():
    """A floor that rises by 2 in 1000: at 1500 it stands 3 over the mark, to within what is said."""
    job = job_of(*floor_at(grid(3000, 600, 7, 3), lambda x, y: 0.002 * x))
    found = survey(job, "place")
    mean, sd = found.at("floor", [(1500.0, 300.0), (250.0, 100.0)])
    assert mean == pytest.approx([3.0, 0.5], abs=0.1)
    assert (np.abs(mean - [3.0, 0.5]) <= 3 * sd + 1e-6).all()
    draws = found.draws("floor", [(1500.0, 300.0)], n=500, seed=3)
    assert draws.shape == (500, 1)
    assert draws.mean() == pytest.approx(mean[0], abs=4 * sd[0] / np.sqrt(500) + 1e-6)
    assert found.suspects == ()


def test_what_cannot_be_surveyed_is_said():
    with pytest.raises(errors.WobbleError, match="no place"):
        survey(job_of(), "elsewhere")
    with pytest.raises(errors.DocumentError):
        load(b"{")
