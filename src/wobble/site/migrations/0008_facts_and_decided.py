"""One table of facts, and one document of decisions a place and a job, from the rows of today.

The rows are put together as the document of version 1 that they were, and turned by the one converter that there is.
"""

from __future__ import annotations

from typing import Any

import django.db.models.deletion
import msgspec
from django.db import migrations, models

from wobble.core import job as core
from wobble.core.formats.version_1 import from_version_1

BAY = (
    "name kind frame character width_mm depth_mm height_mm surfaces knee right_is_back_of datum back_line closing "
    "alternatives backing overhead underfoot detections"
).split()
UNIT = (
    "name kind x_mm width_mm depth_mm height_mm toe_recess_mm support_inset_mm fixing_heights_mm over_base_mm out_mm "
    "ready_made weight_kg feet_in_mm holds standing front spare meets angled air board"
).split()
LISTS = {
    "set_ups": "name across at_mm sigma_mm".split(),
    "units": UNIT,
    "marks": "name kind surface at size proud_mm treatment note".split(),
    "notes": "text written_at written_by surface at".split(),
}


def _fields(row: Any, names: list[str]) -> dict[str, Any]:
    return {name: getattr(row, name) for name in names}


def _bay(row: Any) -> dict[str, Any]:
    lists = {
        name: [_fields(item, fields) | {"id": item.key} for item in getattr(row, name).order_by("place")]
        for name, fields in LISTS.items()
    }
    readings = [r.fact | {"aside": r.aside} for r in row.readings.order_by("id")]
    return _fields(row, BAY) | {"id": row.key} | lists | {"readings": readings}


def _document(row: Any) -> dict[str, Any]:
    kit = row.kit
    return _fields(row, ["name", "place", "note", "units", "way_in"]) | {
        "format": "wobble-job",
        "version": 1,
        "instruments": [
            _fields(i, ["name", "kind", "sigma_mm", "checks"]) | {"id": i.key} for i in row.instruments.order_by("place")
        ],
        "kit": _fields(kit, ["tolerance_mm", "max_stack_mm", "least_overlap_mm"])
        | {
            "pieces": [_fields(p, ["thickness_mm", "count"]) for p in kit.pieces.order_by("place")],
            "tapers": [
                _fields(p, ["length_mm", "thin_mm", "thick_mm", "count"]) for p in kit.tapers.order_by("place")
            ],
        },
        "bays": [_bay(bay) for bay in row.bays.order_by("place")],
    }


def turn(apps: Any, editor: Any) -> None:
    """Write every job's rows as facts and decisions."""
    using = editor.connection.alias
    jobs, places, facts = (apps.get_model("wobble", name).objects.using(using) for name in ("Job", "Place", "Fact"))
    for row in jobs.all():
        plain = msgspec.to_builtins(msgspec.convert(from_version_1(msgspec.to_builtins(_document(row))), core.Job))
        row.decided = {name: plain[name] for name in ("note", "units", "instruments", "kit", "way_in")}
        row.save(update_fields=("decided",))
        for position, place in enumerate(plain["places"]):
            found, key = place.pop("facts"), place.pop("id")
            made = places.create(job=row, key=key, position=position, decided=place)
            facts.bulk_create(
                facts.model(place=made, key=fact["id"], kind=fact["fact"], aside=fact.pop("aside"), fact=fact)
                for fact in found
            )


class Migration(migrations.Migration):
    """Make the new tables, turn the rows, and take the old tables away."""

    dependencies = [("wobble", "0007_overhead_and_underfoot")]

    operations = [
        migrations.CreateModel(
            name="Place",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("position", models.PositiveIntegerField()),
                ("key", models.CharField(max_length=80)),
                ("decided", models.JSONField()),
                (
                    "job",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="places", to="wobble.job"
                    ),
                ),
            ],
            options={"ordering": ("position",)},
        ),
        migrations.CreateModel(
            name="Fact",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("key", models.CharField(max_length=80)),
                ("kind", models.CharField(max_length=30)),
                ("fact", models.JSONField()),
                ("aside", models.JSONField(null=True)),
                (
                    "place",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="facts", to="wobble.place"
                    ),
                ),
            ],
            options={"ordering": ("id",)},
        ),
        migrations.AddConstraint(
            model_name="place",
            constraint=models.UniqueConstraint(fields=("job", "key"), name="one_place_a_key"),
        ),
        migrations.AddConstraint(
            model_name="fact",
            constraint=models.UniqueConstraint(fields=("place", "key"), name="one_fact_an_id"),
        ),
        migrations.AddField(model_name="job", name="decided", field=models.JSONField(default=dict)),
        migrations.RunPython(turn, migrations.RunPython.noop),
        migrations.RenameField(model_name="job", old_name="place", new_name="address"),
        migrations.RemoveField(model_name="job", name="note"),
        migrations.RemoveField(model_name="job", name="units"),
        migrations.RemoveField(model_name="job", name="way_in"),
        *(
            migrations.DeleteModel(name=name)
            for name in (
                "Reading", "Note", "Mark", "Unit", "SetUp", "Bay", "ShimTaper", "ShimPiece", "ShimKit", "Instrument"
            )
        ),
    ]
