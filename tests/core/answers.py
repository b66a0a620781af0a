"""Answers with the verdicts that they deserve, worked out by hand.

Each sheet is a list of lanes (lane1, lane2, …), each question what Question takes, each answer its
text and its verdict.
"""

R, P, N, W, K, T = "right", "part", "near", "wrong", "kept", "refused"

ZEROS = {"kind": "landmarks", "lane": "lane1", "group": "zeros"}
TURNS = {"kind": "landmarks", "lane": "lane1", "group": "turning points"}
MEETS = {"kind": "landmarks", "lane": "lane1", "other": "lane2", "group": "intersections"}
BREAKS = {"kind": "landmarks", "lane": "lane1", "group": "breaks"}
BENDS = {"kind": "landmarks", "lane": "lane1", "group": "inflections"}
DOMAIN = {"kind": "domain", "lane": "lane1"}


def solve(text, low="", high=""):
    return {"kind": "solve", "text": text, "low": low, "high": high}


MARKED = [
    # Zeros: equal forms, order, digits, what is too much, what is missing
    (
        ("f(x) = x^2 - 4x + 1",),
        ZEROS,
        {
            "2 ± √3": R,
            "2 + √3, 2 - √3": R,
            "2 - √3; 2 + √3": R,
            "x = 2+√3 or x = 2-√3": R,
            "{2 - √3, 2 + √3}": R,
            "0.27, 3.73": R,
            "0.2679, 3.7321": R,
            "0.268, 3.732": R,
            "0.3, 3.7": P,
            "0.27": P,
            "2 + √3": P,
            "0.26, 3.73": P,
            "0.28, 3.72": W,
            "0.2680, 3.7320": W,
            "0.27, 0.27": P,
            "4 ± √3": W,
            "1, 3": W,
            "none": W,
            "0.27 and 3.73": R,
            "(2 + √3, 0), (2 - √3, 0)": R,
            "(2 + √3, 1)": W,
            "0.27, 3.73, 5": P,
            "√3 ± 2": P,
            "2 ± sqrt(3)": R,
            "": T,
            "two": T,
            "2 ± √(3": T,
            "x^2": T,
            "(4 ± √12)/2": R,
        },
    ),
    (
        ("f(x) = (x - 1/2)(x + 3)",),
        ZEROS,
        {
            "1/2, -3": R,
            "0.5, -3": R,
            "0.50, -3": R,
            "-3, 1/2": R,
            "−3, 0.500": R,
            "-3.00, 0.50": R,
            "0.5": P,
            "1/2": P,
            "2/4, -6/2": R,
            "0.49, -3": P,
            "3, 1/2": P,
            "-1/2, 3": W,
            "sin(π/6), -3": R,
            "cos(π/3), -√9": R,
            "0.51, -3.01": W,
            "1/2, -3, 1/2": P,
        },
    ),
    (("f(x) = x^2 + 1",), ZEROS, {"none": R, "no solution": R, "∅": R, "1": W, "±1": W, "0": W}),
    (
        ("f(x) = sin(x) for 0 <= x <= 7",),
        ZEROS,
        {
            "0, π, 2π": R,
            "0, 3.14, 6.28": R,
            "π, 2π": P,
            "0, π": P,
            "0, 3.14159, 6.28319": R,
            "0, 3.15, 6.28": P,
            "0, 22/7, 2π": P,
            "0, π, 2π, 3π": P,
            "kπ": T,
            "none": W,
        },
    ),
    (("f(x) = x^3 - 3x + 2",), ZEROS, {"1, -2": R, "-2, 1": R, "1": P, "-2, 1, 1": P, "2, -1": W}),
    (
        ("f(x) = e^x - 2",),
        ZEROS,
        {
            "ln 2": R,
            "ln(2)": R,
            "0.69": R,
            "0.7": P,
            "0.693147": R,
            "0.70": W,
            "2": W,
            "log(2)": W,
            "ln(4)/2": R,
            "-ln(1/2)": R,
        },
    ),
    # Turning points, by x or as points
    (
        ("f(x) = x^3 - 3x",),
        TURNS,
        {
            "-1, 1": R,
            "±1": R,
            "(-1, 2), (1, -2)": R,
            "(1, -2); (-1, 2)": R,
            "(-1, 2)": P,
            "(-1, -2), (1, 2)": W,
            "0": W,
            "1": P,
            "±√3": W,
            "1.00, -1.00": R,
            "1.0, -1.0": R,
            "none": W,
        },
    ),
    (("f(x) = 2x + 1",), TURNS, {"none": R, "0": W, "-1/2": W}),
    (
        ("f(x) = x e^(-x)",),
        TURNS,
        {"1": R, "(1, 1/e)": R, "(1, e^-1)": R, "(1, 0.37)": R, "(1, 1)": W, "0": W},
    ),
    (("f(x) = |x - 2|",), TURNS, {"2": R, "(2, 0)": R, "0": W, "-2": W}),
    (("f(x) = x^3 - 3x^2",), BENDS, {"1": R, "(1, -2)": R, "0": W, "2": W}),
    # Breaks
    (("f(x) = 1/(x - 2)",), BREAKS, {"2": R, "x = 2": R, "-2": W, "0": W, "none": W, "2.00": R}),
    (("f(x) = (x^2 - 1)/(x - 1)",), BREAKS, {"1": R, "(1, 2)": R, "-1": W, "none": W}),
    (("f(x) = x^2",), BREAKS, {"none": R, "0": W}),
    # Intersections
    (
        ("f(x) = x^2", "g(x) = x + 2"),
        MEETS,
        {
            "-1, 2": R,
            "(-1, 1), (2, 4)": R,
            "(2, 4)": P,
            "(-1, -1), (2, 4)": P,
            "1, -2": W,
            "(4, 2), (1, -1)": W,
            "none": W,
            "2, -1": R,
            "0": W,
        },
    ),
    (("f(x) = x^2", "g(x) = -1"), MEETS, {"none": R, "1": W}),
    # Domains
    (
        ("f(x) = √(x + 2)/(x - 1)",),
        DOMAIN,
        {
            "x >= -2 and x != 1": R,
            "x ≥ −2, x ≠ 1": R,
            "[-2, 1) ∪ (1, ∞)": R,
            "[−2, 1) or (1, ∞)": R,
            "-2 <= x < 1 or x > 1": R,
            "x >= -2": N,
            "x > -2 and x != 1": N,
            "x >= -2 and x ≠ -1": N,
            "[-2, ∞) \\ {1}": R,
            "[-2, ∞) without 1": R,
            "x ≠ 1": W,
            "all": W,
            "none": W,
            "x <= -2": W,
            "[-2; 1[ ∪ ]1; ∞[": R,
            "-2 ≤ x": N,
            "1 < x or -2 ≤ x < 1": R,
            "x > = 2": T,
            "two": T,
            "": T,
            "x >= -2.00 and x != 1": R,
            "x >= -2.0 and x != 1": R,
        },
    ),
    (
        ("f(x) = ln(x)",),
        DOMAIN,
        {"x > 0": R, "(0, ∞)": R, "x >= 0": N, "[0, ∞)": N, "x < 0": W, "0 < x": R},
    ),
    (("f(x) = x^2 + 1",), DOMAIN, {"all": R, "ℝ": R, "R": R, "(-∞, ∞)": R, "x >= 0": W, "none": W}),
    (
        ("f(x) = 1/(x^2 - 4)",),
        DOMAIN,
        {
            "x != 2 and x != -2": R,
            "x ≠ 2, x ≠ −2": R,
            "ℝ \\ {-2, 2}": R,
            "all but ±2": R,
            "all except {2, -2}": R,
            "x ≠ 2": N,
            "(-∞, -2) ∪ (-2, 2) ∪ (2, ∞)": R,
            "x > 2": W,
            "(-2, 2)": W,
            "x < -2 or x > 2 or -2 < x < 2": R,
        },
    ),
    (
        ("f(x) = x^2 for 0 <= x < 3",),
        DOMAIN,
        {"0 <= x < 3": R, "[0, 3)": R, "[0, 3]": N, "(0, 3)": N, "x >= 0": W},
    ),
    (
        ("f(x) = √(4 - x^2)",),
        DOMAIN,
        {"-2 <= x <= 2": R, "[-2, 2]": R, "|x| <= 2": R, "(-2, 2)": N, "x <= 2": W},
    ),
    # Equations and inequalities
    (
        (),
        solve("2x + 3 = 8"),
        {"5/2": R, "2.5": R, "2.50": R, "x = 5/2": R, "10/4": R, "2.4": W, "5": W, "none": W},
    ),
    (
        (),
        solve("x^2 = 2"),
        {"±√2": R, "√2, -√2": R, "1.41, -1.41": R, "√2": P, "1.42": W, "±1.4142": R, "2": W},
    ),
    ((), solve("x^2 = -1"), {"none": R, "i": T, "-1": W, "±1": W}),
    (
        (),
        solve("sin x = 1/2", "0", "2π"),
        {
            "π/6, 5π/6": R,
            "0.52, 2.62": R,
            "π/6": P,
            "30, 150": W,
            "0.5236, 2.6180": R,
            "π/6, 5π/6, 13π/6": P,
        },
    ),
    (
        (),
        solve("x^2 < 4"),
        {
            "-2 < x < 2": R,
            "(-2, 2)": R,
            "x < 2": W,
            "[-2, 2]": N,
            "x > -2 and x < 2": R,
            "none": W,
            "|x| < 2": R,
        },
    ),
    (
        (),
        solve("x^2 >= 4"),
        {
            "x <= -2 or x >= 2": R,
            "(-∞, -2] ∪ [2, ∞)": R,
            "x >= 2": W,
            "x >= ±2": T,
            "x <= -2, x >= 2": R,
        },
    ),
    (
        (),
        solve("x/(x - 1) > 2"),
        {"1 < x < 2": R, "(1, 2)": R, "x < 2": W, "[1, 2)": N, "1 <= x < 2": N},
    ),
    ((), solve("x = x"), {"all": R, "ℝ": R, "every x": R, "0": T, "x = 0": W, "none": W}),
    ((), solve("2x = 2x + 1"), {"none": R, "0": W}),
    # More than can be listed: the search says so, and calls nothing all
    ((), solve("sin x = 0"), {"0": P, "0, π": P, "1": W, "none": W}),
    # Columns are in test_practice; curves to recognise
    (
        ("f(x) = (x + 1)^2",),
        {"kind": "which", "lane": "lane1", "options": ("x^2 + 2x + 1", "x^2 + 1", "(x - 1)^2")},
        {
            "x^2 + 2x + 1": R,
            "x^2 + 1": W,
            "(x - 1)^2": W,
            "(1 + x)(x + 1)": R,
            "y = x^2 + 2x + 1": R,
            "x(x + 2) + 1": R,
            "(x+1)^2 + 0.0001": W,
            "sin(": T,
            "": T,
            "q x": T,
        },
    ),
    (
        ("f(x) = sin(2x)",),
        {"kind": "which", "lane": "lane1", "options": ("2 sin(x) cos(x)", "sin(x)")},
        {
            "2 sin(x) cos(x)": R,
            "sin(x)": W,
            "cos(2x)": W,
            "cos(2x - π/2)": R,
            "sin(x)^2": W,
        },
    ),
    ((), {"kind": "words", "words": "Why?"}, {"Because it rises.": K, "": T}),
]
"""Sheets, questions and answers."""
