"""Who uses no mouse, needs larger letters, or wants nothing to move: the whole journey, and every main view."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Page, expect
from tools.browser import PHONE, TABLE, overflow

from tests.browser.keys import enter, tab_to
from wobble.site.models import Fact

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]

LOST = """() => [...document.querySelectorAll('main *, header *')].filter((e) => {
  const s = getComputedStyle(e);
  if (e.closest('svg, .print-only, [class*="visually-hidden"], .folded') || !e.innerText?.trim()) return false;
  const cut = ['hidden', 'clip'].includes(s.overflowY) && s.textOverflow !== 'ellipsis';
  return cut && e.scrollHeight > e.clientHeight + 4;
}).map((e) => e.outerHTML.slice(0, 120))"""
MOVING = """() => document.getAnimations().filter((a) => a.playState === 'running')
  .map((a) => `${a.effect.target.outerHTML.slice(0, 90)} moves`)"""
SEVEN = "color-contrast-enhanced"
PLACE = ("/place", "/setout", "/gauge", "/fit", "/hold", "/set")


def stage(page: Page, name: str) -> None:
    """Go to a stage by the bar at the top."""
    enter(
        page, page.get_by_role("navigation", name="Stages").get_by_role("link", name=re.compile(rf"^{name}( ?\d+)?$"))
    )
    page.wait_for_url(re.compile(f"/{name.lower().replace(' ', '')}$"))


def addresses(job: str) -> Iterator[str]:
    yield from ("/", "/words", job, f"{job}/make", f"{job}/order", f"{job}/record")
    yield from (f"{job}/north{stage}" for stage in PLACE)


def test_the_whole_journey_by_keyboard_alone(table):
    page = table.page
    page.goto("/")
    enter(page, page.get_by_role("button", name="Open the demo"))
    enter(page, page.get_by_role("link", name=re.compile("Gable workroom")))
    enter(page, page.get_by_role("link", name=re.compile("^(Measure|Gauge)")))
    page.wait_for_url(re.compile("/gauge$"))

    page.keyboard.type("1004.5")  # a round needs no Tab: figures go to the field
    page.keyboard.press("Enter")
    expect(page.get_by_text("1004.5").first).to_be_visible()

    stage(page, "Fit")
    slider = page.get_by_role("slider", name=re.compile("over the high spot|base"))
    tab_to(page, slider)
    before = slider.input_value()
    page.keyboard.press("ArrowRight")
    expect(slider).not_to_have_value(before)
    expect(page.get_by_text("kept")).to_be_visible()

    stage(page, "Hold")
    bit = page.get_by_role("button", name="Screw 1 bit")
    enter(page, bit)
    expect(bit).to_have_attribute("aria-pressed", "true")

    stage(page, "Make")
    enter(page, page.get_by_role("button", name="A1 is cut"))
    expect(page.get_by_text("Cut: 1")).to_be_visible()

    stage(page, "Order")
    enter(page, page.get_by_role("button", name="2 h", exact=True))
    expect(page.get_by_text("Then these may begin")).to_be_visible()
    enter(page, page.get_by_role("button", name="Done", exact=True))
    expect(page.get_by_text("Buy what is not at hand")).to_have_count(0)

    stage(page, "Set")
    enter(page, page.get_by_role("button", name=re.compile("^A Drawers: 0 out, ")))
    enter(page, page.get_by_role("button", name="level along"))
    page.keyboard.type("0.4")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="A Drawers: level to the front")).to_be_visible()

    enter(page, page.get_by_role("link", name="The record of this job"))
    expect(page.get_by_text("A Drawers: level along: 0.4 mm")).to_be_visible()
    kinds = Fact.objects.filter(place__job__name="Gable workroom").values_list("kind", flat=True)
    assert {"offset", "detection", "cut", "step", "as set"} <= set(kinds)


def test_larger_letters_and_narrower_windows_lose_nothing_and_nothing_moves(desks):
    """WCAG 2.2, 1.4.4 and 1.4.10: letters twice as large, and 320 across (1280 at four times the size); and 2.3.3."""
    desk = desks(TABLE)
    page = desk.page
    found: dict[str, list[str]] = {}
    for address in addresses(desk.open_demo()):
        page.set_viewport_size(TABLE["viewport"])
        desk.goto(address)
        page.keyboard.press("?")
        page.wait_for_timeout(50)
        faults = page.evaluate(MOVING)
        page.keyboard.press("Escape")
        for wide, letters in ((1280, "200%"), (320, "")):
            page.set_viewport_size({"width": wide, "height": 640})
            page.evaluate("size => { document.documentElement.style.fontSize = size }", letters)
            page.wait_for_timeout(150)
            faults += [f"at {wide}: {lost}" for lost in page.evaluate(LOST)]
            faults += [f"at {wide}: too wide"] if overflow(page) > 0 else []
        found |= {address: faults} if faults else {}
    assert found == {}


def test_in_glaring_light_every_word_has_seven_times_the_light_of_its_ground(desks):
    """WCAG 2.2, 1.4.6 (AAA), on the pages that are looked at out on the site."""
    desk = desks(PHONE)
    page = desk.page
    job = desk.open_demo()
    desk.goto("/")
    for name in ("Dark", "In glaring light"):
        page.get_by_role("button", name=name, exact=True).tap()
    assert page.evaluate("getComputedStyle(document.body).backgroundColor") == "rgb(255, 255, 255)"
    lacking: dict[str, list[str]] = {}
    for address in ("/", f"{job}/north/gauge", f"{job}/north/hold", f"{job}/north/set", f"{job}/order", f"{job}/make"):
        desk.goto(address)
        found = desk.audit(runOnly=[SEVEN], rules={SEVEN: {"enabled": True}})
        faint = [node["html"][:120] for fault in found for node in fault["nodes"]]
        lacking |= {address: faint} if faint else {}
    assert lacking == {}
