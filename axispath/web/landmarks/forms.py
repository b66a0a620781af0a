"""Other forms of a function, below the list of its landmarks."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core import catalogue
from axispath.core.arithmetic.program import Program
from axispath.core.forms import Form, forms_of
from axispath.core.language.latex import latex
from axispath.core.language.mathml import mathml
from axispath.core.language.plain import plain
from axispath.core.language.tree import FunctionStatement
from axispath.core.memory import remembered
from axispath.core.search.landmark import Path
from axispath.core.sheet.resolve import ResolvedLane


@dataclass(frozen=True)
class ShownForm:
    """A form typeset, with the line that draws it, and the line of its lane in this form."""

    name: str
    latex: str
    mathml: str
    condition: str
    tells: str
    line: str
    instead: str = ""


def forms(lane: ResolvedLane, path: Path) -> list[ShownForm]:
    """The other forms of a lane that is a function, once its landmarks are there to be seen."""
    statement = lane.statement
    if not isinstance(statement, FunctionStatement) or not path.proven or path.covered:
        return []
    if lane.kind.key != "function" or lane.measure or lane.across or len(lane.parameters) != 1:
        return []
    letter = lane.parameters[0]
    typed = lane.written.body if lane.written else statement.body
    found = _remembered(lane.program, letter, plain(typed, catalogue.VOCABULARY))
    return [_shown(form, lane, letter) for form in found]


@remembered(256)
def _remembered(plan: Program, letter: str, typed: str) -> tuple[Form, ...]:
    return forms_of(plan, letter, typed)


def _shown(form: Form, lane: ResolvedLane, letter: str) -> ShownForm:
    domain = lane.typed_domain is not None
    tells = form.tells
    if tells and domain and not form.derived:
        tells = f"{tells} (of the formula, wherever the lane ends)"
    in_place = not (form.derived or form.condition or domain)
    head, equals, _ = lane.lane.text.partition("=")
    head = f"{head.strip()} = " if equals else ""
    line = form.text if letter == "x" else f"y({letter}) = {form.text}"
    return ShownForm(
        form.name,
        latex(form.body, catalogue.VOCABULARY),
        mathml(form.body, catalogue.VOCABULARY),
        form.condition,
        tells,
        line,
        f"{head}{form.text}" if in_place else "",
    )
