"""Equations and inequalities, as Solve reads them."""

from __future__ import annotations

from axispath.core.language.cursor import NO_COMMA, with_points
from axispath.core.language.errors import LanguageError, mended
from axispath.core.language.parser import Parser
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token, outside_brackets, tokenise
from axispath.core.language.tree import Comparison, Name

RISING, FALLING = ("<", "<="), (">", ">=")


def parse_equation(text: str, scope: Scope) -> tuple[Comparison, bool]:
    """One equation or inequality; two for a chain such as 1 < x^2 < 4.

    Two equations y = … and y = …, separated by a comma, come as one, with True beside it.
    Raises LanguageError.
    """
    return mended(text, lambda line: _equation(line, scope))


def _equation(text: str, scope: Scope) -> tuple[Comparison, bool]:
    tokens = tokenise(text)
    if len(tokens) == 1:
        raise LanguageError("There is no equation here yet. Type one, such as cos x = x.")
    comma = _outside(tokens, (",", ";"))
    if comma is not None:
        mend = with_points(text, tokens, tokens[comma])
        if mend is not None:
            raise LanguageError(NO_COMMA, tokens[comma].start, tokens[comma].end, mend)
        return _two(text, tokens, comma, scope), True
    return _comparison(text, tokens, scope), False


def _comparison(text: str, tokens: list[Token], scope: Scope) -> Comparison:
    for token in tokens:
        if token.text == "==":
            mend = text[: token.start] + "=" + text[token.end :]
            raise LanguageError("Write a single equals sign.", token.start, token.end, mend)
    if _outside(tokens, ("=", "<", "<=", ">", ">=", "!=")) is None:
        message = "There is no equals sign: an equation has two sides, such as x^2 = 2."
        raise LanguageError(message, 0, len(text), f"{text.rstrip()} = 0")
    parser = Parser(text, tokens, scope)
    comparison = parser.comparison()
    parser.finish()
    signs = comparison.signs
    if "!=" in signs:
        raise LanguageError("≠ asks for no solutions; solve with =, <, ≤, > or ≥.", 0, len(text))
    if len(signs) > 1 and "=" in signs:
        raise LanguageError("One line holds one equation: solve them one by one.", 0, len(text))
    one_way = all(s in RISING for s in signs) or all(s in FALLING for s in signs)
    if len(signs) > 2 or (len(signs) == 2 and not one_way):
        message = "A chain has two signs in one direction, such as 1 < x^2 < 4."
        raise LanguageError(message, 0, len(text))
    return comparison


def _two(text: str, tokens: list[Token], comma: int, scope: Scope) -> Comparison:
    """Two curves y = f(x) and y = g(x): they meet where f(x) = g(x)."""
    end = tokens[-1]
    halves = (
        [*tokens[:comma], Token("end", "", tokens[comma].start, tokens[comma].start)],
        [*tokens[comma + 1 : -1], end],
    )
    sides = []
    for half in halves:
        if _outside(half, (",", ";")) is not None or len(half) < 2:
            raise LanguageError("Two equations at most, separated by one comma.", 0, len(text))
        comparison = _comparison(text, half, scope)
        left, right = comparison.operands[0], comparison.operands[-1]
        if comparison.signs != ("=",) or Name("y") not in (left, right):
            message = (
                "One line holds one equation. Two curves are met as y = f(x), y = g(x); "
                "other systems are for Working."
            )
            raise LanguageError(message, half[0].start, half[-1].start)
        sides.append(right if left == Name("y") else left)
    return Comparison((sides[0], sides[1]), ("=",))


def _outside(tokens: list[Token], signs: tuple[str, ...]) -> int | None:
    """The first of some signs outside all brackets."""
    return next((index for index, token in outside_brackets(tokens) if token.text in signs), None)
