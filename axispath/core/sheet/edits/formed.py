"""A form that is asked for by its verb: factor x^2 − 4, expand (x + 1)^3, complete the square."""

from __future__ import annotations

import re
from collections.abc import Callable

from axispath.core.forms import Form, forms_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.scopes import scope_of

VERBS = {
    r"factor(?:i[sz]e)?": ("in factors", "in factors with roots", "one fraction"),
    r"expand|multiply\s+out": ("expanded",),
    r"simplify|reduce": ("expanded", "one fraction"),
    r"complete\s+the\s+square(?:\s+(?:of|in|for))?|(?:the\s+)?vertex\s+form\s+of": ("vertex form",),
    r"(?:the\s+)?partial\s+fractions\s+(?:of|for)": ("partial fractions",),
    r"(?:do\s+)?(?:the\s+)?(?:polynomial|long)\s+division\s+(?:of|for)|divide\s+out": (
        "divided out",
    ),
}
"""How forms are asked for, and their names, the one that is wanted most first."""


def wanted(text: str) -> tuple[str, tuple[str, ...], str] | None:
    """The verb, the names of its forms, and the formula; None for other lines."""
    for verb, names in VERBS.items():
        found = re.fullmatch(rf"\s*(?:please\s+)?({verb})\s*:?\s+(?!\s*[=:])(.+)", text, re.I)
        found = found or re.fullmatch(rf"\s*({verb})\s*(\(.+\))\s*", text, re.I)
        if found is not None:
            return found[1], names, re.sub(r"^y\s*=\s*", "", found[2].strip())
    return None


def formed(document: Document, text: str, add: Callable[[str], Document]) -> Document | None:
    """The sheet with the form that a line asks for as a lane; None where it asks for none.

    A form that has a value where the formula has none does not stand in for it: the formula itself
    is drawn, and what it equals is told. Raises EditRefused where there is no such form.
    """
    asked = wanted(text)
    if asked is None:
        return None
    verb, names, formula = asked
    if scope_of(document.lanes).functions.get(formula) == 1:
        formula = f"{formula}(x)"
    after = add(formula)
    found = form_of(resolve(after).lanes[-1], names)
    if found is None:
        raise EditRefused(
            f"There is nothing to “{verb.lower()}” here: forms are known of polynomials in x with "
            "rational coefficients and of their quotients, where they differ from what is typed."
        )
    return after if found.condition else add(found.text)


def form_of(lane: ResolvedLane, names: tuple[str, ...]) -> Form | None:
    """The first of some forms that a lane has."""
    if lane.kind.key != "function" or lane.missing or lane.error:
        return None
    forms = {form.name: form for form in forms_of(lane.program, lane.parameters[0], lane.lane.text)}
    return next((forms[name] for name in names if name in forms), None)
