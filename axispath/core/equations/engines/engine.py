"""What an engine is given and what it gives."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

from flint import arb

from axispath.core.arithmetic.program import Definition
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.equations.core import Core
from axispath.core.equations.engines.verify import Equations
from axispath.core.quantities.scalars import TooWide, real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import NoResult, Undefined

SIMPLE = 10_000  # largest denominator of a number that is tried as an exact one
Place = tuple[Surd | arb, ...]


@dataclass(frozen=True, slots=True)
class Limits:
    """Where an unknown is looked for, and where a search begins, in units of the SI.

    None where that is left open.
    """

    low: float | None = None
    high: float | None = None
    start: float | None = None


FREE = Limits()


@dataclass(frozen=True)
class Task:
    """A core to be solved; ``exact`` where all numbers in it are what they stand for."""

    core: Core
    definitions: Mapping[str, Definition]
    unit: AngleUnit
    calculator: Calculator
    limits: Mapping[str, Limits]
    exact: bool

    @cached_property
    def equations(self) -> Equations:
        """The core, ready to be computed."""
        return Equations(self.core, self.definitions, self.unit)

    def limit(self, name: str) -> Limits:
        """The limits of an unknown."""
        return self.limits.get(name, FREE)

    def inside(self, place: Place) -> bool:
        """Whether a place keeps the limits, as far as can be told."""
        return within(self.limits, dict(zip(self.core.unknowns, place, strict=True)))

    def exactly(self, place: Place) -> Place:
        """A place as simple fractions or roots, where these solve the equations exactly."""
        if not self.exact or all(isinstance(one, Surd) for one in place):
            return place
        guess = tuple(one if isinstance(one, Surd) else _simple(one) for one in place)
        near = all(real_ball(g).overlaps(real_ball(o)) for g, o in zip(guess, place, strict=True))
        return guess if near and self.solves(guess) else place

    def solves(self, place: Place) -> bool:
        """Whether exact numbers make all differences 0."""
        names = dict(zip(self.core.unknowns, place, strict=True))
        try:
            for one in self.core.differences:
                value = self.calculator.result(one, names).value
                if isinstance(value, Undefined) or not isinstance(value, Surd) or not value.is_zero:
                    return False
        except (NoResult, TooWide):
            return False
        return True


def within(limits: Mapping[str, Limits], values: Mapping[str, Surd | arb]) -> bool:
    """Whether values keep the limits of their names, as far as can be told."""
    for name, value in values.items():
        limit, ball = limits.get(name, FREE), real_ball(value)
        if limit.low is not None and ball < limit.low:
            return False
        if limit.high is not None and ball > limit.high:
            return False
    return True


def _simple(ball: arb) -> Surd:
    """The simple fraction in an enclosure, or the root of one; the nearest fraction otherwise."""
    x = float(ball.mid())
    near = Surd.of(Fraction(x).limit_denominator(SIMPLE))
    if not near.is_zero and not real_ball(near).overlaps(ball) and abs(x) < SIMPLE:
        root = Surd.of(Fraction(x * x).limit_denominator(SIMPLE)).square_root()
        root = -root if x < 0 else root
        return root if real_ball(root).overlaps(ball) else near
    return near


@dataclass(frozen=True, slots=True)
class Found:
    """The solutions of a core; ``complete`` where there are no others, within what ``words`` say.

    ``always`` says what solves it where these are not single numbers, ``cost`` how many
    evaluations the search took, roughly.
    """

    places: tuple[Place, ...]
    complete: bool
    words: str = ""
    always: str = ""
    cost: int = 0


@dataclass(frozen=True, slots=True)
class Engine:
    """``takes`` says whether it is for a task; ``solve`` may raise NotComputable, OutOfTime."""

    takes: Callable[[Task], bool]
    solve: Callable[[Task], Found]
