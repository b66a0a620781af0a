"""Edits of curves: their moving point taken by hand, and which letter runs."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from axispath.core.language.errors import LanguageError
from axispath.core.language.running import POINT
from axispath.core.language.statement import parse_statement
from axispath.core.sheet.curve import curve_of, range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits.change import LaneChange, refused
from axispath.core.sheet.edits.lines import coloured
from axispath.core.sheet.edits.points import Coordinate
from axispath.core.sheet.names import MAX_NAME
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of

SAMPLES = 4000
FINER = 60  # parts of the way between two samples
DIGITS = 9


class MoveAlong(LaneChange):
    """The moving point of a curve, taken to where it is nearest to a place of the plot."""

    do: Literal["move along"] = "move along"
    x: Coordinate
    y: Coordinate

    def applied(self, document: Document) -> Document:
        lane = resolve(document).lane(self.lane(document).id)
        if lane is None or not lane.ready or lane.statement is None or not lane.statement.curve:
            raise EditRefused("Only the point of a curve moves along it.")
        curve, span, view = curve_of(lane), range_of(lane), document.view
        across, upwards = view.right - view.left, view.top - view.bottom

        def nearest(t: np.ndarray) -> float:
            x, y = curve.places(t)
            away = ((x - self.x) / across) ** 2 + ((y - self.y) / upwards) ** 2
            if not np.isfinite(away).any():
                raise EditRefused("The curve has no point here.")
            return float(t[np.nanargmin(away)])

        step = span.width / SAMPLES
        t = nearest(np.linspace(span.low.x, span.high.x, SAMPLES + 1))
        fine = np.linspace(t - step, t + step, 2 * FINER + 1)
        t = nearest(np.clip(fine, span.low.x, span.high.x))
        return self.changed(document, at=float(f"{t:.{DIGITS}g}"))

    def words(self, document: Document) -> str:
        return f"moving along {self.called(document)}"


class LetRun(LaneChange):
    """Which letter of two coordinates runs, so that they are a curve; none for a point."""

    do: Literal["let run"] = "let run"
    letter: Annotated[str, Field(max_length=MAX_NAME)] = ""

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        runs = self.letter or POINT
        try:
            statement = parse_statement(lane.text, scope_of(document.lanes, lane.id), runs)
        except LanguageError as error:
            raise refused(error) from error
        if self.letter and not statement.curve:
            raise EditRefused(f"{self.letter} cannot run here.")
        changed = document.with_lane(lane.model_copy(update={"runs": runs}))
        after = resolve(changed).lane(lane.id)
        if after is not None and after.error is not None:
            raise refused(after.error)
        return coloured(document, changed, lane)

    def words(self, document: Document) -> str:
        made = f"letting {self.letter} run" if self.letter else "keeping a point"
        return f"{made} in {self.called(document)}"
