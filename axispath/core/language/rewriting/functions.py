"""Functions by arrows and names, composed, added and inverted, and without their arguments."""

from __future__ import annotations

import re

from axispath.core.language.rewriting.known import Known


def function_of_two(text: str) -> str:
    """z = x^2 + y^2."""
    found = re.fullmatch(r"\s*z\s*=\s*(.+)", text)
    if found is None or not (re.search(r"x", found[1]) and re.search(r"y", found[1])):
        return text
    return f"z(x, y) = {found[1]}"


def arrow(text: str) -> str:
    """f: x ↦ x^2."""
    text = re.sub(r"^\s*(\w+)\s*:\s*[^,;]*(?:→|->)[^,;]*[,;]\s*", r"\1: ", text)
    return re.sub(r"^\s*(\w+)\s*:\s*(\w+)\s*(?:↦|\|->|->|→)\s*", r"\1(\2) = ", text)


def asked(text: str) -> str:
    """f(3) = ?"""
    text = re.sub(r"^\s*(?:what\s+is|calculate|compute|evaluate|find)\s+", "", text, flags=re.I)
    return re.sub(r"\s*=?\s*\?\s*$|\s*=\s*$", "", text)


def numbered(text: str) -> str:
    """y1 = 2x + 1, y_2 = x^2: functions of x."""
    found = re.fullmatch(r"\s*([yYfg]_?\d+|[yY][₀-₉]+)\s*=\s*(.*[xX].*)", text)
    return f"{found[1]}(x) = {found[2]}" if found else text


def composed(text: str, known: Known) -> str:
    """f ∘ g, (f ∘ g)(x), (f + g)(x), h = f + g, k = f′."""
    names = sorted(known.functions, key=len, reverse=True)
    if not names:
        return text
    name = "|".join(re.escape(one) for one in names)
    head, equals, body = re.match(
        r"((?:\s*\w+\s*(?:\(\s*\w\s*\))?\s*(=)\s*)?)(.*)", text, re.S
    ).groups()  # type: ignore[union-attr]
    while True:
        found = re.search(rf"\(?\s*({name})\s*[∘°]\s*({name})\s*\)?\s*(?:\(([^()]*)\))?", body)
        if found is None:
            break
        f, g, at = found.groups()
        body = f"{body[: found.start()]}{f}({g}({at or 'x'})){body[found.end() :]}"
    found = re.fullmatch(rf"\s*\(((?:(?:{name})|[-+*/·\s\d])+)\)\s*\(([^()]+)\)\s*", body)
    place = "x"
    if found is not None:
        body, place = f"({found[1]})", found[2]
    body = re.sub(
        rf"(?<![\w])({name})((?:['′]*))(?![\w(′'^⁻]|\s*\()",
        lambda m: f"{m[1]}{m[2]}({place})",
        body,
    )
    changed = f"{head}{body}"
    if changed == text:
        return text
    return re.sub(r"^\s*(\w+)\s*=", r"\1(x) =", changed) if equals and "(" not in head else changed


def inverse(text: str, known: Known) -> str:
    """f⁻¹, f^-1(x), the inverse of f: the mirror image of its graph."""
    found = re.fullmatch(
        r"\s*(?:\w+\s*(?:\(\s*x\s*\))?\s*=\s*)?(?:(\w+?)\s*(?:⁻¹|\^\(?[-−]1\)?)(?:\s*\(x\))?"
        r"|(?:the\s+)?inverse\s*(?:of\s+|\()(\w+)\)?)\s*",
        text,
    )
    name = found and (found[1] or found[2])
    if name in known.functions:
        return f"x = {name}(y)"
    found = re.fullmatch(r"\s*(?:the\s+)?inverse\s+of\s+(?:\w+\(x\)\s*=\s*|y\s*=\s*)?(.*x.*)", text)
    if found is None:
        return text
    return f"x = {re.sub(r'(?<![A-Za-z])x(?![A-Za-z])', 'y', found[1])}"
