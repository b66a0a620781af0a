"""What a sheet knows, for rules that depend on it."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.language.scope import Scope


@dataclass(frozen=True, slots=True)
class Known:
    """The names of functions of one argument, of points, and of all that has one."""

    functions: frozenset[str] = frozenset()
    points: frozenset[str] = frozenset()
    names: frozenset[str] = frozenset()

    @staticmethod
    def of(scope: Scope) -> Known:
        """Those of a scope."""
        functions = frozenset(name for name, count in scope.functions.items() if count == 1)
        names = scope.points | scope.values | frozenset(scope.functions) | scope.curves
        return Known(functions, scope.points, names)
