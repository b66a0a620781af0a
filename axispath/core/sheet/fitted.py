"""Fits of a sheet: a formula with parameters, the columns that it goes through, and the result."""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from dataclasses import dataclass, replace
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.program import Definition, NotComputable
from axispath.core.arithmetic.simplest import number
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.data.cells import Cells
from axispath.core.fits.fit import fit
from axispath.core.fits.models import MODELS, POLYNOMIAL, Model, polynomial
from axispath.core.fits.result import CannotFit, Result
from axispath.core.fits.shape import Shape, shape_of
from axispath.core.language.errors import LanguageError
from axispath.core.language.rebuild import substituted
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Expression, FunctionStatement, Name
from axispath.core.language.walking import free_names
from axispath.core.memory import Memory
from axispath.core.sheet.data import Arrays
from axispath.core.sheet.measured import Fit

Floats = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Fitted:
    """A fit with its formula; ``shape`` gives values and derivatives by the parameters."""

    fit: Fit
    result: Result
    shape: Shape
    title: str
    remark: str = ""


_fits: Memory[Result | CannotFit] = Memory(100)


def model_of(given: Fit) -> Model | None:
    """The model of a fit; None for a formula of one's own."""
    if given.model == POLYNOMIAL:
        return polynomial(given.degree)
    return MODELS.get(given.model)


def parameters_of(
    body: Expression, variable: str, definitions: Mapping[str, Definition], model: Model | None
) -> tuple[str, ...]:
    """The names in a formula that are fitted: those of the model, else those nothing defines."""
    if model is not None:
        return model.names
    used = dict.fromkeys(one.name for one in free_names(body) if isinstance(one, Name))
    return tuple(name for name in used if name != variable and name not in definitions)


def fitted(
    given: Fit,
    statement: FunctionStatement,
    arrays: Arrays | None,
    definitions: Mapping[str, Definition],
    unit: AngleUnit,
    searching: bool = False,
) -> Fitted:
    """The fit of a lane. Raises CannotFit with the reason where there is none.

    Where ``searching``, starts are looked for; else the search begins where the fit says.
    """
    if arrays is None:
        raise CannotFit("its data set is gone")
    for name in (given.x, given.y):
        if name not in arrays.columns:
            raise CannotFit(f"there is no column {name}")
        if name in arrays.errors:
            raise CannotFit(f"the column {name} cannot be computed")
    model = model_of(given)
    variable = statement.parameters[0]
    names = parameters_of(statement.body, variable, definitions, model)
    if not names:
        raise CannotFit("the formula has no coefficient that could be fitted")
    try:
        shape = shape_of(statement.body, (variable,), names, definitions, unit)
    except NotComputable as error:
        raise CannotFit(str(error)) from error
    except KeyError as error:
        raise CannotFit(f"{error.args[0]} has no value") from error
    x, y = arrays.used(given.x), arrays.used(given.y)
    weights = _weights(given, arrays)
    held = _held(given, names, definitions, unit)
    starts = _starts(given, names, model, x, y, searching)
    degree = model.degree if model is not None else None
    key: Hashable = (
        *(shape.plan, shape.slopes, shape.linear, unit, names, degree, searching),
        *(Cells(values).digest for values in (x, y, weights)),
        tuple(held.items()),
        tuple(tuple(start.tolist()) for start in starts),
    )

    def work() -> Result | CannotFit:
        try:
            own = bool(given.starts) and not searching
            return fit(shape, x, y, weights, starts, held, own, degree)
        except CannotFit as reason:
            return reason

    found = _fits.found(key, work)
    if isinstance(found, CannotFit):
        raise found
    remark = model.remark if model is not None else ""
    return Fitted(given, found, shape, model.title if model is not None else "own formula", remark)


def _weights(given: Fit, arrays: Arrays) -> Floats:
    rows = len(arrays.kept)
    if not given.weigh:
        return np.ones(rows)
    if given.weight not in arrays.columns:
        raise CannotFit(f"there is no column {given.weight or 'of weights'}")
    values = arrays.columns[given.weight]
    with np.errstate(all="ignore"):
        return values if given.weigh == "weights" else 1 / values**2


def _held(
    given: Fit, names: tuple[str, ...], definitions: Mapping[str, Definition], unit: AngleUnit
) -> dict[str, float]:
    found = {}
    values = frozenset(name for name, one in definitions.items() if one.parameters is None)
    for name, text in given.held:
        if name not in names or not text.strip():
            continue
        try:
            tree = parse_expression(text, Scope(catalogue.VOCABULARY, values=values))
            value = float_value(program(tree, (), definitions), unit)
        except (LanguageError, NotComputable, KeyError) as error:
            raise CannotFit(f"the value of {name} is not understood") from error
        if not np.isfinite(value):
            raise CannotFit(f"the value of {name} is not an ordinary number")
        found[name] = value
    return found


def _starts(
    given: Fit,
    names: tuple[str, ...],
    model: Model | None,
    x: Floats,
    y: Floats,
    searching: bool,
) -> list[Floats]:
    known = dict(given.starts)
    typed = [np.array([known.get(name, 1.0) for name in names])] if known else []
    if model is None or (typed and not searching):
        return typed
    there = np.isfinite(x) & np.isfinite(y)
    if not there.any():
        return typed
    return [*typed, *(np.array(start) for start in model.starts(x[there], y[there]))]


def with_best(statement: FunctionStatement, found: Fitted) -> FunctionStatement:
    """The function with the fitted numbers in place of its parameters."""
    values = {
        name: number(Fraction(repr(float(value))))
        for name, value in zip(found.result.names, found.result.parameters, strict=True)
    }
    body = substituted(statement.body, values)
    return replace(statement, body=body)
