"""Systems of linear equations: typed in any order, or read off a matrix, and solved by rows."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from axispath.core.calculation.calculate import Calculator
from axispath.core.language.errors import LanguageError
from axispath.core.language.formula import end_at, read_formula
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token, tokenise
from axispath.core.language.tree import (
    Expression,
    Name,
    Negation,
    Product,
    Quotient,
    Sum,
)
from axispath.core.language.walking import free_names
from axispath.core.quantities.elimination import echelon
from axispath.core.quantities.grids import scalar
from axispath.core.quantities.scalars import is_zero, negate, subtract
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, NoResult, Scalar, Value

MOST_EQUATIONS = 40
MOST_UNKNOWNS = 40


@dataclass(frozen=True, slots=True)
class LinearSystem:
    """A matrix with the right-hand sides as its last column, and what its columns belong to."""

    unknowns: tuple[str, ...]
    grid: Grid


@dataclass(frozen=True, slots=True)
class LinearSolution:
    """``values`` give each unknown as a constant and its share of the ``free`` ones.

    ``contradiction`` is the row of the echelon form that says 0 = something else.
    """

    kind: Literal["one", "none", "many"]
    values: tuple[tuple[str, Scalar, tuple[Scalar, ...]], ...] = ()
    free: tuple[str, ...] = ()
    contradiction: Scalar | None = None


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
    numbers = dict.fromkeys(unknowns, Surd.of(0))
    constant = _number(calculator, both, numbers)
    row = [
        subtract(_number(calculator, both, {**numbers, one: Surd.of(1)}), constant)
        for one in unknowns
    ]
    return (*row, negate(constant))


def _number(calculator: Calculator, node: Expression, names: Mapping[str, Value]) -> Scalar:
    return scalar(calculator.result(node, names).value, "what is in an equation")


def linear(node: Expression, letters: set[str]) -> bool:
    """Whether letters are only added, and multiplied or divided by what has none."""
    if not any(one.name in letters for one in free_names(node)):
        return True
    match node:
        case Name():
            return True
        case Negation(operand):
            return linear(operand, letters)
        case Sum(terms):
            return all(linear(term, letters) for term in terms)
        case Product(left, right):
            bare = [part for part in (left, right) if not _has(part, letters)]
            return len(bare) == 1 and linear(left, letters) and linear(right, letters)
        case Quotient(top, bottom):
            return not _has(bottom, letters) and linear(top, letters)
    return False


def _has(node: Expression, letters: set[str]) -> bool:
    return any(one.name in letters for one in free_names(node))


def solved(system: LinearSystem) -> LinearSolution:
    """The solutions, read off the reduced echelon form. Raises NoResult, TooWide."""
    count = len(system.unknowns)
    found = echelon(system.grid, reduced=True, columns=count)
    for row in found.rows[len(found.pivots) :]:
        if not is_zero(row[count]):
            return LinearSolution("none", contradiction=row[count])
    free = [k for k in range(count) if k not in found.pivots]
    values = []
    for row, pivot in zip(found.rows, found.pivots, strict=False):
        shares = tuple(negate(row[k]) for k in free)
        values.append((system.unknowns[pivot], row[count], shares))
    names = tuple(system.unknowns[k] for k in free)
    return LinearSolution("many" if free else "one", tuple(values), names)
