"""How many requests of one network are looked at at once: the rest is refused before it costs.

A process has so many threads; whoever fills them keeps everybody else waiting, whatever is refused
later. A school behind one address has room enough, since a request takes some milliseconds.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable
from threading import Lock
from typing import Any

from axispath.web.limits import network

Wsgi = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]
MOST = 24  # of the 40 threads of a process
REFUSAL = b'{"kind":"trouble","message":"Busy just now, trying again ..."}\n'


def only_some(wsgi: Wsgi, most: int = MOST) -> Wsgi:
    """The application for so many requests of a network at once: others get a 429 at once."""
    lock = Lock()
    count: Counter[str] = Counter()

    def answer(environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        whose = network(str(environ.get("REMOTE_ADDR") or ""))
        with lock:
            room = count[whose] < most
            if room:
                count[whose] += 1
        if not room:
            heads = [("Content-Type", "application/json"), ("Retry-After", "1")]
            start("429 TOO MANY REQUESTS", [*heads, ("Content-Length", str(len(REFUSAL)))])
            return [REFUSAL]
        try:
            # What is sent is made by now: the threads that only send wait for nobody here.
            return wsgi(environ, start)
        finally:
            with lock:
                count[whose] -= 1
                if not count[whose]:
                    del count[whose]

    return answer
