"""Tests. None is timed: speed belongs in the benchmarks."""

from hypothesis import settings

settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")
