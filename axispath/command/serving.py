"""Serve the application with gunicorn, with our own PostgreSQL or a given one."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from axispath.command.cluster import prepare_folder, running_cluster
from axispath.command.errors import CommandFailed
from axispath.command.place import ROOT, data_folder, free_port, only_once, port_is_free, secret

HOME_PORT = 8127


def serve(with_demo: bool) -> int:
    """Serve until stopped. Gives the exit code."""
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
        return _serve_on(_psycopg(address), key, None, with_demo)
    folder = data_folder()
    prepare_folder(folder)
    with only_once(folder) as note, _stoppable(), running_cluster(folder) as own:
        key = os.environ.get("AXISPATH_SECRET_KEY") or secret(folder, "secret-key")
        return _serve_on(own, key, note, with_demo)


def _psycopg(address: str) -> str:
    """The address with our driver named in it, as deployments usually leave it out."""
    head, bar, rest = address.partition("://")
    return f"postgresql+psycopg://{rest}" if bar and head in ("postgres", "postgresql") else address


def _serve_on(address: str, key: str, note: Path | None, with_demo: bool) -> int:
    os.environ["DATABASE_URL"] = address
    migrate(address)
    if with_demo:
        from axispath.demo.load import load_demo

        load_demo(address)
    host = os.environ.get("AXISPATH_HOST", "127.0.0.1")
    port = _web_port(host)
    if note:
        note.write_text(f"http://{host}:{port}/")
    server = subprocess.Popen(
        [
            sys.executable,
            "-m",
            "gunicorn",
            "axispath.web.wsgi:app",
            f"--bind={host}:{port}",
            f"--workers={os.environ.get('AXISPATH_WORKERS', '2')}",
            "--worker-class=gthread",
            "--threads=4",
            "--preload",
            "--graceful-timeout=5",
            "--log-level=warning",
            "--no-control-socket",
            "--forwarder-headers=",  # nobody tells us from outside under which path we are
        ],
        cwd=ROOT,
        env={**os.environ, "DATABASE_URL": address, "AXISPATH_SECRET_KEY": key},
    )
    print(f"Axis Path is at http://{host}:{port}/   (Ctrl+C stops it)", flush=True)
    try:
        return server.wait()
    except (KeyboardInterrupt, _Stopped):
        return 0
    finally:
        server.terminate()
        server.wait()


def migrate(address: str) -> None:
    """Bring the database to the newest schema."""
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(ROOT / "migrations"))
    config.set_main_option("sqlalchemy.url", address.replace("%", "%%"))
    command.upgrade(config, "head")


def _web_port(host: str) -> int:
    wanted = os.environ.get("AXISPATH_PORT")
    if wanted:
        if not wanted.isdigit() or not 0 < int(wanted) < 65536:
            raise CommandFailed(f"AXISPATH_PORT is “{wanted}”, which is not a port number.")
        if not port_is_free(host, int(wanted)):
            raise CommandFailed(f"port {wanted} on {host} is in use; set AXISPATH_PORT to another.")
        return int(wanted)
    return HOME_PORT if port_is_free(host, HOME_PORT) else free_port()


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
