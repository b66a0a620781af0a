"""The one error of everything that a person wants of a sheet and cannot have."""

from __future__ import annotations


class EditRefused(Exception):
    """The edit cannot be made; ``start`` and ``end`` are offsets into the text it brought.

    ``mend`` is another line to try, ``mends`` all that may be meant.
    """

    def __init__(self, message: str, start: int = 0, end: int = 0, mend: str | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.start = start
        self.end = end
        self.mend = mend
        self.mends: tuple[str, ...] = ()
