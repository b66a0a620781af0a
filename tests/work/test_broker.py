"""The broker with real processes: shared out fairly, ended in time, begun anew."""

import multiprocessing
import os
import signal
import struct
import tempfile
import threading
import time
import unittest.mock
from dataclasses import replace
from pathlib import Path

from axispath.core.sheet.refused import EditRefused
from axispath.work import broker, client, supervising
from axispath.work.counts import Counts
from axispath.work.kinds import AT_ONCE, MEGABYTE, WAITING_EACH, Kind
from axispath.work.protocol import BROKEN, TOO_LARGE, TOO_LONG, Busy, Cut, Job, called
from tests.case import Case
from tests.work import jobs

QUICK = Kind("quick", 3, 0.5, 1.0, 20.0, 1, usual=200 * MEGABYTE, most=400 * MEGABYTE)


def serve(address, kinds, longest_wait):
    broker.Broker(address, {}, kinds, longest_wait=longest_wait).serve()


def supervised(address, kinds):
    supervising.SILENT, supervising.AT_FIRST = 4.0, 10.0
    supervising.supervise(address, lambda: broker.Broker(address, {}, kinds).serve())


class Brokered(Case):
    kind = QUICK
    longest_wait = broker.LONGEST_WAIT

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.address = str(self.folder / "work")
        self.begin()
        self.addCleanup(self.end)
        self.client = client.Broker(self.address)
        self.until(lambda: self.client.tell("counts"))

    def begin(self):
        # A process of its own making: forked from this one it would be as large.
        spawn = multiprocessing.get_context("spawn")
        given = (self.address, {"quick": self.kind}, self.longest_wait)
        self.process = spawn.Process(target=serve, args=given)
        self.process.start()

    def end(self):
        self.process.terminate()
        self.process.join()

    def until(self, work, seconds=60):
        end = time.monotonic() + seconds
        while True:
            try:
                found = work()
            except Busy:
                found = None
            if found or time.monotonic() > end:
                return found
            time.sleep(0.02)

    def ask(self, function, *given, guest="somebody", route="", same="", network=""):
        call = called(function, *given)
        return self.client.ask(Job("quick", guest, route, same, call, network))

    def aside(self, *asked, **more):
        """Ask in a thread; what comes of it is put into the list."""
        ends = []

        def work():
            try:
                ends.append(self.ask(*asked, **more))
            except Exception as error:
                ends.append(error)

        thread = threading.Thread(target=work)
        thread.start()
        self.addCleanup(thread.join)
        return ends


