"""Programs that are kept running: one that has ended is started again."""

from __future__ import annotations

import subprocess
import sys
import time
from collections.abc import Sequence
from typing import Protocol

from axispath.bound import bound
from axispath.command.place import ROOT

LOOK = 0.25  # seconds between looks
SHORT = 5.0  # seconds; a program that ends earlier is given a rest before it is started again
REST = 1.0  # seconds


class Kept(Protocol):
    """Something that is kept running."""

    name: str

    def start(self) -> None:
        """Start it."""

    def ended(self) -> int | None:
        """Its exit code where it has ended, None while it runs."""

    def stop(self) -> None:
        """Stop it, and wait until it has."""


class Program:
    """A Python module that runs in a process of its own, and ends with this one."""

    def __init__(self, name: str, module: str, *given: str, environment: dict[str, str]) -> None:
        self.name = name
        self.command = [sys.executable, "-m", module, *given]
        self.environment = environment
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Start it."""
        self.process = subprocess.Popen(
            self.command, cwd=ROOT, env=self.environment, preexec_fn=bound()
        )

    def ended(self) -> int | None:
        """Its exit code where it has ended, None while it runs."""
        return self.process.poll() if self.process else None

    def stop(self) -> None:
        """Stop it, and wait until it has."""
        if self.process is None:
            return
        self.process.terminate()
        try:
            self.process.wait(20)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


def keep_running(programs: Sequence[Kept]) -> None:
    """Look after started programs for ever, and start again what has ended."""
    since = {program.name: time.monotonic() for program in programs}
    due: dict[str, float] = {}  # when what has ended is started again
    while True:
        time.sleep(LOOK)
        for program in programs:
            now = time.monotonic()
            code = program.ended()
            if code is None:
                continue
            rest = REST if now - since[program.name] < SHORT else 0.0
            if now < due.setdefault(program.name, now + rest):
                continue
            print(f"axis-path: {program.name} ended ({code}); started again.", file=sys.stderr)
            program.start()
            since[program.name] = now
            del due[program.name]
