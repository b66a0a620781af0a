"""How tests are dealt, recorded and run again: each once, none left out, no failure forgotten."""

import ast
import io
import itertools
import json
import tempfile
import unittest
from concurrent.futures import ThreadPoolExecutor
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from unittest.mock import patch

from axispath.command.errors import CommandFailed
from axispath.command.place import ROOT
from axispath.command.suite import deck, run
from axispath.command.suite.record import Record, Recording, recorded
from axispath.core import memory
from axispath.core.arithmetic.patience import Patience, limited, time_check
from axispath.core.memory import Memory, put_back, remembered
from tests.case import Case

NAMES = [f"tests.browser.test_{k}" for k in range(20)] + [f"tests.core.test_{k}" for k in range(40)]


def samples():
    """Tests of every outcome, and one that cannot be prepared; nobody else finds them."""

    class Sample(unittest.TestCase):
        def passing(self):
            pass

        def failing(self):
            self.fail("it is not so")

        def parts(self):
            for k in range(3):
                with self.subTest(k=k):
                    self.assertNotEqual(k, 1)

        def left_out(self):
            self.skipTest("not here")

        def against(self):
            raise ValueError("broken")

    class Unprepared(unittest.TestCase):
        @classmethod
        def setUpClass(cls):
            raise OSError("no database")

        def runTest(self):
            pass

    Unprepared.__qualname__ = "Unprepared"
    return Sample, Unprepared


class Deck(Case):
    def setUp(self):
        made = tempfile.TemporaryDirectory()
        self.addCleanup(made.cleanup)
        self.folder = Path(made.name)
        times = patch.object(deck, "TIMES", self.folder / "times.json")
        times.start()
        self.addCleanup(times.stop)
        self.deck = self.folder / "deck"

    def test_everybody_gets_others_and_nothing_is_left(self):
        deck.keep_times({name: float(k) for k, name in enumerate(NAMES)})
        deck.deal(NAMES, self.deck)
        with ThreadPoolExecutor() as both:
            found = [*both.map(lambda pile: [*deck.taken(self.deck, pile)], (0, 1, 0))]
        self.assertEqual(sorted(itertools.chain(*found)), sorted(NAMES))
        self.assertEqual([*deck.taken(self.deck, 1)], [])

    def test_each_takes_the_longest_of_its_own_then_the_shortest_of_the_other(self):
        deck.keep_times(
            {"tests.browser.test_0": 5, "tests.browser.test_1": 9, "tests.core.test_0": 1}
        )
        deck.deal(["tests.core.test_0", "tests.browser.test_0", "tests.browser.test_1"], self.deck)
        self.assertEqual(
            [*deck.taken(self.deck, 1)],
            ["tests.core.test_0", "tests.browser.test_0", "tests.browser.test_1"],
        )
        deck.deal(["tests.core.test_0", "tests.browser.test_0", "tests.browser.test_1"], self.deck)
        self.assertEqual(next(deck.taken(self.deck, 0)), "tests.browser.test_1")

    def test_a_quick_choice_are_the_shortest_and_the_others_are_named(self):
        deck.keep_times({name: float(k) for k, name in enumerate(NAMES)})
        kept, left = deck.short(reversed(NAMES), 30)
        self.assertEqual(kept, NAMES[:8])
        self.assertEqual(sorted(kept + left), sorted(NAMES))

    def test_what_was_not_run_yet_is_guessed_and_broken_times_are_none(self):
        (self.folder / "times.json").write_text("{")
        self.assertEqual(deck.times(), {})
        every = deck.modules()
        deck.deal(every, self.deck)
        self.assertEqual(sorted(itertools.chain(*json.loads(self.deck.read_text()))), every)
        self.assertIn("tests.command.test_suite", every)


class Recorded(Case):
    def records(self, *tests):
        with tempfile.TemporaryDirectory() as made:
            file = Path(made) / "records.jsonl"
            unittest.TestSuite(tests).run(Recording(file))
            return [*recorded(file)]

    def test_every_outcome_is_recorded_once(self):
        sample, _ = samples()
        names = ("passing", "failing", "parts", "left_out", "against")
        found = self.records(*map(sample, names))
        outcomes = [record.outcome for record in found]
        self.assertEqual(outcomes, ["passed", "failed", "failed", "skipped", "failed"])
        self.assertIn("it is not so", found[1].said)
        self.assertIn("k=1", found[2].said)
        self.assertEqual(found[3].said, "not here")
        self.assertIn("ValueError", found[4].said)

    def test_what_could_not_be_prepared_is_run_again_as_a_whole(self):
        (found,) = self.records(samples()[1]())
        self.assertEqual((found.outcome, found.again), ("failed", f"{__name__}.Unprepared"))
        (lost,) = self.records(unittest.defaultTestLoader.loadTestsFromName("tests.no_such"))
        self.assertEqual((lost.outcome, lost.again.split(".")[-1]), ("failed", "no_such"))
        plain = Record("tests.core.test_path.Known.test_one", 0, "failed")
        self.assertEqual(plain.again, plain.name)


