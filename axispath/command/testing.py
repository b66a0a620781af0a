"""Run every test: the linters, the type checker, the unit tests and the browser tests."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from pathlib import Path

from axispath.command.cluster import running_cluster
from axispath.command.place import ROOT

CHECKS = (
    ("ruff", "format", "--check", "--quiet", "."),
    ("ruff", "check", "--quiet", "."),
    ("mypy",),
)


def run_tests(names: list[str]) -> int:
    """All tests, or those named as unittest names them. Gives the exit code."""
    if not names and not _checks_pass():
        return 1
    with tempfile.TemporaryDirectory(prefix="axispath-test-", dir=scratch()) as made:
        folder = Path(made)
        with running_cluster(folder, lasting=False) as address:
            environment = {**os.environ, "AXISPATH_TEST_DATABASE": address}
            wanted = names or ["discover", "-s", "tests", "-t", "."]
            done = subprocess.run(
                [sys.executable, "-m", "unittest", *wanted], cwd=ROOT, env=environment
            )
    return done.returncode


def scratch() -> str:
    """A folder that PostgreSQL's user may pass through."""
    return "/var/tmp" if os.geteuid() == 0 else tempfile.gettempdir()


def _checks_pass() -> bool:
    passed = True
    for check in CHECKS:
        done = subprocess.run([sys.executable, "-m", *check], cwd=ROOT)
        if done.returncode:
            print(f"axis-path: {' '.join(check)} found something to mend.", file=sys.stderr)
            passed = False
    return passed
