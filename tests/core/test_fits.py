"""Fits against NIST's certified values, against mpmath, and by what algebra says.

NIST/ITL Statistical Reference Datasets, nonlinear least squares: ``nist_nonlinear.json`` here holds
the models, both starts, the certified parameters and their standard deviations.
"""

import json
import math
import re
import unittest
from pathlib import Path

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as some
from mpmath import mp

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.fits.fit import fit
from axispath.core.fits.linear import polynomial
from axispath.core.fits.models import MODELS
from axispath.core.fits.models import polynomial as polynomial_model
from axispath.core.fits.result import CannotFit
from axispath.core.fits.shape import shape_of
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from tests.case import Case

NIST = json.loads((Path(__file__).parent / "nist_nonlinear.json").read_text())["sets"]
DIGITS = 6
# Those that a search from guessed starts does not find: see docs/fits.md.
NOT_GUESSED = {"ENSO", "Gauss3", "Lanczos1", "Lanczos2", "Lanczos3"}


def shape(text, names, variables=("x",)):
    body = parse_expression(
        text, Scope(catalogue.VOCABULARY, values=frozenset({*variables, *names}))
    )
    return shape_of(body, variables, tuple(names), {}, AngleUnit.RADIAN)


class Known:
    """A set of NIST's."""

    def __init__(self, given):
        rows = np.array(given["rows (y, x...)"], dtype=float)
        parameters = given["parameters"]
        self.names = [one["name"].replace("b", "b_") for one in parameters]
        self.starts = {
            which: np.array([one[which] for one in parameters]) for which in ("start 1", "start 2")
        }
        self.certified = np.array([float(one["certified"]) for one in parameters])
        deviation = next(key for key in parameters[0] if key.startswith("standard"))
        self.deviations = np.array([float(one[deviation]) for one in parameters])
        self.squares = float(given["residual sum of squares"])
        self.y, self.x = rows[:, 0], rows[:, 1:]
        variables = ("x",) if self.x.shape[1] == 1 else ("x_1", "x_2")
        if self.x.shape[1] == 1:
            self.x = self.x[:, 0]
        left, _, text = given["model"].partition("=")
        if left.strip() == "log(y)":
            self.y = np.log(self.y)
        text = re.sub(r"([bx])(\d)", r"\1_\2", text).replace("(-.5)", "(-0.5)")
        self.shape = shape(text.replace("exp(", "e^(").replace("*", " * "), self.names, variables)

    def digits(self, found):
        """Correct digits of parameters and of standard errors, the fewest."""
        with np.errstate(divide="ignore"):
            off = np.abs(
                np.concatenate([found.parameters, found.errors])
                / np.concatenate([self.certified, self.deviations])
                - 1
            )
        return -math.log10(max(off.max(), 1e-12)) if np.isfinite(off).all() else 0.0


def named():
    return NIST.items() if isinstance(NIST, dict) else ((one["name"], one) for one in NIST)


class Certified(Case):
    def test_all_from_both_starts(self):
        self.assertEqual(len(NIST), 20)
        for name, given_set in named():
            known = Known(given_set)
            for which, start in known.starts.items():
                with self.subTest(name, start=which):
                    found = fit(known.shape, known.x, known.y, None, [start], own=True)
                    self.assertTrue(found.settled)
                    self.assertGreaterEqual(known.digits(found), DIGITS)
                    self.assertAlmostEqual(found.squares / known.squares, 1, 6)

    def test_most_from_no_start_at_all(self):
        missed = set()
        for name, given_set in named():
            known = Known(given_set)
            found = fit(known.shape, known.x, known.y)
            if known.digits(found) < DIGITS:
                missed.add(name)
                self.assertGreater(found.squares, known.squares)
        self.assertLessEqual(missed, NOT_GUESSED)


