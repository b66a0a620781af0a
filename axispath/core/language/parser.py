"""Tokens to tree, by precedence climbing.

From loosest to tightest: sums; products, quotients and side-by-side products, all alike
and from the left; a leading sign; powers, from the right; what is in brackets.
"""

from __future__ import annotations

import itertools
import sys

from axispath.core.language.errors import LanguageError
from axispath.core.language.foreign import refuse_foreign
from axispath.core.language.scope import Scope, logarithm_base, split
from axispath.core.language.tokens import FRACTIONS, GREEK, Token
from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Constant,
    Expression,
    ListOf,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Series,
    Sum,
)
from axispath.core.language.vocabulary import Word

MAX_NESTING = 200
# One level of brackets takes seven frames of this parser, and a long chain of factors one
# frame each in whoever walks the tree; pure Python frames do not use the C stack.
sys.setrecursionlimit(max(sys.getrecursionlimit(), 12_000))

CLOSING = {"(": ")", "|": "|", "[": "]"}
COMPARING = ("<", "<=", ">", ">=", "=", "!=")
RUNNING = ("sum", "product")
NO_COMMA = "A comma cannot stand here; decimals are written with a point."
HIGHEST_DERIVATIVE = 4


class Parser:
    """Reads expressions from a list of tokens, moving ``at`` along."""

    def __init__(self, text: str, found: list[Token], scope: Scope) -> None:
        self.text = text
        self.scope = scope
        self.words = scope.vocabulary.functions
        self.constants = scope.vocabulary.constants
        refuse_foreign(text, found, scope)
        self.found = [part for token in found for part in _parts(token, scope)]
        self.at = 0
        self.depth = 0
        self.bars = 0
        self.opening_bars: set[int] = set()

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

    def go_deeper(self) -> None:
        """Enter one level of nesting; whoever enters takes it back from ``depth``."""
        self.depth += 1
        if self.depth > MAX_NESTING:
            raise self.fail(f"This is nested more than {MAX_NESTING} levels deep.")

    # Cases and comparisons

    def whole(self) -> Expression:
        """An expression, or several with conditions."""
        first = self.expression()
        return self.cases(first) if self.sees("if") else first

    def cases(self, first: Expression) -> Expression:
        """``first if …, second if …, third otherwise``, from the first ``if`` on."""
        values, conditions = [first], []
        while True:
            opening = self.take()
            if self.token.kind == "end":
                raise self.fail("The condition is missing after if.", opening)
            conditions.append(self.comparison())
            if not self.sees(","):
                return Cases(tuple(values), tuple(conditions), None)
            self.take()
            if self.sees("otherwise"):
                self.take()
                return Cases(tuple(values), tuple(conditions), self.expression())
            value = self.expression()
            if self.sees("otherwise"):
                self.take()
                return Cases(tuple(values), tuple(conditions), value)
            if not self.sees("if"):
                raise self.fail("After this value, write “if” and a condition, or “otherwise”.")
            values.append(value)

    def comparison(self) -> Comparison:
        """A condition: a chain of comparisons."""
        operands, signs = [self.expression()], []
        while self.sees(*COMPARING):
            sign = self.take()
            self._expect_operand(sign)
            signs.append(sign.text)
            operands.append(self.expression())
        if not signs:
            raise self.fail("A condition compares two things, such as x < 0.")
        if self.sees("and"):
            raise self.fail("Write both limits as one chain, such as 0 < x < 2.")
        return Comparison(tuple(operands), tuple(signs))

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
        self.go_deeper()
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
        if token.kind in ("number", "name", "fraction"):
            return True
        if token.kind != "sign":
            return False
        opens_bar = token.text == "|" and (self.bars == 0 or self.at in self.opening_bars)
        return token.text in ("(", "√", "∛", "[") or opens_bar

    def factor(self) -> Expression:
        """A number, a name, a function with its argument, or something in brackets."""
        token = self.token
        if token.kind == "number":
            return self.marked(self.number())
        if token.kind == "fraction":
            return self.marked(_fraction(self.take()))
        if token.kind == "name":
            return self.marked(self.word())
        if self.sees("("):
            return self.marked(self.bracketed())
        if self.sees("["):
            return self.list_of()
        if self.sees("|"):
            return self.marked(self.absolute())
        if self.sees("√", "∛"):
            sign = self.take()
            self._expect_operand(sign)
            self.go_deeper()
            operand = self.power()
            self.depth -= 1
            return Apply("sqrt" if sign.text == "√" else "cbrt", (operand,))
        raise self._unexpected()

    def number(self) -> Expression:
        """A number; a raised fraction right behind it is added, as in 2½."""
        token = self.take()
        number = Number(token.text)
        if self.token.kind == "fraction" and self.token.start == token.end:
            return Sum((number, _fraction(self.take())))
        return number

    def marked(self, value: Expression) -> Expression:
        """``value`` with the degree signs and factorial signs that follow."""
        while self.sees("°", "!"):
            value = Apply("degrees" if self.take().text == "°" else "factorial", (value,))
        return value

    def list_of(self) -> Expression:
        """Values in square brackets."""
        opening = self.take()
        outer, self.bars = self.bars, 0
        items = [] if self.sees("]") else [self.expression()]
        while self.sees(","):
            self.take()
            items.append(self.expression())
        if self.sees(";"):
            raise self.fail("Matrices cannot be used here; a list has commas between its values.")
        self.close(opening, "This square bracket is still open.")
        self.bars = outer
        return ListOf(tuple(items))

    def bracketed(self) -> Expression:
        """An expression in round brackets."""
        opening = self.take()
        before = self.found[self.at - 2] if self.at > 1 else None
        outer, self.bars = self.bars, 0
        if self.sees(")"):
            raise self.fail("There is nothing between these brackets.", opening)
        inner = self.whole()
        if self.sees(",") and before and before.kind == "name" and before.end == opening.start:
            message = f"{before.text} is not a function here, so it cannot take several arguments."
            raise self.fail(message, before)
        self.close(opening, "This bracket is still open.")
        self.bars = outer
        return inner

    def absolute(self) -> Expression:
        """An absolute value between bars."""
        # A bar behind a bare number opens a new one if it can: |2|x| - 1| measures 2|x| - 1,
        # as nobody measures a number that is written out.
        inside = self.at + 2
        if self.found[self.at + 1].kind == "number" and self.found[inside].text == "|":
            before = self.at, self.depth, self.bars
            self.opening_bars.add(inside)
            try:
                return self._measured()
            except LanguageError:
                self.at, self.depth, self.bars = before
            finally:
                self.opening_bars.discard(inside)
        return self._measured()

    def _measured(self) -> Expression:
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
        if self.sees("'", "″"):
            # Only functions have primes, so this is one that somebody has yet to define.
            order = self.primes()
            if not self.sees("("):
                raise self.fail(f"After {name}′ comes an argument: {name}′(x).", token)
            return Call(name, self.arguments(token), order, place)
        return Name(name, place)

    def call(self, token: Token) -> Expression:
        """A function of the sheet, perhaps with primes, and its arguments."""
        order = self.primes()
        if not self.sees("("):
            written = token.text + "′" * order
            message = f"{written} is a function here: write {written}(x), or another argument."
            end = self.found[self.at - 1].end
            raise self.fail(message, token, f"{self.text[:end]}(x){self.text[end:]}")
        arguments = self.arguments(token)
        wanted = self.scope.functions[token.text]
        if len(arguments) != wanted:
            signature = self.scope.signatures.get(token.text, "")
            comma = next(t for t in self.found[self.found.index(token) :] if t.text in (",", ")"))
            mend = with_points(self.text, self.found, comma)
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
        if token.text in RUNNING:
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
        while self.sees(","):
            comma = self.take()
            if self.sees(")", ","):
                mend = self._without(comma)
                raise self.fail("An argument is missing after this comma.", comma, mend)
            found.append(self.expression())
        self.close(opening, f"The bracket after {token.text} is still open.")
        self.bars = outer
        self.scope = scope
        return tuple(found)

    def _running_index(self) -> tuple[str, ...]:
        """The index of a sum, which stands behind the term that uses it."""
        depth = 0
        for token, after in itertools.pairwise(self.found[self.at :]):
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
        return Series(kind, body, index.text, low, self.expression())

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
        if len(given) == 1 and isinstance(given[0], Series) and given[0].kind == token.text:
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
        if base[0].isdigit() or base[0] == ".":
            return Number(base)
        if base in self.constants:
            return Constant(self.constants[base])
        return Name(base, (token.start, token.end))

    def _expect_operand(self, sign: Token) -> None:
        if self.token.kind == "end" or self.sees(")", ",", "for", "="):
            mend = self._without(sign)
            raise self.fail(f"Something is missing after {_shown(sign.text)}.", sign, mend)

    def _without(self, token: Token) -> str:
        """The line without a token."""
        rest = self.text[token.end :]
        if rest.lstrip()[:1] in (")", ","):
            rest = rest.lstrip()
        return self.text[: token.start].rstrip() + rest

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
            return self.fail("This bracket closes nothing.", mend=self._without(token))
        if self.sees("]", "{", "}"):
            return self.fail(f"“{token.text}” has no meaning here: use round brackets.")
        if self.sees("'", "″"):
            return self.fail("A prime stands only after the name of a function: f′(x).")
        if self.sees(","):
            return self._stray_comma(token)
        if self.sees(*"*/^+-"):
            return self.fail(f"Something is missing before {_shown(token.text)}.")
        return self.fail(f"“{_shown(token.text)}” cannot stand here.")

    def _stray_comma(self, token: Token) -> LanguageError:
        rest = self.found[self.at + 1 :]
        inside = any(t.text == "(" for t in self.found[: self.at])
        if not inside and any(t.text in COMPARING and t.kind == "sign" for t in rest):
            message = "A condition on x is written with “for”: x^2 for x < 0."
            mend = f"{self.text[: token.start].rstrip()} for {self.text[token.end :].lstrip()}"
            return self.fail(message, mend=mend)
        return self.fail(NO_COMMA, mend=with_points(self.text, self.found, token))

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
        found.append(Token("name", GREEK.get(word, word), at, at + len(word)))
        at += len(word)
    return found


def with_points(text: str, found: list[Token], comma: Token) -> str | None:
    """The line with points for decimal commas, where ``comma`` is one: 2,5 without a space."""
    places = []
    for before, sign, after in zip(found, found[1:], found[2:], strict=False):
        touching = before.end == sign.start and sign.end == after.start
        digits = before.text.isdigit() and after.text.isdigit()
        if sign.text == "," and touching and digits:
            places.append(sign)
    if comma not in places:
        return None
    for sign in reversed(places):
        text = f"{text[: sign.start]}.{text[sign.end :]}"
    return text


def _shown(sign: str) -> str:
    return {"*": "×", "/": "÷", "-": "−", "<=": "≤", ">=": "≥", "!=": "≠"}.get(sign, sign)


def _fraction(token: Token) -> Expression:
    top, bottom = FRACTIONS[token.text]
    return Quotient(Number(str(top)), Number(str(bottom)))


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
