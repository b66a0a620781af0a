"""Lines as they are written elsewhere: mended in one click, to what they mean."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as some

from axispath.core.arithmetic.floats import float_value
from axispath.core.language.rewriting import LONGEST, raised_letters, rewritings
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import USUAL
from axispath.core.plane.relation import relation_of
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from tests.case import Case
from tests.core.helpers import RADIAN
from tests.core.lines_elsewhere import ASKED, OFFERED, TAKEN

# What is typed, and the line that is offered for it.
MENDED = {
    "f: t ↦ t^2": "f(t) = t^2",
    "f := x^2": "f(x) = x^2",
    "f(x) = x^2;": "f(x) = x^2",
    "\\(x^2\\)": "x^2",
    "g(3) = ?": "g(3)",
    "x^2 - 3, -2..3": "x^2 - 3 for -2 <= x <= 3",
    "x^2 - 3 from -2 to 3": "x^2 - 3 for -2 <= x <= 3",
    "x^2 - 3 for x between -2 and 3": "x^2 - 3 for -2 <= x <= 3",
    "f(x) = x^2, x ∈ [0, 4)": "f(x) = x^2 for 0 <= x < 4",
    "h(t) = t^2; t ∈ ]0; 4]": "h(t) = t^2 for 0 < t <= 4",
    "√x on [0, ∞)": "√x for 0 <= x",
    "f(x) = x^2, 0 < x < 4": "f(x) = x^2 for 0 < x < 4",
    "⌊x⌋ + 1": "floor(x) + 1",
    "⌈x/2⌉": "ceil(x/2)",
    "⁴√x": "root(4, x)",
    "³√(x + 1)": "root(3, x + 1)",
    "∫_0^1 x^2 dx": "integral(x^2 for x = 0 to 1)",
    "∫_{0}^{π} sin(t) dt": "integral(sin(t) for t = 0 to π)",
    "integral(x^2, 0, 1)": "integral(x^2 for x = 0 to 1)",
    "integral(t^2, t, 0, 1)": "integral(t^2 for t = 0 to 1)",
    "limit(sin(x)/x, x, 0)": "limit(sin(x)/x for x to 0)",
    "lim_{x→0} sin(x)/x": "limit(sin(x)/x for x to 0)",
    "Σ_{k=1}^{10} k^2": "sum(k^2 for k = 1 to 10)",
    "∏_{k=1}^5 k": "product(k for k = 1 to 5)",
    "if(x < 0, 1, x)": "1 if x < 0, x otherwise",
    "f(x) = { x^2 if x < 0, x otherwise": "f(x) = x^2 if x < 0, x otherwise",
    "z = x^2 + y^2": "z(x, y) = x^2 + y^2",
    "A(2, 3)": "A = (2, 3)",
    "A(2 | 3)": "A = (2, 3)",
    "x = cos t, y = sin t": "(cos t, sin t)",
    "x(t) = 2cos t; y(t) = sin t": "(2cos t, sin t)",
    "{(x, y) : x^2 + y^2 < 4}": "x^2 + y^2 < 4",
    "{1, 2, 3}": "[1, 2, 3]",
    "L = {1, 2, 3}": "L = [1, 2, 3]",
    "x > 0 ∧ y > 0": "x > 0 and y > 0",
    "3:4": "3/4",
    "2 1/2": "(2 + 1/2)",
}
# Read as they stand.
READ = ("eˣ", "2ˣ⁺¹", "3 · 2ˣ", "ctg x", "arctg x", "sen x", "tg x", "cotg(2x)")


def offered_on(document, text):
    """The line that is offered for one that is refused on a sheet."""
    try:
        apply(document, AddLane(text=text))
    except EditRefused as refused:
        return refused.mend
    return text


def offered(text):
    """What is offered for a line that is refused; empty where it is taken."""
    document = apply(Document(), AddLane(text="g(x) = x + 1"))
    try:
        lane = list(resolve(apply(document, AddLane(text=text))))[-1]
    except EditRefused as refused:
        return refused.mend
    return f"waits for {lane.missing}" if lane.missing else ""


class Mended(Case):
    def test_lines_from_elsewhere(self):
        for text, line in MENDED.items():
            with self.subTest(text):
                self.assertEqual(offered(text), line)
                self.assertEqual(offered(line), "", "what is offered is refused itself")

    def test_lines_of_every_kind(self):
        """Each is taken, offered as another line that is understood, or asked back."""
        document = apply(Document(), AddLane(text="p(x) = x^2 - 4x + 3"))
        for line in ("q(x) = 2x + 1", "A = (1, 2)", "B = (3, 5)", "M = [1, 2; 3, 4]"):
            document = apply(document, AddLane(text=line))

        def new(text):
            return resolve(apply(document, AddLane(text=text))).lanes[5:]

        for text, lines in TAKEN.items():
            with self.subTest(text):
                lanes = new(text)
                self.assertFalse(any(lane.missing for lane in lanes))
                self.assertEqual(tuple(lane.lane.text or lane.kind.key for lane in lanes), lines)
        for text, line in OFFERED.items():
            with self.subTest(text), self.assertRaises(EditRefused) as refused:
                new(text)
            self.assertEqual(refused.exception.mend, line)
            self.assertFalse(any(lane.missing for lane in new(line)), line)
        for text, lines in ASKED.items():
            with self.subTest(text), self.assertRaises(EditRefused) as refused:
                new(text)
            self.assertEqual(refused.exception.mends, lines)
            for line in lines:
                new(line)

    def test_figures_are_what_they_are_called(self):
        """A right triangle with whole sides; a circle through a point; both follow their points."""
        document = Document()
        for line in ("A = (0, 0)", "B = (3, 0)", "C = (0, 4)"):
            document = apply(document, AddLane(text=line))
        for line in ("triangle ABC", "circle(A, C)", "(A + B + C)/3"):
            document = apply(document, AddLane(text=offered_on(document, line)))
        triangle, circle, middle = resolve(document).lanes[3:]
        path = SEARCHED["parametric"].path(triangle, document.view, USUAL, 1, None)
        self.assertEqual([(m.x, m.y) for m in path.of(Kind.KINK)], [(3, 0), (0, 4)])
        self.assertEqual(circle.kind.key, "relation")
        self.assertTrue(relation_of(circle).holds_at(-4.0, 0.0))
        self.assertEqual([float_value(p, RADIAN) for p in middle.programs], [1.0, 4 / 3])

    def test_what_a_line_is_decides_where_it_goes(self):
        for text, kind, working in (
            ("100 km/h in m/s", "calculated", True),
            ("3 + 4i", "calculated", True),
            ("2x + y = 5, x - y = 1", "equations", True),
            ("limit(1/x for x to 0)", "calculated", True),
            ("x^2 - 3", "function", False),
            ("12/18", "value", False),
            ("y = m x + b", "waiting", False),
            ("y = 2 cd", "waiting", False),  # candelas, or c times d
            ("v = 20 m/s", "waiting", False),
        ):
            with self.subTest(text):
                lane = resolve(apply(Document(), AddLane(text=text))).lanes[-1]
                self.assertEqual((lane.kind.key, lane.lane.working), (kind, working))

    def test_some_are_read_as_they_stand(self):
        for text in READ:
            with self.subTest(text):
                self.assertEqual(offered(text), "")

    def test_raised_letters_take_what_is_raised_beside_them(self):
        for text, line in (
            ("2ˣ⁺¹", "2^(x+1)"),
            ("e⁻ˣ", "e^(-x)"),
            ("e²ˣ", "e^(2x)"),
            ("eˣ + x²", "e^x + x²"),
            ("x² + 1", "x² + 1"),
        ):
            self.assertEqual(raised_letters(text), line)

    def test_what_is_offered_is_always_understood(self):
        for text in (
            *("f(x) = x^2 from", "∫ x dx", "lim x", "{", "circle", "circle radius", "Σ k", "if(x)"),
            *("x, y, z", "A(1, 2, 3)", "x = cos t, y", "f: x", "1 2 3/4", ":=", "⌊x", "[0, 1)"),
        ):
            mend = offered(text)
            if mend and not mend.startswith("waits"):
                with self.subTest(text):
                    self.assertEqual(offered(mend), "")

    @given(some.text("xyz0123(){}[],;:|∫Σ√^_= <>.-+/ab∈⌊⌋ ifotrm", max_size=60))
    @settings(max_examples=300, deadline=None)
    def test_whatever_is_typed_is_rewritten_or_not(self, text):
        for other in rewritings(text):
            self.assertNotEqual(other, text)
            self.assertLess(len(other), 40 * (len(text) + 10))

    def test_long_lines_are_left_alone(self):
        self.assertEqual([*rewritings("∫" * (LONGEST + 1))], [])


if __name__ == "__main__":
    unittest.main()