class Linear(Case):
    def test_a_polynomial_of_degree_ten_against_mpmath(self):
        """Places far from 0 and close together: powers of x alone would be almost the same."""
        x = np.array([100 + k * 0.37 + 0.05 * math.sin(k) for k in range(60)])
        y = np.array([math.sin(0.3 * v) + 0.01 * math.cos(91 * v) for v in x])
        found = polynomial(x, y, np.ones(60), 10)
        with mp.workdps(50):
            columns = mp.matrix([[mp.mpf(v) ** k for k in range(11)] for v in x.tolist()])
            wanted = mp.lu_solve(columns.T * columns, columns.T * mp.matrix(y.tolist()))
            for k in range(11):
                off = abs(found.coefficients[k] / wanted[k] - 1)
                self.assertLess(off, 1e-6, k)
            # Its values are right to far more digits than its coefficients.
            middle = mp.mpf("111.1")
            value = sum(mp.mpf(float(c)) * middle**k for k, c in enumerate(found.coefficients))
            exact = sum(wanted[k] * middle**k for k in range(11))
            self.assertLess(abs(value - exact), 1e-2)

    def test_nine_digits_where_floats_allow(self):
        x = np.array([k / 10 - 2.9 for k in range(60)])
        y = np.array([math.exp(v) + math.sin(5 * v) for v in x])
        for degree in range(11):
            found = polynomial(x, y, np.ones(60), degree)
            with mp.workdps(50):
                columns = mp.matrix(
                    [[mp.mpf(v) ** k for k in range(degree + 1)] for v in x.tolist()]
                )
                wanted = mp.lu_solve(columns.T * columns, columns.T * mp.matrix(y.tolist()))
                for k in range(degree + 1):
                    size = max(abs(wanted[k]), mp.mpf("1e-3"))
                    self.assertLess(
                        abs(found.coefficients[k] - wanted[k]) / size, 1e-9, (degree, k)
                    )

    def test_errors_of_a_line_by_the_textbook(self):
        x = np.array([1.0, 2, 3, 4, 5, 6])
        y = np.array([2.1, 3.9, 6.2, 7.8, 10.1, 11.9])
        found = fit(shape("a + b x", ["a", "b"]), x, y, degree=1)
        mean = x.mean()
        sxx = ((x - mean) ** 2).sum()
        slope = ((x - mean) * (y - y.mean())).sum() / sxx
        level = y.mean() - slope * mean
        rest = y - level - slope * x
        s = math.sqrt((rest**2).sum() / 4)
        np.testing.assert_allclose(found.parameters, [level, slope], rtol=1e-13)
        errors = [s * math.sqrt(1 / 6 + mean**2 / sxx), s / math.sqrt(sxx)]
        np.testing.assert_allclose(found.errors, errors, rtol=1e-12)
        self.assertAlmostEqual(
            found.explained, 1 - (rest**2).sum() / ((y - y.mean()) ** 2).sum(), 13
        )
        spread = found.spread(np.array([[1.0, 3.5]]))[0]
        self.assertAlmostEqual(spread, s * math.sqrt(1 / 6), 12)
        self.assertAlmostEqual(found.interval(), 2.7764451051977987, 12)  # t(0.975; 4), tables

    def test_what_cannot_be_fitted_is_told(self):
        line = shape("a + b x", ["a", "b"])
        two, one = np.array([1.0, 1.0, 1.0]), np.array([2.0])
        with self.assertRaisesRegex(CannotFit, "same x"):
            fit(line, two, np.array([1.0, 2, 3]), degree=1)
        with self.assertRaisesRegex(CannotFit, "1 point cannot settle 2"):
            fit(line, one, one, degree=1)
        with self.assertRaisesRegex(CannotFit, "no point cannot settle"):
            fit(line, np.array([math.nan]), one, degree=1)
        with self.assertRaisesRegex(CannotFit, "tell the coefficients apart|singular"):
            fit(shape("a x + b (2x)", ["a", "b"]), np.arange(5.0), np.arange(5.0))
        with self.assertRaisesRegex(CannotFit, "no value at"):
            fit(shape("a ln(x - 100) + b x^c", ["a", "b", "c"]), np.arange(5.0), np.arange(5.0))


