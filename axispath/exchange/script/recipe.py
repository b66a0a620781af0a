"""What a sheet is computed again by: parts with a title, plain words, and code."""

from __future__ import annotations

from collections.abc import Iterator

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.exchange.script.definitions import Definitions
from axispath.exchange.script.expressions import Writer
from axispath.exchange.script.figure import figure
from axispath.exchange.script.functions import source, with_needed
from axispath.exchange.script.measured import data_of, fits_of
from axispath.exchange.script.section import Section
from axispath.exchange.script.tables import tables_of

IMPORTS = """import matplotlib.pyplot as plt
import numpy as np
from scipy import optimize, special"""
GAP = "\n\n\n"


def recipe(document: Document) -> list[Section]:
    """The parts of a sheet in the order in which Python needs them."""
    sheet, writer = resolve(document), Writer(document.unit)
    shown = [lane for lane in sheet if not lane.lane.hidden and not lane.lane.working]
    parts = [
        *data_of(sheet),
        *Definitions(sheet, writer).sections(),
        *fits_of(sheet, writer),
        *_zeros(document, shown, writer),
        *tables_of(document, writer),
        figure(document, [lane for lane in shown if lane.ready and _is_there(lane, writer)]),
    ]
    angles = "degrees" if document.unit is AngleUnit.DEGREE else "radians"
    words = (
        f"“{document.name}”, as plain Python with NumPy, SciPy and Matplotlib. Angles are in "
        f"{angles}."
    )
    imports = IMPORTS
    if "integral" in writer.used:
        imports = imports.replace("import optimize", "import integrate, optimize")
    beginning = [Section(document.name, words, imports)]
    if writer.used:
        code = GAP.join(source(name) for name in with_needed(list(writer.used)))
        beginning.append(Section("Helpers", "Functions that the formulas below use.", code))
    return [*beginning, *parts]


def _is_there(lane: ResolvedLane, writer: Writer) -> bool:
    """Whether the script has what a lane is drawn by."""
    return lane.name in writer.defined or lane.lane.data is not None or lane.fitted is not None


def _zeros(document: Document, shown: list[ResolvedLane], writer: Writer) -> Iterator[Section]:
    """The zeros of the shown functions in the view."""
    lanes = [
        lane
        for lane in shown
        if lane.kind.key == "function"
        and lane.ready
        and lane.name in writer.defined
        and not document.cover.covers("zeros", (lane.lane.id,))
    ]
    if not lanes:
        return
    calls = [
        f"show({lane.name!r}, zeros({writer.defined[str(lane.name)]}, {_part(document, lane)}"
        f"{', places=801' if _is_slow(lane) else ''}))"
        for lane in lanes
    ]
    words = (
        "Zeros in the view: where the sign changes between neighbouring places, narrowed by "
        "Brent’s method, and where a curve touches the axis. This finds what lies far enough "
        "apart; the sheet proves what it lists."
    )
    code = GAP.join([source("zeros"), source("show"), "\n".join(calls)])
    yield Section("Zeros", words, code)


def _is_slow(lane: ResolvedLane) -> bool:
    """Whether each value is an integral, worked out anew."""
    return any(step.operation == "integral" for step in lane.program.steps)


def _part(document: Document, lane: ResolvedLane) -> str:
    """From where to where a function is looked at: its domain, as far as it is in view."""
    view, (low, high) = document.view, lane.ends
    left = view.left if low is None else max(view.left, low.x)
    right = view.right if high is None else min(view.right, high.x)
    return f"{left!r}, {right!r}"
