"""Exact forms in a process of their own, with a time limit, so that no answer waits for them."""

from __future__ import annotations

import logging
import multiprocessing
import os
import time
from collections import OrderedDict
from concurrent.futures import TimeoutError as OutOfTime
from dataclasses import asdict
from threading import Lock
from typing import Any

from pebble import ProcessExpired, ProcessPool

from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.path.exact_forms import Wanted, asymptotes, exact_forms
from axispath.core.path.labels import crossing_key, keyed
from axispath.core.path.landmark import BREAKS, Certainty, Kind, Method, Path
from axispath.core.path.lanes import Range
from axispath.core.path.survey import survey
from axispath.core.sheet.document import Document
from axispath.web.landmarks import USUAL

LIMIT = 3.0  # seconds for one function, and for the whole answer
MOST = 40  # landmarks of one function
KEPT = 400
LATE = object()
log = logging.getLogger(__name__)

_lock = Lock()
_pool: ProcessPool | None = None
_known: OrderedDict[Any, Any] = OrderedDict()


def forms(document: Document, only: Range | None) -> dict[str, Any]:
    """Exact forms of the landmarks in view, by key, and asymptotes, by lane.

    ``late`` where some were not ready in time; asked again they may be, as when the process
    had only just been started.
    """
    found = survey(document, USUAL, only)
    unit = document.unit
    jobs: list[tuple[str, Any, tuple[Any, ...]]] = []
    for lane, path in found.lanes:
        if path is not None:
            jobs.append(
                ("forms", exact_forms, _asked(lane.program, unit, None, lane.lane.id, path))
            )
            if lane.ends[0] is None or lane.ends[1] is None:
                jobs.append((lane.lane.id, asymptotes, (lane.program, unit)))
    for c in found.crossings:
        asked = _asked(c.first.program, unit, c.second.program, crossing_key(c), c.path)
        jobs.append(("forms", exact_forms, asked))
    told: dict[str, Any] = {"forms": {}, "asymptotes": {}, "late": False}
    jobs.sort(key=lambda job: job[0] != "forms")
    for (name, _, _), result in zip(jobs, answers(jobs), strict=True):
        if result is LATE:
            told["late"] = True
        if result is None or result is LATE:
            continue
        if name == "forms":
            shown = {key: asdict(form) for key, form in result.items() if form.x or form.y}
            told["forms"].update(shown)
        elif result:
            told["asymptotes"][name] = f"asymptotes: {', '.join(result)}"
    return told


def _asked(
    plan: Program, unit: AngleUnit, other: Program | None, key: str, path: Path
) -> tuple[Any, ...]:
    wanted = tuple(
        Wanted(
            name,
            mark.kind.value,
            mark.x,
            mark.y if abs(mark.y) < 1e15 else None,
            mark.certainty is Certainty.EXACT
            and (mark.kind in (*BREAKS, Kind.ZERO) or mark.method is Method.SIDES),
        )
        for name, mark in list(keyed(key, path))[:MOST]
    )
    return (plan, unit, other, wanted)


def answers(jobs: list[tuple[str, Any, tuple[Any, ...]]]) -> list[Any]:
    """The results of all jobs: LATE for those out of time, None for those that failed."""
    pool = get_ready()
    if pool is None:
        return [None] * len(jobs)
    until = time.monotonic() + LIMIT
    running = []
    for _, work, given in jobs:
        key = (work.__name__, *given)
        with _lock:
            known = _known.get(key)
        running.append(
            (key, known, None if known is not None else pool.schedule(work, given, timeout=LIMIT))
        )
    results = []
    for key, known, future in running:
        if future is None:
            results.append(known)
            continue
        try:
            result = future.result(timeout=max(0.01, until - time.monotonic()))
            _remember(key, result)
        except OutOfTime:
            future.cancel()
            result = LATE
        except ProcessExpired as gone:
            log.warning("a process for exact forms ended with code %s", gone.exitcode)
            result = None
        except Exception as error:  # SymPy may raise anything on what a student typed
            # Its message may hold what was typed, so only its kind is logged.
            log.warning("an exact form could not be found: %s", type(error).__name__)
            result = None
        results.append(result)
    return results


def _remember(key: Any, result: Any) -> None:
    with _lock:
        _known[key] = result
        while len(_known) > KEPT:
            _known.popitem(last=False)


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


def _start() -> None:
    """Give way to whatever answers people: exact forms never delay a number."""
    os.nice(15)
    _warm()


def _warm() -> None:
    """The slow import, before the clock of a job runs."""
    import sympy  # noqa: F401