class Algebra(Case):
    """What is exact comes back; moving and stretching the axes changes parameters as it must."""

    @given(
        some.lists(some.integers(-50, 50), min_size=3, max_size=3),
        some.floats(-40, 40),
        some.floats(0.1, 20),
    )
    @settings(max_examples=40, deadline=None)
    def test_a_parabola_comes_back_and_moves_with_its_axis(self, coefficients, shift, scale):
        a, b, c = coefficients
        x = np.linspace(-3, 4, 15)
        y = a + b * x + c * x**2
        found = fit(shape("a + b x + c x^2", "abc"), x, y, degree=2)
        np.testing.assert_allclose(found.parameters, [a, b, c], atol=1e-9)
        moved = fit(shape("a + b x + c x^2", "abc"), x * scale + shift, y, degree=2)
        c2 = c / scale**2
        b2 = b / scale - 2 * c * shift / scale**2
        a2 = a - b * shift / scale + c * shift**2 / scale**2
        size = 1 + max(abs(v) for v in (a2, b2, c2))
        np.testing.assert_allclose(moved.parameters, [a2, b2, c2], atol=1e-7 * size)

    @given(some.floats(0.5, 5), some.floats(-0.8, 0.8), some.floats(0.2, 6))
    @settings(max_examples=20, deadline=None)
    def test_stretching_y_stretches_the_factor(self, a, b, stretch):
        x = np.linspace(0, 5, 12)
        y = a * np.exp(b * x) + 0.01 * np.sin(9 * x)
        model = MODELS["exponential"]
        known = shape(model.formula, model.names)
        first = fit(known, x, y, starts=[np.array(s) for s in model.starts(x, y)])
        second = fit(
            known, x, stretch * y, starts=[np.array(s) for s in model.starts(x, stretch * y)]
        )
        np.testing.assert_allclose(
            second.parameters, first.parameters * [stretch, 1], rtol=1e-7, atol=1e-9
        )

    def test_every_model_gives_its_parameters_back(self):
        wanted = {
            "line": [1.5, -2],
            "origin": [0.7],
            "quadratic": [1, -2, 0.5],
            "cubic": [1, 0, -2, 0.25],
            "quartic": [1, -1, 0.5, 0.25, -0.125],
            "exponential": [2, -0.4],
            "logarithmic": [1, 2.5],
            "power": [3, 1.4],
            "logistic": [10, 1.3, 3],
            "sine": [2, 1.5, 1.7, 0.4],
            "reciprocal": [1, 4],
            "bell": [5, 3, 0.8],
        }
        self.assertEqual(set(wanted), set(MODELS))
        x = np.linspace(0.5, 6.5, 25)
        for key, model in MODELS.items():
            known = shape(model.formula, model.names)
            y = known.values(x, np.array(wanted[key], dtype=float))
            starts = [np.array(start) for start in model.starts(x, y)]
            with self.subTest(key):
                found = fit(known, x, y, starts=starts, degree=model.degree)
                again = known.values(x, found.parameters)
                np.testing.assert_allclose(again, y, atol=1e-8)
                self.assertTrue(found.settled)
        self.assertEqual(polynomial_model(3).names, ("a_0", "a_1", "a_2", "a_3"))

    def test_weights_and_held_parameters(self):
        x = np.arange(6.0)
        y = 1 + 2 * x
        y[3] = 100
        weights = np.ones(6)
        weights[3] = 0
        line = shape("a + b x", ["a", "b"])
        found = fit(line, x, y, weights, degree=1)
        np.testing.assert_allclose(found.parameters, [1, 2], atol=1e-12)
        self.assertEqual(found.count, 5)
        held = fit(line, x, 1 + 2 * x, held={"b": 1.0}, degree=1)
        self.assertAlmostEqual(held.parameters[0], 3.5)
        self.assertEqual((held.errors[1], held.freedom), (0, 5))

    def test_another_valley_is_told(self):
        x = np.array([0.0, 1, 2, 3, 4, 5, 6, 7])
        y = np.sin(2 * np.pi * 0.25 * x)
        found = fit(shape("a sin(w x)", ["a", "w"]), x, y + 0.3 * np.cos(2.2 * x))
        self.assertLess(found.squares, 1.5)
        doubled = fit(
            shape("a e^(-(x - m)^2)", ["a", "m"]),
            np.array([0.0, 1, 2, 10, 11, 12]),
            np.array([0.1, 1, 0.1, 0.1, 0.98, 0.1]),
        )
        self.assertIsNotNone(doubled.valley)
        self.assertAlmostEqual(doubled.valley.parameters[1], 11, 1)


if __name__ == "__main__":
    unittest.main()
