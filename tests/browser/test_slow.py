"""A line that is slow, or lost while a page comes: nobody looks at an empty page without being told why."""

from __future__ import annotations

import pytest
from playwright.sync_api import Route, expect

from tests.browser.conftest import FOLLOW

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]


def test_what_is_slow_is_told_and_what_does_not_come_is_offered_again(phone):
    page = phone.page
    at = phone.open_demo() + "/north"
    phone.goto("/words")
    phone.watch.cut = True
    held: list[Route] = []
    page.route("**/api/**", lambda route: held.append(route))
    page.evaluate(FOLLOW, at + "/fit")
    expect(page.get_by_text("Fetching what stands here…")).to_be_visible()
    expect(page.get_by_role("progressbar")).to_be_visible()
    assert phone.barriers() == []
    for route in held:
        route.abort()
    expect(page.get_by_text("What stands here could not be fetched")).to_be_visible()
    expect(page.get_by_role("progressbar")).to_have_count(0)
    page.unroute_all()
    page.get_by_role("button", name="Try again").tap()
    expect(page.get_by_role("table", name="Under the supports")).to_be_visible()


def test_a_page_whose_code_is_gone_says_so(table):
    """As after the server was given a newer Wobble, whose files have other names."""
    page = table.page
    workroom = table.open_home()
    page.route("**/assets/Make-*.js", lambda route: route.fulfill(status=404))
    table.watch.expected.add(404)
    with page.expect_event("load"):  # once it is fetched anew by itself
        page.evaluate(FOLLOW, workroom + "/make")
    expect(page.get_by_role("heading", name="This page could not be fetched")).to_be_visible()
    page.unroute_all()
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("button", name="A1 is cut")).to_be_visible()
