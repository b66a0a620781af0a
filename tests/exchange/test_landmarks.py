"""Landmarks as a file."""

import csv
import io
import math

from axispath.core.path.lanes import Effort
from axispath.core.path.survey import survey
from axispath.core.search.landmark import Certainty, Kind
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.exchange.landmarks import landmarks_csv
from tests.case import Case


def rows(*lines):
    document = Document()
    for line in lines:
        document = apply(document, AddLane(text=line))
    kinds, sure = {kind: kind.value for kind in Kind}, {one: one.value for one in Certainty}
    text = landmarks_csv(survey(document, Effort(evaluations=20_000)), kinds, sure)
    return list(csv.DictReader(io.StringIO(text)))


class Landmarks(Case):
    def test_a_crossing_is_one_row_with_both_parameters(self):
        (row,) = [r for r in rows("(sin t, sin 2t)") if r["kind"] == Kind.CROSSING.value]
        first, second = sorted(float(t) for t in row["parameters"].split())
        self.assertAlmostEqual(float(row["x"]), 0, 12)
        self.assertAlmostEqual(float(row["y"]), 0, 12)
        for t in (first, second):
            self.assertAlmostEqual(math.sin(t), 0, 12)
        self.assertAlmostEqual(second - first, math.pi, 12)

    def test_functions_have_no_parameter_and_lanes_that_meet_are_named(self):
        found = rows("x^2", "(t, 1) for -2 <= t <= 2")
        self.assertTrue(all(not r["parameters"] for r in found if r["function"] == "f"))
        met = [r for r in found if "=" in r["function"]]
        self.assertEqual(sorted(float(r["x"]) for r in met), [-1, 1])
        self.assertEqual(sorted(float(r["parameters"]) for r in met), [-1, 1])
