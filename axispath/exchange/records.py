"""Everything that a hand-out has collected, as one ZIP, and what tells whether it was changed.

In the ZIP: ``answers.csv`` with all answers, and for each sitting a folder with the sheet as it
was handed in, its answers and its record; ``seals.json`` lists the last hash of each record and
the digest of every other file.
"""

from __future__ import annotations

import csv
import hashlib
import io
import json
import zipfile
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import asdict, dataclass, field
from typing import Any

from axispath.core.practice.chain import (
    START,
    Entry,
    answer_digest,
    broken_at,
    digest_in,
    sheet_digest,
)
from axispath.core.sheet.document import Document, lasting
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.names import told_apart
from axispath.exchange.sheets.archive import packed
from axispath.exchange.sheets.file import read_sheet, sheet_file

MARK = "axis path record"
SEALS = "seals.json"
ENDED = ("handed in", "late")  # after these nothing of the sheet changes
MOST_BYTES = 200 << 20  # of all that is read out of an archive
MOST_FILES = 3000
HEADS = ("who", "question", "answer", "verdict", "told", "when")


@dataclass(frozen=True, slots=True)
class Row:
    """One answer as a table has it; ``when`` is UTC, as ISO 8601."""

    who: str
    question: str
    answer: str
    verdict: str
    told: str
    when: str


@dataclass(frozen=True)
class Taken:
    """A sitting to take away."""

    name: str
    document: Document | None
    answers: Sequence[Row]
    record: Sequence[Entry]


def answers_csv(rows: Iterable[Row]) -> str:
    """Answers as CSV; a cell that a spreadsheet would take for a formula begins with a quote."""
    out = io.StringIO()
    write = csv.writer(out, lineterminator="\r\n")
    write.writerow(HEADS)
    for row in rows:
        write.writerow([_plain(cell) for cell in asdict(row).values()])
    return out.getvalue()


def _plain(cell: str) -> str:
    return f"'{cell}" if cell[:1] in "=+-@\t\r" and not _is_number(cell) else cell


def _is_number(cell: str) -> bool:
    try:
        float(cell)
    except ValueError:
        return False
    return True


def record_file(name: str, entries: Sequence[Entry]) -> bytes:
    """A record as JSON, as whoever was examined can take it too."""
    found = {MARK: 1, "name": name, "entries": [asdict(entry) for entry in entries]}
    return (json.dumps(found, ensure_ascii=False, indent=1) + "\n").encode()


def record_archive(sheet: str, sittings: Sequence[Taken]) -> bytes:
    """All sheets, answers and records."""
    files: list[tuple[str, bytes]] = []
    last = {}
    folders = told_apart((one.name for one in sittings), "")
    rows = [row for one in sittings for row in one.answers]
    files.append(("answers.csv", ("\ufeff" + answers_csv(rows)).encode()))
    for folder, one in zip((name.rstrip(".") for name in folders), sittings, strict=True):
        if one.document is not None:
            files.append((f"{folder}/sheet.json", sheet_file(one.document)))
        files.append((f"{folder}/answers.csv", ("\ufeff" + answers_csv(one.answers)).encode()))
        files.append((f"{folder}/record.json", record_file(one.name, one.record)))
        last[folder] = one.record[-1].hash if one.record else START
    seals = {
        MARK: 1,
        "sheet": sheet,
        "records": last,
        "files": {name: hashlib.sha256(data).hexdigest() for name, data in files},
    }
    text = json.dumps(seals, ensure_ascii=False, indent=1) + "\n"
    return packed([(SEALS, text.encode()), *files])


@dataclass
class Verified:
    """What a look at an archive has found: sentences, those about ``wrong`` things apart."""

    told: list[str] = field(default_factory=list)
    wrong: list[str] = field(default_factory=list)


def read_record(data: bytes) -> tuple[str, list[Entry]]:
    """The name and the entries of a record. Raises EditRefused where it is none."""
    try:
        found: Any = json.loads(data)
        entries = [Entry(**one) for one in found["entries"]]
        name = str(found["name"])
        if found.get(MARK) != 1:
            raise KeyError(MARK)
        for one in entries:
            if not isinstance(one.number, int) or not all(
                isinstance(part, str)
                for part in (one.at, one.kind, one.detail, one.before, one.hash)
            ):
                raise TypeError
    except (ValueError, KeyError, TypeError, AttributeError) as error:
        raise EditRefused("This is no record: it cannot be read as one.") from error
    return name, entries


