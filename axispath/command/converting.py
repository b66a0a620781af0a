"""./axis-path convert: a sheet in a file to another format, without a server."""

from __future__ import annotations

import argparse
from pathlib import Path

from axispath.command.errors import CommandFailed
from axispath.core.sheet.palette import THEMES
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.formats import FORMATS, PARTS, Choice, made
from axispath.exchange.incoming import brought
from axispath.exchange.names import told_apart
from axispath.exchange.picture.sizes import Measure, Size, sized


def convert(arguments: list[str]) -> int:
    """Convert a sheet, or every sheet of a ZIP; gives the exit code."""
    parser = argparse.ArgumentParser(prog="axis-path convert", description=__doc__)
    parser.add_argument("file", type=Path, help="a sheet as JSON, a ZIP of them, formulas, a table")
    parser.add_argument("--to", required=True, choices=sorted(FORMATS), help="the format wanted")
    choosing = f"what of it, where a format lets choose: {', '.join(PARTS)}"
    parser.add_argument(
        "--parts", nargs="+", choices=PARTS, default=list(PARTS), metavar="PART", help=choosing
    )
    sizes = "of a picture: 1200x750, 16x10cm or slide"
    parser.add_argument("--size", help=sizes, default="1200x750")
    parser.add_argument("--theme", choices=tuple(THEMES), default="light", help="of a picture")
    parser.add_argument("--clear", action="store_true", help="a picture without a ground")
    parser.add_argument("--out", type=Path, default=Path(), help="the folder for what is made")
    given = parser.parse_args(arguments)
    try:
        found = brought(given.file.read_bytes(), given.file.name)
    except OSError as error:
        raise CommandFailed(f"{given.file} cannot be read: {error.strerror}.") from error
    except EditRefused as refused:
        raise CommandFailed(str(refused)) from refused
    for sentence in found.left:
        print(f"left out: {sentence}")
    wanted = FORMATS[given.to]
    choice = Choice(tuple(given.parts), _size(given.size), given.theme, given.clear)
    names = told_apart((one.name for one in found.documents), wanted.ending)
    given.out.mkdir(parents=True, exist_ok=True)
    for name, document in zip(names, found.documents, strict=True):
        place = given.out / name
        try:
            place.write_bytes(made(document, wanted, choice))
        except EditRefused as refused:
            raise CommandFailed(f"{name}: {refused}") from refused
        print(place)
    return 0


def _size(text: str) -> Size:
    """A size as it is written: 1200x750, 16x10cm or slide."""
    measure: Measure = "slide" if text == "slide" else "cm" if text.endswith("cm") else "pixels"
    sides = text.removesuffix("cm").split("x")
    try:
        width, height = (0.0, 0.0) if measure == "slide" else map(float, sides)
    except ValueError:
        raise CommandFailed(f"{text} is no size: 1200x750, 16x10cm or slide.") from None
    return sized(width, height, measure, 2.0)
