"""Points, curves, circles and sets of the plane as they are written elsewhere."""

from __future__ import annotations

import re

from axispath.core.language.rewriting.known import Known


def point(text: str) -> str:
    """A(2, 3), A(2 | 3), A = (2; 3)."""
    found = re.fullmatch(r"\s*([A-Z]\w*)\s*[=:]?\s*\(([^,;|()]+)\s*[,|;]\s*([^,;|()]+)\)\s*", text)
    return f"{found[1]} = ({found[2].strip()}, {found[3].strip()})" if found else text


def curve(text: str) -> str:
    """x = cos t, y = sin t; with (t) behind the names, too."""
    found = re.fullmatch(
        r"\s*x(?:\(\w\))?\s*=\s*(.+?)\s*[,;]\s*(?:and\s+)?y(?:\(\w\))?\s*=\s*(.+)", text
    )
    if found is None:
        return text
    rest = re.fullmatch(r"(.+?)\s*[,;]\s*(?:for\s+)?(.+(?:<|≤|>|≥).+)", found[2])
    if rest is not None:
        return f"({found[1]}, {rest[1]}) for {rest[2]}"
    return f"({found[1]}, {found[2]})"


def set_of(text: str) -> str:
    """{(x, y) : x^2 + y^2 < 4}, and {1, 2, 3} as a list."""
    found = re.fullmatch(r"\s*\{\s*\(?\s*x\s*,\s*y\s*\)?\s*[:|]\s*(.+)\}\s*", text)
    if found:
        return found[1].strip()
    found = re.match(r"^\s*((?:\w+\s*=\s*)?)\{([^{}:|<>≤≥]*[,;][^{}:|<>≤≥]*)\}\s*$", text)
    return f"{found[1]}[{found[2].replace(';', ',')}]" if found else text


def conditions(text: str) -> str:
    """x > 0, y > 0."""
    parts = re.split(r"\s*,\s*", text)
    compared = all(len(re.findall(r"<=?|>=?|≤|≥", part)) > 0 for part in parts)
    return " and ".join(parts) if len(parts) > 1 and compared and "(" not in text else text


def circle(text: str) -> str:
    """circle radius 6, circle with centre (1, 2) and radius 3."""
    if not re.match(r"\s*circle\b", text, re.I):
        return text
    called = re.fullmatch(r"\s*circle\s*\(\s*([^,()]+),([^,()]+),\s*([^,()]+)\)\s*", text, re.I)
    if called is not None:
        text = f"circle at ({called[1]}, {called[2]}) radius {called[3].strip()}"
    radius = re.search(r"radius\s*(?:of\s*|=\s*)?([\w./√]+)", text, re.I)
    centre = re.search(
        r"(?:cent(?:re|er)|around|about|at)\s*(?:at\s*|=\s*)?\(([^,]+),([^()]+)\)", text, re.I
    )
    if radius is None:
        return text
    named = re.search(r"(?:cent(?:re|er)|around|about|at)\s*(?:at\s*)?([A-Z])\b", text)
    if named is not None and centre is None:
        return f"(x - {named[1]}_x)^2 + (y - {named[1]}_y)^2 = {radius[1]}^2"
    across, upwards = (
        letter
        if centre is None or re.fullmatch(r"\s*0(?:\.0*)?\s*", place)
        else f"({letter} - ({place.strip()}))"
        for letter, place in zip("xy", centre.groups() if centre else ("0", "0"), strict=True)
    )
    return f"{across}^2 + {upwards}^2 = {radius[1]}^2"


def polar_square(text: str) -> str:
    """r² = 4 cos(2θ): the distance is the root."""
    found = re.fullmatch(r"\s*r\s*(?:²|\^\s*2)\s*=\s*(.+)", text)
    return f"r = √({found[1]})" if found else text


def ray(text: str) -> str:
    """θ = π/4 as a line through the pole."""
    found = re.fullmatch(r"\s*(?:θ|theta)\s*=\s*([^θ]+)", text)
    return f"y cos({found[1]}) = x sin({found[1]})" if found else text


def matrix(text: str) -> str:
    """[1 2; 3 4] and [[1, 2], [3, 4]]."""
    found = re.fullmatch(r"\s*((?:\w+\s*=)?)\s*\[([^\[\],]+(?:;[^\[\],]+)+)\]\s*", text)
    if found is not None:
        rows = [", ".join(row.split()) for row in found[2].split(";")]
        return f"{found[1]} [{'; '.join(rows)}]".strip()
    found = re.fullmatch(
        r"\s*((?:\w+\s*=)?)\s*[\[({]\s*((?:[\[({][^\[\](){}]*[\])}]\s*,?\s*)+)[\])}]\s*", text
    )
    if found is None or "(" in found[2]:
        return text
    rows = re.findall(r"[\[{]([^\[\]{}]*)[\]}]", found[2])
    return f"{found[1]} [{'; '.join(row.strip() for row in rows)}]".strip()


def transposed(text: str) -> str:
    """M′, Mᵀ, M^T."""
    return re.sub(r"\b([A-Z])(?:'|′|ᵀ|\^T\b)(?!\()", r"transpose(\1)", text)


def ellipsis(text: str) -> str:
    """[1, 2, …, 10], 1, 3, 5, …, 21, [1..10], range(1, 10)."""
    number = r"-?[\d.]+?"
    head = r"((?:\w+\s*=\s*)?)"
    found = re.fullmatch(
        rf"\s*{head}[\[{{(]?\s*({number})\s*,\s*({number})\s*,(?:\s*{number}\s*,)*\s*(?:\.\.\.|…)\s*,?\s*({number})\s*[\]}})]?\s*",
        text,
    )
    if found is not None:
        start, second, end = (found[k] for k in (2, 3, 4))
        step = float(second) - float(start)
        return f"{found[1]}[{start} to {end}{'' if step == 1 else f' by {step:g}'}]"
    found = re.fullmatch(
        rf"\s*{head}(?:\[|range\()?\s*(-?\d+)\s*(?:\.\.\.?|…|,)\s*(-?\d+)\s*(?:,\s*(-?\d+)\s*)?[\])]?\s*",
        text,
    )
    if found is None or not re.search(r"\.\.|…|range", text):
        return text
    step_by = f" by {found[4]}" if found[4] else ""
    return f"{found[1]}[{found[2]} to {found[3]}{step_by}]"


def points_in_a_row(text: str) -> str:
    """(1, 2), (3, 4), (5, 6)."""
    one = r"\(\s*[^(),]+\s*,\s*[^(),]+\s*\)"
    return f"[{text.strip()}]" if re.fullmatch(rf"\s*{one}(?:\s*[,;]?\s*{one})+\s*", text) else text


def of_points(text: str, known: Known) -> str:
    """The midpoint of A and B, the distance from A to B."""
    found = re.fullmatch(
        r"\s*(?:the\s+)?(midpoint|distance|slope|line)\s+(?:of|from|between|through)\s+(\w+)\s+(?:and|to)\s+(\w+)\s*",
        text,
        re.I,
    )
    if found is not None:
        return f"{found[1].lower()}({found[2]}, {found[3]})"
    found = re.fullmatch(r"\s*\|\s*(?:([A-Z])\s*[-−]\s*([A-Z])|([A-Z])([A-Z]))\s*\|\s*", text)
    if found is None:
        return text
    first, second = found[1] or found[3], found[2] or found[4]
    return f"distance({first}, {second})" if {first, second} <= known.points else text
