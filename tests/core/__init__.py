"""Tests of the core, without an interface. What they compare with mpmath is compared at 50 digits:
one setting for all, since a test that changed it for itself would change it for every other."""

import mpmath

mpmath.mp.dps = 50
