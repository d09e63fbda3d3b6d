"""Processes that only compute: web workers ask them over a socket, and stay free for whoever asks little.

Each takes one question at a time, within limits of time and memory that hold whatever the question is: one that does
not end is ended by the system, and the process is replaced. Without them a worker computes for itself.
"""

from __future__ import annotations

import gc
import logging
import os
import resource
import secrets
import select
import signal
import socket
import struct
import time
from collections.abc import Callable
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from uuid import UUID

import msgspec
from django.conf import settings
from django.db import connection

from wobble.core import job as core
from wobble.core.budget import PATIENCE, GivenUp, TooMuch, within
from wobble.core.errors import WobbleError
from wobble.core.formats.document import ready
from wobble.core.make.layout.laid import rank
from wobble.core.make.result import Made
from wobble.core.setout.laid import SetOut
from wobble.core.setout.moves import Move
from wobble.core.stages import (
    compare,
    compare_aims,
    compare_finishing,
    solve_fit,
    solve_furring,
    solve_gauge,
    solve_glance,
    solve_hold,
    solve_make,
    solve_order,
    solve_planned,
    solve_practice,
    solve_proposal,
    solve_record,
    solve_rods,
    solve_set,
    solve_setout,
    solve_tonight,
    solve_traits,
    try_setout,
    with_decisions,
)
from wobble.site import kept, room, rows
from wobble.site.backup import nightly

LONGEST_S = 5.0
"""What one question may take, s."""
GRACE_S = 3.0
"""After the limit, before the system ends a computation that does not look at it."""
MOST_BYTES = 768 * 2**20
"""What one computing process may hold; a question that wants more is refused."""
log = logging.getLogger(__name__)
HEADER = struct.Struct("!I")
COMPUTERS = 2
GARBAGE = (50_000, 20, 50)
"""How rarely garbage in rings is looked for: answers are trees, and go by themselves."""


class Question(msgspec.Struct, frozen=True, kw_only=True):
    """What is asked: which answers, of which place of a job as it is stored, and under which decisions or options."""

    what: tuple[str, ...]
    job: UUID
    revision: int
    place: str
    decided: tuple[core.Datum, core.BackLine, core.Closing] | None = None
    set_out: SetOut | None = None
    move: Move | None = None
    options: dict[str, Any] = {}
    keep: bool = False


class Answer(msgspec.Struct, frozen=True, kw_only=True):
    """An answer as JSON, and the name under which it is kept, if it is."""

    name: str = ""
    body: bytes


class Reply(msgspec.Struct, frozen=True, kw_only=True):
    """The answers as JSON, or why there are none."""

    answers: tuple[Answer, ...] = ()
    code: str = ""
    message: str = ""
    mend: str = ""
    path: str = ""


WORK: dict[str, Callable[..., Any]] = {
    "fit": solve_fit,
    "hold": solve_hold,
    "gauge": solve_gauge,
    "setout": solve_setout,
    "traits": solve_traits,
    "compared": compare,
    "furring": lambda job, place, **options: {"furring": solve_furring(job, place, **options)},
    "scribes": lambda job, place: solve_fit(job, place).scribes,
    "make": lambda job, _place: solve_make(job),
    "glance": lambda job, _place: solve_glance(job),
    "aims": lambda job, _place: compare_aims(job),
    "set": solve_set,
    "planned": solve_planned,
    "practice": solve_practice,
    "proposal": solve_proposal,
    "rods": solve_rods,
    "record": lambda job, _place, now: solve_record(job, datetime.fromisoformat(now)),
    "order": lambda job, _place, now: solve_order(job, datetime.fromisoformat(now)),
    "tonight": lambda job, _place, now, **options: solve_tonight(job, datetime.fromisoformat(now), **options),
    "finishing": lambda job, _place, now: compare_finishing(job, datetime.fromisoformat(now)),
}


ready(Question, Reply)


class Failed(WobbleError):
    """A computation met what nobody foresaw; its message is the number under which that is logged."""

    code = "failed"


def work(question: Question) -> tuple[Answer, ...]:
    """Answer a question in this process.

    Raises:
        WobbleError: It cannot be answered.
    """
    job = rows.seen(question.job, question.revision)
    if question.what == ("make",) and question.options:
        return (_longer(job, question),)
    if question.decided is not None:
        job = with_decisions(job, question.place, *question.decided)
    made = []
    for what in question.what:
        name = kept.name_of(job, question.place, what) if question.keep else ""
        body = kept.read(name) if name else None
        if body is None:
            body = msgspec.json.encode(_worked(job, question, what))
            if name:
                kept.keep(name, body)
        if name:
            kept.point(question.job, question.place, what, question.revision, name)
        made.append(Answer(name=name, body=body))
    return tuple(made)


def _longer(job: core.Job, question: Question) -> Answer:
    """Return the better of the layout that is kept and one that is looked for longer, which is kept from then on."""
    name = kept.name_of(job, "", "make")
    found = solve_make(job, **question.options)
    old = kept.read(name)
    if old is not None:
        had = msgspec.json.decode(old, type=Made)
        if rank(had.layout) <= rank(found.layout):
            return Answer(name=name, body=old)
    body = msgspec.json.encode(found)
    kept.keep(name, body)
    kept.point(question.job, "", "make", question.revision, name)
    return Answer(name=name, body=body)


def _worked(job: core.Job, question: Question, what: str) -> Any:
    if question.set_out is not None:
        return try_setout(job, question.place, question.set_out, question.move)
    return WORK[what](job, question.place, **question.options)


