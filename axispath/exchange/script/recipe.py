"""What a sheet is computed again by: parts with a title, plain words, and code."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

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
MOST_MEETING = 8  # functions that are compared with one another
GAP = "\n\n\n"


def recipe(document: Document) -> list[Section]:
    """The parts of a sheet in the order in which Python needs them."""
    sheet, writer = resolve(document), Writer(document.unit)
    shown = [lane for lane in sheet if not lane.lane.hidden and not lane.lane.working]
    parts = [
        *data_of(sheet),
        *Definitions(sheet, writer).sections(),
        *fits_of(sheet, writer),
        *_searches(document, shown, writer),
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


def _searches(document: Document, shown: list[ResolvedLane], writer: Writer) -> Iterator[Section]:
    """The zeros of the shown functions in the view, and where they meet."""
    functions = _functions(shown, writer)
    needed = [source("zeros")]
    if calls := _zeros(document, functions, writer):
        words = (
            "Zeros in the view: where the sign changes between neighbouring places, narrowed by "
            "Brent’s method, and where a curve touches the axis. This finds what lies far enough "
            "apart; the sheet proves what it lists."
        )
        yield Section("Zeros", words, GAP.join([*needed, source("show"), "\n".join(calls)]))
        needed = []
    if calls := _intersections(document, functions, writer):
        words = "Intersections in the view, as zeros of the difference of two functions."
        code = GAP.join([*needed, source("meetings"), "\n".join(calls)])
        yield Section("Intersections", words, code)


def _zeros(document: Document, functions: list[ResolvedLane], writer: Writer) -> list[str]:
    return [
        f"show({lane.name!r}, zeros({writer.defined[str(lane.name)]}, {_part(document, lane)}))"
        for lane in functions
        if not document.cover.covers("zeros", (lane.lane.id,))
    ]


def _functions(shown: list[ResolvedLane], writer: Writer) -> list[ResolvedLane]:
    """The shown functions of x that the script defines."""
    functions = (lane for lane in shown if lane.kind.key == "function" and lane.ready)
    return [lane for lane in functions if lane.name in writer.defined]


def _intersections(document: Document, functions: list[ResolvedLane], writer: Writer) -> list[str]:
    calls = []
    for first, second in combinations(functions[:MOST_MEETING], 2):
        if document.cover.covers("intersections", (first.lane.id, second.lane.id)):
            continue
        a, b = (writer.defined[str(lane.name)] for lane in (first, second))
        difference = f"lambda x: {a}(x) - {b}(x)"
        places = f"zeros({difference}, {_part(document, first, second)})"
        calls.append(f"meetings({f'{first.name} = {second.name}'!r}, {a}, {places})")
    return calls


def _is_slow(lane: ResolvedLane) -> bool:
    """Whether each value is an integral, worked out anew."""
    return any(step.operation == "integral" for step in lane.program.steps)


def _part(document: Document, *lanes: ResolvedLane) -> str:
    """Where functions are looked at: their domains, as far as they are in view; and how closely."""
    ends = [lane.ends for lane in lanes]
    left = max([document.view.left, *(low.x for low, _ in ends if low is not None)])
    right = min([document.view.right, *(high.x for _, high in ends if high is not None)])
    return f"{left!r}, {right!r}{', places=801' if any(map(_is_slow, lanes)) else ''}"
