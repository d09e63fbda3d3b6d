"""Answers that are worked out: once for all workers, kept by what they rest on, and one at a time for each user.

An answer's name is its ETag: what has not changed costs no more than looking that up.
"""

from __future__ import annotations

import fcntl
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from threading import Lock
from uuid import UUID

from django.http import HttpRequest, HttpResponse, HttpResponseNotModified

from wobble.core.budget import GivenUp
from wobble.core.errors import WobbleError
from wobble.site import kept
from wobble.site.computing import Question, ask
from wobble.site.edits import revision_of

MOST_OF_A_USER = 16
"""Requests of one user at work or waiting in one process; more are told to come again, and others' turns stay free."""
LOOK_S = 0.02
"""How often whoever waits for a turn looks whether it has come, or is needed no more, s."""
TOGETHER = {"fit": "hold", "hold": "fit"}
"""What is asked for in one breath, and made in one: the second costs little where the first was just made."""


class Busy(WobbleError):
    """A user asks for more at once than anybody may."""

    code = "busy"


class _Turns:
    """How many requests of each user are at work in this process."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._at_work: dict[int, int] = {}

    @contextmanager
    def taken(self, user: int) -> Iterator[None]:
        with self._lock:
            n = self._at_work.get(user, 0)
            if n >= MOST_OF_A_USER:
                raise Busy("You ask for more at once than one user may.", mend="Wait a moment, then ask again.")
            self._at_work[user] = n + 1
        try:
            yield
        finally:
            with self._lock:
                self._at_work[user] -= 1
                if not self._at_work[user]:
                    del self._at_work[user]


_turns = _Turns()


def answered(request: HttpRequest, job_id: UUID, place_id: str, what: str) -> HttpResponse:
    """Answer with what is worked out of a place of a user's job, or was worked out of the like before.

    Raises:
        NotThere: It is not the user's job, or has no such place.
        Busy: He has too many at work. TooMuch: It takes too long, or too much memory.
    """
    asked = revision_of(request.user, job_id)
    revision, name = kept.newest(job_id, place_id, what)
    # an answer that travelled small has a weak name
    known = request.headers.get("If-None-Match", "").removeprefix("W/").strip('"')
    body = kept.read(name) if revision >= asked and name != known else None
    if body is None and (revision < asked or name != known):
        name, body = _made(request, job_id, asked, place_id, what)
    if name == known:
        response: HttpResponse = HttpResponseNotModified()
    else:
        response = HttpResponse(body or b"", content_type="application/json")
    response["ETag"] = f'"{name}"'
    response["Cache-Control"] = "private, no-cache"
    return response


def _made(request: HttpRequest, job_id: UUID, least: int, place_id: str, what: str) -> tuple[str, bytes]:
    """Return an answer with its name, of the job at the revision asked for or a newer one.

    Whoever has his turn makes the answer of what is stored by then, for all who wait.
    """

    def made() -> tuple[str, bytes] | None:
        revision, name = kept.newest(job_id, place_id, what)
        body = kept.read(name) if revision >= least else None
        return None if body is None else (name, body)

    with _turn(request, made) as (gone, found):
        if found is not None:
            return found
        now = revision_of(request.user, job_id)
        asked = tuple(w for w in (what, TOGETHER.get(what)) if w is not None)
        answers = ask(Question(what=asked, job=job_id, revision=now, place=place_id, keep=True), gone)
        return answers[0].name, answers[0].body


def computed(request: HttpRequest, question: Question) -> HttpResponse:
    """Answer a question whose answer is not kept."""
    with _turn(request, lambda: None) as (gone, _):
        return HttpResponse(ask(question, gone)[0].body, content_type="application/json")


@contextmanager
def _turn(
    request: HttpRequest, made: Callable[[], tuple[str, bytes] | None]
) -> Iterator[tuple[Callable[[], bool], tuple[str, bytes] | None]]:
    """Wait for a user's turn, of whom one thing is computed at a time, or for what he waits for to be made by another.

    Raises:
        Busy: He has too many at work or waiting. GivenUp: He waits no more.
    """
    gone: Callable[[], bool] = request.META.get("waitress.client_disconnected") or (lambda: False)
    user = int(request.user.pk or 0)
    with _turns.taken(user), (kept.folder() / f"user-{user}.lock").open("w") as held:
        found = made()
        while found is None and not _locked(held.fileno()):
            if gone():
                raise GivenUp("Nobody waits for this any more.")
            time.sleep(LOOK_S)
            found = made()
        yield gone, found or made()


def _locked(file: int) -> bool:
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return False
    return True
