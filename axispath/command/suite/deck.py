"""Test modules: which there are, how long each took last, and how they are dealt to processes."""

from __future__ import annotations

import fcntl
import json
from collections.abc import Callable, Iterable, Iterator, Mapping
from pathlib import Path

from axispath.command.place import ROOT

TIMES = ROOT / ".test-times.json"
BYTES_A_SECOND = 2000.0  # a guess of how long a module takes that was not run here yet
BROWSER = "browser"  # the folder of tests that drive a browser


def modules(folders: Iterable[str] = ("**",)) -> list[str]:
    """The names of the test modules in folders of ``tests``, in the order of the alphabet."""
    files = sorted({file for folder in folders for file in ROOT.glob(f"tests/{folder}/test_*.py")})
    return [".".join(file.relative_to(ROOT).with_suffix("").parts) for file in files]


def times() -> dict[str, float]:
    """How many seconds each module took last, as far as that is known."""
    try:
        known = json.loads(TIMES.read_text())
    except (OSError, ValueError):
        return {}
    return {str(name): float(seconds) for name, seconds in known.items()}


def keep_times(new: Mapping[str, float]) -> None:
    """Remember how long modules took."""
    TIMES.write_text(json.dumps({**times(), **new}, indent=1, sort_keys=True))


def deal(names: Iterable[str], file: Path) -> None:
    """Write a deck: a pile with the tests of the browser and one with all others, longest first."""
    seconds = _seconds(times())
    piles: tuple[list[str], list[str]] = ([], [])
    for name in sorted(names, key=lambda name: (-seconds(name), name)):
        piles[f".{BROWSER}." not in name].append(name)
    file.write_text(json.dumps(piles))


def short(names: Iterable[str], most: float) -> tuple[list[str], list[str]]:
    """As many modules as take so many seconds together, the shortest ones; and the others."""
    seconds = _seconds(times())
    kept: list[str] = []
    left: list[str] = []
    total = 0.0
    for name in sorted(names, key=seconds):
        total += seconds(name)
        (kept if total <= most else left).append(name)
    return kept, left


def _seconds(known: Mapping[str, float]) -> Callable[[str], float]:
    """How long a module takes, guessed by its size where it was not run here yet."""

    def seconds(name: str) -> float:
        if name in known:
            return known[name]
        path = ROOT.joinpath(*name.split(".")).with_suffix(".py")
        return path.stat().st_size / BYTES_A_SECOND

    return seconds


def taken(file: Path, pile: int) -> Iterator[str]:
    """The names that one process is dealt: of its own pile, then of the other; nobody else's."""
    while name := _next(file, pile):
        yield name


def _next(file: Path, pile: int) -> str:
    with file.open("r+") as deck:
        fcntl.flock(deck, fcntl.LOCK_EX)
        piles = json.load(deck)
        source = piles[pile] or piles[1 - pile]
        if not source:
            return ""
        # Of the other's pile the shortest: the two end together.
        name = source.pop(0 if piles[pile] else -1)
        deck.seek(0)
        deck.truncate()
        json.dump(piles, deck)
        return str(name)
