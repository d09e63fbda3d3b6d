"""The server's worker: requests are read whole before a thread takes them up, so that whoever stalls holds up nobody.

Gunicorn keeps the processes; within each, waitress reads headers and bodies of any number of connections in one loop.
"""

from __future__ import annotations

import os
import sys
from typing import Any

from gunicorn.workers.base import Worker
from waitress import wasyncore
from waitress.server import create_server

THREADS = 24
"""Requests at work or waiting for their turn in one process; of one user there are fewer, and one computes."""
STALLED_S = 20
"""A connection that has neither sent nor taken anything for so long is closed, s."""
MOST_CONNECTIONS = 2000
MOST_BODY = 61 * 1024 * 1024
"""A little over the largest scan, so that its own error is told; the largest job document is smaller. Bytes."""
MOST_HEADERS = 32 * 1024
TURN_S = 1.0
SWITCH_S = 0.001
"""Many short requests share a process: each lets go of the interpreter sooner than Python would ask it to."""


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
            wasyncore.loop(timeout=TURN_S, use_poll=True, map=connections, count=1)
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
