"""Row operations as a student types them: R2 - 3 R1, 1/2 R3, R1 <-> R2; checked and carried out."""

from __future__ import annotations

import re
from dataclasses import replace

from axispath.core.calculation.calculate import Calculator
from axispath.core.equations.linear import linear
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.quantities.grids import scalar
from axispath.core.quantities.reduction import RowOperation
from axispath.core.quantities.scalars import is_zero
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import NoResult

LOWERED = str.maketrans("₀₁₂₃₄₅₆₇₈₉", "0123456789")
EXCHANGE = re.compile(r"\s*R_?(\d+)\s*(?:<->|↔|<>)\s*R_?(\d+)\s*", re.IGNORECASE)
TARGET = re.compile(r"\s*R_?(\d+)\s*(?:<-|←|=)\s*(.*)", re.IGNORECASE)
NAMED = re.compile(r"R_?(\d+)", re.IGNORECASE)
HOW = "write for example R2 - 3 R1, 1/2 R2 or R1 <-> R2"


def read_operation(text: str, rows: int, scope: Scope, calculator: Calculator) -> RowOperation:
    """One operation on a matrix with so many rows. Raises NoResult, LanguageError."""
    text = text.translate(LOWERED)
    exchange = EXCHANGE.fullmatch(text)
    if exchange:
        first, second = (_place(number, rows) for number in exchange.groups())
        if first == second:
            raise NoResult("a row is not exchanged with itself")
        return RowOperation(first, second, exchanged=True)
    given = TARGET.fullmatch(text)
    body = given[2] if given else text
    used = list(dict.fromkeys(_place(number, rows) for number in NAMED.findall(body)))
    if not used:
        raise NoResult(f"no row is named here: {HOW}")
    target = _place(given[1], rows) if given else used[0]
    if target not in used:
        raise NoResult(f"row {target + 1} would be lost: it has to take part itself")
    if len(used) > 2:
        raise NoResult("one operation takes two rows at most")
    names = tuple(f"R{k + 1}" for k in used)
    inner = replace(scope, values=scope.values | set(names))
    tree = parse_expression(NAMED.sub(lambda found: f"R{int(found[1])}", body), inner)
    if not linear(tree, set(names)):
        raise NoResult(f"rows are only added and multiplied by numbers: {HOW}")
    numbers = dict.fromkeys(names, Surd.of(0))
    factors = {}
    for name, row in zip(names, used, strict=True):
        found = calculator.result(tree, {**numbers, name: Surd.of(1)}).value
        factors[row] = scalar(found, "the factor of a row")
    rest = scalar(calculator.result(tree, numbers).value, "what is added")
    if not is_zero(rest):
        raise NoResult("numbers cannot be added to a row, only other rows")
    if is_zero(factors[target]):
        raise NoResult(f"row {target + 1} would be lost: its factor is 0")
    other = next((row for row in used if row != target), -1)
    return RowOperation(target, other, factors[target], factors.get(other, Surd.of(0)))


def _place(number: str, rows: int) -> int:
    if not 1 <= int(number) <= rows:
        raise NoResult(f"there is no row {number}: rows go from 1 to {rows}")
    return int(number) - 1
