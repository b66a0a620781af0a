"""Throw bytes and mangled lines at the language until something other than a refusal comes back.

    python3 tools/fuzz_language.py SECONDS

Uses atheris (coverage guided) where it is installed, else chance alone. Ends with an error
on the first crash and on the first line that takes more than 50 ms.
"""

from __future__ import annotations

import contextlib
import random
import sys
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

try:
    import atheris

    guided = atheris.instrument_imports()
except ImportError:
    atheris = None
    guided = contextlib.nullcontext()

with guided:
    from axispath.core import catalogue
    from axispath.core.arithmetic.build import program
    from axispath.core.arithmetic.program import Definition, NotComputable
    from axispath.core.language.errors import LanguageError
    from axispath.core.language.latex import latex_statement
    from axispath.core.language.pasted import from_latex, is_latex
    from axispath.core.language.plain import plain_statement
    from axispath.core.language.readings import other_readings
    from axispath.core.language.statement import parse_statement
    from axispath.core.language.tree import Number
from tests.core.corpus import MISTAKES, READINGS  # noqa: E402

LONGEST = 0.05
SEEDS = [line for line, *_ in (*READINGS, *MISTAKES) if len(line) < 300]
ALPHABET = "xya0123456789.+-*/^()|[]{},;=<>!'°²³√π∞ \\_\nefor in if sum sin log"


class _AnyNames(dict):
    def __missing__(self, name: str) -> Definition:
        return Definition(None, Number("2"))


def one(text: str) -> None:
    """Everything that happens to a typed line; a slow run has to be slow again to count."""
    if read_time(text) > LONGEST and min(read_time(text) for _ in range(5)) > LONGEST:
        raise AssertionError(f"{text!r} takes more than {LONGEST * 1000:.0f} ms")


def read_time(text: str) -> float:
    """How long a line takes to be read, typeset and read back."""
    start = time.process_time()
    try:
        line = from_latex(text) if is_latex(text) else text
        other_readings(line, catalogue.SCOPE)
        statement = parse_statement(line, catalogue.SCOPE)
        latex_statement(statement, catalogue.VOCABULARY, "f")
        again = plain_statement(statement, catalogue.VOCABULARY)
        if parse_statement(again, catalogue.SCOPE) != statement:
            raise AssertionError(f"{text!r} reads back as something else: {again!r}")
        read = time.process_time() - start
        program(statement.body, statement.parameters, _AnyNames())
    except (LanguageError, NotComputable):
        return time.process_time() - start
    return read


def mangled(chance: random.Random) -> str:
    """A line of the corpus with a few characters changed."""
    text = list(chance.choice(SEEDS))
    for _ in range(chance.randint(1, 5)):
        at = chance.randint(0, len(text))
        what = chance.random()
        if what < 0.4:
            text.insert(at, chance.choice(ALPHABET))
        elif what < 0.7 and text:
            del text[at - 1]
        else:
            other = chance.choice(SEEDS)
            text[at:at] = other[chance.randint(0, len(other)) :]
    return "".join(text)


def by_chance(seconds: float) -> int:
    """Mangled lines for so many seconds; gives how many."""
    chance = random.Random(time.time_ns())
    until, count = time.monotonic() + seconds, 0
    while time.monotonic() < until:
        one(mangled(chance))
        count += 1
    return count


def main() -> None:
    """Fuzz with what is there."""
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 60
    print(f"{by_chance(seconds)} mangled lines: no crash, none over {LONGEST * 1000:.0f} ms")
    if atheris is None:
        return

    def bytes_in(data: bytes) -> None:
        one(data.decode("utf-8", errors="replace"))

    arguments = [sys.argv[0], f"-max_total_time={int(seconds)}", "-max_len=300"]
    atheris.Setup(arguments, bytes_in)
    atheris.Fuzz()


if __name__ == "__main__":
    main()
