"""The rules of reading, each with lines that show it. The handbook prints them; tests read them."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Rule:
    """A rule in a sentence or two, and examples of it."""

    title: str
    text: str
    examples: tuple[str, ...]


RULES = (
    Rule(
        "Functions and numbers",
        "A line with a name and an argument defines a function; a bare formula in x gets the next "
        "free letter. A name alone is a number. The order of lines does not matter.",
        ("f(x) = x^2 - x - 3", "x^2 - x - 3", "volume(r, h) = π r^2 h", "a = 1.4"),
    ),
    Rule(
        "Values",
        "A line without a variable and without a name is a value: its lane gives it exactly, where "
        "that is known, and as a decimal. It is called v_1, v_2 and so on for use elsewhere. To "
        "draw a level line, write y = and the value.",
        ("sin(52°)", "2π/3", "√2 + 1", "[1, 2, 5]", "y = 2"),
    ),
    Rule(
        "Points",
        "Two coordinates in brackets are a point; it takes the next capital letter, or a name of "
        "its own. P_x and P_y are its coordinates, wherever a number can stand. Square brackets "
        "hold a list of points; two lists of the same length make one too. A point of plain "
        "numbers can be dragged. Points that are clicked (key P on the plot) and lists of points "
        "become a data set with “make data”, for a fit or statistics.",
        ("(1, 3)", "P = (2, 5)", "[(0, 1), (2, 3)]", "([1, 2, 3], [2, 4, 9])"),
    ),
    Rule(
        "Curves with a parameter",
        "Two coordinates in which a letter runs are a curve: t, θ, φ, s, u or τ by itself where "
        "nothing else is called so, any letter that stands in brackets after the name or that the "
        "range is about. Without a range the sheet chooses one and says why. C(2) is a point of "
        "the curve, C_x(2) and C_y(2) are its coordinates.",
        (
            "C(t) = (sin 5t, cos 4t) for 0 <= t <= 2π",
            "(cos 5t, sin 3t)",
            "(v, v^2) for -2 <= v <= 2",
        ),
    ),
    Rule(
        "Polar curves",
        "r in terms of an angle is a curve about the pole, the point (0, 0): r(θ) = …, or r = … "
        "with θ (or theta) in it or a range of θ. Where r is negative the point lies on the other "
        "side of the pole, and the curve is drawn paler. A semicolon makes polar coordinates of a "
        "point: the distance from the pole, then the angle.",
        ("r = 1 + 2 cos(3θ)", "r(theta) = theta/3", "r = 2 for 0 <= θ <= π", "(4; 3π/2)"),
    ),
    Rule(
        "Two points",
        "distance, slope and midpoint take two points, by their names or in brackets; line is the "
        "function whose graph is the line through them. A sheet may use these words for "
        "something else.",
        (
            "distance((0, 0), (3, 4))",
            "slope((0, 1), (4, 3))",
            "midpoint((0, 1), (4, 3))",
            "line((0, 1), (4, 3))",
        ),
    ),
    Rule(
        "Products without a sign",
        "Things side by side are multiplied, just as with a sign between them, and from left to "
        "right: 6/2(1+2) is 9, and 1/2x is half of x. Known names may touch, as in xsin x; a "
        "letter without a value beside x, as in mx, is a factor that waits for its value.",
        ("2x", "3x sin x", "(x - 1)(x + 2)", "1/2x", "6/2(1 + 2)"),
    ),
    Rule(
        "Powers and signs",
        "Powers are read from the right and come before a leading minus: −3^2 is −9. A raised "
        "number may be typed as ² or ³.",
        ("-3^2", "2^3^2", "2^-1", "x²", "e^(2x)"),
    ),
    Rule(
        "Functions without brackets",
        "A function takes the product that follows it, up to the next function or written sign: "
        "sin 2x is the sine of 2x, and sin x^2 the sine of x².",
        ("sin 2x", "sin x^2", "x sin x", "sin x cos x", "ln 2x + 1"),
    ),
    Rule(
        "Powers and inverses of functions",
        "sin^2(x) is the square of the sine; sin^-1(x) is the inverse function, arcsin.",
        ("sin^2(x)", "sin²x + cos²x", "sin^-1(x)"),
    ),
    Rule(
        "Roots",
        "√ takes the factor that follows. A power with an odd root written as a fraction is the "
        "real root, for negative numbers too; x^0.5 is not defined there.",
        ("√x", "√(x + 4)", "∛x", "cbrt(x)", "root(5, x)", "x^(1/3)"),
    ),
    Rule(
        "Logarithms",
        "ln is the natural logarithm, log the one to base 10, and log_2 the one to base 2.",
        ("ln x", "log x", "log_2(x)", "log_0.5(x)"),
    ),
    Rule(
        "Absolute values",
        "Bars enclose what they measure, and may stand inside one another: |2|x| - 1| measures "
        "2|x| - 1.",
        ("|x - 2|", "|2|x| - 1|", "||x| - 3|", "|x||x - 1|"),
    ),
    Rule(
        "Domains",
        "After “for” stands where a function lives. Square brackets include an end, round ones do "
        "not; ∞ is no end. The faint brackets at both ends of a strip can be dragged inwards.",
        ("x^2 for -4 <= x <= 2", "x^2 for x in [-4, 2)", "√x for x >= 0"),
    ),
    Rule(
        "Cases",
        "Values with conditions, separated by commas; the first condition that holds decides.",
        ("x + 2 if x < 0, x^2 otherwise", "1 if 0 <= x < 1, 2 if x = 1, 3 otherwise"),
    ),
    Rule(
        "Factorials",
        "n! and binomial(n, k) are defined for whole numbers; gamma(x + 1) fills the gaps between.",
        ("5!", "x!", "gamma(x + 1)", "binomial(5, 2)"),
    ),
    Rule(
        "Derivatives",
        "Primes after the name of a function of the sheet: f′(x), f″(x), f′(2).",
        ("f'(x)", "f''(x)", "f(x) - x f'(1)"),
    ),
    Rule(
        "Lists, sums and products",
        "A list is typed, made by step or made by count; arithmetic works element by element. "
        "Sums and products run over whole numbers.",
        (
            "L = [2, 3, 5]",
            "L = steps(0, 2, 0.25)",
            "L = spread(-1, 1, 41)",
            "sum(x^k/k! for k = 0 to 5)",
            "product(k for k = 1 to 5)",
        ),
    ),
    Rule(
        "Angles",
        "Degrees or radians belong to the sheet and are chosen at the top. 30° means thirty "
        "degrees in either.",
        ("sin 30°", "cos(π/3)", "tan x"),
    ),
    Rule(
        "Numbers",
        "Decimals have a point. Powers of ten may be written 2.5e-3. There are no separators for "
        "thousands.",
        ("0.25", ".5x", "2.5e-3 x", "2½ x"),
    ),
)
