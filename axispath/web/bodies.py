"""How much a request may send, by what it is for."""

from __future__ import annotations

from flask import Request

from axispath.exchange.data.opened import LARGEST
from axispath.exchange.sheets.file import LARGEST as SHEETS

MAX_REQUEST = 200_000  # bytes; the longest honest request is a few lanes of 2,000 characters
LARGER = {
    "measured.open_file": LARGEST + 1,
    "bringing.bring": SHEETS + (1 << 16),  # with what a form puts around a file
}


class SheetRequest(Request):
    """A request whose limit is known before anything of it is read."""

    @property
    def max_content_length(self) -> int | None:
        """The limit of this route."""
        return LARGER.get(self.endpoint or "", super().max_content_length)

    @max_content_length.setter
    def max_content_length(self, value: int | None) -> None:
        Request.max_content_length.fset(self, value)  # type: ignore[attr-defined]
