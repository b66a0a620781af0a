"""Files with tables: text with separators, XLSX and ODS, by what is in them."""

from __future__ import annotations

import datetime
import io
import zipfile
from collections.abc import Sequence
from dataclasses import dataclass

from axispath.core.data.cells import MAX_ROWS
from axispath.core.data.reading import CannotRead, Cell, Read, read_table, rows_of_text

LARGEST = 20 << 20  # bytes of a file
UNPACKED = 200 << 20  # bytes that a spreadsheet may take when it is unpacked
SWOLLEN = 400  # times as large as packed, from which on it is taken for a trap
ENCODINGS = ("utf-8-sig", "utf-16", "cp1252")
EPOCH = datetime.date(2000, 1, 1)


@dataclass(frozen=True, slots=True)
class Opened:
    """The table that was read, and the names of all tables of the file."""

    read: Read
    table: int
    tables: tuple[str, ...]


def opened(data: bytes, table: int, taken: Sequence[str]) -> Opened:
    """One table of a file. Raises CannotRead with a sentence."""
    if len(data) > LARGEST:
        raise CannotRead(f"The file has {len(data) >> 20} MB; {LARGEST >> 20} MB can be opened.")
    if not data.strip():
        raise CannotRead("The file is empty.")
    if data[:4] == b"PK\x03\x04":
        return _spreadsheet(data, table, taken)
    if data[:8] == b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1":
        raise CannotRead("This is a spreadsheet of the old kind (.xls); save it as .xlsx first.")
    rows, between = rows_of_text(decoded(data))
    return Opened(read_table(rows, between, taken), 0, ())


def decoded(data: bytes) -> str:
    """The text of a file. Raises CannotRead where it is none."""
    if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return data.decode("utf-16", errors="replace")
    if b"\x00" in data[:4000]:
        raise CannotRead("This is neither text nor a spreadsheet that can be read here.")
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            return data.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise CannotRead("The text in this file is in an encoding that is not known here.")


def _spreadsheet(data: bytes, table: int, taken: Sequence[str]) -> Opened:
    from python_calamine import CalamineError, CalamineWorkbook

    _refuse_traps(data)
    try:
        book = CalamineWorkbook.from_filelike(io.BytesIO(data))
        names = tuple(book.sheet_names)
        if not names:
            raise CannotRead("There is no table in this file.")
        which = table if 0 <= table < len(names) else 0
        rows = book.get_sheet_by_index(which).to_python(nrows=MAX_ROWS + 20)
    except (CalamineError, ValueError, OSError, KeyError) as error:
        raise CannotRead("This is no spreadsheet that can be read here (XLSX, ODS).") from error
    cells = [[_cell(value) for value in row] for row in rows]
    return Opened(read_table(cells, "\t", taken), which, names)


def _refuse_traps(data: bytes) -> None:
    """A small file that unpacks to a huge one is not unpacked."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            sizes = [(one.file_size, one.compress_size) for one in packed.infolist()]
    except zipfile.BadZipFile as error:
        raise CannotRead("This file is damaged.") from error
    whole = sum(size for size, _ in sizes)
    if whole > UNPACKED or whole > SWOLLEN * max(len(data), 1):
        raise CannotRead("This file unpacks to far more than can be read here.")


def _cell(value: object) -> Cell:
    """A cell as the value that it shows: formulas are not run."""
    if value is None or isinstance(value, str):
        return value
    if isinstance(value, bool):
        return float(value)
    if isinstance(value, int | float):
        return float(value)
    if isinstance(value, datetime.datetime):
        return value.isoformat(sep=" ", timespec="seconds")
    if isinstance(value, datetime.date):
        return value.isoformat()
    if isinstance(value, datetime.time):
        return value.isoformat()
    if isinstance(value, datetime.timedelta):
        return value.total_seconds() / 3600
    return str(value)
