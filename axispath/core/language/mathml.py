"""MathML, so that a formula is on the page before any script runs, and for screen readers."""

from __future__ import annotations

from html import escape

from axispath.core.language.notation import write, write_statement
from axispath.core.language.tree import Expression, Statement
from axispath.core.language.vocabulary import Shape, Vocabulary, Word

_SIGNS = {"'": "′", "neg": "−", "-": "−", "in": "∈"}


class MathML:
    """Presentation MathML (MathML Core)."""

    def __init__(self, vocabulary: Vocabulary) -> None:
        self.vocabulary = vocabulary

    fractions = True

    def number(self, text: str) -> str:
        """A decimal number."""
        return f"<mn>{escape(text)}</mn>"

    def name(self, name: str) -> str:
        """A name, its subscript lowered."""
        head, bar, index = name.partition("_")
        shown = f"<mi>{escape(head)}</mi>"
        return f"<msub>{shown}<mi>{escape(index)}</mi></msub>" if bar else shown

    def sign(self, sign: str) -> str:
        """A sign or a word."""
        if sign == "shown in":
            return "<mtext>&#160;in&#160;</mtext>"
        if sign in ("for", "and", "or", "to"):
            return f"<mtext>&#160; {sign} &#160;</mtext>"
        return f"<mo>{escape(_SIGNS.get(sign, sign))}</mo>"

    def join(self, parts: list[str]) -> str:
        """Parts side by side."""
        return parts[0] if len(parts) == 1 else f"<mrow>{''.join(parts)}</mrow>"

    def times(self, left: str, right: str, written: bool) -> str:
        """A product."""
        return f"<mrow>{left}<mo>{'·' if written else '&#8290;'}</mo>{right}</mrow>"

    def over(self, top: str, bottom: str) -> str:
        """A fraction."""
        return f"<mfrac>{top}{bottom}</mfrac>"

    def power(self, base: str, exponent: str) -> str:
        """A power."""
        return f"<msup>{base}{exponent}</msup>"

    def bracket(self, inner: str, opening: str = "(", closing: str = ")") -> str:
        """Brackets."""
        return f"<mrow><mo>{opening}</mo>{inner}<mo>{closing}</mo></mrow>"

    def apply(self, word: Word, arguments: list[str]) -> str:
        """A function with its arguments."""
        match word.shape:
            case Shape.ROOT:
                return f"<msqrt>{arguments[0]}</msqrt>"
            case Shape.INDEXED_ROOT:
                return f"<mroot>{arguments[1]}{arguments[0]}</mroot>"
            case Shape.BARS:
                return self.bracket(arguments[0], "|", "|")
            case Shape.BASE:
                head = f"<msub><mi>log</mi>{arguments[0]}</msub>"
                return f"<mrow>{head}{self.bracket(arguments[1])}</mrow>"
            case Shape.DEGREES:
                return f"<mrow>{arguments[0]}<mo>°</mo></mrow>"
            case Shape.FACTORIAL:
                return f"<mrow>{self.bracket(arguments[0])}<mo>!</mo></mrow>"
            case Shape.FLOOR:
                return self.bracket(arguments[0], "⌊", "⌋")
            case Shape.CEILING:
                return self.bracket(arguments[0], "⌈", "⌉")
            case Shape.TRANSPOSED:
                simple = arguments[0].count("<") <= 2
                base = arguments[0] if simple else self.bracket(arguments[0])
                return f"<msup>{base}<mi mathvariant='normal'>T</mi></msup>"
            case Shape.ENTRYWISE:
                sides = [a if a.count("<") <= 2 else self.bracket(a) for a in arguments]
                return self.bracket(f"{sides[0]}<mo>∘</mo>{sides[1]}")
        given = "<mo>,</mo>".join(arguments)
        return f"<mrow><mi>{word.name}</mi><mo>&#8289;</mo>{self.bracket(given)}</mrow>"

    def cases(self, rows: list[tuple[str, str | None]]) -> str:
        """Cases behind a brace."""
        lines = "".join(
            f"<mtr><mtd>{value}</mtd><mtd>{self._condition(condition)}</mtd></mtr>"
            for value, condition in rows
        )
        return f'<mrow><mo>{{</mo><mtable columnalign="left">{lines}</mtable></mrow>'

    def _condition(self, condition: str | None) -> str:
        if condition is None:
            return "<mtext>otherwise</mtext>"
        return f"<mrow><mtext>if&#160;</mtext>{condition}</mrow>"

    def series(self, kind: str, body: str, index: str, low: str, high: str) -> str:
        """A sum or a product over a range."""
        sign = "∑" if kind == "sum" else "∏"
        below = f"<mrow>{index}<mo>=</mo>{low}</mrow>"
        return f"<mrow><munderover><mo>{sign}</mo>{below}{high}</munderover>{body}</mrow>"

    def unit(self, symbol: str) -> str:
        """A unit, upright."""
        return f"<mi mathvariant='normal'>{escape(symbol)}</mi>"

    def grid(self, rows: list[list[str]]) -> str:
        """A matrix in square brackets."""
        lines = (f"<mtr>{''.join(f'<mtd>{v}</mtd>' for v in row)}</mtr>" for row in rows)
        return self.bracket(f"<mtable>{''.join(lines)}</mtable>", "[", "]")

    def running(
        self, function: str, body: str, index: str, ends: list[str], arguments: list[str], side: str
    ) -> str:
        """An integral, a limit, a derivative; what has no sign of its own by its name."""
        d = "<mi mathvariant='normal'>d</mi>"
        match function, ends:
            case "integral", [low, high]:
                sign = f"<msubsup><mo>∫</mo>{low}{high}</msubsup>"
                return f"<mrow>{sign}{body}<mspace width='0.2em'/>{d}{index}</mrow>"
            case "limit", [at]:
                way = {"left": "<mo>−</mo>", "right": "<mo>+</mo>"}.get(side)
                there = f"<msup>{at}{way}</msup>" if way else at
                below = f"<mrow>{index}<mo>→</mo>{there}</mrow>"
                return f"<mrow><munder><mo>lim</mo>{below}</munder>{body}</mrow>"
            case "derivative", []:
                quotient = f"<mfrac>{d}<mrow>{d}{index}</mrow></mfrac>"
                return f"<mrow>{quotient}{self.bracket(body)}</mrow>"
            case "sum", [low, high]:
                return self.series("sum", body, index, low, high)
        ranged = f"<mrow>{'<mo>=</mo>'.join([index, *ends])}</mrow>"
        first = f"<mrow>{body}{self.sign('for')}{ranged}</mrow>"
        given = "<mo>,</mo>".join([first, *arguments])
        return f"<mrow><mi>{function}</mi><mo>&#8289;</mo>{self.bracket(given)}</mrow>"


def mathml(node: Expression, vocabulary: Vocabulary) -> str:
    """An expression as a whole ``math`` element."""
    return _whole(write(node, MathML(vocabulary)))


def mathml_statement(statement: Statement, vocabulary: Vocabulary, name: str | None = None) -> str:
    """A statement as a whole ``math`` element."""
    return _whole(write_statement(statement, MathML(vocabulary), name))


def _whole(written: str) -> str:
    return f'<math xmlns="http://www.w3.org/1998/Math/MathML">{written}</math>'
