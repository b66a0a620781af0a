"""The broker: shares jobs out to worker processes, fairly, and ends those that take too much.

One process and one loop, so that it can fork workers at any time: they start with everything
loaded, within milliseconds. A job goes to the process that knows what it is about where that one
is idle. The same question asked twice is carried out once, and its answer is kept for a while.
"""

from __future__ import annotations

import logging
import os
import pickle
import selectors
import signal
import socket
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from multiprocessing.connection import Connection, Listener, Pipe
from pathlib import Path

from axispath.budgets import LONGEST_WAIT
from axispath.core.memory import Memory
from axispath.work import protocol
from axispath.work.counts import Counts
from axispath.work.kinds import (
    AT_ONCE,
    KINDS,
    REMEMBERED,
    WAITING,
    WAITING_EACH,
    Kind,
)
from axispath.work.protocol import BUSY, CUT, DONE, Answer, Ask, Job
from axispath.work.worker import work

LOOK = 0.2  # seconds between looks at what the workers use
ROUTES = 4096
VISITORS = "visitors"  # all who are nobody yet
STUCK = 2.0  # seconds after which one who neither reads nor writes is let go
_PAGE = os.sysconf("SC_PAGE_SIZE")
log = logging.getLogger(__name__)


@dataclass
class Task:
    """A job with all who wait for its answer."""

    job: Job
    asked: float
    askers: list[Connection]
    tries: int = 0


@dataclass(eq=False)
class Worker:
    """A process that carries out jobs of a kind."""

    kind: Kind
    pid: int
    pipe: Connection
    task: Task | None = None
    since: float = 0.0
    used: float = 0.0  # its processor time when its task began
    why: str = ""  # the sentence for its task, where it was killed


