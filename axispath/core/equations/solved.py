"""Systems of equations, and what is found of them."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property

from axispath.core.equations.reading import Equation
from axispath.core.language.numbers import stretched
from axispath.core.quantities.values import Scalar


@dataclass(frozen=True, slots=True)
class System:
    """Equations that hang together by their unknowns."""

    equations: tuple[Equation, ...]
    unknowns: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Step:
    """What was found together: from which equations (by number), and what is said of it.

    ``complete`` where there is no more to be found, for certain.
    """

    equations: tuple[int, ...]
    unknowns: tuple[str, ...]
    words: str = ""
    complete: bool = True


@dataclass(frozen=True, slots=True)
class Trouble:
    """Why something has no answer, with the numbers of the equations that it is about."""

    words: str
    equations: tuple[int, ...] = ()


@dataclass(frozen=True)
class Solution:
    """The values of unknowns."""

    values: Mapping[str, Scalar]
    work: Callable[[], Mapping[int, float]] = field(default=dict, repr=False, compare=False)

    @cached_property
    def residuals(self) -> Mapping[int, float]:
        """How far the sides of each equation are apart at the nearest float64 numbers."""
        return self.work()


@dataclass(frozen=True, slots=True)
class Solved:
    """The solutions of a system, and how each part of them was found.

    ``digits`` is how many a result carries, by what was typed; 0 where nothing was measured.
    """

    solutions: tuple[Solution, ...]
    steps: tuple[Step, ...]
    troubles: tuple[Trouble, ...]
    digits: int = 0

    @property
    def complete(self) -> bool:
        """Whether there are no solutions but these, for certain."""
        return all(step.complete for step in self.steps)


def equations_told(numbers: tuple[int, ...]) -> str:
    """What a sentence calls some equations: equations 1 to 3."""
    return f"equation{'s' if len(numbers) > 1 else ''} {stretched(numbers)}"