def verify(data: bytes, copies: Sequence[bytes] = ()) -> Verified:
    """Whether an archive is what was taken away; ``copies`` are records that students kept.

    Raises EditRefused where it is no such archive.
    """
    files = _files(data)
    if SEALS not in files:
        raise EditRefused(f"This is no archive of records: {SEALS} is not in it.")
    try:
        seals: Any = json.loads(files.pop(SEALS))
        digests, last = dict(seals["files"]), dict(seals["records"])
    except (ValueError, KeyError, TypeError) as error:
        raise EditRefused(f"{SEALS} cannot be read.") from error
    found = Verified()
    for name in sorted({*digests, *files}):
        if name not in files:
            found.wrong.append(f"{name} is missing.")
        elif name not in digests:
            found.wrong.append(f"{name} was not there when this was taken away.")
        elif hashlib.sha256(files[name]).hexdigest() != digests[name]:
            found.wrong.append(f"{name} was changed.")
    heads: dict[str, tuple[str, list[Entry]]] = {}
    for folder, head in sorted(last.items()):
        name = f"{folder}/record.json"
        if name not in files:
            continue
        try:
            who, entries = read_record(files[name])
        except EditRefused as refused:
            found.wrong.append(f"{name}: {refused.message}")
            continue
        heads[who] = (folder, entries)
        broken = broken_at(entries)
        if broken is not None:
            found.wrong.append(f"{name}: entry {broken} is not what was recorded.")
        elif (entries[-1].hash if entries else START) != head:
            found.wrong.append(f"{name} does not end as it was sealed.")
        else:
            found.told.append(
                f"{folder}: {len(entries)} entries, all as they were recorded. The last digest is "
                f"{head}: it is on the receipts of both."
            )
            found.wrong += _not_recorded(folder, files, entries)
    for copy in copies:
        _compare(copy, heads, found)
    return found


def _not_recorded(folder: str, files: dict[str, bytes], entries: list[Entry]) -> Iterator[str]:
    """What stands beside a record and is not what was recorded: answers, and the sheet."""
    given = [digest for one in entries if one.kind == "answered" and (digest := digest_in(one))]
    table = files.get(f"{folder}/answers.csv", b"").decode("utf-8-sig", "replace")
    rows = [row for row in csv.DictReader(io.StringIO(table)) if row.get("answer") is not None]
    told = [
        {answer_digest(text, str(row.get("verdict"))) for text in _unquoted(str(row["answer"]))}
        for row in rows
    ]
    pairs = zip(given, told, strict=False)
    if given and (len(told) != len(given) or not all(one in some for one, some in pairs)):
        yield f"{folder}/answers.csv does not hold the answers that were recorded."
    ends = [digest for one in entries if one.kind == "handed in" and (digest := digest_in(one))]
    name = f"{folder}/sheet.json"
    if ends and entries[-1].kind in ENDED:
        try:
            now = sheet_digest(lasting(read_sheet(files.get(name, b""))))
        except EditRefused:
            now = ""
        if now != ends[-1]:
            yield f"{name} is not the sheet that was handed in."


def _unquoted(cell: str) -> tuple[str, ...]:
    """A text as it may have been before it was made harmless in a table."""
    return (cell, cell[1:]) if cell[:1] == "'" else (cell,)


def _compare(copy: bytes, heads: dict[str, tuple[str, list[Entry]]], found: Verified) -> None:
    """A student's copy was made earlier or later: one has to begin as the other does."""
    who, entries = read_record(copy)
    if who not in heads:
        found.wrong.append(f"There is no record of {who} in the archive.")
        return
    folder, kept = heads[who]
    broken = broken_at(entries)
    if broken is not None:
        found.wrong.append(f"The copy of {who}: entry {broken} is not what was recorded.")
        return
    pairs = zip(entries, kept, strict=False)
    apart = next((one.number for one, other in pairs if one.hash != other.hash), None)
    if apart is not None:
        found.wrong.append(f"{folder} and the copy of {who} differ from entry {apart} on.")
    else:
        found.told.append(f"{folder} agrees with the copy of {who}.")


def _files(data: bytes) -> dict[str, bytes]:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as opened:
            members = [one for one in opened.infolist() if not one.is_dir()]
            if len(members) > MOST_FILES or sum(one.file_size for one in members) > MOST_BYTES:
                raise EditRefused("This archive is too large to be one of records.")
            return {one.filename: opened.read(one) for one in members}
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, OSError, ValueError) as error:
        raise EditRefused("This file cannot be opened as a ZIP.") from error
