"""Take a picture of every main view, made from the demo data on a throwaway server, and check each.

A view fails on an error in the console, on a request that leaves the machine, and where it is wider than its window.
"""

from __future__ import annotations

import argparse
import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, expect, sync_playwright

from tools.browser import PHONE, TABLE, Watch, launch, overflow

ROOT = Path(__file__).resolve().parents[1]
KEPT = ROOT / "docs" / "screenshots"
PLACE = "/jobs/{workroom}/north"
JOBS = {
    "workroom": "Gable workroom",
    "vestry": "Vestry press",
    "galley": "Narrowboat galley",
    "cabin": "Signal cabin",
    "loft": "Drying loft",
}


@dataclass(frozen=True)
class View:
    """One picture: its name, its address, what is done there first, on which screen, and whether it is kept."""

    name: str
    address: str
    steps: Callable[[Page], None] = lambda _page: None
    screen: str = "table"
    dark: bool = False
    signed_in: bool = True
    kept: bool = True


def _open_tools(page: Page) -> None:
    page.get_by_role("button", name="C Tools", exact=True).click()
    page.get_by_role("button", name="Cell 0,").click()
    page.wait_for_timeout(400)


def _type_a_reading(page: Page) -> None:
    page.keyboard.type("1004.5")


def _open_screw(page: Page) -> None:
    page.get_by_role("button", name="Screw 9, bites").first.click()


def _to_drilling(page: Page) -> None:
    parts = page.get_by_role("group", name="Parts of the hold")
    parts.evaluate("e => scrollTo(0, e.getBoundingClientRect().top + scrollY - 60)")


def _part(name: str) -> Callable[[Page], None]:
    """Open one of the parts under the drawing, and bring it into the window."""

    def steps(page: Page) -> None:
        parts = page.get_by_role("group", name="Parts of the fit")
        parts.get_by_role("button", name=name).click()
        page.wait_for_timeout(300)
        parts.evaluate("e => scrollTo(0, e.getBoundingClientRect().top + scrollY - 60)")

    return steps


def _open_a_part(page: Page) -> None:
    page.get_by_role("button", name="bottom").first.click()


def _second_sheet(page: Page) -> None:
    page.get_by_role("group", name="Parts of making").get_by_role("button", name="Sheets").click()
    page.get_by_role("group", name="Sheets").get_by_role("button").nth(1).click()


def _a_setting(page: Page) -> None:
    page.get_by_role("group", name="Parts of making").get_by_role("button", name="Settings").click()
    page.get_by_role("group", name="Kinds of work").get_by_role("button", name="cross-cut").click()
    page.wait_for_timeout(200)


def _the_rods(page: Page) -> None:
    page.get_by_role("group", name="Parts of the order").get_by_role("button", name="The whole").click()
    page.wait_for_timeout(200)
    page.get_by_role("button", name=" Set B Platform, ").first.click()
    page.wait_for_timeout(200)


def _the_sessions(page: Page) -> None:
    page.get_by_role("group", name="Parts of the order").get_by_role("button", name="Sessions").click()
    page.wait_for_timeout(200)


def _first_check(page: Page) -> None:
    page.get_by_role("button", name="Begin with the first check").click()
    page.wait_for_timeout(200)


def _a_check(page: Page) -> None:
    page.get_by_role("button", name="A Drawers: 0 out").click()
    page.get_by_role("button", name="level along").first.click()
    page.keyboard.type("2.6")
    page.keyboard.press("Enter")
    page.get_by_text("Now", exact=True).wait_for()
    page.wait_for_timeout(500)


def _practise(page: Page) -> None:
    """Begin a practice, read three spots, and let the apprentice read the rest."""
    page.get_by_role("button", name="In millimetres").click()
    bar = page.get_by_role("complementary", name="Practice")
    for i in range(3):
        bar.get_by_text(f"{i} of 3").wait_for()
        bar.get_by_role("button", name="Read it here").click()
        expect(page.locator("[data-pad]")).not_to_have_value("")
        page.get_by_role("button", name="Record").click()
    bar.get_by_role("button", name="Let him read").click()
    page.get_by_text("which disagrees").wait_for()


