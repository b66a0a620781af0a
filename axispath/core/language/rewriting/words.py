"""What is asked for in words: roots, logarithms, counts, means, and how a result is wanted."""

from __future__ import annotations

import re

_ONE = r"(\([^()]*\)|\S+)"
_ORDINAL = {
    "square": 2, "cube": 3, "third": 3, "fourth": 4, "fifth": 5, "sixth": 6,
    "3rd": 3, "4th": 4, "5th": 5, "6th": 6, "7th": 7, "8th": 8,
}  # fmt: skip


def _inner(text: str) -> str:
    return text[1:-1] if text.startswith("(") and text.endswith(")") else text


def root_of(text: str) -> str:
    """The square root of 2, the cube root of 8, the 4th root of 16, nth root(5, 32)."""
    text = re.sub(r"\bn(?:th)?\s*root\s*\(", "root(", text)
    return re.sub(
        rf"\b(?:the\s+)?({'|'.join(_ORDINAL)})\s+root\s*(?:of\s+)?{_ONE}",
        lambda m: f"root({_ORDINAL[m[1]]}, {_inner(m[2])})",
        text,
    )


def chosen(text: str) -> str:
    """5 choose 2, 5C2, 5 P 2."""
    return re.sub(
        r"\b(\w+)\s+choose\s+(\w+)\b|\b(\d+)\s*C\s*(\d+)\b",
        lambda m: f"binomial({m[1] or m[3]}, {m[2] or m[4]})",
        text,
    )


def remainder(text: str) -> str:
    """The remainder of 7 divided by 3; 7 modulo 3."""
    return re.sub(rf"{_ONE}\s+mod(?:ulo)?\s+{_ONE}", r"mod(\1, \2)", text)


STATISTICS = {
    "average": "mean", "hcf": "gcd", "maximum": "max", "minimum": "min", "stdev": "deviation",
    "standard deviation": "deviation",
}  # fmt: skip


def of_numbers(text: str) -> str:
    """The mean of 1, 2, 3; the gcd of 12 and 18."""
    found = re.fullmatch(
        r"\s*(?:the\s+)?(mean|average|median|sum|product|max|maximum|min|minimum|gcd|hcf|lcm|stdev|"
        r"standard\s+deviation|variance)\s+(?:of\s+)?(.+)",
        text,
        re.I,
    )
    if found is None:
        return text
    asked = " ".join(found[1].lower().split())
    word = STATISTICS.get(asked, asked)
    separator = r"\s*(?:,|;|\band\b)\s*"
    if re.fullmatch(r"[-−\d.\s]+", found[2]):
        separator = r"\s+"
    parts = re.split(separator, found[2].strip("[]{}() "))
    numbers = ", ".join(part for part in parts if part)
    return f"{word}([{numbers}])" if word in ("sum", "product") else f"{word}({numbers})"


SOUGHT = {
    r"(?:real\s+)?(?:zeros|zeroes|zero|roots|root)": "zeros",
    r"x[-\s]?intercepts?": "zeros",
    r"y[-\s]?intercepts?": "y-intercept",
    r"(?:axis\s+)?intercepts?": "zeros and the y-intercept",
    r"vert(?:ex|ices)|turning\s+points?|extrem(?:a|um)|stationary\s+points?|critical\s+points?": (
        "turning points"
    ),
    r"(?:local\s+|global\s+|absolute\s+|relative\s+)?(?:max(?:im(?:um|a))?|min(?:im(?:um|a))?)"
    r"(?:\s+(?:points?|values?))?": "turning points",
    r"inflections?(?:\s+points?)?|inflexions?(?:\s+points?)?|points?\s+of\s+infle[cx]i?t?ion": (
        "inflections"
    ),
    r"(?:vertical\s+|horizontal\s+|oblique\s+|slant\s+)?asymptotes?": "asymptotes",
    r"poles?|holes?|gaps?|jumps?|discontinuit(?:y|ies)|undefined\s+points?": "breaks",
    r"domain(?:\s+of\s+definition)?": "domain",
    r"range|image": "largest and smallest values",
}
"""What of a function is asked for, and the words of its list."""
_OF = re.compile(
    rf"\s*(?:find\s+|give\s+|determine\s+|what\s+(?:is|are)\s+)?(?:all\s+)?(?:the\s+)?"
    rf"(?P<what>{'|'.join(SOUGHT)})\s+of\s+(?:the\s+)?(?:function\s+|graph\s+of\s+)?(?P<formula>.+?)\s*\??\s*",
    re.I,
)


def sought(text: str) -> tuple[str, str] | None:
    """What is asked for of a function of x, in the words of its list, and the function."""
    found = _OF.fullmatch(text)
    if found is None or re.search(r"[,;]|\band\b", found["formula"]):
        return None
    # The maximum of a list is a number.
    if not re.search(r"(?<![A-Za-z])(?:x|[fgh])(?![A-Za-z])", found["formula"]):
        return None
    for pattern, words in SOUGHT.items():
        if re.fullmatch(pattern, found["what"], re.I):
            return words, found["formula"]
    return None


def zeros_of(text: str) -> str:
    """Zeros of x² − 4, the vertex of x² − 4x: the function itself, which has a list of them."""
    wanted = sought(text)
    if wanted is not None:
        return wanted[1] if re.search(r"[=<>≤≥]", wanted[1]) else f"y = {wanted[1]}"
    found = re.fullmatch(
        r"\s*(?:solve|find x(?: if)?|graph|plot|draw|sketch|let|set|define|put|suppose|given)"
        r"\s*:?\s+(?:for\s+\w+\s*:?\s*)?(.+)",
        text,
        re.I,
    )
    return found[1] if found else text


def wanted_as(text: str) -> str:
    """12/18 as a fraction, 1/7 to 4 digits: a line of calculation shows both and any digits."""
    text = re.sub(
        r"\s+(?:as\s+an?|in)\s+(?:exact\s+)?(?:fraction|decimal|mixed number|percent(?:age)?)\s*$",
        "",
        text,
    )
    return re.sub(
        r"\s+(?:to|with)\s+\d+\s+(?:digits?|decimals?|decimal places|significant digits|"
        r"significant figures|dp|sf)\s*$",
        "",
        text,
    )


UNITS = {
    "fahrenheit": "°F", "celsius": "°C", "centigrade": "°C", "degrees F": "°F", "degrees C": "°C",
    "inches": "inch", "feet": "ft", "foot": "ft", "miles per hour": "mph", "kph": "km/h",
    "kilometres per hour": "km/h", "kilometers per hour": "km/h", "metres per second": "m/s",
    "meters per second": "m/s",
}  # fmt: skip


def units_in_words(text: str) -> str:
    """20 celsius in fahrenheit, 3 inches to cm, 180 pounds into kg."""
    for word, unit in UNITS.items():
        text = re.sub(rf"\b{word}\b", unit, text, flags=re.I)
    return re.sub(r"\s+(?:to|into|as)\s+([a-zA-Z°µ/^0-9]+)\s*$", r" in \1", text)
