"""LaTeX, for the typeset formulas on the page."""

from __future__ import annotations

from axispath.core.language.notation import write, write_statement
from axispath.core.language.tree import Expression, Statement
from axispath.core.language.vocabulary import Shape, Vocabulary, Word

GREEK = {
    "π": r"\pi ",
    "θ": r"\theta ",
    "α": r"\alpha ",
    "β": r"\beta ",
    "γ": r"\gamma ",
    "δ": r"\delta ",
    "λ": r"\lambda ",
    "μ": r"\mu ",
    "ω": r"\omega ",
    "φ": r"\varphi ",
    "σ": r"\sigma ",
    "τ": r"\tau ",
    "∞": r"\infty ",
    "-∞": r"-\infty ",
}
_SIGNS = {
    "neg": "-",
    "'": "'",
    "≠": r" \ne ",
    "≤": r" \le ",
    "≥": r" \ge ",
    "for": r"\quad\text{for}\ \ ",
    ",": ",\\,",
    ";": ";\\,",
    "in": r" \in ",
    "shown in": r"\ \text{in}\ ",
    "and": r"\quad\text{and}\quad ",
    "or": r"\quad\text{or}\quad ",
    "to": r"\ \text{to}\ ",
}


class Latex:
    """LaTeX as KaTeX reads it."""

    def __init__(self, vocabulary: Vocabulary) -> None:
        self.vocabulary = vocabulary

    fractions = True

    def number(self, text: str) -> str:
        """A decimal number; a power of ten is written out."""
        mantissa, mark, exponent = text.lower().partition("e")
        return rf"{mantissa}\cdot 10^{{{int(exponent)}}}" if mark else mantissa

    def name(self, name: str) -> str:
        """A letter in italics, a word upright, a subscript lowered."""
        head, bar, index = name.partition("_")
        shown = GREEK.get(head) or (head if len(head) == 1 else rf"\mathrm{{{head}}}")
        return rf"{shown}_{{\mathrm{{{index}}}}}" if bar else shown

    def sign(self, sign: str) -> str:
        """A sign."""
        return _SIGNS.get(sign, f" {sign} ")

    def join(self, parts: list[str]) -> str:
        """Parts side by side."""
        return "".join(parts)

    def times(self, left: str, right: str, written: bool) -> str:
        """A product."""
        return rf"{left} \cdot {right}" if written else rf"{left}\,{right}"

    def over(self, top: str, bottom: str) -> str:
        """A fraction."""
        return rf"\frac{{{top}}}{{{bottom}}}"

    def power(self, base: str, exponent: str) -> str:
        """A power."""
        return rf"{{{base}}}^{{{exponent}}}"

    def bracket(self, inner: str, opening: str = "(", closing: str = ")") -> str:
        """Brackets as tall as what they hold."""
        tall = "\\frac" in inner or "^" in inner or "\\sqrt" in inner
        return rf"\left{opening}{inner}\right{closing}" if tall else opening + inner + closing

    def apply(self, word: Word, arguments: list[str]) -> str:
        """A function with its arguments."""
        match word.shape:
            case Shape.ROOT:
                return rf"\sqrt{{{arguments[0]}}}"
            case Shape.INDEXED_ROOT:
                return rf"\sqrt[{arguments[0]}]{{{arguments[1]}}}"
            case Shape.BARS:
                return rf"\left|{arguments[0]}\right|"
            case Shape.BASE:
                return rf"\log_{{{arguments[0]}}}{self.bracket(arguments[1])}"
            case Shape.DEGREES:
                simple = arguments[0].replace(".", "").isalnum()
                return rf"{arguments[0] if simple else self.bracket(arguments[0])}^{{\circ}}"
            case Shape.FACTORIAL:
                simple = arguments[0].replace(".", "").isalnum()
                return f"{arguments[0] if simple else self.bracket(arguments[0])}!"
            case Shape.FLOOR:
                return rf"\left\lfloor {arguments[0]}\right\rfloor "
            case Shape.CEILING:
                return rf"\left\lceil {arguments[0]}\right\rceil "
            case Shape.TRANSPOSED:
                simple = arguments[0].isalnum()
                return rf"{arguments[0] if simple else self.bracket(arguments[0])}^{{\mathsf{{T}}}}"
            case Shape.ENTRYWISE:
                sides = [a if a.isalnum() else self.bracket(a) for a in arguments]
                return self.bracket(rf"{sides[0]} \circ {sides[1]}")
        given = ",\\,".join(arguments)
        return rf"\operatorname{{{word.name}}}{self.bracket(given)}"

    def cases(self, rows: list[tuple[str, str | None]]) -> str:
        """Cases behind a brace."""
        lines = [
            rf"{value} & \text{{otherwise}}"
            if condition is None
            else rf"{value} & \text{{if }}{condition}"
            for value, condition in rows
        ]
        return r"\begin{cases}" + r"\\".join(lines) + r"\end{cases}"

    def series(self, kind: str, body: str, index: str, low: str, high: str) -> str:
        """A sum or a product over a range."""
        sign = r"\sum" if kind == "sum" else r"\prod"
        return rf"{sign}_{{{index}={low}}}^{{{high}}} {body}"

    def unit(self, symbol: str) -> str:
        """A unit, upright."""
        shown = symbol.replace("°", r"^{\circ}").replace("Ω", r"\Omega ").replace("µ", r"\mu ")
        return rf"\mathrm{{{shown}}}"

    def grid(self, rows: list[list[str]]) -> str:
        """A matrix in square brackets."""
        lines = r"\\".join(" & ".join(row) for row in rows)
        return rf"\begin{{bmatrix}}{lines}\end{{bmatrix}}"

    def running(
        self, function: str, body: str, index: str, ends: list[str], arguments: list[str], side: str
    ) -> str:
        """An integral, a limit, a derivative; what has no sign of its own by its name."""
        match function, ends:
            case "integral", [low, high]:
                return rf"\int_{{{low}}}^{{{high}}} {body}\,\mathrm{{d}}{index}"
            case "limit", [at]:
                way = {"left": "^{-}", "right": "^{+}"}.get(side, "")
                place = f"{{{at}}}{way}" if way else at
                return rf"\lim_{{{index}\to {place}}} {body}"
            case "derivative", []:
                return rf"\frac{{\mathrm{{d}}}}{{\mathrm{{d}}{index}}} {self.bracket(body)}"
            case "sum", [low, high]:
                return self.series("sum", body, index, low, high)
        ranged = f"{index}={'='.join(ends)}" if ends else index
        given = ",\\,".join([rf"{body}\ \text{{for}}\ {ranged}", *arguments])
        return rf"\operatorname{{{function}}}{self.bracket(given)}"


def latex(node: Expression, vocabulary: Vocabulary) -> str:
    """An expression in LaTeX."""
    return write(node, Latex(vocabulary))


def latex_statement(statement: Statement, vocabulary: Vocabulary, name: str | None = None) -> str:
    """A statement in LaTeX."""
    return write_statement(statement, Latex(vocabulary), name)
