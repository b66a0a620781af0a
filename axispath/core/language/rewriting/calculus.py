"""Derivatives, integrals, sums, limits, tangents and Taylor polynomials as they are written."""

from __future__ import annotations

import re

from axispath.core.language.rewriting.known import Known
from axispath.core.language.rewriting.texts import RAISED, closes_at_end, less

_LOWERED = str.maketrans("₀₁₂₃₄₅₆₇₈₉₊₋", "0123456789+-")
_LOW = r"(\{[^{}]*\}|[^\s^{}_∫]{1,20}?)"
_HIGH = r"(\{[^{}]*\}|[⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻]+|\([^()]*\)|[^\s{}()∫]{1,20})"
_VARIABLE = r"[a-zA-Zθ]"


def integral(text: str) -> str:
    """∫_a^b f(t) dt, ∫₀¹ x² dx, ∫ x² dx from 0 to 1."""
    text = re.sub(
        rf"∫\s*(?:_\s*{_LOW}|([₀₁₂₃₄₅₆₇₈₉₊₋]+))\s*\^?\s*{_HIGH}\s*([^∫]+?)\s*\bd({_VARIABLE})\b",
        lambda m: f"integral({m[4]} for {m[5]} = {_bound(m[1] or m[2])} to {_bound(m[3])})",
        text,
    )
    text = re.sub(
        rf"(?:∫|\bintegral\s+of\s+|\bintegrate\s+)\s*(.+?)\s*\bd({_VARIABLE})\s*,?\s+(?:from\s+)?(\S+)\s+to\s+(\S+)\s*$",
        r"integral(\1 for \2 = \3 to \4)",
        text,
    )
    return re.sub(
        r"\b(?:integral\s+of|integrate|area\s+under)\s+(.+?)\s*,?\s+(?:from\s+(?:x\s*=\s*)?)(\S+)\s+to\s+(\S+)\s*$",
        r"integral(\1 for x = \2 to \3)",
        text,
    )


def primitive(text: str) -> str:
    """∫ x² dx without bounds, an antiderivative of x²: the one that is 0 at 0."""
    text = re.sub(
        r"^\s*(?:find\s+)?(?:the\s+|an?\s+)?(?:indefinite\s+)?(?:integral|antiderivative|anti-derivative|primitive)"
        r"\s+of\s+(?:y\s*=\s*)?(?!.*\b(?:from|between)\b)(.+)$",
        r"∫ \1 dx",
        text,
        flags=re.I,
    )
    return re.sub(
        rf"^\s*((?:\w+\s*\(\s*\w\s*\)\s*=)?)\s*∫\s*(?![_₀-₉])(.+?)\s*\bd({_VARIABLE})\s*(?:\+\s*[cC])?\s*$",
        lambda m: f"{m[1] or 'y ='} integral({_renamed(m[2], m[3])} for u = 0 to {m[3]})",
        text,
    )


def _renamed(body: str, letter: str) -> str:
    return re.sub(rf"(?<![A-Za-z]){letter}(?![A-Za-z])", "u", body)


def _bound(text: str) -> str:
    return text.strip("{}").translate(_LOWERED).translate(RAISED)


def with_commas(text: str) -> str:
    """integral(x^2, 0, 1), integral(x^2, x, 0, 1), limit(sin(x)/x, x, 0), sum(k^2, k, 1, 10)."""
    inner = r"((?:[^,()]|\([^()]*\))+)"
    text = re.sub(r"\b(?:integrate|int)\(", "integral(", text)
    text = re.sub(
        rf"\b(integral|sum|product)\({inner},\s*([a-zA-Z])\s*(?:,|=)\s*{inner}(?:,|\.\.)\s*{inner}\)",
        r"\1(\2 for \3 = \4 to \5)",
        text,
    )
    text = re.sub(
        rf"\b(integral|sum|product)\(([a-zA-Z])\s*=\s*{inner},\s*{inner},\s*{inner}\)",
        r"\1(\5 for \2 = \3 to \4)",
        text,
    )
    text = re.sub(
        rf"\bintegral\({inner},\s*{inner},\s*{inner}\)", r"integral(\1 for x = \2 to \3)", text
    )
    text = re.sub(
        rf"\btaylor\({inner},\s*(?:([a-zA-Z])\s*[,=]\s*)?{inner},\s*(\d+)\)",
        lambda m: f"taylor({m[1]} for {m[2] or 'x'} = {m[3]}, {m[4]})",
        text,
    )
    text = re.sub(
        rf"\b(?:diff|derivative|D)\({inner},\s*([a-zA-Z])\)", r"derivative(\1 for \2)", text
    )
    return re.sub(
        rf"\blimi?t?\({inner},\s*([a-zA-Z])\s*(?:,|->|→|=)\s*([^,()]+)\)",
        r"limit(\1 for \2 to \3)",
        text,
    )


