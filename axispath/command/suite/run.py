"""./axis-path test: everything, a part, or what is named; the same run twice where it is wanted."""

from __future__ import annotations

import argparse
import collections
import os
import secrets
import shlex
import subprocess
import sys
import tempfile
from collections.abc import Iterable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from axispath.command.cluster import running_cluster
from axispath.command.errors import CommandFailed
from axispath.command.place import ROOT, scratch
from axispath.command.suite import deck
from axispath.command.suite.checks import checks_pass
from axispath.command.suite.record import Record, recorded

HAND = "axispath.command.suite.hand"
# Properties are tried on the same examples in every run unless another seed is asked for, so that
# a change fails by what it changed; hunting for more is what tools/ are for.
SEED = 1
MOST_UNSTEADY = 2  # tests that failed and then passed alone, in a run that still counts as passed
MOST_AGAIN = 10  # tests that are run again; more that failed are no chance
ORDERS = 3
HANDS = (0, 1, 1)  # from which pile each process is dealt; on two cores, since all of them wait
QUICK = 180.0  # seconds that the modules of a quick choice took last, in all processes together
PARTS = {
    "all": ("**",),
    "quick": ("core", "web"),
    **{
        folder.name: (folder.name,)
        for folder in sorted((ROOT / "tests").glob("*/"))
        if (folder / "__init__.py").exists()
    },
}


@dataclass(frozen=True, slots=True)
class Run:
    """What was asked for: where records go, and the seed of everything that is drawn by lot."""

    folder: Path
    seed: int

    def hand(self, name: str, what: Sequence[str]) -> list[Record]:
        """Run tests in a process, on a database of their own; gives what became of each."""
        file = self.folder / f"{name}.jsonl"
        seed = str(self.seed)
        with (
            tempfile.TemporaryDirectory(prefix="axispath-test-", dir=scratch()) as made,
            running_cluster(Path(made), lasting=False) as own,
        ):
            addresses = {"AXISPATH_TEST_DATABASE": own.address}
            # No answer depends on how quick the machine is, or on an order of hashes.
            seeds = {"AXISPATH_TEST_SEED": seed, "PYTHONHASHSEED": seed}
            clock = {"AXISPATH_CLOCK": "counted"}
            done = subprocess.run(
                [sys.executable, "-m", HAND, str(file), *what],
                cwd=ROOT,
                env={**os.environ, **addresses, **seeds, **clock},
            )
        found = [*recorded(file)]
        if done.returncode and not any(record.outcome == "failed" for record in found):
            last = f" after {found[-1].name}" if found else ""
            found.append(Record(f"a process of tests ({name})", 0, "failed", f"It ended{last}."))
        return found


def run_tests(arguments: list[str]) -> int:
    """All tests, a part of them or those named. Gives the exit code."""
    parser = argparse.ArgumentParser(prog="./axis-path test", add_help=False)
    parser.add_argument("--seed", default=str(SEED))
    parser.add_argument("--shuffle", type=int)
    parser.add_argument("names", nargs="*")
    wanted, unknown = parser.parse_known_args(arguments)
    if unknown or not (wanted.seed == "new" or wanted.seed.isdigit()):
        raise CommandFailed(
            f"test takes {', '.join(['orders', *PARTS])}, names, --seed and --shuffle."
        )
    seed = secrets.randbelow(2**31) if wanted.seed == "new" else int(wanted.seed) % 2**32
    names = wanted.names or ["all"]
    with tempfile.TemporaryDirectory(prefix="axispath-run-") as made:
        run = Run(Path(made), seed)
        if names == ["orders"]:
            return _orders(run)
        if wanted.shuffle is None and all(name in PARTS for name in names):
            if "all" in names and not checks_pass():
                return 1
            chosen = [*dict.fromkeys(one for name in names for one in _named(name))]
            if names == ["quick"]:
                chosen, left = deck.short(chosen, QUICK)
                print(f"axis-path: left out as long: {', '.join(left) or 'none'}", file=sys.stderr)
            return _dealt(run, chosen)
        named = [one for name in names for one in _named(name)]
        shuffled = [] if wanted.shuffle is None else ["--shuffle", str(wanted.shuffle)]
        return _end(run, {(*shuffled,): run.hand("named", [*shuffled, *named])})


