"""Lines, parabolas, circles and ellipses by what is given of them: points, slopes, axes."""

from __future__ import annotations

import re
from fractions import Fraction

from axispath.core.language.rewriting.known import Known
from axispath.core.language.rewriting.texts import PAIR, apart, is_plain, less

_PLACE = re.compile(
    r"(?:\b[A-Z]\w*\s*[=:]?\s*)?\(\s*([^(),;|]+?)\s*[,;|]\s*([^(),;|]+?)\s*\)|\b([A-Z])\b"
)
_VALUE = r"([-−+]?\s*[\w./√]+)"
_SLOPE = re.compile(rf"\b(?:slope|gradient)\s*(?:of|=|is)?\s*{_VALUE}", re.I)
_CROSSES = re.compile(rf"\b(?:y[-\s])?(?:axis\s+)?intercept\s*(?:of|=|is|at)?\s*{_VALUE}", re.I)
_ASIDE = re.compile(
    r"\b(parallel|perpendicular|normal)\s+to\s+(?:the\s+)?(?:line\s+)?(.+?)\s+(?:through|at|in)\b",
    re.I,
)
_WORDS = re.compile(
    r"\b(line|straight|slope|gradient|parallel|perpendicular|parabola|quadratic|ellipse|circle)\b",
    re.I,
)
_LINEAR = re.compile(r"\s*(?:y|\w+\(x\))\s*=\s*([-−+]?\s*[\d./]*)\s*\*?\s*x\s*(?:[-−+].*)?")


def graph(text: str, known: Known) -> str:
    """The line through (1, 2) and (3, 5), with slope 2; parallel to y = 2x; parabola, ellipse."""
    if not _WORDS.search(text) or re.search(r"\b(?:line|slope)\s*\(", text):
        return text
    aside = _ASIDE.search(text)
    rest = text if aside is None else text[aside.end(2) :]
    places = [
        (m[1], m[2]) if m[1] else (f"{m[3]}_x", f"{m[3]}_y")
        for m in _PLACE.finditer(rest)
        if m[1] or m[3] in known.points
    ]
    for shape, draw in _SHAPES.items():
        if re.search(rf"\b{shape}\b", text, re.I):
            return draw(text, places) or text
    slope = _SLOPE.search(rest)
    lead = _slope_of(aside) if aside is not None else slope[1].replace(" ", "") if slope else None
    if lead is not None and len(places) == 1:
        return f"y = {places[0][1]} + {_times(lead, less('x', places[0][0]))}"
    crossing = _CROSSES.search(rest)
    if lead is not None and crossing is not None and not places:
        return f"y = {_times(lead, 'x').lstrip('+ ')} + {_bracketed(crossing[1])}"
    if lead is None and len(places) == 2 and re.search(r"\bline\b", text, re.I):
        (a, b), (c, d) = places
        return f"y = line(({a}, {b}), ({c}, {d}))"
    return text


def _bracketed(value: str) -> str:
    value = value.replace(" ", "")
    return value if is_plain(value) else f"({value})"


def _times(value: str, factor: str) -> str:
    return f"{_bracketed(value)} {factor if is_plain(factor) else f'({factor})'}"


def _slope_of(aside: re.Match[str]) -> str | None:
    """The slope of what runs parallel or perpendicular to a line y = m x + b."""
    found = _LINEAR.fullmatch(aside[2])
    if found is None:
        return None
    lead = found[1].replace(" ", "").replace("−", "-")
    lead = f"{lead}1" if lead in ("", "+", "-") else lead
    if aside[1].lower() == "parallel":
        return lead
    try:
        turned = -1 / Fraction(lead)
    except (ValueError, ZeroDivisionError):
        return None
    return str(turned)


Places = list[tuple[str, str]]


