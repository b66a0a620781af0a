"""Marking: answers worked out by hand, guesses, hints, and what must hold for every answer."""

import unittest
from fractions import Fraction

from hypothesis import assume, given, settings
from hypothesis import strategies as st
from mpmath import mp, mpf

from axispath.core.language.numbers import full_precision
from axispath.core.path.survey import survey
from axispath.core.practice.asked import Answer
from axispath.core.practice.guess import Click, Guess
from axispath.core.practice.guess import marked as guessed
from axispath.core.practice.hints import STEPS, hint
from axispath.core.practice.kinds import ASKED, marked, sentence
from axispath.core.practice.marked import Verdict
from axispath.core.practice.sought import whole
from axispath.core.practice.typed import Point, number, points
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import AddLane, Slide, apply, with_view
from axispath.core.sheet.practice import Cover, Question
from axispath.core.sheet.refused import EditRefused
from tests.case import Case
from tests.core.answers import MARKED


def sheet(*lines, cover=None, view=None):
    document = Document()
    for k, text in enumerate(lines, 1):
        document = apply(document, AddLane(text=text, id=f"lane{k}"))
    if view is not None:
        document = with_view(document, View(**view))
    return document.model_copy(update={"cover": cover or Cover()})


def verdict(document, question, text):
    try:
        return marked(document, question, Answer(text)).verdict.value
    except EditRefused:
        return "refused"


class Marking(Case):
    def test_answers_worked_out_by_hand(self):
        count = 0
        for lines, asked, answers in MARKED:
            document, question = sheet(*lines), Question(**asked)
            ASKED[question.kind].checked(document, question)
            self.assertTrue(sentence(document, question))
            for text, wanted in answers.items():
                with self.subTest(lines=lines, kind=question.kind, answer=text):
                    self.assertEqual(verdict(document, question, text), wanted)
                count += 1
        self.assertGreaterEqual(count, 200)

    def test_no_wrong_answer_is_only_called_wrong(self):
        for lines, asked, answers in MARKED:
            document, question = sheet(*lines), Question(**asked)
            for text, wanted in answers.items():
                if wanted in ("wrong", "near"):
                    words = " ".join(marked(document, question, Answer(text)).words)
                    self.assertGreater(len(words), 12, (lines, text))

    def test_a_column_is_marked_row_by_row(self):
        document = sheet("f(x) = 1/(x - 1)")
        question = Question(kind="column", lane="lane1", places=("0", "1", "3", "1/2"))
        ASKED["column"].checked(document, question)
        right = marked(document, question, Answer(rows=("-1", "none", "1/2", "-2")))
        self.assertEqual(right.verdict, Verdict.RIGHT)
        some = marked(document, question, Answer(rows=("1", "5", "0.5", "")))
        self.assertEqual(some.verdict, Verdict.PART)
        self.assertIn("f(0) is smaller than 1.", some.words)
        self.assertIn("The row x = 1/2 is empty.", some.words)
        rounded = marked(
            sheet("f(x) = √x"),
            question.model_copy(update={"places": ("2",)}),
            Answer(rows=("1.41",)),
        )
        self.assertEqual(rounded.verdict, Verdict.RIGHT)

    def test_a_curve_is_brought_onto_another(self):
        document = sheet("f(x) = a (x - b)^2", "a = 1", "b = 0")
        question = Question(kind="match", lane="lane1", aim=(("lane2", 2.0), ("lane3", -1.0)))
        ASKED["match"].checked(document, question)

        def at(a, b):
            return Answer(slides=(Slide(id="lane2", value=a), Slide(id="lane3", value=b)))

        self.assertEqual(marked(document, question, at(2, -1)).verdict, Verdict.RIGHT)
        far = marked(document, question, at(1, 3))
        self.assertEqual(far.verdict, Verdict.WRONG)
        self.assertRegex(far.words[0], r"apart at most in the view")
        # Turned as near as the picture can tell, which it says.
        near = marked(document, question, at(2, -1.0005))
        self.assertIn("hundredth", near.words[0])
        # The same function in another text, and one that only looks like it.
        self.assertEqual(verdict(document, question, "2x^2 + 4x + 2"), "right")
        self.assertEqual(verdict(document, question, "f(x) = 2(x + 1)(1 + x)"), "right")
        self.assertEqual(verdict(document, question, "2x^2 + 4x + 2.001"), "wrong")
        self.assertEqual(verdict(document, question, "2 x^2 +"), "refused")

    def test_a_question_that_cannot_be_asked_is_refused(self):
        document = sheet("f(x) = x^2", "a = 1")
        for wrong in (
            {"kind": "landmarks", "lane": "lane9", "group": "zeros"},
            {"kind": "landmarks", "lane": "lane2", "group": "zeros"},
            {"kind": "landmarks", "lane": "lane1", "group": "cusps"},
            {"kind": "landmarks", "lane": "lane1", "group": "intersections"},
            {"kind": "domain", "lane": "lane2"},
            {"kind": "solve", "text": ""},
            {"kind": "solve", "text": "x + y = z"},
            {"kind": "match", "lane": "lane1"},
            {"kind": "match", "lane": "lane1", "aim": (("lane1", 1.0),)},
            {"kind": "column", "lane": "lane1"},
            {"kind": "which", "lane": "lane1", "options": ("x", "2x")},
            {"kind": "which", "lane": "lane1", "options": ("x^2",)},
            {"kind": "words"},
        ):
            question = Question(**wrong)
            with self.subTest(**wrong), self.assertRaises(EditRefused):
                ASKED[question.kind].checked(document, question)

    def test_a_search_that_is_not_complete_calls_nothing_all(self):
        document = sheet("f(x) = sin(1/x)", view={"left": -1, "right": 1, "bottom": -2, "top": 2})
        question = Question(kind="landmarks", lane="lane1", group="zeros")
        found = survey(document)
        path = found.lanes[0][1]
        self.assertFalse(path.complete)
        text = ", ".join(full_precision(m.x) for m in path.landmarks if m.kind == "zero")
        answer = marked(document, question, Answer(text[:1999].rsplit(",", 1)[0]))
        self.assertNotEqual(answer.verdict, Verdict.RIGHT)
        self.assertNotIn("all of them", " ".join(answer.words))


