"""What became of each test: a line of JSON each, written as soon as it is known."""

from __future__ import annotations

import json
import re
import time
import unittest
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from pathlib import Path
from types import TracebackType
from typing import Any

_Error = tuple[type[BaseException], BaseException, TracebackType] | tuple[None, None, None]
# What unittest calls a class or a module that could not be prepared, and one that was not found.
_PREPARED = re.compile(r"\w+ \((?P<name>[\w.]+)\)$")
_NOT_LOADED = "unittest.loader._FailedTest."


@dataclass(frozen=True, slots=True)
class Record:
    """One test: its name, how long it took in seconds, what became of it, and what it said."""

    name: str
    seconds: float
    outcome: str  # passed, failed or skipped
    said: str = ""

    @property
    def again(self) -> str:
        """The name by which the test, or what of it could not be prepared, is run again."""
        if self.name.startswith(_NOT_LOADED):
            return self.name[len(_NOT_LOADED) :]
        prepared = _PREPARED.match(self.name)
        return prepared["name"] if prepared else self.name


def recorded(file: Path) -> Iterator[Record]:
    """The records of a file; none where there is no file."""
    if file.exists():
        for line in file.read_text().splitlines():
            yield Record(**json.loads(line))


class Recording(unittest.TestResult):
    """Writes a record of each test that ends."""

    def __init__(self, file: Path) -> None:
        super().__init__()
        self.file = file
        self.begun = time.monotonic()
        self.said: list[str] = []
        self.skips = ""
        self.within = False

    def startTest(self, test: unittest.TestCase) -> None:
        """A test begins."""
        super().startTest(test)
        self.begun, self.said, self.skips, self.within = time.monotonic(), [], "", True

    def stopTest(self, test: unittest.TestCase) -> None:
        """It has ended."""
        super().stopTest(test)
        self.within = False
        self._write(test.id())

    def addError(self, test: unittest.TestCase, err: _Error) -> None:
        """It could not be carried out."""
        super().addError(test, err)
        self._failed(test, self.errors[-1][1])

    def addFailure(self, test: unittest.TestCase, err: _Error) -> None:
        """Something was not as it should be."""
        super().addFailure(test, err)
        self._failed(test, self.failures[-1][1])

    def addSubTest(
        self, test: unittest.TestCase, subtest: unittest.TestCase, err: _Error | None
    ) -> None:
        """A part of it has ended."""
        before = len(self.errors), len(self.failures)
        super().addSubTest(test, subtest, err)
        if err is None:
            return
        new = [*self.errors[before[0] :], *self.failures[before[1] :]]
        self.said += [f"{subtest}\n{text}" for _, text in new]

    def addSkip(self, test: unittest.TestCase, reason: str) -> None:
        """It was left out."""
        super().addSkip(test, reason)
        self.skips = reason
        if not self.within:
            self._write(test.id())

    def addUnexpectedSuccess(self, test: unittest.TestCase) -> None:
        """It passed against what it says."""
        super().addUnexpectedSuccess(test)
        self._failed(test, "It passed, and was expected to fail.")

    def _failed(self, test: Any, text: str) -> None:
        self.said.append(text)
        if not self.within:  # a class or a module could not be prepared
            self._write(test.id())

    def _write(self, name: str) -> None:
        outcome = "failed" if self.said else "skipped" if self.skips else "passed"
        seconds = round(time.monotonic() - self.begun, 3)
        record = Record(name, seconds, outcome, "\n".join(self.said) or self.skips)
        with self.file.open("a") as file:
            file.write(json.dumps(asdict(record)) + "\n")
        self.begun, self.said, self.skips = time.monotonic(), [], ""
