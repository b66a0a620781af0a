"""Many sheets in one ZIP, and back."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.names import told_apart
from axispath.exchange.sheets.file import LARGEST, read_sheet, sheet_file

MOST_SHEETS = 200
MOST_BYTES = 60 << 20  # of all that is read out of an archive
DATE = (2026, 1, 1, 0, 0, 0)  # the same sheets make the same archive


@dataclass(frozen=True, slots=True)
class Found:
    """The sheets of a file, and what of it was no sheet, in sentences."""

    documents: tuple[Document, ...]
    left: tuple[str, ...] = ()


def archive(documents: Sequence[Document]) -> bytes:
    """Sheets as a ZIP of JSON files."""
    names = told_apart((one.name for one in documents), "json")
    return packed((name, sheet_file(one)) for name, one in zip(names, documents, strict=True))


def packed(files: Iterable[tuple[str, bytes]]) -> bytes:
    """Files with their names as a ZIP."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        for name, data in files:
            made.writestr(zipfile.ZipInfo(name, DATE), data, zipfile.ZIP_DEFLATED)
    return out.getvalue()


def is_archive(data: bytes) -> bool:
    """Whether a file is a ZIP, by its first bytes."""
    return data[:4] in (b"PK\x03\x04", b"PK\x05\x06")


def read_archive(data: bytes) -> Found:
    """The sheets of a ZIP; names of its files, whatever paths they are, only name things.

    Nothing is unpacked beyond what a sheet may have, however small it is packed.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as opened:
            return _read(opened)
    except (zipfile.BadZipFile, NotImplementedError, EOFError, ValueError) as error:
        raise EditRefused("This ZIP is damaged and cannot be read.") from error
    except RuntimeError as error:  # how the library says that a file is encrypted
        raise EditRefused("This ZIP is locked by a password; unlock it first.") from error


def _read(opened: zipfile.ZipFile) -> Found:
    files = [one for one in opened.infolist() if not one.is_dir()]
    wanted = [one for one in files if one.filename.lower().endswith(".json")]
    if len(wanted) > MOST_SHEETS:
        raise EditRefused(f"This ZIP has {len(wanted)} sheets; {MOST_SHEETS} can be read at once.")
    documents: list[Document] = []
    left = [f"{_called(one)}: not a JSON file" for one in files if one not in wanted]
    total = 0
    for one in wanted:
        with opened.open(one) as stream:
            data = stream.read(LARGEST + 1)
        total += len(data)
        if total > MOST_BYTES:
            raise EditRefused(f"This ZIP unpacks to more than {MOST_BYTES >> 20} MB.")
        try:
            documents.append(read_sheet(data))
        except EditRefused as reason:
            left.append(f"{_called(one)}: {reason}")
    if not documents:
        raise EditRefused(f"There is no sheet in this ZIP. {' '.join(left[:3])}".strip())
    return Found(tuple(documents), tuple(left))


def _called(one: zipfile.ZipInfo) -> str:
    return one.filename.replace("\\", "/").rsplit("/", 1)[-1][:60] or "a file"
