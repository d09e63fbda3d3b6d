"""The way in, against dense searches that know nothing of the formulas."""

from __future__ import annotations

import math
from collections import deque

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wobble.core.fit.access.passage import (
    clearance,
    corner,
    doorway,
    needed_to_stand,
    rectangle_in_rectangle,
    rectangle_round_corner,
    stair,
    tallest_to_stand,
)

SIDE = st.floats(50.0, 1500.0)


def fits_by_turning(p: float, q: float, width: float, height: float) -> float:
    """Return the slack of the best of many angles: a turned rectangle's bounding box inside another."""
    angles = np.linspace(0, math.pi / 2, 4001)
    wide = p * np.cos(angles) + q * np.sin(angles)
    high = p * np.sin(angles) + q * np.cos(angles)
    return float(np.minimum(width - wide, height - high).max())


@given(SIDE, SIDE, SIDE, SIDE)
@settings(max_examples=300)
def test_a_rectangle_lies_in_another_when_some_angle_says_so(p, q, width, height):
    slack = fits_by_turning(p, q, width, height)
    if abs(slack) > 0.5:
        assert rectangle_in_rectangle(p, q, width, height) == (slack > 0)


def gets_round(long: float, deep: float, first: float, second: float) -> bool:
    """Search all places and angles of a rectangle on a grid for a way from one corridor into the other.

    The first corridor runs up the y axis between x = 0 and `first`; the second leaves it to the right between y = 0 and
    `second`. A placement is free when the rectangle's corners, its outline and the inner corner are where they may be.
    """
    step, n_angles = 30.0, 37
    xs = np.arange(-long, first + 1.4 * long, step)
    ys = np.arange(-long, second + 1.4 * long, step)
    angles = np.linspace(0, math.pi, n_angles)
    across = np.array([(i, j) for i in np.linspace(-0.5, 0.5, 25) for j in (-0.5, 0.5)])
    ends = np.array([(i, j) for i in (-0.5, 0.5) for j in np.linspace(-0.5, 0.5, 7)])
    local = np.vstack([across, ends]) * np.array([long, deep])
    free = np.zeros((len(xs), len(ys), n_angles), dtype=bool)
    for k, angle in enumerate(angles):
        turn = np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])
        outline = local @ turn.T
        x = xs[:, None, None] + outline[None, None, :, 0]
        y = ys[None, :, None] + outline[None, None, :, 1]
        inside = (x >= 0) & (y >= 0) & ((x <= first) | (y <= second))
        to_corner = np.stack(np.meshgrid(first - xs, second - ys, indexing="ij"), axis=-1) @ turn
        covers = (np.abs(to_corner[..., 0]) < long / 2) & (np.abs(to_corner[..., 1]) < deep / 2)
        free[:, :, k] = inside.all(axis=2) & ~covers
    # from lengthways or sideways far up the first corridor to anywhere that is wholly in the second
    far = ys >= second + long / 2 + step
    queue = deque(map(tuple, np.argwhere(free & far[None, :, None])))
    seen = np.zeros_like(free)
    for place in queue:
        seen[place] = True
    goal = xs >= first + long / 2 + step
    while queue:
        i, j, k = queue.popleft()
        if goal[i]:
            return True
        for di, dj, dk in ((1, 0, 0), (-1, 0, 0), (0, 1, 0), (0, -1, 0), (0, 0, 1), (0, 0, -1)):
            a, b, c = i + di, j + dj, (k + dk) % (n_angles - 1)
            if 0 <= a < len(xs) and 0 <= b < len(ys) and free[a, b, c] and not seen[a, b, c]:
                seen[a, b, c] = True
                queue.append((a, b, c))
    return False


@pytest.mark.parametrize(
    ("deep", "first", "second"), [(300.0, 900.0, 900.0), (550.0, 1000.0, 860.0), (120.0, 700.0, 1100.0)]
)
def test_the_longest_box_round_a_corner_is_that_of_a_dense_search(deep, first, second):
    """The search moves on a grid of 30 mm and 5°, so it needs some slack; it finds no more than there is."""
    longest = max(long for long in range(300, 3000, 5) if rectangle_round_corner(long, deep, first, second))
    assert gets_round(longest - 190.0, deep - 40.0, first, second)
    assert not gets_round(longest + 60.0, deep, first, second)


def test_a_ladder_round_a_corner_is_the_known_one():
    """Without depth the longest is (a^(2/3) + b^(2/3))^(3/2)."""
    longest = max(long for long in range(300, 4000) if rectangle_round_corner(float(long), 0.0, 900.0, 1200.0))
    assert longest == pytest.approx((900 ** (2 / 3) + 1200 ** (2 / 3)) ** 1.5, abs=1.5)


@given(st.floats(600, 2400), st.floats(200, 800))
@settings(max_examples=60)
def test_standing_up_needs_the_highest_that_a_corner_gets(height, depth):
    angles = np.linspace(0, math.pi / 2, 20_001)
    highest = (height * np.sin(angles) + depth * np.cos(angles)).max()
    assert needed_to_stand((5000.0, depth, height)) == pytest.approx(highest, abs=0.01)
    assert tallest_to_stand((5000.0, depth, height), highest) == pytest.approx(height, abs=0.1)


def test_a_box_through_a_door_goes_with_its_best_side_ahead():
    wardrobe = (1200.0, 600.0, 2100.0)
    assert doorway(wardrobe, 800.0, 2000.0) == pytest.approx(200.0, abs=0.1)  # 600 × 1200 ahead of its 2100
    assert doorway(wardrobe, 590.0, 2000.0) == pytest.approx(-10.0, abs=0.1)
    assert doorway((1900.0, 1900.0, 1900.0), 800.0, 2000.0) < 0


def test_a_stair_takes_the_cosine_of_its_slope_off_the_headroom():
    box = (700.0, 600.0, 3000.0)
    square = 2000.0 * math.cos(math.radians(40.0))
    assert stair(box, 800.0, 2000.0, 40.0) == pytest.approx(min(square - 700.0, 200.0), abs=0.1)


def test_a_long_board_is_raised_to_get_round():
    """A board of 2600 lies too long for the corner of two metres; on end under 2400 it is 1005 long in plan."""
    board = (2600.0, 30.0, 300.0)
    assert not rectangle_round_corner(2600.0, 30.0, 900.0, 900.0)
    assert corner(board, 900.0, 900.0, 2400.0) > 0
    assert corner(board, 900.0, 900.0, 500.0) < 0


@given(st.floats(-500, 500))
def test_a_clearance_is_where_passing_ends(edge):
    assert clearance(lambda by: by <= edge) == pytest.approx(edge, abs=0.06)
