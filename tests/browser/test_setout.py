"""Set out as people do it: begun from a few answers, moved on the rods, opened; by mouse, by keys and by thumb."""

from __future__ import annotations

import re
import time
from dataclasses import dataclass
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.keys import tab_to
from wobble.site.models import Place

pytestmark = pytest.mark.browser
KINDS = {
    "A run of cabinets": (("How wide is the place?, mm", "2620"), "4", {"base", "drawers", "top"}),
    "A bench or window seat": (("How wide is the place?, mm", "1900"), None, {"bench", "top", "cushion"}),
    "A tall cupboard or lockers": (("How wide is the place?, mm", "1500"), None, {"tall"}),
}


@dataclass
class Hand:
    """What a hand does on a page, counted."""

    page: Page
    actions: int = 0

    def touch(self, what: Locator) -> None:
        self.actions += 1
        what.click()

    def write(self, what: Locator, text: str) -> None:
        self.actions += 1
        what.fill(text)


def begun(page: Page, kinds: set[str]) -> dict[str, Any]:
    """Wait for the drawing and return what is stored."""
    expect(page.get_by_role("group", name=re.compile(", set out$"))).to_be_visible()
    place = Place.objects.latest("pk")
    assert {u["kind"] for u in place.decided["units"]} == kinds
    decided: dict[str, Any] = place.decided
    return decided


def test_from_sign_in_to_a_whole_set_out_in_twelve_actions_at_most(table):
    page = table.page
    page.goto("/")
    page.get_by_role("button", name="Open the demo").click()
    for starter, ((question, answer), _, kinds) in KINDS.items():
        hand = Hand(page, actions=1)
        hand.touch(page.get_by_role("button", name="Start a job"))
        hand.write(page.get_by_label("What are you fitting out?"), "Mill office")
        hand.touch(page.get_by_role("button", name="Start", exact=True))
        hand.touch(page.get_by_role("button", name=starter))
        hand.write(page.get_by_label(question), answer)
        hand.touch(page.get_by_role("button", name="Set it out"))
        decided = begun(page, kinds)
        assert decided["width_mm"] == float(answer)
        assert all(u["insides"] for u in decided["units"] if u["kind"] in ("base", "drawers", "tall", "bench"))
        assert hand.actions <= 12
        table.goto("/")


def test_the_same_by_keyboard_alone(table):
    page = table.page
    page.goto("/")
    tab_to(page, page.get_by_role("button", name="Open the demo"))
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Jobs").wait_for()
    page.keyboard.press("n")
    tab_to(page, page.get_by_label("What are you fitting out?"))
    page.keyboard.type("Mill office")
    tab_to(page, page.get_by_role("button", name="Start", exact=True))
    page.keyboard.press("Enter")
    tab_to(page, page.get_by_role("button", name="A run of cabinets"))
    page.keyboard.press("Enter")
    tab_to(page, page.get_by_role("button", name="Set it out"))
    page.keyboard.press("Enter")
    begun(page, {"base", "drawers", "top"})
    tick = page.get_by_role("slider", name=re.compile("^right edge of B Cabinet"))
    tab_to(page, tick)
    expect(tick).to_have_attribute("aria-valuenow", "1200")
    page.keyboard.press("ArrowRight")
    expect(tick).to_have_attribute("aria-valuenow", "1201")
    page.keyboard.press("Shift+ArrowRight")
    expect(tick).to_have_attribute("aria-valuenow", "1211")
    page.keyboard.press("Enter")
    page.get_by_label("Edge at").wait_for()
    page.keyboard.type("1250")
    page.keyboard.press("Enter")
    expect(tick).to_have_attribute("aria-valuenow", "1250")
    page.keyboard.press("Escape")
    page.keyboard.press("n")  # the next piece
    expect(page.get_by_label("Name", exact=True)).to_be_visible()
    page.keyboard.press("m")
    expect(page.get_by_text("seen in a mirror")).to_be_visible()
    for _ in range(2):
        page.keyboard.press("u")
    expect(tick).to_have_attribute("aria-valuenow", "1211")
    page.keyboard.press("r")
    expect(tick).to_have_attribute("aria-valuenow", "1250")


