"""The clock by which every budget is counted.

It gives the processor time of the thread that asks, so that a busy machine takes nothing away
from anybody's search: the same question is looked at equally long, whatever runs beside it.

Where ``AXISPATH_CLOCK`` is ``counted`` it goes on by as much whenever it is looked at, which is at
every few steps of whatever computes: then the same question has the same answer on every machine
that is several times slower, as tests need it. What is ended from outside is given more time.
"""

from __future__ import annotations

import os
import threading
import time

A_LOOK = 15e-6  # seconds that a look counts for, beside a part of the time that it took
COUNTED = os.environ.get("AXISPATH_CLOCK") == "counted"
HASTE = 0.25 if COUNTED else 1.0  # of the time for long work that is given
SLOWER = 4.0 if COUNTED else 1.0  # how much slower a machine may be than budgets take it to be


class _Looks(threading.local):
    count = 0


_looks = _Looks()


def counted() -> float:
    """Seconds by the number of looks that this thread has taken at it.

    Steps that are long by themselves are looked at seldom, so that they count by their time too.
    """
    _looks.count += 1
    return _looks.count * A_LOOK + time.thread_time() / SLOWER


spent = counted if COUNTED else time.thread_time
