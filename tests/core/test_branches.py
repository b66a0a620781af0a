"""What a curve is at a point where it is not smooth: exactly, whatever it looks like."""

import math
import random
import unittest
from fractions import Fraction

import sympy

from axispath.core.path.lanes import Effort
from axispath.core.path.survey import survey
from axispath.core.plane.branches import alone_within, branches_at
from axispath.core.plane.polynomials import squarefree, written
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from tests.case import Case
from tests.core.resultants import X, Y, typed

# Of parts whose branches are known: half-branches, and whether they are the two of a cusp.
LINES = [(a * X + b * Y, 2, False) for a, b in ((1, 0), (0, 1), (1, 1), (2, -3), (1, -5))]
PARABOLAS = [(Y - c * X**2, 2, False) for c in (1, -1, 2, Fraction(1, 3))]
CUSPS = [(Y**2 - c * X**3, 2, True) for c in (1, -2, Fraction(1, 2))] + [
    (X**2 - Y**5, 2, True),
    (Y**4 - X**5, 2, True),  # over x ≥ 0 alone
    (Y**3 - X**4, 2, False),
    (Y**3 - X**5, 2, False),
]
POINTS = [(X**2 + Y**2, 0, False), (X**4 + 3 * Y**2, 0, False), (X**2 + X * Y + Y**2, 0, False)]
NODES = [
    (Y**2 - X**2 * (X + 1), 4, False),
    (X**3 + Y**3 - 3 * X * Y, 4, False),
    ((X**2 + Y**2) ** 2 - (X**2 - Y**2), 4, False),
    ((X**2 + Y**2) ** 3 - 4 * X**2 * Y**2, 8, False),
]
PARTS = [*LINES, *PARABOLAS, *CUSPS, *POINTS, *NODES]


def coefficients(polynomial):
    terms = sympy.Poly(polynomial, X, Y).terms()
    return {k: Fraction(int(v.p), int(v.q)) for k, v in terms}


def products(count):
    """Products of different parts, moved and turned, with the branches that they have."""
    chance = random.Random(11)
    for _ in range(count):
        parts = chance.sample(PARTS, chance.choice((1, 2, 2, 3)))
        shear = chance.choice((0, 1, -2))
        place = [Fraction(chance.randint(-12, 12), chance.choice((1, 2, 4))) for _ in "xy"]
        whole = sympy.Integer(1)
        for part, _, _ in parts:
            whole *= part
        moved = whole.subs(
            {X: X - place[0], Y: Y - place[1] + shear * (X - place[0])}, simultaneous=True
        )
        polynomial = sympy.expand(moved)
        if sympy.Poly(polynomial, X, Y).total_degree() > 10:
            continue
        half = sum(one for _, one, _ in parts)
        sharp = half == 2 and any(one for _, _, one in parts)
        yield polynomial, place, half, sharp


class Branches(Case):
    def test_as_many_as_the_parts_have(self):
        tried = 0
        for polynomial, place, half, sharp in products(60):
            with self.subTest(str(polynomial)):
                found = branches_at(coefficients(polynomial), *place)
                self.assertEqual((found.half, found.sharp), (half, sharp))
            tried += 1
        self.assertGreater(tried, 30)

    def test_a_part_that_stands_twice_counts_once(self):
        for part, half, _ in PARTS[:12]:
            found = coefficients(sympy.expand(part**2))
            once, repeated = squarefree(found)
            self.assertTrue(repeated)
            self.assertFalse(squarefree(once)[1])
            self.assertEqual(branches_at(found, Fraction(0), Fraction(0)).half, half)

    def test_within_its_distance_the_slope_is_nowhere_else_zero(self):
        # The loop of y² = x²(x + 1) turns at x = −2/3.
        loop = coefficients(Y**2 - X**2 * (X + 1))
        alone = alone_within(loop, "x", Fraction(0), Fraction(0))
        self.assertLess(alone, Fraction(2, 3))
        self.assertGreater(alone, Fraction(1, 20))
        self.assertIsNone(alone_within(coefficients(Y * (X - 1)), "x", Fraction(1), Fraction(0)))

    def test_a_polynomial_is_written_as_it_is_read(self):
        for part, _, _ in PARTS:
            found = coefficients(part)
            self.assertTrue(str(written(found)))


# A line, and what is to be listed at the origin.
LISTED = (
    ("y^2 = x^4", Kind.CROSSING),
    ("y^3 = x^3", None),
    ("x^4 + y^4 = 0", Kind.ISOLATED),
    ("x y (x - y) = 0", Kind.CROSSING),
    ("y^2 = x^3", Kind.CUSP),
    ("y^2 = x^5", Kind.CUSP),
    ("y^4 = x^6", Kind.CROSSING),
    ("(y - x^2)(y - 2x^2) = 0", Kind.CROSSING),
    ("x^2 + y^4 = 0", Kind.ISOLATED),
    ("(y - x^3)^2 = 0", None),
    ("y^3 = x^4", None),
    ("x^2 = y^3", Kind.CUSP),
)
SINGULAR = (Kind.CROSSING, Kind.CUSP, Kind.ISOLATED)


class Listed(Case):
    def test_the_kind_is_that_of_the_branches(self):
        for line, kind in LISTED:
            with self.subTest(line):
                sheet = apply(Document(), AddLane(text=line))
                ((_, path),) = survey(sheet).lanes
                found = [m.kind for m in path.landmarks if m.kind in SINGULAR and not (m.x or m.y)]
                self.assertEqual(found, [] if kind is None else [kind])

    def test_random_ones_are_never_called_something_else(self):
        for polynomial, place, half, sharp in products(6):
            line = typed(polynomial)
            if abs(place[0]) > 9 or abs(place[1]) > 6:  # beyond the view
                continue
            with self.subTest(line):
                sheet = apply(Document(), AddLane(text=line))
                ((_, path),) = survey(sheet, Effort(evaluations=1500)).lanes
                here = [
                    m.kind
                    for m in path.landmarks
                    if m.kind in SINGULAR and math.dist((m.x, m.y), map(float, place)) < 1e-9
                ]
                wanted = {0: Kind.ISOLATED, 2: Kind.CUSP if sharp else None}.get(
                    half, Kind.CROSSING
                )
                # What is not settled may be left out, and is said to be open then.
                self.assertIn(here, ([] if wanted is None else [wanted], []))
                if wanted is not None and not here:
                    self.assertFalse(path.complete)


if __name__ == "__main__":
    unittest.main()
