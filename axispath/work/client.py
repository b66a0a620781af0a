"""The side of those who ask: a connection to the broker for each thread."""

from __future__ import annotations

import os
import pickle
import threading
from multiprocessing.connection import Client, Connection
from typing import Any

from axispath.work.counts import Counts
from axispath.work.protocol import Answer, Ask, Busy, Job, carried_out, opened

ADDRESS = "AXISPATH_WORK"  # in the environment: the broker's socket
ANSWER = 60.0  # seconds after which an answer is not waited for any longer


class Here:
    """Carries jobs out in this very process: for tests, and where nothing has to be bounded."""

    def __init__(self) -> None:
        self.counts = Counts()

    def ask(self, job: Job) -> Any:
        """The value of a job, or what it raises."""
        return opened(carried_out(job.call))

    def tell(self, what: str, *given: Any) -> Any:
        """The same as of a broker without processes."""
        now = {"waiting": 0, "busy": 0, "workers": 1}
        return self.counts.answer(Ask(what, given), lambda: now)


class Broker:
    """Has jobs carried out by the broker's processes."""

    def __init__(self, address: str, patience: float = ANSWER) -> None:
        self.address = address
        self.patience = patience
        self._own = threading.local()

    def ask(self, job: Job) -> Any:
        """The value of a job. Raises what it raises, Busy, or Cut where it took too much."""
        answer = self._exchange(job)
        assert isinstance(answer, Answer)
        return opened(answer)

    def tell(self, what: str, *given: Any) -> Any:
        """Something that the broker itself answers. Raises Busy where it does not."""
        return self._exchange(Ask(what, given))

    def _exchange(self, asked: Job | Ask) -> Any:
        message = pickle.dumps(asked, protocol=pickle.HIGHEST_PROTOCOL)
        line: Connection | None = getattr(self._own, "line", None)
        if line is not None:
            try:
                return self._asked(line, message)
            except (OSError, EOFError):
                self._hang_up()
        # The broker may have been started anew since.
        try:
            line = self._own.line = Client(self.address, "AF_UNIX")
            return self._asked(line, message)
        except (OSError, EOFError) as error:
            self._hang_up()
            raise Busy from error

    def _asked(self, line: Connection, message: bytes) -> Any:
        line.send_bytes(message)
        if not line.poll(self.patience):
            raise EOFError
        return pickle.loads(line.recv_bytes())

    def _hang_up(self) -> None:
        line: Connection | None = self._own.__dict__.pop("line", None)
        if line is not None:
            line.close()


def from_environment() -> Here | Broker:
    """What the environment says."""
    address = os.environ.get(ADDRESS)
    return Broker(address) if address else Here()
