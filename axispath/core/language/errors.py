"""The one error that a text can cause."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

Read = TypeVar("Read")


class LanguageError(Exception):
    """A line that cannot be understood.

    ``message`` is a sentence for a student; ``start`` and ``end`` are offsets into the
    text as typed; ``mend`` is a whole corrected line, where there is an obvious one.
    """

    def __init__(self, message: str, start: int = 0, end: int = 0, mend: str | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.start = start
        self.end = max(end, start)
        self.mend = mend


def mended(text: str, read: Callable[[str], Read]) -> Read:
    """What ``read`` makes of a line; the mend of its error is kept only where that is read too."""
    try:
        return read(text)
    except LanguageError as error:
        if error.mend is not None:
            try:
                read(error.mend)
            except LanguageError:
                error.mend = None
        raise
