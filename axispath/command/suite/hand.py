"""One process of tests: the modules that it is dealt, or those named, one after the other."""

from __future__ import annotations

import argparse
import random
import sys
import time
import unittest
from collections.abc import Iterable, Iterator
from pathlib import Path

from axispath.command.suite.deck import taken
from axispath.command.suite.record import Recording


def main(arguments: list[str]) -> int:
    """Run tests and write a record of each; the exit code says whether all passed."""
    parser = argparse.ArgumentParser()
    parser.add_argument("record", type=Path)
    parser.add_argument("--deck", type=Path)
    parser.add_argument("--pile", type=int, default=0)
    parser.add_argument("--shuffle", type=int)
    parser.add_argument("names", nargs="*")
    wanted = parser.parse_intermixed_args(arguments)
    result = Recording(wanted.record)
    if wanted.shuffle is None:
        dealt = taken(wanted.deck, wanted.pile) if wanted.deck else wanted.names
        for name in dealt:
            _run(name, unittest.defaultTestLoader.loadTestsFromName(name), result)
    else:
        tests = [*_each(unittest.defaultTestLoader.loadTestsFromNames(wanted.names))]
        random.Random(wanted.shuffle).shuffle(tests)
        _run(f"{len(tests)} tests in the order {wanted.shuffle}", tests, result)
    return int(not result.wasSuccessful())


def _run(
    name: str, tests: Iterable[unittest.TestCase | unittest.TestSuite], result: Recording
) -> None:
    begun, before, failed = time.monotonic(), result.testsRun, _failures(result)
    unittest.TestSuite(tests).run(result)
    found = f"{_failures(result) - failed} FAILED  " if _failures(result) > failed else ""
    count, seconds = result.testsRun - before, time.monotonic() - begun
    print(f"{seconds:7.1f} s {count:4d} tests  {found}{name}", file=sys.stderr, flush=True)


def _failures(result: Recording) -> int:
    return len(result.errors) + len(result.failures) + len(result.unexpectedSuccesses)


def _each(suite: unittest.TestSuite) -> Iterator[unittest.TestCase]:
    for test in suite:
        if isinstance(test, unittest.TestSuite):
            yield from _each(test)
        else:
            yield test


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
