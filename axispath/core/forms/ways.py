"""The ways of writing a rational function, each with what it tells.

Factors over the rational numbers are found by FLINT (H. Zassenhaus 1969, On Hensel factorization;
M. van Hoeij 2002, Factoring polynomials and the knapsack problem); partial fractions by the
extended Euclidean algorithm (J. von zur Gathen and J. Gerhard 2013, Modern Computer Algebra).
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from flint import fmpq, fmpq_poly

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.program import NotComputable, Program
from axispath.core.forms.form import Form
from axispath.core.forms.rational import ONE, NotRational, Rational, once, rational
from axispath.core.forms.written import (
    fraction_of,
    less_root,
    number,
    powers,
    product,
    raised,
    told,
)
from axispath.core.language.errors import LanguageError
from axispath.core.language.plain import plain
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Expression, Negation, Quotient, Sum

Factors = tuple[Fraction, list[tuple[fmpq_poly, int]]]
Made = tuple[Expression, str]
LONGEST = 240  # characters of a form that is still easier to read than what it stands for


@dataclass(frozen=True, slots=True)
class Way:
    """How a form is made of a function and a letter, with what it tells; None where it is none.

    ``of`` gives the function that the form is of, where that is another one.
    """

    name: str
    made: Callable[[Rational, str], Made | None]
    of: Callable[[Rational], Rational | None] | None = None
    surds: bool = False  # checked by the rule of its roots, as it holds some


def has_forms(plan: Program) -> bool:
    """Whether a program is a function that forms are known of; quicker than to find them."""
    try:
        return _roots(rational(plan).removed) is not None
    except NotRational:
        return False


def forms_of(plan: Program, letter: str, shown: str = "") -> tuple[Form, ...]:
    """The forms that differ from one another and from ``shown``; none of other functions."""
    try:
        function = rational(plan)
    except NotRational:
        return ()
    removed = _roots(function.removed)
    if removed is None:
        return ()
    found: list[Form] = []
    seen = {_bare(shown)}
    for way in WAYS:
        form = _formed(way, function, letter, removed)
        if form is not None and _bare(form.text) not in seen and len(form.text) <= LONGEST:
            seen.add(_bare(form.text))
            found.append(form)
    return tuple(found)


def _bare(text: str) -> str:
    return "".join(text.split()).replace("*", "").replace("·", "")


def _formed(way: Way, function: Rational, letter: str, removed: list[Fraction]) -> Form | None:
    of = function if way.of is None else way.of(function)
    made = None if of is None else way.made(of, letter)
    if of is None or made is None:
        return None
    body, tells = made
    text = plain(body, catalogue.VOCABULARY)
    if not way.surds and not _is(of, text, letter):
        return None
    holes = ", ".join(told(place) for place in removed)
    return Form(
        way.name, body, text, tells, f"for {letter} ≠ {holes}" if holes else "", way.of is not None
    )


def _is(function: Rational, text: str, letter: str) -> bool:
    """Whether a text, read as it stands, is the same function, and undefined nowhere else."""
    scope = Scope(catalogue.VOCABULARY, {}, frozenset(letter), {}, frozenset(), frozenset())
    try:
        again = rational(program(parse_expression(text, scope), (letter,)))
    except (LanguageError, NotComputable, NotRational):
        return False
    return again.equals(function) and (function.below % again.below) == fmpq_poly([])


def _roots(polynomial: fmpq_poly) -> list[Fraction] | None:
    """The zeros, where all of them are rational."""
    places = []
    for factor, _ in _factors(polynomial)[1]:
        if factor.degree() != 1:
            return None
        places.append(fraction_of(-factor[0] / factor[1]))
    return sorted(places)


def _factors(polynomial: fmpq_poly) -> Factors:
    """A number, and irreducible polynomials with whole coefficients, the lower ones first."""
    content, parts = polynomial.numer().factor()
    value = Fraction(int(content), int(polynomial.denom()))
    found = []
    for part, count in parts:
        whole = fmpq_poly(part)
        if whole.leading_coefficient() < 0:
            whole, value = -whole, value * (-1) ** count
        found.append((whole, int(count)))
    return value, sorted(
        found, key=lambda one: (one[0].degree(), [fraction_of(c) for c in one[0].coeffs()])
    )


def _written(factors: Factors, letter: str) -> Expression:
    value, parts = factors
    return product(value, [raised(powers(part, letter), count) for part, count in parts])


def _expanded(function: Rational, letter: str) -> Made | None:
    if not function.is_polynomial or function.top.degree() < 1:
        return None
    lead = fraction_of(function.top.leading_coefficient())
    tells = f"degree {function.top.degree()}, leading coefficient {told(lead)}"
    if function.holds_at(Fraction(0)):
        tells += f"; meets the y-axis at {told(fraction_of(function.top[0]))}"
    return powers(function.top, letter), tells


def _places_told(
    parts: list[tuple[fmpq_poly, int]], letter: str, there: Callable[[Fraction], bool]
) -> str:
    places = sorted(
        (fraction_of(-part[0] / part[1]), count) for part, count in parts if part.degree() == 1
    )
    told_of = [f"{told(place)}{_times(count)}" for place, count in places if there(place)]
    return f"{letter} = {', '.join(told_of)}" if told_of else ""


def _zeros_told(function: Rational, letter: str) -> str:
    """The rational zeros; what is 0 above the line at a hole is none."""
    if function.top == fmpq_poly([]):
        return ""
    return _places_told(_factors(function.top)[1], letter, function.holds_at)


def _times(count: int) -> str:
    return {1: "", 2: " (double)", 3: " (triple)"}.get(count, f" ({count}-fold)")


def _factored(function: Rational, letter: str) -> Made | None:
    factors = _factors(function.top)
    if not function.is_polynomial or sum(count for _, count in factors[1]) < 2:
        return None
    zeros = _zeros_told(function, letter)
    others = any(part.degree() > 1 for part, _ in factors[1])
    more = "; the other factors have no rational zeros" if others else ""
    return _written(factors, letter), f"zeros at {zeros}{more}" if zeros else "no rational zeros"


def _over_roots(function: Rational, letter: str) -> Made | None:
    """With linear factors, where square roots are enough for all real zeros."""
    if not function.is_polynomial:
        return None
    value, parts = _factors(function.top)
    made: list[Expression] = []
    rooted = False
    for part, count in parts:
        split = _split(part) if part.degree() == 2 else None
        if split is None:
            made.append(raised(powers(part, letter), count))
            continue
        rooted = True
        centre, times, radicand = split
        value *= fraction_of(part.leading_coefficient()) ** count
        made += [
            raised(less_root(letter, centre, times, radicand, sign), count) for sign in (1, -1)
        ]
    return (
        (product(value, made), "every zero of a square factor, with its root") if rooted else None
    )


def _split(square: fmpq_poly) -> tuple[Fraction, Fraction, int] | None:
    """p, q and d with zeros p ± q√d of a polynomial of degree 2; None where they are not real."""
    c, b, a = (fraction_of(square[k]) for k in range(3))
    discriminant = b * b - 4 * a * c
    if discriminant <= 0:
        return None
    inside = discriminant.numerator * discriminant.denominator
    outside, radicand = 1, inside
    for k in range(2, min(math.isqrt(inside), 1000) + 1):
        while radicand % (k * k) == 0:
            radicand //= k * k
            outside *= k
    centre, times = -b / (2 * a), Fraction(outside, discriminant.denominator) / abs(2 * a)
    # By the rule of the sum and the product of the zeros.
    if radicand == 1 or centre * 2 != -b / a or centre**2 - times**2 * radicand != c / a:
        return None
    return centre, times, radicand


def _vertex(function: Rational, letter: str) -> Made | None:
    if not function.is_polynomial or function.top.degree() != 2:
        return None
    c, b, a = (fraction_of(function.top[k]) for k in range(3))
    h = -b / (2 * a)
    k = c - a * h * h
    if not h:
        return None
    shifted = powers(fmpq_poly([fmpq(-h.numerator, h.denominator), 1]), letter)
    square = product(a, [raised(shifted, 2)])
    body = Sum((square, number(k))) if k else square
    kind = "lowest" if a > 0 else "highest"
    axis = f"symmetric about {letter} = {told(h)}" if not _roots(function.removed) else ""
    point = f"{kind} point ({told(h)}, {told(k)})" if function.holds_at(h) else ""
    return body, "; ".join(one for one in (point, axis) if one)


def _one_fraction(function: Rational, letter: str) -> Made | None:
    if function.is_polynomial:
        return None
    zeros = _zeros_told(function, letter)
    poles = _places_told(_factors(function.bottom)[1], letter, lambda _: True)
    sayings = [f"zeros at {zeros}" if zeros else "", f"poles at {poles}" if poles else ""]
    return _quotient(function, letter), "; ".join(one for one in sayings if one)


def _quotient(function: Rational, letter: str) -> Expression:
    value, above = _factors(function.top)
    size, under = _factors(function.bottom)
    value /= size
    top = _written((Fraction(value.numerator), above), letter)
    return Quotient(top, _written((Fraction(value.denominator), under), letter))


def _divided(function: Rational, letter: str) -> Made | None:
    if function.is_polynomial or function.top.degree() < function.bottom.degree():
        return None
    whole, rest = divmod(function.top, function.bottom)
    size = rest.denom() * function.bottom.denom()
    part = Quotient(powers(rest * size, letter), powers(function.bottom * size, letter))
    line = powers(whole, letter)
    terms = (*line.terms, part) if isinstance(line, Sum) else (line, part)
    near = plain(line, catalogue.VOCABULARY)
    what = "asymptote" if whole.degree() < 2 else "far out close to"
    return Sum(terms), f"{what} y = {near}"


def _partial(function: Rational, letter: str) -> Made | None:
    _, parts = _factors(function.bottom)
    whole, rest = divmod(function.top, function.bottom)
    if function.is_polynomial or sum(count for _, count in parts) < 2:
        return None
    terms: list[Expression] = []
    if whole != fmpq_poly([]):
        line = powers(whole, letter)
        terms += line.terms if isinstance(line, Sum) else [line]
    for part, count in parts:
        power = part**count
        others = function.bottom // power
        _, inverse, _ = others.xgcd(power)
        above = (rest * inverse) % power
        lead = others.gcd(power)
        assert lead == ONE
        for n in range(count, 0, -1):
            # In base ``part``: what is left over stands above its n-th power.
            above, digit = divmod(above, part)
            if digit != fmpq_poly([]):
                terms.append(_share(digit, part, n, letter))
    return (Sum(tuple(terms)), "one term for each pole") if len(terms) > 1 else None


def _share(above: fmpq_poly, part: fmpq_poly, n: int, letter: str) -> Expression:
    size = Fraction(int(above.denom()))
    negative = above.leading_coefficient() < 0
    top = powers((-above if negative else above) * above.denom(), letter)
    bottom = product(size, [raised(powers(part, letter), n)])
    share = Quotient(top, bottom)
    return Negation(share) if negative else share


def _slope(function: Rational) -> Rational:
    top = function.top.derivative() * function.bottom - function.top * function.bottom.derivative()
    bottom = function.bottom**2
    shared = top.gcd(bottom) if top != fmpq_poly([]) else bottom
    top, bottom = top // shared, bottom // shared
    lead = bottom.leading_coefficient()
    return Rational(top / lead, bottom / lead, function.below)


def _shortest(function: Rational, letter: str) -> Expression:
    return powers(function.top, letter) if function.is_polynomial else _quotient(function, letter)


def _told_of_slope(function: Rational, letter: str) -> Made | None:
    zeros = _zeros_told(function, letter) if function.top.degree() > 0 else ""
    return _shortest(function, letter), f"level at {zeros}" if zeros else "the slope at each place"


def _told_of_bend(function: Rational, letter: str) -> Made | None:
    return _shortest(function, letter), "above 0 where the graph bends to the left"


def _primitive(function: Rational) -> Rational | None:
    if not function.is_polynomial or function.top == fmpq_poly([]):
        return None
    return Rational(function.top.integral(), ONE, once(function.below))


def _told_of_primitive(function: Rational, letter: str) -> Made | None:
    return powers(function.top, letter), "and any constant besides"


WAYS = (
    Way("in factors", _factored),
    Way("in factors with roots", _over_roots, surds=True),
    Way("vertex form", _vertex),
    Way("one fraction", _one_fraction),
    Way("divided out", _divided),
    Way("partial fractions", _partial),
    Way("expanded", _expanded),
    Way("derivative", _told_of_slope, _slope),
    Way("second derivative", _told_of_bend, lambda function: _slope(_slope(function))),
    Way("antiderivative", _told_of_primitive, _primitive),
)
"""Those first that tell most."""
