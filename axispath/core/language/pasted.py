"""LaTeX pasted from homework, rewritten in the language of the sheets."""

from __future__ import annotations

import re

from axispath.core.language.errors import LanguageError

MAX_LENGTH = 4000
_WORDS = {
    "cdot": "*",
    "times": "*",
    "div": "/",
    "le": "<=",
    "leq": "<=",
    "ge": ">=",
    "geq": ">=",
    "ne": "!=",
    "neq": "!=",
    "lt": "<",
    "gt": ">",
    "infty": "∞",
    "pi": "π",
    "theta": "θ",
    "varphi": "φ",
    "in": "∈",
    "degree": "°",
    "circ": "°",
    "lvert": "|",
    "rvert": "|",
    "vert": "|",
    "lfloor": "floor(",
    "rfloor": ")",
    "lceil": "ceil(",
    "rceil": ")",
    "pm": "±",
    "mp": "∓",
    "to": "→",
    "rightarrow": "→",
    "mapsto": "↦",
    "prime": "'",
    "partial": "∂",
    "bmod": " mod ",
}
_PLAIN = ("mathrm", "operatorname", "text", "mathit", "mathbf", "textrm", "mathop")
_DROPPED = (
    "left",
    "right",
    "displaystyle",
    "quad",
    "qquad",
    "limits",
    "big",
    "Big",
)


def is_latex(text: str) -> bool:
    """Whether a line has commands of LaTeX in it, or exponents in braces."""
    return bool(re.search(r"\\[A-Za-z,;:! ]|\^\s*\{", text))


def written(text: str) -> str:
    """A line as typed or pasted, in the language of the sheets. Raises LanguageError."""
    return from_latex(text) if is_latex(text) else text


def from_latex(text: str) -> str:
    """The same line in our language. Raises LanguageError where a command is not known."""
    if len(text) > MAX_LENGTH:
        raise LanguageError(f"This line is too long: {MAX_LENGTH} characters of LaTeX at most.")
    reader = _Reader(text.strip().strip("$"))
    found = reader.until("")
    return re.sub(r"\s+", " ", found).strip()


class _Reader:
    def __init__(self, text: str) -> None:
        self.text = text
        self.at = 0
        self.depth = 0

    def until(self, closing: str) -> str:
        """Everything up to ``closing``, which is taken."""
        parts: list[str] = []
        self.depth += 1
        if self.depth > 100:
            raise LanguageError("This LaTeX is nested too deeply.")
        while self.at < len(self.text):
            char = self.text[self.at]
            if closing and char == closing:
                self.at += 1
                self.depth -= 1
                return "".join(parts)
            parts.append(self.piece())
        if closing:
            raise LanguageError(f"A “{closing}” is missing in this LaTeX.", 0, len(self.text))
        return "".join(parts)

    def piece(self) -> str:
        """The next command, group or character."""
        char = self.text[self.at]
        self.at += 1
        if char == "{":
            return f"({self.until('}')})"
        if char == "_":
            return self.index()
        if char == "\\":
            return self.command()
        if char == "^" and self.text[self.at : self.at + 2] in ("\\c", "{\\"):
            return self.raised()
        return char

    def index(self) -> str:
        """An index, which may be in braces."""
        match = re.compile(r"\s*\{\s*([\w.]+)\s*\}").match(self.text, self.at)
        if match is None:
            return "_"
        self.at = match.end()
        return f"_{{{match[1]}}}"

    def raised(self) -> str:
        """An exponent, which may be a degree sign."""
        degree = re.compile(r"\{?\\circ\}?").match(self.text, self.at)
        if degree:
            self.at = degree.end()
            return "°"
        return "^"

    def command(self) -> str:
        match = re.compile(r"[A-Za-z]+|[,;:!%{} ]").match(self.text, self.at)
        if match is None:
            return " "
        self.at = match.end()
        word = match.group()
        if not word.isalpha() or word in _DROPPED:
            return " " if word not in ("{", "}") else word
        if word in _PLAIN:
            return f" {self.group()} "
        if word in ("begin", "end"):
            message = "Cases are written on one line: x + 2 if x < 0, x^2 otherwise."
            raise LanguageError(message, 0, len(self.text))
        if word in ("frac", "dfrac", "tfrac"):
            self.refuse_derivative()
            return f"(({self.group()})/({self.group()}))"
        if word == "sqrt":
            return self.root()
        # An index belongs to the word before it.
        space = "" if self.text[self.at : self.at + 1] == "_" else " "
        return _WORDS.get(word, f" {word}{space}")

    def refuse_derivative(self) -> None:
        """The fraction d/dx before a formula."""
        match = re.compile(r"\s*\{\s*d\w?\s*\}\s*\{\s*d\s*(\w)\s*\}").match(self.text, self.at)
        if match:
            message = (
                f"A derivative is written with a prime: f({match[1]}) = …, then f'({match[1]})."
            )
            raise LanguageError(message, 0, len(self.text))

    def group(self) -> str:
        """The argument of a command: a group, or a single piece."""
        while self.at < len(self.text) and self.text[self.at] == " ":
            self.at += 1
        if self.at >= len(self.text):
            raise LanguageError("Something is missing at the end of this LaTeX.", 0, len(self.text))
        if self.text[self.at] == "{":
            self.at += 1
            return self.until("}")
        return self.piece()

    def root(self) -> str:
        if self.at < len(self.text) and self.text[self.at] == "[":
            self.at += 1
            index = self.until("]")
            return f"root({index}, {self.group()})"
        return f"sqrt({self.group()})"
