"""Systems of linear equations: typed in any order, or read off a matrix, and solved by rows."""

from __future__ import annotations

from axispath.core.calculation.calculate import Calculator
from axispath.core.equations.linear import LinearSystem, linear, row_of
from axispath.core.language.errors import LanguageError
from axispath.core.language.formula import end_at, read_formula
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token, tokenise
from axispath.core.language.tree import (
    Negation,
    Sum,
)
from axispath.core.quantities.values import Grid, NoResult, Scalar

MOST_EQUATIONS = 40
MOST_UNKNOWNS = 40


def read_system(text: str, scope: Scope, calculator: Calculator) -> LinearSystem:
    """Equations on lines of their own, or between semicolons. Raises LanguageError, NoResult."""
    lines = [line.strip() for line in text.replace(";", "\n").split("\n") if line.strip()]
    if not lines:
        raise NoResult("type an equation on each line, such as 2x + 3y = 7")
    if len(lines) > MOST_EQUATIONS:
        raise NoResult(f"these are {len(lines)} equations; {MOST_EQUATIONS} can be typed here")
    unknowns = _unknowns(lines, scope)
    if not unknowns:
        raise NoResult("there is no unknown in these equations")
    if len(unknowns) > MOST_UNKNOWNS:
        raise NoResult(f"these are {len(unknowns)} unknowns; {MOST_UNKNOWNS} are possible here")
    inner = scope.with_values(unknowns)
    rows = [_row(line, k + 1, inner, unknowns, calculator) for k, line in enumerate(lines)]
    return LinearSystem(unknowns, Grid(tuple(rows)))


def _unknowns(lines: list[str], scope: Scope) -> tuple[str, ...]:
    found: dict[str, None] = {}
    for line in lines:
        for token in tokenise(line):
            if token.kind == "name" and token.text not in scope.values and not _word(token, scope):
                found[token.text] = None
    # A word of letters that are unknowns by themselves is a product, and said to be one later.
    whole = [name for name in found if not _spelled(name, set(found) - {name})]
    return tuple(sorted(whole))


def _word(token: Token, scope: Scope) -> bool:
    vocabulary = scope.vocabulary
    return token.text in vocabulary.functions or token.text in vocabulary.constants


def _spelled(name: str, others: set[str]) -> bool:
    return len(name) > 1 and name.isalpha() and all(letter in others for letter in name)


def _row(
    line: str, number: int, scope: Scope, unknowns: tuple[str, ...], calculator: Calculator
) -> tuple[Scalar, ...]:
    tokens = tokenise(line)
    signs = [k for k, token in enumerate(tokens) if token.text == "="]
    if len(signs) != 1:
        raise LanguageError(f"Line {number} needs one equals sign.", 0, len(line))
    at = signs[0]
    left = read_formula(line, [*tokens[:at], end_at(tokens[at])], scope)
    right = read_formula(line, tokens[at + 1 :], scope)
    both = Sum((left, Negation(right)))
    letters = set(unknowns)
    if not linear(both, letters):
        raise NoResult(
            f"line {number} is not linear: unknowns are only added, and multiplied by numbers"
        )
    return row_of(both, unknowns, calculator)
