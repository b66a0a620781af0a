"""Answers never depend on what was asked before: in two orders, and in a process of its own."""

import json
import random
import subprocess
import sys
import threading
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from axispath.command.place import ROOT
from axispath.core.memory import Memory
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import Effort, path_of
from axispath.core.path.survey import crossings
from axispath.core.sampling.kinds.function import drawn_lane
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document, Lane, View
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.resolve import resolve
from axispath.core.solve.answer import answer
from axispath.core.solve.question import ask
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN

RULES = ("x^3 - 7x + 1", "x^2", "x", "sin x", "1/x", "√x", "|x| - 1", "floor(x)", "a x")
DOMAINS = (
    "",
    " for -10 <= x <= 10",
    " for 0 <= x <= 2",
    " for 0 < x < 2",
    " for 0 <= x < 2",
    " for x >= 0",
    " for x > 0",
)
UNITS = {"rad": RADIAN, "deg": DEGREE}
SIGNS = ("=", "<", ">=")
ENDS = (("-10", "10"), ("0", "2"), ("-∞", "∞"), ("0", "∞"))
KINDS = ("path", "crossing", "solve", "curve", "sheet")


def random_asking(chance):
    """One question as plain values: what is asked, of which lines, in which unit and view."""
    pick = chance.choice
    lines = [f"{pick(RULES)}{pick(DOMAINS)}", f"{pick(RULES)}{pick(DOMAINS)}"]
    value = pick(("1", "2", "-1"))
    ends, view = pick(ENDS), pick((2.0, 10.0))
    return [pick(KINDS), lines, value, pick(("rad", "deg")), pick(SIGNS), list(ends), view]


def asked(asking):
    """The answer, as text that two processes can compare."""
    kind, lines, value, unit, sign, ends, reach = asking
    lanes = [Lane(id=name, text=text, name=name) for name, text in zip("fg", lines, strict=True)]
    lanes.append(Lane(id="a", text=f"a = {value}"))
    document = Document(lanes=tuple(lanes), unit=UNITS[unit])
    sheet = resolve(document)
    functions = sheet.shown(SEARCHED)
    effort = Effort(evaluations=2000)
    if kind == "path":
        return repr([_path(path_of(lane, -reach, reach, effort)) for lane in functions])
    if kind == "crossing":
        return repr(
            [_path(c.path) for c in crossings(functions, View(left=-reach, right=reach), effort)]
        )
    if kind == "curve":
        frame = Frame(-reach, reach, -5.0, 5.0, 300, 200)
        return repr([drawn_lane(lane, frame).strokes.tolist() for lane in functions])
    if kind == "sheet":
        told = [(lane.name, lane.error, lane.missing, _ends(lane)) for lane in functions]
        return repr((told, sheet.lane("a").value))
    low, high = (None if e.strip("-") == "∞" else typed_end(document, e) for e in ends)
    found = answer(ask(document, f"f(x) {sign} g(x)"), low, high, effort)
    solutions = [(s.mark.x, s.mark.certainty, s.y) for s in found.solutions]
    return repr((solutions, found.always, found.solved, found.open, found.defined))


def _ends(lane):
    return [(end.x, end.closed) if end else None for end in lane.ends]


def _path(path):
    if path is None:
        return None
    marks = [(m.kind, m.x, m.y, m.closed, m.whole, m.certainty) for m in path.landmarks]
    spans = [(s.low, s.high, s.sign, s.direction) for s in path.spans]
    return marks, spans, path.open, path.undefined, path.zero


class Orders(Case):
    @given(st.integers(0, 10**9))
    @settings(max_examples=25, deadline=None)
    def test_two_orders_give_the_same(self, seed):
        chance = random.Random(seed)
        askings = [random_asking(chance) for _ in range(12)]
        first = [asked(asking) for asking in askings]
        order = chance.sample(range(len(askings)), len(askings))
        again = {k: asked(askings[k]) for k in order}
        self.assertEqual([again[k] for k in range(len(askings))], first)

    def test_a_process_of_its_own_gives_the_same(self):
        chance = random.Random(20)
        askings = [random_asking(chance) for _ in range(160)]
        here = [asked(asking) for asking in askings]
        order = chance.sample(range(len(askings)), len(askings))
        command = [sys.executable, "-m", "tests.core.test_memory", "answer"]
        given_ = json.dumps([askings[k] for k in order])
        told = subprocess.run(
            command, cwd=ROOT, input=given_, capture_output=True, text=True, check=True
        )
        there = dict(zip(order, json.loads(told.stdout), strict=True))
        for k, asking in enumerate(askings):
            with self.subTest(asking):
                self.assertEqual(there[k], here[k])

    def test_threads_give_the_same(self):
        chance = random.Random(21)
        askings = [random_asking(chance) for _ in range(40)]
        wanted = [asked(asking) for asking in askings]
        found = {}

        def work(name):
            order = random.Random(name).sample(range(len(askings)), len(askings))
            for k in order:
                found[name, k] = asked(askings[k])

        threads = [threading.Thread(target=work, args=(name,)) for name in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        for (_, k), text in found.items():
            self.assertEqual(text, wanted[k])
        self.assertEqual(len(found), 160)


class Forgetting(Case):
    def test_what_has_not_been_used_for_longest_goes_first(self):
        memory = Memory(2)
        memory.keep("a", 1)
        memory.keep("b", 2)
        self.assertEqual(memory.get("a"), 1)
        memory.keep("c", 3)
        self.assertIsNone(memory.get("b"))
        self.assertEqual((memory.get("a"), memory.get("c")), (1, 3))

    def test_a_value_is_found_once(self):
        memory, calls = Memory(4), []
        for _ in range(3):
            self.assertEqual(memory.found("k", lambda: calls.append(1) or 7), 7)
        self.assertEqual(len(calls), 1)


if __name__ == "__main__":
    if sys.argv[1:] == ["answer"]:
        print(json.dumps([asked(asking) for asking in json.load(sys.stdin)]))
    else:
        unittest.main()
