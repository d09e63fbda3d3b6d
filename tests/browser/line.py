"""A line to the server that can be cut: what a phone sees when it goes down to the cellar."""

from __future__ import annotations

import socket
import threading
from contextlib import suppress


class Line:
    """Forwards one local port to another; while cut, connections are dropped and new ones refused."""

    def __init__(self, port: int) -> None:
        self.target = port
        self.sockets: set[socket.socket] = set()
        self.listener: socket.socket | None = None
        self.port = 0
        self.silent = threading.Event()
        self.mend()

    @property
    def address(self) -> str:
        """Where the browser finds the server."""
        return f"http://localhost:{self.port}"

    def mend(self) -> None:
        """Listen, on the same port as before."""
        listener = socket.socket()
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listener.bind(("127.0.0.1", self.port))
        listener.listen(64)
        self.port = listener.getsockname()[1]
        self.listener = listener
        threading.Thread(target=self._accept, args=(listener,), daemon=True).start()

    def silence(self) -> None:
        """Take what comes and answer nothing: a server that hangs, or a line that drops what it carries."""
        self.silent.set()

    def speak(self) -> None:
        """Carry on with what comes."""
        self.silent.clear()

    def cut(self) -> None:
        """Drop everything and refuse what comes."""
        if self.listener:
            with suppress(OSError):
                self.listener.shutdown(socket.SHUT_RDWR)
            self.listener.close()
            self.listener = None
        for end in list(self.sockets):
            with suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)

    def _accept(self, listener: socket.socket) -> None:
        while True:
            try:
                near, _ = listener.accept()
                far = socket.create_connection(("127.0.0.1", self.target))
            except OSError:
                return
            self.sockets |= {near, far}
            for ends in ((near, far), (far, near)):
                threading.Thread(target=self._pump, args=ends, daemon=True).start()

    def _pump(self, source: socket.socket, sink: socket.socket) -> None:
        with suppress(OSError):
            while data := source.recv(65536):
                if not self.silent.is_set():
                    sink.sendall(data)
        for end in (source, sink):
            with suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)
            end.close()
            self.sockets.discard(end)
