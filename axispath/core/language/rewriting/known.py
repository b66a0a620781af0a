"""What a sheet knows, for rules that depend on it."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Known:
    """The names of functions of one argument, and of points."""

    functions: frozenset[str] = frozenset()
    points: frozenset[str] = frozenset()
