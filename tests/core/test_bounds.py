"""Work that a stranger could ask for without end is bounded."""

import unittest

import numpy as np

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.sheet.document import Document, Lane, Table
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.rows import TableRefused, places
from axispath.exchange.numbers import numbers_from
from tests.case import Case
from tests.core.helpers import Clock


class Bounded(Case):
    def test_digits_without_end_are_no_number(self):
        for text in ("1" * 20_000 + "x", "1." * 9_000, "-" + "9" * 50_000, "1e" + "9" * 9_000):
            with self.subTest(text[:8]), self.assertRaises(EditRefused):
                numbers_from(text)

    def test_stretches_with_exponents_are_refused(self):
        for low in ("1e10000000", "1/0", "9" * 195, "1_000", "0x10", " 1"):
            table = Table(id="t", start="0", stop="5", step="1", finer=((low, "1"),))
            with self.subTest(low[:12]), self.assertRaises(TableRefused):
                places(Document(), table)

    def test_derivatives_of_nested_functions_stay_short(self):
        line = "sin(" * 24 + "x" + ")" * 24
        lanes = (Lane(id="f", text=f"f(x) = {line}"), Lane(id="g", text="g(x) = f''''(x)"))
        lane = resolve(Document(lanes=lanes)).lane("g")
        self.assertLess(len(lane.program.steps), 6000)
        self.assertTrue(np.isfinite(lane.floats(np.linspace(0.1, 1, 5))).all())

    def test_building_looks_at_the_clock(self):
        names = [f"a_{k}" for k in range(120)]
        lanes = [Lane(id="l0", text="a_0 = 1")]
        for k in range(1, 120):
            lanes.append(Lane(id=f"l{k}", text=f"{names[k]} = {' + '.join(names[:k][-90:])}"))
        clock = Clock()
        with limited(Patience(200, clock)):
            sheet = resolve(Document(lanes=tuple(lanes)))
        self.assertIsNone(sheet.lane("l1").error)
        late = [lane for lane in sheet if lane.error is not None]
        self.assertTrue(late)
        self.assertTrue(all(lane.error.message for lane in late))
        self.assertLess(next(clock.seconds), 2000)

    def test_long_arrays_are_computed_in_pieces(self):
        (lane,) = resolve(Document(lanes=(Lane(id="f", text="f(x) = polygamma(5, x)"),)))
        clock = Clock()
        with self.assertRaises(OutOfTime), limited(Patience(20, clock)):
            lane.floats(np.linspace(1, 9, 60_000))
        x = np.linspace(-3, 3, 20_001)
        (square,) = resolve(Document(lanes=(Lane(id="f", text="f(x) = x^2 + 1"),)))
        self.assertTrue((square.floats(x) == x * x + 1).all())


if __name__ == "__main__":
    unittest.main()
