"""The handbook: made from the catalogue and the rules of reading, so that it cannot drift."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from flask import Blueprint, render_template, request
from flask.typing import ResponseReturnValue

from axispath.core import catalogue
from axispath.core.language.how_to import HOW_TO
from axispath.core.language.latex import latex, latex_statement
from axispath.core.language.line_rules import LINE_RULES
from axispath.core.language.numbers import full_precision
from axispath.core.language.points import POINT_WORDS
from axispath.core.language.rules import RULES
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression, parse_statement
from axispath.core.quantities.dimensions import base_text
from axispath.store.searching import found
from axispath.web.person import store

blueprint = Blueprint("handbook", __name__)
EXAMPLE_SCOPE = Scope(catalogue.LINE_VOCABULARY, {"f": 1}, frozenset())
ON_LINES = "numbers, not x, are given: on lines of Working, and in lanes where it gives a number"
MAX_QUERY = 60
ALL_FAMILIES: tuple[tuple[str, tuple[catalogue.Entry | catalogue.Calculated, ...]], ...] = (
    *catalogue.FAMILIES.items(),
    *catalogue.ON_LINES.items(),
)


@dataclass(frozen=True)
class Example:
    """A line, and how it is read."""

    line: str
    latex: str


@dataclass(frozen=True)
class Page:
    """What the handbook says of one function."""

    name: str
    signature: str
    spellings: str
    summary: str
    needs: str
    breaks: str
    derivatives: tuple[Example, ...]
    example: Example
    typed: str


def example(line: str) -> Example:
    """A line with its typeset form."""
    statement = parse_statement(line, EXAMPLE_SCOPE)
    return Example(line, latex_statement(statement, catalogue.VOCABULARY))


def _page(entry: catalogue.Entry | catalogue.Calculated) -> Page:
    word = entry.word
    if isinstance(entry, catalogue.Calculated):
        return _page_of_lines(entry)
    scope = catalogue.SCOPE.with_values(word.arguments)
    slopes = []
    for argument, text in zip(word.arguments, entry.derivatives, strict=False):
        if not text:
            continue
        written = latex(parse_expression(text, scope), catalogue.VOCABULARY)
        slopes.append(Example(argument, written))
    signature = {"degrees": "x°", "log_base": "log_b(x)", "factorial": "x!", "abs": "|x|"}
    return Page(
        word.name,
        signature.get(word.name, word.signature),
        ", ".join(word.spellings),
        entry.summary,
        entry.needs,
        entry.breaks,
        tuple(slopes),
        example(entry.example),
        entry.example,
    )


def _page_of_lines(entry: catalogue.Calculated) -> Page:
    word = entry.word
    spellings = ", ".join(word.spellings)
    shown = example(entry.example)
    return Page(
        word.name, word.signature, spellings, entry.summary, ON_LINES, "", (), shown, entry.example
    )


def words() -> list[dict[str, str]]:
    """The functions as a completion list shows them."""
    hidden = ("degrees", "log_base")
    found = [
        {"name": entry.word.name, "signature": entry.word.signature, "help": entry.summary}
        for _, entries in ALL_FAMILIES
        for entry in entries
        if entry.word.name not in hidden
    ]
    found += [
        {"name": word.name, "signature": word.signature, "help": word.summary}
        for word in POINT_WORDS.values()
    ]
    return sorted(found, key=lambda word: word["name"])


def unit_text(unit: catalogue.Unit) -> str:
    """What a unit is in the SI: 0.3048 m."""
    of = base_text(unit.dimension)
    if unit.offset:
        return f"(number + {float(unit.offset / unit.factor):g}) × {float(unit.factor):g} {of}"
    return f"{full_precision(float(unit.factor))} {of}"


@blueprint.get("/handbook")
def handbook() -> ResponseReturnValue:
    """The whole handbook, or what in it has to do with a query."""
    query = " ".join(request.args.get("q", "")[:MAX_QUERY].split())
    rules = (*RULES, *LINE_RULES)
    shelves: dict[str, list[tuple[Any, str]]] = {
        "rules": [(one, f"{one.title} {one.text} {' '.join(one.examples)}") for one in rules],
        "functions": [
            ((title, one), f"{title} {one.word.name} {one.summary} {' '.join(one.word.spellings)}")
            for title, entries in ALL_FAMILIES
            for one in entries
        ],
        "how_to": [(one, " ".join(one)) for one in HOW_TO],
        "constants": [(c, f"{c.name} {c.summary} constants") for c in catalogue.CONSTANTS.values()],
        "units": [
            (u, f"{u.symbol} {u.name} units {' '.join(u.spellings)}") for u in catalogue.UNITS
        ],
        "nature": [(c, f"{c.symbol} {c.name} constants") for c in catalogue.PHYSICAL.values()],
    }
    shown = {name: [one for one, _ in shelf] for name, shelf in shelves.items()}
    if query:
        shown = _chosen(shelves, query)
    families: dict[str, list[Page]] = {}
    for title, entry in shown["functions"]:
        families.setdefault(title, []).append(_page(entry))
    return render_template(
        "handbook.html",
        units=[(u, unit_text(u)) for u in shown["units"]],
        nature=[(c, base_text(c.dimension), float(c.value)) for c in shown["nature"]],
        query=query,
        rules=[(rule, [example(line) for line in rule.examples]) for rule in shown["rules"]],
        families=[*families.items()],
        how_to=shown["how_to"],
        constants=shown["constants"],
    )


def _chosen(shelves: dict[str, list[tuple[Any, str]]], query: str) -> dict[str, list[Any]]:
    """What has the words of a query, or its very letters: signs are no words."""
    every = [text for shelf in shelves.values() for _, text in shelf]
    with store().transaction() as session:
        there = found(session, every, query)
    there |= {k for k, text in enumerate(every) if query.lower() in text.lower()}
    shown, first = {}, 0
    for name, shelf in shelves.items():
        shown[name] = [one for k, (one, _) in enumerate(shelf, first) if k in there]
        first += len(shelf)
    return shown
