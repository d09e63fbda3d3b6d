"""Write what others read: the OpenAPI document, the JSON Schema of the job document, what forms need to know."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, get_args

import django
import msgspec

from wobble.core import confidence, facts
from wobble.core.formats.document import job_schema
from wobble.core.hold.result import CEILING, FLOOR
from wobble.core.job import backing, board, decided, framing, insides, place, rules, sessions, unit, workshop
from wobble.core.setout.curves import EDGES

ROOT = Path(__file__).resolve().parents[1]
OPENAPI = ROOT / "web" / "openapi.json"
FIELDS = ROOT / "web" / "src" / "api" / "fields.ts"
WORDS = ROOT / "web" / "src" / "words" / "words.json"
GLOSSARY = ROOT / "docs" / "words.md"
JOB_SCHEMA = ROOT / "docs" / "schema" / "job.schema.json"


def openapi() -> str:
    """Return the OpenAPI document as it is written."""
    from wobble.site.api.main import api  # needs Django to be set up

    return json.dumps(api.get_openapi_schema(), indent=2, sort_keys=True) + "\n"


OPTIONS: dict[str, Any] = {
    "unitKinds": unit.UnitKind,
    "contents": unit.Contents,
    "opens": unit.Opens,
    "materials": board.MaterialName,
    "obstacleKinds": facts.ObstacleKind,
    "treatments": facts.Treatment,
    "backingKinds": backing.BackingKind,
    "woods": backing.Species,
    "serviceRules": backing.ServiceRule,
    "runs": backing.Runs,
    "foundBy": facts.FoundBy,
    "sees": facts.Sees,
    "splits": decided.Split,
    "hinges": insides.Hinge,
    "hangs": insides.Hangs,
    "lies": insides.Lies,
    "slideKinds": insides.SlideKind,
    "backs": insides.BackName,
    "holeKinds": insides.HoleKind,
    "holesInside": insides.HoleIn,
    "members": rules.MemberName,
    "fastenedTo": unit.FastenedTo,
    "sideMethods": decided.SideMethodName,
    "packOfs": workshop.PackOf,
    "finishKinds": workshop.FinishKind,
    "machineKinds": workshop.MachineKind,
    "aims": workshop.Aim,
    "weekdays": sessions.Weekday,
    "airs": sessions.Air,
    "finishings": sessions.Finishing,
    "skills": sessions.Skill,
    "wheres": sessions.Where,
}
DEFAULTS: dict[str, msgspec.Struct] = {
    "walls": backing.Backing(),
    "ceiling": CEILING,
    "floor": FLOOR,
    "anchor": backing.Anchor(),
    "sheet": workshop.SheetStock(id="x", name="Sheet"),
    "length": workshop.LengthStock(id="x", name="Length"),
    "pack": workshop.Pack(id="x", name="Pack"),
    "tin": workshop.Finish(id="x", name="Tin"),
    "machine": workshop.Machine(id="x", name="Machine"),
    "closing": decided.Closing(),
    "construction": insides.Construction(id="plain", name="Sides through, back in a groove"),
    "door": insides.Door(),
    "shelved": insides.Shelved(),
    "drawers": insides.Drawers(),
    "pullOut": insides.PullOut(),
    "cell": insides.Cell(),
    "board": board.Board(),
    "framing": framing.Framing(),
    "boarding": framing.Boarding(),
    "trim": framing.TrimSet(),
    "moulding": framing.Moulding(),
    "hangingWall": framing.HangingWall(),
    "sessions": sessions.Sessions(),
    "habit": sessions.Habit(id="x", name="Evening", days=("tue",)),
    "oneOff": sessions.OneOff(id="x", name="Long day", on="2026-01-03"),
    "visit": sessions.Visit(id="x", name="Electrician", on="2026-01-05"),
    "ownStep": sessions.OwnStep(id="x", name="Step"),
}


def fields() -> str:
    """Return what forms need to know of the core: options, defaults, limits, and how sure is sure."""
    limits = {
        kind.__name__: found
        for kind in (
            unit.Unit,
            board.Board,
            backing.Backing,
            backing.Anchor,
            decided.Closing,
            place.Place,
            facts.Obstacle,
        )
        if (found := _limits(kind))
    }
    standing = {
        tag: made for made in get_args(unit.Standing) for tag in (made.__struct_config__.tag,) if tag != "pieces"
    }
    parts = {
        "SURE": confidence.SURE,
        "SURE_TO_BITE": confidence.SURE_TO_BITE,
        "OPTIONS": {name: list(get_args(alias)) for name, alias in OPTIONS.items()},
        "DEFAULTS": {name: msgspec.to_builtins(value) for name, value in DEFAULTS.items()},
        "STANDING": {tag: msgspec.to_builtins(made()) for tag, made in standing.items()},
        "LIMITS": limits,
        "CURVED_EDGES": EDGES,
        "BODIES": unit.BODIES,
    }
    lines = ["/** What forms need to know of the core. Written by `./run api`; never by hand. */"]
    for name, value in parts.items():
        inner = _lines(value) if isinstance(value, dict) else json.dumps(value, ensure_ascii=False)
        lines.append(f"export const {name} = {inner} as const;")
    return "\n".join(lines) + "\n"


def _lines(values: dict[str, Any]) -> str:
    """Return an object a line per name: what changes is seen in one line."""
    return (
        "{\n" + "".join(f"  {json.dumps(k)}: {json.dumps(v, ensure_ascii=False)},\n" for k, v in values.items()) + "}"
    )


def glossary() -> str:
    """Return the words that the screens explain, for whoever reads about Wobble."""
    words = sorted(json.loads(WORDS.read_text()), key=lambda w: w["word"].lower())
    lines = ["# Words", "", "As Wobble uses them, on its screens and in its documents. Written by `./run api`.", ""]
    return "\n".join([*lines, *(f"- **{w['word']}**: {w['means']}" for w in words)]) + "\n"


def _limits(kind: type[msgspec.Struct]) -> dict[str, dict[str, float]]:
    """Return the least and the most of every number of a struct, by the schema's own words."""
    schema = msgspec.json.schema(kind)["$defs"][kind.__name__]["properties"]
    names = {"minimum": "least", "exclusiveMinimum": "above", "maximum": "most", "exclusiveMaximum": "below"}
    out = {}
    for name, field in schema.items():
        choices = [field, *field.get("anyOf", ())]
        found = {ours: c[theirs] for c in choices for theirs, ours in names.items() if theirs in c}
        if found:
            out[name] = found
    return out


def main() -> None:
    """Write all."""
    django.setup()
    OPENAPI.write_text(openapi())
    JOB_SCHEMA.parent.mkdir(parents=True, exist_ok=True)
    JOB_SCHEMA.write_bytes(job_schema())
    FIELDS.write_text(fields())
    GLOSSARY.write_text(glossary())


if __name__ == "__main__":
    main()
