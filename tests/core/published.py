"""Published problems, written in our language.

Zeros: Alefeld, Potra and Shi (1995), Algorithm 748: Enclosing zeros of continuous functions,
ACM TOMS 21; intervals and roots as SciPy's own test utilities carry them.

Smallest values: the univariate functions collected by Hansen and Jaumard (1995), Lipschitz
optimization, in Handbook of Global Optimization; places and values as published there.
"""

import scipy.optimize._tstutils as scipy_problems


def _eleventh(n):
    return f"({n} x - 1)/({n - 1} x)"


# The line for each family of problems, from its parameters.
FAMILIES = {
    "01": lambda: "sin(x) - x/2",
    "02": lambda: "-2 sum((2k - 5)^2/(x - k^2)^3 for k = 1 to 20)",
    "03": lambda a, b: f"({a}) x e^(({b}) x)",
    "04": lambda n, a: f"x^{n} - {a}",
    "05": lambda: "sin(x) - 1/2",
    "06": lambda n: f"2x e^(-{n}) - 2e^(-{n} x) + 1",
    "07": lambda n: f"(1 + (1 - {n})^2) x - (1 - {n} x)^2",
    "08": lambda n: f"x^2 - (1 - x)^{n}",
    "09": lambda n: f"(1 + (1 - {n})^4) x - (1 - {n} x)^4",
    "10": lambda n: f"e^(-{n} x) (x - 1) + x^{n}",
    "11": _eleventh,
    "12": lambda n: f"x^(1/{n}) - {n}^(1/{n})" if n % 2 else f"root({n}, x) - root({n}, {n})",
    "13": lambda: "x e^(-1/x^2) if x ≠ 0, 0 otherwise",
    "14": lambda n: f"{n}/20 (x/1.5 + sin(x) - 1) if x >= 0, -{n}/20 otherwise",
    "15": lambda n: (
        f"-0.859 if x < 0, e - 1.859 if x > 0.002/(1 + {n}), "
        f"e^(({n} + 1) x/2*1000) - 1.859 otherwise"
    ),
}


def zero_problems():
    """Name, line, SciPy's function, from, to, and the published root of every problem."""
    for problem in scipy_problems.get_tests("aps"):
        _, family, _ = problem["ID"].split(".")
        args = tuple(int(a) if float(a).is_integer() else a for a in problem["args"])
        line = FAMILIES[family](*args)
        # The lambda binds this problem's function and parameters.
        yield (
            problem["ID"],
            line,
            lambda x, f=problem["f"], a=problem["args"]: f(x, *a),
            problem["a"],
            problem["b"],
            problem["root"],
        )


SMALLEST = [
    ("sin(x) + sin(10x/3)", "2.7", "7.5", 5.145735, -1.899599),
    ("-sum(k sin((k + 1) x + k) for k = 1 to 5)", "-10", "10", None, -12.03124),
    ("-(16x^2 - 24x + 5) e^(-x)", "1.9", "3.9", 2.868034, -3.85045),
    ("-(1.4 - 3x) sin(18x)", "0", "1.2", 0.96609, -1.48907),
    ("-(x + sin(x)) e^(-x^2)", "-10", "10", 0.67956, -0.824239),
    ("sin(x) + sin(10x/3) + ln(x) - 0.84x + 3", "2.7", "7.5", 5.19978, -1.6013),
    ("-sum(k cos((k + 1) x + k) for k = 1 to 5)", "-10", "10", None, -14.508),
    ("sin(x) + sin(2x/3)", "3.1", "20.4", 17.039, -1.90596),
    ("-x sin(x)", "0", "10", 7.9787, -7.916727),
    ("2cos(x) + cos(2x)", "-π/2", "2π", None, -1.5),
    ("sin(x)^3 + cos(x)^3", "0", "2π", None, -1),
    ("-x^(2/3) - (1 - x^2)^(1/3)", "0.001", "0.99", 2**-0.5, -1.5874),
    ("-e^(-x) sin(2π x)", "0", "4", 0.224885, -0.788685),
    ("(x^2 - 5x + 6)/(x^2 + 1)", "-5", "5", 2.41422, -0.03553),
    ("(x - 2)^2 if x <= 3, 2 ln(x - 2) + 1 otherwise", "0", "6", 2, 0),
    ("-(x - sin(x)) e^(-x^2)", "-10", "10", 1.195137, -0.0634905),
    ("x sin(x) + x cos(2x)", "0", "10", 4.79507, -9.50835),
    ("e^(-3x) - sin(x)^3", "0", "20", 14.1372, -1),
]