def series(text: str) -> str:
    """Σ_{k=1}^{10} k², ∏_{k=1}^n k, sum k² for k = 1 to 10, sum of k from 1 to 10, 1+2+…+100."""
    text = re.sub(
        r"\b(sum|product)\s+(?:of\s+)?(.*?)\s*,\s*([a-zA-Z])\s*=\s*(\S+)\s+to\s+(\S+)\s*$",
        r"\1(\2 for \3 = \4 to \5)",
        text,
    )
    text = re.sub(
        r"\b(sum|product)\s+of\s+(.*?\b([a-zA-Z])\b.*?)\s+from\s+(\w+)\s+to\s+(\w+)\s*$",
        r"\1(\2 for \3 = \4 to \5)",
        text,
    )
    text = re.sub(
        r"\b(?:the\s+)?(sum|product)\s+of\s+the\s+first\s+(\w+)\s+(.+?)\s*$", _first_of, text
    )
    text = re.sub(
        r"(?<![\w.^*/])1\s*\+\s*2\s*(?:\+\s*3\s*)?\+\s*(?:\.\.\.|…|⋯)\s*\+\s*(\w+)",
        r"sum(k for k = 1 to \1)",
        text,
    )
    for sign, word in (("Σ∑", "sum"), ("Π∏", "product")):
        found = re.search(
            rf"[{sign}]\s*_?\s*[{{(]?\s*([a-zA-Z])\s*=\s*([^{{}}^\s)]+)\s*[}})]?\s*\^?\s*"
            r"(\{[^{}]*\}|\([^()]*\)|[^\s{}]+)\s*(.+)$",
            text,
        )
        if found is not None:
            letter, low, high, body = found.groups()
            line = f"{word}({body} for {letter} = {low} to {high.strip('{}')})"
            text = text[: found.start()] + line
        text = re.sub(
            rf"\b{word}\s+(?:of\s+)?([^()]*?|.*?\)?)\s+(?:for|from)\s+([a-zA-Z])\s*=\s*(\S+)\s+to\s+(\S+)\s*$",
            rf"{word}(\1 for \2 = \3 to \4)",
            text,
        )
        text = re.sub(
            rf"\b{word}\s+from\s+([a-zA-Z])\s*=\s*(\S+)\s+to\s+(\S+)\s+of\s+(.+)$",
            rf"{word}(\4 for \1 = \2 to \3)",
            text,
        )
    return text


_NUMBERS_OF = {
    "whole numbers": "k", "natural numbers": "k", "positive integers": "k", "integers": "k",
    "numbers": "k", "squares": "k^2", "cubes": "k^3", "even numbers": "2 k",
    "odd numbers": "(2 k - 1)", "powers of 2": "2^k",
}  # fmt: skip


def _first_of(found: re.Match[str]) -> str:
    term = _NUMBERS_OF.get(found[3].lower())
    return f"{found[1]}({term} for k = 1 to {found[2]})" if term else found[0]


_SIDES = {"+": ", right", "-": ", left", "−": ", left", "⁺": ", right", "⁻": ", left"}


def limit(text: str) -> str:
    """lim_{x→0} sin(x)/x, lim x→0⁺ 1/x, limit of sin(x)/x as x→0."""

    def told(letter: str, place: str, body: str) -> str:
        place = place.strip("{}() ").removesuffix("^")
        side = _SIDES.get(place[-1:], "") if len(place) > 1 else ""
        place = place[:-1].removesuffix("^") if side else place
        return f"limit({body} for {letter} to {place}{side})"

    arrow = r"(?:→|->|to|goes to|approaches)"
    text = re.sub(
        rf"\blim(?:it)?\s*_?\s*[{{(]?\s*([a-zA-Z])\s*{arrow}\s*([^{{}}()\s]+)\s*[}})]?\s+(?:of\s+)?(.+)$",
        lambda m: told(m[1], m[2], m[3]),
        text,
    )
    return re.sub(
        rf"\b(?:the\s+)?limi?t?\s+(?:of\s+)?(.+?),?\s+(?:as|when|for)\s+([a-zA-Z])\s*{arrow}\s*(\S+)\s*$",
        lambda m: told(m[2], m[3], m[1]),
        text,
    )


