"""Fit, whole: from a unit's walls to the sheet that comes out of the printer."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from wobble.site.models import Job, Place

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]


def pane(page: Page, name: str) -> None:
    page.get_by_role("group", name="Parts of the fit").get_by_role("button", name=name).click()


def vestry(visit) -> str:
    """Open the vestry's press and return its place's address."""
    visit.open_demo()
    job = Job.objects.get(name="Vestry press")
    return f"/jobs/{job.id}/alcove"


def test_the_split_is_turned_marked_undone_and_kept(table):
    page = table.page
    table.goto(vestry(table) + "/fit")
    pane(page, "Sides")
    left = page.get_by_role("row", name="left of P Press")
    expect(left).to_contain_text("63.1")
    page.get_by_label("Share the spare width").select_option("none at the left")
    expect(left).to_contain_text("was 66")
    expect(page.get_by_text("Too little room at the left")).to_be_visible()
    expect(page.get_by_role("button", name="Undo", exact=True)).to_be_visible()
    assert Place.objects.get(job__name="Vestry press").decided["closing"]["split"] == "none at the left"
    page.keyboard.press("u")
    expect(left).to_contain_text("63.1")
    left.get_by_role("button").first.click()
    expect(page.get_by_role("region", name="Working of Gap at the left, foot")).to_contain_text("Edge of the unit")


def test_a_cut_line_is_read_off_taken_as_a_file_and_printed(table):
    page = table.page
    table.goto(vestry(table) + "/fit")
    pane(page, "Cut lines")
    line = page.get_by_role("article").filter(has_text="left filler at P Press")
    expect(line).to_contain_text("Face up, the wall is at the left")
    with page.expect_download() as download:
        line.get_by_role("link", name="DXF").click()
    assert download.value.suggested_filename == "alcove-standing-left.dxf"
    line.get_by_role("link", name="Print at full size").click()
    sheets = page.get_by_role("figure")
    expect(sheets.first).to_be_visible()
    width = sheets.first.locator("svg").evaluate("e => e.getBoundingClientRect().width")
    assert width == pytest.approx(190 / 25.4 * 96, abs=1), "full size: a CSS millimetre is one of the printer's"
    expect(page.get_by_role("button", name="Print")).to_contain_text(f"{sheets.count()} pages")


def test_a_door_too_small_is_said_with_what_would_work(table):
    page = table.page
    fit = vestry(table) + "/fit"
    table.goto(fit)
    pane(page, "Going in")
    expect(page.get_by_text("goes in, 100 %")).to_be_visible()
    page.get_by_role("link", name="on the job's page").click()
    width = page.get_by_label("clear width, mm").first
    width.fill("500")
    width.press("Enter")
    expect(page.get_by_role("status")).to_have_text("kept")
    table.goto(fit)
    expect(page.get_by_text("P Press: Vestry door")).to_be_visible()
    pane(page, "Going in")
    expect(page.get_by_text("does not go in")).to_be_visible()
    expect(page.get_by_text("→ ").first).to_be_visible()


def test_two_sets_of_decisions_stand_side_by_side(table):
    page = table.page
    table.goto(vestry(table) + "/fit")
    pane(page, "Compare")
    page.get_by_label("Keep what stands now as").fill("shared")
    page.get_by_role("button", name="Keep beside").click()
    expect(page.get_by_role("columnheader", name="shared")).to_be_visible()
    pane(page, "Sides")
    page.get_by_label("Share the spare width").select_option("none at the right")
    expect(page.get_by_role("button", name="Undo", exact=True)).to_be_visible()
    pane(page, "Compare")
    gaps = page.get_by_role("row", name="gaps at the sides").get_by_role("cell")
    expect(gaps.nth(1)).not_to_have_text(gaps.nth(2).inner_text())
    page.get_by_role("button", name="Take", exact=True).click()
    expect(gaps.nth(1)).to_have_text(gaps.nth(2).inner_text())


def test_a_length_is_divided_as_it_is_typed(table):
    page = table.page
    table.goto(vestry(table) + "/fit")
    pane(page, "Divide")
    page.get_by_label("Length, mm").fill("1200")
    page.get_by_label("Length, mm").press("Enter")
    expect(page.get_by_text("= 387.3 mm")).to_be_visible()


def test_the_shim_list_prints_on_one_page_that_says_what_it_is_of(table, tmp_path):
    """Drawing and all supports on the first page, none of the ways that were not chosen, and a foot on every page."""
    page = table.page
    table.goto(table.open_demo() + "/north/fit")
    page.get_by_text("Behind the screws").wait_for()
    page.pdf(path=tmp_path / "fit.pdf", format="A4", prefer_css_page_size=True)
    pages = [p.extract_text() for p in PdfReader(tmp_path / "fit.pdf").pages]
    revision = Job.objects.get(name="Gable workroom").revision
    for i, text in enumerate(pages, start=1):
        assert f"{i} of {len(pages)}" in text
        assert f"Gable workroom · North run · revision {revision}" in text
    assert pages[0].count("front left") + pages[0].count("back left") == 8, "eight of the sixteen supports"
    assert "floor, folded down" in pages[0]
    assert "Decided: level" in pages[0]
    assert "Behind the screws" not in pages[0]
    assert "Along the back wall" not in "".join(pages)


def test_a_page_at_full_size_is_one_sheet_of_either_paper(table, tmp_path):
    """A page that broke in two would leave its bar behind, and with it the one thing that tells of a wrong scale."""
    at = table.open_demo() + "/north"
    for path in ("/rods/long", "/rods/upright", "/fit/T-left"):
        table.goto(at + path)
        pages = table.page.get_by_role("figure")
        pages.first.wait_for()
        for paper in ("A4", "Letter"):
            table.page.pdf(path=tmp_path / "full.pdf", format=paper)
            sheets = [p.extract_text() for p in PdfReader(tmp_path / "full.pdf").pages]
            assert len(sheets) == pages.count()
            assert all("This bar must measure 100 mm" in sheet for sheet in sheets)


def test_lists_print_whole_and_without_what_is_pressed(table, tmp_path):
    at = table.open_demo() + "/north"
    wanted = {"/gauge": "survey", "/hold": "drilling list", "/set": "checks"}
    for path, title in wanted.items():
        table.goto(at + path)
        table.page.wait_for_timeout(400)
        table.page.pdf(path=tmp_path / "list.pdf", format="A4")
        text = " ".join(p.extract_text() for p in PdfReader(tmp_path / "list.pdf").pages)
        assert f"North run · {title}" in text.replace("\n", " ")
        assert not [word for word in ("Set aside", "missed", "Put back") if word in text]
        if path == "/set":
            assert "right within" in text
            assert "level along" in text
