"""The trade's words in what is stored: how a run is closed is a method, how a stud was found is what it was found by."""

from __future__ import annotations

from typing import Any

from django.db import migrations


def _renamed(old: Any, names: dict[str, str]) -> Any:
    return {names.get(key, key): value for key, value in old.items()} if isinstance(old, dict) else old


def _decided(old: dict[str, Any]) -> dict[str, Any]:
    out = dict(old)
    if "closing" in out:
        out["closing"] = _renamed(out["closing"], {"school": "method"})
    if "alternatives" in out:
        out["alternatives"] = [
            a | {"closing": _renamed(a["closing"], {"school": "method"})} if "closing" in a else a
            for a in out["alternatives"]
        ]
    if "units" in out:
        out["units"] = [_renamed(unit, {"spare": "scribe_allowance"}) for unit in out["units"]]
    return out


def rename(apps: Any, schema_editor: Any) -> None:
    """Bring rows of the earlier words to those of today; what has them already stays as it is."""
    alias = schema_editor.connection.alias
    for place in apps.get_model("wobble", "Place").objects.using(alias).iterator():
        place.decided = _decided(place.decided)
        place.save(update_fields=["decided"])
    for fact in apps.get_model("wobble", "Fact").objects.using(alias).filter(kind="detection").iterator():
        fact.fact = _renamed(fact.fact, {"method": "found_by"})
        fact.save(update_fields=["fact"])


class Migration(migrations.Migration):
    dependencies = [("wobble", "0008_facts_and_decided")]
    operations = [migrations.RunPython(rename, migrations.RunPython.noop)]