VIEWS = (
    View("sign-in", "/", signed_in=False, kept=False),
    View("jobs", "/"),
    View("job", "/jobs/{workroom}"),
    View("starters", "/jobs/{workroom}/new"),
    View("set-out", "/jobs/{cabin}/south-bench/setout"),
    View("set-out-inside", "/jobs/{cabin}/south-bench/setout", _open_tools),
    View("set-out-phone", "/jobs/{loft}/north-end/setout", screen="phone", kept=False),
    View("gauge", PLACE + "/gauge", _type_a_reading),
    View("fit", PLACE + "/fit"),
    View("fit-sides", "/jobs/{vestry}/alcove/fit", _part("Sides")),
    View("fit-galley", "/jobs/{galley}/galley/fit", kept=False),
    View("fit-dark", PLACE + "/fit", dark=True),
    View("hold", PLACE + "/hold", _open_screw),
    View("make", "/jobs/{workroom}/make", _open_a_part),
    View("make-sheets", "/jobs/{workroom}/make", _second_sheet),
    View("make-phone", "/jobs/{workroom}/make", _a_setting, screen="phone"),
    View("gauge-phone", PLACE + "/gauge", screen="phone"),
    View("fit-phone", PLACE + "/fit", screen="phone"),
    View("hold-phone", PLACE + "/hold", _to_drilling, screen="phone", kept=False),
    View("order", "/jobs/{cabin}/order", _the_rods),
    View("order-phone", "/jobs/{cabin}/order", screen="phone"),
    View("order-sessions", "/jobs/{workroom}/order", _the_sessions, kept=False),
    View("set", PLACE + "/set", _a_check),
    View("set-phone", PLACE + "/set", _first_check, screen="phone", kept=False),
    View("practice", "/", _practise),
    View("words", "/words", kept=False),
    View("rod", PLACE + "/rods/long", kept=False),
    View("record", "/jobs/{loft}/record", kept=False),
)


def free_port() -> int:
    """Return a port that nothing listens on."""
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


@contextmanager
def demo_server() -> Iterator[str]:
    """Run `./run demo` on a free port with its data in a throwaway folder; give its address."""
    port = free_port()
    with tempfile.TemporaryDirectory(prefix="wobble-look-") as data:
        env = {**os.environ, "WOBBLE_DATA": data}
        server = subprocess.Popen([sys.executable, str(ROOT / "run"), "demo", str(port)], env=env, cwd=ROOT)
        try:
            address = f"http://127.0.0.1:{port}"
            _await(address, server)
            yield address
        finally:
            server.terminate()
            server.wait(20)


def _await(address: str, server: subprocess.Popen[bytes]) -> None:
    deadline = time.monotonic() + 120
    while time.monotonic() < deadline and server.poll() is None:
        try:
            with urllib.request.urlopen(address + "/api/session", timeout=2):  # noqa: S310
                return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError("the demo server did not start")


def take(browser: Browser, address: str, view: View, folder: Path) -> list[str]:
    """Take one picture; return its faults."""
    screen: dict[str, Any] = PHONE if view.screen == "phone" else TABLE
    context = browser.new_context(**screen, color_scheme="dark" if view.dark else "light", reduced_motion="reduce")
    page = context.new_page()
    watch = Watch(page)
    page.goto(address + "/")
    ids = {}
    if view.signed_in:
        page.get_by_role("button", name="Open the demo").click()
        page.get_by_role("heading", name="Jobs").wait_for()
        jobs = page.evaluate("fetch('/api/jobs').then((r) => r.json())")
        ids = {name: next(j["id"] for j in jobs if j["name"] == title) for name, title in JOBS.items()}
    page.goto(address + view.address.format(**ids), wait_until="networkidle")
    page.evaluate("document.fonts.ready")
    view.steps(page)
    page.wait_for_timeout(150)
    page.screenshot(path=folder / f"{view.name}.png")
    wide = overflow(page)
    context.close()
    return watch.faults + ([f"{wide} px too wide"] if wide > 0 else [])


def main() -> int:
    """Take all pictures, or those named."""
    parser = argparse.ArgumentParser(prog="./run look", description=__doc__)
    parser.add_argument("--keep", action="store_true", help="write into docs/screenshots")
    parser.add_argument("views", nargs="*", help="only these views")
    options = parser.parse_args()
    folder = KEPT if options.keep else Path(tempfile.mkdtemp(prefix="wobble-look-"))
    folder.mkdir(parents=True, exist_ok=True)
    failed = 0
    with demo_server() as address, sync_playwright() as playwright:
        browser = launch(playwright)
        for view in VIEWS:
            if (options.views and view.name not in options.views) or (options.keep and not view.kept):
                continue
            faults = take(browser, address, view, folder)
            failed += bool(faults)
            print(f"{'FAIL' if faults else 'ok  '} {view.name}", *(f"\n     {fault}" for fault in faults), flush=True)
        browser.close()
    print(f"· pictures are in {folder}")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
