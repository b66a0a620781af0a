"""Computations that take too long are broken off, by the clock of whoever waits."""

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.path.lanes import Effort, crossing_path, path_of
from axispath.core.path.survey import moving_survey
from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.resolve import resolve
from tests.case import Case
from tests.core.helpers import Clock

FRAME = Frame(-10, 10, -7, 7, 300, 200)


def lanes(*lines):
    document = Document()
    for line in lines:
        document = apply(document, AddLane(text=line))
    return document, list(resolve(document))


class TimeIsCut(Case):
    def test_a_lane_that_was_broken_off_is_drawn_as_soon_as_there_is_time(self):
        _, (lane,) = lanes("sum(sin(k x) for k = 1 to 37)")
        clock = Clock()
        for _ in range(2):
            with self.assertRaises(OutOfTime):
                drawn(Document(), lane, FRAME, Patience(5, clock))
        self.assertGreater(len(drawn(Document(), lane, FRAME, Patience(1e9, clock))[-1].rows), 100)

    def test_the_tighter_of_two_limits_holds(self):
        _, (lane,) = lanes("sum(cos(k x) for k = 1 to 38)")
        clock = Clock()
        with limited(Patience(3, clock)), self.assertRaises(OutOfTime):
            drawn(Document(), lane, FRAME, Patience(1e9, clock))

    def test_a_search_that_is_broken_off_claims_nothing(self):
        _, (lane,) = lanes("sum(sin(k x)/k for k = 1 to 39)")
        path = path_of(lane, -5, 5, Effort(10**6, 2.0, Clock()))
        self.assertFalse(path.complete)
        self.assertEqual((path.open[0].low, path.open[-1].high), (-5, 5))

    def test_others_are_followed_while_one_is_too_slow(self):
        document, _ = lanes("sum(sin(k x) for k = 1 to 400)", "x - 1")
        found = moving_survey(document, None, Patience(300, Clock()))
        (_, slow), (_, quick) = found.lanes
        self.assertIsNone(slow)
        self.assertEqual(len(quick.landmarks), 1)

    def test_two_formulas_that_are_too_much_together_leave_their_meeting_open(self):
        document, (first, second) = lanes(
            *(f"sum(sin(k x + {c}) for k = 1 to 1150)" for c in range(2))
        )
        view = document.view
        budget = Effort(50).budget(1)
        met = crossing_path(first, second, view.left, view.right, budget, None)
        self.assertEqual((met.landmarks, met.complete), ((), False))

    def test_a_formula_of_too_many_breaks_is_open_and_no_error(self):
        _, (lane,) = lanes("sum(|sin(k x)| for k = 1 to 900)")
        self.assertFalse(path_of(lane, -1, 1).complete)
