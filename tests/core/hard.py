"""Functions that are hard to read correctly, with what a correct reading must say.

Counts and places are from calculus on paper or from mpmath at 50 digits (marked), never from
this program. Each case: line, from, to, and per kind of landmark the places x.
"""

import itertools

import mpmath

PI = mpmath.pi
E = mpmath.e


def multiples(step, low, high, offset=0):
    """offset + k·step between low and high."""
    first, last = mpmath.ceil((low - offset) / step), mpmath.floor((high - offset) / step)
    return [offset + k * step for k in range(int(first), int(last) + 1)]


def solved(function, guesses):
    """Solutions next to guesses, by mpmath."""
    with mpmath.workdps(50):
        return [mpmath.findroot(function, g) for g in guesses]


# sin(50x) + x/10 on [−10, 10]: |x/10| ≤ 1 all over, so there is one zero on every monotone
# branch of sin(50x) between its turning points. (mpmath)
_WAVE_TURNS = [
    t
    for k in range(-320, 320)
    for base in (mpmath.acos(mpmath.mpf(-1) / 500),)
    for t in ((2 * PI * k + base) / 50, (2 * PI * k - base) / 50)
    if -10 < t < 10
]


def _between(places, function, low, high):
    edges = sorted([mpmath.mpf(low), *places, mpmath.mpf(high)])
    found = []
    for a, b in itertools.pairwise(edges):
        if function(a) * function(b) < 0:
            found.append(mpmath.findroot(function, (a, b), solver="anderson", tol=1e-20))
    return found


_WAVE_ZEROS = _between(_WAVE_TURNS, lambda x: mpmath.sin(50 * x) + x / 10, -10, 10)
_TAN_POLES = multiples(PI, -10, 10, PI / 2)
_SINC = [
    sign * x for x in solved(lambda x: mpmath.tan(x) - x, (4.4934, 7.7253)) for sign in (-1, 1)
]

