"""The tokens of a line, moved along one by one, and what is said where they do not fit."""

from __future__ import annotations

import itertools
import sys

from axispath.core.language.errors import LanguageError
from axispath.core.language.foreign import refuse_foreign
from axispath.core.language.scope import Scope, split
from axispath.core.language.tokens import GREEK, Token

MAX_NESTING = 200
# One level of brackets takes seven frames of this parser, and a long chain of factors one
# frame each in whoever walks the tree; pure Python frames do not use the C stack.
DEEPEST = 12_000

COMPARING = ("<", "<=", ">", ">=", "=", "!=")
NO_COMMA = "A comma cannot stand here; decimals are written with a point."


class Cursor:
    """Moves ``at`` along a list of tokens."""

    def __init__(self, text: str, tokens: list[Token], scope: Scope) -> None:
        if sys.getrecursionlimit() < DEEPEST:  # a process that reads lines walks their trees too
            sys.setrecursionlimit(DEEPEST)
        self.text = text
        self.scope = scope
        self.words = scope.vocabulary.functions
        self.constants = scope.vocabulary.constants
        refuse_foreign(text, tokens, scope)
        self.tokens = [
            part
            for before, token in zip((None, *tokens), tokens, strict=False)
            for part in _parts(token, scope, before)
        ]
        self.measured = self._has_units()
        self.at = 0
        self.depth = 0
        self.bars = 0
        self.opening_bars: set[int] = set()

    def _has_units(self) -> bool:
        """Whether the line has a unit: only then single letters are constants of nature."""
        vocabulary, scope = self.scope.vocabulary, self.scope
        if not vocabulary.units or scope.measured:
            return scope.measured
        pairs = itertools.pairwise(self.tokens)
        return any(
            (first.kind == "number" and second.kind == "name" and vocabulary.is_unit(second.text))
            and not (second.text in scope.values or second.text in scope.functions)
            for first, second in pairs
        ) or any(
            (token.kind == "keyword" and token.text == "in")
            or (token.kind == "name" and scope.is_whole_unit(token.text))
            for token in self.tokens[1:]
        )

    @property
    def token(self) -> Token:
        """The token not yet taken."""
        return self.tokens[self.at]

    def take(self) -> Token:
        """The next token, taken."""
        token = self.tokens[self.at]
        self.at = min(self.at + 1, len(self.tokens) - 1)
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

    def expect_operand(self, sign: Token) -> None:
        """Refuse a sign after which nothing comes."""
        if self.token.kind == "end" or self.sees(")", ",", "for", "="):
            mend = self.without(sign)
            raise self.fail(f"Something is missing after {_shown(sign.text)}.", sign, mend)

    def without(self, token: Token) -> str:
        """The line without a token."""
        rest = self.text[token.end :]
        if rest.lstrip()[:1] in (")", ","):
            rest = rest.lstrip()
        return self.text[: token.start].rstrip() + rest

    def refuse_two_numbers(self, measured: bool = False) -> None:
        """Refuse a number right after another, or after a unit: 5 ft 3 inch is a sum to some."""
        before = self.tokens[self.at - 1]
        if self.token.kind == "number" and measured:
            between = f"{self.text[: before.end]} + {self.text[self.token.start :]}"
            raise LanguageError(
                f"A quantity stands right after another: write + or · before {self.token.text}.",
                before.start,
                self.token.end,
                between,
            )
        if self.token.kind == "number" and before.kind == "number":
            message = (
                f"Two numbers stand side by side: {before.text} and {self.token.text}. "
                "Is a sign missing between them?"
            )
            raise LanguageError(message, before.start, self.token.end)

    def unexpected(self) -> LanguageError:
        """What is wrong with the next token where it stands."""
        token = self.token
        if token.kind == "end":
            return self.fail("The line ends too early.")
        if self.sees(")"):
            return self.fail("This bracket closes nothing.", mend=self.without(token))
        if self.sees(";"):
            return self.fail("A semicolon stands only between the rows of a matrix.")
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
        rest = self.tokens[self.at + 1 :]
        inside = any(t.text == "(" for t in self.tokens[: self.at])
        if not inside and any(t.text in COMPARING and t.kind == "sign" for t in rest):
            message = "A condition on x is written with “for”: x^2 for x < 0."
            mend = f"{self.text[: token.start].rstrip()} for {self.text[token.end :].lstrip()}"
            return self.fail(message, mend=mend)
        return self.fail(NO_COMMA, mend=with_points(self.text, self.tokens, token))

    def finish(self) -> None:
        """Refuse whatever is left over."""
        if self.token.kind != "end":
            raise self.unexpected()


def _parts(token: Token, scope: Scope, before: Token | None) -> list[Token]:
    if token.kind != "name":
        return [token]
    if before is not None and before.kind == "number" and scope.vocabulary.is_unit(token.text):
        return [token]  # 5 kg, whatever k and g are
    if before is not None and scope.is_whole_unit(token.text):
        return [token]
    words = split(token.text, scope)
    if len(words) == 1:
        return [token]
    found, at = [], token.start
    for word in words:
        found.append(Token("name", GREEK.get(word, word), at, at + len(word)))
        at += len(word)
    return found


def with_points(text: str, tokens: list[Token], comma: Token) -> str | None:
    """The line with points for decimal commas, where ``comma`` is one: 2,5 without a space."""
    places = []
    for before, sign, after in zip(tokens, tokens[1:], tokens[2:], strict=False):
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
