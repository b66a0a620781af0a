"""What a root of a function or of one of its derivatives is."""

from __future__ import annotations

from axispath.core.search.landmark import (
    Kind,
)
from axispath.core.search.root import Root
from axispath.core.search.tower import Tower


def kind_of_root(tower: Tower, root: Root) -> Kind | None:
    """The kind of landmark that a root is; None for none."""
    match root.level:
        case 0:
            return Kind.ZERO
        case 1 if root.crosses:
            rising_before = _sign_beside(tower, root)
            return None if not rising_before else _EXTREMA[rising_before]
        case 2 if root.crosses:
            return Kind.INFLECTION
    return None


_EXTREMA = {1: Kind.MAXIMUM, -1: Kind.MINIMUM}


def _sign_beside(tower: Tower, root: Root) -> int:
    """The sign of a root's level left of it, within its bracket."""
    left = tower.sign_at(root.level, root.low)
    return left or -tower.sign_at(root.level, root.high)
