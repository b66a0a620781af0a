"""One line of a sheet to a statement, and the name on its left before anything else is read."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from axispath.core.language.domain import read_domain
from axispath.core.language.errors import LanguageError, mended
from axispath.core.language.formula import (
    end_at,
    keyword_at,
    read_formula,
    read_whole,
    refuse_pairs,
)
from axispath.core.language.points import GIVING_POINTS
from axispath.core.language.relation import is_relation, read_relation
from axispath.core.language.running import (
    ANGLES,
    POINT,
    USUAL,
    is_radius,
    letter_of_range,
    unknown_letter,
)
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token, outside_brackets, tokenise
from axispath.core.language.tree import (
    Expression,
    FunctionStatement,
    ListOf,
    Name,
    Pair,
    RelationStatement,
    Statement,
    ValueStatement,
)
from axispath.core.language.vocabulary import Vocabulary
from axispath.core.language.walking import coordinates, free_names

NOT_X = "x is the variable of the axis: call the parameter t."


@dataclass(frozen=True, slots=True)
class Heading:
    """What a line defines: ``parameters`` is None for a value; ``name`` None for nothing named."""

    name: str | None
    parameters: tuple[str, ...] | None
    place: tuple[int, int] = (0, 0)
    relation: bool = False  # it defines nothing, and relates x and y
    point: bool = False  # what it defines looks like a point, or a list of points
    call: str = ""  # the name whose call is all that stands on the right


def heading(text: str, vocabulary: Vocabulary) -> Heading:
    """The left side of a line. Needs no knowledge of the rest of the sheet."""
    tokens = tokenise(text)
    if is_relation(tokens, vocabulary):
        return Heading(None, None, relation=True)
    head, body_at = _heading(text, tokens, vocabulary)
    body = _without_range(tokens[body_at:])
    return replace(head, point=_looks_like_point(body), call=_only_call(body))


def _without_range(tokens: list[Token]) -> list[Token]:
    at = keyword_at(tokens, "for")
    return tokens if at is None else [*tokens[:at], end_at(tokens[at])]


def _looks_like_point(tokens: list[Token]) -> bool:
    signs = _signs(tokens)
    if signs[:2] == ["[", "("]:
        return not any(sign == ";" and depth == 1 for sign, depth in _depths(signs))
    if signs[:2] == ["name", "("] and tokens[0].text in GIVING_POINTS:
        signs = signs[1:]
    return _brackets(signs) == 1


def _only_call(tokens: list[Token]) -> str:
    """The name in ``C(…)``, where that is all."""
    signs = _signs(tokens)
    return tokens[0].text if signs[:1] == ["name"] and _brackets(signs[1:]) == 0 else ""


def _signs(tokens: list[Token]) -> list[str]:
    return [token.text if token.kind == "sign" else token.kind for token in tokens]


def _depths(signs: list[str]) -> Iterator[tuple[str, int]]:
    """Each sign with the number of brackets that are open behind it."""
    depth = 0
    for sign in signs:
        depth += (sign in ("(", "[")) - (sign in (")", "]"))
        yield sign, depth


def _brackets(signs: list[str]) -> int | None:
    """How many commas there are in brackets that hold everything; None where they do not."""
    if signs[:1] != ["("]:
        return None
    commas = 0
    for k, (sign, depth) in enumerate(_depths(signs)):
        commas += sign in (",", ";") and depth == 1
        if depth == 0:
            return commas if signs[k + 1 :] == ["end"] else None
    return None


def parse_statement(text: str, scope: Scope, runs: str | None = None) -> Statement:
    """Read one line of a sheet. Raises LanguageError, with a mend only where that is read.

    ``runs`` is the letter along a curve that names none, POINT or empty where none runs; None
    leaves that to the names of the sheet.
    """
    return mended(text, lambda line: _statement(line, scope, runs))


def _statement(text: str, scope: Scope, runs: str | None) -> Statement:
    tokens = tokenise(text)
    if len(tokens) == 1:
        raise LanguageError("There is nothing here yet. Type a formula, such as x^2 - 3.")
    if is_relation(tokens, scope.vocabulary):
        return read_relation(text, tokens, scope)
    head, body_at = _heading(text, tokens, scope.vocabulary)
    body = tokens[body_at:]
    domain_at = keyword_at(body, "for")
    formula = _without_range(body)
    if len(formula) == 1:
        place = tokens[max(body_at - 1, 0)]
        defined = text[: place.end].strip() if body_at else "f(x) ="
        message = f"The formula is missing: write for example {defined} x^2."
        if head.parameters is None and head.name:
            message = f"The number is missing: write for example {defined} 2."
        raise LanguageError(message, place.start, place.end)
    letter = _running(text, head, body, formula, scope, runs)
    parameters = ("x",) if head.parameters is None and head.name is None else head.parameters
    if letter:
        parameters = (letter,)
    inner = scope.with_values(parameters or ())
    expression = read_formula(text, formula, inner)
    if isinstance(expression, Pair) and (letter or head.parameters):
        return _curve(text, head, expression, tokens, body, parameters or (), scope)
    if coordinates(expression) is not None:
        return _point(text, head, expression, body, domain_at)
    refuse_pairs(text, tokens, expression)
    if parameters is None:
        assert head.name is not None
        return _value(text, head, expression, body, domain_at)
    domain = None
    if domain_at is not None:
        domain = read_domain(text, body[domain_at:], parameters, scope)
    polar = bool(letter) or (is_radius(head.name) and parameters[0] in ANGLES)
    name = None if letter else head.name
    end = formula[-1].start
    return FunctionStatement(name, parameters, expression, domain, end, polar)


def _running(
    text: str,
    head: Heading,
    body: list[Token],
    formula: list[Token],
    scope: Scope,
    runs: str | None,
) -> str:
    """The letter that runs along a curve whose heading names none; empty for other lines."""
    pair = _looks_like_point(formula) and _signs(formula)[0] == "("
    if head.parameters is not None or not (pair or is_radius(head.name)):
        return ""
    ranged = letter_of_range(body)
    if ranged == "x":
        at = next((token for token in formula if token.text == "x"), None)
        if at is None:
            return ""
        raise LanguageError(NOT_X, at.start, at.end)
    if ranged is not None:
        return ranged
    if runs is not None:
        return "" if runs == POINT else runs
    unknown = unknown_letter(read_formula(text, formula, scope), scope, USUAL if pair else ANGLES)
    # Beside another polar curve, r = 1 is a circle.
    return unknown or ("" if pair or head.name not in scope.functions else ANGLES[0])


def _curve(
    text: str,
    head: Heading,
    pair: Pair,
    tokens: list[Token],
    body: list[Token],
    parameters: tuple[str, ...],
    scope: Scope,
) -> FunctionStatement:
    """A line with two coordinates and a parameter that runs."""
    if len(parameters) != 1:
        raise LanguageError("A curve has one parameter, such as C(t) = (t, t^2).", *head.place)
    for coordinate in (pair.first, pair.second):
        refuse_pairs(text, tokens, coordinate)
    if parameters[0] == "x":
        raise LanguageError(NOT_X, *head.place)
    domain_at = keyword_at(body, "for")
    domain = read_domain(text, body[domain_at:], parameters, scope) if domain_at else None
    end = _without_range(body)[-1].start
    return FunctionStatement(head.name, parameters, pair, domain, end)


@dataclass(frozen=True, slots=True)
class Read:
    """A line as it is read for the first time.

    ``value`` where it names nothing and is a value, ``runs`` the letter along a curve that names
    none.
    """

    statement: Statement
    value: bool = False
    runs: str = ""

    @property
    def named(self) -> Named:
        """How such a line is called where it names nothing."""
        return naming(self.statement, self.value)


Named = Literal["function", "value", "point", "radius", "relation"]


def naming(statement: Statement | None, value: bool) -> Named:
    """How a line is called where it names nothing itself."""
    if isinstance(statement, RelationStatement):
        return "relation"
    if isinstance(statement, FunctionStatement) and statement.polar:
        return "radius"
    if statement is not None and coordinates(statement.body) is not None:
        return "point"
    return "value" if value else "function"


def read_line(text: str, scope: Scope) -> Read:
    """Read a line that was just typed: without a name and a variable it is a value.

    Raises LanguageError. What is a value stays one, whatever is defined later: see ``as_value``.
    """
    statement = parse_statement(text, scope)
    head = heading(text, scope.vocabulary)
    if isinstance(statement, FunctionStatement) and statement.curve:
        return Read(statement, runs="" if head.parameters else statement.parameters[0])
    if not isinstance(statement, FunctionStatement) or statement.name or statement.domain:
        return Read(statement)
    if head.place != (0, 0):  # y = …, a level line
        return Read(statement)
    if any(node.name == "x" for node in free_names(statement.body)):
        return Read(statement)
    return Read(ValueStatement(None, statement.body), True)


def as_value(statement: Statement) -> Statement:
    """A line that was read as a value. Raises LanguageError where it uses the variable by now."""
    if not isinstance(statement, FunctionStatement) or statement.name:
        return statement
    if any(node.name == "x" for node in free_names(statement.body)):
        raise LanguageError("This was a value, but its formula uses x now: edit it.", 0, 0)
    return ValueStatement(None, statement.body)


def parse_expression(text: str, scope: Scope) -> Expression:
    """Read an expression that stands alone, such as a view limit. Raises LanguageError."""

    def read(line: str) -> Expression:
        tokens = tokenise(line)
        if len(tokens) == 1:
            raise LanguageError("A number or a formula is needed here.")
        return read_whole(line, tokens, scope)

    return mended(text, read)


def _point(
    text: str, head: Heading, body: Expression, tokens: list[Token], domain_at: int | None
) -> ValueStatement:
    """A line that is a point, or a list of points."""
    parts = body.items if isinstance(body, ListOf) else (body,)
    for part in parts:
        if not isinstance(part, Pair):
            raise LanguageError("In a list of points every entry is a point.", 0, len(text))
        for coordinate in (part.first, part.second):
            refuse_pairs(text, tokens, coordinate)
    if domain_at is not None:
        token = tokens[domain_at]
        raise LanguageError("A point has no domain.", token.start, token.end)
    if head.parameters:
        raise LanguageError("A curve is one pair of coordinates, not a list.", *head.place)
    at = next((n.place for n in free_names(body) if n.name == "x"), None)
    if at is not None:
        message = "x is the variable of the axis: for a curve call the parameter t."
        raise LanguageError(message, *at)
    if head.place != (0, 0) and head.name is None:
        raise LanguageError("A point has a name of its own, such as P = (1, 2).", *head.place)
    return ValueStatement(head.name, body)


def _heading(text: str, tokens: list[Token], vocabulary: Vocabulary) -> tuple[Heading, int]:
    """The heading, and the index of the first token of the body."""
    equals = _defining_signs(tokens)
    if not equals:
        return Heading(None, None), 0
    if len(equals) > 1:
        token = tokens[equals[1]]
        raise LanguageError("A line can have one equals sign only.", token.start, token.end)
    sign = tokens[equals[0]]
    if sign.text == "==":
        mend = text[: sign.start] + "=" + text[sign.end :]
        raise LanguageError("Write a single equals sign.", sign.start, sign.end, mend)
    left = tokens[: equals[0]]
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
        "Left of the equals sign a lane has a name, such as f(x) = … or a = …; else the line is "
        "an equation in x and y.",
        *place,
    )


def _defining_signs(tokens: list[Token]) -> list[int]:
    """Equals signs outside brackets and before any condition."""
    places = []
    for index, token in outside_brackets(tokens):
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
        entry = vocabulary.functions.get(word)
        fixed = word in vocabulary.constants and word not in vocabulary.yielding
        if fixed or (entry is not None and not entry.yields):
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