@dataclass
class Broker:
    """All that is going on."""

    address: str
    begins: dict[str, Callable[[], object]] = field(default_factory=dict)  # by kind
    kinds: dict[str, Kind] = field(default_factory=lambda: KINDS)
    workers: list[Worker] = field(default_factory=list)
    waiting: list[Task] = field(default_factory=list)
    askers: dict[Connection, Task | None] = field(default_factory=dict)
    routes: Memory[int] = field(default_factory=lambda: Memory(ROUTES))
    known: Memory[Answer] = field(default_factory=lambda: Memory(REMEMBERED, _weight))
    counts: Counts = field(default_factory=Counts)
    longest_wait: float = LONGEST_WAIT
    stopping: bool = False

    def serve(self) -> None:
        """Answer until told to stop."""
        Path(self.address).unlink(missing_ok=True)
        self.listener = Listener(self.address, "AF_UNIX", backlog=512)
        self.door: socket.socket = self.listener._listener._socket  # type: ignore[attr-defined]
        self.selector = selectors.DefaultSelector()
        self.selector.register(self.door, selectors.EVENT_READ, self._come)
        for kind in self.kinds.values():
            for _ in range(kind.processes):
                self._start(kind)
        signal.signal(signal.SIGTERM, self._stop)
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        look = time.monotonic() + LOOK
        while not self.stopping:
            for key, _ in self.selector.select(max(0.0, look - time.monotonic())):
                key.data(key.fileobj)
            self._share_out()
            if time.monotonic() >= look:
                self._look()
                look = time.monotonic() + LOOK
        for worker in self.workers:
            os.kill(worker.pid, signal.SIGKILL)
        self.listener.close()

    def _stop(self, *_: object) -> None:
        self.stopping = True

    # Those who ask

    def _come(self, _: object) -> None:
        try:
            asker = self.listener.accept()
        except OSError:
            return
        _never_stuck(asker)
        self.askers[asker] = None
        self.selector.register(asker, selectors.EVENT_READ, self._heard)

    def _heard(self, asker: Connection) -> None:
        if asker not in self.askers:
            return  # gone since this was noticed
        try:
            asked = pickle.loads(asker.recv_bytes())
        except (EOFError, OSError):
            self._leave(asker)
            return
        if isinstance(asked, Ask):
            self._tell(asker, self.counts.answer(asked, self._now))
        else:
            self._take(asker, asked)

    def _now(self) -> dict[str, int]:
        """How much is going on."""
        return {
            "waiting": len(self.waiting),
            "busy": sum(worker.task is not None for worker in self.workers),
            "workers": len(self.workers),
            "askers": len(self.askers),
        }

    def _take(self, asker: Connection, job: Job) -> None:
        self.counts.jobs[job.kind] += 1
        known = self.known.get(job.same) if job.same else None
        if known is not None:
            self.counts.remembered += 1
            self._give(asker, known)
            return
        running = [w.task for w in self.workers if w.task is not None]
        for task in (*running, *self.waiting):
            if job.same and task.job.same == job.same and task.job.kind == job.kind:
                task.askers.append(asker)
                self.askers[asker] = task
                return
        mine = sum(task.job.guest == job.guest for task in self.waiting)
        theirs = sum(task.job.network == job.network for task in self.waiting) if job.network else 0
        if mine >= WAITING_EACH or theirs >= WAITING // 2 or len(self.waiting) >= WAITING:
            self.counts.refused += 1
            self._give(asker, Answer(BUSY))
            return
        task = Task(job, time.monotonic(), [asker])
        self.askers[asker] = task
        self.waiting.append(task)

    def _give(self, asker: Connection, answer: Answer) -> None:
        self.askers[asker] = None
        self._tell(asker, answer)

    def _tell(self, asker: Connection, told: object) -> None:
        try:
            asker.send_bytes(pickle.dumps(told))
        except OSError:
            self._leave(asker)

    def _leave(self, asker: Connection) -> None:
        """One who asked is gone; what nobody waits for any more is not begun."""
        if asker not in self.askers:
            return
        task = self.askers.pop(asker)
        if task is not None and asker in task.askers:
            task.askers.remove(asker)
            if not task.askers and task in self.waiting:
                self.waiting.remove(task)
        self.selector.unregister(asker)
        asker.close()

    # Workers

    def _start(self, kind: Kind) -> None:
        near, far = Pipe()
        pid = os.fork()
        if pid == 0:
            near.close()
            self.selector.close()
            self.door.close()
            for worker in self.workers:
                worker.pipe.close()
            for asker in self.askers:
                asker.close()
            work(far, kind, self.begins.get(kind.name))
        far.close()
        _never_stuck(near)
        worker = Worker(kind, pid, near)
        self.workers.append(worker)
        self.selector.register(near, selectors.EVENT_READ, lambda _: self._answered(worker))

    def _share_out(self) -> None:
        if not self.waiting:
            return
        busy: Counter[tuple[str, str]] = Counter()
        for worker in self.workers:
            if worker.task is not None:
                busy.update([*_whose(worker.task.job), *_shares(worker.task.job)])
        # People before those who are nobody yet, and who has least before who has more.
        first = sorted(
            self.waiting,
            key=lambda one: (bool(one.job.network), *(busy[turn] for turn in _whose(one.job))),
        )
        for task in first:
            job = task.job
            most = max(1, self.kinds[job.kind].processes - 1)
            if busy["", job.guest] >= AT_ONCE or any(busy[one] >= most for one in _shares(job)):
                continue
            idle = self._idle(job)
            if idle is not None:
                self.waiting.remove(task)
                busy.update([*_whose(job), *_shares(job)])
                self._hand_over(idle, task)

    def _idle(self, job: Job) -> Worker | None:
        """An idle process for a job: the one that knows what it is about, else another."""
        idle = [w for w in self.workers if w.task is None and w.kind.name == job.kind]
        if not idle:
            return None
        route = (job.kind, job.route)
        last = self.routes.get(route)
        worker = next((w for w in idle if w.pid == last), idle[0])
        # Those longest idle first: work goes round where nobody knows it.
        self.workers.remove(worker)
        self.workers.append(worker)
        self.routes.keep(route, worker.pid)
        return worker

    def _hand_over(self, worker: Worker, task: Task) -> None:
        worker.task = task
        worker.since = time.monotonic()
        worker.used = _processor_time(worker.pid)
        worker.why = ""
        try:
            worker.pipe.send_bytes(task.job.call)
        except OSError:
            self._gone(worker)

    def _answered(self, worker: Worker) -> None:
        if worker not in self.workers:
            return  # replaced since this was noticed
        try:
            answer: Answer = pickle.loads(worker.pipe.recv_bytes())
        except (EOFError, OSError):
            self._gone(worker)
            return
        task, worker.task = worker.task, None
        if task is None:
            return
        self.counts.seconds += time.monotonic() - worker.since
        self._settle(task, answer)

    def _settle(self, task: Task, answer: Answer) -> None:
        if answer.told == DONE and task.job.same:
            self.known.keep(task.job.same, answer)
        for asker in list(task.askers):
            self._give(asker, answer)

    def _gone(self, worker: Worker) -> None:
        """A process has ended. What it worked on is tried once more, unless we ended it."""
        task, worker.task = worker.task, None
        self._replace(worker)
        if task is None:
            return
        if worker.why:
            self.counts.cut += 1
            self._settle(task, Answer(CUT, pickle.dumps(worker.why)))
        elif task.tries or not task.askers:
            self._settle(task, Answer(CUT, pickle.dumps(protocol.BROKEN)))
        else:
            task.tries += 1
            self.waiting.insert(0, task)

    def _replace(self, worker: Worker) -> None:
        self.counts.replaced += 1
        self.selector.unregister(worker.pipe)
        worker.pipe.close()
        self.workers.remove(worker)
        os.kill(worker.pid, signal.SIGKILL)
        os.waitpid(worker.pid, 0)
        self._start(worker.kind)

    def _look(self) -> None:
        """End what takes too much, replace what has grown, refuse what has waited too long."""
        now = time.monotonic()
        for worker in list(self.workers):
            if worker.task is None:
                if _memory(worker.pid) > worker.kind.usual:
                    self._replace(worker)
                continue
            if (
                _processor_time(worker.pid) - worker.used > worker.kind.seconds
                or now - worker.since > worker.kind.wall
            ):
                worker.why = protocol.TOO_LONG
            elif _memory(worker.pid) > worker.kind.most:
                worker.why = protocol.TOO_LARGE
            if worker.why:
                self._gone(worker)
        for task in [t for t in self.waiting if now - t.asked > self.longest_wait]:
            self.waiting.remove(task)
            self.counts.refused += 1
            self._settle(task, Answer(BUSY))


