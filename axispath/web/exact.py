"""Exact forms in a process of their own, with a limit, so that no answer waits for them."""

from __future__ import annotations

import logging
import multiprocessing
import os
import signal
from collections.abc import Hashable
from concurrent.futures import CancelledError, Future, wait
from concurrent.futures import TimeoutError as OutOfTime
from dataclasses import asdict, dataclass, replace
from threading import Lock
from typing import Any

from flint import arb
from pebble import ProcessExpired, ProcessPool

from axispath.bound import end_with_parent
from axispath.budgets import EXACT_FORM, EXACT_WAIT
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.program import NotComputable, Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.closed import Closing, closing_of
from axispath.core.language.tree import Number, Running, ValueStatement
from axispath.core.memory import Memory, keeps
from axispath.core.path.curves.forms import curve_forms, place_of_mark
from axispath.core.path.kinds import SEARCHED, VALUED
from axispath.core.path.labels import crossing_key, keyed
from axispath.core.path.lanes import Range
from axispath.core.path.relations.forms import both_of, pair_forms
from axispath.core.quantities.values import NoResult
from axispath.core.search.closed_forms import closed_text
from axispath.core.search.exact_forms import (
    asked_for,
    asymptotes,
    exact_forms,
    exact_value,
)
from axispath.core.search.landmark import Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.kinds import OVER_X
from axispath.web.landmarks.searching import looked

REMINDER = 0.5  # and the same again, should the first signal be swallowed on its way
HANGING = 300.0  # seconds after which a process is given up that does nothing
MOST = 40  # landmarks of one function
MOST_WAITING = 100  # functions, of all people together
KEPT = 400
LATE = object()
LEVEL = program(Number("0"))
log = logging.getLogger(__name__)

_lock = Lock()
_pool: ProcessPool | None = None


@dataclass(frozen=True)
class _Result:
    """What came out of a job; None where nothing did, or not within its limit."""

    value: Any


_known: Memory[_Result] = Memory(KEPT)
_running: dict[Hashable, Future[Any]] = {}


def forms(document: Document, longer: bool, only: Range | None) -> dict[str, Any]:
    """Exact forms of the landmarks in view, by key, and asymptotes, by lane.

    ``late`` where some are not ready yet: they are worked on, and there when asked for again.
    """
    found = looked(document, longer, only)
    unit = document.unit
    jobs: list[tuple[str, Any, tuple[Any, ...]]] = []
    for lane, path in found.lanes:
        if path is not None and SEARCHED[lane.kind.key].along == "parameter":
            named = list(keyed(lane.lane.id, path))
            places = [p for key, mark in named if (p := place_of_mark(key, mark)) is not None]
            jobs.append(("forms", curve_forms, (*lane.programs, unit, tuple(places[:MOST]))))
        elif path is not None and not lane.can(OVER_X):
            # Of a relation what lies on the x-axis is a zero of a function of x.
            marks = replace(path, landmarks=tuple(m for m in path.landmarks if m.of is not None))
            jobs.append(("forms", exact_forms, _asked(LEVEL, unit, lane.lane.id, marks)))
            jobs.append(("forms", pair_forms, _both(unit, lane.lane.id, path)))
        elif path is not None:
            jobs.append(("forms", exact_forms, _asked(lane.program, unit, lane.lane.id, path)))
            if lane.ends[0] is None or lane.ends[1] is None:
                jobs.append((lane.lane.id, asymptotes, (lane.program, unit)))
    for c in found.crossings:
        if any(mark.pair is not None for mark in c.path.landmarks):
            jobs.append(("forms", pair_forms, _both(unit, crossing_key(c), c.path)))
        if not c.first.can(OVER_X):
            continue
        asked = _asked(c.first.program, unit, crossing_key(c), c.path)
        jobs.append(("forms", exact_forms, asked))
    sheet = resolve(document)
    valued = [lane for lane in sheet.working if lane.can(VALUED)]
    for lane in (*sheet.shown(VALUED), *valued[-MOST:]):
        try:
            jobs.append((lane.lane.id, exact_value, (lane.program, unit)))
        except NotComputable:
            continue  # a line may be longer than any program
    for lane in sheet.working[-MOST:]:
        closing = _closing(lane)
        if closing is not None:
            jobs.append((lane.lane.id, closed_text, (closing,)))
    told: dict[str, Any] = {"forms": {}, "asymptotes": {}, "values": {}, "late": False}
    jobs.sort(key=lambda job: job[0] != "forms")
    for (name, work, _), result in zip(jobs, answers(jobs), strict=True):
        if result is LATE:
            told["late"] = True
        if result is None or result is LATE:
            continue
        if name == "forms":
            shown = {key: asdict(form) for key, form in result.items() if form.x or form.y}
            told["forms"].update(shown)
        elif work in (exact_value, closed_text):
            told["values"][name] = result
        elif result:
            told["asymptotes"][name] = f"asymptotes: {', '.join(result)}"
    return told


