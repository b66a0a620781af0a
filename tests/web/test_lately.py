"""What was so a moment ago is not asked again, and asked again when it may have changed."""

import unittest
from unittest.mock import patch

from axispath.core.memory import Memory
from axispath.web import lately
from axispath.web.lately import FRESH, Lately
from tests.case import Case


class Answers(Case):
    def setUp(self):
        self.now = 1000.0
        clock = patch.object(lately.time, "monotonic", lambda: self.now)
        clock.start()
        self.addCleanup(clock.stop)
        self.asked = []
        self.known = Lately(10)

    def found(self, key, answer):
        return self.known.found(key, lambda: self.asked.append(key) or answer)

    def test_it_is_asked_again_after_a_while_and_of_each_key_by_itself(self):
        self.assertEqual([self.found("a", 1), self.found("b", 2), self.found("a", 3)], [1, 2, 1])
        self.now += FRESH
        self.assertEqual(self.found("a", 3), 3)
        self.assertEqual(self.asked, ["a", "b", "a"])

    def test_that_there_is_nothing_is_an_answer_too(self):
        self.assertEqual([self.found("a", None), self.found("a", 5)], [None, None])

    def test_what_is_forgotten_is_asked_again(self):
        self.found("a", 1)
        self.found("b", 2)
        self.known.forget("a")
        self.assertEqual([self.found("a", 7), self.found("b", 8)], [7, 2])
        self.known.clear()
        self.assertEqual(self.found("b", 8), 8)

    def test_a_failure_is_no_answer(self):
        with self.assertRaises(KeyError):
            self.known.found("a", lambda: {}["nothing"])
        self.assertEqual(self.found("a", 1), 1)

    def test_what_is_forgotten_weighs_nothing(self):
        memory = Memory(10, weigh=lambda _key, value: value)
        memory.keep("a", 6)
        memory.forget("a")
        memory.forget("a")
        self.assertEqual((memory.weight, memory.get("a")), (0, None))


if __name__ == "__main__":
    unittest.main()