def _parabola(text: str, places: Places) -> str | None:
    if re.search(r"\bvertex\b", text, re.I) and len(places) == 2:
        (h, k), (p, q) = places
        if re.search(r"\bthrough\b.*\bvertex\b", text, re.I):
            (p, q), (h, k) = places
        return f"y = ({less(q, k)})/({less(p, h)})^2 ({less('x', h)})^2 + {_bracketed(k)}"
    if len(places) != 3:
        return None
    parts = []
    for which, (at, value) in enumerate(places):
        others = [x for j, (x, _) in enumerate(places) if j != which]
        above = " ".join(f"({less('x', x)})" for x in others)
        below = " ".join(f"({less(at, x)})" for x in others)
        parts.append(f"{_bracketed(value)} {above}/({below})")
    return f"y = {' + '.join(parts)}"


def _ellipse(text: str, places: Places) -> str | None:
    found = re.search(rf"axes\s+(?:of\s+)?{_VALUE}\s*(?:and|,)\s*{_VALUE}", text, re.I)
    if found is None or len(places) > 1:
        return None
    h, k = places[0] if places else ("0", "0")
    across, upwards = (
        letter if at == "0" else f"({less(letter, at)})" for letter, at in (("x", h), ("y", k))
    )
    return f"{across}^2/{_bracketed(found[1])}^2 + {upwards}^2/{_bracketed(found[2])}^2 = 1"


def _circle(text: str, places: Places) -> str | None:
    """The circle through three points, by the centre that is as far from each."""
    if len(places) != 3 or not re.search(r"\bthrough\b", text, re.I):
        return None
    try:
        (a, b), (c, d), (e, f) = [(Fraction(x), Fraction(y)) for x, y in places]
    except (ValueError, ZeroDivisionError):
        return None
    twice = 2 * (a * (d - f) + c * (f - b) + e * (b - d))
    if not twice:
        return None
    squares = a * a + b * b, c * c + d * d, e * e + f * f
    h = (squares[0] * (d - f) + squares[1] * (f - b) + squares[2] * (b - d)) / twice
    k = (squares[0] * (e - c) + squares[1] * (a - e) + squares[2] * (c - a)) / twice
    radius = (a - h) ** 2 + (b - k) ** 2
    return f"({less('x', str(h))})^2 + ({less('y', str(k))})^2 = {radius}"


_SHAPES = {"parabola": _parabola, "quadratic": _parabola, "ellipse": _ellipse, "circle": _circle}


def of_places(text: str) -> str:
    """The distance from (1, 2) to (4, 6), the midpoint of two points; |(3, 4)|, (1, 2) · (3, 4)."""
    found = re.fullmatch(
        r"\s*(?:find\s+)?(?:the\s+)?(midpoint|distance|slope|gradient)\s+(?:of\s+|from\s+|between\s+|through\s+)?"
        rf"(?:[A-Z]\s*)?{PAIR}\s*(?:and|to|,)\s*(?:[A-Z]\s*)?{PAIR}\s*",
        text,
        re.I,
    )
    if found is not None:
        word = {"gradient": "slope"}.get(found[1].lower(), found[1].lower())
        return f"{word}(({found[2]}, {found[3]}), ({found[4]}, {found[5]}))"
    found = re.fullmatch(
        rf"\s*(?:\|\s*{PAIR}\s*\||(?:the\s+)?(?:length|magnitude|norm)\s+of\s+(?:the\s+)?(?:vector\s+)?{PAIR})\s*",
        text,
        re.I,
    )
    if found is not None:
        x, y = (found[1], found[2]) if found[1] else (found[3], found[4])
        return f"distance((0, 0), ({x}, {y}))"
    found = re.fullmatch(rf"\s*{PAIR}\s*[·⋅•*]\s*{PAIR}\s*", text)
    if found is not None:
        a, b, c, d = found.groups()
        return f"({a}) * ({c}) + ({b}) * ({d})"
    found = re.fullmatch(r"\s*(?:the\s+)?points?\s+(.*\)\s*)", text, re.I)
    if found is not None:
        parts = [part.strip() for part in apart(found[1], r"[,;]|\band\b") if part.strip()]
        places = [place for part in parts for place in re.findall(r"\([^()]*\)", part)]
        return f"[{', '.join(places)}]" if len(places) > 1 else places[0] if places else text
    return text
