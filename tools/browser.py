"""Chromium as the checks drive it, and a watch on a page for all that must not happen."""

from __future__ import annotations

import shutil
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
HERE = {"localhost", "127.0.0.1"}


def launch(playwright: Playwright) -> Browser:
    """Start the system's Chromium."""
    found = shutil.which("chromium") or "/usr/bin/chromium"
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

    def _console(self, message: Any) -> None:
        # Chromium repeats refused requests here, which `_response` judges with their status
        if message.type in ("error", "warning") and "Failed to load resource" not in message.text:
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
