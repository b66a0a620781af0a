"""Fits far from x = 0: what is left and its measures against 60 digits."""

import random
import unittest

import numpy as np
from mpmath import mp

from axispath.core.fits.fit import fit
from tests.case import Case
from tests.core.test_fits import shape


def exactly(x, y, degree):
    """Squares left and r² by normal equations in 60 digits."""
    with mp.workdps(60):
        middle = mp.fsum(map(mp.mpf, x)) / len(x)
        rows = mp.matrix([[(mp.mpf(v) - middle) ** k for k in range(degree + 1)] for v in x])
        right = mp.matrix([mp.mpf(v) for v in y])
        found = mp.lu_solve(rows.T * rows, rows.T * right)
        rest = right - rows * found
        squares = mp.fsum(v**2 for v in rest)
        mean = mp.fsum(right) / len(y)
        total = mp.fsum((v - mean) ** 2 for v in right)
        return float(squares), float(1 - squares / total)


class Far(Case):
    def test_what_is_left_does_not_depend_on_where_the_points_lie(self):
        chance = random.Random(4)
        told = 0
        for far in (0, 1e3, 1e6, 1e9, -1e9, 1e12):
            for degree in (1, 2, 3):
                for _ in range(2):
                    x = np.array([far + k for k in range(12)])
                    y = np.array([chance.uniform(-1, 1) + 0.05 * k for k in range(12)])
                    with self.subTest(far=far, degree=degree):
                        names = ["a", "b", "c", "d"][: degree + 1]
                        line = " + ".join(f"{n} x^{k}" for k, n in enumerate(names) if k)
                        form = shape(f"a + {line}", names)
                        found = fit(form, x, y, degree=degree)
                        squares, explained = exactly(x.tolist(), y.tolist(), degree)
                        self.assertAlmostEqual(found.squares / squares, 1, 6)
                        self.assertAlmostEqual(found.explained, explained, 6)
                        lost = np.abs(form.values(x, found.parameters) - (y - found.residuals))
                        if lost.max() > 1e-2:
                            self.assertTrue(any("far from 0" in note for note in found.notes))
                            told += 1
                        if far == 0:
                            self.assertFalse(any("far from 0" in note for note in found.notes))
        self.assertGreater(told, 3)


if __name__ == "__main__":
    unittest.main()
