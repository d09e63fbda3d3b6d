"""Make: piles that follow what is cut and known, sheets walked through, the workshop; without a connection too."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect
from tools.browser import PHONE

from wobble.site.models import Fact

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]
PANES = ("Now and not yet", "Sheets", "Settings", "Buying", "Finish", "Workshop")


def pane(page: Page, name: str) -> None:
    page.get_by_role("group", name="Parts of making").get_by_role("button", name=name).click()


def facts(kind: str) -> list[dict[str, object]]:
    return [row.fact for row in Fact.objects.filter(kind=kind).order_by("pk")]


def test_a_part_is_cut_by_a_tick_and_slides_bring_drawers_to_the_pile_of_now(table):
    page = table.page
    table.goto(table.open_demo() + "/make")
    now = page.get_by_role("region", name="Now")
    expect(now.get_by_text("left side").first).to_be_visible()
    page.get_by_role("button", name="A1 is cut").click()
    expect(page.get_by_role("button", name="A1 is cut")).to_have_count(0)
    expect(page.get_by_text("Cut: 1")).to_be_visible()
    expect(page.get_by_text("kept")).to_be_visible()
    assert facts("cut")[0]["part"] == "side-A-left"
    assert facts("cut")[0]["size"] == [728.0, 560.0]
    later = page.get_by_role("region", name="Not yet")
    expect(later.get_by_text("sides of drawers 1, 2, 3, 4")).to_be_visible()
    later.get_by_role("button", name="That is so now").first.click()
    expect(now.get_by_text("sides of drawers 1, 2, 3, 4")).to_be_visible()
    expect(page.get_by_text("kept")).to_be_visible()
    assert [f["what"] for f in facts("known")] == ["slides-A-main"]


def test_a_part_cut_wrong_is_told_and_wanted_again(table):
    page = table.page
    table.goto(table.open_demo() + "/make")
    page.get_by_role("button", name="B3 bottom").click()
    page.get_by_role("button", name="Cut wrong").click()
    expect(page.get_by_text("B3, bottom of B Press: cut again")).to_be_visible()
    expect(page.get_by_role("button", name="B3 is cut")).to_be_visible()


def test_a_sheet_is_walked_through_and_its_parts_open(table):
    page = table.page
    table.goto(table.open_demo() + "/make")
    pane(page, "Sheets")
    page.get_by_role("button", name="Walk through").click()
    expect(page.get_by_text("Cut 1 of")).to_be_visible()
    page.get_by_role("button", name="Next cut").click()
    expect(page.get_by_text("Cut 2 of")).to_be_visible()
    drawing = page.get_by_role("group", name="Sheet 1:")
    drawing.get_by_role("button").first.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Cut", exact=True)).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Cut", exact=True)).to_have_count(0)


def test_in_the_workshop_without_a_connection_ticks_wait_and_are_sent_once(desks, line):
    phone = desks(PHONE, address=line.address)
    page = phone.page
    phone.goto(phone.open_demo() + "/make")
    expect(page.get_by_role("button", name="A1 is cut")).to_be_visible()
    line.cut()
    phone.watch.cut = True
    tick = page.get_by_role("button", name="A1 is cut")
    assert tick.bounding_box()["width"] >= 44
    tick.tap()
    expect(page.get_by_role("button", name="A1 is cut")).to_have_count(0)
    pane(page, "Buying")
    page.get_by_role("button", name="cup hinges (pair): bought").tap()
    expect(page.get_by_text("2 waiting")).to_be_visible()
    line.mend()
    page.evaluate("dispatchEvent(new Event('online'))")
    expect(page.get_by_text("kept")).to_be_visible()
    phone.watch.cut = False
    assert [f["part"] for f in facts("cut")] == ["side-A-left"]
    assert [(f["item"], f["count"]) for f in facts("bought")] == [("hinges", 10)]
