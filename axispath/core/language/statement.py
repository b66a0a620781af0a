"""One line of a sheet to a statement, and the name on its left before anything else is read."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

from axispath.core.language.errors import LanguageError, mended
from axispath.core.language.parser import Parser
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token, outside_brackets, tokens
from axispath.core.language.tree import (
    Domain,
    Expression,
    FunctionStatement,
    Name,
    Statement,
    ValueStatement,
    free_names,
)
from axispath.core.language.vocabulary import Vocabulary


@dataclass(frozen=True, slots=True)
class Heading:
    """What a line defines: ``parameters`` is None for a value; ``name`` None for nothing named."""

    name: str | None
    parameters: tuple[str, ...] | None
    place: tuple[int, int] = (0, 0)


def heading(text: str, vocabulary: Vocabulary) -> Heading:
    """The left side of a line. Needs no knowledge of the rest of the sheet."""
    return _heading(text, tokens(text), vocabulary)[0]


def parse_statement(text: str, scope: Scope) -> Statement:
    """Read one line of a sheet. Raises LanguageError, with a mend only where that is read."""
    return mended(text, lambda line: _statement(line, scope))


def _statement(text: str, scope: Scope) -> Statement:
    found = tokens(text)
    if len(found) == 1:
        raise LanguageError("There is nothing here yet. Type a formula, such as x^2 - 3.")
    head, body_at = _heading(text, found, scope.vocabulary)
    body = found[body_at:]
    domain_at = _keyword(body, "for")
    formula = body if domain_at is None else [*body[:domain_at], _end(body[domain_at])]
    if len(formula) == 1:
        place = found[max(body_at - 1, 0)]
        defined = text[: place.end].strip() if body_at else "f(x) ="
        message = f"The formula is missing: write for example {defined} x^2."
        if head.parameters is None and head.name:
            message = f"The number is missing: write for example {defined} 2."
        raise LanguageError(message, place.start, place.end)
    parameters = ("x",) if head.parameters is None and head.name is None else head.parameters
    inner = scope.with_values(parameters or ())
    expression = _whole(text, formula, inner)
    if parameters is None:
        assert head.name is not None
        return _value(text, head, expression, body, domain_at)
    domain = None
    if domain_at is not None:
        domain = _domain(text, body[domain_at:], parameters, scope)
    return FunctionStatement(head.name, parameters, expression, domain, formula[-1].start)


def parse_expression(text: str, scope: Scope) -> Expression:
    """Read an expression that stands alone, such as a view limit. Raises LanguageError."""

    def read(line: str) -> Expression:
        found = tokens(line)
        if len(found) == 1:
            raise LanguageError("A number or a formula is needed here.")
        return _whole(line, found, scope)

    return mended(text, read)


def _whole(text: str, found: list[Token], scope: Scope) -> Expression:
    parser = Parser(text, found, scope)
    expression = parser.whole()
    if parser.sees("<", ">", "<=", ">=", "!="):
        raise parser.fail("Inequalities cannot be drawn here yet.")
    parser.finish()
    return expression


def _heading(text: str, found: list[Token], vocabulary: Vocabulary) -> tuple[Heading, int]:
    """The heading, and the index of the first token of the body."""
    equals = _defining_signs(found)
    if not equals:
        return Heading(None, None), 0
    if len(equals) > 1:
        token = found[equals[1]]
        raise LanguageError("A line can have one equals sign only.", token.start, token.end)
    sign = found[equals[0]]
    if sign.text == "==":
        mend = text[: sign.start] + "=" + text[sign.end :]
        raise LanguageError("Write a single equals sign.", sign.start, sign.end, mend)
    left = found[: equals[0]]
    shape = [token.text if token.kind == "sign" else token.kind for token in left]
    place = (left[0].start, left[-1].end) if left else (sign.start, sign.end)
    if shape == ["name"]:
        return _named(left[0], None, place, vocabulary), equals[0] + 1
    if len(shape) >= 4 and shape[:2] == ["name", "("] and shape[-1] == ")":
        inside = shape[2:-1]
        if inside == (["name", ","] * len(inside))[: len(inside)] and len(inside) % 2:
            parameters = tuple(token.text for token in left[2:-1:2])
            named = _named(left[0], _distinct(parameters, place), place, vocabulary)
            return named, equals[0] + 1
    raise LanguageError(
        "Left of the equals sign a lane has a name, such as f(x) = … or a = …; "
        "equations of other kinds cannot be drawn here yet.",
        *place,
    )


def _defining_signs(found: list[Token]) -> list[int]:
    """Equals signs outside brackets and before any condition."""
    places = []
    for index, token in outside_brackets(found):
        if token.kind == "keyword" and token.text == "if":
            break
        if token.text in ("=", "=="):
            places.append(index)
    return places


def _named(
    token: Token,
    parameters: tuple[str, ...] | None,
    place: tuple[int, int],
    vocabulary: Vocabulary,
) -> Heading:
    name = token.text
    for word in (name, *(parameters or ())):
        if word in vocabulary.constants or word in vocabulary.functions:
            raise LanguageError(f"{word} has a meaning already; choose another name.", *place)
    if parameters is None and name == "y":
        return Heading(None, None, place)
    if parameters is None and name == "x":
        raise LanguageError("x is the variable of the axis; choose another name.", *place)
    return Heading(name, parameters, place)


def _distinct(parameters: tuple[str, ...], place: tuple[int, int]) -> tuple[str, ...]:
    if len(set(parameters)) < len(parameters):
        raise LanguageError("Two arguments have the same name.", *place)
    return parameters


def _value(
    text: str, head: Heading, expression: Expression, body: list[Token], domain_at: int | None
) -> ValueStatement:
    if domain_at is not None:
        token = body[domain_at]
        raise LanguageError("A number has no domain; only functions do.", token.start, token.end)
    name = str(head.name)
    if any(isinstance(node, Name) and node.name == "x" for node in free_names(expression)):
        mend = f"{text[: head.place[0]]}{name}(x){text[head.place[1] :]}"
        message = f"{name} is written as a number, but its formula uses x."
        raise LanguageError(message, *head.place, mend=mend)
    return ValueStatement(name, expression)


def _domain(text: str, found: list[Token], parameters: tuple[str, ...], scope: Scope) -> Domain:
    word, rest = found[0], found[1:]
    again = _keyword(rest, "for")
    if again is not None:
        token = rest[again]
        mend = _one_domain(text, [*rest[:again], _end(token)], rest[again:], parameters, scope)
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


def _limit(text: str, found: list[Token], variable: str) -> tuple[str, bool]:
    """The text of the limit in ``x > 2`` or ``2 < x``, and whether it is included."""
    at = next(i for i, token in enumerate(found) if token.text in ("<", "<=", ">", ">="))
    part = found[:at] if found[at + 1].text == variable else found[at + 1 : -1]
    return text[part[0].start : part[-1].end], found[at].text.endswith("=")


def _bracket_domain(text: str, found: list[Token], variable: str, scope: Scope) -> Domain:
    """``x in [-4, 2)``."""
    _expect_variable(found[0], variable)
    opening, closing = found[2], found[-2]
    commas = [index for index, token in enumerate(found) if token.text == ","]
    if opening.text not in "([" or closing.text not in ")]" or len(commas) != 1:
        message = f"Write the interval as “{variable} in [0, 5]”, with ( or ) for an open end."
        raise LanguageError(message, found[1].start, found[-1].end)
    low = _end_value(text, found[3 : commas[0]], found[commas[0]], scope)
    high = _end_value(text, found[commas[0] + 1 : -2], closing, scope)
    low_closed, high_closed = opening.text == "[", closing.text == "]"
    return Domain(
        variable, low, high, low_closed and low is not None, high_closed and high is not None
    )


def _chain_domain(text: str, found: list[Token], variable: str, scope: Scope) -> Domain:
    """``-4 <= x < 2``, ``x >= 0`` or ``0 < x``, in either direction."""
    signs = [index for index, token in enumerate(found) if token.text in ("<", "<=", ">", ">=")]
    example = f"Write the domain as “for 0 <= {variable} <= 5” or “for {variable} >= 0”."
    if not 1 <= len(signs) <= 2:
        raise LanguageError(example, found[0].start, found[-1].end)
    bounds = [-1, *signs, len(found) - 1]
    pieces = [found[a + 1 : b] for a, b in itertools.pairwise(bounds)]
    middle = [i for i, part in enumerate(pieces) if len(part) == 1 and part[0].text == variable]
    if len(middle) != 1 or (len(signs) == 2 and middle[0] != 1):
        raise LanguageError(example, found[0].start, found[-1].end)
    low = high = None
    low_closed = high_closed = False
    for index, at in enumerate(signs):
        sign = found[at].text
        before = index < middle[0]
        part = pieces[index] if before else pieces[index + 1]
        value = _end_value(text, part, found[at], scope)
        is_low = before == sign.startswith("<")
        if (low if is_low else high) is not None:
            raise LanguageError(example, found[0].start, found[-1].end)
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
    return _whole(text, [*part, _end(near if near.start >= part[-1].end else part[-1])], scope)


def _expect_variable(token: Token, variable: str) -> None:
    if token.text != variable:
        message = f"The domain is about {variable}, the argument of the function."
        raise LanguageError(message, token.start, token.end)


def _keyword(found: list[Token], word: str) -> int | None:
    """The first such word outside brackets."""
    words = ((i, t) for i, t in outside_brackets(found) if t.kind == "keyword")
    return next((index for index, token in words if token.text == word), None)


def _end(token: Token) -> Token:
    return Token("end", "", token.start, token.start)
