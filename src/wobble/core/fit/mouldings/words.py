"""What is said of the ends of a moulding: beside its part, in its findings and on the cards of the saw."""

from __future__ import annotations

from wobble.core.fit.mouldings.corners import MouldingEnd
from wobble.core.job import SurfaceName, Unit

WAYS: dict[SurfaceName, str] = {"back": "along the back", "left": "round the left end", "right": "round the right end"}


def way_words(along: SurfaceName) -> str:
    """Return along what a length runs."""
    return WAYS.get(along, f"along the {along}")


def end_words(end: MouldingEnd) -> str:
    """Return how an end is cut: flat on its back, and standing as on the wall, whichever the saw takes."""
    settings = f"saw at {end.mitre_deg:.1f}°, blade at {end.bevel_deg:.1f}° flat on its back"
    standing = f"or saw at {end.standing_deg:.1f}° standing as on the wall"
    match end.joint:
        case "square":
            return "square"
        case "coped":
            return f"coped: {settings} first, {standing}; then saw along the edge of its profile, leaning back a little"
        case "mitred":
            return f"inside mitre: {settings}, {standing}; long point at its back"
        case "outside mitre":
            return f"outside mitre: {settings}, {standing}; long point at its face"


def scarf_words(unit: Unit) -> str:
    """Return where a moulding's pieces are joined: over what they are held by."""
    return f"scarfed at 45° over {'a stud' if unit.out_mm <= 0 else 'what it runs before'}"
