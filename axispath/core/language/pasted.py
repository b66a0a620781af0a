"""LaTeX pasted from homework, rewritten in the language of the sheets."""

from __future__ import annotations

import re

from axispath.core.language.errors import LanguageError
from axispath.core.language.rewriting import raised_letters

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
    "circ": "∘",
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


SERIES = {"sum": "sum", "prod": "product"}
_OWN = re.compile(r"(?:\\left)?[\[(]|[_']")
_TRANSPOSED = re.compile(r"\{?\\(?:(?:mathsf|mathrm|text)\{T\}|top|intercal)\}?")
_INDEX = re.compile(
    r"\s*\{\s*(?:\\(?:mathrm|text|operatorname)\s*\{\s*([\w.]+)\s*\}|([\w.]+))\s*\}"
)
_DERIVATIVE = re.compile(
    r"\s*\{\s*(?:\\mathrm\{d\}|d)\w?\s*\}\s*\{\s*(?:\\mathrm\{d\}|d)\s*(\w)\s*\}\s*"
)
_DIFFERENTIAL = re.compile(r"\\mathrm\{d\}\s*(\w+)|(?<![\w\\])d\s*([a-zA-Z])(?![a-zA-Z(])")
_LIMIT = re.compile(r"\s*(?:\\limits)?\s*_\s*\{\s*(\w+)\s*(?:\\to|\\rightarrow)(?![A-Za-z])\s*")
_CELLS = re.compile(r"\\\\|\\[{}&]|[{}&]|\\begin\{\w+\*?\}|\\end\{\w+\*?\}")
_OPENING = re.compile(r"\\left(?![A-Za-z])|\\l(?:floor|ceil)(?![A-Za-z])|[(\[]")
_CLOSING = re.compile(r"\\right(?![A-Za-z])|\\r(?:floor|ceil)(?![A-Za-z])|[)\]]")
_BEYOND = re.compile(
    r"\s*(?:[-+=<>,;&]|\\(?:le|leq|ge|geq|ne|neq|in|to|text|quad|qquad|approx)(?![A-Za-z])|\\\\)"
)


def _balanced(text: str) -> bool:
    pairs = (("{", "}"), ("(", ")"), ("[", "]"), ("\\left", "\\right"))
    return all(text.count(opening) == text.count(closing) for opening, closing in pairs)


def _case(row: list[str]) -> str:
    """A row of cases: its value, and its condition or none."""
    value, condition = row[0], " ".join(row[1:]).strip()
    condition = re.sub(r"^(?:if|for|when|wenn|falls)\b", "", condition).strip()
    if not condition or condition in ("otherwise", "else", "sonst"):
        return f"{value} otherwise"
    return f"{value} if {condition}"


def is_latex(text: str) -> bool:
    """Whether a line has commands of LaTeX in it, or exponents in braces."""
    return bool(re.search(r"\\[A-Za-z,;:! ]|\^\s*\{", text))


def written(text: str) -> str:
    """A line as typed or pasted, in the language of the sheets. Raises LanguageError."""
    return from_latex(text) if is_latex(text) else raised_letters(text)


