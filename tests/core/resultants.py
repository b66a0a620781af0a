"""Common real zeros of two polynomials in x and y, by resultants: independent of the search."""

import flint
import sympy

X, Y = sympy.symbols("x y", real=True)
NAMES = {"x": X, "y": Y}
BITS = 400
CLOSE = 1e-60  # what is 0 at coordinates with so many digits


def common_zeros(first, second, rectangle=(-10, 10, -7, 7)):
    """All of them in a rectangle, as pairs of floats.

    Both coordinates are zeros of a resultant (D. Cox, J. Little and D. O'Shea 2015, Ideals,
    Varieties, and Algorithms, chapter 3); those pairs are kept at which both polynomials are 0.
    """
    left, right, bottom, top = rectangle
    across = [
        v for v in _real_zeros(_resultant(first, second, 1)) if left <= float(v.mid()) <= right
    ]
    upwards = [
        v for v in _real_zeros(_resultant(first, second, 0)) if bottom <= float(v.mid()) <= top
    ]
    polynomials = [sympy.Poly(p, X, Y) for p in (first, second)]
    return sorted(
        (float(a.mid()) + 0.0, float(b.mid()) + 0.0)
        for a in across
        for b in upwards
        if all(_value(p, a, b) < CLOSE for p in polynomials)
    )


def typed(polynomial):
    """A polynomial that is 0, as a student types it."""
    return str(polynomial).replace("**", "^").replace("*", " ") + " = 0"


def _resultant(first, second, eliminated):
    ring = flint.fmpq_mpoly_ctx.get(("x", "y"), "lex")
    parts = []
    for polynomial in (first, second):
        terms = sympy.Poly(polynomial, X, Y).terms()
        parts.append(ring.from_dict({k: flint.fmpq(int(c.p), int(c.q)) for k, c in terms}))
    found = parts[0].resultant(parts[1], "xy"[eliminated])
    kept = 1 - eliminated
    coefficients = {}
    for powers, value in found.to_dict().items():
        coefficients[int(powers[kept])] = value
    return [coefficients.get(k, flint.fmpq(0)) for k in range(max(coefficients, default=0) + 1)]


def _real_zeros(coefficients):
    polynomial = flint.fmpq_poly(coefficients)
    whole = polynomial.numer()
    slope = whole.derivative()
    whole = whole // whole.gcd(slope) if slope else whole
    with flint.ctx.workprec(BITS):
        return [root.real for root, _ in whole.complex_roots() if root.imag.contains(0)]


def _value(polynomial, a, b):
    with flint.ctx.workprec(BITS):
        total = flint.arb(0)
        for (i, j), factor in polynomial.terms():
            total += flint.arb(int(factor.p)) / int(factor.q) * a**i * b**j
        return abs(float(total.mid()))
