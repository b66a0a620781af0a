"""Equations with solutions that are known otherwise: exactly, or from mpmath to 50 digits.

Each row is a line, from, to (empty for infinity), and the solutions: as mpmath evaluates them, or
as starts for mpmath's own root finder on the function beside them.
"""

from mpmath import mp, mpf

PI = mp.pi


def exactly(*texts):
    """Numbers written as mpmath expressions in π, sqrt, log, …"""
    names = {name: getattr(mp, name) for name in ("pi", "sqrt", "log", "atan", "asin", "acos")}
    names |= {"exp": mp.exp, "lambertw": mp.lambertw, "cbrt": mp.cbrt, "mpf": mpf, "e": mp.e}
    return [mp.mpmathify(eval(text, {}, names)) for text in texts]


def roots(function, *starts):
    """Roots by mpmath's own iteration, a start for each."""
    return [mp.findroot(function, start) for start in starts]


SOLVED = [
    ("x^2 = 2", "", "", exactly("-sqrt(2)", "sqrt(2)")),
    ("x^2 - x - 3 = 0", "", "", exactly("(1-sqrt(13))/2", "(1+sqrt(13))/2")),
    ("x^3 = 8", "", "", exactly("2")),
    ("x^3 - 6x^2 + 11x = 6", "", "", exactly("1", "2", "3")),
    ("x^4 = 5x^2 - 4", "", "", exactly("-2", "-1", "1", "2")),
    ("(x - 1)^2 = 0", "", "", exactly("1")),
    ("x^3 - 3x + 2 = 0", "", "", exactly("-2", "1")),
    ("x^5 - x = 1", "", "", roots(lambda x: x**5 - x - 1, 1.2)),
    ("x^2 = 10^10", "", "", exactly("-100000", "100000")),
    ("x^2 = 10^-10", "", "", exactly("-mpf(10)**-5", "mpf(10)**-5")),
    ("(x - 1000)(x + 3000) = 0", "", "", exactly("-3000", "1000")),
    ("1/x = 3", "", "", exactly("mpf(1)/3")),
    ("1/(x - 1) = 1/(2x + 3)", "", "", exactly("-4")),
    ("(x^2 - 1)/(x - 1) = 3", "", "", exactly("2")),
    ("x + 1/x = 5/2", "", "", exactly("mpf(1)/2", "2")),
    ("√x = 3", "", "", exactly("9")),
    ("√(x + 2) = x", "", "", exactly("2")),
    ("√x = x - 2", "", "", exactly("4")),
    ("cbrt(x) = -2", "", "", exactly("-8")),
    ("x^(1/3) = x", "", "", exactly("-1", "0", "1")),
    ("|x - 2| = 3", "", "", exactly("-1", "5")),
    ("|x^2 - 4| = 1", "", "", exactly("-sqrt(5)", "-sqrt(3)", "sqrt(3)", "sqrt(5)")),
    ("||x| - 3| = 1", "", "", exactly("-4", "-2", "2", "4")),
    ("2^x = 8", "-20", "20", exactly("3")),
    ("2^x = x^2", "-10", "10", [*roots(lambda x: 2**x - x**2, -0.77), mpf(2), mpf(4)]),
    ("e^x = 5", "-10", "10", exactly("log(5)")),
    ("e^(2x) - 3e^x + 2 = 0", "-10", "10", exactly("0", "log(2)")),
    ("0.4 = 1 - e^(-t/3)", "-10", "50", exactly("-3*log(mpf(6)/10)")),
    ("x e^x = 2", "-10", "10", exactly("lambertw(2)")),
    ("x e^x = -1/4", "-10", "10", exactly("lambertw(mpf(-1)/4, -1)", "lambertw(mpf(-1)/4)")),
    ("ln x = 1", "", "", exactly("e")),
    ("log x = 2", "", "", exactly("100")),
    ("log_2(x) = 5", "", "", exactly("32")),
    ("ln x = x - 2", "0", "20", roots(lambda x: mp.log(x) - x + 2, 0.16, 3.1)),
    ("x ln x = 1", "0", "10", roots(lambda x: x * mp.log(x) - 1, 1.7)),
    ("x^x = 2", "0.01", "5", roots(lambda x: x**x - 2, 1.5)),
    ("cos x = x", "-100", "100", roots(lambda x: mp.cos(x) - x, 0.7)),
    (
        "sin x = x/2",
        "-10",
        "10",
        [
            *roots(lambda x: mp.sin(x) - x / 2, -1.9),
            mpf(0),
            *roots(lambda x: mp.sin(x) - x / 2, 1.9),
        ],
    ),
    ("sin x = 1/2", "0", "2π", exactly("pi/6", "5*pi/6")),
    ("sin x = 1", "0", "10", exactly("pi/2", "5*pi/2")),
    ("tan x = 5/8", "0", "5", exactly("atan(mpf(5)/8)", "atan(mpf(5)/8)+pi")),
    (
        "tan x = x",
        "-5",
        "5",
        [
            *roots(lambda x: mp.sin(x) - x * mp.cos(x), -4.49),
            mpf(0),
            *roots(lambda x: mp.sin(x) - x * mp.cos(x), 4.49),
        ],
    ),
    ("sin(2x) = sin x", "-1", "6", exactly("0", "pi/3", "pi", "5*pi/3")),
    ("2 sin^2(x) = 1 + cos x", "0", "6", exactly("pi/3", "pi", "5*pi/3")),
    ("sin(52°) = x/9", "", "", exactly("9*mpf('0.78801075360672195669397278004')")),
    (
        "arctan x = 1",
        "-10",
        "10",
        exactly("mpf('1.5574077246549022305069748074583601730872507723815')"),
    ),
    ("e^(-x^2) = 1/2", "-5", "5", exactly("-sqrt(log(2))", "sqrt(log(2))")),
    ("sinh x = 3", "-9", "9", exactly("log(3+sqrt(10))")),
    ("x^2 = cos x", "-9", "9", roots(lambda x: x**2 - mp.cos(x), -0.8, 0.8)),
    ("e^x = 3x", "-5", "5", roots(lambda x: mp.exp(x) - 3 * x, 0.6, 1.5)),
    (
        "x^3 = sin x",
        "-5",
        "5",
        [
            *roots(lambda x: x**3 - mp.sin(x), -0.93),
            mpf(0),
            *roots(lambda x: x**3 - mp.sin(x), 0.93),
        ],
    ),
    ("f(x) = g(x)", "", "", exactly("(1-sqrt(21))/2", "(1+sqrt(21))/2")),
    ("f(z) = a", "", "", exactly("-sqrt(5)", "sqrt(5)")),
    ("y = x^2, y = 2 - x", "", "", exactly("-2", "1")),
    ("gamma(x) = 2", "0.1", "5", [*roots(lambda x: mp.gamma(x) - 2, 0.44), mpf(3)]),
    ("erf(x) = 1/2", "-3", "3", roots(lambda x: mp.erf(x) - 0.5, 0.47)),
]
NONE = [
    ("x^2 = -1", "", "", 1.0),
    ("x^2 + 0.03 = 0", "-5", "5", 0.03),
    ("√x = -1", "", "", 1.0),
    ("e^x = 0", "", "", 0.0),
    ("1/x = 0", "", "", 0.0),
    ("|x| + 2 = 1", "", "", 1.0),
    ("sin x = 2", "0", "9", 1.0),
    ("x + 1 = x", "", "", 1.0),
    ("x^4 - x + 1 = 0", "", "", float(mp.mpf(1) - 3 * mp.mpf(4) ** (mp.mpf(-4) / 3))),
    ("cosh x = 1/2", "-5", "5", 0.5),
]
ALWAYS = [
    ("x + 1 = 1 + x", "", ""),
    ("(x + 1)^2 = x^2 + 2x + 1", "", ""),
    ("x/x = 1", "", ""),
    ("√(x^2) = |x|", "-5", "5"),
]
MANY = [
    ("sin x = 1/2", "0", "1000", 319),
    ("sin(100x) = cos(99x)", "0", "2π", 200),
    ("tan x = 1", "0", "600", 191),
]
SETS = [
    ("x^2 < 4", "(−2, 2)"),
    ("x^2 >= 4", "(−∞, −2] ∪ [2, ∞)"),
    ("1/x > 2", "(0, 0.5)"),
    ("1/(x - 1) <= 1", "(−∞, 1) ∪ [2, ∞)"),
    ("ln x <= 0", "(0, 1]"),
    ("(x - 1)^2 <= 0", "{1}"),
    ("(x - 1)^2 > 0", "(−∞, 1) ∪ (1, ∞)"),
    ("x^2 < -1", "∅"),
    ("1 < x^2 <= 4", "[−2, −1) ∪ (1, 2]"),
    ("√x >= 0", "[0, ∞)"),
    ("(x^2 - 1)/(x - 1) > 0", "(−1, 1) ∪ (1, ∞)"),
    ("x^2 (x - 3) <= 0", "(−∞, 3]"),
    ("x^3 > x", "(−1, 0) ∪ (1, ∞)"),
    ("|x - 1| < 2", "(−1, 3)"),
]
