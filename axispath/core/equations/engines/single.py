"""One equation in one unknown: polynomials exactly, all else by the proven search."""

from __future__ import annotations

import math
from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.fraction import fraction
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.polynomial import coefficients
from axispath.core.arithmetic.program import NotComputable, TooLarge
from axispath.core.catalogue.balls import precision
from axispath.core.equations.engines.engine import Engine, Found, Place, Task
from axispath.core.equations.engines.verify import BITS
from axispath.core.language.numbers import decimal
from axispath.core.language.tree import Expression
from axispath.core.quantities.polynomials import polynomial_zeros
from axispath.core.quantities.scalars import is_real, is_zero
from axispath.core.quantities.surds import PI, Surd
from axispath.core.quantities.values import NoResult, Scalar
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import Cell, Landmark, Open, Reason
from axispath.core.search.line import Difference, Look, look

DEGREE = 24
EVALUATIONS = 12_000
NOBODY = "no other unknown"
MOST = 20  # solutions of one equation that are followed


def _takes(task: Task) -> bool:
    return len(task.core.unknowns) == len(task.core.differences) == 1


def _solve(task: Task) -> Found:
    (tree,), (name,) = task.core.differences, task.core.unknowns
    found = _polynomial(task, tree, name)
    return found if found is not None else _searched(task, tree, name)


def _polynomial(task: Task, tree: Expression, name: str) -> Found | None:
    """All zeros of what is above the line, without those of what is below; None for others."""
    top, bottom = fraction(tree)
    try:
        plan = program(top, (name, NOBODY), task.definitions, everywhere=True)
        found = coefficients(plan, DEGREE)
    except (NotComputable, TooLarge, KeyError):
        return None
    if found is None or not any(i for i, _ in found):
        return None
    line = [found.get((k, 0), Fraction(0)) for k in range(max(i for i, _ in found) + 1)]
    places: list[Place] = []
    with precision(BITS):
        zeros = [z for z in polynomial_zeros(line) if is_real(z)]
        for zero in dict.fromkeys(zeros) if all(isinstance(z, Surd) for z in zeros) else zeros:
            value = _number(zero, task.exact)
            if value is None or not _defined(task, bottom, name, value):
                continue
            if task.inside((value,)) and not any(_same(value, known[0]) for known in places):
                places.append((value,))
    return Found(tuple(places), True, _bounds_told(task, name))


def _number(zero: Scalar, exact: bool) -> Surd | arb | None:
    if isinstance(zero, Surd):
        ball = zero.ball()
        return (
            zero if exact or zero.rational is not None else ball if isinstance(ball, arb) else None
        )
    return zero if isinstance(zero, arb) else None


def _same(one: Surd | arb, other: Surd | arb) -> bool:
    if isinstance(one, Surd) and isinstance(other, Surd):
        return (one - other).is_zero
    return isinstance(one, arb) and isinstance(other, arb) and bool(one.overlaps(other))


def _defined(task: Task, bottom: Expression, name: str, value: Surd | arb) -> bool:
    try:
        below = task.calculator.result(bottom, {name: value}).value
        return isinstance(below, Surd | arb) and not is_zero(below)
    except (NoResult, ArithmeticError):
        return False


def _searched(task: Task, tree: Expression, name: str) -> Found:
    """The proven search, along the whole line or between the limits."""
    limit = task.limit(name)
    low, high = (None if x is None else End.at(x) for x in (limit.low, limit.high))
    difference = Difference(tree, name, task.definitions, task.unit)
    budget = Budget(EVALUATIONS)
    seen = look(difference, low, high, budget)
    # What lies far out and does not settle takes a share of its own.
    cost = EVALUATIONS - budget.left + (EVALUATIONS // 2 if seen.open else 0)
    zeros = seen.zeros()
    places = []
    for mark in zeros[:MOST]:
        place = _place(task, mark)
        if task.inside(place):
            places.append(place)
    always = [cell for cell in seen.cells if cell.sign == 0 and cell.low < cell.high]
    complete = not seen.open and not seen.more and len(zeros) <= MOST and not always
    words = _bounds_told(task, name) if complete else _open_told(seen, name, len(zeros))
    told = _always_told(seen, always, name) if always and not places else ""
    return Found(tuple(places), complete, words, told, cost)


def _always_told(seen: Look, always: list[Cell], name: str) -> str:
    if all(cell.sign in (0, None) for cell in seen.cells):
        return f"every {name} solves them"
    low, high = always[0].low, always[0].high
    if len(always) > 1 or math.isinf(low) or math.isinf(high):
        return f"every {name} of whole stretches solves them"
    return f"every {name} from {decimal(low, 6)} to {decimal(high, 6)} solves them"


def _place(task: Task, mark: Landmark) -> Place:
    if mark.exact is not None:
        return (Surd.of(mark.exact.rational) + PI * Surd.of(mark.exact.turns),)
    found = task.equations.zero_near((mark.x,))
    around = arb(mark.x, max(mark.radius, math.ulp(mark.x)))
    return task.exactly(found if found is not None and found[0].overlaps(around) else (around,))


def _bounds_told(task: Task, name: str) -> str:
    limit = task.limit(name)
    if limit.low is None and limit.high is None:
        return ""
    if limit.high is None:
        return f"with {name} from {decimal(limit.low or 0.0, 6)} on"
    if limit.low is None:
        return f"with {name} up to {decimal(limit.high, 6)}"
    return f"with {name} from {decimal(limit.low, 6)} to {decimal(limit.high, 6)}"


def _open_told(seen: Look, name: str, count: int) -> str:
    if count > MOST:
        return f"the first {MOST} of {count} or more: give bounds for {name}"
    if not seen.open:
        return "there are more"
    if all(one.reason is Reason.MANY for one in seen.open):
        return f"there are more, one after the other: give bounds for {name}"
    return f"the search did not settle {_stretch(seen.open[0], name)}"


def _stretch(one: Open, name: str) -> str:
    if math.isinf(one.low) or math.isinf(one.high):
        side = "above" if math.isinf(one.high) else "below"
        return f"{name} {side} {decimal(one.low if side == 'above' else one.high, 4)}"
    return f"{name} near {decimal((one.low + one.high) / 2, 4)}"


SINGLE = Engine(_takes, _solve)