class Broker(Brokered):
    def test_values_and_errors_come_back(self):
        self.assertEqual(self.ask(jobs.doubled, 21), 42)
        with self.assertRaises(EditRefused) as told:
            self.ask(jobs.refused, "not this")
        error = told.exception
        self.assertEqual((error.message, error.start, error.end), ("not this", 1, 2))
        self.assertEqual(error.mend, "mended")
        with self.assertRaises(RuntimeError) as told:
            self.ask(jobs.broken)
        self.assertNotIn("typed", str(told.exception))
        self.assertNotEqual(self.ask(jobs.pid), os.getpid())

    def test_what_takes_too_long_is_ended_and_others_go_on(self):
        ends = self.aside(jobs.for_ever)
        self.assertEqual(self.ask(jobs.doubled, 1, guest="another"), 2)
        self.until(lambda: ends)
        self.assertIsInstance(ends[0], Cut)
        self.assertEqual(ends[0].message, TOO_LONG)
        self.assertEqual(self.client.tell("counts")["cut"], 1)
        self.assertEqual(self.ask(jobs.doubled, 2), 4)

    def test_what_takes_too_much_memory_is_ended(self):
        with self.assertRaises(Cut) as told:
            self.ask(jobs.large, 600 * MEGABYTE)
        self.assertEqual(told.exception.message, TOO_LARGE)
        with self.assertRaises(Cut) as told:
            self.ask(jobs.large, 8192 * MEGABYTE)
        self.assertEqual(told.exception.message, TOO_LARGE)

    def test_a_process_that_has_grown_is_replaced(self):
        first = self.ask(jobs.hoarding, 250 * MEGABYTE, route="sheet")
        self.assertTrue(self.until(lambda: self.client.tell("counts")["replaced"]))
        self.assertNotEqual(self.ask(jobs.pid, route="sheet"), first)
        with self.assertRaises(ProcessLookupError):
            os.kill(first, 0)

    def test_a_job_goes_where_it_is_known(self):
        known = {self.ask(jobs.pid, route="sheet") for _ in range(10)}
        self.assertEqual(len(known), 1)
        others = {self.ask(jobs.pid, route=f"other {k}") for k in range(10)}
        self.assertGreater(len(others), 1)

    def test_a_killed_process_is_replaced_and_its_job_done_again_once(self):
        self.assertEqual(self.ask(jobs.killed_once, str(self.folder / "a")), "done")
        with self.assertRaises(Cut) as told:
            self.ask(jobs.killed, str(self.folder / "b"))
        self.assertEqual(told.exception.message, BROKEN)
        self.assertEqual((self.folder / "b").read_text(), "once\n" * 2)
        self.assertEqual(self.ask(jobs.doubled, 3), 6)

    def test_nobody_holds_up_another(self):
        ends = [self.aside(jobs.until_there, str(self.folder / "go")) for _ in range(8)]
        self.until(lambda: self.client.tell("counts")["waiting"] == 8 - AT_ONCE)
        for k in range(20):
            self.assertEqual(self.ask(jobs.doubled, k, guest="another"), 2 * k)
        self.assertEqual(self.client.tell("counts")["busy"], AT_ONCE)
        (self.folder / "go").touch()
        self.assertTrue(self.until(lambda: all(ends)))

    def test_there_is_an_end_to_the_queue(self):
        go = str(self.folder / "go")
        ends = [self.aside(jobs.until_there, go) for _ in range(AT_ONCE + WAITING_EACH)]
        self.until(lambda: self.client.tell("counts")["waiting"] == WAITING_EACH)
        with self.assertRaises(Busy):
            self.ask(jobs.doubled, 1)
        self.assertEqual(self.ask(jobs.doubled, 1, guest="another"), 2)
        (self.folder / "go").touch()
        self.assertTrue(self.until(lambda: all(ends)))

    def test_the_same_question_is_answered_once(self):
        file = self.folder / "asked"
        ends = [self.aside(jobs.noted, str(file), guest=f"{k}", same="q") for k in range(5)]
        self.assertTrue(self.until(lambda: all(ends)))
        self.assertEqual(ends, [["done"]] * 5)
        self.assertEqual(self.ask(jobs.noted, str(file), same="q"), "done")
        self.assertEqual(file.read_text(), "once\n")
        # What may be answered better later is not remembered, nor what has no name.
        for more in ({"same": "r"}, {}):
            work = jobs.unfinished if more else jobs.noted
            other = self.folder / f"{work.__name__}"
            for _ in range(2):
                self.ask(work, str(other), **more)
            self.assertEqual(other.read_text(), "once\n" * 2)

    def test_a_broker_that_ended_is_found_again(self):
        worker = self.ask(jobs.pid)
        os.kill(self.process.pid, signal.SIGKILL)
        self.process.join()
        with self.assertRaises(Busy):
            self.ask(jobs.doubled, 1)
        # Its processes have ended with it.
        self.assertTrue(self.until(lambda: _is_gone(worker)))
        self.begin()
        self.assertEqual(self.until(lambda: self.ask(jobs.doubled, 1)), 2)

    def test_nobody_takes_every_process_and_people_come_before_visitors(self):
        go = str(self.folder / "go")
        ends = [
            self.aside(jobs.until_there, go, guest=f"new {k}", network="203.0.113.9")
            for k in range(30)
        ]
        self.until(lambda: self.client.tell("counts")["busy"] == 2)
        for k in range(10):
            self.assertEqual(self.ask(jobs.doubled, k, guest="a person"), 2 * k)
        self.assertEqual(self.client.tell("counts")["busy"], 2)
        (self.folder / "go").touch()
        self.assertTrue(self.until(lambda: all(ends)))

    def test_who_stops_in_the_middle_of_an_answer_is_let_go(self):
        near, far = multiprocessing.Pipe()
        with unittest.mock.patch.object(broker, "STUCK", 0.05):
            broker._never_stuck(near)
        os.write(far.fileno(), struct.pack("!i", 100) + b"half")
        with self.assertRaises(OSError):
            near.recv_bytes()

    def test_it_counts_for_all(self):
        counted = [self.client.tell("rate", "key", 1, 60.0)[0] for _ in range(3)]
        other = client.Broker(self.address)
        self.assertEqual(counted, [1, 2, 3])
        self.assertEqual(other.tell("rate", "key", 1, 60.0)[0], 4)
        self.assertEqual(other.tell("rate", "another", 1, 60.0)[0], 1)
        other.tell("forget", "key")
        self.assertEqual(self.client.tell("rate", "key", 1, 60.0)[0], 1)


class Counted(Case):
    def test_fresh_keys_do_not_push_a_large_count_out(self):
        counts = Counts()
        for _ in range(50):
            counts.rate("somebody", 1, 60.0)
        with unittest.mock.patch("axispath.work.counts.MOST_KEYS", 100):
            for k in range(1000):
                counts.rate(f"fresh {k}", 1, 60.0)
                self.assertLessEqual(len(counts.rates), 100)
        self.assertEqual(counts.rate("somebody", 1, 60.0)[0], 51)


class Supervised(Brokered):
    """A broker that is begun anew by whoever looks after it."""

    def begin(self):
        spawn = multiprocessing.get_context("spawn")
        self.process = spawn.Process(target=supervised, args=(self.address, {"quick": self.kind}))
        self.process.start()

    def broker_now(self):
        path = Path(f"/proc/{self.process.pid}/task/{self.process.pid}/children")
        return [int(one) for one in path.read_text().split()]

    def test_one_that_is_killed_and_one_that_freezes_are_replaced(self):
        for number in (signal.SIGKILL, signal.SIGSTOP):
            (before,) = self.broker_now()
            worker = self.ask(jobs.pid)
            os.kill(before, number)
            self.assertTrue(self.until(lambda gone=before: self.broker_now() not in ([gone], [])))
            self.assertEqual(self.until(lambda: self.ask(jobs.doubled, 5)), 10)
            self.assertTrue(self.until(lambda gone=worker: _is_gone(gone)))

    def test_it_ends_when_told_to(self):
        (before,) = self.broker_now()
        self.process.terminate()
        self.process.join(60)
        self.assertEqual(self.process.exitcode, 0)
        self.assertTrue(self.until(lambda: _is_gone(before)))


class Waiting(Brokered):
    kind = replace(QUICK, processes=1)
    longest_wait = 0.5

    def test_what_has_waited_too_long_is_refused(self):
        go = str(self.folder / "go")
        ends = self.aside(jobs.until_there, go)
        self.until(lambda: self.client.tell("counts")["busy"])
        with self.assertRaises(Busy):
            self.ask(jobs.doubled, 1)
        (self.folder / "go").touch()
        self.until(lambda: ends)


def _is_gone(pid):
    try:
        return b"\tZ" in Path(f"/proc/{pid}/status").read_bytes().replace(b"State:\tZ", b"\tZ")
    except OSError:
        return True
