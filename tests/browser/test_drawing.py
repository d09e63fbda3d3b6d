"""Drawings of all demo jobs: nothing that is written lies on anything else, and they are looked at from nearer."""

from __future__ import annotations

from itertools import cycle

import pytest
from playwright.sync_api import expect
from tools.browser import PHONE, TABLE

from wobble.site.models import Job

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]
TOUCHING = """() => [...document.querySelectorAll('.drawing svg')].flatMap((svg) => {
  const words = [...svg.querySelectorAll('text')]
    .filter((t) => t.textContent.trim() && getComputedStyle(t).visibility !== 'hidden')
    .map((t) => [t.textContent.trim(), t.getBoundingClientRect()])
    .filter(([, r]) => r.width > 0);
  const frame = svg.getBoundingClientRect();
  const past = ([, r]) => r.left < frame.left - 1 || r.right > frame.right + 1;
  const out = words.filter(past).map(([t]) => `${t} outside`);
  words.forEach(([a, r], i) => words.slice(i + 1).forEach(([b, s]) => {
    const wide = Math.min(r.right, s.right) - Math.max(r.left, s.left);
    const high = Math.min(r.bottom, s.bottom) - Math.max(r.top, s.top);
    if (wide > 2 && high > 4) out.push(`${a} on ${b}`);
  }));
  return out;
})"""


@pytest.mark.parametrize(("screen", "first"), [(TABLE, 0), (PHONE, 1)])
def test_nothing_that_is_written_lies_on_anything_else(desks, screen, first):
    """Each stage of every other job on the table, of the others on the phone; both units on both."""
    desk = desks(screen)
    desk.open_demo()
    found = {}
    for job, unit in zip(
        Job.objects.exclude(places=None).order_by("name")[first::2], cycle(("in", "mm")), strict=False
    ):
        Job.objects.filter(pk=job.pk).update(decided=job.decided | {"units": unit}, revision=job.revision + 1)
        place = job.places.first()
        assert place is not None
        for stage in ("setout", "gauge", "fit", "hold"):
            desk.goto(f"/jobs/{job.id}/{place.key}/{stage}")
            desk.page.locator(".drawing svg text").first.wait_for()
            desk.page.wait_for_timeout(180)  # names give way once the drawing stands still
            found[job.name, stage] = desk.page.evaluate(TOUCHING)
    assert len(found) >= 8
    assert {where: words for where, words in found.items() if words} == {}


def test_a_drawing_is_looked_at_from_nearer_and_dragged(table):
    page = table.page
    table.goto(table.open_demo() + "/north/fit")
    drawing = page.locator(".drawing svg").first
    afar = drawing.bounding_box()
    assert afar is not None
    page.keyboard.press(">")
    whole = page.get_by_role("button", name="whole")
    expect(whole).to_be_visible()
    near = drawing.bounding_box()
    assert near is not None
    assert near["height"] > 1.2 * afar["height"]
    frame = page.locator(".closer .frame")
    frame.evaluate("(f) => f.scrollTo(0, 60)")
    page.mouse.move(400, 300)
    page.mouse.down()
    page.mouse.move(400, 260, steps=4)
    page.mouse.up()
    assert frame.evaluate("(f) => f.scrollTop") == 100
    page.mouse.move(500, 300)
    page.keyboard.down("Control")
    page.mouse.wheel(0, -200)
    page.keyboard.up("Control")
    page.wait_for_timeout(100)
    nearer = drawing.bounding_box()
    assert nearer is not None
    assert nearer["height"] > 1.5 * near["height"]
    page.keyboard.press("=")
    expect(whole).to_be_hidden()
    assert drawing.bounding_box() == afar


def test_the_drawing_stays_in_view_while_what_stands_under_it_is_read(table):
    page = table.page
    table.goto(table.open_demo() + "/north/fit")
    whole = page.get_by_role("region", name="The place")
    expect(whole.get_by_role("button", name="From nearer")).to_be_visible()
    expect(page.locator(".corner")).to_have_count(0)
    page.get_by_role("table", name="Under the supports").get_by_role("button").last.scroll_into_view_if_needed()
    copy = page.locator(".corner [inert]")
    expect(copy.locator("svg").first).to_be_in_viewport()
    assert table.barriers() == []
    page.get_by_role("button", name="Fold", exact=True).click()
    expect(copy).to_have_count(0)
    page.evaluate("scrollTo(0, 0)")
    expect(page.locator(".corner")).to_have_count(0)
    page.keyboard.press(">")  # the keys are still those of the drawing itself
    expect(whole.get_by_role("button", name="From further")).to_be_visible()


def test_what_is_asked_at_the_right_moves_by_itself(table):
    """What is pressed there stays where it is, and the drawing stays in view."""
    page = table.page
    table.goto(table.open_demo() + "/north/setout")
    page.get_by_role("button", name="B Press", exact=True).click()
    side = page.get_by_role("region", name="What is set out")
    last = side.get_by_text("How it stands, is held and meets the walls")
    assert not last.evaluate("e => e.getBoundingClientRect().bottom <= innerHeight")
    last.scroll_into_view_if_needed()
    assert page.evaluate("scrollY") == 0
    expect(page.locator(".corner")).to_have_count(0)
    last.click()
    expect(side.get_by_label("It stands").first).to_be_visible()
