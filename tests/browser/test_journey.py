"""The job as people do it: measure, decide, print; with the mistakes that they make."""

from __future__ import annotations

import json
import re
import time

import pytest
from bench.drawing import N_OBSTACLES, crowded_job
from django.contrib.auth import get_user_model
from django.db.models import F
from playwright.sync_api import Page, expect
from tools.browser import PHONE

from wobble.core.formats.document import write_job
from wobble.site.edits import READING_TAGS
from wobble.site.models import Fact, Job, Place

pytestmark = pytest.mark.browser


def readings(job: str = "Gable workroom"):
    """Return the readings of a job as they are stored."""
    return Fact.objects.filter(place__job__name=job, kind__in=READING_TAGS)


def type_reading(page: Page, value: float | str) -> None:
    """Type a number and Enter, as a meter does that poses as a keyboard."""
    page.keyboard.type(str(value))
    page.keyboard.press("Enter")


def shim_cell(page: Page, unit: str, support: str):
    return page.get_by_role("row", name=re.compile(f"^{unit} {support}")).locator("td").nth(2)


def test_from_nothing_to_a_shim_list(desks):
    """A floor falling 2 per 600: describe the place, type the survey, slip once, take it again, read the list."""
    get_user_model().objects.create_user("tomas", password="dusty hands")
    desk = desks()
    page = desk.page
    page.goto("/")
    page.get_by_label("Name").fill("tomas")
    page.get_by_label("Password", exact=True).fill("dusty hands")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_text("No jobs yet")).to_be_visible()

    page.get_by_role("button", name="Start your first job").click()
    page.get_by_label("What are you fitting out?").fill("Back bedroom")
    page.get_by_role("button", name="Start", exact=True).click()
    page.get_by_role("link", name="An empty place").click()
    page.get_by_label("Long, mm").fill("1800")
    page.get_by_role("button", name="Keep, then measure").click()
    page.get_by_role("link", name="Set out").click()
    for n in (1, 2):
        page.get_by_label("Put in").select_option("base")
        expect(page.get_by_role("button", name=re.compile(", width of"))).to_have_count(n)
    page.get_by_role("link", name="Gauge").click()

    page.get_by_role("button", name="Set the level line").click()
    page.get_by_label(re.compile("Its height over the mark")).fill("1000")
    page.get_by_role("button", name="It stands").click()
    expect(page.get_by_text("Floor 1 of", exact=False)).to_be_visible()
    expect(page.locator(".bx--modal.is-visible")).to_have_count(0)  # what is typed belongs to the dialog till it closes
    job = Job.objects.get()
    place = job.places.get()
    round_ = page.evaluate(f"fetch('/api/jobs/{job.id}/places/{place.key}/gauge').then((r) => r.json())")["stations"]
    floor = [s["at"] for s in round_ if s["surface"] == "floor"]
    slipped = floor[len(floor) // 2]
    for at in floor:
        read = 1000 + 2 * at[0] / 600 + (10 if at == slipped else 0)
        expect(page.get_by_text(f"{at[0]:.0f} along, {at[1]:.0f} out").first).to_be_visible()
        type_reading(page, f"{read:.1f}")
    expect(page.locator(".answer").filter(has_text="Measure again")).to_contain_text("slip of one centimetre")
    expect(page.get_by_role("status")).to_have_text("kept")
    assert Fact.objects.count() == len(floor)

    page.get_by_role("link", name="Fit", exact=True).click()
    expect(page.get_by_text("A floor reading disagrees")).to_be_visible()
    shims = shim_cell(page, "A Cabinet", "front right").locator("xpath=ancestor::table")
    before = shims.inner_text()
    page.get_by_text("A floor reading disagrees").click()
    page.get_by_role("button", name=re.compile("Measure again")).click()
    expect(page.get_by_text("which disagrees")).to_be_visible()
    type_reading(page, f"{1000 + 2 * slipped[0] / 600:.1f}")
    expect(page.get_by_role("button", name=re.compile("Measure again"))).to_have_count(0)
    assert Fact.objects.count() == len(floor) + 1, "both readings stay on record"

    page.get_by_role("link", name="Fit", exact=True).click()
    expect(page.get_by_text("A floor reading disagrees")).to_have_count(0)
    expect(page.get_by_text("told at your last look")).to_be_visible()
    expect(shim_cell(page, "A Cabinet", "front right")).to_be_visible()
    assert shims.inner_text() != before, "the reading taken again counts in the figures near it"
    # A's front feet stand at 40 and 560 along, on a floor that falls 2 in 600
    feet = [shim_cell(page, "A Cabinet", f"front {side}").inner_text() for side in ("left", "right")]
    left, right = (float(text.split()[0]) for text in feet)
    assert right - left == pytest.approx(2 * (560 - 40) / 600, abs=0.35)


def test_the_misread_of_the_demo_is_pointed_out_and_taken_again(table):
    page = table.page
    workroom = table.open_demo()
    table.goto(workroom + "/north/fit")
    expect(page.get_by_text("That looks like a slip of one centimetre")).to_be_visible()
    before = shim_cell(page, "C Bench left", "back right").inner_text()
    table.goto(workroom + "/north/gauge")
    expect(page.get_by_text("2090 along, 60 out").first).to_be_visible()
    page.get_by_label("Read from the line").select_option("line-1")
    type_reading(page, "998.5")
    expect(page.get_by_role("button", name=re.compile("Measure again"))).to_have_count(0)
    table.goto(workroom + "/north/fit")
    expect(page.get_by_text("A floor reading disagrees")).to_have_count(0)
    expect(shim_cell(page, "C Bench left", "back right")).not_to_have_text(before)


def test_turning_the_datum_moves_every_shim_and_can_be_undone(table):
    page = table.page
    workroom = table.open_demo()
    table.goto(workroom + "/north/fit")
    cell = shim_cell(page, "A Drawers", "front left")
    before = float(cell.inner_text().split()[0])
    slider = page.get_by_label("Height over the high spot")
    slider.focus()
    for _ in range(8):
        page.keyboard.press("ArrowRight")
    expect(cell).to_contain_text(f"{before + 4:.1f}")
    expect(cell).to_contain_text(f"was {before:.1f}")
    expect(page.get_by_role("button", name="Undo")).to_be_visible()
    page.reload(wait_until="networkidle")
    expect(cell).to_contain_text(f"{before + 4:.1f}")
    slider.focus()
    for _ in range(30):
        page.keyboard.press("ArrowLeft")
    expect(page.get_by_text("Cut the base down")).to_be_visible()
    expect(page.get_by_role("cell", name=re.compile(r"cut \d+\.\d off")).first).to_be_visible()
    expect(page.get_by_role("button", name="Undo")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(cell).to_contain_text(f"{before + 4:.1f}")


def test_a_figure_opens_its_working_down_to_the_readings(table):
    page = table.page
    workroom = table.open_demo()
    table.goto(workroom + "/north/fit")
    page.get_by_role("button", name=re.compile("working of A Drawers front left")).click()
    working = page.get_by_role("region", name=re.compile("^Working of"))
    expect(working).to_contain_text("Base height")
    expect(working).to_contain_text(re.compile(r"reading \d+: Floor"))
    figures = [float(t.split()[0].replace("−", "-")) for t in working.locator("ol > li > .value").all_inner_texts()]
    assert figures[0] - figures[1] == pytest.approx(figures[2], abs=0.11), "the working adds up as it is shown"


def test_export_and_import_bring_the_same_job_back(table, tmp_path):
    page = table.page
    workroom = table.open_demo()
    table.goto(workroom)
    table.unfold("About")
    with page.expect_download() as download:
        page.get_by_role("link", name="Export the job document").click()
    path = tmp_path / "job.json"
    download.value.save_as(path)
    document = json.loads(path.read_text())
    assert (
        sum(fact["fact"] != "detection" and fact["fact"] != "obstacle" for fact in document["places"][0]["facts"]) == 78
    )
    table.goto("/")

    def choose_file():
        with page.expect_file_chooser() as chooser:
            page.get_by_role("button", name="Import a job document").first.click()
        chooser.value.set_files(path)

    choose_file()
    expect(page.get_by_role("link", name="Gable workroom")).to_have_count(2)

    document["places"][0]["facts"][4]["value_mm"] = "ten"
    path.write_text(json.dumps(document))
    table.watch.expected.add(422)
    choose_file()
    expect(page.get_by_text("$.places[0].facts[4].value_mm")).to_be_visible()
    expect(page.get_by_role("link", name="Gable workroom")).to_have_count(2)


def test_forms_on_two_devices_keep_what_each_changed(desks):
    """One renames the job, the other turns the datum; then both say how wide a unit is, and one of them chooses."""
    here, there = desks(), desks()
    workroom = here.open_demo()
    there.open_demo()
    here.goto(workroom + "/north/fit")
    there.goto(workroom)
    there.unfold("About")
    name = there.page.get_by_label("Name", exact=True)
    name.fill("Attic workroom")
    name.blur()
    expect(there.page.get_by_role("heading", name="Attic workroom")).to_be_visible()
    here.page.get_by_role("button", name=re.compile("^Top at")).click()
    place = Place.objects.get(job__name="Attic workroom")
    here.page.wait_for_timeout(1500)
    place.refresh_from_db()
    assert place.decided["datum"]["rule"] == "fixed top"

    for desk in (here, there):
        desk.goto(workroom + "/north/setout")
    deepen(there, "A Drawers", "540")
    expect_stored(place, 0, "depth_mm", 540)
    here.watch.expected.add(409)
    deepen(here, "B Press", "550")  # it was drawn before the other's change, and keeps that
    expect_stored(place, 1, "depth_mm", 550)
    assert place.decided["units"][0]["depth_mm"] == 540
    deepen(there, "C Bench left", "530")
    expect_stored(place, 2, "depth_mm", 530)
    deepen(here, "C Bench left", "535")
    both = here.page.get_by_role("dialog")
    expect(both.get_by_role("row", name="C: depth")).to_contain_text("530")
    expect(both.get_by_role("row", name="C: depth")).to_contain_text("535")
    here.page.get_by_role("button", name="Keep theirs").click()
    expect(both).to_have_count(0)
    expect(here.page.get_by_label("Deep, mm")).to_have_value("530")
    place.refresh_from_db()
    assert [u["depth_mm"] for u in place.decided["units"][:3]] == [540, 550, 530]


def deepen(desk, name: str, mm: str) -> None:
    """Pick a piece in the drawing and say how deep it is."""
    desk.page.get_by_role("button", name=name, exact=True).click()
    desk.page.get_by_label("Deep, mm").fill(mm)
    desk.page.get_by_label("Deep, mm").blur()


def expect_stored(place: Place, i: int, field: str, value: float) -> None:
    """Wait until a unit's field is stored."""
    for _ in range(100):
        place.refresh_from_db()
        if place.decided["units"][i][field] == value:
            return
        time.sleep(0.1)
    raise AssertionError(place.decided["units"][i])


def test_a_reading_is_taken_back_and_set_aside_with_a_reason(table):
    page = table.page
    workroom = table.open_demo()
    table.goto(workroom + "/north/gauge")
    type_reading(page, "998.0")
    expect(page.get_by_text("Recorded")).to_contain_text("it")
    expect(page.get_by_role("status")).to_have_text("kept")  # what has not left the device is not set aside but gone
    page.get_by_role("button", name="Undo").first.click()
    expect(page.get_by_text("set aside: taken back")).to_be_visible()
    row = page.get_by_role("listitem").filter(has_text="Floor, 170 along, 60 out").last
    row.get_by_role("button", name="Set aside").click()
    page.get_by_label("Why").fill("the rule stood on a clip")
    page.get_by_role("dialog").get_by_role("button", name="Set aside").click()
    expect(page.get_by_text("set aside: the rule stood on a clip")).to_be_visible()
    assert Fact.objects.filter(aside__isnull=False).count() == 2


def test_the_page_opens_without_a_connection_and_what_is_typed_there_is_sent_once(desks, line):
    """Cut the connection in the midst of a round, type, close the page, open it again, type on, connect again."""
    phone = desks(PHONE, address=line.address)
    page = phone.page
    workroom = phone.open_demo()
    before = readings().count()
    phone.goto(workroom + "/north/gauge")
    for _ in range(50):
        if page.evaluate("navigator.serviceWorker.ready.then((r) => r.active?.state ?? '')") == "activated":
            break
        page.wait_for_timeout(100)
    phone.watch.cut = True
    line.cut()
    page.keyboard.type("998.0")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status")).to_have_text("1 waiting")
    page.close()

    page = phone.context.new_page()
    page.goto(workroom + "/north/gauge")
    expect(page.get_by_role("status")).to_have_text("1 waiting")
    expect(page.get_by_text("waiting to be sent")).to_be_visible()
    page.get_by_role("button", name="Next station").tap()
    page.keyboard.type("1003.5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status")).to_have_text("2 waiting")
    page.get_by_role("button", name="Found…").tap()
    page.get_by_label("Called").fill("Old pipe")
    page.get_by_role("button", name="Keep").tap()
    page.get_by_role("button", name="Found…").tap()
    page.get_by_label("What it is").select_option("note")
    page.get_by_label("Note", exact=True).fill("Damp under the sill")
    page.get_by_role("button", name="Keep").tap()
    expect(page.get_by_role("status")).to_have_text("4 waiting")
    page.reload()
    expect(page.get_by_text("Damp under the sill")).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("4 waiting")
    assert readings().count() == before

    line.mend()
    expect(page.get_by_role("status")).to_have_text("kept", timeout=15_000)
    facts = [r.fact for r in readings().order_by("-id")[:2]]
    assert [f["entered"] for f in facts] == ["1003.5", "998.0"]
    assert readings().count() == before + 2
    assert [f.fact["name"] for f in Fact.objects.filter(kind="obstacle", fact__name="Old pipe")] == ["Old pipe"]
    assert [f.fact["text"] for f in Fact.objects.filter(kind="note", fact__text__startswith="Damp")] == [
        "Damp under the sill"
    ]


def test_a_mark_changed_here_and_elsewhere_is_shown_with_both_values(desks, line):
    """The outlet is moved on this device with no connection, and by somebody else meanwhile; the user chooses."""
    here = desks(address=line.address)
    page = here.page
    workroom = here.open_demo()
    here.goto(workroom + "/north/gauge")
    here.watch.cut = True
    line.cut()
    page.keyboard.press("n")
    page.get_by_label("Called").fill("Outlet")
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("status")).to_have_text("1 waiting")
    waits = page.evaluate(
        """() => new Promise((done) => {
          const opening = indexedDB.open('wobble');
          opening.onsuccess = () => {
            const all = opening.result.transaction('facts').objectStore('facts').getAll();
            all.onsuccess = () => done(all.result[0]);
          };
        })"""
    )
    place = Place.objects.get(job__name="Gable workroom")
    theirs = waits["fact"] | {"name": "Double outlet", "proud_mm": 12}
    Fact.objects.create(place=place, key=theirs["id"], kind="obstacle", fact=theirs)
    here.watch.expected.add(409)
    line.mend()
    both = page.get_by_role("dialog")
    expect(both.get_by_role("row", name="Name")).to_contain_text("Double outlet", timeout=15_000)
    expect(both.get_by_role("row", name="Stands proud")).to_contain_text("12")
    page.get_by_role("button", name="Keep mine").click()
    expect(both).to_have_count(0)
    expect(page.get_by_role("status")).to_have_text("kept")
    assert Fact.objects.get(fact__supersedes=theirs["id"]).fact["name"] == "Outlet"