def test_the_same_by_thumb(phone):
    page = phone.page
    phone.open_home()
    page.get_by_role("button", name="Start a job").tap()
    page.get_by_label("What are you fitting out?").fill("Mill office")
    page.get_by_role("button", name="Start", exact=True).tap()
    found: list[str] = []
    for starter, (_, _, kinds) in KINDS.items():
        page.get_by_role("button", name=starter).tap()
        page.get_by_role("button", name="Set it out").tap()
        begun(page, kinds)
        found += [f"{starter}: {fault}" for fault in phone.barriers()]
        job = page.url.split("/jobs/")[1].split("/")[0]
        if starter != list(KINDS)[-1]:
            phone.goto(f"/jobs/{job}/new")
    for name in ("Piece", "Heights", "Rules", "Room", "Says"):
        page.get_by_role("button", name=re.compile(f"^{name}")).first.tap()
        page.wait_for_timeout(200)
        found += [f"{name}: {fault}" for fault in phone.barriers()]
    assert found == []


def stored_after(key: str, changed) -> dict[str, Any]:
    """Wait until what is stored of a place is as it should be."""
    for _ in range(100):
        decided: dict[str, Any] = Place.objects.get(key=key).decided
        if changed(decided):
            return decided
        time.sleep(0.1)
    raise AssertionError(decided)


def test_an_edge_is_held_moved_brought_to_another_and_taken_back(table):
    page = table.page
    table.goto(table.open_demo() + "/north/setout")
    tick = page.get_by_role("slider", name=re.compile("^right edge of A Drawers"))
    box = tick.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + 12
    page.mouse.move(x, y)
    page.mouse.down()
    for k in range(1, 9):
        page.mouse.move(x + 5 * k, y)
        page.wait_for_timeout(40)
    page.mouse.up()
    # it was brought to 960 or so, B begins where A ends, and C stays at 1610
    decided = stored_after("north", lambda d: d["units"][0]["width_mm"] > 700)
    drawers, press, bench = decided["units"][:3]
    assert press["x_mm"] == pytest.approx(drawers["x_mm"] + drawers["width_mm"], abs=0.01)
    assert press["x_mm"] + press["width_mm"] == pytest.approx(1610.0, abs=0.01)
    assert bench["x_mm"] == pytest.approx(1610.0, abs=0.01)
    page.get_by_role("button", name="Undo").click()
    decided = stored_after("north", lambda d: d["units"][0]["width_mm"] == 700)
    page.get_by_role("button", name="Redo").click()
    stored_after("north", lambda d: d["units"][0]["width_mm"] > 700)


def test_a_box_is_opened_split_and_filled_and_says_what_cannot_be(table):
    page = table.page
    table.goto(table.open_demo() + "/north/setout")
    page.get_by_role("button", name="B Press", exact=True).click()
    page.get_by_role("button", name="2 columns").click()
    page.get_by_role("button", name=re.compile("^Cell 1,")).click()
    page.get_by_label("In it").select_option("drawers")
    page.get_by_label("Lowest box high, mm").fill("700")
    page.get_by_label("Lowest box high, mm").press("Enter")
    expect(page.get_by_text("drawers taller than their opening").first).to_be_visible()
    page.get_by_label("Lowest box high, mm").fill("")
    page.get_by_label("Lowest box high, mm").press("Enter")
    expect(page.get_by_text("drawers taller than their opening")).to_have_count(0)
    page.get_by_role("button", name="Add a thing").click()
    page.get_by_label("Wide, mm").last.fill("900")
    page.get_by_label("Wide, mm").last.press("Enter")
    expect(page.get_by_text("does not go into B Press").first).to_be_visible()

    def fills(decided: dict[str, Any]) -> list[str]:
        return [c["fill"]["fill"] for c in decided["units"][1]["insides"]["cell"]["fill"].get("cells", ())]

    stored_after("north", lambda d: fills(d) == ["shelves", "drawers"])


def test_a_stack_gives_where_it_is_told_to_on_the_upright_rod(table):
    page = table.page
    table.goto(table.open_demo() + "/north/setout")
    page.get_by_role("button", name=re.compile("^finished 768")).click()
    page.keyboard.type("800")
    page.keyboard.press("Enter")
    # 800 less a board of 40
    expect(page.get_by_role("button", name="box 760 gives")).to_be_visible()
    expect(page.get_by_text("The box gives: 760 mm")).to_be_visible()
