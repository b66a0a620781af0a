"""Tests. None is timed: speed belongs in the benchmarks.

Properties are tried on examples that a seed decides, so that the same run can be had twice.
"""

import os

import hypothesis.core
from hypothesis import settings

settings.register_profile("untimed", deadline=None, database=None)
settings.load_profile("untimed")
hypothesis.core.global_force_seed = int(os.environ.get("AXISPATH_TEST_SEED", "1"))
