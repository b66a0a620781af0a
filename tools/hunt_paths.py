"""Hunts for wrong paths: random functions against a dense scan, confirmed by other arithmetic.

Usage: python tools/hunt_paths.py SECONDS [SEED]. Prints every disagreement and how many
functions were looked at. A scan proves nothing; what it sees and the path does not is looked at
again with enclosures at 300 bits before it is called a fault.
"""

import random
import sys
import time
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from tests.core.hunting import disagreements, random_line


def main() -> int:
    """Hunt for so many seconds."""
    seconds = float(sys.argv[1])
    chance = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else None)
    until = time.monotonic() + seconds
    looked = faults = unsettled = 0
    slowest = (0.0, "")
    while time.monotonic() < until:
        line = random_line(chance)
        started = time.monotonic()
        try:
            found = disagreements(line, -3.1, 3.3, samples=200_001)
        except Exception as error:  # whatever it is, it is a fault to be shown
            print(f"{line}: {error!r}", flush=True)
            faults += 1
            continue
        if found is None:
            continue
        slowest = max(slowest, (time.monotonic() - started, line))
        looked += 1
        unsettled += found.open
        for fault in found.faults:
            faults += 1
            print(f"{line}: {fault}", flush=True)
    print(f"{looked} functions, {faults} disagreements, {unsettled} with open stretches")
    print(f"slowest {slowest[0]:.2f} s: {slowest[1]}")
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
