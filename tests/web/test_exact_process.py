"""Exact forms in a process of their own: late, never lost, and limited by what they compute."""

import time
import unittest

from axispath.web import exact
from tests.case import Case

SECONDS = 60  # that a busy machine may take


def idle(seconds):
    """Something that takes long and computes nothing."""
    time.sleep(seconds)
    return {"idle": seconds}


def busy(seconds):
    """Something that computes for so many seconds of its own time."""
    until = time.process_time() + seconds
    while time.process_time() < until:
        pass
    return {"busy": seconds}


def failing(what):
    """Something that cannot be done."""
    raise ValueError(what)


class Process(Case):
    def eventually(self, jobs):
        until = time.monotonic() + SECONDS
        while time.monotonic() < until:
            found = exact.answers(jobs)
            if exact.LATE not in found:
                return found
        return self.fail("still late")

    def test_a_late_result_is_there_when_it_is_asked_for_again(self):
        job = [("forms", idle, (exact.EXACT_WAIT + 0.6,))]
        self.assertEqual(exact.answers(job), [exact.LATE])
        self.assertEqual(self.eventually(job), [{"idle": exact.EXACT_WAIT + 0.6}])

    def test_waiting_does_not_count(self):
        job = [("forms", idle, (0.4,))]
        self.assertEqual(self.eventually(job), [{"idle": 0.4}])
        self.assertEqual(exact.within_limit(idle, (0.3,), 0.1), {"idle": 0.3})

    def test_computing_counts(self):
        self.assertIsNone(exact.within_limit(busy, (30.0,), 0.2))
        self.assertEqual(exact.within_limit(busy, (0.01,), 5.0), {"busy": 0.01})

    def test_a_failure_is_told_once_and_not_tried_again(self):
        job = [("forms", failing, ("no",))]
        with self.assertLogs("axispath.web.exact", "WARNING") as told:
            self.assertEqual(self.eventually(job), [None])
        self.assertNotIn("no\n", "".join(told.output))
        self.assertEqual(self.eventually(job), [None])

    def test_the_same_is_looked_for_once(self):
        job = [("forms", idle, (3.5,))]
        exact.answers(job)
        running = len(exact._running)
        exact.answers(job * 3)
        self.assertEqual(len(exact._running), running)
        self.eventually(job)

    def test_too_many_are_late_and_not_queued(self):
        many = [("forms", idle, (0.001 * k,)) for k in range(exact.MOST_WAITING + 20)]
        exact.answers(many)
        self.assertLessEqual(len(exact._running), exact.MOST_WAITING)
        self.assertEqual(len(self.eventually(many)), len(many))


if __name__ == "__main__":
    unittest.main()
