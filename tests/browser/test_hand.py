"""In the hand: on a phone, upright and on its side, nothing that is pressed has to be scrolled to."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Page, expect
from tools.browser import PHONE

SIDEWAYS: dict[str, Any] = {"viewport": {"width": 844, "height": 390}, "has_touch": True, "is_mobile": True}
LEAVES = """(names) => names.flatMap((name) => [...document.querySelectorAll(name)]
  .filter((e) => e.offsetParent !== null)
  .map((e) => [name, e.innerText, e.getBoundingClientRect()])
  .filter(([, , r]) => r.top < 0 || r.left < 0 || r.bottom > innerHeight || r.right > innerWidth)
  .map(([n, text, r]) => `${n} ${text} ${Math.round(r.top)}..${Math.round(r.bottom)}`))"""
SMALL = """() => [...document.querySelectorAll('button, select, input:not([type=file], [type=range], [type=checkbox])')]
  .filter((e) => e.offsetParent !== null && e.getBoundingClientRect().height > 0 && !e.matches('p .word'))
  .map((e) => e.matches('.answer .head') ? e.parentElement : e)
  .map((e) => [e.innerText || e.ariaLabel || e.className, Math.round(e.getBoundingClientRect().height)])
  .filter(([, high]) => high < 44)"""
ROUND = [".entry .where", ".entry .pad .window", ".entry .pad button"]


def in_reach(page: Page, names: list[str]) -> None:
    """Check that all of it is in view as the page lies once it has come to rest, and that nobody scrolled."""
    for _ in range(50):
        if page.evaluate(LEAVES, names) == []:
            break
        page.wait_for_timeout(100)
    assert page.evaluate("scrollY") == 0
    assert page.evaluate(LEAVES, names) == []


def tap(page: Page, keys: str) -> None:
    """Tap a number in and record it."""
    for key in keys:
        page.locator(".keys").get_by_role("button", name=key, exact=True).tap()
    page.get_by_role("button", name="Record").tap()


@pytest.mark.parametrize(("screen", "unit"), [(PHONE, "mm"), (SIDEWAYS, "in")])
def test_a_round_is_walked_without_scrolling_for_a_key(desks, screen, unit):
    desk = desks(screen)
    page = desk.page
    at = desk.open_demo() + "/north"
    if unit == "in":
        desk.goto(at.removesuffix("/north"))
        desk.unfold("About")
        page.get_by_label("Lengths are shown in").select_option("in")
        page.wait_for_timeout(300)
    desk.goto(at + "/gauge")
    expect(page.get_by_label("Next station")).to_be_visible()
    in_reach(page, ROUND)
    for _ in range(3):
        tap(page, "1008" if unit == "mm" else "39")
        expect(page.get_by_text("Recorded")).to_be_visible()
        page.get_by_label("Next station").tap()
        expect(page.locator(".entry .where")).to_be_visible()
        in_reach(page, ROUND)
    assert page.evaluate(SMALL) == []
    page.get_by_role("button", name="Drawing", exact=True).tap()
    expect(page.get_by_role("button", name="Fold the drawing")).to_be_visible()
    assert desk.barriers() == []


def test_holes_are_ticked_where_the_thumb_is(phone):
    page = phone.page
    phone.goto(phone.open_demo() + "/north/hold")
    cards = page.get_by_role("group", name="Drilling list").locator("tbody tr")
    n = cards.count()
    for done in range(1, 6):
        bit = page.get_by_role("group", name="Drilling list").locator("tbody tr:not(.met) .taps button").first
        expect(bit).to_be_in_viewport(ratio=1)
        bit.tap()
        expect(page.locator("tr.met")).to_have_count(done)
        expect(page.get_by_role("status")).to_have_text("kept")
        phone.watch.still()  # what bit may move what is still to be drilled
        assert page.evaluate("scrollY") == 0
    expect(page.locator("tr.met").first).to_be_attached()
    assert page.locator("tr.met").count() < n
    assert page.evaluate(SMALL) == []


def test_checks_and_steps_are_within_reach(phone):
    page = phone.page
    job = phone.open_demo()
    phone.goto(job + "/order")
    done = page.get_by_role("button", name="Done").first
    expect(done).to_be_in_viewport(ratio=1)
    assert page.evaluate(SMALL) == []
    phone.goto(job + "/north/set")
    page.get_by_role("button", name="Begin with the first check").tap()
    for _ in range(3):
        expect(page.locator(".hand")).to_be_visible()
        in_reach(page, [".hand button"])
        assert page.evaluate(SMALL) == []
        page.locator(".hand").get_by_role("button", name="The next check").tap()


TILTED = """(beta) => { let n = 0; window.tilting = setInterval(() => {
  n += 1;
  const lie = { beta: beta + (n % 2 ? 0.03 : -0.03), gamma: 1 };  // its mean is beta however the clock runs
  dispatchEvent(new DeviceOrientationEvent('deviceorientation', lie));
}, 40) }"""


def test_the_phone_is_a_level_steadied_and_recorded_as_a_slope(phone):
    page = phone.page
    at = phone.open_demo() + "/north"
    phone.goto(at + "/gauge")
    page.get_by_role("button", name="Level, or across…").tap()
    for label, mm in (("From: along", "200"), ("From: out", "300"), ("To: along", "1400"), ("To: out", "300")):
        page.get_by_label(label).fill(mm)
        page.get_by_label(label).press("Tab")
    page.evaluate(TILTED, 0.55)
    page.get_by_role("button", name="Read it with this phone").tap()
    expect(page.get_by_label("Rises by")).to_have_value("0.55", timeout=15_000)
    page.evaluate("clearInterval(window.tilting)")
    page.get_by_role("button", name="Record").last.tap()
    expect(page.get_by_role("status")).to_have_text("kept")
    job, place = at.split("/")[2], at.split("/")[3]
    stored = page.evaluate(f"fetch('/api/jobs/{job}').then((r) => r.json())")["job"]
    tool = next(i for i in stored["instruments"] if i["kind"] == "phone")
    facts = next(p for p in stored["places"] if p["id"] == place)["facts"]
    slope = next(f for f in facts if f["fact"] == "slope" and f["instrument"] == tool["id"])
    assert (slope["unit"], slope["value"], slope["start"], slope["end"]) == ("deg", 0.55, [200, 300], [1400, 300])


def test_a_phone_without_a_sensor_says_so_and_the_demo_has_a_stand_in(phone):
    page = phone.page
    phone.goto(phone.open_demo() + "/north/gauge")
    page.get_by_role("button", name="Level, or across…").tap()
    page.get_by_role("button", name="Read it with this phone").tap()
    expect(page.get_by_text("no tilt sensor that a page may read")).to_be_visible()
    page.get_by_role("button", name="Use the demo's stand-in").tap()
    expect(page.get_by_label("Rises by")).to_have_value("0.35", timeout=15_000)


def test_what_is_in_the_fields_of_a_jobs_page_can_be_read(phone):
    phone.goto(phone.open_demo())
    for name in ("About", "The way in", "How carcasses are built", "Shim kit", "Instruments"):
        phone.unfold(name)
    fields = phone.page.locator("main input:visible, main select:visible")
    assert fields.count() > 40
    narrow = "es => es.filter((e) => e.type !== 'checkbox' && e.clientWidth < 56).map((e) => e.outerHTML.slice(0, 120))"
    assert fields.evaluate_all(narrow) == []
    assert phone.barriers() == []
