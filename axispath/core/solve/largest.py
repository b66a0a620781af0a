"""The largest and smallest value of a linear expression on a linear region, exactly.

“largest 3x + 2y in R”: on a region that “and” makes of linear comparisons the extreme value is
reached at a corner, along an edge, or not at all (G. B. Dantzig 1963, Linear Programming and
Extensions). In the plane all corners can be had, so that they are compared with exact fractions.
"""

from __future__ import annotations

import itertools
import re
from dataclasses import dataclass
from fractions import Fraction

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.polynomial import coefficients
from axispath.core.arithmetic.program import Program
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.plain import plain
from axispath.core.language.statement import parse_expression
from axispath.core.plane.plain import PLANE
from axispath.core.plane.relation import Relation, Rule, relation_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of

_ASKED = re.compile(
    r"\s*(?P<word>largest|smallest|maximum|minimum|max|min)\s+(?:value\s+)?(?:of\s+)?"
    r"(?P<form>.+?)\s+(?:in|on|over)\s+(?P<name>[^\W\d]\w*)\s*\??",
    re.IGNORECASE,
)
SMALL = ("smallest", "minimum", "min")
Place = tuple[Fraction, Fraction]
Line = tuple[Fraction, Fraction, Fraction]
"""a, b and c of a x + b y + c."""


@dataclass(frozen=True)
class Largest:
    """The places of the extreme value; none where it grows without end, or the region is empty.

    ``reached`` tells whether a place of the region itself has it.
    """

    form: str
    name: str
    smallest: bool
    places: tuple[Place, ...]
    value: Fraction | None
    reached: bool
    empty: bool


def largest(document: Document, text: str) -> Largest | None:
    """What a question in words asks for; None where the text is no such question.

    Raises EditRefused where the region or the expression is not linear.
    """
    asked = _ASKED.fullmatch(text)
    if asked is None:
        return None
    sheet = resolve(document)
    lane = next((one for one in sheet if one.name == asked["name"]), None)
    if lane is None or lane.kind.key != "region" or not lane.ready:
        raise EditRefused(f"{asked['name']} is no region of this sheet.")
    try:
        scope = scope_of(document.lanes).with_values(PLANE)
        tree = parse_expression(written(asked["form"]), scope)
    except LanguageError as error:
        raise EditRefused(error.message) from error
    form = plain(tree, catalogue.VOCABULARY)
    try:
        aim = _line(program(tree, PLANE, lane.definitions))
    except KeyError as error:
        raise EditRefused(f"{error.args[0]} has no value.") from error
    if aim is None:
        raise EditRefused(f"{form} is not linear in x and y.")
    relation = relation_of(lane)
    sides = _sides(relation)
    if sides is None:
        raise EditRefused(f"{lane.name} is not made of linear comparisons joined by “and”.")
    smallest = asked["word"].lower() in SMALL
    sign = -1 if smallest else 1
    found = _extreme(sides, (sign * aim[0], sign * aim[1]))
    empty = found is None
    places = found or ()
    value = _at(aim, places[0]) if places else None
    return Largest(form, str(lane.name), smallest, places, value, _reached(sides, places), empty)


def _line(plan: Program) -> Line | None:
    known = coefficients(plan)
    if known is None or any(i + j > 1 for i, j in known):
        return None
    a, b, c = (known.get(powers, Fraction(0)) for powers in ((1, 0), (0, 1), (0, 0)))
    return a, b, c


def _sides(relation: Relation) -> list[tuple[Line, bool]] | None:
    """The comparisons as a x + b y + c ≥ 0, and whether equality is left out; None for others."""
    if not _all(relation.rule):
        return None
    found = []
    for side in relation.sides:
        line = _line(side.plan)
        if line is None:
            return None
        sign = -1 if side.sign.startswith("<") else 1
        found.append(((sign * line[0], sign * line[1], sign * line[2]), len(side.sign) == 1))
    return found


def _all(rule: Rule | None) -> bool:
    if rule is None:
        return True
    return isinstance(rule, int) or (rule[0] == "and" and all(map(_all, rule[1])))


def _at(line: Line, place: Place) -> Fraction:
    return line[0] * place[0] + line[1] * place[1] + line[2]


def _extreme(sides: list[tuple[Line, bool]], aim: Place) -> tuple[Place, ...] | None:
    """The corners with the largest value of aim · (x, y); () where it grows without end.

    None where nothing belongs to the region.
    """
    lines = [line for line, _ in sides]
    corners = []
    for first, second in itertools.combinations(lines, 2):
        det = first[0] * second[1] - first[1] * second[0]
        if det:
            x = (first[1] * second[2] - second[1] * first[2]) / det
            y = (second[0] * first[2] - first[0] * second[2]) / det
            corners.append((x, y))
    if not corners:  # all borders are parallel: their points nearest to 0 stand for them
        for a, b, c in lines:
            if a or b:
                corners.append((-a * c / (a * a + b * b), -b * c / (a * a + b * b)))
    kept = [p for p in dict.fromkeys(corners) if all(_at(line, p) >= 0 for line in lines)]
    directions = [(s * -b, s * a) for a, b, _ in lines for s in (1, -1)] + [aim]
    free = [d for d in directions if all(line[0] * d[0] + line[1] * d[1] >= 0 for line in lines)]
    if not _belongs(sides, kept, free):
        return None
    if any(aim[0] * d[0] + aim[1] * d[1] > 0 for d in free):
        return ()
    best = max((aim[0] * p[0] + aim[1] * p[1] for p in kept), default=None)
    return tuple(p for p in kept if aim[0] * p[0] + aim[1] * p[1] == best)


def _belongs(sides: list[tuple[Line, bool]], kept: list[Place], free: list[Place]) -> bool:
    """Whether some point of the region is there: one in the middle of what has been found."""
    if not kept:
        return False
    count = len(kept)
    x = sum((p[0] for p in kept), Fraction(0)) / count + sum((d[0] for d in free), Fraction(0))
    y = sum((p[1] for p in kept), Fraction(0)) / count + sum((d[1] for d in free), Fraction(0))
    values = [(_at(line, (x, y)), strict) for line, strict in sides]
    return all(value > 0 or (value == 0 and not strict) for value, strict in values)


def _reached(sides: list[tuple[Line, bool]], places: tuple[Place, ...]) -> bool:
    if not places:
        return False
    count = len(places)
    middle = (
        sum((p[0] for p in places), Fraction(0)) / count,
        sum((p[1] for p in places), Fraction(0)) / count,
    )
    return all(_at(line, middle) > 0 or not strict for line, strict in sides)
