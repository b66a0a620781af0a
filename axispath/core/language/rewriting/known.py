"""What a sheet knows, for rules that depend on it."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.language.scope import Scope


@dataclass(frozen=True, slots=True)
class Known:
    """The names of functions of one argument, and of points."""

    functions: frozenset[str] = frozenset()
    points: frozenset[str] = frozenset()

    @staticmethod
    def of(scope: Scope) -> Known:
        """Those of a scope."""
        functions = frozenset(name for name, count in scope.functions.items() if count == 1)
        return Known(functions, scope.points)
