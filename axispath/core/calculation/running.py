"""Calculus on lines: what is done with a formula in which a letter runs."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from typing import TYPE_CHECKING, Any

from flint import acb, arb

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.patience import OutOfTime, time_check
from axispath.core.arithmetic.polynomial import coefficients
from axispath.core.arithmetic.program import NotComputable
from axispath.core.calculation.expansion import Expansion
from axispath.core.calculation.tidy import tidied
from axispath.core.calculation.trees import tree_of
from axispath.core.language.tree import (
    Constant,
    Expression,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Running,
    Sum,
)
from axispath.core.language.vocabulary import IMAGINARY_UNIT
from axispath.core.language.walking import free_names, walk
from axispath.core.quantities.laurent import TERMS, Laurent, NoSeries
from axispath.core.quantities.polynomials import MOST_DEGREE, polynomial_zeros
from axispath.core.quantities.scalars import (
    TooWide,
    add,
    complex_of,
    is_real,
    is_zero,
    known,
    multiply,
    real_ball,
    sign,
    simplified,
    subtract,
    to_power,
    whole,
)
from axispath.core.quantities.surds import ZERO, Surd
from axispath.core.quantities.values import Formula, Items, NoResult, Scalar, Undefined, Value

if TYPE_CHECKING:
    from axispath.core.calculation.evaluate import Evaluator, Names

INFINITE = Constant("∞")
FINE = 2.0**-70  # of an integral, which is enough for all digits that are shown
MOST_EVALUATIONS = 20_000
LEAST_BITS = 20
NOWHERE = acb("nan")
TINY = 1e-200
ONE = Surd.of(1)
LATER = "this is worked out with exact forms, where one is found"


def _derived(of: Evaluator, node: Running, names: Names) -> Value:
    slope = derivative(node.body, node.index, of.definitions)
    if not node.ends:
        _refuse_local(node, names)
        return Formula(tidied(slope, of.unit), node.index)
    return of.value(slope, {**names, node.index: of.number(node.ends[0], names)})


def _refuse_local(node: Running, names: Names) -> None:
    if any(one.name in names for one in free_names(node)):
        raise NoResult(f"{node.function} of arguments is no number: give the place it is taken at")


def _integral(of: Evaluator, node: Running, names: Names) -> Value:
    if any(INFINITE in (end, getattr(end, "operand", None)) for end in node.ends):
        raise NoResult("the ends of an integral are numbers here")
    low, high = (of.number(end, names, "an end of an integral") for end in node.ends)
    for end in (low, high):
        real_ball(end, "an end of an integral")
    exact = _exact_integral(of, node, low, high)
    return exact if exact is not None else _enclosed_integral(of, node, names, low, high)


def _exact_integral(of: Evaluator, node: Running, low: Scalar, high: Scalar) -> Scalar | None:
    """The integral of a polynomial."""
    found = _coefficients(of, node)
    if found is None:
        return None
    total: Scalar = ZERO
    for k, c in enumerate(found):
        powers = subtract(to_power(high, Surd.of(k + 1)), to_power(low, Surd.of(k + 1)))
        total = add(total, multiply(powers, Surd.of(c / (k + 1))))
    return total


def _enclosed_integral(
    of: Evaluator, node: Running, names: Names, low: Scalar, high: Scalar
) -> Scalar:
    """An enclosure by the library's adaptive quadrature (F. Johansson 2018, Numerical integration
    in arbitrary-precision ball arithmetic).
    """
    late: list[OutOfTime] = []
    check = time_check()
    why: list[str] = []

    def at(z: acb, analytic: bool) -> acb:
        if late:
            return NOWHERE
        if analytic and z.imag.is_zero():
            z = acb(z.real, arb(0, TINY))  # so that every function is asked beside the axis too
        of.analytic = analytic
        of.visited = 0  # the clock bounds this, and how many evaluations there are
        try:
            if check is not None:
                check()
            value = of.number(node.body, {**names, node.index: simplified(z)})
            if not isinstance(value, Undefined):
                return complex_of(known(value))
            why.append(value.why)
        except (TooWide, NoResult, ZeroDivisionError, NotComputable) as error:
            if str(error):
                why.append(str(error))
        except OutOfTime as error:
            late.append(error)
        finally:
            of.analytic = False
        return NOWHERE

    ends = complex_of(known(low)), complex_of(known(high))
    principal = of.principal
    found: Any = acb.integral(at, *ends, rel_tol=FINE, abs_tol=FINE, eval_limit=MOST_EVALUATIONS)
    of.principal = principal  # what roots were beside the axis says nothing
    if late:
        raise late[0]
    if not found.is_finite() or found.rel_accuracy_bits() < LEAST_BITS:
        middle = why[-1] if why else "the formula may be undefined or without bounds"
        raise NoResult(f"this integral is not enclosed: {middle}")
    return simplified(acb(found.real) if found.imag.contains(0) and _is_real(of, node) else found)


def _is_real(of: Evaluator, node: Running) -> bool:
    """Whether no i takes part, in what it needs either, so that an imaginary part is only width."""
    pending: list[Expression] = [node]
    seen: set[str] = set()
    while pending:
        tree = pending.pop()
        if Constant(IMAGINARY_UNIT) in walk(tree):
            return False
        names = {one.name for one in free_names(tree)} - seen
        seen |= names
        pending += [of.definitions[name].body for name in names if name in of.definitions]
    return True


def _coefficients(of: Evaluator, node: Running) -> list[Fraction] | None:
    """The coefficients of a polynomial from the constant on; None where it is none."""
    other = "y" if node.index != "y" else "x"
    try:
        plan = program(node.body, (node.index, other), of.definitions)
    except (NotComputable, KeyError):
        return None
    found = coefficients(plan, MOST_DEGREE)
    if found is None or any(j for _, j in found):
        return None
    degree = max(i for i, _ in found)
    return [found.get((k, 0), Fraction(0)) for k in range(degree + 1)]


def _zeros(of: Evaluator, node: Running, names: Names) -> Value:
    _refuse_local(node, names)
    found = _coefficients(of, node)
    if found is None:
        raise NoResult(
            f"zeros takes a polynomial in {node.index} with fractions as coefficients, up to "
            f"degree {MOST_DEGREE}"
        )
    if len(found) == 1:
        return Items(())
    return Items(tuple(polynomial_zeros(found)))


def _taylor(of: Evaluator, node: Running, names: Names) -> Value:
    if len(node.arguments) != 1:
        raise NoResult("taylor needs a degree: taylor(sin x for x = 0, 5)")
    _refuse_local(node, names)
    degree = whole(of.number(node.arguments[0], names), "the degree")
    if not 0 <= degree < TERMS - 2:
        raise NoResult(f"the degree is from 0 to {TERMS - 3}")
    at = known(of.number(node.ends[0], names, "the place"))
    try:
        expansion = Expansion(of, names)
        found = expansion.series(node.body, {node.index: _beside(at, ONE)})
        if expansion.sided or (found.start < 0 and not found.is_zero):
            raise NoSeries
        terms = [found.term(k) for k in range(degree + 1)]
    except NoSeries:
        raise NoResult("there is no Taylor polynomial here, or none that is found") from None
    letter: Expression = Name(node.index)
    if not is_zero(at):
        letter = Sum((letter, tree_of(at, negative=True)))
    parts = [_term(c, letter, k) for k, c in enumerate(terms) if not is_zero(known(c))]
    if not parts:
        return Formula(Number("0"), node.index)
    return Formula(parts[0] if len(parts) == 1 else Sum(tuple(parts)), node.index)


def _term(c: Scalar, letter: Expression, power: int) -> Expression:
    tree = tree_of(known(c))
    negative = is_real(c) and sign(c) < 0
    size = tree_of(known(c), negative=True) if negative else tree
    raised = letter if power == 1 else Power(letter, Number(str(power)))
    if power == 0:
        return tree
    part = raised if size == Number("1") else Product(size, raised)
    return Negation(part) if negative else part


def _beside(at: Scalar, way: Surd) -> Laurent:
    """at + t, or at − t."""
    terms = (at, way) if not is_zero(at) else (way,)
    return Laurent(0 if len(terms) == 2 else 1, terms, exact=True)


def _limit(of: Evaluator, node: Running, names: Names) -> Value:
    (end,) = node.ends
    far = {INFINITE: 1, Negation(INFINITE): -1}.get(end)
    ways = [far] if far else [{"left": -1, "right": 1}[node.side]] if node.side else [1, -1]
    found = []
    for way in ways:
        if far:
            local = Laurent(-1, (Surd.of(way),), exact=True)
        else:
            local = _beside(of.number(end, names, "the place of a limit"), Surd.of(way))
        expansion = Expansion(of, names)
        try:
            found.append(expansion.series(node.body, {node.index: local}))
        except (NoSeries, NotComputable):
            raise NoResult(LATER) from None
        if not expansion.sided and (found[0].is_zero or found[0].start >= 0):
            break  # a power series about the place: the other side is the same
    values = [_approached(series) for series in found]
    if len(set(map(str, values))) == 1 and isinstance(values[0], str):
        raise NoResult(f"there is no limit: it goes to {values[0]}")
    if any(isinstance(value, str) for value in values):
        shown = " and ".join(_told(value) for value in reversed(values))
        raise NoResult(f"there is no limit: from left and right it goes to {shown}")
    first, last = values[0], values[-1]
    assert not isinstance(first, str) and not isinstance(last, str)
    if len(values) == 2 and not is_zero(subtract(first, last)):
        raise NoResult("there is no limit: left and right have different ones")
    return first


def _told(value: Scalar | str) -> str:
    return value if isinstance(value, str) else "a number"


def _approached(series: Laurent) -> Scalar | str:
    if series.is_zero or series.start > 0:
        return ZERO
    if series.start == 0:
        return series.terms[0]
    return "∞" if sign(series.terms[0]) > 0 else "−∞"


def _endless(of: Evaluator, node: Running, names: Names) -> Value:
    raise NoResult(LATER)


RUNNING: dict[str, Callable[[Evaluator, Running, Names], Value]] = {
    "derivative": _derived,
    "integral": _integral,
    "limit": _limit,
    "taylor": _taylor,
    "zeros": _zeros,
    "sum": _endless,
    "product": _endless,
}
"""By the word that stands before the brackets."""
