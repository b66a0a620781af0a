"""How many requests of one network are looked at at once: the rest is refused before it costs.

A process has so many threads; whoever fills them keeps everybody else waiting, whatever is refused
later. A school behind one address has room enough, since a request takes some milliseconds.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from threading import Lock
from typing import Any

from axispath.web.limits import network
from axispath.work.protocol import Busy

Wsgi = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]
MOST = 24  # of the 40 threads of a process
REFUSAL = b'{"kind":"trouble","message":"Busy just now, trying again ..."}\n'


class Crowd:
    """How many threads of this process are busy with somebody; safe under threads."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._count: Counter[str] = Counter()

    @contextmanager
    def one_more(self, who: str, most: int) -> Iterator[None]:
        """One more, unless there are as many already. Raises Busy."""
        with self._lock:
            if self._count[who] >= most:
                raise Busy
            self._count[who] += 1
        try:
            yield
        finally:
            with self._lock:
                self._count[who] -= 1
                if not self._count[who]:
                    del self._count[who]


def only_some(wsgi: Wsgi, most: int = MOST) -> Wsgi:
    """The application for so many requests of a network at once: others get a 429 at once."""
    crowd = Crowd()

    def answer(environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        try:
            # What is sent is made by then: the threads that only send wait for nobody here.
            with crowd.one_more(network(str(environ.get("REMOTE_ADDR") or "")), most):
                return wsgi(environ, start)
        except Busy:
            heads = [("Content-Type", "application/json"), ("Retry-After", "1")]
            start("429 TOO MANY REQUESTS", [*heads, ("Content-Length", str(len(REFUSAL)))])
            return [REFUSAL]

    return answer
