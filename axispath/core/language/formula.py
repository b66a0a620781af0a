"""A formula that stands in a line, read from its tokens."""

from __future__ import annotations

from axispath.core.language.cursor import NO_COMMA, with_points
from axispath.core.language.errors import LanguageError
from axispath.core.language.parser import Parser
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token, outside_brackets
from axispath.core.language.tree import Expression, Pair
from axispath.core.language.walking import walk


def read_whole(text: str, tokens: list[Token], scope: Scope) -> Expression:
    """An expression that is a number or a list. Raises LanguageError."""
    expression = read_formula(text, tokens, scope)
    refuse_pairs(text, tokens, expression)
    return expression


def refuse_pairs(text: str, tokens: list[Token], expression: Expression) -> None:
    """A point is the whole of a line, and no part of a formula."""
    pair = next((node for node in walk(expression) if isinstance(node, Pair)), None)
    if pair is None:
        return
    comma = next((token for token in tokens if (token.start, token.end) == pair.place), None)
    if comma is None:
        raise LanguageError("A point cannot be a part of a formula.", 0, len(text))
    raise LanguageError(NO_COMMA, *pair.place, with_points(text, tokens, comma))


def read_formula(text: str, tokens: list[Token], scope: Scope) -> Expression:
    """Any expression, points among them. Raises LanguageError."""
    parser = Parser(text, tokens, scope)
    expression = parser.whole()
    if parser.sees("<", ">", "<=", ">=", "!="):
        raise parser.fail(
            "A comparison cannot be a part of a formula, but for the cases behind “if”."
        )
    parser.finish()
    return expression


def keyword_at(tokens: list[Token], word: str) -> int | None:
    """The first such word outside brackets."""
    words = ((i, t) for i, t in outside_brackets(tokens) if t.kind == "keyword")
    return next((index for index, token in words if token.text == word), None)


def end_at(token: Token) -> Token:
    """The end of a line that is cut off before a token."""
    return Token("end", "", token.start, token.start)
