"""Pages of spreadsheets that keep every digit of a number."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape
from typing import Any

from xlsxwriter.worksheet import Worksheet


class FullPage(Worksheet):  # type: ignore[misc]
    """A page whose numbers have the 17 digits that a double may need; XlsxWriter writes 16."""

    def _xml_number_element(
        self, number: float, attributes: Sequence[tuple[str, Any]] = ()
    ) -> None:
        given = "".join(f' {name}="{escape(str(value))}"' for name, value in attributes)
        self.fh.write(f"<c{given}><v>{float(number)!r}</v></c>")
