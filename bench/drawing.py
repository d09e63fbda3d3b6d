"""How long the page takes to redraw on a phone: a place of 500 readings and 80 obstacles beside the demo place.

The processor is slowed four times, as phones are; each figure is the median from a turned wobble to the next frame.
"""

from __future__ import annotations

import json
from typing import Any

import numpy as np
from msgspec.structs import replace
from playwright.sync_api import Page, sync_playwright
from tools.browser import PHONE, launch
from tools.look import demo_server

from bench.speed import Timing, room_with
from wobble.core.formats.document import write_job
from wobble.core.job import Job, Obstacle, with_facts
from wobble.core.practice.gable import gable_workroom

SLOWED = 4
N_READINGS, N_OBSTACLES = 500, 80
REDRAW = """async () => {
  const slider = document.querySelector('input[aria-label="Exaggeration"]');
  const took = [];
  for (let i = 0; i < 30; i += 1) {
    const began = performance.now();
    slider.value = String(10 + i);
    slider.dispatchEvent(new Event('input', { bubbles: true }));
    await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
    took.push(performance.now() - began);
  }
  return took;
}"""


def crowded_job() -> Job:
    """Return a job whose place has 500 readings and 80 obstacles."""
    job, rng = room_with(N_READINGS), np.random.default_rng(5)
    place = job.places[0]
    obstacles = tuple(
        Obstacle(
            taken_at=place.facts[0].taken_at,
            id=f"m-{i}",
            name=f"Outlet {i}",
            kind="outlet",
            surface="back",
            at=(float(rng.uniform(0, place.width_mm - 90)), float(rng.uniform(0, place.height_mm - 90))),
            size=(86.0, 86.0),
        )
        for i in range(N_OBSTACLES)
    )
    units = gable_workroom().places[0].units
    return replace(job, name="Crowded", places=(with_facts(replace(place, units=units), (Obstacle,), obstacles),))


def redraws() -> list[Timing]:
    """Time a redraw of the crowded place and of the demo place on a slowed phone."""
    with demo_server() as address, sync_playwright() as playwright:
        browser = launch(playwright)
        page = browser.new_context(**_phone(), base_url=address).new_page()
        page.goto("/")
        page.get_by_role("button", name="Open the demo").click()
        page.get_by_role("heading", name="Jobs").wait_for()
        jobs = page.evaluate("fetch('/api/jobs').then((r) => r.json())")
        demo = next(j["id"] for j in jobs if j["name"] == "Gable workroom")
        crowded = _import(page, crowded_job())
        page.context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": SLOWED})
        plain = _median(page, f"/jobs/{demo}/north/gauge")
        full = _median(page, f"/jobs/{crowded}/place/gauge")
        browser.close()
    return [Timing(f"{N_READINGS} readings, {N_OBSTACLES} obstacles", full, "the demo place", plain)]


def _phone() -> dict[str, Any]:
    return dict(PHONE)


def _import(page: Page, job: Job) -> str:
    document = json.loads(write_job(job))
    answer = page.evaluate(
        """async (document) => {
          const { csrf } = await (await fetch('/api/session')).json();
          const headers = { 'X-CSRFToken': csrf, 'Content-Type': 'application/json' };
          return (await fetch('/api/jobs', { method: 'POST', headers, body: JSON.stringify(document) })).json();
        }""",
        document,
    )
    return str(answer["id"])


def _median(page: Page, path: str) -> float:
    page.goto(path, wait_until="networkidle")
    page.get_by_role("button", name="Drawing", exact=True).click()
    page.get_by_label("Exaggeration").wait_for()
    return float(np.median(page.evaluate(REDRAW)))