_ORDERS = {
    "": 1, "²": 2, "2": 2, "^2": 2, "³": 3, "3": 3, "^3": 3, "first": 1, "second": 2, "third": 3,
}  # fmt: skip


def derivative(text: str) -> str:
    """d/dx x³, d/dx (x³ − x), d²/dx² sin x, ∂/∂x (x² y), (x³)′, the derivative of x³."""
    head, body = _head(text)
    rest = body.strip()
    at = re.fullmatch(r"(.+?)\s+(?:at|when|for)\s+([a-zA-Z])\s*=\s*(\S+)", rest)
    if at is not None:
        rest = at[1]
    found = re.fullmatch(
        r"[d∂]([²2³3]|\^2|\^3)?\s*/\s*[d∂]\s*([a-zA-Zθ])(?:[²2³3]|\^2|\^3)?\s*(.+)", rest
    )
    if found is None:
        found = re.fullmatch(
            r"(?:the\s+)?((?:(?:first|second|third)\s+)?)(?:derivative\s+of|differentiate|diff)\s+()(?:y\s*=\s*)?(.+)",
            rest,
            re.I,
        )
    if found is None:
        primed = re.fullmatch(r"\((.+)\)\s*(['′]+|″)", rest)
        if primed is None or primed[1].count("(") != primed[1].count(")"):
            return text
        order, letter, inner = len(primed[2].replace("″", "′′")), "", primed[1]
    else:
        order = _ORDERS[(found[1] or "").strip().lower()]
        letter, inner = found[2], found[3]
    letter = letter or _argument(head) or "x"
    line = inner
    if line.startswith("(") and line.endswith(")") and closes_at_end(line):
        line = line[1:-1]
    for _ in range(order):
        line = f"derivative({line} for {letter})"
    if at is not None:
        return f"{head}{line[:-1]} = {at[3]})" if order == 1 else text
    if rest.startswith("∂") and re.search(r"(?<![a-zA-Z])y(?![a-zA-Z])", inner):
        return f"{head or 'z(x, y) = '}{line}"
    return f"{head or 'y = '}{line}"


def _head(text: str) -> tuple[str, str]:
    found = re.match(r"\s*((?:\w+\s*\(\s*\w+\s*\)|y|\w+)\s*=)(?!=)\s*", text)
    return (f"{found[1]} ", text[found.end() :]) if found else ("", text)


def _argument(head: str) -> str:
    found = re.search(r"\(\s*(\w+)\s*\)", head)
    return found[1] if found else ""


def tangent(text: str, known: Known) -> str:
    """tangent(f, 2), the tangent of f at x = 2, normal to f at 1."""
    found = re.fullmatch(
        r"\s*((?:\w+\s*(?:\(\s*x\s*\))?\s*=)?)\s*(?:the\s+)?(tangent|normal)(?:\s+line)?\s*"
        r"(?:\(|(?:to|of|on)\s+)\s*(\w+)(?:\(x\))?\s*(?:,|at|in|for)\s*(?:x\s*=\s*)?([^,()]+?)\s*\)?\s*",
        text,
    )
    if found is None or found[3] not in known.functions:
        return text
    head, word, f, at = found.groups()
    return f"{head or 'y ='} {touching(word, f, at)}"


def touching(word: str, f: str, at: str) -> str:
    """The tangent of a function at a place, or its normal there, as a formula of x."""
    run = less("x", at)
    turned = f"+ {f}'({at}) ({run})" if word == "tangent" else f"-({run})/{f}'({at})"
    return f"{f}({at}) {turned}"


def taylor(text: str) -> str:
    """The Taylor polynomial of sin x at 0 of degree 5."""
    found = re.fullmatch(
        r"\s*(?:the\s+)?taylor(?:\s+(?:polynomial|series|expansion))?\s+(?:of\s+)?(.+?)\s*,?\s+(?:at|about|around)\s+"
        r"(?:([a-zA-Z])\s*=\s*)?(\S+?)\s*,?\s+(?:of|to|with|up to)?\s*(?:degree|order)\s+(\d+)\s*",
        text,
        re.I,
    )
    return (
        f"y = taylor({found[1]} for {found[2] or 'x'} = {found[3]}, {found[4]})" if found else text
    )
