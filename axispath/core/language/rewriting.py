"""Lines as books, answer sheets and people write them, in the words of the language here.

Each rule takes what it can read of a line, and leaves the rest. What comes out is offered where the
line itself was refused, and only where it is understood: a rule that reads too much offers nothing.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

Rule = Callable[[str], str]
LONGEST = 400  # characters of a line that is looked at
_END = r"[^,;()\[\]|]+?"
_LETTERS = dict(zip("ˣʸᶻᵗⁿᵏᵐᵃᵇᶜᵈᵉᶠᵍʰⁱʲˡᵒᵖʳˢᵘᵛʷ", "xyztnkmabcdefghijloprsuvw", strict=True))
_RAISED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁽⁾", "0123456789+-()")
_RUN = re.compile(f"[{''.join(_LETTERS)}⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁽⁾]+")
_BRACKET = {"[": "<=", "(": "<", "]": "<"}
_CLOSING = {"]": "<=", ")": "<", "[": "<"}


def rewritings(text: str) -> Iterator[str]:
    """Other ways to write a line, the nearest first, each once; none that is the line itself."""
    if len(text) > LONGEST:
        return
    seen = {text}
    whole = text
    for rule in RULES:
        for found in (rule(text), rule(whole)):
            if found not in seen:
                seen.add(found)
                yield found
        whole = rule(whole)


def _end_of_sentence(text: str) -> str:
    """f(x) = x^2; and f(x) = x^2."""
    return re.sub(r"\s*[;.]+\s*$", "", text)


def _delimiters(text: str) -> str:
    r"""\(x^2\), \[x^2\], `x^2`."""
    return re.sub(r"^\s*(?:\\[(\[]|`)(.*?)(?:\\[)\]]|`)\s*$", r"\1", text)


def _assigned(text: str) -> str:
    """f(x) := x^2."""
    return text.replace(":=", "=").replace("≔", "=")


def _signs(text: str) -> str:
    """∧ and ∨ between conditions, a colon for a ratio."""
    text = text.replace("∧", " and ").replace("∨", " or ")
    return re.sub(r"(?<=\d)\s*:\s*(?=\d)", "/", text)


def _rounded(text: str) -> str:
    """⌊x⌋ and ⌈x⌉."""
    text = re.sub(r"⌊([^⌊⌋]*)⌋", r"floor(\1)", text)
    return re.sub(r"⌈([^⌈⌉]*)⌉", r"ceil(\1)", text)


def raised_letters(text: str) -> str:
    """eˣ, 2ⁿ, 2ˣ⁺¹: letters that are raised, with the signs and digits beside them."""

    def lowered(found: re.Match[str]) -> str:
        run = found[0]
        if not any(sign in _LETTERS for sign in run):
            return run
        return "^" + _bracketed(
            "".join(_LETTERS.get(sign, sign) for sign in run).translate(_RAISED)
        )

    return _RUN.sub(lowered, text)


def _bracketed(text: str) -> str:
    return text if len(text) == 1 else f"({text})"


def _index_of_root(text: str) -> str:
    """⁴√x, ³√(x + 1)."""
    return re.sub(
        r"([⁰¹²³⁴⁵⁶⁷⁸⁹]+)\s*√\s*(\([^()]*\)|[A-Za-z0-9_.]+)",
        lambda m: f"root({m[1].translate(_RAISED)}, {m[2].strip('()')})",
        text,
    )


def _integral(text: str) -> str:
    """∫_a^b f(t) dt."""
    return re.sub(
        r"∫\s*_?\s*(\{[^{}]*\}|[^\s^{}]+)\s*\^\s*(\{[^{}]*\}|[^\s{}]+)\s*(.+?)\s*d\s*([a-zA-Zθ])(?![a-zA-Z])",
        lambda m: f"integral({m[3]} for {m[4]} = {m[1].strip('{}')} to {m[2].strip('{}')})",
        text,
    )


def _with_commas(text: str) -> str:
    """integral(x^2, 0, 1), integral(x^2, x, 0, 1), limit(sin(x)/x, x, 0), sum(k^2, k, 1, 10)."""
    text = re.sub(
        r"\b(integral|sum|product)\(([^,]+),\s*([a-zA-Z])\s*,\s*([^,()]+),\s*([^,()]+)\)",
        r"\1(\2 for \3 = \4 to \5)",
        text,
    )
    text = re.sub(
        r"\bintegral\(([^,]+),\s*([^,()]+),\s*([^,()]+)\)", r"integral(\1 for x = \2 to \3)", text
    )
    return re.sub(
        r"\blimit\(([^,]+),\s*([a-zA-Z])\s*(?:,|->|→)\s*([^,()]+)\)",
        r"limit(\1 for \2 to \3)",
        text,
    )


def _series(text: str) -> str:
    """Σ_{k=1}^{10} k², ∏_{k=1}^n k."""
    for sign, word in (("Σ∑", "sum"), ("Π∏", "product")):
        found = re.search(
            rf"[{sign}]\s*_?\s*\{{?\s*([a-zA-Z])\s*=\s*([^{{}}^\s]+)\s*\}}?\s*\^?\s*"
            r"(\{[^{}]*\}|[^\s{}]+)\s+(.+)$",
            text,
        )
        if found is not None:
            letter, low, high, body = found.groups()
            line = f"{word}({body} for {letter} = {low} to {high.strip('{}')})"
            text = text[: found.start()] + line
    return text


def _limit(text: str) -> str:
    """lim_{x→0} sin(x)/x."""
    return re.sub(
        r"\blim\s*_?\s*[{(]?\s*([a-zA-Z])\s*(?:→|->)\s*([^{}()\s]+)\s*[})]?\s+(.+)$",
        r"limit(\3 for \1 to \2)",
        text,
    )


def _cases(text: str) -> str:
    """if(x < 0, 1, 2), and cases behind a brace."""
    text = re.sub(r"\bif\(([^,]+),\s*([^,]+),\s*([^,]+)\)", r"\2 if \1, \3 otherwise", text)
    return re.sub(r"=\s*\{\s*([^{}]*\bif\b[^{}]*)\}?\s*$", r"= \1", text)


def _function_of_two(text: str) -> str:
    """z = x^2 + y^2."""
    found = re.fullmatch(r"\s*z\s*=\s*(.+)", text)
    if found is None or not (re.search(r"x", found[1]) and re.search(r"y", found[1])):
        return text
    return f"z(x, y) = {found[1]}"


def _arrow(text: str) -> str:
    """f: x ↦ x^2."""
    return re.sub(r"^\s*(\w+)\s*:\s*(\w+)\s*(?:↦|\|->|->)\s*", r"\1(\2) = ", text)


def _asked(text: str) -> str:
    """f(3) = ?"""
    return re.sub(r"\s*=\s*\?\s*$", "", text)


def _point(text: str) -> str:
    """A(2, 3), A(2 | 3), A = (2; 3)."""
    found = re.fullmatch(r"\s*([A-Z]\w*)\s*=?\s*\(([^,;|()]+)\s*[,|]\s*([^,;|()]+)\)\s*", text)
    return f"{found[1]} = ({found[2].strip()}, {found[3].strip()})" if found else text


def _curve(text: str) -> str:
    """x = cos t, y = sin t; with (t) behind the names, too."""
    found = re.fullmatch(
        r"\s*x(?:\(\w\))?\s*=\s*(.+?)\s*[,;]\s*(?:and\s+)?y(?:\(\w\))?\s*=\s*(.+)", text
    )
    return f"({found[1]}, {found[2]})" if found else text


def _set(text: str) -> str:
    """{(x, y) : x^2 + y^2 < 4}, and {1, 2, 3} as a list."""
    found = re.fullmatch(r"\s*\{\s*\(?\s*x\s*,\s*y\s*\)?\s*[:|]\s*(.+)\}\s*", text)
    if found:
        return found[1].strip()
    return re.sub(r"^\s*((?:\w+\s*=\s*)?)\{([^{}:|]*,[^{}:|]*)\}\s*$", r"\1[\2]", text)


def _conditions(text: str) -> str:
    """x > 0, y > 0."""
    parts = re.split(r"\s*,\s*", text)
    compared = all(len(re.findall(r"<=?|>=?|≤|≥", part)) > 0 for part in parts)
    return " and ".join(parts) if len(parts) > 1 and compared and "(" not in text else text


def _circle(text: str) -> str:
    """circle radius 6, circle with centre (1, 2) and radius 3."""
    if not re.match(r"\s*circle\b", text, re.I):
        return text
    radius = re.search(r"radius\s*(?:of\s*|=\s*)?([\w./√]+)", text, re.I)
    centre = re.search(
        r"(?:cent(?:re|er)|around|at)\s*(?:at\s*|=\s*)?\(([^,]+),([^()]+)\)", text, re.I
    )
    if radius is None:
        return text
    across, upwards = (
        letter
        if centre is None or re.fullmatch(r"\s*0(?:\.0*)?\s*", place)
        else f"({letter} - ({place.strip()}))"
        for letter, place in zip("xy", centre.groups() if centre else ("0", "0"), strict=True)
    )
    return f"{across}^2 + {upwards}^2 = {radius[1]}^2"


def _domain(text: str) -> str:
    """What stands behind a formula as its domain, in signs, brackets and words."""
    for pattern, low, high in DOMAINS:
        found = re.fullmatch(pattern, text)
        if found is None:
            continue
        given = found.groupdict()
        letter = given.get("letter") or _letter(given["formula"])
        below = low or _BRACKET[given["open"]]
        above = high or _CLOSING[given["close"]]
        start, end = given["low"].strip(), given["high"].strip()
        parts = f"{start} {below} " if not re.fullmatch(r"[-−]\s*(?:∞|inf\w*)", start) else ""
        upper = f" {above} {end}" if not re.fullmatch(r"[+]?\s*(?:∞|inf\w*)", end) else ""
        return f"{given['formula'].strip()} for {parts}{letter}{upper}"
    return text


def _letter(formula: str) -> str:
    """The letter that a formula is one of."""
    found = re.match(r"\s*\w+\(\s*([a-zA-Zθ])\s*\)\s*=", formula)
    return found[1] if found else "x"


_WHOLE = r"(?P<formula>.+?)"
_OF = r"(?P<letter>[a-zA-Zθ])"
_LOW = rf"(?P<low>{_END})"
_HIGH = rf"(?P<high>{_END})"
DOMAINS = (
    (rf"{_WHOLE}\s*,\s*{_LOW}\s*\.\.\.?\s*{_HIGH}\s*", "<=", "<="),
    (rf"{_WHOLE}\s*,?\s+(?:for\s+{_OF}\s+)?from\s+{_LOW}\s+to\s+{_HIGH}\s*", "<=", "<="),
    (rf"{_WHOLE}\s*,?\s+(?:for\s+{_OF}\s+)?between\s+{_LOW}\s+and\s+{_HIGH}\s*", "<=", "<="),
    (
        rf"{_WHOLE}\s*,?\s+(?:on|for|in)\s+(?:{_OF}\s*(?:∈|in)\s*)?(?P<open>[\[(\]]){_LOW}[,;]{_HIGH}(?P<close>[\])\[])\s*",
        "",
        "",
    ),
    (
        rf"{_WHOLE}\s*[,;]\s*{_OF}\s*(?:∈|in)\s*(?P<open>[\[(\]]){_LOW}[,;]{_HIGH}(?P<close>[\])\[])\s*",
        "",
        "",
    ),
    (rf"{_WHOLE}\s*[,;]\s*{_LOW}\s*(?:≤|<=)\s*{_OF}\s*(?:≤|<=)\s*{_HIGH}\s*", "<=", "<="),
    (rf"{_WHOLE}\s*[,;]\s*{_LOW}\s*<\s*{_OF}\s*<\s*{_HIGH}\s*", "<", "<"),
)
"""How a domain is written behind a formula: what is read of it, and the signs at its ends."""


def _mixed(text: str) -> str:
    """2 1/2 is asked back, as the sum that it may mean."""
    return re.sub(r"(?<![\w.])(\d+)\s+(\d+)\s*/\s*(\d+)(?![\w.])", r"(\1 + \2/\3)", text)


RULES: tuple[Rule, ...] = (
    _end_of_sentence,
    _delimiters,
    _assigned,
    _arrow,
    _asked,
    _rounded,
    _index_of_root,
    _integral,
    _with_commas,
    _series,
    _limit,
    _cases,
    _circle,
    _curve,
    _point,
    _set,
    _domain,
    _conditions,
    _signs,
    _function_of_two,
    _mixed,
)
"""The ways of writing that are known, those first that say most."""
