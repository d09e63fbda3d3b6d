"""Hold: what a hole met is a tap, kept without a connection; rests, furring and grids; the drilling list."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from wobble.site.models import Fact, Place

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]
PANES = ["Drilling list", "Rests and joins", "Overhead", "Flatten", "Hang things on"]


def pane(page: Page, name: str) -> None:
    page.get_by_role("group", name="Parts of the hold").get_by_role("button", name=name).click()


def detections() -> list[dict[str, object]]:
    return [row.fact for row in Fact.objects.filter(place__key="north", kind="detection", aside__isnull=True)]


def test_a_hole_that_missed_is_a_tap_and_the_studs_are_estimated_again(phone):
    page = phone.page
    phone.goto(phone.open_demo() + "/north/hold")
    expect(page.get_by_text("6 studs, 600 apart")).to_be_visible()
    row = page.get_by_role("row").filter(has_text="B Press")
    expect(row).to_contain_text("99 %")
    missed = page.get_by_role("button", name="Screw 3 missed")
    assert missed.bounding_box()["height"] >= 44
    missed.tap()
    expect(row.filter(has_text="99 %")).to_have_count(0)
    assert detections()[-1]["sees"] == "miss"
    expect(page.get_by_text("two things disagree")).to_be_visible()
    assert phone.barriers() == []


def test_the_drawing_says_where_and_a_backing_is_said(table):
    page = table.page
    table.goto(table.open_demo() + "/north/hold")
    drawing = page.get_by_role("group", name="North run: studs and screws")
    drawing.click(position={"x": 320, "y": 260})
    expect(page.get_by_label("Along, mm")).not_to_have_value("")
    page.get_by_label("It shows").select_option("centre")
    page.get_by_role("button", name="Found", exact=True).click()
    expect(page.get_by_text("16 found so far")).to_be_visible()
    page.get_by_text("What the walls are made of").click()
    page.get_by_label("The walls are").select_option("masonry")
    expect(page.get_by_text("Say which anchor").first).to_be_visible()
    page.get_by_label("Anchor").fill("Plug 8")
    page.get_by_label("Anchor").press("Tab")
    expect(page.get_by_label("Its maker’s load out, N")).to_be_visible()
    expect(page.get_by_text("Say which anchor")).to_have_count(0)
    assert (Place.objects.get(key="north").decided["backing"])["anchor"]["name"] == "Plug 8"


def test_a_wall_is_furred_flat_and_laid_out_to_hang_things_on(table):
    page = table.page
    table.goto(table.open_demo() + "/north/hold")
    pane(page, "Flatten")
    table_ = page.get_by_role("table", name="Packing behind each strip")
    expect(table_.get_by_role("row")).to_have_count(4)
    page.get_by_label("At most apart, mm").fill("400")
    page.get_by_label("At most apart, mm").press("Enter")
    expect(table_.get_by_role("row")).to_have_count(5)
    pane(page, "Hang things on")
    expect(page.get_by_text("12 battens at 150")).to_be_visible()
    table.watch.expected.add(422)
    page.get_by_label("Apart, tip to tip, mm").fill("50")
    page.get_by_label("Apart, tip to tip, mm").press("Enter")
    expect(page.get_by_text("leaves no room to hook on")).to_be_visible()
