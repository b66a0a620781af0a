"""Characters to tokens, in Unicode or ASCII spelling."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator
from dataclasses import dataclass

from axispath.core.language.errors import LanguageError
from axispath.core.language.strange import strange

MAX_LENGTH = 2000
MAX_EXPONENT = 300

SPELLINGS = {
    "−": "-",
    "–": "-",
    "×": "*",
    "·": "*",
    "⋅": "*",
    "∙": "*",
    "÷": "/",
    "∕": "/",
    "≤": "<=",
    "≥": ">=",
    "∈": "in",
    "≠": "!=",
    "′": "'",
    "’": "'",
    "ʹ": "'",
    "‘": "'",
    "”": "″",
    "**": "^",
}
GREEK = {
    "pi": "π",
    "theta": "θ",
    "alpha": "α",
    "beta": "β",
    "delta": "δ",
    "lambda": "λ",
    "mu": "μ",
    "omega": "ω",
    "phi": "φ",
    "sigma": "σ",
    "tau": "τ",
    "epsilon": "ε",
    "rho": "ρ",
    "psi": "ψ",
    "eta": "η",
    "kappa": "κ",
    "nu": "ν",
    "xi": "ξ",
    "zeta": "ζ",
    "inf": "∞",
    "infinity": "∞",
}
SUBSCRIPTS = str.maketrans("₀₁₂₃₄₅₆₇₈₉", "0123456789")
SUPERSCRIPTS = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻⁺", "0123456789-+")
FRACTIONS = {"½": (1, 2), "⅓": (1, 3), "⅔": (2, 3), "¼": (1, 4), "¾": (3, 4)}
KEYWORDS = frozenset({"for", "in", "if", "otherwise", "and", "or", "to"})

# Superscript, subscript and fraction characters count as letters for the regular expression
# engine; here they never do.
_LETTER = r"[^\W\d_⁰¹²³⁴⁵⁶⁷⁸⁹₀₁₂₃₄₅₆₇₈₉½⅓⅔¼¾]"
_PATTERN = re.compile(
    r"(?P<space>\s+)"
    r"|(?P<number>(?:[0-9]+\.[0-9]*|\.[0-9]+|[0-9]+)(?:[eE][+-]?[0-9]+)?)"
    r"|(?P<superscript>[⁰¹²³⁴⁵⁶⁷⁸⁹⁻⁺]+)"
    r"|(?P<fraction>[½⅓⅔¼¾])"
    r"|(?P<sign>\*\*|<=|>=|==|!=|[-+*/^()\[\]{}|=<>,;!'°√∛∞∘−–×·⋅∙÷∕≤≥∈≠′’ʹ‘″”])"
    r"|(?P<base>log_(?:[0-9]+\.[0-9]+|\.[0-9]+|\{(?:[0-9]+\.[0-9]*|\.[0-9]+)\}))"
    rf"|(?P<name>{_LETTER}+[0-9]*(?:[₀₁₂₃₄₅₆₇₈₉]+|_(?:(?:{_LETTER}|[0-9])+|\{{(?:{_LETTER}|[0-9])+\}}))?)"
)


@dataclass(frozen=True, slots=True)
class Token:
    """One word of a line.

    ``kind`` is number, fraction, name, keyword, sign, superscript or end.
    """

    kind: str
    text: str
    start: int
    end: int


def is_name(text: str) -> bool:
    """Whether a text is one name, and nothing besides."""
    found = _PATTERN.fullmatch(text)
    return found is not None and found.lastgroup == "name"


def tokenise(text: str) -> list[Token]:
    """Split a line; the last token is of kind ``end``."""
    if len(text) > MAX_LENGTH:
        raise LanguageError(
            f"This line has {len(text)} characters; a line may have {MAX_LENGTH}.",
            MAX_LENGTH,
            len(text),
        )
    found: list[Token] = []
    at = 0
    while at < len(text):
        match = _PATTERN.match(text, at)
        if match is None:
            raise strange(text, at)
        kind, word, end = str(match.lastgroup), match.group(), match.end()
        if kind != "space":
            found.append(_token(kind, word, at, end))
        at = end
    found.append(Token("end", "", len(text), len(text)))
    _refuse_double_points(found, text)
    return found


def _token(kind: str, word: str, start: int, end: int) -> Token:
    if kind == "sign":
        word = SPELLINGS.get(word, word)
        return Token("keyword" if word in KEYWORDS else "sign", word, start, end)
    if kind == "superscript":
        return Token(kind, word.translate(SUPERSCRIPTS), start, end)
    if kind == "name":
        return Token(*_word(word), start, end)
    if kind == "base":
        return Token("name", word.replace("{", "").replace("}", ""), start, end)
    exponent = re.search(r"[eE]([+-]?\d+)$", word)
    if exponent and (len(exponent[1]) > 5 or abs(int(exponent[1])) > MAX_EXPONENT):
        raise LanguageError(
            f"The number {word} is beyond what can be computed "
            f"(powers of ten up to {MAX_EXPONENT}).",
            start,
            end,
        )
    return Token(kind, word, start, end)


def _word(word: str) -> tuple[str, str]:
    head = word.rstrip("₀₁₂₃₄₅₆₇₈₉")
    if head != word:
        word = f"{head}_{word[len(head) :].translate(SUBSCRIPTS)}"
    word = GREEK.get(word, word).replace("{", "").replace("}", "")
    if word == "∞":
        return "sign", word
    return ("keyword" if word in KEYWORDS else "name"), word


def _refuse_double_points(found: list[Token], text: str) -> None:
    for first, second in itertools.pairwise(found):
        touching = first.end == second.start
        if touching and first.kind == second.kind == "number":
            raise LanguageError(
                f"“{text[first.start : second.end]}” is not a number: it has two decimal points.",
                first.start,
                second.end,
            )


def outside_brackets(found: list[Token]) -> Iterator[tuple[int, Token]]:
    """The tokens that stand in no bracket, with their indices."""
    depth = 0
    for index, token in enumerate(found):
        if token.text in ("(", "["):
            depth += 1
        elif token.text in (")", "]"):
            depth -= 1
        elif depth <= 0:
            yield index, token
