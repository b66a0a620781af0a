"""Where a line can plausibly be read in two ways: which was taken, and how to write the other."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope, split
from axispath.core.language.tokens import GREEK, Token, tokens

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
        found = tokens(text)
    except LanguageError:
        return []
    readings = []
    for at in range(len(found) - 1):
        for rule in RULES:
            reading = rule(text, found, at, scope)
            if reading is not None:
                readings.append(reading)
    return readings[:MOST]


def _denominator(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """1/2x is (1/2)x."""
    if found[at].text != "/" or found[at + 1].kind != "number":
        return None
    end = _run_end(found, at + 1)
    if end == at + 1:
        return None
    first, last = found[at + 1], found[end]
    run = text[first.start : last.end]
    taken = (
        f"only {first.text} is below the line, and {text[first.end : last.end].strip()} beside it"
    )
    return Reading(taken, _bracketed(text, first.start, last.end, run))


def _exponent(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """e^2x is (e^2)x."""
    start = at + 2 if found[at + 1].text == "-" else at + 1
    if found[at].text != "^" or start >= len(found) or found[start].kind != "number":
        return None
    end = _run_end(found, start)
    if end == start or found[start + 1].kind != "name":
        return None
    first, last = found[at + 1], found[end]
    run = text[first.start : last.end]
    taken = f"only {text[first.start : found[start].end]} is raised"
    return Reading(taken, _bracketed(text, first.start, last.end, run))


def _fraction_exponent(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """x^-1/2 is (x^-1)/2."""
    start = at + 2 if found[at + 1].text == "-" else at + 1
    if found[at].text != "^" or start + 2 >= len(found):
        return None
    top, sign, bottom = found[start : start + 3]
    if top.kind != "number" or sign.text != "/" or bottom.kind != "number":
        return None
    first = found[at + 1]
    taken = (
        f"only {text[first.start : top.end]} is raised, and the whole is divided by {bottom.text}"
    )
    return Reading(taken, _bracketed(text, first.start, bottom.end, text[first.start : bottom.end]))


def _raised_argument(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """sin x^2 is sin(x²)."""
    if found[at].text not in scope.vocabulary.functions or at + 3 >= len(found):
        return None
    argument, sign, exponent = found[at + 1 : at + 4]
    if argument.kind != "name" or argument.text in scope.vocabulary.functions:
        return None
    squared = argument.kind == "name" and sign.kind == "superscript"
    if not squared and not (sign.text == "^" and exponent.kind in ("number", "name")):
        return None
    last = sign if squared else exponent
    name, raised = found[at].text, text[sign.start : last.end]
    rest = f"({text[found[at].start : argument.end]}){raised}"
    other = text[: found[at].start] + rest + text[last.end :]
    return Reading(f"{name} of {text[argument.start : last.end]}", other)


def _logarithm(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """log is to base 10."""
    token = found[at]
    if token.kind != "name" or token.text != "log":
        return None
    other = f"{text[: token.start]}ln{text[token.end :]}"
    return Reading("log is the logarithm to base 10", other)


def _letters(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """mx is m times x, where x is known."""
    token = found[at]
    parts = split(token.text, scope) if token.kind == "name" else []
    if len(parts) < 2 or all(scope.knows(part) or part in GREEK for part in parts):
        return None
    joint = " of " if parts[0] in scope.vocabulary.functions else " times "
    return Reading(f"{token.text} is {joint.join(parts)}", "")


def _index(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """x2 is a name of its own, although x is known."""
    token = found[at]
    head = token.text.rstrip("0123456789")
    if token.kind != "name" or head == token.text or scope.knows(token.text):
        return None
    if head not in scope.values or "_" in text[token.start : token.end]:
        return None
    digits = token.text[len(head) :]
    other = f"{text[: token.start]}{head}^{digits}{text[token.end :]}"
    return Reading(f"{token.text} is one name", other)


def _bars(text: str, found: list[Token], at: int, scope: Scope) -> Reading | None:
    """In |2|x|-1| the inner bars measure x."""
    signs = [token.text for token in found[at : at + 5]]
    if len(signs) < 5 or (signs[0], signs[2], signs[4]) != ("|", "|", "|"):
        return None
    if found[at + 1].kind != "number" or sum(token.text == "|" for token in found) != 4:
        return None
    second = found[at + 2]
    other = f"{text[: second.end]} * {text[second.end :].lstrip()}"
    return Reading(f"the inner bars measure {found[at + 3].text}", other)


RULES = (
    _denominator,
    _exponent,
    _fraction_exponent,
    _raised_argument,
    _logarithm,
    _letters,
    _index,
    _bars,
)


def _run_end(found: list[Token], at: int) -> int:
    """The last token of factors standing side by side, from ``at`` on."""
    end, depth = at, 0
    for index in range(at, len(found)):
        token = found[index]
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
