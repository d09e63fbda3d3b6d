"""The first hour, on the phone: a made-up corner from its first reading to the truth, and shims in few taps."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect
from tools.browser import PHONE

from tests.browser.test_hand import ROUND, in_reach

MOST = 40
"""Taps and keys that the first list of shims may take."""


def test_a_practice_goes_from_the_first_reading_to_the_truth(desks):
    """In inches, whose keys take more room."""
    desk = desks(PHONE)
    page = desk.page
    desk.open_demo()
    page.goto("/")
    page.get_by_role("button", name="In inches").tap()
    bar = page.get_by_role("complementary", name="Practice")
    for i in range(3):
        expect(bar).to_contain_text(f"{i} of 3")
        bar.get_by_role("button", name="Read it here").tap()
        expect(page.locator("[data-pad]")).not_to_have_value("")
        in_reach(page, ROUND)
        page.get_by_role("button", name="Record").tap()
    bar.get_by_role("button", name="Let him read").tap()
    expect(bar).to_contain_text("Take one again")
    expect(page.get_by_text("which disagrees")).to_be_visible()  # the round went there by itself
    assert desk.barriers() == []
    bar.get_by_role("button", name="Read it here").tap()
    expect(page.locator("[data-pad]")).not_to_have_value("")
    in_reach(page, ROUND)
    page.get_by_role("button", name="Record").tap()
    expect(bar).to_contain_text("See what goes under")
    bar.get_by_role("link", name="To Fit").tap()
    bar.get_by_role("button", name="Seen").tap()
    expect(bar).to_contain_text("The list to carry")
    bar.get_by_role("button", name="Seen").tap()
    bar.get_by_role("button", name="Show me").tap()
    truth = page.get_by_role("dialog")
    expect(truth.get_by_role("row", name=re.compile("^B Middle"))).to_be_visible()
    assert desk.barriers() == []
    truth.get_by_role("button", name="Close").tap()
    expect(bar).to_contain_text("That is the whole way")
    bar.get_by_role("button", name="Leave").tap()
    page.reload()
    expect(bar).to_contain_text("Go on with it")


class Thumb:
    """Taps and types on a page, and counts both."""

    def __init__(self, page: Page) -> None:
        self.page, self.n = page, 0

    def tap(self, role: str, name: str | re.Pattern[str], **more: bool) -> None:
        self.page.get_by_role(role, name=name, **more).first.tap()  # type: ignore[arg-type]
        self.n += 1

    def type(self, text: str) -> None:
        self.page.keyboard.type(text)
        self.n += len(text)


def test_a_starter_and_four_readings_give_a_list_of_shims_in_few_taps(desks):
    desk = desks(PHONE)
    page = desk.page
    desk.open_demo()
    page.goto("/")
    thumb = Thumb(page)
    thumb.tap("button", "Start a job")
    page.locator("#job-name").wait_for()
    thumb.type("Loft")
    thumb.tap("button", "Start", exact=True)
    thumb.tap("button", re.compile("cabinets"))
    thumb.tap("button", re.compile("^Set it out"))
    thumb.tap("link", re.compile("^Gauge"))
    thumb.tap("button", re.compile("^Set the"))
    thumb.tap("button", "It stands")
    for digits in ("998", "996", "993", "995"):
        for digit in digits:
            thumb.tap("button", digit, exact=True)
        thumb.tap("button", "Record")
    thumb.tap("link", re.compile("^Fit"))
    shims = page.get_by_role("table", name="Under the supports")
    expect(shims.get_by_role("row", name=re.compile("front right"))).to_have_count(4)
    assert thumb.n <= MOST
