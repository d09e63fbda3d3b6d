"""The core: values in, values out. No Django, no files, no clock, no randomness without a seed.

Whoever uses Wobble as a library imports from here: `load`, `survey`, `solve`. Modules of the core import each other by
their own paths, never this root.
"""

from __future__ import annotations

from wobble.core.face import PlaceSurvey, Suspect, load, solve, survey

__all__ = ["PlaceSurvey", "Suspect", "load", "solve", "survey"]