def _dealt(run: Run, names: Iterable[str]) -> int:
    """Deal modules to processes: those of the browser wait, others compute."""
    dealt = run.folder / "deck"
    deck.deal(names, dealt)

    def hand(number: int, pile: int) -> list[Record]:
        return run.hand(f"hand-{number}", ["--deck", str(dealt), "--pile", str(pile)])

    with ThreadPoolExecutor(len(HANDS)) as pool:
        hands = [*pool.map(hand, range(len(HANDS)), HANDS)]
    took: collections.defaultdict[str, float] = collections.defaultdict(float)
    for record in (record for found in hands for record in found):
        took[_module(record)] += record.seconds
    deck.keep_times({name: round(seconds, 1) for name, seconds in took.items() if name})
    return _end(run, {("dealt", str(k)): found for k, found in enumerate(hands)})


def _orders(run: Run) -> int:
    """The core in orders drawn by lot: no test meets what another left."""
    names = deck.modules(PARTS["core"])
    codes = []
    for _ in range(ORDERS):
        shuffle = str(secrets.randbelow(10**6))
        print(f"axis-path: the core in the order {shuffle}", file=sys.stderr)
        with tempfile.TemporaryDirectory(prefix="axispath-run-") as made:
            one = Run(Path(made), run.seed)
            found = one.hand("shuffled", ["--shuffle", shuffle, *names])
            codes.append(_end(one, {("--shuffle", shuffle): found}, once=True))
    return max(codes)


def _end(run: Run, hands: dict[tuple[str, ...], list[Record]], once: bool = False) -> int:
    """Run what failed once more, alone; say what was found, and how to have it again."""
    records = [record for found in hands.values() for record in found]
    failed = [record for record in records if record.outcome == "failed"]
    unsteady: list[Record] = []
    if failed and not once and len(failed) <= MOST_AGAIN:
        for k, record in enumerate(failed):
            again = run.hand(f"again-{k}", [record.again])
            if again and all(one.outcome != "failed" for one in again):
                unsteady.append(record)
    firm = [record for record in failed if record not in unsteady]
    for record in failed:
        head = "UNSTEADY (passed alone)" if record in unsteady else "FAILED"
        print(f"\n{head}: {record.name}\n{record.said}", file=sys.stderr)
    if failed:
        _tell_again(run, hands, failed)
    skipped = [record for record in records if record.outcome == "skipped"]
    for record in skipped:
        print(f"skipped: {record.name}: {record.said}", file=sys.stderr)
    _tell_longest(records)
    print(f"seed: {run.seed}")
    print(f"unsteady: {', '.join(record.name for record in unsteady) or 'none'}")
    passed = len(records) - len(firm) - len(skipped)
    print(f"{passed} passed, {len(firm)} failed, {len(skipped)} skipped", flush=True)
    return int(bool(firm) or len(unsteady) > MOST_UNSTEADY or not passed)


def _tell_again(run: Run, hands: dict[tuple[str, ...], list[Record]], failed: list[Record]) -> None:
    """The command that runs what a failed test came after, in the same order, and then itself."""
    commands = {}
    for how, found in hands.items():
        modules = [*dict.fromkeys(name for record in found if (name := _module(record)))]
        for record in found:
            if record not in failed:
                continue
            name = _module(record)
            before = modules[: modules.index(name) + 1] if name in modules else modules
            shuffled = how if how and how[0] == "--shuffle" else ()
            what = sorted(modules) if shuffled else before
            command = ["./axis-path", "test", "--seed", str(run.seed), *shuffled, *what]
            commands[shlex.join(command)] = record.name
    for again, name in commands.items():
        print(f"\naxis-path: {name} after the same tests as now: {again}", file=sys.stderr)


def _named(name: str) -> list[str]:
    """The modules of a part, or what is named."""
    return deck.modules(PARTS[name]) if name in PARTS else [name]


def _tell_longest(records: list[Record]) -> None:
    for record in sorted(records, key=lambda record: -record.seconds)[:10]:
        if record.seconds > 5:
            print(f"{record.seconds:7.1f} s  {record.name}", file=sys.stderr)


def _module(record: Record) -> str:
    """The module of a test; empty for what is none."""
    name = record.again
    while name and not ROOT.joinpath(*name.split(".")).with_suffix(".py").exists():
        name = name.rpartition(".")[0]
    return name
