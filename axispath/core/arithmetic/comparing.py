"""Comparisons by their signs, and the sides of a border."""

from __future__ import annotations

import operator

INSIDE = {
    "above": operator.gt,
    "at or above": operator.ge,
    "below": operator.lt,
    "at or below": operator.le,
}


COMPARED = {
    "<": operator.lt,
    "<=": operator.le,
    ">": operator.gt,
    ">=": operator.ge,
    "=": operator.eq,
    "!=": operator.ne,
}
