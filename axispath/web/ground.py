"""The ground of a plot for templates and scripts: ticks, title, labels, legend, colours."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from flask import render_template
from markupsafe import Markup, escape

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.latex import latex_statement
from axispath.core.language.mathml import mathml_statement
from axispath.core.sheet.captions import caption
from axispath.core.sheet.colour import legible
from axispath.core.sheet.document import Document, Lane, Ticks
from axispath.core.sheet.palette import THEMES
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.scopes import scope_of
from axispath.core.sheet.ticks import TickStep, tick_step

MATHEMATICS = Markup('<span class="math" data-latex="{}">{}</span>')


def ground_view(document: Document, legend: list[Any]) -> dict[str, Any]:
    """What is typed, and what it comes to; ``legend`` are the lanes that it lists."""
    ground = document.ground
    return {
        "typed": ground.model_dump(),
        "ticks": {
            "x": _ticks(document, ground.x_ticks, True),
            "y": _ticks(document, ground.y_ticks, False),
        },
        "degrees": document.unit is AngleUnit.DEGREE,
        "title": _caption(document, ground.title),
        "xLabel": _caption(document, document.axis_labels[0]),
        "yLabel": _caption(document, document.axis_labels[1]),
        "legend": render_template("parts/legend.html", lanes=legend) if ground.legend else "",
    }


def own_colours(lane: Lane) -> dict[str, str] | None:
    """A lane's own colour in each theme; None where it has one of the palette."""
    own = lane.style.own
    return (
        {theme: legible(own, palette.ground) for theme, palette in THEMES.items()} if own else None
    )


def _ticks(document: Document, ticks: Ticks, across: bool) -> dict[str, Any]:
    try:
        step = tick_step(document, ticks, across)
    except EditRefused:
        # A value that the step used is gone: the usual numbers until it means something again.
        step = TickStep()
    part = Fraction(step.part) if not isinstance(step.part, float) else None
    return {
        "part": [part.numerator, part.denominator] if part is not None else [step.part, 1],
        "unit": step.unit,
        "sign": step.sign,
        "free": step.free,
    }


def _caption(document: Document, text: str) -> str:
    lines = []
    words = catalogue.VOCABULARY
    for line in caption(text, scope_of(document.lanes)):
        parts = Markup("")
        for part in line:
            if part.statement is None:
                parts += escape(part.text)
            else:
                latex = latex_statement(part.statement, words, None)
                mathml = Markup(mathml_statement(part.statement, words, None))
                parts += MATHEMATICS.format(latex, mathml)
        lines.append(parts)
    return str(Markup("<br>").join(lines))
