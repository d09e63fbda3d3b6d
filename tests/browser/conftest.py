"""The real interface in headless Chromium, on the built front end."""

from __future__ import annotations

from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright
from tools.browser import PHONE, TABLE, Watch, launch, overflow

from tests.browser.line import Line

expect.set_options(timeout=15_000)  # a busy machine is not a fault of the page

RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
FOLLOW = (
    """(to) => { history.pushState(null, '', to); dispatchEvent(new PopStateEvent('popstate')); scrollTo(0, 0); }"""
)
SHIFTS = """window.moved = [];
const said = ({ node }) => (node?.parentElement ?? node)?.textContent.trim().slice(0, 60);
new PerformanceObserver((list) => list.getEntries().forEach((shift) => {
  if (!shift.hadRecentInput && shift.value > 0.01) window.moved.push(shift.sources.map(said).join('; '));
})).observe({ type: 'layout-shift', buffered: true });"""
AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


@pytest.fixture(scope="session")
def browser():
    with sync_playwright() as playwright:
        found = launch(playwright)
        yield found
        found.close()


class Desk:
    """A window on the site, and what may not happen in it."""

    def __init__(self, browser: Browser, address: str, screen: dict[str, Any], **options: Any) -> None:
        self.context = browser.new_context(**screen, base_url=address, reduced_motion="reduce", **options)
        self.context.add_init_script(SHIFTS)
        self.page: Page = self.context.new_page()
        self.watch = Watch(self.page)

    def open_demo(self) -> str:
        """Sign in as the demo's button does and return the workroom's address; `test_access` presses it."""
        call = self.context.request
        token = call.get("/api/session").json()["csrf"]
        call.post("/api/session/demo", headers={"X-CSRFToken": token})
        return "/jobs/" + next(str(j["id"]) for j in call.get("/api/jobs").json() if j["name"] == "Gable workroom")

    def open_home(self) -> str:
        """Be at the demo's list of jobs, signed in, and return the workroom's address."""
        workroom = self.open_demo()
        self.goto("/")
        return workroom

    def goto(self, path: str) -> None:
        """Go to a page as a link of ours leads there; the first one, or the one that is open, is loaded anew."""
        inside = urlsplit(self.page.url).path != path and self.page.locator("header.head").count() > 0
        if inside:
            self.page.evaluate(FOLLOW, path)
        else:
            self.page.goto(path)
        self.watch.still()

    def unfold(self, name: str) -> None:
        """Open what is folded under a name on a job's page."""
        self.page.locator("summary", has=self.page.get_by_role("heading", name=name)).click()

    def moved(self) -> list[str]:
        """Return what moved from under the finger since this was asked last, while nobody touched anything."""
        return [f"{what} moved" for what in self.page.evaluate("window.moved.splice(0)")]

    def audit(self, **options: Any) -> list[dict[str, Any]]:
        """Return what axe finds with such options."""
        if not self.page.evaluate("'axe' in window"):
            self.page.evaluate(AXE.read_text())
        found: list[dict[str, Any]] = self.page.evaluate("options => axe.run(options)", options)["violations"]
        return found

    def barriers(self, *, colours: bool = True) -> list[str]:
        """Return what axe finds against WCAG 2.2 AA and its own good practice, and sideways overflow.

        Looking at the colours takes as long as all else: once is enough for what is drawn alike on two screens.
        """
        left_out = {} if colours else {"color-contrast": {"enabled": False}}
        found = self.audit(runOnly=RULES, rules=left_out, resultTypes=["violations"])
        faults = [f"{v['id']}: {v['nodes'][0]['html'][:160]} {v['nodes'][0]['failureSummary']}" for v in found]
        return faults + ([f"{overflow(self.page)} px too wide"] if overflow(self.page) > 0 else [])


@pytest.fixture
def desks(browser, live_server):
    """Make windows; none of them may end with a fault."""
    made: list[Desk] = []

    def make(screen: dict[str, Any] | None = None, address: str | None = None, **options: Any) -> Desk:
        # only who may lose the connection keeps the page on the device: that takes all of its files
        options.setdefault("service_workers", "allow" if address else "block")
        desk = Desk(browser, address or live_server.url, screen or TABLE, **options)
        made.append(desk)
        return desk

    yield make
    faults = [fault for desk in made for fault in desk.watch.faults]
    for desk in made:
        desk.context.close()
    assert not faults


@pytest.fixture
def line(live_server):
    """A line to the server that can be cut."""
    made = Line(int(live_server.url.rsplit(":", 1)[1]))
    yield made
    made.cut()


@pytest.fixture
def table(desks):
    """A window of 1280×800."""
    return desks()


@pytest.fixture
def phone(desks):
    """A window of 390×844, by touch."""
    return desks(PHONE)
