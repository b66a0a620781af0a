"""Signs that are written elsewhere and not here: what to write instead."""

from __future__ import annotations

import re

from axispath.core.language.errors import LanguageError

_ARROW = r"(?:->|→|↦)"
_MAPPING = re.compile(rf"\s*(\w+)\s*:\s*(?:[^,]*,\s*)?(\w+)\s*{_ARROW}\s*(.+?)\s*$")
LIMITS = "Write a limit as limit(sin(x)/x for x to 0)."
INTEGRALS = "Write an integral as integral(x^2 for x = 0 to 1); its ends may hold x."
_SENTENCES = {
    "%": "Write a percentage as a fraction: 5% is 5/100.",
    "±": "± means two values: write two lines, one with + and one with −.",
    "∓": "∓ means two values: write two lines, one with + and one with −.",
    "∫": INTEGRALS,
    "→": LIMITS,
    "↦": "Write a function with an equals sign: f(x) = x^2.",
    ":": "A colon has no meaning here: write f(x) = x^2, and division as /.",
    "\\": "This stands alone: LaTeX has a command after each backslash.",
    "∑": "Write a sum as sum(k^2 for k = 1 to 5).",
    "∏": "Write a product as product(k for k = 1 to 5).",
    "∂": "Write a derivative as derivative(x^2 y for x).",
    "≈": "Write = to solve an equation; solutions come with as many digits as you choose.",
    "$": "Money has no sign here: write the number alone.",
    "_": "An index is written right behind a name: a_1, or log_2(x).",
    "&": "Write two limits as one chain, such as 0 < x < 2.",
    '"': "Text has no meaning here: a note is written behind the three dots of a lane.",
}
_RUNNING = {
    "lim": LIMITS,
    "int": INTEGRALS,
    "sum": _SENTENCES["∑"],
    "prod": _SENTENCES["∏"],
    "product": _SENTENCES["∏"],
}


def strange(text: str, at: int) -> LanguageError:
    """The error for a character of ``text`` that starts nothing."""
    char = text[at]
    if char == ":" and text[at : at + 2] == ":=":
        mend = f"{text[:at]}={text[at + 2 :]}"
        return LanguageError("Write a single equals sign.", at, at + 2, mend)
    mapping = _MAPPING.match(text)
    if mapping and char in ":→↦":
        name, argument, formula = mapping.groups()
        mend = f"{name}({argument}) = {formula}"
        return LanguageError(f"Write a function as {name}({argument}) = ….", at, at + 1, mend)
    before = re.search(r"([^\W\d_]+)$", text[:at])
    if char == "_" and before and before[1] in _RUNNING:
        return LanguageError(_RUNNING[before[1]], before.start(), at + 1)
    sentence = _SENTENCES.get(char, f"“{char}” has no meaning here.")
    return LanguageError(sentence, at, at + 1, _fraction(text) if char == "%" else None)


def _fraction(text: str) -> str:
    """The line with its percentages as fractions."""
    return re.sub(r"((?:\d+\.?\d*|\.\d+))\s*%", r"(\1/100)", text)
