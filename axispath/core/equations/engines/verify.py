"""A common zero near a place, proved by the Krawczyk operator and narrowed to many digits.

K(B) = m − Y F(m) + (1 − Y J(B))(B − m): where it lies inside the box B there is exactly one zero in
B (R. Krawczyk 1969; R. E. Moore, R. B. Kearfott and M. J. Cloud 2009, Introduction to Interval
Analysis, chapter 8).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from flint import arb, arb_mat

from axispath.core.arithmetic.balls import operations, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.folding import folded
from axispath.core.arithmetic.program import Bound, Definition, Program, bind
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import LOCK, OutsideDomain
from axispath.core.equations.core import Core

BITS = 200
STEPS = 12
ROOM = (2.0**-40, 2.0**-24, 2.0**-12)  # of a place, that is looked at around it


@dataclass(frozen=True)
class Equations:
    """The differences of a core and their slopes, in floats and in balls.

    Raises NotComputable where there are no such programs.
    """

    core: Core
    definitions: Mapping[str, Definition]
    unit: AngleUnit

    @cached_property
    def plans(self) -> tuple[Program, ...]:
        """The differences as programs of the unknowns."""
        return tuple(self._plan(one) for one in self.core.differences)

    @cached_property
    def slopes(self) -> tuple[tuple[Program, ...], ...]:
        """For each difference its derivatives by the unknowns."""
        return tuple(
            tuple(
                self._plan(derivative(one, name, self.definitions)) for name in self.core.unknowns
            )
            for one in self.core.differences
        )

    def _plan(self, tree: object) -> Program:
        return program(tree, self.core.unknowns, self.definitions, everywhere=True)  # type: ignore[arg-type]

    @cached_property
    def _balls(self) -> tuple[list[Bound], Rows]:
        """The programs bound to balls, at the precision that zeros are proved with."""
        values = [self._bound(plan) for plan in self.plans]
        return values, [[self._bound(plan) for plan in row] for row in self.slopes]

    def _bound(self, plan: Program) -> Bound:
        plan = folded(plan, self.unit)
        return bind(plan, operations(plan, self.unit))

    def zero_near(self, place: Sequence[float]) -> tuple[arb, ...] | None:
        """The one zero in a small box around a place; None where that is not proved."""
        with precision(BITS), LOCK:
            try:
                values, slopes = self._balls
                return _proved(values, slopes, [arb(x) for x in place])
            except (OutsideDomain, ZeroDivisionError, ValueError):
                return None


Rows = list[list[Bound]]


def _column(values: Sequence[arb]) -> arb_mat:
    return arb_mat([[value] for value in values])


def _entries(column: arb_mat) -> list[arb]:
    return [column[k, 0] for k in range(column.nrows())]


def _run(bound: Bound, at: Sequence[arb]) -> arb:
    found = bound.run(*at)
    return found if isinstance(found, arb) else found[0]


def _proved(values: list[Bound], slopes: Rows, place: list[arb]) -> tuple[arb, ...] | None:
    for _ in range(STEPS):
        step = _entries(
            _matrix(slopes, place).mid().solve(_column([_run(v, place).mid() for v in values]))
        )
        place = [arb((x - d).mid()) for x, d in zip(place, step, strict=True)]
        if not all(x.is_finite() for x in place):
            return None
        if all(abs(d) <= abs(x) * arb(2) ** (30 - BITS) for x, d in zip(place, step, strict=True)):
            break
    for room in (arb(2) ** (60 - BITS), *map(arb, ROOM)):
        box = [arb(x.mid(), (abs(x).mid() + arb(2) ** -40) * room) for x in place]
        image = _image(values, slopes, box)
        if all(b.contains_interior(k) for b, k in zip(box, image, strict=True)):
            return tuple(image)
    return None


def _matrix(slopes: Rows, at: Sequence[arb]) -> arb_mat:
    return arb_mat([[_run(one, at) for one in row] for row in slopes])


def _image(values: list[Bound], slopes: Rows, box: list[arb]) -> list[arb]:
    middle = [arb(one.mid()) for one in box]
    inverse = _matrix(slopes, middle).mid().inv()
    step = inverse * _column([_run(one, middle) for one in values])
    size = len(box)
    unit = arb_mat([[arb(int(i == k)) for k in range(size)] for i in range(size)])
    rest = unit - inverse * _matrix(slopes, box)
    spread = rest * _column([b - m for b, m in zip(box, middle, strict=True)])
    return [m - s + r for m, s, r in zip(middle, _entries(step), _entries(spread), strict=True)]
