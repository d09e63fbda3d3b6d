"""How the server's processes are kept: what gunicorn reads."""

from __future__ import annotations

import gc
import os
from pathlib import Path
from typing import Any

from wobble.site import tls

worker_class = "wobble.site.server.BufferedWorker"
workers = 2
preload_app = True
control_socket_disable = True
loglevel = "warning"


def when_ready(_server: Any) -> None:
    """Start what computes, once the program is loaded and before there are workers."""
    from wobble.site import computing  # needs Django's applications, which the program has loaded by now

    # what is loaded is shared with all processes that follow; looking through it for garbage would make it their own
    gc.collect()
    gc.freeze()
    computing.start()
    port = os.environ.get("WOBBLE_HTTPS_PORT")
    if port:
        tls.start(Path(os.environ["WOBBLE_CERTIFICATE"]), int(port), int(os.environ["WOBBLE_BEHIND"]))