SQUARE = {"left": -10, "right": 10, "bottom": -10, "top": 10}


class Guessing(Case):
    def setUp(self):
        self.document = sheet("f(x) = (x^2 - 3)(x - 5)/4", cover=Cover(on=True), view=SQUARE)
        self.found = whole(self.document)

    def guess(self, x, y=None, group="", document=None):
        return guessed(document or self.document, self.found, Guess(Click(x, y), group))

    def test_a_click_is_right_to_a_hundredth_of_the_view(self):
        root = 3**0.5
        self.assertEqual(self.guess(root + 0.19, 0.1, "zeros").verdict, Verdict.RIGHT)
        self.assertEqual(self.guess(root, 0.21, "zeros").verdict, Verdict.NEAR)
        left = self.guess(root - 0.5, 0, "zeros")
        self.assertEqual(left.verdict, Verdict.NEAR)
        self.assertIn("to the right", left.words[0])
        self.assertIn("to the left", self.guess(root + 0.5, 0, "zeros").words[0])
        wrong = self.guess(-6, 0, "zeros")
        self.assertEqual(wrong.verdict, Verdict.WRONG)
        self.assertIn("f(−6) is −90.75, not 0", wrong.words[0])

    def test_what_is_there_instead_is_told(self):
        only = self.document.model_copy(update={"cover": Cover(on=True, groups=("zeros",))})
        turn = next(m for _, p in self.found.lanes for m in p.landmarks if m.kind == "maximum")
        told = self.guess(turn.x, turn.y, "zeros", only)
        self.assertIn("a maximum of f, not a zero", told.words[0])

    def test_found_again_and_all_of_them(self):
        document = self.document.model_copy(update={"cover": Cover(on=True, groups=("zeros",))})
        for k, typed in enumerate(("√3", "-√3", "5")):
            guess = Guess(Point(number(document, typed)), "zeros")
            answer = guessed(document, self.found, guess)
            self.assertEqual(answer.verdict, Verdict.RIGHT, typed)
            document = document.model_copy(update={"found": (*document.found, *answer.found)})
            self.assertEqual("all of them" in " ".join(answer.words), k == 2)
            self.assertEqual(guessed(document, self.found, guess).verdict, Verdict.AGAIN)
        self.assertIn("no more", hint(document, self.found, 0).words[0])

    def test_several_at_one_place_are_found_one_after_the_other(self):
        document = sheet("f(x) = x^2", cover=Cover(on=True), view=SQUARE)
        found = whole(document)
        kinds = []
        for _ in range(3):
            answer = guessed(document, found, Guess(Point(number(document, "0"))))
            self.assertEqual(answer.verdict, Verdict.RIGHT)
            kinds.append(answer.found[0].kind)
            document = document.model_copy(update={"found": (*document.found, *answer.found)})
        self.assertEqual(sorted(kinds), ["minimum", "y-intercept", "zero"])
        again = guessed(document, found, Guess(Point(number(document, "0"))))
        self.assertEqual(again.verdict, Verdict.AGAIN)

    def test_hints_tell_more_and_more(self):
        document = self.document.model_copy(update={"cover": Cover(on=True, groups=("zeros",))})
        told = [hint(document, self.found, k) for k in range(len(STEPS))]
        self.assertIn("3 zeros of f", told[0].words[0])
        self.assertRegex(told[1].words[0], "lies between x = 1 and x = 2|between x = −2 and x = −1")
        self.assertIn("halve", told[2].words[0])
        self.assertEqual(len(told[3].found), 1)
        self.assertTrue(told[3].found[0].shown)
        with self.assertRaises(EditRefused):
            hint(document, self.found, 4)
        with self.assertRaises(EditRefused):
            hint(sheet("x"), whole(sheet("x")), 0)

    def test_what_is_covered_is_in_no_path(self):
        found = survey(self.document)
        path = found.lanes[0][1]
        self.assertEqual((path.landmarks, path.spans, path.open), ((), (), ()))
        self.assertFalse(path.complete)
        some = self.document.model_copy(update={"cover": Cover(on=True, groups=("zeros",))})
        kinds = {mark.kind for mark in survey(some).lanes[0][1].landmarks}
        self.assertNotIn("zero", kinds)
        self.assertIn("maximum", kinds)
        other = self.document.model_copy(update={"cover": Cover(on=True, lanes=("lane7",))})
        self.assertEqual(survey(other).lanes[0][1], whole(other).lanes[0][1])


