"""Tab, as who uses no mouse presses it: forth or back, whichever is nearer."""

from __future__ import annotations

from playwright.sync_api import Locator, Page

MOST_PRESSED = 200
AWAY = """e => {
  const reached = 'a[href], button, input, select, textarea, summary, [tabindex]';
  const all = [...document.querySelectorAll(reached)]
    .filter((x) => x.tabIndex >= 0 && !x.disabled && !x.closest('[inert]'))
    .filter((x) => x.checkVisibility({ visibilityProperty: true }));
  return all.indexOf(e) - all.indexOf(document.activeElement);
}"""
SEEN = """e => {
  if (e.closest('svg')) return true;  // a drawing tells it by other colours
  const s = getComputedStyle(e), around = e.closest('label, .bx--list-box, .bx--form-item') ?? e;
  const a = getComputedStyle(around);
  return s.outlineStyle !== 'none' || s.boxShadow !== 'none' || a.outlineStyle !== 'none' || a.boxShadow !== 'none';
}"""


def tab_to(page: Page, what: Locator) -> None:
    """Press Tab or Shift and Tab until something has the focus, and look that one sees so.

    How far it is, is counted on the page; that it is reached is seen by pressing alone.
    """
    what.first.wait_for()
    pressed = 0
    while pressed < MOST_PRESSED and not what.first.evaluate("e => e === document.activeElement"):
        away = what.first.evaluate(AWAY) or 1
        for _ in range(abs(away)):
            page.keyboard.press("Tab" if away >= 0 else "Shift+Tab")
            pressed += 1
    assert what.first.evaluate("e => e === document.activeElement"), f"no Tab leads to {what}"
    assert what.first.evaluate(SEEN), f"nobody sees that {what} has the focus"


def enter(page: Page, what: Locator) -> None:
    """Go to something by Tab and press Enter."""
    tab_to(page, what)
    page.keyboard.press("Enter")
