"""What every test is: it begins as in a process that has just begun."""

import unittest

import mpmath

from axispath.core.memory import put_back

DIGITS = 50  # of what is compared with mpmath


class Case(unittest.TestCase):
    """Before each test all that others left is put back: memories, limits, precision."""

    def run(self, result=None):
        put_back()
        mpmath.mp.dps = DIGITS
        return super().run(result)
