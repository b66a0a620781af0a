"""Words in a formula: names, calls with their arguments, functions without brackets, series."""

from __future__ import annotations

import itertools
from abc import ABC, abstractmethod

from axispath.core.language.cursor import Cursor, with_points
from axispath.core.language.errors import LanguageError
from axispath.core.language.points import POINT_WORDS, Point, PointWord
from axispath.core.language.scope import Scope, logarithm_base
from axispath.core.language.tokens import Token
from axispath.core.language.tree import (
    Apply,
    Call,
    Constant,
    Expression,
    Name,
    Negation,
    Number,
    Pair,
    Power,
    Product,
    Running,
    Series,
)
from axispath.core.language.vocabulary import IMAGINARY_UNIT, Word

HIGHEST_DERIVATIVE = 4
CLOSING = {"(": ")", "|": "|", "[": "]"}
RUNNING = ("sum", "product")  # whose index may also be an index of values one after the other
SIDES = ("left", "right")


class Calls(Cursor, ABC):
    """What begins with a word. The levels of precedence are those of the parser that has them."""

    @abstractmethod
    def expression(self) -> Expression:
        """A sum."""

    @abstractmethod
    def power(self) -> Expression:
        """A power."""

    @abstractmethod
    def factor(self) -> Expression:
        """What can be raised."""

    @abstractmethod
    def superscript(self) -> Expression:
        """A raised exponent."""

    @abstractmethod
    def starts_factor(self) -> bool:
        """Whether a factor can begin here."""

    @abstractmethod
    def close(self, opening: Token, message: str) -> None:
        """The bracket that belongs to ``opening``."""

    def word(self) -> Expression:
        """A constant, a function with its argument, or a value."""
        token = self.take()
        name = token.text
        place = (token.start, token.end)
        if name in self.scope.values:
            return Name(name, place)
        if name in self.scope.points:
            message = f"{name} is a point; its coordinates are {name}_x and {name}_y."
            raise self.fail(message, token)
        if name in self.scope.curves:
            return self.on_curve(token)
        if name in self.scope.functions:
            return self.call(token)
        if name in POINT_WORDS and self.sees("("):
            return self.of_points(token)
        if name in self.constants and self.is_constant(name):
            return Constant(self.constants[name])
        if (name in self.words and self.meant(name)) or logarithm_base(name):
            return self.applied(token)
        if self.sees("'", "″"):
            # Only functions have primes, so this is one that somebody has yet to define.
            order = self.primes()
            if not self.sees("("):
                raise self.fail(f"After {name}′ comes an argument: {name}′(x).", token)
            return Call(name, self.arguments(token), order, place)
        return Name(name, place)

    def is_constant(self, name: str) -> bool:
        """Whether a word is a constant here: a letter of physics only beside units."""
        letter = len(name) == 1 and name in self.scope.vocabulary.yielding
        return not letter or name == IMAGINARY_UNIT or self.measured

    def meant(self, name: str) -> bool:
        """Whether a word that yields to names of the sheet is the function here."""
        before_name = self.token.kind == "name" and self.words[name].runs == ""
        return not self.words[name].yields or self.sees("(") or before_name

    def of_points(self, token: Token) -> Expression:
        """A word about two points."""
        word = POINT_WORDS[token.text]
        opening = self.take()
        outer, self.bars = self.bars, 0
        points = [self.point(word)]
        while self.sees(","):
            self.take()
            points.append(self.point(word))
        if len(points) != 2:
            raise self.fail(f"{word.name} takes two points: {word.signature}.", token)
        self.close(opening, f"The bracket after {word.name} is still open.")
        self.bars = outer
        return word.expand(points[0], points[1])

    def point(self, word: PointWord) -> Point:
        """A point by its name, or by its coordinates in brackets."""
        token = self.token
        if token.kind == "name" and token.text in self.scope.points:
            self.take()
            place = (token.start, token.end)
            return Name(f"{token.text}_x", place), Name(f"{token.text}_y", place)
        gives = token.text in POINT_WORDS or token.text in self.scope.curves
        found = self.factor() if self.sees("(") or gives else None
        if not isinstance(found, Pair):
            raise self.fail(f"{word.name} takes two points: {word.signature}.", token)
        return found.first, found.second

    def on_curve(self, token: Token) -> Expression:
        """The point of a curve at a value of its parameter."""
        name, place = token.text, (token.start, token.end)
        if not self.sees("("):
            message = (
                f"{name} is a curve: {name}(1) is a point of it, with {name}_x(1), {name}_y(1)."
            )
            raise self.fail(message, token)
        given = self.arguments(token)
        if len(given) != 1:
            raise self.fail(_wrong_count(name, 1, len(given), ""), token)
        return Pair(Call(f"{name}_x", given, 0, place), Call(f"{name}_y", given, 0, place), place)

    def call(self, token: Token) -> Expression:
        """A function of the sheet, perhaps with primes, and its arguments."""
        order = self.primes()
        if not self.sees("("):
            written = token.text + "′" * order
            message = f"{written} is a function here: write {written}(x), or another argument."
            end = self.tokens[self.at - 1].end
            raise self.fail(message, token, f"{self.text[:end]}(x){self.text[end:]}")
        arguments = self.arguments(token)
        wanted = self.scope.functions[token.text]
        if len(arguments) != wanted:
            signature = self.scope.signatures.get(token.text, "")
            comma = next(t for t in self.tokens[self.tokens.index(token) :] if t.text in (",", ")"))
            mend = with_points(self.text, self.tokens, comma)
            message = _wrong_count(token.text, wanted, len(arguments), signature)
            raise self.fail(message, token, mend)
        if order and wanted != 1:
            raise self.fail(
                f"Only a function of one argument has a derivative {token.text}′.", token
            )
        return Call(token.text, arguments, order, (token.start, token.end))

    def primes(self) -> int:
        """How many primes follow."""
        order = 0
        while self.sees("'", "″"):
            token = self.take()
            order += 2 if token.text == "″" else 1
            if order > HIGHEST_DERIVATIVE:
                message = f"Derivatives go up to order {HIGHEST_DERIVATIVE} here."
                raise self.fail(message, token)
        return order

    def arguments(self, token: Token) -> tuple[Expression, ...]:
        """What stands in the brackets after a function's name."""
        opening = self.take()
        outer, self.bars = self.bars, 0
        scope = self.scope
        own = token.text in scope.functions
        runs = self.words[token.text].runs if token.text in self.words and not own else ""
        if token.text in RUNNING or runs:
            self.scope = scope.with_values(self._running_index())
        if self.token.kind == "end":
            message = f"The bracket after {token.text} is still open."
            raise self.fail(message, opening)
        if self.sees(")"):
            mend = f"{self.text[: opening.end]}x{self.text[self.token.start :]}"
            message = f"{token.text} needs something between its brackets."
            raise self.fail(message, opening, mend)
        found = [self.expression()]
        if token.text in RUNNING and self.sees("for"):
            found = [self.series(token.text, found[0])]
        elif runs:
            found = [self.running(token, runs, found[0], scope)]
        while self.sees(","):
            comma = self.take()
            if self.sees(")", ","):
                mend = self.without(comma)
                raise self.fail("An argument is missing after this comma.", comma, mend)
            found.append(self.expression())
        self.close(opening, f"The bracket after {token.text} is still open.")
        self.bars = outer
        self.scope = scope
        return tuple(found)

    def _running_index(self) -> tuple[str, ...]:
        """The index of a sum, which stands behind the term that uses it."""
        depth = 0
        for token, after in itertools.pairwise(self.tokens[self.at :]):
            depth += {"(": 1, ")": -1}.get(token.text, 0)
            if depth < 0:
                break
            if depth == 0 and token.text == "for" and after.kind == "name":
                return (after.text,)
        return ()

    def series(self, kind: str, body: Expression) -> Expression:
        """``for k = 1 to 10`` after the term of a sum or a product.

        The index may stand in the term although it comes after it.
        """
        word = self.take()
        index, equals = self.take(), self.token
        if index.kind != "name" or not self.sees("="):
            message = f"Write the range as “{kind}(k^2 for k = 1 to 10)”."
            raise self.fail(message, word)
        self.take()
        low = self.expression()
        if not self.sees("to"):
            raise self.fail("The range needs an end: write for example “for k = 1 to 10”.", equals)
        self.take()
        if self.sees("∞"):
            self.take()
            return Running(kind, body, index.text, (low, Constant("∞")))
        return Series(kind, body, index.text, low, self.expression())

    def running(self, token: Token, runs: str, body: Expression, outer: Scope) -> Expression:
        """``for x = 0 to 1`` after a formula in x, and what a comma may add."""
        example = self.words[token.text].signature
        if not self.sees("for"):
            raise self.fail(f"Say which letter runs: {example}.", token)
        self.take()
        index = self.take()
        if index.kind != "name":
            raise self.fail(f"Say which letter runs: {example}.", index)
        self.scope = outer
        ends: list[Expression] = []
        for sign in runs.split():
            if sign == "-" or (sign == "=?" and not self.sees("=")):
                break
            if not self.sees(sign.rstrip("?")):
                raise self.fail(f"This is written as {example}.", token)
            self.take()
            ends.append(self.end())
        others: list[Expression] = []
        side = ""
        while self.sees(","):
            self.take()
            if self.token.text in SIDES:
                side = self.take().text
            else:
                others.append(self.expression())
        return Running(token.text, body, index.text, tuple(ends), tuple(others), side)

    def end(self) -> Expression:
        """A number, or ∞ with its sign."""
        negative = self.sees("-") and self.tokens[self.at + 1].text == "∞"
        if negative:
            self.take()
        if not self.sees("∞"):
            return self.expression()
        self.take()
        return Negation(Constant("∞")) if negative else Constant("∞")

    def applied(self, token: Token) -> Expression:
        """A function of the catalogue, with a power or a base of its own, and its argument."""
        base = logarithm_base(token.text)
        entry = self.words["log" if base else token.text]
        exponent = self.own_exponent()
        if exponent == Negation(Number("1")):
            if entry.inverse is None:
                message = f"{token.text}⁻¹ is not defined here: write 1/{token.text}(x)."
                raise self.fail(message, token)
            entry, exponent = self.words[entry.inverse], None
        given = self.arguments(token) if self.sees("(") else (self.bare_argument(token),)
        if (
            len(given) == 1
            and isinstance(given[0], Series | Running)
            and entry.name
            in (
                getattr(given[0], "kind", ""),
                getattr(given[0], "function", ""),
            )
        ):
            return given[0]
        _check_count(entry, token, len(given))
        if base:
            given = (self._base(base, token), *given)
        applied = Apply("log_base" if base else entry.name, given)
        return applied if exponent is None else Power(applied, exponent)

    def own_exponent(self) -> Expression | None:
        """The exponent between a function's name and its argument, as in sin^2(x)."""
        if self.token.kind == "superscript":
            return self.superscript()
        if not self.sees("^"):
            return None
        self.take()
        if self.sees("-"):
            self.take()
            return Negation(self.factor())
        return self.factor()

    def bare_argument(self, token: Token) -> Expression:
        """The factors side by side after a function's name; another function ends them."""
        if not (self.starts_factor() or self.sees("-")):
            message = f"{token.text} needs something to work on, such as {token.text}(x)."
            mend = f"{self.text[: token.end]}(x){self.text[token.end :]}"
            raise self.fail(message, token, mend)
        if self.sees("-"):
            self.take()
            return Negation(self.bare_argument(token))
        self.go_deeper()
        argument = self.power()
        while self.starts_factor() and not self._at_function():
            self.refuse_two_numbers()
            argument = Product(argument, self.power())
        self.depth -= 1
        return argument

    def _at_function(self) -> bool:
        name = self.token.text
        known = name in self.words or name in self.scope.functions or logarithm_base(name)
        return self.token.kind == "name" and bool(known) and name not in self.scope.values

    def _base(self, base: str, token: Token) -> Expression:
        if base[0].isdigit() or base[0] == ".":
            return Number(base)
        if base in self.constants:
            return Constant(self.constants[base])
        return Name(base, (token.start, token.end))


def _check_count(entry: Word, token: Token, given: int) -> None:
    most = len(entry.arguments)
    least = most - entry.optional
    if given < least or (given > most and not entry.many):
        need = f"{least} or {most} arguments" if least < most else _counted(most)
        have = "one is" if given == 1 else f"{given} are"
        message = f"{token.text} takes {need}, but {have} given: {entry.signature}."
        raise LanguageError(message, token.start, token.end)


def _counted(count: int) -> str:
    return "one argument" if count == 1 else f"{count} arguments"


def _wrong_count(name: str, wanted: int, given: int, signature: str) -> str:
    need = _counted(wanted)
    have = "one is" if given == 1 else f"{given} are"
    example = f": {signature}" if signature else ""
    return f"{name} takes {need}, but {have} given{example}."
