"""The files that sheets can be made of: one entry each, the first that takes a file reads it."""

from __future__ import annotations

import re
import zipfile
from collections.abc import Callable
from dataclasses import dataclass
from io import BytesIO
from pathlib import PurePath

from axispath.core.arithmetic.patience import Patience
from axispath.core.data.reading import CannotRead
from axispath.core.language.several import several
from axispath.core.path.edited import edited
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits.change import Change
from axispath.core.sheet.edits.data import AddColumns, columns_of, taken_names
from axispath.core.sheet.edits.lines import AddLines
from axispath.core.sheet.names import MAX_NAME
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.data.opened import Opened, decoded, opened
from axispath.exchange.sheets.archive import Found, is_archive, read_archive
from axispath.exchange.sheets.file import read_sheet

MOST_TABLES = 20  # of a spreadsheet that are looked at
SPREADSHEETS = ("xl/workbook.xml", "content.xml")  # what is in XLSX and in ODS


@dataclass(frozen=True, slots=True)
class Incoming:
    """A kind of file: its endings, what it is in a few words, and whether a file looks like one."""

    endings: tuple[str, ...]
    words: str
    takes: Callable[[bytes, str], bool]
    read: Callable[[bytes, str, Patience | None], Found]


def _ending(name: str) -> str:
    return PurePath(name.lower()).suffix


def _is_table(data: bytes, name: str) -> bool:
    if is_archive(data):
        try:
            with zipfile.ZipFile(BytesIO(data)) as packed:
                return any(one in SPREADSHEETS for one in packed.namelist())
        except zipfile.BadZipFile:
            return False
    return _ending(name) in (".csv", ".tsv", ".xls")


def _is_json(data: bytes, name: str) -> bool:
    return _ending(name) == ".json" or data.lstrip()[:1] in (b"{", b"[")


def _table(data: bytes, name: str, patience: Patience | None) -> Found:
    """A sheet with the first table of a file that holds numbers as its data set."""
    title = _title(name)
    blank = Document(name=title)
    found = _first_of_numbers(data, tuple(sorted(taken_names(blank))))
    made = _made(blank, AddColumns(name=title, columns=columns_of(found.read)), patience)
    others = (one for k, one in enumerate(found.tables) if k != found.table)
    return Found((made,), tuple(f"{one}: one table makes a sheet" for one in others))


def _first_of_numbers(data: bytes, taken: tuple[str, ...]) -> Opened:
    first: CannotRead | None = None
    for table in range(MOST_TABLES):
        try:
            found = opened(data, table, taken)
        except CannotRead as reason:
            first = first or reason
            continue
        if found.table == table:
            return found
        break  # there are no more tables
    raise EditRefused(str(first)) from first


def _lines(data: bytes, name: str, patience: Patience | None) -> Found:
    """A sheet with a lane for each formula of a text."""
    try:
        text = decoded(data)
    except CannotRead as reason:
        raise EditRefused(str(reason)) from reason
    if not several(text):
        raise EditRefused("There is no formula in this file.")
    return Found((_made(Document(name=_title(name)), AddLines(text=text), patience),))


def _made(blank: Document, edit: Change, patience: Patience | None) -> Document:
    return edited(blank, [edit], patience)[-1].document  # type: ignore[list-item]


def _title(name: str) -> str:
    """The name of a sheet after that of its file."""
    stem = PurePath(re.split(r"[/\\]", name)[-1]).stem
    return " ".join(re.sub(r"[\x00-\x1f\x7f]", " ", stem).split())[:MAX_NAME] or "Brought in"


INCOMING = (
    Incoming((".csv", ".tsv", ".xlsx", ".ods"), "a table of data", _is_table, _table),
    Incoming(
        (".zip",),
        "many sheets in a ZIP",
        lambda data, _: is_archive(data),
        lambda data, *_: read_archive(data),
    ),
    Incoming((".json",), "a sheet as JSON", _is_json, lambda data, *_: Found((read_sheet(data),))),
    Incoming(
        (".txt", ".tex", ".py"),
        "formulas line by line, in LaTeX or in Python too",
        lambda _, name: _ending(name) in (".txt", ".tex", ".py", ".md"),
        _lines,
    ),
)


def brought(data: bytes, name: str, patience: Patience | None = None) -> Found:
    """The sheets of a file. Raises EditRefused with a sentence where there are none."""
    for kind in INCOMING:
        if kind.takes(data, name):
            return kind.read(data, name, patience)
    kinds = "; ".join(f"{kind.words} ({', '.join(kind.endings)})" for kind in INCOMING)
    raise EditRefused(f"This is no file that sheets are made of. There are: {kinds}.")
