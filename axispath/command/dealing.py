"""Test modules dealt to the processes that run them, one at a time, so that all end together."""

from __future__ import annotations

import fcntl
import sys
import unittest
from collections.abc import Iterator
from pathlib import Path


class Dealt(unittest.TestSuite):
    """The tests of modules that are taken from a deck, from its top or its bottom."""

    _cleanup = False  # there is no list of tests from which those that ran could be taken out

    def __init__(self, deck: Path, top: bool) -> None:
        super().__init__()
        self.deck = deck
        self.top = top

    def __iter__(self) -> Iterator[unittest.TestSuite]:
        while name := taken(self.deck, self.top):
            yield unittest.defaultTestLoader.loadTestsFromName(name)


def taken(deck: Path, top: bool) -> str:
    """The name that is next, which nobody else gets; empty where there is none any more."""
    with deck.open("r+") as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        names = file.read().split()
        if not names:
            return ""
        name = names.pop(0 if top else -1)
        file.seek(0)
        file.truncate()
        file.write("\n".join(names))
        return name


if __name__ == "__main__":
    found = unittest.TextTestRunner().run(Dealt(Path(sys.argv[1]), sys.argv[2] == "top"))
    sys.exit(not found.wasSuccessful())
