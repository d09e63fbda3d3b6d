"""The command line: `wobble solve job.json`, `wobble check job.json`, `wobble schema`, `wobble cut LIST.csv`."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

import msgspec

from wobble.core.errors import WobbleError


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
    _cut_options(commands.add_parser("cut", help="lay out a list of parts on a list of stock"))
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


def _cut_options(command: argparse.ArgumentParser) -> None:
    command.add_argument("list", help="CSV of parts: name,quantity,length_mm,width_mm,thickness_mm,material,grain")
    command.add_argument(
        "--stock", required=True, help="CSV: name,material,thickness_mm,length_mm,width_mm,quantity,price"
    )
    command.add_argument("--kerf", type=float, default=3.0, help="what the blade takes, mm (3)")
    command.add_argument("--trim", type=float, default=0.0, help="what is cut off all edges of the stock first, mm (0)")
    command.add_argument("--aim", choices=AIMS, default=AIMS[0], help="what counts after price and area")
    command.add_argument("--seconds", type=float, default=1.0, help="how long to look, for all materials together (1)")
    command.add_argument("--json", action="store_true", help="print JSON instead of words")


AIMS = ("fewest sheets", "fewest settings", "fewest metres")


def _cut(options: argparse.Namespace) -> bytes:
    # brought in here, as what solves jobs is not wanted to lay out a list
    from wobble.core.make.cutting.lists import cut_list
    from wobble.core.make.cutting.tables import ListError, read_offered, read_wanted
    from wobble.core.make.cutting.told import as_words

    for name in ("kerf", "trim"):
        if not 0 <= getattr(options, name) <= 100:
            raise ListError(f"--{name} is not between 0 and 100 mm.", mend="Give it in millimetres.")
    if not 0 < options.seconds <= 3600:
        raise ListError("--seconds is not between 0 and 3600.", mend="A second is enough for most lists.")
    made = cut_list(
        read_wanted(_text(options.list), options.list),
        read_offered(_text(options.stock), options.stock),
        kerf_mm=options.kerf,
        trim_mm=options.trim,
        aim=options.aim,
        seconds=2 * options.seconds,  # a fast machine makes more steps in the time that is given
        at_most_s=options.seconds,
    )
    return msgspec.json.encode(made) + b"\n" if options.json else as_words(made).encode()


def _text(path: str) -> str:
    data = sys.stdin.buffer.read() if path == "-" else Path(path).read_bytes()
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace")


def _answer(options: argparse.Namespace) -> bytes:
    if options.command == "cut":
        return _cut(options)
    # brought in here for the same reason
    from wobble.core.formats.document import job_schema, read_job, write_result
    from wobble.core.stages import solve

    if options.command == "schema":
        return job_schema()
    data = sys.stdin.buffer.read() if options.document == "-" else Path(options.document).read_bytes()
    job = read_job(data)
    return write_result(solve(job)) if options.command == "solve" else b"The document is sound.\n"


if __name__ == "__main__":
    sys.exit(main())
