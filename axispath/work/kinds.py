"""Kinds of work, and what each may take."""

from __future__ import annotations

import os
from dataclasses import dataclass

from axispath.budgets import EXACT_JOB, LONG_JOB, QUICK_JOB

MEGABYTE = 1 << 20
CORES = os.cpu_count() or 1


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of work, and the processes that carry it out.

    ``budget`` are the seconds of processor time after which a job stops by itself. After so many
    ``seconds`` of it, or ``wall`` seconds by the clock on the wall, its process is killed. A
    process above ``usual`` bytes is replaced after its job, one above ``most`` is killed.
    """

    name: str
    processes: int
    budget: float
    seconds: float
    wall: float
    nice: int
    usual: int = 250 * MEGABYTE
    most: int = 700 * MEGABYTE


# More processes than one person may have jobs, so that nobody can occupy them all.
QUICK = Kind("quick", max(3, CORES + 1), *QUICK_JOB, 1)
LONG = Kind("long", 2, *LONG_JOB, 5)
# Has a second process for itself, in which exact forms are found.
EXACT = Kind("exact", 1, *EXACT_JOB, 8)

KINDS = {kind.name: kind for kind in (QUICK, LONG, EXACT)}
"""Every kind of work, by its name."""

AT_ONCE = 2  # jobs of one person that are carried out at once
WAITING_EACH = 12  # jobs of one person that may wait
WAITING = 240  # jobs that may wait, of all people together
REMEMBERED = 48 * MEGABYTE  # of answers, for those who ask the same
