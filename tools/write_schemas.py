"""Write the documents that others read: the OpenAPI document of the API and the JSON Schema of the job document."""

from __future__ import annotations

import json
from pathlib import Path

import django

from wobble.core.formats.document import job_schema

ROOT = Path(__file__).resolve().parents[1]
OPENAPI = ROOT / "web" / "openapi.json"
JOB_SCHEMA = ROOT / "docs" / "schema" / "job.schema.json"


def openapi() -> str:
    """Return the OpenAPI document as it is written."""
    from wobble.site.api.main import api  # needs Django to be set up

    return json.dumps(api.get_openapi_schema(), indent=2, sort_keys=True) + "\n"


def main() -> None:
    """Write both."""
    django.setup()
    OPENAPI.write_text(openapi())
    JOB_SCHEMA.parent.mkdir(parents=True, exist_ok=True)
    JOB_SCHEMA.write_bytes(job_schema())


if __name__ == "__main__":
    main()
