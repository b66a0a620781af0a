"""Edits of fits: a new one, another formula, starts and held parameters, a new search."""

from __future__ import annotations

import secrets
from typing import Annotated, Literal

from pydantic import Field

from axispath.core.fits.models import MODELS, OWN, POLYNOMIAL, polynomial
from axispath.core.fits.result import CannotFit
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.statement import parse_statement
from axispath.core.language.tree import FunctionStatement
from axispath.core.sheet.document import MAX_LANES, Document, Lane, LaneId
from axispath.core.sheet.edits.change import Change, LaneChange, refused
from axispath.core.sheet.edits.colours import free_colour
from axispath.core.sheet.fitted import fitted
from axispath.core.sheet.measured import ColumnName, Fit, Typed
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of


class AddFit(Change):
    """A new lane with a curve fitted to two columns of a data set."""

    do: Literal["add fit"] = "add fit"
    data: LaneId
    x: ColumnName
    y: ColumnName
    model: Annotated[str, Field(max_length=20)] = "line"
    degree: Annotated[int, Field(ge=0, le=10)] = 2
    formula: Typed = ""
    weigh: Literal["", "weights", "errors"] = ""
    weight: Annotated[str, Field(max_length=40)] = ""
    id: LaneId | None = None

    def applied(self, document: Document) -> Document:
        if len(document.lanes) >= MAX_LANES:
            raise EditRefused(f"A sheet can hold {MAX_LANES} lanes, and this one is full.")
        names = scope_of(document.lanes)
        numbered = ("fit", *(f"fit_{k}" for k in range(2, MAX_LANES + 3)))
        name = next(one for one in numbered if not names.knows(one))
        if self.model == OWN:
            try:
                formula = written(self.formula)
            except LanguageError as error:
                raise refused(error) from error
            if not formula.strip():
                raise EditRefused("Type the formula that is to be fitted, such as a e^(b x) + c.")
        elif self.model == POLYNOMIAL:
            formula = polynomial(self.degree).formula
        elif self.model in MODELS:
            formula = MODELS[self.model].formula
        else:
            raise EditRefused("There is no such kind of curve.")
        fit = Fit(
            data=self.data,
            x=self.x,
            y=self.y,
            model=self.model,
            degree=self.degree,
            weigh=self.weigh,
            weight=self.weight,
        )
        lane = Lane(
            id=self.id if self.id and document.lane(self.id) is None else secrets.token_hex(4),
            text=f"{name}(x) = {formula}",
            colour=free_colour(document),
            fit=fit,
        )
        return searched(document.model_copy(update={"lanes": (*document.lanes, lane)}), lane)

    def words(self, document: Document) -> str:
        return "fitting a curve"


def searched(document: Document, lane: Lane) -> Document:
    """The document with starts for a fit from where its search ended. Raises EditRefused."""
    assert lane.fit is not None
    try:
        statement = parse_statement(lane.text, scope_of(document.lanes, without=lane.id))
    except LanguageError as error:
        raise refused(error) from error
    if not isinstance(statement, FunctionStatement) or len(statement.parameters) != 1:
        raise EditRefused("A formula that is fitted is a function of x.")
    bare = document.with_lane(
        lane.model_copy(update={"fit": None, "text": f"{statement.name}(x) = x"})
    )
    sheet = resolve(bare)
    data, own = sheet.lane(lane.fit.data), sheet.lane(lane.id)
    known = {k: v for k, v in (own.definitions if own else {}).items() if k != statement.name}
    try:
        arrays = data.measured if data else None
        found = fitted(lane.fit, statement, arrays, known, document.unit, searching=True)
    except CannotFit as reason:
        raise EditRefused(f"No fit: {reason}.") from reason
    pairs = zip(found.result.names, found.result.parameters.tolist(), strict=True)
    fit = lane.fit.model_copy(update={"starts": tuple(pairs)})
    return document.with_lane(lane.model_copy(update={"fit": fit}))


class SetFit(LaneChange):
    """Starts, held parameters, weights or columns of a fit; or a new search for the best."""

    do: Literal["set fit"] = "set fit"
    parameter: Annotated[str, Field(max_length=40)] = ""
    held: Typed | None = None
    weigh: Literal["", "weights", "errors"] | None = None
    weight: Annotated[str, Field(max_length=40)] | None = None
    again: bool = False
    squares: bool | None = None
    band: bool | None = None

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        if lane.fit is None:
            raise EditRefused("This lane is no fit.")
        changes: dict[str, object] = {}
        if self.parameter and self.held is not None:
            rest = tuple(one for one in lane.fit.held if one[0] != self.parameter)
            own = ((self.parameter, self.held),) if self.held.strip() else ()
            changes["held"] = (*rest, *own)
        fields = ("weigh", "weight", "squares", "band")
        changes |= {f: v for f in fields if (v := getattr(self, f)) is not None}
        changed = lane.model_copy(update={"fit": lane.fit.model_copy(update=changes)})
        document = document.with_lane(changed)
        if self.again or self.weigh is not None:
            return searched(document, changed)
        found = resolve(document).lane(lane.id)
        if found is not None and found.error is not None:
            raise EditRefused(found.error.message)
        return document

    def words(self, document: Document) -> str:
        return f"the fit {self.called(document)}"
