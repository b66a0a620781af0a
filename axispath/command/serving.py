"""Serve the application with gunicorn, with our own PostgreSQL or a given one."""

from __future__ import annotations

import os
import signal
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING

from axispath.command.cluster import prepare_folder, running_cluster
from axispath.command.errors import CommandFailed
from axispath.command.keeping import Kept, Program, keep_running
from axispath.command.place import ROOT, data_folder, free_port, only_once, port_is_free, secret

if TYPE_CHECKING:
    from alembic.config import Config

HOME_PORT = 8127
HOME = ("127.0.0.1", "::1", "localhost")
THREADS = 40  # of a web process; they wait for the database and for those who compute
ENDING = 8.0  # seconds that a server may take to end


def serve(with_demo: bool) -> int:
    """Serve until stopped. Gives the exit code."""
    host = os.environ.get("AXISPATH_HOST", "127.0.0.1")
    refuse_the_street(host)
    address = os.environ.get("DATABASE_URL")
    if address and not with_demo:
        key = os.environ.get("AXISPATH_SECRET_KEY")
        if not key:
            raise CommandFailed(
                "AXISPATH_SECRET_KEY is needed with DATABASE_URL: a long random text."
            )
        from axispath.web.security import SHORTEST_SECRET

        if len(key) < SHORTEST_SECRET:
            raise CommandFailed(
                f"AXISPATH_SECRET_KEY is too short: {SHORTEST_SECRET} random characters at least."
            )
        with _stoppable():
            return _serve_on(host, _psycopg(address), key, None, [], with_demo)
        return 0
    folder = data_folder()
    prepare_folder(folder)
    with only_once(folder) as note, _stoppable(), running_cluster(folder) as own:
        key = os.environ.get("AXISPATH_SECRET_KEY") or secret(folder, "secret-key")
        os.environ["AXISPATH_DISK"] = str(folder)
        return _serve_on(host, own.address, key, note, [own], with_demo)
    return 0


def _psycopg(address: str) -> str:
    """The address with our driver named in it, as deployments usually leave it out."""
    head, bar, rest = address.partition("://")
    return f"postgresql+psycopg://{rest}" if bar and head in ("postgres", "postgresql") else address


def _serve_on(
    host: str, address: str, key: str, note: Path | None, kept: list[Kept], with_demo: bool
) -> int:
    migrate(address)
    if with_demo:
        from axispath.demo.load import load_demo

        load_demo(address)
    port = _web_port(host)
    if note:
        note.write_text(f"http://{host}:{port}/")
    with tempfile.TemporaryDirectory(prefix="axispath-") as folder:
        started: list[Kept] = []
        try:
            for program in web_programs(Path(folder), address, key, host, port):
                program.start()
                started.append(program)
            print(f"Axis Path is at http://{host}:{port}/   (Ctrl+C stops it)", flush=True)
            keep_running([*kept, *started])
        except KeyboardInterrupt:
            return 0
        finally:
            for running in reversed(started):
                running.stop()
    return 0


def web_programs(
    folder: Path, address: str, key: str, host: str, port: int, workers: int | None = None
) -> list[Program]:
    """What serves: the broker with those who compute, and gunicorn with those who serve pages."""
    counts = folder / "counts"
    counts.mkdir(exist_ok=True)
    environment = {
        **os.environ,
        "DATABASE_URL": address,
        "AXISPATH_SECRET_KEY": key,
        "AXISPATH_WORK": str(folder / "work"),
        "OPENBLAS_NUM_THREADS": "1",
        "PROMETHEUS_MULTIPROC_DIR": str(counts),
    }
    return [
        # What the process for exact forms leaves to the system when it is killed needs no mention.
        Program(
            "the broker",
            "axispath.work",
            environment={**environment, "PYTHONWARNINGS": "ignore:resource_tracker:UserWarning"},
        ),
        Program("the errands", "axispath.work.carrying", environment=environment),
        Program(
            "the web server",
            "gunicorn",
            "axispath.web.wsgi:app",
            f"--bind={host}:{port}",
            f"--workers={workers or os.environ.get('AXISPATH_WORKERS', '2')}",
            "--worker-class=gthread",
            f"--threads={THREADS}",
            "--backlog=512",
            "--keep-alive=75",  # longer than proxies keep a connection that nobody uses
            "--preload",
            "--graceful-timeout=5",
            "--log-level=warning",
            "--no-control-socket",
            "--forwarder-headers=",  # nobody tells us from outside under which path we are
            environment=environment,
        ),
    ]


def refuse_the_street(host: str) -> None:
    """Only this machine may speak to the web server, unless a proxy stands before it."""
    if host in HOME or os.environ.get("AXISPATH_BEHIND_PROXY") == "1":
        return
    raise CommandFailed(
        f"{host} is open to others, and the web server is not made to face them: put a proxy "
        "before it (docs/deploy.md has two) and say so with AXISPATH_BEHIND_PROXY=1."
    )


def migrations(address: str = "") -> Config:
    """Where the schemas are written down, and the database that is to have one of them."""
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(ROOT / "migrations"))
    config.set_main_option("sqlalchemy.url", address.replace("%", "%%"))
    return config


def migrate(address: str, to: str = "head") -> None:
    """Bring the database to a schema, the newest where no other is named."""
    from alembic import command

    command.upgrade(migrations(address), to)


def _web_port(host: str) -> int:
    wanted = os.environ.get("AXISPATH_PORT")
    if wanted:
        if not wanted.isdigit() or not 0 < int(wanted) < 65536:
            raise CommandFailed(f"AXISPATH_PORT is “{wanted}”, which is not a port number.")
        if not _freed(host, int(wanted)):
            raise CommandFailed(f"port {wanted} on {host} is in use; set AXISPATH_PORT to another.")
        return int(wanted)
    return HOME_PORT if port_is_free(host, HOME_PORT) else free_port()


def _freed(host: str, port: int) -> bool:
    """Whether a port is free, at the latest when a server that is just ending has ended."""
    until = time.monotonic() + ENDING
    while not port_is_free(host, port):
        if time.monotonic() > until:
            return False
        time.sleep(0.1)
    return True


class _Stopped(Exception):
    pass


@contextmanager
def _stoppable() -> Iterator[None]:
    """Turn a polite kill into an ordinary end, so that PostgreSQL is stopped on the way out."""

    def stop(*_: object) -> None:
        raise _Stopped

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGHUP, stop)
    try:
        yield
    except _Stopped:
        print("Stopped.", flush=True)
