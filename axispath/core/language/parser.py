"""Tokens to tree, by precedence climbing.

From loosest to tightest: sums; products, quotients and side-by-side products, all alike
and from the left; a leading sign; powers, from the right; what is in brackets.
"""

from __future__ import annotations

import sys

from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope, logarithm_base, split
from axispath.core.language.tokens import Token
from axispath.core.language.tree import (
    Apply,
    Call,
    Constant,
    Expression,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Sum,
)

MAX_NESTING = 200
# One level of brackets takes seven frames of this parser, and a long chain of factors one
# frame each in whoever walks the tree; pure Python frames do not use the C stack.
sys.setrecursionlimit(max(sys.getrecursionlimit(), 12_000))

CLOSING = {"(": ")", "|": "|", "[": "]"}


class Parser:
    """Reads expressions from a list of tokens, moving ``at`` along."""

    def __init__(self, text: str, found: list[Token], scope: Scope) -> None:
        self.text = text
        self.scope = scope
        self.words = scope.vocabulary.functions
        self.constants = scope.vocabulary.constants
        self.found = [part for token in found for part in _parts(token, scope)]
        self.at = 0
        self.depth = 0
        self.bars = 0

    # Moving along

    @property
    def token(self) -> Token:
        """The token not yet taken."""
        return self.found[self.at]

    def take(self) -> Token:
        """The next token, taken."""
        token = self.found[self.at]
        self.at = min(self.at + 1, len(self.found) - 1)
        return token

    def sees(self, *signs: str) -> bool:
        """Whether the next token is one of these signs."""
        return self.token.kind in ("sign", "keyword") and self.token.text in signs

    def fail(
        self, message: str, token: Token | None = None, mend: str | None = None
    ) -> LanguageError:
        """An error at ``token``, by default the next one."""
        place = token or self.token
        return LanguageError(message, place.start, place.end, mend)

    # Levels of precedence

    def expression(self) -> Expression:
        """A whole sum."""
        terms = [self.product()]
        while self.sees("+", "-"):
            sign = self.take()
            self._expect_operand(sign)
            term = self.product()
            terms.append(Negation(term) if sign.text == "-" else term)
        return terms[0] if len(terms) == 1 else Sum(tuple(terms))

    def product(self) -> Expression:
        """Factors, written out or side by side, from the left."""
        left = self.signed()
        while True:
            if self.sees("*", "/"):
                sign = self.take()
                self._expect_operand(sign)
                right = self.signed()
                left = Quotient(left, right) if sign.text == "/" else Product(left, right)
            elif self.starts_factor():
                self._refuse_two_numbers()
                left = Product(left, self.power())
            else:
                return left

    def signed(self) -> Expression:
        """A power with any leading signs."""
        self.depth += 1
        if self.depth > MAX_NESTING:
            raise self.fail(f"This is nested more than {MAX_NESTING} levels deep.")
        try:
            if self.sees("-", "+"):
                sign = self.take()
                self._expect_operand(sign)
                operand = self.signed()
                return Negation(operand) if sign.text == "-" else operand
            return self.power()
        finally:
            self.depth -= 1

    def power(self) -> Expression:
        """A factor with its exponent, if it has one."""
        return self.raised(self.factor())

    def raised(self, base: Expression) -> Expression:
        """``base`` with the exponent that follows, if one does."""
        if self.token.kind == "superscript":
            return self.raised_once_more(Power(base, self.superscript()))
        if self.sees("^"):
            sign = self.take()
            self._expect_operand(sign)
            return Power(base, self.signed())
        if self.sees("!"):
            raise self.fail("Factorials cannot be computed here yet.")
        return base

    def raised_once_more(self, power: Expression) -> Expression:
        """After a superscript only a written exponent may follow."""
        if self.sees("^"):
            self.take()
            return Power(power, self.signed())
        return power

    def superscript(self) -> Expression:
        """An exponent written as raised digits."""
        token = self.take()
        digits = token.text.lstrip("+-")
        if not digits.isdigit() or len(token.text) - len(digits) > 1:
            raise self.fail("A raised sign needs a raised number after it.", token)
        number = Number(digits)
        return Negation(number) if token.text[0] == "-" else number

    # Factors

    def starts_factor(self) -> bool:
        """Whether the next token begins a factor, so that a product is meant."""
        token = self.token
        if token.kind in ("number", "name"):
            return True
        if token.kind != "sign":
            return False
        return token.text in ("(", "√") or (token.text == "|" and self.bars == 0)

    def factor(self) -> Expression:
        """A number, a name, a function with its argument, or something in brackets."""
        token = self.token
        if token.kind == "number":
            return self.degrees(Number(self.take().text))
        if token.kind == "name":
            return self.degrees(self.word())
        if self.sees("("):
            return self.degrees(self.bracketed())
        if self.sees("|"):
            return self.degrees(self.absolute())
        if self.sees("√"):
            sign = self.take()
            self._expect_operand(sign)
            self.depth += 1
            if self.depth > MAX_NESTING:
                raise self.fail(f"This is nested more than {MAX_NESTING} levels deep.")
            operand = self.power()
            self.depth -= 1
            return Apply("sqrt", (operand,))
        raise self._unexpected()

    def degrees(self, value: Expression) -> Expression:
        """``value`` with a degree sign, if one follows."""
        if self.sees("°"):
            self.take()
            return Apply("degrees", (value,))
        return value

    def bracketed(self) -> Expression:
        """An expression in round brackets."""
        opening = self.take()
        outer, self.bars = self.bars, 0
        if self.sees(")"):
            raise self.fail("There is nothing between these brackets.", opening)
        inner = self.expression()
        self.close(opening, "This bracket is still open.")
        self.bars = outer
        return inner

    def absolute(self) -> Expression:
        """An absolute value between bars."""
        opening = self.take()
        self.bars += 1
        inner = self.expression()
        self.bars -= 1
        self.close(opening, "This bar is still open: an absolute value needs a second one.")
        return Apply("abs", (inner,))

    def close(self, opening: Token, message: str) -> None:
        """Take the closing partner of ``opening``, or say that it is missing."""
        closing = CLOSING[opening.text]
        if self.sees(closing):
            self.take()
            return
        if self.token.kind == "end":
            rest = self.text[self.token.start :]
            mend = self.text[: self.token.start].rstrip() + closing + (f" {rest}" if rest else "")
            raise self.fail(message, opening, mend=mend)
        raise self._unexpected()

    # Words

    def word(self) -> Expression:
        """A constant, a function with its argument, or a value."""
        token = self.take()
        name = token.text
        place = (token.start, token.end)
        if name in self.scope.values:
            return Name(name, place)
        if name in self.scope.functions:
            return self.call(token)
        if name in self.constants:
            return Constant(self.constants[name])
        if name in self.words or logarithm_base(name):
            return self.applied(token)
        return Name(name, place)

    def call(self, token: Token) -> Expression:
        """A function of the sheet with its arguments."""
        if not self.sees("("):
            raise self.fail(
                f"{token.text} is a function here: write {token.text}(x), or another argument.",
                token,
            )
        arguments = self.arguments(token)
        wanted = self.scope.functions[token.text]
        if len(arguments) != wanted:
            raise self.fail(_wrong_count(token.text, wanted, len(arguments)), token)
        return Call(token.text, arguments, (token.start, token.end))

    def arguments(self, token: Token) -> tuple[Expression, ...]:
        """What stands in the brackets after a function's name."""
        opening = self.take()
        outer, self.bars = self.bars, 0
        if self.token.kind == "end":
            message = f"The bracket after {token.text} is still open."
            raise self.fail(message, opening)
        if self.sees(")"):
            raise self.fail(f"{token.text} needs something between its brackets.", opening)
        found = [self.expression()]
        while self.sees(","):
            self.take()
            found.append(self.expression())
        self.close(opening, f"The bracket after {token.text} is still open.")
        self.bars = outer
        return tuple(found)

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
        if len(given) != len(entry.arguments):
            raise self.fail(_wrong_count(token.text, len(entry.arguments), len(given)), token)
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
            raise self.fail(
                f"{token.text} needs something to work on, such as {token.text}(x).", token
            )
        if self.sees("-"):
            self.take()
            return Negation(self.bare_argument(token))
        self.depth += 1
        if self.depth > MAX_NESTING:
            raise self.fail(f"This is nested more than {MAX_NESTING} levels deep.")
        argument = self.power()
        while self.starts_factor() and not self._at_function():
            self._refuse_two_numbers()
            argument = Product(argument, self.power())
        self.depth -= 1
        return argument

    # Help

    def _at_function(self) -> bool:
        name = self.token.text
        known = name in self.words or name in self.scope.functions or logarithm_base(name)
        return self.token.kind == "name" and bool(known) and name not in self.scope.values

    def _base(self, base: str, token: Token) -> Expression:
        if base.isdigit():
            return Number(base)
        if base in self.constants:
            return Constant(self.constants[base])
        return Name(base, (token.start, token.end))

    def _expect_operand(self, sign: Token) -> None:
        if self.token.kind == "end" or self.sees(")", ",", "for", "="):
            raise self.fail(f"Something is missing after {_shown(sign.text)}.", sign)

    def _refuse_two_numbers(self) -> None:
        before = self.found[self.at - 1]
        if self.token.kind == "number" and before.kind == "number":
            message = (
                f"Two numbers stand side by side: {before.text} and {self.token.text}. "
                "Is a sign missing between them?"
            )
            raise LanguageError(message, before.start, self.token.end)

    def _unexpected(self) -> LanguageError:
        token = self.token
        if token.kind == "end":
            return self.fail("The line ends too early.")
        if self.sees(")"):
            mend = self.text[: token.start].rstrip() + self.text[token.end :]
            return self.fail("This bracket closes nothing.", mend=mend)
        if self.sees("[", "]", "{", "}"):
            return self.fail(f"“{token.text}” has no meaning here: use round brackets.")
        if self.sees("'"):
            return self.fail("Derivatives cannot be written with ′ here yet.")
        if self.sees(*"*/^+-"):
            return self.fail(f"Something is missing before {_shown(token.text)}.")
        return self.fail(f"“{_shown(token.text)}” cannot stand here.")

    def finish(self) -> None:
        """Refuse whatever is left over."""
        if self.token.kind != "end":
            raise self._unexpected()


def _parts(token: Token, scope: Scope) -> list[Token]:
    if token.kind != "name":
        return [token]
    words = split(token.text, scope)
    if len(words) == 1:
        return [token]
    found, at = [], token.start
    for word in words:
        found.append(Token("name", word, at, at + len(word)))
        at += len(word)
    return found


def _shown(sign: str) -> str:
    return {"*": "×", "/": "÷", "-": "−", "<=": "≤", ">=": "≥", "!=": "≠"}.get(sign, sign)


def _wrong_count(name: str, wanted: int, given: int) -> str:
    need = "one argument" if wanted == 1 else f"{wanted} arguments"
    have = "one is" if given == 1 else f"{given} are"
    return f"{name} takes {need}, but {have} given."