HARD = [
    ("(x - 1)^2", -10, 10, {"zero": [1], "minimum": [1]}),
    ("(x - 1)^2 + 10^-6", -10, 10, {"zero": [], "minimum": [1]}),
    ("(x - 2)(x - 2.0001)", -10, 10, {"zero": [2, mpmath.mpf("2.0001")]}),
    ("(x - 3)^3", -10, 10, {"zero": [3], "inflection": [3], "maximum": [], "minimum": []}),
    (
        "sin(x^2)",
        -10,
        10,
        {"zero": [s * mpmath.sqrt(k * PI) for k in range(32) for s in ((-1, 1) if k else (1,))]},
    ),
    ("sin(50x) + x/10", -10, 10, {"zero": _WAVE_ZEROS}),
    ("tan x", -10, 10, {"zero": multiples(PI, -10, 10), "pole": _TAN_POLES, "maximum": []}),
    ("1/(x - 1)", -10, 10, {"zero": [], "pole": [1], "maximum": [], "minimum": [], "jump": []}),
    ("(x^2 - 1)/(x - 1)", -10, 10, {"zero": [-1], "hole": [1], "pole": []}),
    (
        "sin(x)/x",
        -10,
        10,
        {
            "zero": [x for x in multiples(PI, -10, 10) if x],
            "hole": [0],
            "maximum": [x for x in _SINC if abs(x) > 5],
            "minimum": [x for x in _SINC if abs(x) < 5],
        },
    ),
    (
        "| |x| - 3| - 1",
        -10,
        10,
        {"zero": [-4, -2, 2, 4], "kink": [-3, 0, 3], "maximum": [0], "minimum": [-3, 3]},
    ),
    ("|||x| - 3| - 1|", -10, 10, {"zero": [-4, -2, 2, 4], "kink": [-4, -3, -2, 0, 2, 3, 4]}),
    ("floor(x)", -2.5, 2.5, {"jump": [-2, -1, 0, 1, 2], "zero": []}),
    ("mod(x, 3)", -4, 7, {"jump": [-3, 0, 3, 6], "zero": [-3, 0, 3, 6]}),
    ("round(x)", -2, 2, {"jump": [-1.5, -0.5, 0.5, 1.5]}),
    ("x if x < 0, x^2 + 1 otherwise", -2, 2, {"jump": [0], "zero": []}),
    ("x if x < 0, x^2 otherwise", -2, 2, {"jump": [], "kink": [0], "zero": [0]}),
    ("x^3 if x < 0, x^2 otherwise", -2, 2, {"jump": [], "kink": [], "zero": [0]}),
    ("√(x + 4)", -10, 10, {"zero": [-4], "end": [-4], "minimum": [-4]}),
    ("ln x", -1, 10, {"zero": [1], "pole": [0]}),
    ("x^x", -1, 3, {"zero": [], "end": [0], "minimum": [1 / E]}),
    ("x^(1/3)", -2, 2, {"zero": [0], "kink": [], "inflection": [0]}),
    ("x^(2/3)", -2, 2, {"zero": [0], "kink": [0], "minimum": [0]}),
    ("arctan(100(x - 1))", -10, 10, {"zero": [1], "inflection": [1], "jump": []}),
    (
        "e^(-1000000 (x - 0.3)^2)",
        -10,
        10,
        {
            "zero": [],
            "maximum": [mpmath.mpf("0.3")],
            "inflection": [mpmath.mpf("0.3") + s / mpmath.sqrt(2000000) for s in (-1, 1)],
        },
    ),
    (
        "1 - e^(-1000000 (x - 0.3)^2)",
        -10,
        10,
        {"minimum": [mpmath.mpf("0.3")], "zero": [mpmath.mpf("0.3")]},
    ),
    # The slope is 0 where s² + 2s = π√½ for s = √x.
    (
        "(x/π - 0.5^0.5) exp(x^0.5)",
        -3,
        3,
        {
            "minimum": [(mpmath.sqrt(1 + PI * mpmath.sqrt(0.5)) - 1) ** 2],
            "zero": [PI * mpmath.sqrt(0.5)],
        },
    ),
    ("2^(x^2) - 2^(3x)", -1, 4, {"zero": [0, 3]}),
    ("2.6", 0, 24, {"zero": [], "maximum": [], "minimum": []}),
    ("0x", -2, 2, {"zero": []}),
    ("x^2 - 1000000^2", 1e6 - 5e-10, 1e6 + 5e-10, {"zero": [1000000]}),
    ("cos(x/100000) - x/1000000", -5e5, 5e5, {}),
    ("(x - 1)/(x^2 - 1)", -3, 3, {"pole": [-1], "hole": [1], "zero": []}),
    ("1/x^2", -3, 3, {"pole": [0], "zero": []}),
    (
        "e^(-1/x^2)",
        -2,
        2,
        {
            "hole": [0],
            "inflection": [-mpmath.sqrt(2) / mpmath.sqrt(3)] * 1
            + [mpmath.sqrt(2) / mpmath.sqrt(3)],
            "zero": [],
        },
    ),
    ("arctan(1/x)", -2, 2, {"jump": [0], "zero": []}),
    ("√(4 - x^2)", -3, 3, {"end": [-2, 2], "zero": [-2, 2], "maximum": [0]}),
    ("1/√x", -1, 4, {"pole": [0], "zero": []}),
    ("arcsin(x)", -2, 2, {"end": [-1, 1], "zero": [0], "inflection": [0]}),
    ("ln|x|", -2, 2, {"pole": [0], "zero": [-1, 1]}),
    ("x ln x", -1, 3, {"end": [0], "zero": [1], "minimum": [1 / E]}),
    ("x|x|", -2, 2, {"zero": [0], "inflection": [0], "kink": []}),
    ("max(x, 2 - x^2)", -3, 3, {"kink": [-2, 1], "maximum": [0], "minimum": [1]}),
    ("1 if x < 0, 2 if x = 0, 1 otherwise", -2, 2, {"hole": [0], "maximum": [0]}),
    (
        "sec x",
        -5,
        5,
        {"pole": multiples(PI, -5, 5, PI / 2), "minimum": [0], "maximum": [-PI, PI], "zero": []},
    ),
    ("(x^2 - 2)^2", -3, 3, {"zero": [-mpmath.sqrt(2), mpmath.sqrt(2)]}),
    ("sin(x)^2", -4, 4, {"zero": [-PI, 0, PI], "maximum": [-PI / 2, PI / 2]}),
    (
        "*".join(f"(x - {k / 20})" for k in range(1, 21)),
        -0.2,
        1.2,
        {"zero": [mpmath.mpf(k) / 20 for k in range(1, 21)]},
    ),
]
