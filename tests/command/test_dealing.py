"""Test modules are dealt to two processes: each is run once, and none is left out."""

import io
import itertools
import tempfile
import unittest
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from axispath.command.dealing import Dealt, taken


class Deck(unittest.TestCase):
    def setUp(self):
        made = tempfile.TemporaryDirectory()
        self.addCleanup(made.cleanup)
        self.deck = Path(made.name) / "deck"

    def test_everybody_gets_others_and_nothing_is_left(self):
        names = [f"tests.module_{k}" for k in range(60)]
        self.deck.write_text("\n".join(names))

        def all_taken(top):
            return list(iter(lambda: taken(self.deck, top), ""))

        with ThreadPoolExecutor() as both:
            found = [*both.map(all_taken, (True, False, True))]
        self.assertEqual(sorted(itertools.chain(*found)), sorted(names))
        self.assertEqual(taken(self.deck, True), "")

    def test_one_takes_from_the_top_and_one_from_the_bottom(self):
        self.deck.write_text("a\nb\nc")
        self.assertEqual([taken(self.deck, top) for top in (True, False, True)], ["a", "c", "b"])

    def test_a_module_that_cannot_be_loaded_is_no_success(self):
        self.deck.write_text("tests.core.test_patience\ntests.no_such_module")
        found = unittest.TextTestRunner(stream=io.StringIO()).run(Dealt(self.deck, True))
        self.assertFalse(found.wasSuccessful())
        self.assertGreater(found.testsRun, 5)


if __name__ == "__main__":
    unittest.main()