def ask(question: Question, gone: Callable[[], bool]) -> tuple[Answer, ...]:
    """Answer a question, by a process that computes where there are any.

    Raises:
        TooMuch: It takes too long, or too much memory. GivenUp: `gone` says that nobody waits any more.
        WobbleError: It cannot be answered.
    """
    line = socket.socket(socket.AF_UNIX)
    try:
        line.connect(str(address()))
    except OSError:
        line.close()
        with within(LONGEST_S, gone):
            return work(question)
    with line:
        line.settimeout(10.0)
        try:
            _send(line, msgspec.msgpack.encode(question))
            while not select.select([line], [], [], 0.5)[0]:
                if gone():  # closing the line ends the work
                    raise GivenUp("Nobody waits for this any more.")
            reply = msgspec.msgpack.decode(_receive(line), type=Reply)
        except (OSError, EOFError) as ended:
            raise TooMuch(
                "This takes more time or memory than one question may.",
                mend="Look for a size or a count with a digit too many; else set some readings or units aside.",
            ) from ended
    if reply.code:
        raise _error(reply)
    return reply.answers


def _error(reply: Reply) -> WobbleError:
    kinds = {kind.code: kind for kind in _all_kinds(WobbleError)}
    return kinds.get(reply.code, WobbleError)(reply.message, mend=reply.mend, path=reply.path)


def _all_kinds(kind: type[WobbleError]) -> list[type[WobbleError]]:
    return [kind, *(sub for child in kind.__subclasses__() for sub in _all_kinds(child))]


def address() -> Path:
    """Return where the computing processes listen."""
    return room.computing_socket(Path(settings.DATA))


def start() -> None:
    """Start the computing processes beside this one, to end with it; for a process without threads."""
    listener = socket.socket(socket.AF_UNIX)
    with suppress(FileNotFoundError):
        address().unlink()
    mask = os.umask(0o077)
    try:
        listener.bind(str(address()))
    finally:
        os.umask(mask)
    listener.listen(128)
    if os.fork():
        listener.close()
        return
    for number in (signal.SIGCHLD, signal.SIGTERM, signal.SIGINT, signal.SIGQUIT, signal.SIGHUP):
        signal.signal(number, signal.SIG_DFL)
    try:
        _tend(listener, os.getppid())
    finally:
        os._exit(0)


def _tend(listener: socket.socket, parent: int) -> None:
    """Keep so many computing processes at work while the parent lives."""
    children: set[int] = set()
    looked = 0.0
    while os.getppid() == parent:
        if time.monotonic() - looked > 600:
            looked = time.monotonic()
            _back_up()
        while len(children) < COMPUTERS:
            child = os.fork()
            if not child:
                try:
                    _serve(listener, os.getppid())
                finally:
                    os._exit(0)
            children.add(child)
        ended, _ = os.waitpid(-1, os.WNOHANG)
        children.discard(ended)
        if not ended:
            time.sleep(0.2)
    for child in children:
        with suppress(ProcessLookupError):
            os.kill(child, signal.SIGTERM)


def _back_up() -> None:
    """Make the night's backup where it is due, in a process of its own."""
    if not os.fork():
        try:
            room.reserve()
            nightly(Path(settings.DATA), datetime.now(UTC))
        except Exception:
            log.exception("The night's backup was not made")
        finally:
            os._exit(0)


def _serve(listener: socket.socket, parent: int) -> None:
    resource.setrlimit(resource.RLIMIT_DATA, (MOST_BYTES, MOST_BYTES))
    gc.freeze()  # what was loaded before is never garbage: looking through it takes longer than many an answer
    gc.set_threshold(*GARBAGE)
    connection.connection = None  # what the parent had open is the parent's
    listener.settimeout(1.0)
    while os.getppid() == parent:
        try:
            line, _ = listener.accept()
        except TimeoutError:
            continue
        with line:
            line.settimeout(LONGEST_S)
            with suppress(OSError, EOFError):
                _reply(line)


def _reply(line: socket.socket) -> None:
    question = msgspec.msgpack.decode(_receive(line), type=Question)
    # by default either alarm ends the process: the one of work done, the other of the clock
    signal.setitimer(signal.ITIMER_PROF, LONGEST_S + GRACE_S)
    signal.setitimer(signal.ITIMER_REAL, PATIENCE * LONGEST_S + GRACE_S)
    try:
        with within(LONGEST_S, lambda: bool(select.select([line], [], [], 0)[0])):
            reply = Reply(answers=work(question))
    except WobbleError as fault:
        reply = Reply(code=fault.code, message=fault.message, mend=fault.mend, path=fault.path)
    except Exception:
        number = secrets.token_hex(4)
        log.exception("%s %s of %s failed", number, "+".join(question.what), question.job)
        reply = Reply(code=Failed.code, message=number)
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)
        signal.setitimer(signal.ITIMER_REAL, 0)
    _send(line, msgspec.msgpack.encode(reply))


def _send(line: socket.socket, data: bytes) -> None:
    line.sendall(HEADER.pack(len(data)) + data)


def _receive(line: socket.socket) -> bytes:
    (length,) = HEADER.unpack(_exactly(line, HEADER.size))
    return _exactly(line, length)


def _exactly(line: socket.socket, length: int) -> bytes:
    parts = []
    while length:
        part = line.recv(min(length, 1 << 20))
        if not part:
            raise EOFError
        parts.append(part)
        length -= len(part)
    return b"".join(parts)
