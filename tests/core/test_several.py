"""Several lines pasted at once: homework, scripts, lists."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as some

from axispath.core.language.several import LONGEST, several
from axispath.core.sheet.document import MAX_LANES, Document
from axispath.core.sheet.edits import AddLines, apply
from axispath.core.sheet.edits.lines import MOST_AT_ONCE
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from tests.case import Case

HOMEWORK = r"""
\documentclass{article}
\begin{document}
Homework 3 of the harbour class. % not to be read
\[ f(x) = \sin x \]
Then $g(x) = 2x$, and from it
\begin{equation}\label{one} y = x^3 \end{equation}
\begin{align} a &= 1 \\ b &= 2a \end{align}
\end{document}
"""
SCRIPT = """
import numpy as np
import matplotlib.pyplot as plt

def f(x):
    return np.sin(x)**2

g = lambda x: x**3 - 1
a = 2  # a slope
plt.plot(x, f(x))
print(a)
"""
TEXTS = (
    ("f(x) = x^2\n g(x)=2x\n\na = 3", ["f(x) = x^2", "g(x)=2x", "a = 3"]),
    (
        "\\begin{align*}\n f(x) &= x^2 - 1 \\\\\n g(x) &= \\frac{1}{x}, \\\\\n\\end{align*}",
        ["f(x) = x^2 - 1", r"g(x) = \frac{1}{x}"],
    ),
    (
        r"h(x) &= \begin{cases} x & x < 0 \\ 2 & \text{otherwise} \end{cases} \\ k &= 1",
        [r"h(x) = \begin{cases} x & x < 0 \\ 2 & \text{otherwise} \end{cases}", "k = 1"],
    ),
    (HOMEWORK, [r"f(x) = \sin x", "g(x) = 2x", "y = x^3", "a = 1", "b = 2a"]),
    (SCRIPT, ["f(x) = sin(x)^2", "g(x) = x^3 - 1", "a = 2"]),
    ("1) x^2 + 1\n2) sin x\nb) cos x\n• ln x", ["x^2 + 1", "sin x", "cos x", "ln x"]),
    ("-x^2\n- x + 1", ["-x^2", "- x + 1"]),  # a minus is no bullet
    (
        r"\[\begin{pmatrix}1&2\\3&4\end{pmatrix}\]",
        [r"\begin{pmatrix}1&2\\3&4\end{pmatrix}"],
    ),
    ("x^2\r\n2x\rsin x", ["x^2", "2x", "sin x"]),
    ("  \n\n % nothing\n", []),
)


class Several(Case):
    def test_what_holds_lines_together_is_left_out(self):
        for text, wanted in TEXTS:
            self.assertEqual(several(text), wanted)

    @given(some.text(alphabet="\\{}[]&$%#\nbegindcasx12=+ ()", max_size=200))
    @settings(max_examples=400, deadline=None)
    def test_any_text_gives_lines(self, text):
        for line in several(text):
            self.assertTrue(line.strip())
            self.assertNotIn("\n", line)

    def test_lines_become_lanes_and_what_is_not_understood_stays_as_text(self):
        document = apply(Document(), AddLines(text=HOMEWORK + "\n"))
        self.assertEqual([lane.name for lane in resolve(document)], ["f", "g", "h", "a", "b"])
        self.assertFalse([lane.error for lane in resolve(document) if lane.error is not None])
        kept = apply(Document(), AddLines(text="x^2\nthree + (\n\\begin{tikzpicture} x"))
        errors = [lane.error is not None for lane in resolve(kept)]
        self.assertEqual(errors[:2], [False, True])
        self.assertEqual(kept.lanes[1].text, "three + (")

    def test_all_of_them_or_none(self):
        full = apply(Document(), AddLines(text="\n".join("1" for _ in range(MOST_AT_ONCE))))
        for text, words in (
            ("\n".join("x" for _ in range(MOST_AT_ONCE + 1)), "50 can be pasted at once"),
            ("\n".join("x" for _ in range(MAX_LANES)), "200 is the most"),
            ("% nothing\n", "no formula"),
        ):
            with self.assertRaisesRegex(EditRefused, words):
                apply(full, AddLines(text=text))
        self.assertEqual(len(full.lanes), MOST_AT_ONCE)

    def test_very_long_texts_are_cut(self):
        self.assertLess(len(several("x\n" * LONGEST)), LONGEST)


if __name__ == "__main__":
    unittest.main()
