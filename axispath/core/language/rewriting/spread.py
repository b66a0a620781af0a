"""Lines that say several things: two curves that meet, a tangent to a formula, letters given."""

from __future__ import annotations

import re

from axispath.core.language.rewriting.calculus import touching
from axispath.core.language.rewriting.known import Known
from axispath.core.language.rewriting.texts import apart

NAMES = "fghpqu"
_MEETING = (
    r"(?:find\s+)?(?:the\s+)?(?:points?\s+of\s+)?(?:intersections?|meeting\s+points?|crossings?)"
    r"(?:\s+points?)?\s+(?:of|between)\s+(?:the\s+(?:curves|graphs|lines)\s+)?(.+)",
    r"(?:where|when)\s+(?:do|does|is|are)\s+(.+?)\s+(?:meet|meets|cross|crosses|intersect|equal)\s*(.*)",
    r"intersect\s+(.+)",
)
_TANGENT = re.compile(
    r"\s*(?:find\s+)?(?:the\s+)?(?:equation\s+of\s+the\s+)?(tangent|normal)(?:\s+line)?\s+(?:to|of|on)\s+"
    r"(?:the\s+(?:curve|graph)\s+(?:of\s+)?)?(?:y\s*=\s*)?(.*x.*?)\s*(?:,|\bat|\bin|\bwhere|\bwhen)\s*"
    r"(?:x\s*=\s*)?([-−+\w./π√]+)\s*",
    re.I,
)


def spread(text: str, known: Known) -> list[str]:
    """The lines that a line stands for; one where it is one."""
    for pattern in _MEETING:
        found = re.fullmatch(rf"\s*{pattern}\s*\??\s*", text, re.I)
        if found is not None:
            whole = " and ".join(part for part in found.groups() if part)
            parts = [part.strip() for part in apart(whole, r",|;|\band\b|\bwith\b")]
            return [_as_function(part) for part in parts if part]
    found = _TANGENT.fullmatch(text)
    if found is not None:
        word, formula, at = found[1].lower(), found[2], found[3]
        free = next((name for name in NAMES if name not in known.names), None)
        if free is None:
            return [text]
        return [f"{free}(x) = {formula}", f"y = {touching(word, free, at)}"]
    return [
        part for one in apart(text, r"[,;]|\band\b|\bwhere\b|\bwith\b") if (part := one.strip())
    ]


def _as_function(part: str) -> str:
    return part if re.search(r"[=<>≤≥]", part) else f"y = {part}"
