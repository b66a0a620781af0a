"""Every function of every other one: floats stay floats, balls stay balls, nothing falls over."""

import contextlib
import itertools
import unittest

import numpy as np
from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.floats import float_function
from axispath.core.arithmetic.program import NotComputable
from axispath.core.catalogue.balls import OutsideDomain
from tests.case import Case
from tests.core.helpers import RADIAN, plan

LISTS = ("steps", "spread", "sum", "product")
AWKWARD = np.array(
    [
        *(-500.5, -500.0, -3.0, -1.5, -1, -0.5, 0, 1e-300, 0.5, 1, 2, 3, 170.5, 1e5, 1e15, 1e300),
        *(np.inf, -np.inf, np.nan),
    ]
)
PLACES = (-3.0, -0.5, 0.0, 1.0, 170.5, 1e15)
SHAPES = {"log_base": "log_2({})", "degrees": "({})°", "factorial": "({})!"}


def called(name, argument):
    entry = catalogue.ENTRIES[name]
    if name in SHAPES:
        return SHAPES[name].format(argument)
    before = len(entry.word.arguments) - 1 - entry.word.optional
    return f"{name}({', '.join([*['2'] * before, argument])})"


class Pairs(Case):
    def test_all_of_them(self):
        names = [name for name in catalogue.ENTRIES if name not in LISTS]
        looked = 0
        for outer, inner in itertools.product(names, repeat=2):
            line = called(outer, called(inner, "x"))
            try:
                program = plan(line)
            except NotComputable:
                continue
            looked += 1
            with self.subTest(line):
                with np.errstate(all="ignore"):
                    y = float_function(program, RADIAN)(AWKWARD)
                self.assertEqual((y.dtype, y.shape), (np.float64, AWKWARD.shape))
                self._balls(BallFunction(program, RADIAN))
        self.assertGreater(looked, 2000)

    def _balls(self, function):
        with precision(64):
            for x in PLACES:
                for ball in (arb(x), arb(x, 0.3)):
                    for look in (function.value, lambda b: function.taylor(b, 3)):
                        with contextlib.suppress(OutsideDomain):
                            look(ball)


if __name__ == "__main__":
    unittest.main()