def _never_stuck(line: Connection) -> None:
    """Whoever stops in the middle of what they say or hear is let go after a while."""
    with socket.socket(fileno=os.dup(line.fileno())) as end:
        seconds, rest = divmod(STUCK, 1)
        limit = int(seconds).to_bytes(8, "little") + int(rest * 1e6).to_bytes(8, "little")
        end.setsockopt(socket.SOL_SOCKET, socket.SO_SNDTIMEO, limit)
        end.setsockopt(socket.SOL_SOCKET, socket.SO_RCVTIMEO, limit)


def _whose(job: Job) -> list[tuple[str, str]]:
    """Whom a job is counted for in all kinds: its network, where it has one, and its guest."""
    return [("", job.network), ("", job.guest)] if job.network else [("", job.guest)]


def _shares(job: Job) -> list[tuple[str, str]]:
    """Who leaves a process of its kind to others: its guest; all who are nobody yet as one."""
    own = (job.kind, job.guest)
    return [own, (job.kind, VISITORS)] if job.network else [own]


def _weight(same: str, answer: Answer) -> int:
    """Bytes that a remembered answer takes, roughly."""
    return len(answer.value) + 500


def _processor_time(pid: int) -> float:
    """Seconds of processor time that a process has used, 0 where it is gone.

    Linux has a clock for each process, whose number is made of the process's as clock_getcpuclockid
    makes it; reading it costs far less than reading /proc.
    """
    try:
        return time.clock_gettime((~pid << 3) | 2)
    except OSError:
        return 0.0


def _memory(pid: int) -> int:
    """Bytes of memory in which a process resides, 0 where it is gone."""
    try:
        return int(Path(f"/proc/{pid}/statm").read_bytes().split()[1]) * _PAGE
    except OSError:
        return 0
