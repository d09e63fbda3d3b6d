"""Rods at full size: what stands on them is where Fit and Hold have it, and a millimetre on paper is one."""

from __future__ import annotations

import re

import pytest
from msgspec.structs import replace

from wobble.core.formats.paper.cutting import OVERLAP_MM
from wobble.core.formats.paper.rods import STRIP_MM, TOP_MM, rod_tiles
from wobble.core.job import FixedTop, Job
from wobble.core.practice.drying_loft import drying_loft
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.signal_cabin import signal_cabin
from wobble.core.stages import solve_fit, solve_rods


def test_what_stands_on_the_rods_is_where_it_stands_in_the_place():
    job = gable_workroom()
    long, upright = solve_rods(job, "north")
    fit = solve_fit(job, "north")
    assert fit.plan is not None
    base = fit.plan.base.height.value_mm
    press = next(u for u in fit.units if u.id == "B")
    named = {name: m.at_mm for m in (*long.marks, *upright.marks) for name in m.names}
    assert named[f"{press.name}, left"] == pytest.approx(press.x_mm, abs=0.5)
    assert named[f"{press.name}, right"] == pytest.approx(press.x_mm + press.width_mm, abs=0.5)
    assert named[f"{press.name}, top"] == pytest.approx(base + press.height_mm, abs=0.5)
    assert named["Outlet, left"] == 1835.0
    assert named["Outlet, top"] == 255.0 + 86.0
    assert (long.long_mm, long.from_mm) == (3240.0, 0.0)


@pytest.mark.parametrize("make", [gable_workroom, drying_loft, signal_cabin])
@pytest.mark.parametrize("units", ["mm", "in"])
def test_every_mark_is_drawn_at_its_own_millimetre_on_some_strip(make, units):
    """Strips follow each other by their length less the lap: paper is read off as a person with a rule would."""
    job: Job = replace(make(), units=units)
    place = job.places[0]
    for rod in solve_rods(job, place.id):
        svgs = "".join(t.svg for t in rod_tiles(rod, place.name, units))
        strips = re.split(r"<rect ", svgs)[1:]
        read: set[float] = set()
        for i, strip in enumerate(strips):
            height = float(re.search(r'height="([\d.]+)"', strip)[1])  # type: ignore[index]
            assert height <= STRIP_MM + 1e-6
            start = rod.from_mm + i * (STRIP_MM - OVERLAP_MM)
            marks = re.findall(r'class="mark" d="M[\d.]+,([\d.]+)h', strip)
            read |= {round(start + TOP_MM + STRIP_MM - float(y), 2) for y in marks}
        assert sorted(read) == pytest.approx(sorted(m.at_mm for m in rod.marks), abs=0.02)


def test_a_base_below_the_mark_begins_the_rod_below_it():
    job = gable_workroom()
    place = replace(job.places[0], datum=FixedTop(top_mm=700.0))
    _, upright = solve_rods(replace(job, places=(place,)), "north")
    assert upright.from_mm < 0.0
    assert upright.marks[0].at_mm == upright.from_mm
