"""The stable names of all that can be told, by stage; a new one is added here and gets its case in the tests."""

from __future__ import annotations

from typing import Literal, get_args

GaugeCode = Literal[
    "bend-seen",
    "edge-or-knock",
    "edge-seen",
    "few-readings",
    "knocked",
    "leaning-line",
    "no-back",
    "no-floor",
    "readings-agree",
    "readings-differ",
    "take-again",
    "thinned",
    "unseen-misread",
]
MakeCode = Literal[
    "all-laid-out",
    "angled-by-hand",
    "assumed-stock",
    "bought-whole",
    "cut-again",
    "heavy-sheet",
    "long-sheet",
    "made-of-several",
    "no-machine",
    "no-room",
    "nothing-made",
    "now-and-later",
    "other-thickness",
    "stock-missing",
    "trim-cut",
    "unknown-cut",
]
SetOutCode = Literal[
    "corner-handles",
    "corner-overlap",
    "fixing-above",
    "gap-between",
    "higher-than-room",
    "larger-than-unit",
    "no-floor-surface",
    "no-opening",
    "no-units",
    "outside",
    "overlap",
    "past-place",
    "under-floor",
    "unusual-height",
]
RodCode = Literal[
    "before-opening",
    "behind-lip",
    "beside-height",
    "boards-cannot",
    "boards-laid",
    "cells-overfull",
    "covering-hits",
    "cut-round",
    "curve-too-round",
    "curved",
    "deck-span",
    "does-not-go-in",
    "drawer-narrow",
    "drawer-too-tall",
    "follows-walls",
    "frame-bends",
    "frame-laid",
    "frame-small",
    "hangs",
    "hangs-between",
    "hinge-not-chosen",
    "hole-edge",
    "hole-on-board",
    "hole-outside",
    "lid-over-seam",
    "lid-room",
    "lid-strip",
    "mirror-image",
    "no-width",
    "past-corner",
    "past-wall-end",
    "peg-heavy",
    "plug-larger",
    "rests-in-ring",
    "rests-on-nothing",
    "rule-lost",
    "rules-disagree",
    "shelf-sags",
    "stack-gives",
    "stack-misses",
    "stack-no-room",
    "stands-in",
    "walls-not-measured",
    "weak-side",
]
LevelCode = Literal[
    "base-height",
    "cut-down",
    "feet",
    "feet-past",
    "height-from-high-spot",
    "height-unknown",
    "heights-from-mark",
    "kit-misses",
    "legs-short",
    "may-touch",
    "packing",
    "packing-deep",
    "shims",
    "too-tall",
    "top-too-low",
    "vague-shims",
]
SideCode = Literal[
    "box-behind-frame",
    "door-swing",
    "drawer-lip",
    "filler",
    "filler-needs",
    "goes-between",
    "into-wall",
    "scrapes",
    "scribe-allowance",
    "too-wide",
    "walls-crossed",
]
FlatCode = Literal["flat-no-room", "moves", "sag", "seam", "top-goes", "top-stuck"]
MouldingCode = Literal[
    "moulding-bends",
    "moulding-ceiling",
    "moulding-corner",
    "moulding-curve",
    "moulding-laid",
    "moulding-opens",
    "moulding-springs",
]
OverheadCode = Literal["rack", "rack-ceiling-unknown", "rack-into-ceiling"]
AccessCode = Literal["goes-in", "stuck"]
CutoutCode = Literal[
    "access-hole",
    "access-panel",
    "air",
    "beside-clear",
    "beside-tight",
    "hatch",
    "moved-first",
    "notch",
    "notch-clear",
    "notch-too-deep",
    "outlet-buried",
    "outlet-notch",
    "radiator-covered",
    "skirting-clear",
    "skirting-hold-back",
    "skirting-notch",
    "taken-out",
    "under-board",
    "under-board-tight",
    "vent-buried",
    "vent-ducted",
    "vent-grille-long",
    "wire-bridged",
    "wire-clear",
]
HoldCode = Literal[
    "cleat-held",
    "cleat-not-held",
    "contents-assumed",
    "ends-loose",
    "floor-held",
    "floor-not-held",
    "found-disagrees",
    "found-odd",
    "held",
    "held-if-found",
    "held-mind",
    "joists-other-way",
    "kit-misses-packing",
    "kit-short",
    "nail-plate",
    "nailers",
    "nailing-unknown",
    "no-plan",
    "not-enough",
    "not-held",
    "rack-held",
    "rack-not-held",
    "side-held",
    "side-not-held",
]
OrderCode = Literal[
    "all-done",
    "alone",
    "dropped",
    "dries",
    "ends",
    "late",
    "no-session",
    "not-turned",
    "ring",
    "sessions-assumed",
    "step-unknown",
    "trade-no-date",
    "turned",
    "visit-early",
]
SetCode = Literal["all-true", "found-otherwise", "set-out-of-true", "stands-otherwise", "still-to-check"]
Code = (
    GaugeCode
    | MakeCode
    | SetOutCode
    | RodCode
    | LevelCode
    | SideCode
    | FlatCode
    | MouldingCode
    | OverheadCode
    | AccessCode
    | CutoutCode
    | HoldCode
    | OrderCode
    | SetCode
)
Subject = Literal[
    "the readings",
    "what is made",
    "what is set out",
    "heights and shims",
    "between the walls",
    "tops and shelves",
    "mouldings",
    "overhead",
    "the way in",
    "what is in the way",
    "what holds",
    "the order of work",
    "how it stands",
]
_SUBJECTS: tuple[tuple[object, Subject], ...] = (
    (GaugeCode, "the readings"),
    (MakeCode, "what is made"),
    (SetOutCode, "what is set out"),
    (RodCode, "what is set out"),
    (LevelCode, "heights and shims"),
    (SideCode, "between the walls"),
    (FlatCode, "tops and shelves"),
    (MouldingCode, "mouldings"),
    (OverheadCode, "overhead"),
    (AccessCode, "the way in"),
    (CutoutCode, "what is in the way"),
    (HoldCode, "what holds"),
    (OrderCode, "the order of work"),
    (SetCode, "how it stands"),
)
SUBJECT_OF: dict[str, Subject] = {code: subject for codes, subject in _SUBJECTS for code in get_args(codes)}
"""What each code is about."""
