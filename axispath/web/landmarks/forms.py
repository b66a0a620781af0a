"""Other forms of a function, below the list of its landmarks."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core import catalogue
from axispath.core.forms import Form, forms_of, has_forms
from axispath.core.language.latex import latex
from axispath.core.language.mathml import mathml
from axispath.core.language.plain import plain
from axispath.core.language.tree import FunctionStatement
from axispath.core.path.covering import is_covered
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.document import Document
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


def may_have_forms(lane: ResolvedLane, path: Path) -> bool:
    """Whether other forms of a lane may be asked for: its landmarks are there to be seen."""
    return path.proven and not path.covered and _is_plain(lane) and has_forms(lane.program)


def forms(document: Document, lane: ResolvedLane) -> list[ShownForm]:
    """The other forms of a lane; none of one of which anything is covered."""
    if any(is_covered(document, lane.lane.id, kind) for kind in Kind) or not _is_plain(lane):
        return []
    (letter,) = lane.parameters
    assert lane.written is not None
    typed = plain(lane.written.body, catalogue.VOCABULARY)
    return [_shown(form, lane, letter) for form in forms_of(lane.program, letter, typed)]


def _is_plain(lane: ResolvedLane) -> bool:
    """Whether a lane is a function of one letter, of numbers without units."""
    function = isinstance(lane.written, FunctionStatement) and lane.kind.key == "function"
    return function and not (lane.measure or lane.across) and len(lane.parameters) == 1


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
