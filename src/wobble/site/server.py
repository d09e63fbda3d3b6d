"""The server's worker: requests are read whole before a thread takes them up, so that whoever stalls holds up nobody.

Gunicorn keeps the processes; within each, waitress reads headers and bodies of any number of connections in one loop.
"""

from __future__ import annotations

import os
import sys
import time
from typing import Any

from gunicorn.workers.base import Worker
from waitress import wasyncore
from waitress.channel import HTTPChannel
from waitress.server import BaseWSGIServer, create_server

THREADS = 24
"""Requests at work or waiting for their turn in one process; of one user there are fewer, and one computes."""
STALLED_S = 20
"""A connection that has neither sent nor taken anything for so long is closed, s."""
GRACE_S = 20.0
"""A request is whole after so long, s, and a second more for each LEAST_BYTES of its body that have come."""
LEAST_BYTES = 500
MOST_CONNECTIONS = 2000
MOST_BODY = 61 * 1024 * 1024
"""A little over the largest scan, so that its own error is told; the largest job document is smaller. Bytes."""
MOST_HEADERS = 32 * 1024
TURN_S = 1.0
SWITCH_S = 0.001
"""Many short requests share a process: each lets go of the interpreter sooner than Python would ask it to."""


class PacedChannel(HTTPChannel):  # type: ignore[misc]
    """A connection that knows when the request that it is in the middle of began.

    Who sends a byte now and then is never silent for long, and would keep the connection for ever.
    """

    begun = 0.0

    def received(self, data: bytes) -> Any:
        """Take in what has come."""
        if self.request is None:
            self.begun = time.monotonic()
        return super().received(data)

    def drips(self, now: float) -> bool:
        """Return whether its request comes more slowly than any line."""
        asked = self.request
        if asked is None or asked.completed:
            return False
        return bool(now - self.begun > GRACE_S + asked.body_bytes_received / LEAST_BYTES)


BaseWSGIServer.channel_class = PacedChannel


def turn(connections: dict[int, Any], seconds: float) -> None:
    """Serve what there is to serve within some seconds; whose request drips is sent away."""
    wasyncore.loop(timeout=seconds, use_poll=True, map=connections, count=1)
    now = time.monotonic()
    for line in list(connections.values()):
        if isinstance(line, PacedChannel) and line.drips(now):
            line.will_close = True


class BufferedWorker(Worker):  # type: ignore[misc]
    """A gunicorn worker that serves by waitress."""

    def run(self) -> None:
        """Serve until told to stop, or until the parent is gone."""
        sys.setswitchinterval(SWITCH_S)
        connections: dict[int, Any] = {}
        server = create_server(
            self.wsgi,
            map=connections,
            sockets=[listener.sock for listener in self.sockets],
            threads=THREADS,
            connection_limit=MOST_CONNECTIONS,
            channel_timeout=STALLED_S,
            channel_request_lookahead=1,  # only then is it noticed that a client has gone
            cleanup_interval=5,
            max_request_body_size=MOST_BODY,
            max_request_header_size=MOST_HEADERS,
            asyncore_use_poll=True,
            clear_untrusted_proxy_headers=True,
            ident=None,
            **proxied(),
        )
        while self.alive and self.ppid == os.getppid():
            self.notify()
            turn(connections, TURN_S)
        server.close()
        server.task_dispatcher.shutdown()


def proxied() -> dict[str, Any]:
    """Return what is believed of a proxy in front: its address is WOBBLE_PROXY; WOBBLE_TLS=1 says that it encrypts."""
    proxy = os.environ.get("WOBBLE_PROXY")
    told = {"url_scheme": "https"} if os.environ.get("WOBBLE_TLS") == "1" else {}
    if not proxy:
        return told
    return {
        **told,
        "trusted_proxy": proxy,
        "trusted_proxy_count": 1,
        "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto"},
    }
