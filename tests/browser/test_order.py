"""Order and Set in the real interface: tonight and its tick, the rods, sessions, a check, a plan that follows."""

from __future__ import annotations

import re

import pytest
from PIL import Image
from playwright.sync_api import Page, expect
from tools.browser import PHONE

from wobble.site.models import Fact, Job

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]


def pane(page: Page, name: str, of: str = "Parts of the order") -> None:
    page.get_by_role("group", name=of).get_by_role("button", name=name).click()


def facts(kind: str) -> list[dict[str, object]]:
    """Return what was written down in the workroom; another demo job has a first evening behind it."""
    return [row.fact for row in Fact.objects.filter(kind=kind, place__job__name="Gable workroom").order_by("pk")]


def test_a_step_on_the_rods_opens_with_what_it_needs_is_timed_and_turned(table):
    page = table.page
    path = table.open_demo()
    table.goto(path + "/order")
    pane(page, "The whole")
    page.get_by_role("button", name=re.compile(r"^\d+ Set B Press, ")).first.click()
    side = page.get_by_role("region", name="Answers")
    expect(side.get_by_role("heading", name="Set B Press")).to_be_visible()
    expect(side.get_by_role("button", name="Carry B Press in")).to_be_visible()
    side.get_by_role("button", name="Start the clock").click()
    expect(side.get_by_role("button", name="Stop the clock")).to_be_visible()
    side.get_by_role("button", name="Do it before…").click()
    side.get_by_label("Do it before").select_option(label="Set D Bench right")
    expect(page.get_by_text("“Set B Press” before “Set D Bench right”, as you said")).to_be_visible()
    pane(page, "Sessions")
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_text("as you said")).to_have_count(0)
    page.keyboard.press("Escape")


def test_what_is_half_typed_or_half_pressed_when_an_answer_comes_is_not_lost(table):
    page = table.page
    table.goto(table.open_demo() + "/order")
    pane(page, "Sessions")
    days = page.get_by_role("group", name="Days of Evening")
    with page.expect_response(re.compile("/order")):
        days.get_by_role("button", name="mon").click()
        name = page.get_by_role("textbox", name="Name", exact=True).first
        name.fill("Ines the el")
    expect(name).to_be_focused()
    name.press_sequentially("der")
    page.keyboard.press("Tab")
    expect(name).to_have_value("Ines the elder")
    with page.expect_response(re.compile("/order")):
        days.get_by_role("button", name="fri").click()
        days.get_by_role("button", name="wed").hover()
        page.mouse.down()
    page.mouse.up()
    for day in ("mon", "wed", "fri"):
        expect(days.get_by_role("button", name=day)).to_have_attribute("aria-pressed", "true")
    table.watch.still()
    stored = Job.objects.get(name="Gable workroom").decided["sessions"]
    assert stored["people"][0]["name"] == "Ines the elder"
    assert {"mon", "wed", "fri"} <= set(stored["habits"][0]["days"])


def test_a_check_that_is_out_says_what_to_do_and_then_the_plan_follows_what_stands(table):
    page = table.page
    table.goto(table.open_demo() + "/north/set")
    page.get_by_role("button", name=re.compile("^A Drawers: 0 out, ")).click()
    page.get_by_role("button", name="level along").first.click()
    page.keyboard.type("2.6")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Now", exact=True)).to_be_visible()
    expect(page.get_by_text(re.compile("back left: .* up")).first).to_be_visible()
    for typed, heading in (("0.2", "level to the front"), ("0.1", "height of its top")):
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=f"A Drawers: {heading}")).to_be_visible()
    page.keyboard.type("731.9")
    page.keyboard.press("Enter")
    expect(page.get_by_text("A Drawers stands other than planned")).to_be_visible()
    pane(page, "Before and after", of="Parts of setting")
    expect(page.get_by_role("cell", name="Height of the base")).to_be_visible()
    page.get_by_role("button", name="Let the plan follow what stands").click()
    expect(page.get_by_text("A Drawers stands other than planned")).to_have_count(0)
    assert [f["value_mm"] for f in facts("as set")] == [2.6, 0.2, 0.1, 731.9]
    assert len(facts("followed")[0]["readings"]) == 4  # type: ignore[arg-type]


def test_pictures_wait_without_a_connection_and_are_sent_once(desks, line, tmp_path):
    phone = desks(PHONE, address=line.address)
    page = phone.page
    path = phone.open_demo()
    phone.goto(path + "/north/set")
    page.get_by_role("button", name="Begin with the first check").click()
    Image.new("RGB", (900, 600), (120, 140, 90)).save(tmp_path / "a.jpg")
    line.cut()
    phone.watch.cut = True
    page.get_by_label("Take a picture of A Drawers: square").set_input_files(tmp_path / "a.jpg")
    expect(page.get_by_text("1 waiting").first).to_be_visible()
    page.keyboard.type("1")
    page.keyboard.press("Enter")
    line.mend()
    page.evaluate("dispatchEvent(new Event('online'))")
    expect(page.get_by_text("waiting")).to_have_count(0)
    phone.watch.cut = False
    (photo,) = facts("photo")
    assert (photo["about"], photo["wide_px"], photo["high_px"]) == ("square/north/A", 900, 600)
    page.goto(path + "/record")
    expect(page.get_by_role("img", name="during: A Drawers: square")).to_be_visible()
    assert len(facts("as set")) == 1
