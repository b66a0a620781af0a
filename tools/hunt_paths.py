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
from tools.hunt import hunt


def main() -> int:
    """Hunt for so many seconds."""
    until = time.monotonic() + float(sys.argv[1])
    chance = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else None)
    return hunt(
        lambda: random_line(chance),
        lambda line: disagreements(line, -3.1, 3.3, samples=200_001),
        str,
        lambda _: time.monotonic() < until,
        "functions",
    )


if __name__ == "__main__":
    sys.exit(main())
