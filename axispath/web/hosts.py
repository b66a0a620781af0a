"""Which names the application answers to.

Links in letters carry the host that was asked for: whoever can choose it can have a letter lead
elsewhere. Other hosts are answered before anything else of a request is looked at.
"""

from __future__ import annotations

import os
from collections.abc import Callable, Iterable
from typing import Any

Wsgi = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]
SETTING = "AXISPATH_HOSTS"
LOOPBACK = ("127.0.0.1", "::1")
WATCHED = ("/health", "/metrics")
REFUSAL = b"This server does not answer to that name.\n"


def configured() -> tuple[str, ...]:
    """The names that may be asked for; none where every name may."""
    return tuple(host.lower() for host in os.environ.get(SETTING, "").split())


def only(wsgi: Wsgi, hosts: tuple[str, ...]) -> Wsgi:
    """The application for these names alone: other requests get a plain 400.

    One that begins with a point stands for all names that end with it. Whoever watches from this
    very machine may use any name.
    """

    def answer(environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        host = str(environ.get("HTTP_HOST") or environ.get("SERVER_NAME") or "")
        if _answers_to(host, hosts) or (
            environ.get("PATH_INFO") in WATCHED and environ.get("REMOTE_ADDR") in LOOPBACK
        ):
            return wsgi(environ, start)
        length = str(len(REFUSAL))
        start("400 BAD REQUEST", [("Content-Type", "text/plain"), ("Content-Length", length)])
        return [REFUSAL]

    return answer if hosts else wsgi


def _answers_to(host: str, hosts: tuple[str, ...]) -> bool:
    name = host.rpartition(":")[0] if host.rpartition(":")[2].isdigit() else host
    name = name.lower().rstrip(".")
    return any(name == one or (one[:1] == "." and name.endswith(one)) for one in hosts)
