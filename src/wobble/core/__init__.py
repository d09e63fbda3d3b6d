"""The core: values in, values out. No Django, no files, no clock but that of a budget, no randomness without a seed.

Whoever uses Wobble as a library imports from here: `load`, `survey`, `solve`. Modules of the core import each other by
their own paths, never this root.
"""

from __future__ import annotations

import importlib
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from wobble.core.face import PlaceSurvey, Suspect, load, solve, survey

__all__ = ["PlaceSurvey", "Suspect", "load", "solve", "survey"]


def __getattr__(name: str) -> object:
    """Return one of the names of the face, brought in when it is asked for: to lay out a list needs no stage."""
    if name in __all__:
        return getattr(importlib.import_module("wobble.core.face"), name)
    raise AttributeError(f"There is no {name} in wobble.core; there are {', '.join(__all__)}.")
