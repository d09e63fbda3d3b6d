"""Papers: what they say can be read by another reader, is what the answer says, and is drawn to the scale it states."""

from __future__ import annotations

import io
import re

import pytest
from pypdf import PdfReader


@pytest.fixture
def read(ines):
    stored = ines.import_job()
    path = f"/api/jobs/{stored['id']}"
    made = ines.get(f"/jobs/{stored['id']}/make")[1]

    def of(what: str) -> PdfReader:
        response = ines.client.get(f"{path}/papers/{what}.pdf")
        assert response["Content-Type"] == "application/pdf"
        return PdfReader(io.BytesIO(response.content))

    return made, of


def words(pdf: PdfReader) -> str:
    return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in pdf.pages))


def test_the_parts_list_has_every_part_that_is_still_to_be_cut(read):
    made, of = read
    text = words(of("parts"))
    assert all(f"{p['mark']} " in text for p in made["parts"] if p["to_cut"])
    assert "Not yet: " in text
    assert "revision 1" in text


def test_cut_diagrams_state_their_scale_and_are_drawn_to_it(read):
    made, of = read
    pdf = of("sheets")
    first = pdf.pages[0]
    stated = re.search(r"Scale 1 : (\d+)", first.extract_text())
    assert stated is not None
    scale = int(stated[1])
    drawn = [
        tuple(map(float, m))
        for m in re.findall(rb"([\d.]+) ([\d.]+) ([\d.]+) ([\d.]+) re", first.get_contents().get_data())
    ]
    long, wide = drawn[0][2] / 72 * 25.4, drawn[0][3] / 72 * 25.4
    sheet = made["layout"]["sheets"][0]
    assert long == pytest.approx(sheet["long_mm"] / scale, abs=0.05)
    assert wide == pytest.approx(sheet["wide_mm"] / scale, abs=0.05)
    assert "This bar is 100 mm long" in first.extract_text()
    assert len(pdf.pages) == len(made["layout"]["sheets"]) + 1  # and the boards
    assert pdf.trailer["/Root"]["/ViewerPreferences"]["/PrintScaling"] == "/None"


def test_every_piece_has_a_label(read):
    made, of = read
    labels = of("labels")
    # a code is drawn once for each part, however many pieces of it there are
    codes = {name for page in labels.pages for name in page["/Resources"]["/XObject"]}
    assert len(codes) == len(made["parts"])
    text = words(labels)
    for part in made["parts"]:
        assert len(re.findall(rf"\b{part['mark']}\b", text)) >= part["part"]["quantity"]


def test_settings_and_shopping_say_what_the_screen_says(read):
    made, of = read
    text = words(of("settings"))
    assert all(f"{s['at_mm']:.1f}".rstrip("0").rstrip(".") in text for s in made["settings"] if s["at_mm"])
    shopping = words(of("shopping"))
    assert "Timber yard at the mill" in shopping
    assert made["buying"]["why"].split(";")[0] in shopping


def test_an_order_lists_finished_sizes_of_what_a_maker_makes(ines):
    stored = ines.import_job()
    was = stored["job"]["workshop"]
    now = was | {"got": [{"part": "north/door-B-main-left", "how": "bought", "price": 40.0}]}
    status, _ = ines.put(f"/jobs/{stored['id']}/workshop", {"was": {"workshop": was}, "now": {"workshop": now}})
    assert status == 200
    response = ines.client.get(f"/api/jobs/{stored['id']}/papers/order.pdf")
    text = words(PdfReader(io.BytesIO(response.content)))
    assert "door left of B Press" in text
    assert "724 mm × 397 mm" in text
    assert "2 cups of 35 mm" in text
