"""Ways of writing that are usual elsewhere and would be misread here: refused with a sentence.

Every entry of ``HABITS`` looks at one token of a line. None of them touches a name that the
sheet has given a meaning.
"""

from __future__ import annotations

from collections.abc import Callable

from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope
from axispath.core.language.strange import INTEGRALS, LIMITS
from axispath.core.language.tokens import Token
from axispath.core.language.vocabulary import Word

COUNTING = ("C", "nCr", "ncr", "choose")
DERIVED = ("d", "dy", "df", "dg")


def refuse_foreign(text: str, tokens: list[Token], scope: Scope) -> None:
    """Raise LanguageError at the first habit from elsewhere."""
    for at, token in enumerate(tokens):
        for habit in HABITS:
            error = habit(text, tokens, at, scope)
            if error is not None:
                message, end, mend = error
                raise LanguageError(message, token.start, end, mend)


Refusal = tuple[str, int, str | None]


def _limit(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    token = tokens[at]
    limit = token.text in ("lim", "limit", "lim_x", "Lim") and not scope.knows(token.text)
    return (LIMITS, token.end, None) if token.kind == "name" and limit else None


def _integral(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    token = tokens[at]
    named = token.text.partition("_")[0] in ("int", "integral", "Int", "integrate")
    if token.kind == "name" and named and not scope.knows(token.text):
        return INTEGRALS, token.end, None
    return None


def _derivative(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    """d/dx x^2, dy/dx."""
    if at + 2 >= len(tokens) or tokens[at + 1].text != "/":
        return None
    over, under = tokens[at], tokens[at + 2]
    if over.text not in DERIVED or len(under.text) < 2 or not under.text.startswith("d"):
        return None
    variable = under.text[1:2]
    if scope.knows(over.text) or scope.knows(under.text) or not variable.isalpha():
        return None
    rest = text[under.start + 2 :].strip()
    message = (
        f"Write a derivative as derivative({rest or 'x^2'} for {variable}), or with a prime: "
        f"f'({variable})."
    )
    return message, under.end, None


def _index(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    """sin2x, log2(8), sqrt2: digits behind the name of a function."""
    token = tokens[at]
    head = token.text.rstrip("0123456789")
    digits = token.text[len(head) :]
    if token.kind != "name" or not digits or "_" in head or scope.knows(token.text):
        return None
    words = scope.vocabulary.functions
    name = next((head[k:] for k in range(len(head)) if head[k:] in words), "")
    # sum1 or max2 may well be somebody's own names.
    if name and not (words[name].inverse or words[name].name in ("log", "sqrt", "cbrt")):
        return None
    before = head[: len(head) - len(name)]
    if not name or not all(scope.knows(letter) for letter in before):
        return None
    start = token.start + len(before)
    mend, example = _with_digits(text, tokens, at, start, name, digits, words[name])
    message = f"{name}{digits} would be a name of its own: write {example}."
    return message, token.end, mend


def _with_digits(
    text: str, tokens: list[Token], at: int, start: int, name: str, digits: str, entry: Word
) -> tuple[str | None, str]:
    """The line with the digits as base, power or argument, and that part alone."""
    token, after = tokens[at], tokens[at + 1]
    bracket = after.text == "("
    if name == "log":
        if bracket:
            return _put(text, start, token.end, f"log_{digits}"), f"log_{digits}(x)"
        end = _touching(tokens, at)
        argument = text[token.end : end] or "x"
        part = f"log_{digits}({argument})"
        return _put(text, start, max(end, token.end), part), part
    if bracket and entry.inverse is None:
        return None, f"{name}({digits}x), or {name}(x)^{digits}"
    if bracket:
        return _put(text, start, token.end, f"{name}^{digits}"), f"{name}^{digits}(x)"
    end = _touching(tokens, at)
    part = f"{name}({digits}{text[token.end : end]})"
    return _put(text, start, end, part), part


def _touching(tokens: list[Token], at: int) -> int:
    """Where the names and raised numbers end that follow without a space."""
    end = tokens[at].end
    for token in tokens[at + 1 :]:
        if token.start != end or token.kind not in ("name", "superscript"):
            break
        end = token.end
    return end


def _put(text: str, start: int, end: int, part: str) -> str:
    return f"{text[:start]}{part}{text[end:]}"


def _commas(tokens: list[Token], opening: int) -> tuple[list[int], int | None]:
    """The commas that stand directly in a bracket, and where it is closed, as indices."""
    depth = 0
    commas: list[int] = []
    for index in range(opening, len(tokens)):
        depth += {"(": 1, "[": 1, ")": -1, "]": -1}.get(tokens[index].text, 0)
        if depth == 0:
            return commas, index
        if depth == 1 and tokens[index].text == ",":
            commas.append(index)
    return commas, None


def _raised_name(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    """f^2(x), which may mean the square of f(x) or f(f(x)), and f^-1(x)."""
    token, start = tokens[at], at + 1
    if token.kind != "name" or token.text not in scope.functions:
        return None
    while tokens[start].text in ("'", "″"):
        start += 1
    sign = tokens[start]
    if sign.text != "^" and sign.kind != "superscript":
        return None
    power = tokens[min(start + (sign.text == "^"), len(tokens) - 1)]
    opening = min(tokens.index(power) + 1, len(tokens) - 1)
    name = text[token.start : sign.start].strip()
    _, end = _commas(tokens, opening) if tokens[opening].text == "(" else ([], None)
    if end is None or not power.text.isdigit() or power.text == "0":
        message = f"A power of {name} is written behind its argument: {name}(x)^2, 1/{name}(x)."
        return message, power.end, None
    call = text[tokens[opening].start : tokens[end].end]
    mend = _put(text, sign.start, tokens[end].end, f"{call}^{power.text}")
    message = f"The square of {name} is written {name}(x)^2, and {name} twice {name}({name}(x))."
    return message, power.end, mend


def _base_as_argument(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    """log(2, 8), whose base is written as an index."""
    token = tokens[at]
    known = token.text in scope.functions or token.text in scope.values
    if token.text not in ("log", "ln") or known or tokens[at + 1].text != "(":
        return None
    commas, end = _commas(tokens, at + 1)
    if len(commas) != 1 or end is None:
        return None
    mend = None
    if commas[0] == at + 3 and tokens[at + 2].kind == "number":
        rest = tokens[commas[0] + 1].start
        mend = _put(text, token.start, rest, f"log_{tokens[at + 2].text}(")
    return "The base of a logarithm is written as an index: log_2(8).", token.end, mend


def _counting(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    """C(5, 2), with two arguments: the number of combinations."""
    token = tokens[at]
    if token.text not in COUNTING or scope.knows(token.text) or tokens[at + 1].text != "(":
        return None
    if not _commas(tokens, at + 1)[0]:
        return None
    mend = _put(text, token.start, token.end, "binomial")
    return "Combinations are written binomial(5, 2).", token.end, mend


def _remainder(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    """x mod 3, between its two operands."""
    token = tokens[at]
    if token.text != "mod" or "mod" in scope.values or not 0 < at < len(tokens) - 1:
        return None
    before, after = tokens[at - 1], tokens[at + 1]
    if after.text == "(" or before.kind not in ("name", "number"):
        return None
    simple = after.kind in ("name", "number") and (at < 2 or tokens[at - 2].kind == "sign")
    part = f"mod({text[before.start : before.end]}, {text[after.start : after.end]})"
    mend = _put(text, before.start, after.end, part) if simple else None
    return "The remainder is written mod(x, 3).", token.end, mend


def _indexed_root(text: str, tokens: list[Token], at: int, scope: Scope) -> Refusal | None:
    """√[3](x)."""
    if tokens[at].text != "√" or tokens[at + 1].text != "[" or at + 4 >= len(tokens):
        return None
    degree, closing, opening = tokens[at + 2 : at + 5]
    if degree.kind != "number" or closing.text != "]":
        return None
    mend = None
    if opening.text == "(":
        mend = _put(text, tokens[at].start, opening.end, f"root({degree.text}, ")
    return f"Other roots are written root({degree.text}, x).", closing.end, mend


HABITS: tuple[Callable[[str, list[Token], int, Scope], Refusal | None], ...] = (
    _limit,
    _integral,
    _derivative,
    _index,
    _raised_name,
    _base_as_argument,
    _counting,
    _remainder,
    _indexed_root,
)
