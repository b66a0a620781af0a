"""Lines as books, answer sheets and people write them, in the words of the language here.

Each rule takes what it can read of a line, and leaves the rest. What comes out is offered where the
line itself was refused, and only where it is understood: a rule that reads too much offers nothing.
A rule that knows several readings gives them all, and the person who wrote the line chooses.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

from axispath.core.language.rewriting import (
    calculus,
    domains,
    figures,
    functions,
    graphs,
    points,
    signs,
    words,
)
from axispath.core.language.rewriting.known import Known
from axispath.core.language.rewriting.signs import raised_letters
from axispath.core.language.rewriting.words import sought

__all__ = ["LONGEST", "Known", "alternatives", "raised_letters", "rewritings", "sought"]

Plain = Callable[[str], str]
NOTHING = Known()
LONGEST = 160  # characters of a line that is looked at
RULES: tuple[Plain | Callable[[str, Known], str], ...] = (
    signs.remark,
    signs.end_of_sentence,
    signs.delimiters,
    signs.assigned,
    functions.arrow,
    functions.asked,
    words.zeros_of,
    words.wanted_as,
    words.units_in_words,
    signs.rounded,
    words.root_of,
    signs.index_of_root,
    calculus.integral,
    calculus.with_commas,
    calculus.series,
    calculus.limit,
    calculus.derivative,
    calculus.tangent,
    calculus.taylor,
    domains.cases,
    functions.inverse,
    functions.composed,
    functions.numbered,
    points.of_points,
    graphs.graph,
    graphs.of_places,
    figures.figure,
    figures.point_arithmetic,
    points.circle,
    points.curve,
    points.points_in_a_row,
    points.point,
    points.ellipsis,
    points.set_of,
    points.matrix,
    points.transposed,
    points.polar_square,
    domains.domain,
    points.conditions,
    domains.one_sided,
    domains.not_equal,
    signs.signs,
    functions.function_of_two,
    words.chosen,
    words.remainder,
    words.of_numbers,
    signs.percent,
    signs.capitals,
    signs.abroad,
    signs.angle,
    signs.degrees_in_words,
    signs.spaced_number,
    signs.decimal_comma,
    signs.mixed,
    calculus.primitive,
)
"""The ways of writing that are known, those first that say most."""
WITH_NAMES = (
    calculus.tangent,
    functions.composed,
    functions.inverse,
    points.of_points,
    graphs.graph,
    figures.figure,
    figures.point_arithmetic,
)
SEVERAL = (signs.percent_more, signs.grouped_number, signs.base_of_logarithm, signs.repeating)
"""Ways of writing that may mean one thing or another."""


def rewritings(text: str, known: Known = NOTHING) -> Iterator[str]:
    """Other ways to write a line, the nearest first, each once; none that is the line itself."""
    if len(text) > LONGEST:
        return
    seen = {text}
    text = whole = re.sub(r"\s+", " ", text).strip()
    meant = alternatives(text)
    if len(meant) == 1:
        seen.add(meant[0])
        yield meant[0]
    for rule in RULES:
        for found in (_by(rule, text, known), after := _by(rule, whole, known)):
            if found not in seen:
                seen.add(found)
                yield found
        whole = after


def alternatives(text: str) -> tuple[str, ...]:
    """What a line may mean that can be read in more than one way; () for all others."""
    if len(text) > LONGEST:
        return ()
    for rule in SEVERAL:
        found = tuple(line for line in rule(text) if line != text)
        if found:
            return found
    return ()


def _by(rule: Callable[..., str], text: str, known: Known) -> str:
    return rule(text, known) if rule in WITH_NAMES else rule(text)
