"""Solution sets made from known borders: every one of them, and whether it belongs."""

import math
import random
import unittest
from fractions import Fraction

from axispath.core.path.lanes import Effort
from axispath.core.sheet.document import Document, Lane
from axispath.core.sheet.ends import typed_end
from axispath.core.solve.answer import answer
from axispath.core.solve.question import ask
from tests.case import Case
from tests.core import constructed, hunting_solve
from tests.core.helpers import DEGREE, RADIAN

EFFORT = Effort(evaluations=20_000)


def asked(known):
    """The answer to a known question, in its sheet."""
    lanes = tuple(Lane(id=f"l{k}", text=text) for k, text in enumerate(known.lanes))
    document = Document(lanes=lanes, unit=DEGREE if known.degrees else RADIAN)
    question = ask(document, known.text, "")
    ends = [
        None if text.strip("-") == "∞" else typed_end(document, text)
        for text in (known.low, known.high)
    ]
    return answer(question, *ends, EFFORT)


def close(found, wanted):
    """Whether a float is a border, to its last digits."""
    if math.isinf(wanted) or math.isinf(found):
        return found == wanted
    return abs(Fraction(found) - wanted) <= abs(wanted) * Fraction(1, 10**14)


class Constructed(Case):
    def check(self, known):
        found = asked(known)
        self.assertEqual(found.open, (), known)
        got = found.solved
        told = [(p.low, p.high, p.low_closed, p.high_closed) for p in got]
        self.assertEqual(len(got), len(known.solved), (known, told))
        for part, (low, high, low_closed, high_closed) in zip(got, known.solved, strict=True):
            self.assertTrue(close(part.low, low) and close(part.high, high), (known, told))
            self.assertEqual(
                (part.low_closed, part.high_closed), (low_closed, high_closed), (known, told)
            )

    def family(self, make, count):
        for seed in range(count):
            known = make(seed)
            with self.subTest(known.text, low=known.low, high=known.high, lanes=known.lanes):
                self.check(known)

    def test_rational_functions_between_ends(self):
        self.family(lambda seed: constructed.rational(seed, whole=False), 60)

    def test_rational_functions_on_the_whole_line(self):
        self.family(lambda seed: constructed.rational(500 + seed, whole=True), 60)

    def test_lanes_on_four_kinds_of_domain(self):
        self.family(constructed.on_domain, 60)

    def test_another_value_at_one_place(self):
        self.family(constructed.single_value, 40)

    def test_steps(self):
        self.family(constructed.steps, 42)

    def test_waves_in_degrees(self):
        self.family(constructed.waves, 28)

    def test_waves_in_radians(self):
        self.family(lambda seed: constructed.waves(seed, degrees=False), 28)


class Hunt(Case):
    def test_random_questions_against_a_scan(self):
        chance = random.Random(47)
        looked = 0
        while looked < 400:
            text, ends = hunting_solve.random_question(chance)
            found = hunting_solve.disagreements(text, ends, samples=4001, budget=2000)
            if found is None:
                continue
            looked += 1
            with self.subTest(text, ends=ends):
                self.assertEqual(found.faults, [])


if __name__ == "__main__":
    unittest.main()
