"""Where this copy of the application keeps what it must not lose."""

from __future__ import annotations

import fcntl
import hashlib
import os
import secrets
import socket
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from axispath.command.errors import CommandFailed

ROOT = Path(__file__).resolve().parents[2]


def data_folder() -> Path:
    """A folder of this checkout's own, so that two copies never share a database."""
    given = os.environ.get("AXISPATH_DATA")
    if given:
        return Path(given).resolve()
    own = hashlib.sha256(str(ROOT).encode()).hexdigest()[:12]
    if os.geteuid() == 0:
        return Path("/var/lib/axis-path") / own
    base = os.environ.get("XDG_DATA_HOME") or str(Path.home() / ".local" / "share")
    return Path(base) / "axis-path" / own


def free_port() -> int:
    """A loopback port that nothing listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def port_is_free(host: str, port: int) -> bool:
    """Whether a server could listen there."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
        return True


def secret(folder: Path, name: str) -> str:
    """A random secret kept in a file that only its owner can read."""
    file = folder / name
    if not file.exists():
        handle = os.open(file, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(handle, "w") as out:
            out.write(secrets.token_urlsafe(32))
    return file.read_text()


@contextmanager
def only_once(folder: Path) -> Iterator[Path]:
    """Hold the folder: a second server on the same data is refused with the first's address."""
    note = folder / "serving"
    with note.open("a+") as held:
        try:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError as error:
            held.seek(0)
            address = held.read().strip()
            where = f" at {address}" if address else ""
            raise CommandFailed(f"this copy is being served already{where}.") from error
        held.truncate(0)
        yield note


def scratch() -> str:
    """A folder that PostgreSQL's user may pass through."""
    return "/var/tmp" if os.geteuid() == 0 else tempfile.gettempdir()
