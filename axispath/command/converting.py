"""./axis-path convert: a sheet in a file to another format, without a server."""

from __future__ import annotations

import argparse
from pathlib import Path

from axispath.command.errors import CommandFailed
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.formats import FORMATS, PICTURES, Format
from axispath.exchange.names import told_apart
from axispath.exchange.sheets.archive import read_file

WIDTH, HEIGHT = 1200, 750


def convert(arguments: list[str]) -> int:
    """Convert a sheet, or every sheet of a ZIP; gives the exit code."""
    parser = argparse.ArgumentParser(prog="axis-path convert", description=__doc__)
    parser.add_argument("file", type=Path, help="a sheet as JSON, or a ZIP of them")
    parser.add_argument("--to", required=True, choices=sorted(FORMATS), help="the format wanted")
    parser.add_argument("--out", type=Path, default=Path(), help="the folder for what is made")
    given = parser.parse_args(arguments)
    try:
        found = read_file(given.file.read_bytes())
    except OSError as error:
        raise CommandFailed(f"{given.file} cannot be read: {error.strerror}.") from error
    except EditRefused as refused:
        raise CommandFailed(str(refused)) from refused
    for sentence in found.left:
        print(f"left out: {sentence}")
    wanted = FORMATS[given.to]
    names = told_apart((one.name for one in found.documents), wanted.ending)
    given.out.mkdir(parents=True, exist_ok=True)
    for name, document in zip(names, found.documents, strict=True):
        place = given.out / name
        place.write_bytes(made(document, wanted))
        print(place)
    return 0


def made(document: Document, wanted: Format) -> bytes:
    """A sheet in a format; pictures in their usual size."""
    if wanted in PICTURES:
        from axispath.exchange.picture.draw import picture
        from axispath.exchange.picture.seen import Seen

        return picture(Seen(document, WIDTH, HEIGHT), wanted.name, 1.0)
    assert wanted.make is not None
    return wanted.make(document)
