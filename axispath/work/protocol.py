"""What goes between those who ask, the broker and the workers."""

from __future__ import annotations

import logging
import pickle
import traceback
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

MOST_FRAMES = 12
log = logging.getLogger(__name__)


class Busy(Exception):
    """There is too much to do just now; the same may succeed in a moment."""


class Cut(Exception):
    """A job was ended because it took more than it may; ``message`` says of what."""

    def __init__(self, message: str) -> None:
        super().__init__(message)
        self.message = message


TOO_LONG = "This takes too long to compute: its time was cut."
TOO_LARGE = "This takes too much memory to compute."
BROKEN = "This could not be computed here: its process ended."


@dataclass(frozen=True, slots=True)
class Job:
    """Something to be carried out.

    ``guest`` is who asks, for fairness; ``route`` what it is about, for a process that knows it
    already; ``same`` names what is asked with everything that shapes the answer, or is empty
    where the answer must not be shared; ``call`` is a function and its arguments, pickled.
    ``network`` is where somebody asks from who is nobody yet, and of whom there may be any number;
    empty for people.
    """

    kind: str
    guest: str
    route: str
    same: str
    call: bytes
    network: str = ""


def is_person(guest: str) -> bool:
    """Whether a guest is a person, and not a browser or an address without one."""
    return not guest.startswith(("new ", "at "))


@dataclass(frozen=True, slots=True)
class Ask:
    """Something that the broker answers itself: its counts, or a limit that it counts for all."""

    what: str
    given: tuple[Any, ...] = ()


@dataclass(frozen=True, slots=True)
class Answer:
    """What came of a job: a pickled value, or why there is none."""

    told: str
    value: bytes = b""


PARTS = "X-Parts"  # a header within: of how many parts this is one
NAMED = "X-Named"  # a header of a part that is a file of its own: all of them make a ZIP
DONE = "done"
PASSING = "passing"  # done, but worth asking again: nothing to remember
FAILED = "failed"  # ``value`` is the exception
BUSY = "busy"
CUT = "cut"  # ``value`` is a sentence


class Passing:
    """Around a value that a later, same question may find better."""

    def __init__(self, value: Any) -> None:
        self.value = value


def carried_out(call: bytes) -> Answer:
    """Carry out a pickled call."""
    try:
        function, given = pickle.loads(call)
        value = function(*given)
        if isinstance(value, Passing):
            return Answer(PASSING, pickle.dumps(value.value))
        return Answer(DONE, pickle.dumps(value))
    except MemoryError:
        return Answer(CUT, pickle.dumps(TOO_LARGE))
    except Exception as error:
        return Answer(FAILED, _sent(error))


def _sent(error: Exception) -> bytes:
    """An exception as it travels; one that cannot travel is told by its kind alone."""
    try:
        data = pickle.dumps(error)
        pickle.loads(data)
    except Exception:
        log.error("unexpected %s: %s", type(error).__name__, way(error))
        return pickle.dumps(RuntimeError(type(error).__name__))
    return data


def way(error: BaseException) -> str:
    """The functions that an error came through, from the outermost, without any value."""
    frames = traceback.extract_tb(error.__traceback__)[-MOST_FRAMES:]
    return " > ".join(f"{Path(f.filename).name}:{f.lineno} {f.name}" for f in frames)


def opened(answer: Answer) -> Any:
    """The value of an answer. Raises what its job raised, Busy or Cut."""
    if answer.told == BUSY:
        raise Busy
    value = pickle.loads(answer.value)
    if answer.told == CUT:
        raise Cut(value)
    if answer.told == FAILED:
        raise value
    return value


def called(function: Callable[..., Any], *given: Any) -> bytes:
    """A call as it travels."""
    return pickle.dumps((function, given), protocol=pickle.HIGHEST_PROTOCOL)