whole_numbers = st.integers(-9, 9)


class Everywhere(Case):
    @settings(max_examples=30, deadline=None)
    @given(st.lists(st.fractions(-9, 9, max_denominator=6), min_size=1, max_size=3, unique=True))
    def test_what_the_engine_answers_is_right(self, roots):
        text = "".join(f"(x - ({root}))" for root in roots)
        document = sheet(f"f(x) = {text}", view={"left": -10, "right": 10, "bottom": -9, "top": 9})
        question = Question(kind="landmarks", lane="lane1", group="zeros", decimals=0)
        path = survey(document).lanes[0][1]
        own = ", ".join(full_precision(m.x) for m in path.landmarks if m.kind == "zero")
        for answer in (own, ", ".join(str(root) for root in reversed(roots))):
            self.assertEqual(
                marked(document, question, Answer(answer)).verdict, Verdict.RIGHT, answer
            )

    @settings(max_examples=40, deadline=None)
    @given(whole_numbers, whole_numbers, whole_numbers, st.decimals(-9, 9, places=3))
    def test_an_answer_outside_every_enclosure_is_never_right(self, a, b, c, tried):
        assume(a != 0)
        document = sheet(
            f"f(x) = {a} x^2 + {b} x + {c}", view={"left": -10, "right": 10, "bottom": -9, "top": 9}
        )
        question = Question(kind="landmarks", lane="lane1", group="zeros", decimals=0)
        text = f"{tried:.3f}"
        with mp.workdps(50):
            inside = b * b - 4 * a * c
            roots = (
                [] if inside < 0 else [(-b + s * mp.sqrt(inside)) / (2 * mpf(a)) for s in (1, -1)]
            )
            near = any(abs(root - mpf(text)) <= mpf("0.0005") for root in roots)
        answer = marked(document, question, Answer(text))
        if not near:
            self.assertNotIn(answer.verdict, (Verdict.RIGHT, Verdict.PART), text)

    @settings(max_examples=40, deadline=None)
    @given(st.text("0123456789.,;±√()[]{}x=<>-+/∞∪ andorπ\\≠", max_size=40))
    def test_whatever_is_typed_is_marked_or_refused(self, text):
        document = sheet("f(x) = √(x + 2)/(x - 1)")
        for asked in (
            {"kind": "domain", "lane": "lane1"},
            {"kind": "landmarks", "lane": "lane1", "group": "zeros"},
            {"kind": "solve", "text": "x^2 < 4"},
            {"kind": "which", "lane": "lane1", "options": ("x", "1")},
        ):
            self.assertTrue(verdict(document, Question(**asked), text))

    @given(st.fractions(-99, 99, max_denominator=40))
    def test_equal_forms_are_one_number(self, value):
        document = Document()
        forms = [str(value), f"{2 * value.numerator}/{2 * value.denominator}", f"x = {value}"]
        exact = [point.x.end.exact for text in forms for point in points(document, text)]
        self.assertEqual(len({(one.rational, one.turns) for one in exact}), 1)
        self.assertEqual(exact[0].rational, Fraction(value))


if __name__ == "__main__":
    unittest.main()
