"""What all tests share."""

from __future__ import annotations

import os
from pathlib import Path

import pytest
from hypothesis import settings
from xdist.remote import Producer
from xdist.scheduler import LoadScopeScheduling

# Playwright runs its own event loop in the thread of the browser tests, where Django would refuse the ORM.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"

settings.register_profile("wobble", deadline=None)  # a busy machine is not a fault of what is tested
settings.load_profile("wobble")

HERE = Path(__file__).parent
BUILT_ONCE = {
    path.relative_to(HERE.parent).as_posix()
    for path in HERE.rglob("test_*.py")
    if 'fixture(scope="module")' in path.read_text()
}
"""Files whose tests share what takes long to build."""


WAITS = "tests/site/test_server.py"
"""Most of its time goes by while a server starts, stops or is dripped at."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Begin with what takes long in one process: at the end all others would wait for it."""
    items.sort(key=lambda item: item.nodeid.split("::", 1)[0] not in {WAITS, *BUILT_ONCE})


class BuiltOnce(LoadScopeScheduling):  # type: ignore[misc]
    """Hands tests out one by one, but all of such a file to one process (xdist's own groups do nothing in pytest 9)."""

    def _split_scope(self, nodeid: str) -> str:
        file = nodeid.split("::", 1)[0]
        return file if file in BUILT_ONCE else nodeid


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config: pytest.Config, log: Producer) -> BuiltOnce:
    """Return what decides which process a test goes to."""
    return BuiltOnce(config, log)
