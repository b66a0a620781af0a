"""Hunts for wrong answers: random equations and inequalities against a dense scan.

Usage: python tools/hunt_solve.py COUNT [SEED]. Prints every disagreement, confirmed at 300 bits,
and how many questions were answered.
"""

import random
import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from tests.core.hunting_solve import disagreements, random_question
from tools.hunt import hunt


def main() -> int:
    """Hunt through so many questions."""
    count = int(sys.argv[1])
    chance = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else None)
    return hunt(
        lambda: random_question(chance),
        lambda asked: disagreements(*asked, samples=40_001),
        lambda asked: f"{asked[0]} on {asked[1]}",
        lambda answered: answered < count,
        "questions",
    )


if __name__ == "__main__":
    sys.exit(main())
