"""Scripts run, whatever the sheet calls its own, and their functions have the sheet's values."""

import contextlib
import io
import os
import unittest

import numpy as np

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.resolve import resolve
from axispath.exchange.formats import FORMATS, Choice, made
from axispath.exchange.script.expressions import identifier
from tests.case import Case

PLACES = np.array([-2.3, -1.0, 0.25, 1.5, 3.0])
# What the parts of a script call their own, as names of a sheet; words of Python; what stands in
# another order; what is worked out; what is left out.
SHEETS = {
    "own": (
        *("along = 2", "there = 3", "row = 1", "value = 4", "which = 5", "error = 0.5"),
        *("plane = 2", "figure = 3", "axes = 1", "f_slope = 2", "f_model = 3", "zeros = 7"),
        "f(x) = along x^2 + there - row value + which error + f_slope f_model + plane figure axes",
        "g(x) = f'(x) + zeros",
    ),
    "python": (
        *("lambda = 2", "np = 1", "plt = 4", "print = 5", "integrate = 0.5", "self = 2"),
        "f(x) = lambda x + np - plt + print + integrate self",
    ),
    "order": ("g(x) = f(x) + a", "f(x) = b x", "a = f(2) + c", "b = 3", "c = 2 d", "d = b + 1"),
    "integrals": (
        "F(x) = integral(sin(t^2) for t = 0 to x)",
        "G(x) = F'(x) + F(1)",
        "h(x) = integral(t^2 for t = x to 2x)",
    ),
    "derivatives": ("d(x) = derivative(x^3 for x)", "q(x) = d'(x)", "s(x) = q(x) + d(1)"),
    "cases": ("f(x) = x^2 if x < 0, x otherwise", "g(x) = f(x - 1) + 2"),
    "greek": ("α = 2", "β_1 = 3", "f(x) = α x + β_1", "Δ(x) = x^2"),
    "left out": ("z = 3 + 4i", "w = |z|", "f(x) = w x"),
}


def run(sheet):
    """What a script leaves behind when it is run."""
    left = {"__name__": "__main__"}
    os.environ.setdefault("MPLBACKEND", "Agg")
    with contextlib.redirect_stdout(io.StringIO()), np.errstate(all="ignore"):
        exec(compile(made(sheet, FORMATS["script"], Choice()), "script", "exec"), left)
    return left


class Scripts(Case):
    def test_functions_have_the_values_of_the_sheet(self):
        for title, lines in SHEETS.items():
            with self.subTest(title):
                sheet = Document()
                for line in lines:
                    sheet = apply(sheet, AddLane(text=line))
                left = run(sheet)
                for lane in resolve(sheet):
                    if lane.kind.key == "function":
                        found = left[identifier(str(lane.name))](PLACES)
                        np.testing.assert_allclose(found, lane.floats(PLACES), 1e-9, 1e-12)

    def test_what_needs_a_line_that_is_left_out_is_left_out_and_named(self):
        sheet = Document()
        for line in ("f(x) = x^2 + noise", "noise = 2"):
            sheet = apply(sheet, AddLane(text=line))
        sheet = apply(sheet, AddLane(text="g(x) = f(x) + missing"))
        sheet = apply(sheet, AddLane(text="h(x) = g(x) + 1"))
        sheet = apply(sheet, AddLane(text="y > h(x)"))
        text = made(sheet, FORMATS["script"], Choice()).decode()
        self.assertIn("it waits for missing", text)
        left = run(sheet)
        self.assertEqual(float(left["f"](3)), 11)
        self.assertNotIn("h", left)
        self.assertNotIn("R", left)


if __name__ == "__main__":
    unittest.main()
