"""The data sets and fits of a sheet: columns carried out, best numbers found."""

from __future__ import annotations

from dataclasses import dataclass, field

from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.arithmetic.program import Definition
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.fits.result import CannotFit
from axispath.core.language.errors import LanguageError
from axispath.core.language.tree import FunctionStatement, Statement
from axispath.core.sheet.data import Arrays, arrays_of, as_lists
from axispath.core.sheet.dependencies import definitions_of
from axispath.core.sheet.document import Lane
from axispath.core.sheet.fitted import Fitted, fitted, with_best

SLOW = "This takes too long to compute."


@dataclass
class Measured:
    """Data sets and fits of a sheet, by lane; the lists that columns are."""

    arrays: dict[str, Arrays] = field(default_factory=dict)
    lists: dict[str, Definition] = field(default_factory=dict)
    typed: dict[str, Statement] = field(default_factory=dict)
    fits: dict[str, Fitted] = field(default_factory=dict)


def measured(
    lanes: tuple[Lane, ...],
    statements: dict[str, Statement],
    errors: dict[str, LanguageError],
    unit: AngleUnit,
) -> Measured:
    """Carry out the columns and the fits; the statement of a fit gets its best numbers."""
    found = Measured()
    if all(lane.data is None and lane.fit is None for lane in lanes):
        return found
    plain = {lane.id: statements[lane.id] for lane in lanes if lane.id in statements}
    plain = {i: s for i, s in plain.items() if not any(n.id == i and n.fit for n in lanes)}
    definitions = definitions_of(lanes, plain)
    for lane in lanes:
        if lane.data is not None:
            arrays = arrays_of(lane.data, definitions, unit)
            found.arrays[lane.id] = arrays
            found.lists |= as_lists(arrays)
    known = {**definitions, **found.lists}
    for lane in lanes:
        statement = statements.get(lane.id)
        if lane.fit is None or not isinstance(statement, FunctionStatement):
            continue
        found.typed[lane.id] = statement
        whole = (0, len(lane.text))
        try:
            best = fitted(lane.fit, statement, found.arrays.get(lane.fit.data), known, unit)
        except CannotFit as reason:
            errors[lane.id] = LanguageError(f"No fit: {reason}.", *whole)
        except OutOfTime:
            errors[lane.id] = LanguageError(SLOW, *whole)
        else:
            found.fits[lane.id] = best
            statements[lane.id] = with_best(statement, best)
    return found
