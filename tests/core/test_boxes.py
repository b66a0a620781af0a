"""Intervals of functions hold every value, where that is hardest: against mpmath at 60 digits."""

import math
import random
from itertools import islice

import mpmath
import numpy as np

from axispath.core import catalogue
from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import NOWHERE, THROUGHOUT, between
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from tests.case import Case

BOXES = 100  # for each function; a hundred thousand of them were tried once
DIGITS = 60
LINE = Scope(catalogue.VOCABULARY, {}, frozenset("x"), {}, frozenset(), frozenset())


def degrees(of):
    return lambda x: of(x * mpmath.pi / 180)


def between_ones(of):
    return lambda x: of(x) if -1 <= x <= 1 else None


def where(holds, of):
    return lambda x: of(x) if holds(x) else None


def cube_root(x):
    return mpmath.sign(x) * mpmath.cbrt(abs(x))


# Formulas of x, and what they are: an independent function of a number, None where undefined.
FUNCTIONS = {
    "sin(x)": mpmath.sin,
    "cos(x)": mpmath.cos,
    "tan(x)": mpmath.tan,
    "arcsin(x)": between_ones(mpmath.asin),
    "arccos(x)": between_ones(mpmath.acos),
    "arctan(x)": mpmath.atan,
    "exp(x)": mpmath.exp,
    "ln(x)": where(lambda x: x > 0, mpmath.log),
    "log(x)": where(lambda x: x > 0, mpmath.log10),
    "sqrt(x)": where(lambda x: x >= 0, mpmath.sqrt),
    "cbrt(x)": cube_root,
    "|x|": abs,
    "sinh(x)": mpmath.sinh,
    "cosh(x)": mpmath.cosh,
    "tanh(x)": mpmath.tanh,
    "arsinh(x)": mpmath.asinh,
    "arcosh(x)": where(lambda x: x >= 1, mpmath.acosh),
    "artanh(x)": where(lambda x: abs(x) < 1, mpmath.atanh),
    "sec(x)": mpmath.sec,
    "csc(x)": where(lambda x: x != 0, mpmath.csc),
    "cot(x)": where(lambda x: x != 0, mpmath.cot),
    "sign(x)": mpmath.sign,
    "floor(x)": mpmath.floor,
    "ceil(x)": mpmath.ceil,
    "x^3": lambda x: x**3,
    "x^(-2)": where(lambda x: x != 0, lambda x: x**-2),
    "x^(1/5)": lambda x: mpmath.sign(x) * mpmath.root(abs(x), 5),
    "x^(2/7)": lambda x: mpmath.root(abs(x), 7) ** 2,
    "x^2.5": where(lambda x: x >= 0, lambda x: x ** mpmath.mpf("2.5")),
    "1.5^x": lambda x: mpmath.mpf("1.5") ** x,
    "x^x": where(lambda x: x > 0, lambda x: x**x),
    "1/x": where(lambda x: x != 0, lambda x: 1 / x),
}
IN_DEGREES = {f"{name}(x)": degrees(getattr(mpmath, name)) for name in ("sin", "cos", "tan")}


def hard_places(lot, unit):
    """A float at or beside a place where a function turns, breaks, begins or vanishes."""
    turn = math.pi / 2 if unit is AngleUnit.RADIAN else 90
    place = lot.choice(
        [
            turn * lot.randrange(-8, 9),
            turn * lot.randrange(-(10**8), 10**8),
            lot.randrange(-4, 5),
            lot.uniform(-20, 20),
            lot.choice([0.0, -0.0, 5e-324, -5e-324, 1e-300, -1e-308, 709.7, -745.1, 1e300]),
        ]
    )
    for _ in range(lot.choice([0, 0, 1, 2, 5])):
        place = np.nextafter(place, lot.choice([-np.inf, np.inf]))
    return float(place)


def hard_box(lot, unit):
    """Ends of a box that begins or ends at such a place: a point, thin, or wide."""
    place = hard_places(lot, unit)
    wide = lot.choice([0, 0, 5e-324, 1e-15, 1e-9, 0.3, 2, 40]) * max(1.0, abs(place) * 1e-3)
    other = lot.choice([place + wide, place - wide, hard_places(lot, unit)])
    return sorted((place, float(other)))


def inside(lot, low, high):
    """Numbers of a box, exact: its ends, some between, and the place of a turn if it has one."""
    a, b = mpmath.mpf(low), mpmath.mpf(high)
    yield from (a, b)
    for _ in range(4):
        yield a + (b - a) * mpmath.mpf(lot.random())
    for turn in (mpmath.pi / 2, mpmath.mpf(90), mpmath.mpf(1)):
        for near in (mpmath.ceil(a / turn), mpmath.floor(b / turn)):
            if a <= near * turn <= b:
                yield near * turn


def wrong(formula, truth, unit, count, lot):
    """The boxes, of some tried at random, whose interval or state is wrong."""
    plan = program(parse_expression(formula, LINE), ("x",))
    turn = math.pi / 2 if unit is AngleUnit.RADIAN else 90
    beside = [(turn * k - 0.4, turn * k) for k in range(-4, 5)]
    ends = np.array([*beside, *(hard_box(lot, unit) for _ in range(count))])
    found = box_function(plan, unit)(between(ends[:, 0], ends[:, 1]))
    for k, (low, high) in enumerate(ends):
        for x in inside(lot, low, high):
            # A formula has no value where it is beyond what floats hold.
            value = truth(x)
            if value is None:
                if found.state[k] == THROUGHOUT:
                    yield low, high, x, "has no value there"
            elif found.state[k] == NOWHERE:
                yield low, high, x, "has a value there"
            elif not found.low[k] <= value <= found.high[k]:
                yield low, high, x, f"{mpmath.nstr(value, 25)} is not in the interval"


class Enclosures(Case):
    def test_every_function_at_its_hardest_places(self):
        lot = random.Random(20)
        kinds = ((FUNCTIONS, AngleUnit.RADIAN), (IN_DEGREES, AngleUnit.DEGREE))
        with mpmath.workdps(DIGITS):
            for functions, unit in kinds:
                for formula, truth in functions.items():
                    with self.subTest(formula=formula, unit=unit):
                        self.assertEqual([*islice(wrong(formula, truth, unit, BOXES, lot), 3)], [])
