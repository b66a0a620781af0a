"""What the hunts have in common: cases are looked at, faults printed as they come, then counted."""

import time
from collections.abc import Callable
from typing import Any, TypeVar

Case = TypeVar("Case")


def hunt(
    draw: Callable[[], Case],
    look: Callable[[Case], Any],
    shown: Callable[[Case], str],
    goes_on: Callable[[int], bool],
    what: str,
) -> int:
    """Look at cases while ``goes_on`` says so of how many were looked at. Gives the exit code.

    ``look`` gives what is ``open`` and the ``faults``, or None for a case that is refused.
    """
    looked = faults = unsettled = 0
    slowest = (0.0, "")
    while goes_on(looked):
        case = draw()
        started = time.process_time()
        try:
            found = look(case)
        except Exception as error:  # whatever it is, it is a fault to be shown
            print(f"{shown(case)}: {error!r}", flush=True)
            faults += 1
            continue
        if found is None:
            continue
        slowest = max(slowest, (time.process_time() - started, shown(case)))
        looked += 1
        unsettled += found.open
        for fault in found.faults:
            faults += 1
            print(f"{shown(case)}: {fault}", flush=True)
    print(f"{looked} {what}, {faults} disagreements, {unsettled} with something open")
    print(f"slowest {slowest[0]:.2f} s: {slowest[1]}")
    return 1 if faults else 0
