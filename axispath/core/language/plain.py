"""One-line text that reads back as the same tree."""

from __future__ import annotations

from axispath.core.language.notation import write, write_statement
from axispath.core.language.numbers import MINUS
from axispath.core.language.tree import Expression, Statement
from axispath.core.language.vocabulary import Shape, Vocabulary, Word

_SIGNS = {
    "neg": "-",
    "'": "'",
    "≠": " != ",
    "≤": " <= ",
    "≥": " >= ",
    "for": " for ",
    ",": ", ",
    ";": "; ",
    "in": " in ",
    "shown in": " in ",
}


class Plain:
    """ASCII where there is one, such as ``2 sin(3 x) - 1``."""

    def __init__(self, vocabulary: Vocabulary) -> None:
        self.vocabulary = vocabulary

    fractions = False

    def number(self, text: str) -> str:
        """A decimal number."""
        return text

    def name(self, name: str) -> str:
        """A name or a constant."""
        return name

    def sign(self, sign: str) -> str:
        """A sign with its spaces."""
        return _SIGNS.get(sign, f" {sign} ")

    def join(self, parts: list[str]) -> str:
        """Parts side by side."""
        return "".join(parts)

    def times(self, left: str, right: str, written: bool) -> str:
        """A product."""
        return f"{left} * {right}" if written else f"{left} {right}"

    def over(self, top: str, bottom: str) -> str:
        """A quotient."""
        return f"{top} / {bottom}"

    def power(self, base: str, exponent: str) -> str:
        """A power."""
        return f"{base}^{exponent}"

    def bracket(self, inner: str, opening: str = "(", closing: str = ")") -> str:
        """Something in brackets."""
        return f"{opening}{inner}{closing}"

    def apply(self, word: Word, arguments: list[str]) -> str:
        """A function with its arguments."""
        if word.shape is Shape.DEGREES:
            simple = arguments[0].replace(".", "").isalnum()
            return f"{arguments[0]}°" if simple else f"({arguments[0]})°"
        if word.shape is Shape.FACTORIAL:
            simple = arguments[0].replace(".", "").isalnum()
            return f"{arguments[0]}!" if simple else f"({arguments[0]})!"
        if word.shape is Shape.BASE:
            return f"log_{arguments[0]}({arguments[1]})"
        return f"{word.name}({', '.join(arguments)})"

    def cases(self, rows: list[tuple[str, str | None]]) -> str:
        """Cases on one line."""
        return ", ".join(f"{v} otherwise" if c is None else f"{v} if {c}" for v, c in rows)

    def series(self, kind: str, body: str, index: str, low: str, high: str) -> str:
        """A sum or a product over a range."""
        return f"{kind}({body} for {index} = {low} to {high})"

    def unit(self, symbol: str) -> str:
        """A unit by its symbol."""
        return symbol

    def grid(self, rows: list[list[str]]) -> str:
        """A matrix, its rows behind one another."""
        return f"[{'; '.join(', '.join(row) for row in rows)}]"

    def running(
        self, function: str, body: str, index: str, ends: list[str], arguments: list[str], side: str
    ) -> str:
        """A function of a formula, as it is typed."""
        sign = " to " if function == "limit" else " = "
        ranged = f"{sign}{' to '.join(ends)}" if ends else ""
        others = "".join(f", {one}" for one in (*arguments, *([side] if side else [])))
        return f"{function}({body} for {index}{ranged}{others})"


def plain(node: Expression, vocabulary: Vocabulary) -> str:
    """An expression on one line."""
    return write(node, Plain(vocabulary))


def plain_statement(statement: Statement, vocabulary: Vocabulary, name: str | None = None) -> str:
    """A statement on one line."""
    return write_statement(statement, Plain(vocabulary), name)


def fair(written: str) -> str:
    """Plain text with the signs that are read rather than typed: ≤, −, ·."""
    for typed, read in (("<=", "≤"), (">=", "≥"), ("!=", "≠"), ("-", MINUS), ("*", "·")):
        written = written.replace(typed, read)
    return written
