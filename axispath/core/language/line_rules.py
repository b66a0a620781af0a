"""The rules of lines of calculation, each with lines that show it."""

from __future__ import annotations

from axispath.core.language.rules import Rule

LINE_RULES = (
    Rule(
        "Lines of calculation",
        "A line of Working evaluates or defines something; ans is the line before it, ans2 the "
        "second line. Its exact value stands beside the decimal where it is one: fractions, roots, "
        "multiples of π. Where an exact form is not known, all digits shown are certain.",
        ("10/14", "√12", "sin(60°)", "a = 3", "volume(r, h) = π r^2 h"),
    ),
    Rule(
        "Matrices and vectors",
        "Commas separate the numbers of a row, semicolons the rows. A·B, or A B, is the product of "
        "matrices, A ∘ B the product entry by entry; A^-1 is the inverse, A^T the transposed "
        "matrix, |A| the determinant. Beside a matrix a list is a column on its right.",
        (
            "A = [1, 2; 3, 4]",
            "[1, 2; 3, 4]·[5; 6]",
            "[1, 2; 3, 4]^-1",
            "[1, 2; 3, 4]^T",
            "[1, 2; 3, 4] ∘ [5, 6; 7, 8]",
        ),
    ),
    Rule(
        "Parts of lists and matrices",
        "Places are counted from 1 and stand in brackets right behind a name: L[2], A[1, 2]. "
        "“1 to 3” in brackets are whole numbers one after the other: L[2 to 4], A[1 to 2, 3]. put "
        "gives a copy with other numbers at some places.",
        ("[1 to 5]", "[3, 1, 2][2]", "[1, 2; 3, 4][1 to 2, 1]", "put([3, 1, 2], 2, 7)"),
    ),
    Rule(
        "Complex numbers",
        "On lines of Working i is the imaginary unit, unless the sheet defines an i. Functions "
        "give their principal values; where a real number has no real value, the line says so. "
        "An odd root written as a fraction stays real: (-8)^(1/3) is −2, and roots(3, -8) has all.",
        ("2 - 5i", "(2 - 5i)^2", "|3 - 4i|", "e^(i π)", "roots(3, -8)"),
    ),
    Rule(
        "Calculus on lines",
        "“for” says which letter runs in a formula: from where to where for an integral, towards "
        "what for a limit, where a Taylor polynomial is taken. Integrals are enclosed for certain.",
        (
            "integral(x^2 for x = 0 to 1)",
            "limit(sin(x)/x for x to 0)",
            "derivative(x^3 for x)",
            "taylor(sin x for x = 0, 5)",
            "sum(1/k^2 for k = 1 to ∞)",
            "zeros(x^3 - 1 for x)",
        ),
    ),
    Rule(
        "Quantities",
        "On lines of Working a unit stands behind a number; names of the sheet come first. Units "
        "are checked: metres and seconds are not added. “in” shows a result in other units. In a "
        "line with a unit g, c, R and G are constants of nature (g_n and c_0 in any line): 5 g is "
        "five grams, 5 m · g five metres times gravity. Temperatures in °C and °F have a zero of "
        "their own: only differences are added to them.",
        ("850 kg · g", "72 km/h in m/s", "5 kWh in MJ", "20 °C in °F", "√(2·9.81 m/s^2·10 m)"),
    ),
)
"""Read with i as the imaginary unit."""
