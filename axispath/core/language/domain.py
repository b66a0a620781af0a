"""The domain at the end of a line: a chain of comparisons, or an interval in brackets."""

from __future__ import annotations

import itertools

from axispath.core.language.errors import LanguageError
from axispath.core.language.formula import end_at, keyword_at, read_whole
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token
from axispath.core.language.tree import Domain, Expression


def read_domain(
    text: str, tokens: list[Token], parameters: tuple[str, ...], scope: Scope
) -> Domain:
    """The domain that begins with “for”. Raises LanguageError."""
    word, rest = tokens[0], tokens[1:]
    again = keyword_at(rest, "for")
    if again is not None:
        token = rest[again]
        mend = _one_domain(text, [*rest[:again], end_at(token)], rest[again:], parameters, scope)
        raise LanguageError("A line can have one domain only.", token.start, token.end, mend)
    if len(parameters) != 1:
        message = "Only a function of one argument can have a domain."
        raise LanguageError(message, word.start, word.end)
    if len(rest) == 1:
        message = f"The domain is missing: write for example “for 0 <= {parameters[0]} <= 5”."
        raise LanguageError(message, word.start, word.end)
    if len(rest) > 2 and rest[1].text == "in" and rest[1].kind == "keyword":
        return _bracket_domain(text, rest, parameters[0], scope)
    return _chain_domain(text, rest, parameters[0], scope)


def _one_domain(
    text: str, first: list[Token], second: list[Token], parameters: tuple[str, ...], scope: Scope
) -> str:
    """The line with one domain out of two: both limits where each gives one, else the first."""
    kept = text[: second[0].start].rstrip()
    try:
        one = _chain_domain(text, first, parameters[0], scope)
        other = _chain_domain(text, second[1:], parameters[0], scope)
    except LanguageError:
        return kept
    if one.low is not None and one.high is None and other.low is None:
        lower, upper = first, second[1:]
    elif one.low is None and one.high is not None and other.high is None:
        lower, upper = second[1:], first
    else:
        return kept
    sides = [_limit(text, part, parameters[0]) for part in (lower, upper)]
    (start, closed), (stop, shut) = sides
    signs = ["<=" if at_end else "<" for at_end in (closed, shut)]
    chain = f"{start} {signs[0]} {parameters[0]} {signs[1]} {stop}"
    return f"{text[: first[0].start].rstrip()} {chain}"


def _limit(text: str, tokens: list[Token], variable: str) -> tuple[str, bool]:
    """The text of the limit in ``x > 2`` or ``2 < x``, and whether it is included."""
    at = next(i for i, token in enumerate(tokens) if token.text in ("<", "<=", ">", ">="))
    part = tokens[:at] if tokens[at + 1].text == variable else tokens[at + 1 : -1]
    return text[part[0].start : part[-1].end], tokens[at].text.endswith("=")


def _bracket_domain(text: str, tokens: list[Token], variable: str, scope: Scope) -> Domain:
    """``x in [-4, 2)``."""
    _expect_variable(tokens[0], variable)
    opening, closing = tokens[2], tokens[-2]
    commas = [index for index, token in enumerate(tokens) if token.text == ","]
    if opening.text not in "([" or closing.text not in ")]" or len(commas) != 1:
        message = f"Write the interval as “{variable} in [0, 5]”, with ( or ) for an open end."
        raise LanguageError(message, tokens[1].start, tokens[-1].end)
    low = _end_value(text, tokens[3 : commas[0]], tokens[commas[0]], scope)
    high = _end_value(text, tokens[commas[0] + 1 : -2], closing, scope)
    low_closed, high_closed = opening.text == "[", closing.text == "]"
    return Domain(
        variable, low, high, low_closed and low is not None, high_closed and high is not None
    )


def _chain_domain(text: str, tokens: list[Token], variable: str, scope: Scope) -> Domain:
    """``-4 <= x < 2``, ``x >= 0`` or ``0 < x``, in either direction."""
    signs = [index for index, token in enumerate(tokens) if token.text in ("<", "<=", ">", ">=")]
    example = f"Write the domain as “for 0 <= {variable} <= 5” or “for {variable} >= 0”."
    if not 1 <= len(signs) <= 2:
        raise LanguageError(example, tokens[0].start, tokens[-1].end)
    bounds = [-1, *signs, len(tokens) - 1]
    pieces = [tokens[a + 1 : b] for a, b in itertools.pairwise(bounds)]
    middle = [i for i, part in enumerate(pieces) if len(part) == 1 and part[0].text == variable]
    if len(middle) != 1 or (len(signs) == 2 and middle[0] != 1):
        raise LanguageError(example, tokens[0].start, tokens[-1].end)
    low = high = None
    low_closed = high_closed = False
    for index, at in enumerate(signs):
        sign = tokens[at].text
        before = index < middle[0]
        part = pieces[index] if before else pieces[index + 1]
        value = _end_value(text, part, tokens[at], scope)
        is_low = before == sign.startswith("<")
        if (low if is_low else high) is not None:
            raise LanguageError(example, tokens[0].start, tokens[-1].end)
        closed = sign.endswith("=") and value is not None
        if is_low:
            low, low_closed = value, closed
        else:
            high, high_closed = value, closed
    return Domain(variable, low, high, low_closed, high_closed)


def _end_value(text: str, part: list[Token], near: Token, scope: Scope) -> Expression | None:
    """An end of a domain; None for infinity."""
    if not part:
        raise LanguageError("An end of the domain is missing.", near.start, near.end)
    if [token.text for token in part] in (["∞"], ["-", "∞"], ["+", "∞"]):
        return None
    return read_whole(
        text, [*part, end_at(near if near.start >= part[-1].end else part[-1])], scope
    )


def _expect_variable(token: Token, variable: str) -> None:
    if token.text != variable:
        message = f"The domain is about {variable}, the argument of the function."
        raise LanguageError(message, token.start, token.end)
