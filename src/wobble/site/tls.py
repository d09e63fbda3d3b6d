"""Encrypted pages without a proxy: an authority of one's own, and a door that decrypts and hands on.

Phones give a page their sensors, and let it work without a connection, only where it comes encrypted. The authority is
made once and kept beside the database; a device that is told to trust it trusts this server, and nothing else.
"""

from __future__ import annotations

import asyncio
import ipaddress
import os
import signal
import socket
import ssl
from contextlib import suppress
from datetime import UTC, datetime, timedelta
from pathlib import Path

import trustme

AUTHORITY, AUTHORITY_KEY, CERTIFICATE = "authority.pem", "authority-key.pem", "certificate.pem"
LASTS = timedelta(days=397)
"""A certificate is made anew at each start; browsers take none that is good for longer."""
HANDSHAKE_S = 10.0
BUFFER = 1 << 16


def names() -> tuple[str, ...]:
    """Return the names and addresses by which this machine may be called."""
    own = socket.gethostname()
    found = {"localhost", "127.0.0.1", own, f"{own.split('.')[0]}.local"}
    with suppress(OSError), socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as line:
        line.connect(("192.0.2.1", 9))  # nothing is sent: it only says by which address this machine would go out
        found.add(line.getsockname()[0])
    return tuple(sorted(found))


def certify(folder: Path, called: tuple[str, ...]) -> Path:
    """Return a certificate for these names, from the authority that the folder keeps, made now if it has none."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    authority, key = folder / AUTHORITY, folder / AUTHORITY_KEY
    if authority.exists() and key.exists():
        made = trustme.CA.from_pem(authority.read_bytes(), key.read_bytes())
    else:
        made = trustme.CA(organization_name="Wobble", organization_unit_name=socket.gethostname())
        _write(key, made.private_key_pem.bytes())
        _write(authority, made.cert_pem.bytes())
    now = datetime.now(UTC)
    leaf = made.issue_cert(*called, not_before=now - timedelta(days=1), not_after=now + LASTS)
    path = folder / CERTIFICATE
    _write(path, leaf.private_key_and_cert_chain_pem.bytes())
    return path


def _write(path: Path, data: bytes) -> None:
    draft = path.with_suffix(".draft")
    draft.touch(mode=0o600)
    draft.write_bytes(data)
    draft.replace(path)


def start(certificate: Path, port: int, behind: int) -> None:
    """Open the door in a process of its own, to end with this one; for a process without threads."""
    parent = os.getpid()
    if os.fork():
        return
    for number in (signal.SIGCHLD, signal.SIGTERM, signal.SIGINT, signal.SIGQUIT, signal.SIGHUP):
        signal.signal(number, signal.SIG_DFL)
    try:
        asyncio.run(_serve(certificate, port, behind, parent))
    finally:
        os._exit(0)


async def _serve(certificate: Path, port: int, behind: int, parent: int) -> None:
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    context.load_cert_chain(certificate)

    async def hand_on(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        address = str((writer.get_extra_info("peername") or ("",))[0])
        try:
            there, back = await asyncio.open_connection("127.0.0.1", behind, local_addr=(told(address), 0))
        except OSError:
            writer.close()
            return
        await asyncio.gather(_pump(reader, back), _pump(there, writer))

    host = os.environ.get("WOBBLE_DOOR", "0.0.0.0")  # noqa: S104 - other devices are what it is for
    server = await asyncio.start_server(hand_on, host, port, ssl=context, ssl_handshake_timeout=HANDSHAKE_S)
    async with server:
        while os.getppid() == parent:
            await asyncio.sleep(1.0)


def told(address: str) -> str:
    """Return the loopback address that stands for a device's own behind the door: sign-in is slowed down by address.

    Only this machine itself is 127.0.0.1 there.
    """
    try:
        found = ipaddress.ip_address(address.partition("%")[0])
    except ValueError:
        return "127.200.0.0"
    if found.is_loopback:
        return "127.0.0.1"
    last = found.packed[-2:]
    return f"127.200.{last[0]}.{last[1]}"


async def _pump(source: asyncio.StreamReader, sink: asyncio.StreamWriter) -> None:
    with suppress(OSError, asyncio.IncompleteReadError):
        while data := await source.read(BUFFER):
            sink.write(data)
            await sink.drain()
    with suppress(OSError):
        sink.close()
