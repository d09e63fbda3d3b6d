"""Chromium as the checks drive it, and a watch on a page for all that must not happen."""

from __future__ import annotations

import shutil
from time import monotonic
from typing import Any
from urllib.parse import urlsplit

from playwright.sync_api import Browser, Error, Page, Playwright, Response

ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
TABLE: dict[str, Any] = {"viewport": {"width": 1280, "height": 800}}
PHONE: dict[str, Any] = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
LONGEST_S, QUIET_S = 20.0, 0.12
HERE = {"localhost", "127.0.0.1"}


def launch(playwright: Playwright) -> Browser:
    """Start the system's Chromium; the one without a window of its own, where both are there."""
    found = next(filter(None, map(shutil.which, ("chromium-headless-shell", "chromium"))), "/usr/bin/chromium")
    return playwright.chromium.launch(executable_path=found, args=ARGUMENTS)


class Watch:
    """Faults of a page: errors of scripts and the console, refused or failed requests, requests that leave the machine.

    `expected` holds statuses that a test provokes on purpose.
    """

    def __init__(self, page: Page) -> None:
        """Begin to watch."""
        self.faults: list[str] = []
        self.expected: set[int] = set()
        self.cut = False
        page.on("pageerror", lambda error: self.faults.append(f"script: {error}"))
        page.on("console", self._console)
        page.on("request", lambda request: self._leaves(request.url))
        page.on("response", self._response)
        page.on("requestfailed", lambda request: self._failed(request.url, str(request.failure)))
        self._page = page
        self._under_way: set[Any] = set()
        self._since = monotonic()
        page.on("request", lambda request: self._at_work(request, more=True))
        page.on("requestfinished", lambda request: self._at_work(request, more=False))
        page.on("requestfailed", lambda request: self._at_work(request, more=False))

    def _at_work(self, request: Any, *, more: bool) -> None:
        (self._under_way.add if more else self._under_way.discard)(request)
        self._since = monotonic()

    def still(self) -> None:
        """Wait until the page asks for nothing any more, and has drawn what it got.

        The driver's own wait for an idle network takes half a second longer, hundreds of times a run.
        """
        self._since = monotonic()
        ends = self._since + LONGEST_S
        while monotonic() < ends and (self._under_way or monotonic() - self._since < QUIET_S):
            self._page.wait_for_timeout(QUIET_S * 500)  # twice in a quiet time: each look costs both sides a message
        self._page.evaluate("new Promise((done) => requestAnimationFrame(() => setTimeout(done)))")

    def _console(self, message: Any) -> None:
        # Chromium repeats refused requests here, which `_response` judges with their status
        expected = ("Failed to load resource", "Service Worker registration blocked")
        if message.type in ("error", "warning") and not any(text in message.text for text in expected):
            self.faults.append(f"console: {message.text}")

    def _leaves(self, url: str) -> None:
        parts = urlsplit(url)
        if parts.scheme in ("http", "https", "ws", "wss") and parts.hostname not in HERE:
            self.faults.append(f"leaves the machine: {url}")

    def _response(self, response: Response) -> None:
        if response.status >= 400 and response.status not in self.expected:
            self.faults.append(f"{response.status}: {response.url} {self._said(response)}")

    @staticmethod
    def _said(response: Response) -> str:
        try:
            return response.text()[:300]
        except Error:  # the page has gone on, and its answers with it
            return ""

    def _failed(self, url: str, why: str) -> None:
        if "ERR_ABORTED" not in why and not self.cut:  # a page that moves on lets its requests go
            self.faults.append(f"failed: {url} ({why})")


def overflow(page: Page) -> int:
    """Return by how many pixels the page is wider than its window."""
    return int(page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth"))