def test_two_retakes_of_one_reading_are_shown_with_both_values(table):
    page = table.page
    workroom = table.open_demo()
    for value, by in ((1004.0, "Ines"), (1009.0, "Tomas")):
        fact = Fact.objects.get(place__job__name="Gable workroom", key="gw-03").fact
        again = fact | {"id": f"again-{by}", "supersedes": "gw-03", "value_mm": value, "taken_by": by}
        Fact.objects.create(
            place=Place.objects.get(job__name="Gable workroom"), key=again["id"], kind="offset", fact=again
        )
    Job.objects.filter(name="Gable workroom").update(revision=F("revision") + 1)
    table.goto(workroom + "/north/gauge")
    told = page.get_by_text("Both count until you say which holds")
    expect(told).to_contain_text("1004.0 by Ines")
    expect(told).to_contain_text("1009.0 by Tomas")
    page.get_by_role("button", name="Keep 1004.0").click()
    expect(told).to_be_hidden()
    aside = Fact.objects.get(key="again-Tomas").aside
    assert aside is not None
    assert aside["reason"] == "the other retake holds"


def test_a_crowded_place_is_drawn_and_tells_the_value_under_the_finger(phone, browser):
    """500 readings and 80 obstacles on the phone: one node a mark or a station, and the value at any place."""
    page = phone.page
    phone.open_home()
    table_ids = page.evaluate(
        """async (document) => {
          const { csrf } = await (await fetch('/api/session')).json();
          const headers = { 'X-CSRFToken': csrf, 'Content-Type': 'application/json' };
          return (await fetch('/api/jobs', { method: 'POST', headers, body: document })).json();
        }""",
        write_job(crowded_job()).decode(),
    )
    phone.goto(f"/jobs/{table_ids['id']}/place/gauge")
    drawing = page.locator("svg[role=group]")
    drawing.wait_for()
    assert drawing.evaluate("(e) => e.querySelectorAll('g.obstacle').length") == N_OBSTACLES
    assert drawing.evaluate("(e) => e.querySelectorAll('*').length") < 3000, "what is drawn stays light"
    for key, name in (("c", "cut at"), ("v", "plan at")):
        page.keyboard.press(key)
        section = page.get_by_role("img", name=re.compile(name))
        box = section.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        expect(page.get_by_text(re.compile("Back wall .* ± .* (proud|hollow)"))).to_be_visible()
