"""Domains behind a formula, and cases, as they are written elsewhere."""

from __future__ import annotations

import re

from axispath.core.language.rewriting.texts import apart

_END = r"[^,;()\[\]|{}]+?"
_BRACKET = {"[": "<=", "(": "<", "]": "<"}
_CLOSING = {"]": "<=", ")": "<", "[": "<"}
_SIGN = r"(?:<=|≤|<|>=|≥|>)"


_WHOLE = r"(?P<formula>[^{]+?)"
_OF = r"(?P<letter>[a-zA-Zθ])"
_LOW = rf"(?P<low>{_END})"
_HIGH = rf"(?P<high>{_END})"
DOMAINS = (
    (rf"{_WHOLE}\s*,\s*{_LOW}\s*\.\.\.?\s*{_HIGH}\s*", "<=", "<="),
    (rf"{_WHOLE}\s*,?\s+(?:for\s+{_OF}\s+)?from\s+{_LOW}\s+to\s+{_HIGH}\s*", "<=", "<="),
    (rf"{_WHOLE}\s*,?\s+(?:for\s+{_OF}\s+)?between\s+{_LOW}\s+and\s+{_HIGH}\s*", "<=", "<="),
    (
        rf"{_WHOLE}\s*,?\s+(?:on|for|in|with|where|over)\s+(?:{_OF}\s*(?:∈|in)\s*)?(?P<open>[\[(\]]){_LOW}[,;]{_HIGH}(?P<close>[\])\[])\s*",
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
    (
        rf"{_WHOLE}\s*[,;]?\s*\{{\s*{_LOW}\s*(?:≤|<=)\s*{_OF}\s*(?:≤|<=)\s*{_HIGH}\s*\}}\s*",
        "<=",
        "<=",
    ),
    (rf"{_WHOLE}\s*[,;]?\s*\{{\s*{_LOW}\s*<\s*{_OF}\s*<\s*{_HIGH}\s*\}}\s*", "<", "<"),
)
"""How a domain is written behind a formula: what is read of it, and the signs at its ends."""


def domain(text: str) -> str:
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


def one_sided(text: str) -> str:
    """x^2, x > 0; 1/x for x ≠ 0, which says nothing that the formula does not say."""
    found = re.fullmatch(
        rf"(.+?)\s*(?:[,;]|\bfor\b|\bwhere\b|\bwith\b)\s*([a-zA-Zθ])\s*({_SIGN}|≠|!=)\s*({_END})\s*",
        text,
    )
    if found is None or re.search(_SIGN, found[1]):
        return text
    formula, letter, sign, end = found.groups()
    if sign in ("≠", "!="):
        return formula
    return f"{formula} for {letter} {sign} {end}"


def not_equal(text: str) -> str:
    """x ≠ 2 alone is where x lies on either side."""
    found = re.fullmatch(rf"\s*([xy])\s*(?:≠|!=|<>)\s*({_END})\s*", text)
    return f"{found[1]} < {found[2]} or {found[1]} > {found[2]}" if found else text


def _letter(formula: str) -> str:
    """The letter that a formula is one of."""
    found = re.match(r"\s*\w+\(\s*([a-zA-Zθ])\s*\)\s*=", formula)
    return found[1] if found else "x"


def cases(text: str) -> str:
    """if(x < 0, 1, 2), cases behind a brace, and with else."""
    head, equals, body = text.partition("=") if _is_definition(text) else ("", "", text)
    found = re.fullmatch(r"\s*(?:if|If|IF|when|piecewise)\s*\((.+)\)\s*", body)
    if found is not None:
        parts = apart(found[1], ",")
        if len(parts) == 3 and "if" not in found[1]:
            condition, this, that = (part.strip() for part in parts)
            return f"{head}{equals} {this} if {condition}, {that} otherwise".strip()
    found = re.fullmatch(r"\s*(?:piecewise\s*:?\s*)?\{(.+?)\}?\s*", body)
    found = found or re.fullmatch(r"\s*piecewise\s*:?\s*(.+?)\s*", body)
    worded = re.search(rf"\b(?:for|when|where|if)\b.*{_SIGN}", body) and re.search(
        r"[,;]|\band\b", body
    )
    inside = found[1] if found else body
    separator = r"[,;]|\band\b(?!\s*\w*\s*[<>≤≥=])" if worded else "[,;]"
    parts = [part.strip() for part in apart(inside, separator) if part.strip()]
    told = [_case(part) for part in _with_conditions(parts)]
    if (found is not None or worded) and len(told) > 1 and all(told):
        return f"{head}{equals} {', '.join(str(one) for one in told)}".strip()
    found = re.fullmatch(r"\s*(.+?)\s+if\s+(.+?)\s+else\s+(.+?)\s*", body)
    if found is not None and " if " not in found[3]:
        return f"{head}{equals} {found[1]} if {found[2]}, {found[3]} otherwise".strip()
    return text


def _is_definition(text: str) -> bool:
    return re.match(r"\s*\w+\s*(?:\(\s*\w+\s*\))?\s*=", text) is not None


def _with_conditions(parts: list[str]) -> list[str]:
    """The formulas with the conditions that stand behind them: x^2, x < 1; 2x, x ≥ 1."""
    bare = [re.search(rf"{_SIGN}|\b(?:otherwise|else)\b", part) is not None for part in parts]
    worded = any(re.search(r"\b(?:if|for|when|where|otherwise)\b|:", part) for part in parts)
    if worded or len(parts) % 2 or bare != [k % 2 == 1 for k in range(len(parts))]:
        return parts
    pairs = zip(parts[::2], parts[1::2], strict=True)
    return [
        f"{formula} {condition}" if condition == "otherwise" else f"{formula} if {condition}"
        for formula, condition in pairs
    ]


def _case(part: str) -> str:
    """One case: “x^2 if x < 0”, “x < 0: x^2”, “2 else”."""
    part = re.sub(r"^(.+?)\s+(?:for|when|where)\s+(?=\S*[^=]*[<>≤≥=])", r"\1 if ", part)
    part = re.sub(r"^(.+?)\s+else$", r"\1 otherwise", part)
    if re.search(r"\bif\b|\botherwise\b", part):
        return part
    found = re.fullmatch(rf"([^:]*{_SIGN}[^:]*)\s*:\s*(.+)", part)
    if found:
        return f"{found[2].strip()} if {found[1].strip()}"
    found = re.fullmatch(r"(?:else|otherwise)\s*:?\s*(.+)", part)
    if found:
        return f"{found[1]} otherwise"
    return "" if ":" in part or re.search(_SIGN, part) else f"{part} otherwise"
