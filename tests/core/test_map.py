"""The map names modules that are there, and every module of the core has its place on it."""

from __future__ import annotations

import re
from pathlib import Path

ROOT = Path(__file__).parents[2]
CORE = ROOT / "src" / "wobble" / "core"
MAP = (ROOT / "ARCHITECTURE.md").read_text()
NAMED = set(re.findall(r"[\w./-]+\.(?:py|ts|svelte|md|json|toml)\b", MAP))
ELSEWHERE = (ROOT, ROOT / "src" / "wobble" / "site", ROOT / "src" / "wobble", ROOT / "web", ROOT / "tests")


def test_what_the_map_names_is_there():
    files = {
        f"/{p.relative_to(ROOT)}"
        for top in ("src", "web/src", "tests", "bench", "tools", "docs")
        for p in (ROOT / top).rglob("*")
    }
    files |= {f"/{p.name}" for p in ROOT.iterdir()} | {
        f"/web/{p.relative_to(ROOT / 'web')}" for p in (ROOT / "web").glob("*.json")
    }
    files |= {f"/web/build/{p.name}" for p in (ROOT / "web" / "build").iterdir()}
    missing = {name for name in NAMED if not any(f.endswith(f"/{name}") for f in files)}
    assert not missing


def test_every_module_of_the_core_has_its_place_on_the_map():
    modules = {p for p in CORE.rglob("*.py") if p.name != "__init__.py" and "practice" not in p.parts}
    named = {Path(name).name for name in NAMED}
    assert not {str(p.relative_to(CORE)) for p in modules if p.name not in named}
