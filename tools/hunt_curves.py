"""Hunts for wrong landmarks of curves: random curves against a dense scan.

Usage: python tools/hunt_curves.py COUNT [SEED]. Prints every disagreement and how many curves were
looked at. A scan proves nothing: what it sees and the search does not has to be looked at.
"""

import random
import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from tests.core.hunting_curves import disagreements, random_curve
from tools.hunt import hunt


def main() -> int:
    """Hunt for so many curves."""
    count = int(sys.argv[1])
    chance = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else None)
    return hunt(
        lambda: random_curve(chance), disagreements, str, lambda done: done < count, "curves"
    )


if __name__ == "__main__":
    sys.exit(main())
