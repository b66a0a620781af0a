"""Results to the digits that are wanted: a tree walked with more digits until these are sure."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import partial
from typing import TypeVar

from flint import acb, arb

from axispath.core.arithmetic.patience import time_check
from axispath.core.arithmetic.program import Definition, NotComputable
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.evaluate import Evaluator, Known
from axispath.core.catalogue.balls import precision
from axispath.core.language.tree import Comparison, Expression
from axispath.core.quantities.scalars import UNDECIDED, TooWide
from axispath.core.quantities.values import (
    Formula,
    Grid,
    Items,
    Measured,
    NoResult,
    Parts,
    Scalar,
    Undefined,
    Value,
)

BITS = (128, 512, 2_048, 8_192)
FARTHEST = 2 * 10**9  # powers of two
WANTED = 60  # bits of every number that are right: more than any line shows
NONE: Mapping[str, Value] = {}


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a line comes to. ``principal`` where a complex value came out of real numbers.

    ``condition`` is the largest condition number of what was solved inexactly; 0 where nothing was.
    """

    value: Value
    principal: bool = False
    condition: float = 0.0


@dataclass
class Calculator:
    """Calculates on the definitions of one sheet; what names stand for is carried out once."""

    definitions: Mapping[str, Definition]
    unit: AngleUnit
    known: dict[int, dict[str, Known]] = field(default_factory=dict)

    def result(self, body: Expression, names: Mapping[str, Value] = NONE) -> Outcome:
        """The value of an expression, with values for letters. Raises NoResult, OutOfTime."""
        best: Outcome | None = None
        _look_at_the_clock()
        for bits in BITS:
            with precision(bits):
                walk = self._walk(bits)
                try:
                    value = _carried(partial(walk.value, body, names))
                except NoResult:
                    if best is None:
                        raise
                    return best  # what more digits ask for was too much; fewer are known
                if value is None:
                    continue
                best = Outcome(value, walk.principal, walk.condition)
                if isinstance(value, Undefined):
                    raise NoResult(value.why)
                if not finite(value):
                    raise NoResult("it is too large to compute")
                if sure(value):
                    return best
        if best is not None:
            return best
        raise NoResult(UNDECIDED)

    def holds(self, condition: Comparison) -> bool:
        """Whether a comparison of numbers holds. Raises NoResult, OutOfTime."""
        _look_at_the_clock()
        for bits in BITS:
            with precision(bits):
                walk = self._walk(bits)
                found = _carried(partial(walk.holds, condition, {}))
                if found is not None:
                    return found
        raise NoResult(UNDECIDED)

    def _walk(self, bits: int) -> Evaluator:
        return Evaluator(self.definitions, self.unit, self.known.setdefault(bits, {}))


def _look_at_the_clock() -> None:
    """The lines before may have taken all the time there was."""
    check = time_check()
    if check is not None:
        check()


T = TypeVar("T")


def _carried(work: Callable[[], T]) -> T | None:
    """What a walk finds; None where it needs more digits. Raises NoResult, OutOfTime."""
    try:
        return work()
    except TooWide:
        return None
    except NotComputable as error:
        raise NoResult(_lowered(str(error))) from None
    except RecursionError:
        raise NoResult("this is nested too deeply to compute") from None


def _lowered(sentence: str) -> str:
    """A sentence that goes on behind a colon."""
    return sentence[:1].lower() + sentence[1:].rstrip(".")


def _scalars(value: Value) -> Iterator[Scalar]:
    match value:
        case Items(values):
            yield from values
        case Grid():
            yield from value.entries
        case Parts(named):
            for _, one in named:
                yield from _scalars(one)
        case Formula():
            return
        case Measured():
            yield value.value
        case _:
            yield value


def finite(value: Value) -> bool:
    """Whether all enclosures have ends, and not so far out that they could not be written."""
    balls = (one for one in _scalars(value) if isinstance(one, arb | acb))
    parts = (p for one in balls for p in ((one,) if isinstance(one, arb) else (one.real, one.imag)))
    return all(part.is_finite() and _writable(part.mid()) for part in parts)


def _writable(number: arb) -> bool:
    return abs(int(number.man_exp()[1])) < FARTHEST


def sure(value: Value) -> bool:
    """Whether all numbers are known to the digits that a line shows."""
    return all(map(_sure, _scalars(value)))


def _sure(value: Scalar) -> bool:
    if isinstance(value, arb):
        return bool(value.rel_accuracy_bits() >= WANTED) or value.is_zero()
    if isinstance(value, acb):
        return all(_sure(part) for part in (value.real, value.imag))
    return True