class Ends(Case):
    """What a run comes to, with processes that only say what they found."""

    def end(self, found, again=()):
        answers = iter(again)
        hand = patch.object(run.Run, "hand", lambda *given: [next(answers)])
        out, err = io.StringIO(), io.StringIO()
        with hand, redirect_stdout(out), redirect_stderr(err):
            code = run._end(run.Run(Path(), 7), {("dealt", "0"): found})
        return code, out.getvalue(), err.getvalue()

    def record(self, name, outcome="failed"):
        return Record(f"tests.core.test_{name}.Class.test_it", 1.0, outcome, "first words")

    def test_what_fails_again_alone_fails(self):
        bad = self.record("path")
        code, out, err = self.end([self.record("solve", "passed"), bad], [bad])
        self.assertEqual(code, 1)
        self.assertIn("1 passed, 1 failed, 0 skipped", out)
        self.assertIn("test --seed 7 tests.core.test_solve tests.core.test_path\n", err)

    def test_what_passes_alone_is_named_with_its_first_words_and_is_no_failure(self):
        unsteady = self.record("path")
        code, out, err = self.end([unsteady], [self.record("path", "passed")])
        self.assertEqual(code, 0)
        self.assertIn(f"unsteady: {unsteady.name}", out)
        self.assertIn("first words", err)

    def test_more_than_two_that_are_unsteady_fail(self):
        found = [self.record(name) for name in ("path", "solve", "sheet")]
        again = [self.record("any", "passed")] * 3
        self.assertEqual(self.end(found, again)[0], 1)
        self.assertEqual(self.end(found[:2], again)[0], 0)

    def test_very_many_are_no_chance_and_nothing_run_is_no_success(self):
        found = [self.record(f"path{k}") for k in range(run.MOST_AGAIN + 1)]
        self.assertEqual(self.end(found)[0], 1)
        self.assertEqual(self.end([])[0], 1)
        self.assertEqual(self.end([self.record("path", "skipped")])[0], 1)

    def test_what_cannot_be_asked_is_refused(self):
        for wrong in (["--fast"], ["--seed", "x"]):
            with self.assertRaises(CommandFailed):
                run.run_tests(wrong)


class NothingLeftOver(Case):
    def test_whatever_a_process_keeps_is_put_back(self):
        known = Memory(5)
        known.keep("a", 1)
        calls = []

        @remembered(5)
        def doubled(number):
            calls.append(number)
            return 2 * number

        for _ in range(2):
            self.assertEqual(doubled(4), 8)
        within = limited(Patience(1.0, lambda: 0.0))
        within.__enter__()
        put_back()
        self.assertIsNone(known.get("a"))
        self.assertIsNone(time_check())
        doubled(4)
        self.assertEqual(calls, [4, 4])

    def test_the_core_keeps_nothing_that_is_not_in_the_register(self):
        """No cache, setting of a thread or changed global but through ``core/memory.py``."""
        for file in (ROOT / "axispath/core").rglob("*.py"):
            if file == Path(memory.__file__):
                continue
            tree = ast.parse(file.read_text())
            names = {node.id for node in ast.walk(tree) if isinstance(node, ast.Name)}
            made = [one for n in tree.body for one in getattr(n, "decorator_list", ())]
            self.assertFalse([d for d in made if "cache" in ast.unparse(d)], file)
            self.assertFalse([n for n in ast.walk(tree) if isinstance(n, ast.Global)], file)
            if "ContextVar" in names or "threading.local" in file.read_text():
                self.assertIn("keeps", names, file)

    def test_every_test_begins_as_a_process_begins(self):
        for file in (ROOT / "tests").rglob("*.py"):
            if file.name in ("case.py", "test_suite.py"):
                continue
            self.assertNotIn("TestCase", file.read_text(), file)


if __name__ == "__main__":
    unittest.main()
