"""Where a line can plausibly be read in two ways: which was taken, and how to write the other."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope, split
from axispath.core.language.tokens import GREEK, Token, tokenise

MOST = 3


@dataclass(frozen=True, slots=True)
class Reading:
    """``taken`` says in words how a part was read; ``other`` is the line for the other reading.

    ``other`` is empty where the reading is only told.
    """

    taken: str
    other: str


def other_readings(text: str, scope: Scope) -> list[Reading]:
    """The doubtful places of a line, from the left, at most three."""
    try:
        tokens = tokenise(text)
    except LanguageError:
        return []
    readings = []
    for at in range(len(tokens) - 1):
        for rule in RULES:
            reading = rule(text, tokens, at, scope)
            if reading is not None:
                readings.append(reading)
    return readings[:MOST]


def _beside(tokens: list[Token], at: int, sign: str) -> tuple[Token, Token] | None:
    """The number right behind a sign, and the last of the factors that stand beside it."""
    if tokens[at].text != sign or tokens[at + 1].kind != "number":
        return None
    end = _run_end(tokens, at + 1)
    return None if end == at + 1 else (tokens[at + 1], tokens[end])


def _denominator(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """1/2x is (1/2)x."""
    found = _beside(tokens, at, "/")
    if found is None:
        return None
    first, last = found
    run = text[first.start : last.end]
    taken = (
        f"only {first.text} is below the line, and {text[first.end : last.end].strip()} beside it"
    )
    return Reading(taken, _bracketed(text, first.start, last.end, run))


def _exponent(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """e^2x is (e^2)x."""
    start = at + 2 if tokens[at + 1].text == "-" else at + 1
    if tokens[at].text != "^" or start >= len(tokens) or tokens[start].kind != "number":
        return None
    end = _run_end(tokens, start)
    if end == start or tokens[start + 1].kind != "name":
        return None
    first, last = tokens[at + 1], tokens[end]
    run = text[first.start : last.end]
    taken = f"only {text[first.start : tokens[start].end]} is raised"
    return Reading(taken, _bracketed(text, first.start, last.end, run))


def _fraction_exponent(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """x^-1/2 is (x^-1)/2."""
    start = at + 2 if tokens[at + 1].text == "-" else at + 1
    if tokens[at].text != "^" or start + 2 >= len(tokens):
        return None
    top, sign, bottom = tokens[start : start + 3]
    if top.kind != "number" or sign.text != "/" or bottom.kind != "number":
        return None
    first = tokens[at + 1]
    taken = (
        f"only {text[first.start : top.end]} is raised, and the whole is divided by {bottom.text}"
    )
    return Reading(taken, _bracketed(text, first.start, bottom.end, text[first.start : bottom.end]))


def _raised_argument(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """sin x^2 is sin(x²)."""
    if tokens[at].text not in scope.vocabulary.functions or at + 3 >= len(tokens):
        return None
    argument, sign, exponent = tokens[at + 1 : at + 4]
    if argument.kind != "name" or argument.text in scope.vocabulary.functions:
        return None
    squared = argument.kind == "name" and sign.kind == "superscript"
    if not squared and not (sign.text == "^" and exponent.kind in ("number", "name")):
        return None
    last = sign if squared else exponent
    name, raised = tokens[at].text, text[sign.start : last.end]
    rest = f"({text[tokens[at].start : argument.end]}){raised}"
    other = text[: tokens[at].start] + rest + text[last.end :]
    return Reading(f"{name} of {text[argument.start : last.end]}", other)


def _logarithm(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """log is to base 10."""
    token = tokens[at]
    if token.kind != "name" or token.text != "log":
        return None
    other = f"{text[: token.start]}ln{text[token.end :]}"
    return Reading("log is the logarithm to base 10", other)


def _letters(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """mx is m times x, where x is known."""
    token = tokens[at]
    parts = split(token.text, scope) if token.kind == "name" else []
    if len(parts) < 2 or all(scope.knows(part) or part in GREEK for part in parts):
        return None
    joint = " of " if parts[0] in scope.vocabulary.functions else " times "
    return Reading(f"{token.text} is {joint.join(parts)}", "")


def _index(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """x2 is a name of its own, although x is known."""
    token = tokens[at]
    head = token.text.rstrip("0123456789")
    if token.kind != "name" or head == token.text or scope.knows(token.text):
        return None
    if head not in scope.values or "_" in text[token.start : token.end]:
        return None
    digits = token.text[len(head) :]
    other = f"{text[: token.start]}{head}^{digits}{text[token.end :]}"
    return Reading(f"{token.text} is one name", other)


def _bars(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """In |2|x|-1| the inner bars measure x."""
    signs = [token.text for token in tokens[at : at + 5]]
    if len(signs) < 5 or (signs[0], signs[2], signs[4]) != ("|", "|", "|"):
        return None
    if tokens[at + 1].kind != "number" or sum(token.text == "|" for token in tokens) != 4:
        return None
    second = tokens[at + 2]
    other = f"{text[: second.end]} * {text[second.end :].lstrip()}"
    return Reading(f"the inner bars measure {tokens[at + 3].text}", other)


def _letters_in_one(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """xy = 4 defines a name."""
    token = tokens[at]
    if at or token.kind != "name" or tokens[1].text != "=" or scope.knows(token.text):
        return None
    if len(token.text) != 2 or not set(token.text) <= set("xyabc"):
        return None
    other = f"{' '.join(token.text)}{text[token.end :]}"
    return Reading(f"{token.text} is one name", other)


def _under_root(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """√2x is (√2) x."""
    found = _beside(tokens, at, "√")
    if found is None:
        return None
    first, last = found
    run = text[first.start : last.end]
    return Reading(
        f"only {first.text} is under the root", _bracketed(text, first.start, last.end, run)
    )


def _index_of_root(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """root(x, 3) is the x-th root of 3."""
    parts = tokens[at : at + 6]
    if len(parts) < 6 or (parts[0].text, parts[1].text, parts[3].text) != ("root", "(", ","):
        return None
    index, inner = parts[2], parts[4]
    if index.kind != "name" or inner.kind != "number" or parts[5].text != ")":
        return None
    other = f"{text[: index.start]}{inner.text}, {index.text}{text[inner.end :]}"
    return Reading(f"the root with index {index.text} of {inner.text}", other)


def _below_letter(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """1/x(x + 1) is (1/x)(x + 1)."""
    if tokens[at].text != "/" or tokens[at + 1].kind != "name" or at + 2 >= len(tokens):
        return None
    name = tokens[at + 1]
    if tokens[at + 2].text != "(" or name.text in scope.functions or name.text not in scope.values:
        return None
    end = _run_end(tokens, at + 1)
    run = text[name.start : tokens[end].end]
    taken = f"only {name.text} is below the line"
    return Reading(taken, _bracketed(text, name.start, tokens[end].end, run))


def _argument(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """sin x(x + 1) is the sine of the product."""
    if tokens[at].text not in scope.vocabulary.functions or at + 2 >= len(tokens):
        return None
    name = tokens[at + 1]
    if name.kind != "name" or tokens[at + 2].text != "(" or name.text not in scope.values:
        return None
    before, function = text[: tokens[at].start], tokens[at].text
    other = f"{before}{function}({name.text}) {text[name.end :].lstrip()}"
    end = _run_end(tokens, at + 1)
    return Reading(f"{function} of {text[name.start : tokens[end].end]}", other)


def _golden(text: str, tokens: list[Token], at: int, scope: Scope) -> Reading | None:
    """r = 2 + sin φ holds a number."""
    if not text.lstrip().startswith("r") or tokens[0].text != "r" or tokens[1].text != "=":
        return None
    token = tokens[at + 1]
    if token.text not in ("φ", "phi") or "φ" in scope.values or "θ" in text:
        return None
    other = f"{text[: token.start]}θ{text[token.end :]}"
    return Reading("φ is the golden ratio, a number", other)


RULES = (
    _letters_in_one,
    _under_root,
    _index_of_root,
    _below_letter,
    _argument,
    _golden,
    _denominator,
    _exponent,
    _fraction_exponent,
    _raised_argument,
    _logarithm,
    _letters,
    _index,
    _bars,
)


def _run_end(tokens: list[Token], at: int) -> int:
    """The last token of factors standing side by side, from ``at`` on."""
    end, depth = at, 0
    for index in range(at, len(tokens)):
        token = tokens[index]
        if token.text == "(":
            depth += 1
        elif token.text == ")":
            depth -= 1
            if depth < 0:
                break
        elif depth == 0 and token.kind not in ("number", "name", "superscript"):
            break
        if depth == 0:
            end = index
    return end


def _bracketed(text: str, start: int, end: int, run: str) -> str:
    return f"{text[:start]}({run.strip()}){text[end:]}"
