"""Tokens to tree, by precedence climbing.

From loosest to tightest: sums; products, quotients and side-by-side products, all alike
and from the left; a leading sign; powers, from the right; what is in brackets.
"""

from __future__ import annotations

from axispath.core.language.cursor import COMPARING
from axispath.core.language.errors import LanguageError
from axispath.core.language.measured import ends_in_unit, ends_measured
from axispath.core.language.points import from_polar
from axispath.core.language.tokens import FRACTIONS, Token
from axispath.core.language.tree import (
    Apply,
    Cases,
    Comparison,
    Converted,
    Expression,
    ListOf,
    MatrixOf,
    Negation,
    Number,
    Pair,
    Part,
    Power,
    Product,
    Quotient,
    Stretch,
    Sum,
    UnitOf,
)
from axispath.core.language.units import TEMPERATURES, Units
from axispath.core.language.walking import free_names, walk

HIGHEST_DERIVATIVE = 4
CLOSING = {"(": ")", "|": "|", "[": "]"}
RUNNING = ("sum", "product")


class Parser(Units):
    """Reads expressions from a list of tokens, moving ``at`` along."""

    # Cases and comparisons

    def whole(self) -> Expression:
        """An expression, or several with conditions."""
        first = self.expression()
        if self.sees("in") and self.scope.vocabulary.yielding:
            self.take()
            return Converted(first, self.units())
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
            self.expect_operand(sign)
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
            self.expect_operand(sign)
            term = self.product()
            terms.append(Negation(term) if sign.text == "-" else term)
        return terms[0] if len(terms) == 1 else Sum(tuple(terms))

    def product(self) -> Expression:
        """Factors, written out or side by side, from the left."""
        left = self.signed()
        while True:
            if self.sees("*", "/"):
                sign = self.take()
                self.expect_operand(sign)
                if ends_in_unit(left) and self.at_units_in_brackets():
                    right = self.units_in_brackets()
                else:
                    unit = ends_in_unit(left) and self.at_unit()
                    right = self.unit() if unit else self.signed()
                left = Quotient(left, right) if sign.text == "/" else Product(left, right)
            elif self.sees("∘"):
                self.expect_operand(self.take())
                left = Apply("entrywise", (left, self.signed()))
            elif self.at_unit(behind_number=True) and (
                ends_measured(left) or self.scope.is_whole_unit(self.token.text)
            ):
                left = Product(left, self.unit())
            elif self.starts_factor():
                self.refuse_two_numbers(measured=ends_in_unit(left))
                left = Product(left, self.power())
            else:
                return left

    def signed(self) -> Expression:
        """A power with any leading signs."""
        self.go_deeper()
        try:
            if self.sees("-", "+"):
                sign = self.take()
                self.expect_operand(sign)
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
            self.expect_operand(sign)
            if self.token.text == "T" and not self.scope.knows("T") and _could_be_matrix(base):
                self.take()
                return self.raised(Apply("transpose", (base,)))
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
            return self.marked(self.indexed(self.word()))
        if self.sees("("):
            return self.marked(self.indexed(self.bracketed()))
        if self.sees("["):
            return self.indexed(self.list_of())
        if self.sees("|"):
            return self.marked(self.absolute())
        if self.sees("√", "∛"):
            sign = self.take()
            self.expect_operand(sign)
            self.go_deeper()
            operand = self.power()
            self.depth -= 1
            return Apply("sqrt" if sign.text == "√" else "cbrt", (operand,))
        raise self.unexpected()

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
            after = self.tokens[self.at + 1]
            lines = bool(self.scope.vocabulary.yielding)
            if self.sees("°") and lines and after.text in TEMPERATURES and after.kind == "name":
                self.take()
                return Product(value, UnitOf(f"°{self.take().text}"))
            value = Apply("degrees" if self.take().text == "°" else "factorial", (value,))
        return value

    def indexed(self, base: Expression) -> Expression:
        """``base`` with the entries that are asked for in brackets right behind it."""
        while self.sees("[") and self.tokens[self.at - 1].end == self.token.start:
            rows = self.entries()
            if len(rows) > 1 or len(rows[0]) > 2 or not rows[0]:
                # No place in a list or a matrix: a product, as with a space between.
                return Product(base, _list_or_matrix(rows))
            base = Part(base, rows[0])
        return base

    def list_of(self) -> Expression:
        """Values in square brackets: a list, or with semicolons the rows of a matrix."""
        opening = self.token
        rows = self.entries()
        if len(rows) > 1 and len({len(row) for row in rows}) > 1:
            counts = ", ".join(str(len(row)) for row in rows)
            message = f"The rows of a matrix are equally long; here they have {counts} entries."
            raise self.fail(message, opening)
        return _list_or_matrix(rows)

    def entries(self) -> list[tuple[Expression, ...]]:
        """What stands in square brackets, by its semicolons."""
        opening = self.take()
        outer, self.bars = self.bars, 0
        rows: list[list[Expression]] = [[]]
        if not self.sees("]"):
            rows[0].append(self.entry())
        while self.sees(",", ";"):
            if self.take().text == ";":
                rows.append([])
            rows[-1].append(self.entry())
        self.close(opening, "This square bracket is still open.")
        self.bars = outer
        return [tuple(row) for row in rows]

    def entry(self) -> Expression:
        """A value, or whole numbers one after the other."""
        low = self.expression()
        if not self.sees("to"):
            return low
        self.take()
        return Stretch(low, self.expression())

    def bracketed(self) -> Expression:
        """An expression in round brackets."""
        opening = self.take()
        before = self.tokens[self.at - 2] if self.at > 1 else None
        outer, self.bars = self.bars, 0
        if self.sees(")"):
            raise self.fail("There is nothing between these brackets.", opening)
        inner = self.whole()
        if self.sees(",") and before and before.kind == "name" and before.end == opening.start:
            message = f"{before.text} is not a function here, so it cannot take several arguments."
            raise self.fail(message, before)
        if self.sees(","):
            comma = self.take()
            inner = Pair(inner, self.expression(), (comma.start, comma.end))
            if self.sees(","):
                raise self.fail("A point of the plane has two coordinates.")
        elif self.sees(";"):
            sign = self.take()
            angle = self.expression()
            polar = (inner, angle)
            inner = Pair(*from_polar(inner, angle), (sign.start, sign.end), polar)
        self.close(opening, "This bracket is still open.")
        self.bars = outer
        return inner

    def absolute(self) -> Expression:
        """An absolute value between bars."""
        # A bar behind a bare number opens a new one if it can: |2|x| - 1| measures 2|x| - 1,
        # as nobody measures a number that is written out.
        inside = self.at + 2
        if self.tokens[self.at + 1].kind == "number" and self.tokens[inside].text == "|":
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
        raise self.unexpected()


def _list_or_matrix(rows: list[tuple[Expression, ...]]) -> Expression:
    return ListOf(rows[0]) if len(rows) == 1 else MatrixOf(tuple(rows))


def _could_be_matrix(base: Expression) -> bool:
    """Whether a raised T can mean the transposed matrix: of brackets, or a capital letter."""
    named = (node.name for node in free_names(base))
    capital = any(name[:1].isupper() for name in named)
    return capital or any(isinstance(node, MatrixOf) for node in walk(base))


def _fraction(token: Token) -> Expression:
    top, bottom = FRACTIONS[token.text]
    return Quotient(Number(str(top)), Number(str(bottom)))
