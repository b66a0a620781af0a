"""./axis-path verify: whether a ZIP of records is what was taken away, without a server."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

from axispath.command.errors import CommandFailed
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.records import verify as verified


def verify(arguments: list[str]) -> int:
    """Verify a ZIP, with copies of records where there are some; gives the exit code."""
    parser = argparse.ArgumentParser(prog="axis-path verify", description=__doc__)
    parser.add_argument("file", type=Path, help="the ZIP that was taken away")
    parser.add_argument("copies", type=Path, nargs="*", help="records that students kept")
    given = parser.parse_args(arguments)
    try:
        data, *copies = [file.read_bytes() for file in (given.file, *given.copies)]
        found = verified(data, copies)
    except OSError as error:
        raise CommandFailed(f"{error.filename} cannot be read: {error.strerror}.") from error
    except EditRefused as refused:
        raise CommandFailed(refused.message) from refused
    for sentence in found.told:
        print(sentence)
    for sentence in found.wrong:
        print(sentence, file=sys.stderr)
    if found.wrong:
        print("This was changed.")
    elif given.copies:
        print("Nothing was changed: it agrees with itself and with what students kept.")
    else:
        print(
            "It agrees with itself. Whether all of it was made anew tells the last digest of each "
            "record: compare it with the receipt that the student or you kept."
        )
    return 1 if found.wrong else 0