def from_latex(text: str) -> str:
    """The same line in our language. Raises LanguageError where a command is not known."""
    if len(text) > MAX_LENGTH:
        raise LanguageError(f"This line is too long: {MAX_LENGTH} characters of LaTeX at most.")
    reader = _Reader(text.strip().strip("$"))
    found = reader.until("")
    return re.sub(r"\s+(?=[)\]])", "", re.sub(r"\s+", " ", found)).strip()


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
        if char == "^" and self.text[self.at : self.at + 2].startswith(("\\", "{\\")):
            return self.raised()
        return char

    def index(self) -> str:
        """An index, which may be in braces."""
        match = _INDEX.match(self.text, self.at)
        if match is None:
            return "_"
        self.at = match.end()
        return f"_{{{match[1] or match[2]}}}"

    def raised(self) -> str:
        """An exponent, which may be a degree sign."""
        degree = re.compile(r"\{?\\circ\}?").match(self.text, self.at)
        if degree:
            self.at = degree.end()
            return "°"
        transposed = _TRANSPOSED.match(self.text, self.at)
        if transposed:
            self.at = transposed.end()
            return "^T"
        return "^"

    def command(self) -> str:
        match = re.compile(r"[A-Za-z]+|[,;:!%{} ]").match(self.text, self.at)
        if match is None:
            return " "
        self.at = match.end()
        word = match.group()
        if word == "left" and self.text[self.at : self.at + 1] == "[":
            return ""  # a section belongs to the name before it
        if not word.isalpha() or word in _DROPPED:
            return " " if word not in ("{", "}") else word
        if word in _PLAIN:
            name = self.group()
            # What belongs to a name stands right behind it.
            return f" {name}" if _OWN.match(self.text, self.at) else f" {name} "
        if word in ("begin", "end"):
            return self.environment(word)
        if word in SERIES:
            return self.series(SERIES[word])
        if word == "int":
            return self.integral()
        if word == "lim":
            return self.limit()
        if word in ("frac", "dfrac", "tfrac"):
            return self.derivative() or f"(({self.group()})/({self.group()}))"
        if word == "sqrt":
            return self.root()
        # An index belongs to the word before it.
        space = "" if self.text[self.at : self.at + 1] == "_" else " "
        return _WORDS.get(word, f" {word}{space}")

    def derivative(self) -> str:
        """The fraction d/dx with what stands in brackets behind it; empty where it is none."""
        match = _DERIVATIVE.match(self.text, self.at)
        if match is None:
            return ""
        self.at = match.end()
        if _OPENING.match(self.text, self.at) is None:
            message = (
                f"A derivative is written with a prime: f({match[1]}) = …, then f'({match[1]}); "
                "what is derived otherwise stands in brackets."
            )
            raise LanguageError(message, 0, len(self.text))
        return f"derivative({self.factor()} for {match[1]})"

    def environment(self, word: str) -> str:
        """Cases and matrices; what holds several lines is no line."""
        name = self.raw()
        rows, closed = self.rows(name) if word == "begin" else ([], False)
        if name == "cases" and closed:
            return f"({', '.join(_case(row) for row in rows)})"
        if name.endswith("matrix") and closed:
            return f"[{'; '.join(', '.join(row) for row in rows)}]"
        message = f"“{name[:40]}” cannot be read here: each line is typed or pasted by itself."
        raise LanguageError(message, 0, len(self.text))

    def rows(self, name: str) -> tuple[list[list[str]], bool]:
        """The cells up to the end of an environment, and whether it has one."""
        rows: list[list[str]] = [[]]
        start, depth = self.at, 0
        for found in _CELLS.finditer(self.text, self.at):
            sign = found.group()
            if sign.startswith("\\begin") or sign == "{":
                depth += 1
            elif depth and (sign.startswith("\\end") or sign == "}"):
                depth -= 1
            elif not depth and sign != "}":
                rows[-1].append(self.inner(self.text[start : found.start()]))
                start = found.end()
                if sign.startswith("\\end"):
                    self.at = start
                    kept = [row for row in rows if any(row)]
                    return kept, sign == f"\\end{{{name}}}"
                if sign == "\\\\":
                    rows.append([])
        return rows, False

    def inner(self, text: str) -> str:
        """A part read by itself."""
        reader = _Reader(text)
        reader.depth = self.depth + 1
        return reader.until("").strip()

    def series(self, function: str) -> str:
        """A sum or a product over a range."""
        low, high = self.ends("a sum")
        index, _, start = low.partition("=")
        return f"{function}({self.term()} for {index.strip()} = {start.strip()} to {high})"

    def integral(self) -> str:
        """An integral: its ends, and what stands before the d of its variable."""
        low, high = self.ends("an integral")
        match = _DIFFERENTIAL.search(self.text, self.at)
        while match is not None and not _balanced(self.text[self.at : match.start()]):
            match = _DIFFERENTIAL.search(self.text, match.end())
        if match is None:
            raise LanguageError("The d with the variable is missing behind an integral.")
        body = self.inner(self.text[self.at : match.start()])
        self.at = match.end()
        return f"integral({body} for {match[1] or match[2]} = {low} to {high})"

    def limit(self) -> str:
        """A limit, from one side where it has a + or − raised."""
        match = _LIMIT.match(self.text, self.at)
        if match is None:
            raise LanguageError("Under a limit stands where its letter goes: lim for x → 0.")
        index, self.at = match[1], match.end()
        place = self.raw_until_brace()
        side = ""
        for sign, name in (("-", "left"), ("+", "right")):
            for end in (f"^{{{sign}}}", f"^{sign}"):
                if place.endswith(end):
                    place, side = place.removesuffix(end), f", {name}"
        return f"limit({self.term()} for {index} to {self.inner(place)}{side})"

    def ends(self, what: str) -> tuple[str, str]:
        """What stands below and above a sign."""
        found = {}
        for _ in range(2):
            match = re.compile(r"\s*(?:\\limits)?\s*([_^])").match(self.text, self.at)
            if match is None:
                break
            self.at = match.end()
            found[match[1]] = self.group()
        if set(found) != {"_", "^"}:
            raise LanguageError(f"{what.capitalize()} needs its range: from where to where.")
        return found["_"], found["^"]

    def term(self) -> str:
        """What a sign before it is about: all up to the next + or −, or the end of its bracket."""
        parts: list[str] = []
        depth = 0
        while self.at < len(self.text):
            begun = any(piece not in "- " for piece in parts)
            if not depth and begun and _BEYOND.match(self.text, self.at):
                break
            opened = _OPENING.match(self.text, self.at)
            closed = _CLOSING.match(self.text, self.at)
            if (closed or self.text[self.at] == "}") and not depth:
                break
            depth += bool(opened) - bool(closed)
            piece = self.piece()
            if piece.strip() or parts:
                parts.append(piece)
            if opened and opened.group().startswith("\\left"):
                parts.append(self.piece())
            if closed and closed.group().startswith("\\right"):
                parts.append(self.piece())
        return "".join(parts).strip()

    def factor(self) -> str:
        """What stands in brackets, with them."""
        depth, parts = 0, []
        while self.at < len(self.text):
            opened = _OPENING.match(self.text, self.at)
            closed = _CLOSING.match(self.text, self.at)
            depth += bool(opened) - bool(closed)
            parts.append(self.piece())
            found = opened or closed
            if found and found.group().startswith(("\\left", "\\right")):
                parts.append(self.piece())
            if not depth:
                break
        return "".join(parts)

    def raw(self) -> str:
        """The text of the next group, as it stands."""
        match = re.compile(r"\s*\{([^{}]*)\}").match(self.text, self.at)
        if match is None:
            return ""
        self.at = match.end()
        return match[1].strip()

    def until_bracket(self) -> str:
        """The index of a root, which is in square brackets."""
        start, depth = self.at + 1, 0
        for at in range(self.at, len(self.text)):
            depth += (self.text[at] in "[{") - (self.text[at] in "]}")
            if not depth:
                self.at = at + 1
                return self.inner(self.text[start:at])
        raise LanguageError("A “]” is missing in this LaTeX.", 0, len(self.text))

    def raw_until_brace(self) -> str:
        """The text up to the brace that closes a group, which is taken."""
        start, depth = self.at, 1
        while self.at < len(self.text):
            sign = self.text[self.at]
            depth += (sign == "{") - (sign == "}")
            self.at += 1
            if not depth:
                return self.text[start : self.at - 1].strip()
        raise LanguageError("A “}” is missing in this LaTeX.", 0, len(self.text))

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
            index = self.until_bracket()
            return f"root({index}, {self.group()})"
        return f"sqrt({self.group()})"