def _closing(lane: ResolvedLane) -> Closing | None:
    """What is asked of a line that is an integral, a limit or an endless sum."""
    known, line = lane.calculated, lane.written
    if known is None or not isinstance(line, ValueStatement) or lane.lane.written.rests:
        return None
    if not isinstance(line.body, Running):
        return None
    try:
        value = lane.outcome.value
    except NoResult:
        return closing_of(known.calculator, line.body, None)
    near = float(value.mid()) if isinstance(value, arb) else None
    return closing_of(known.calculator, line.body, near) if near is not None else None


def _both(unit: AngleUnit, key: str, path: Path) -> tuple[Any, ...]:
    wanted = [both for name, mark in keyed(key, path) if (both := both_of(name, mark)) is not None]
    return unit, tuple(wanted[:MOST])


def _asked(plan: Program, unit: AngleUnit, key: str, path: Path) -> tuple[Any, ...]:
    asked = tuple(asked_for(name, mark) for name, mark in list(keyed(key, path))[:MOST])
    return (plan, unit, asked)


def answers(jobs: list[tuple[str, Any, tuple[Any, ...]]]) -> list[Any]:
    """The results of all jobs: LATE for those not ready yet, None for those that failed.

    A job that is late goes on, so that whoever asks again finds its result.
    """
    pool = get_ready()
    if pool is None:
        return [None] * len(jobs)
    running = [_begun(pool, work, given) for _, work, given in jobs]
    wait([job for job in running if isinstance(job, Future)], timeout=EXACT_WAIT)
    results: list[Any] = []
    for job in running:
        if isinstance(job, Future):
            results.append(_value(job) if job.done() else LATE)
        else:
            results.append(LATE if job is None else job.value)
    return results


def _begun(pool: ProcessPool, work: Any, given: tuple[Any, ...]) -> Future[Any] | _Result | None:
    """The result of a job where it is known, else the job; None where too many wait already."""
    key = (work.__name__, *given)
    known = _known.get(key)
    if known is not None:
        return known
    with _lock:
        job: Future[Any] | None = _running.get(key)
        if job is not None or len(_running) >= MOST_WAITING:
            return job
        arguments = (work, given, EXACT_FORM)
        job = _running[key] = pool.schedule(within_limit, arguments, timeout=HANGING)
    job.add_done_callback(lambda done: _finished(key, done))
    return job


def _finished(key: Hashable, job: Future[Any]) -> None:
    """Keep what a job found for those who ask again."""
    _known.keep(key, _Result(_value(job)))
    with _lock:
        _running.pop(key, None)


def _value(job: Future[Any]) -> Any:
    """What a job found; None where it failed."""
    try:
        return job.result()
    except (CancelledError, OutOfTime, _Over):
        log.warning("an exact form was given up")
    except ProcessExpired as gone:
        log.warning("a process for exact forms ended with code %s", gone.exitcode)
    except Exception as error:  # SymPy may raise anything on what a student typed
        # Its message may hold what was typed, so only its kind is logged.
        log.warning("an exact form could not be found: %s", type(error).__name__)
    return None


class _Over(BaseException):
    """A job has used up its processor time; nothing on the way catches this."""


def within_limit(work: Any, given: tuple[Any, ...], limit: float) -> Any:
    """Runs in the process for exact forms: a job, or None where it takes too much processor time.

    Counted is what this process itself uses, so that a busy machine only makes it later.
    """

    def over(*_: object) -> None:
        raise _Over

    signal.signal(signal.SIGPROF, over)
    signal.setitimer(signal.ITIMER_PROF, limit, REMINDER)
    try:
        return work(*given)
    except _Over:
        return None
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)


def get_ready() -> ProcessPool | None:
    """The pool, its process started before anybody waits for it; does not wait itself.

    None where AXISPATH_EXACT is 0: then there are no exact forms, and decimals alone.
    """
    global _pool
    if os.environ.get("AXISPATH_EXACT") == "0":
        return None
    with _lock:
        if _pool is None or not _pool.active:
            context = multiprocessing.get_context("spawn")
            _pool = ProcessPool(max_workers=1, context=context, initializer=_start)
            _pool.schedule(_warm)  # the process starts with its first job
        return _pool


def _give_up() -> None:
    """Whatever is still being looked for is given up, with its process."""
    global _pool
    with _lock:
        pool, _pool = (_pool, None) if _running else (None, _pool)
    if pool is not None:
        pool.stop()  # type: ignore[no-untyped-call]
        pool.join()
    with _lock:
        _running.clear()
    _known.clear()  # where what was given up has just been noted as failed


keeps(_give_up)


def _start() -> None:
    """Give way to whatever answers people: exact forms hardly delay a number."""
    end_with_parent(signal.SIGKILL)
    os.nice(5)
    _warm()


def _warm() -> None:
    """The slow import, before the clock of a job runs."""
    import sympy  # noqa: F401
