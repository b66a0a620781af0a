"""What a line is that was not understood as it stands, or waits for words that are no names."""

from __future__ import annotations

import re
from collections.abc import Callable

from axispath.core.language.rewriting import Known, alternatives, rewritings, sought
from axispath.core.language.rewriting.spread import spread
from axispath.core.language.tree import Expression, Running
from axispath.core.language.walking import walk
from axispath.core.sheet.document import Document, Lane
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of

Revise = Callable[[Document, Lane, str], Document]
"""A lane with another line, checked in the company of the others. Raises EditRefused."""


def another(document: Document, lane: Lane, text: str, revise: Revise) -> str | None:
    """The line as it is written here, where it is one that is written otherwise elsewhere."""
    known = Known.of(scope_of(document.lanes, without=lane.id))
    for other in rewritings(text, known):
        good, mend = tried(document, lane, other, revise)
        if good:
            return other
        if mend is not None and tried(document, lane, mend, revise)[0]:
            return mend
    return None


def choices(document: Document, lane: Lane, text: str, revise: Revise) -> tuple[str, ...]:
    """The lines that a line may mean, each of them understood."""
    found = []
    for one in alternatives(text):
        if tried(document, lane, one, revise)[0]:
            found.append(one)
        elif (other := another(document, lane, one, revise)) is not None:
            found.append(other)
    return tuple(dict.fromkeys(found))


def tried(document: Document, lane: Lane, text: str, revise: Revise) -> tuple[bool, str | None]:
    """Whether a line is understood and waits for nothing; else how it is mended, if it can be."""
    try:
        found = resolve(revise(document, lane, text)).lane(lane.id)
    except EditRefused as error:
        return False, error.mend
    return found is not None and not found.missing, None


def definitions(document: Document, text: str) -> list[str]:
    """The lines that a line stands for: its parts, or what it asks for in words."""
    return spread(text, Known.of(scope_of(document.lanes)))


# What is surely a calculation with units or with i, whatever letters it waits for. A unit alone is
# not: 2 cd may be two candelas, or twice c d.
MEASURED = re.compile(r"\d\s*°\s*[CF]\b|\d.*\bin\s+[a-zA-Zµ°]")
COMPLEX = re.compile(r"(?<![A-Za-z])i(?![A-Za-z])|\di\b|\bi[π\d]")


def runs(body: Expression) -> bool:
    """Whether a formula holds an integral, a limit or the like."""
    return any(isinstance(node, Running) for node in walk(body))


def may_be_calculated(text: str, missing: tuple[str, ...]) -> bool:
    """Whether a line that waits for names is a calculation with units or complex numbers."""
    if missing == ("i",):
        return COMPLEX.search(text) is not None
    return MEASURED.search(text) is not None


# Words that nobody means as names of numbers.
SAID = re.compile(
    r"of|the|to|is|are|was|from|with|through|between|what|when|where|which|how|find|show|give|solve|"
    r"factor|factori[sz]e|expand|simplify|prime|and|or|then|than|that|this|please|second|third|"
    r"complete|equation|graph|plot|draw",
    re.I,
)


def refuse_sentences(missing: tuple[str, ...]) -> None:
    """A line that waits for words of everyday language is a sentence that was not understood."""
    said = [word for word in missing if SAID.fullmatch(word)]
    if said:
        raise EditRefused(
            f"This reads like a sentence (“{said[0]}”), and is not understood. Type the formula "
            "alone: its zeros, turning points and other landmarks are listed by themselves."
        )


def refuse_listed(document: Document, text: str) -> None:
    """What is asked of a function that is on the sheet stands in its list already."""
    wanted = sought(text)
    if wanted is None:
        return
    what, formula = wanted
    name = formula.partition("(")[0].strip()
    if formula in (name, f"{name}(x)") and scope_of(document.lanes).functions.get(name) == 1:
        raise EditRefused(
            f"{name} is on the sheet: look for its {what} on the page Landmarks of the desk."
        )
