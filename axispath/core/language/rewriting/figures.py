"""Figures of points, and points that are calculated, by coordinates: they follow the points."""

from __future__ import annotations

import re
from collections.abc import Callable
from fractions import Fraction

from axispath.core.language.rewriting.known import Known
from axispath.core.language.rewriting.texts import PAIR, apart, closes_at_end, is_plain, less

Place = tuple[str, str]
"""A point by its two coordinates as text."""
MOST_CORNERS = 8
_HEAD = re.compile(r"\s*((?:[A-Za-z]\w*\s*=)?)\s*(.*)", re.S)


def point_arithmetic(text: str, known: Known) -> str:
    """(A + B)/2, A + (1, 2), 2A − B, (2, 3) + (1, 1): coordinate by coordinate."""
    head, body = _HEAD.fullmatch(text).groups()  # type: ignore[union-attr]
    points = sorted(known.points, key=len, reverse=True)
    name = "|".join([*map(re.escape, points), "(?!)"])
    part = re.compile(rf"{PAIR}|(?<![A-Za-z_])({name})(?![A-Za-z_0-9])")
    rest = part.sub("", body)
    found = part.findall(body)
    if not found or not re.fullmatch(r"[\s\d.+\-−*·/()√π]*", rest) or body.count("=") > 0:
        return text
    if len(found) == 1 and not re.search(r"[\d+\-−*·/]", rest):
        return text

    def along(which: int) -> str:
        def coordinate(match: re.Match[str]) -> str:
            if match[3]:
                return f" {match[3]}_{'xy'[which]}"
            return f"({match[which + 1].strip()})"

        return re.sub(r"\(\s+", "(", " ".join(part.sub(coordinate, body).split()))

    return f"{head} ({along(0)}, {along(1)})".strip()


def figure(text: str, known: Known) -> str:
    """segment(A, B), circle(A, 3), circle(A, B), triangle(A, B, C), perpendicular bisectors."""
    head, body = _HEAD.fullmatch(text).groups()  # type: ignore[union-attr]
    found = re.fullmatch(
        r"(?:the\s+)?(segment|vector|ray|circle|triangle|polygon|(?:perpendicular )?bisector)\s*"
        r"(?:with\s+(?:the\s+)?(?:corners|vertices)|of|from|through|around|about)?\s*(.+?)\s*",
        body,
        re.I,
    )
    if found is None:
        return text
    inside = found[2].strip()
    pair = re.fullmatch(PAIR, inside)
    if inside.startswith("(") and closes_at_end(inside) and (not pair or _named(inside, known)):
        inside = inside[1:-1]  # the brackets are those of the figure, and not of a point
    given = [one.strip() for one in apart(inside, r",|\s(?:and|to)\s") if one.strip()]
    if len(given) == 1 and all(letter in known.points for letter in given[0]):
        given = list(given[0])  # triangle ABC
    places = [_place(one, known) for one in given]
    draw = FIGURES.get(found[1].lower())
    if draw is None or not places or places[0] is None:
        return text
    made = draw(places, given)
    return text if made is None else f"{_free(head, made)}{made}"


def _named(text: str, known: Known) -> bool:
    return any(one.strip() in known.points for one in text.strip("() ").split(","))


def _free(head: str, made: str) -> str:
    """The name of a figure, where a lane of its kind takes one."""
    name = head.rstrip("= ")
    return f"{name}(t) = " if name and made.startswith("(") and " for " in made else ""


def _place(text: str, known: Known) -> Place | None:
    if text in known.points:
        return f"{text}_x", f"{text}_y"
    found = re.fullmatch(PAIR, text)
    return (found[1].strip(), found[2].strip()) if found else None


def _between(a: Place, b: Place) -> str:
    return f"({', '.join(_run(p, q) for p, q in zip(a, b, strict=True))})"


def _run(start: str, end: str) -> str:
    """From one number at t = 0 to another at t = 1."""
    try:
        step = Fraction(end) - Fraction(start)
    except (ValueError, ZeroDivisionError):
        return f"{start} + t ({less(end, start)})"
    lead = f"{step}" if step.denominator == 1 else f"({step})"
    if not step:
        return start
    return f"{lead} t" if not Fraction(start) else f"{start} + {lead} t".replace("+ -", "- ")


def _segment(places: list[Place | None], given: list[str]) -> str | None:
    a, b = (*places, None)[:2]
    return f"{_between(a, b)} for 0 <= t <= 1" if a and b and len(places) == 2 else None


def _ray(places: list[Place | None], given: list[str]) -> str | None:
    a, b = (*places, None)[:2]
    return f"{_between(a, b)} for t >= 0" if a and b and len(places) == 2 else None


def _circle(places: list[Place | None], given: list[str]) -> str | None:
    if len(places) != 2 or places[0] is None:
        return None
    (x, y), other = places[0], places[1]
    middle = f"({less('x', x)})^2 + ({less('y', y)})^2"
    if other is None:
        return f"{middle} = {given[1] if is_plain(given[1]) else f'({given[1]})'}^2"
    return f"{middle} = ({less(other[0], x)})^2 + ({less(other[1], y)})^2"


def _bisector(places: list[Place | None], given: list[str]) -> str | None:
    a, b = (*places, None)[:2]
    if not (a and b) or len(places) != 2:
        return None
    one, other = (f"({less('x', p)})^2 + ({less('y', q)})^2" for p, q in (a, b))
    return f"{one} = {other}"


def _vector(places: list[Place | None], given: list[str]) -> str | None:
    return _segment([("0", "0"), *places] if len(places) == 1 else places, given)


def _polygon(places: list[Place | None], given: list[str]) -> str | None:
    corners = [place for place in places if place is not None]
    if not 3 <= len(corners) <= MOST_CORNERS or len(corners) < len(places):
        return None
    sides = list(zip(corners, [*corners[1:], corners[0]], strict=True))

    def along(which: int) -> str:
        parts = []
        for k, (a, b) in enumerate(sides):
            side = re.sub(r"\bt\b", f"(t - {k})" if k else "t", _run(a[which], b[which]))
            last = k == len(sides) - 1
            parts.append(f"{side} otherwise" if last else f"{side} if t < {k + 1}")
        return f"({', '.join(parts)})"

    return f"({along(0)}, {along(1)}) for 0 <= t <= {len(sides)}"


FIGURES: dict[str, Callable[[list[Place | None], list[str]], str | None]] = {
    "segment": _segment,
    "ray": _ray,
    "circle": _circle,
    "triangle": _polygon,
    "polygon": _polygon,
    "bisector": _bisector,
    "vector": _vector,
    "perpendicular bisector": _bisector,
}
"""By their names: what is made of the points that are given, and of what was typed for them."""
