"""The command line: `wobble solve job.json`, `wobble check job.json`, `wobble schema`."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

from wobble.core.errors import WobbleError
from wobble.core.formats.document import job_schema, read_job, write_result
from wobble.core.stages import solve


def main(arguments: list[str] | None = None) -> int:
    """Run one command; return 0, or 1 with the fault on standard error."""
    parser = argparse.ArgumentParser(prog="wobble", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    for name, help_ in (
        ("solve", "print the result document of a job document"),
        ("check", "say whether a job document can be taken"),
    ):
        command = commands.add_parser(name, help=help_)
        command.add_argument("document", help="path of the job document; - for standard input")
    commands.add_parser("schema", help="print the JSON Schema of the job document")
    options = parser.parse_args(arguments)
    try:
        sys.stdout.buffer.write(_answer(options))
    except WobbleError as fault:
        print(f"wobble: {fault}", file=sys.stderr)
        return 1
    except OSError as fault:
        print(f"wobble: {fault.filename}: {fault.strerror}. Check the path.", file=sys.stderr)
        return 1
    return 0


def _answer(options: argparse.Namespace) -> bytes:
    if options.command == "schema":
        return job_schema()
    data = sys.stdin.buffer.read() if options.document == "-" else Path(options.document).read_bytes()
    job = read_job(data)
    return write_result(solve(job)) if options.command == "solve" else b"The document is sound.\n"


if __name__ == "__main__":
    sys.exit(main())
