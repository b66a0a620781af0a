"""What a line of Working comes to, ready to be shown, copied and read aloud."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from flint import acb, arb

from axispath.core import catalogue
from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.arithmetic.program import NotComputable
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator, Outcome
from axispath.core.calculation.trees import tree_of
from axispath.core.catalogue.balls import precision
from axispath.core.language.latex import latex
from axispath.core.language.measured import only_behind_numbers
from axispath.core.language.numbers import MINUS, decimal, full_precision, listed
from axispath.core.language.spelling import nearest_unit
from axispath.core.language.tree import (
    Comparison,
    Expression,
    Pair,
    RelationStatement,
    ValueStatement,
)
from axispath.core.language.walking import free_names
from axispath.core.quantities.factors import factor_apart
from axispath.core.quantities.polar import angle_of
from axispath.core.quantities.scalars import TooWide, absolute, enclosed, is_real, real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import (
    Formula,
    Grid,
    Items,
    Measured,
    NoResult,
    Parts,
    Scalar,
    Undefined,
    Value,
)
from axispath.core.sheet.document import Document, Written
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.results.digits import decimal_of, says, upper_of, written
from axispath.core.table.results.exact import exact_text, formula_text, mixed_text
from axispath.core.table.results.measures import has_unit, in_unit, readings_of

WORDS = catalogue.VOCABULARY
MOST_ITEMS = 60
MOST_ROWS = 12
MOST_EXACT = 8  # characters of an exact number in front of a unit
FULL = 128  # bits of a number that is rounded to a float64
LARGEST = 308  # power of ten of what other lines and plots can hold
PRINCIPAL = "no real value: this is the principal one"
SLOW = "this takes too long to compute"


@dataclass(frozen=True, slots=True)
class Cell:
    """One number: ``exact`` where that is known and not what the decimal says already.

    ``sure`` says that the decimal is exact.
    """

    shown: str
    exact: str = ""
    sure: bool = False
    value: Surd | arb | acb | None = None
    unit: str = ""

    @property
    def latex(self) -> str:
        """The exact form in LaTeX, of a quantity as it is shown; empty where none is known."""
        unit = rf"\,\mathrm{{{self.unit}}}" if self.unit else ""
        if self.unit and not self.exact:
            return self.shown.removesuffix(f" {self.unit}").replace(MINUS, "-") + unit
        if not isinstance(self.value, Surd) or not exact_text(self.value):
            return ""
        return latex(tree_of(self.value), WORDS) + unit

    @property
    def full(self) -> str:
        """All digits that a float64 holds."""
        return self.shown if self.value is None else full(self.value)

    @property
    def best(self) -> str:
        """The exact form, else the decimal."""
        return self.exact or self.shown


@dataclass(frozen=True, slots=True)
class Result:
    """``why`` stands in place of a result; ``note`` is said beside one."""

    kind: Literal["none", "number", "list", "matrix", "formula", "parts", "answer"] = "none"
    cells: tuple[tuple[Cell, ...], ...] = ()
    size: str = ""
    note: str = ""
    why: str = ""
    more: str = ""  # what is left out
    formula: Expression | None = None
    parts: tuple[tuple[str, Result], ...] = ()
    answer: str = ""  # to a comparison

    @property
    def shown(self) -> str:
        """The decimal, or all of them."""
        return _joined(self, lambda cell: cell.shown)

    @property
    def exact(self) -> str:
        """The exact form of a number."""
        return self.cells[0][0].exact if self.kind == "number" else ""

    @property
    def sure(self) -> bool:
        """Whether the decimals are exact."""
        return bool(self.cells) and all(cell.sure for row in self.cells for cell in row)

    @property
    def text(self) -> str:
        """All of it in one line."""
        if self.formula is not None:
            return formula_text(self.formula)
        if self.answer:
            return self.answer
        if self.parts:
            return ", ".join(f"{name} = {part.text}" for name, part in self.parts)
        return _joined(self, lambda cell: cell.best)


def _joined(result: Result, word: object) -> str:
    assert callable(word)
    if result.kind == "number":
        return str(word(result.cells[0][0]))
    more = ", …" if result.more else ""
    rows = [", ".join(word(cell) for cell in row) for row in result.cells]
    return f"[{'; '.join(rows)}{more}]" if result.kind in ("list", "matrix") else ""


def _meant(lane: ResolvedLane) -> str:
    """The units that missing names may be meant for."""
    statement = lane.statement
    if not isinstance(statement, ValueStatement):
        return ""
    words = [word for word in lane.missing if only_behind_numbers(word, (statement.body,))]
    near = [one for word in words if (one := nearest_unit(word, catalogue.LINE_VOCABULARY))]
    return f": is the unit {' or '.join(near)} meant?" if near else ""


def result_of(document: Document, lane: ResolvedLane) -> Result:
    """The result of a line that defines or evaluates something, within its share of time."""
    if lane.lane.written.rests:
        return Result()
    if lane.error is not None:
        return Result(why=lane.error.message)
    if lane.missing:
        return Result(why=f"waits for {listed(lane.missing)}{_meant(lane)}")
    statement = lane.written
    if lane.calculated is None:
        return Result()
    if isinstance(statement, RelationStatement):
        return _compared(lane.calculated.calculator, statement)
    if not isinstance(statement, ValueStatement):
        return Result()
    try:
        if isinstance(statement.body, Pair):
            return Result()
        outcome = lane.outcome
    except NoResult as reason:
        return Result(why=f"no value: {reason}")
    except NotComputable as reason:
        return Result(why=str(reason))
    except OutOfTime:
        return Result(why=SLOW)
    body = statement.body if lane.for_lines else None
    return shown(outcome, document, lane.lane.written, body)


def _compared(calculator: Calculator, statement: RelationStatement) -> Result:
    """Whether a comparison of numbers holds."""
    if any(one.name in ("x", "y") for one in free_names(statement.written)):
        return Result(why="a relation of x and y is drawn: send it to the sheet")
    if not isinstance(statement.condition, Comparison) or statement.within is not None:
        return Result(why="one comparison is answered, such as √2 < 3/2")
    try:
        holds = calculator.holds(statement.condition)
    except NoResult as reason:
        return Result(why=f"no answer: {reason}")
    except OutOfTime:
        return Result(why=SLOW)
    if holds:
        return Result("answer", answer="true")
    return Result("answer", answer="false", note=_apart(calculator, statement.condition))


def _apart(calculator: Calculator, condition: Comparison) -> str:
    """What two sides that are not equal are apart by, where that is a slip of units."""
    if condition.signs != ("=",):
        return ""
    try:
        sides = [calculator.result(one).value for one in condition.operands]
    except (NoResult, OutOfTime):
        return ""
    bare = [one.value if isinstance(one, Measured) else one for one in sides]
    if not all(isinstance(one, Surd | arb) and is_real(one) for one in bare):
        return ""
    first, second = (float(real_ball(one).mid()) for one in bare)  # type: ignore[arg-type]
    return factor_apart(first, second)


def shown(
    outcome: Outcome, document: Document, how: Written, lane_body: Expression | None = None
) -> Result:
    """A value as the sheet or the line wants it; ``lane_body`` is what was typed."""
    writer = _Writer(document, how)
    found = writer.value(outcome.value)
    notes = [PRINCIPAL] if outcome.principal else []
    if outcome.condition:
        notes.append(f"condition number {decimal(outcome.condition, 2)}")
    notes += readings_of(lane_body) if lane_body is not None else []
    if writer.without:
        notes.append(f"there is no US customary unit for this here: shown in {writer.without}")
    if writer.huge:
        notes.append("larger than anything a plot can hold")
    return replace(found, note="; ".join(notes))


class _Writer:
    """Writes values with the digits and the notation of a sheet and a line."""

    def __init__(self, document: Document, how: Written) -> None:
        self.notation = document.notation if not how.notation else how.notation
        self.notation = "" if self.notation == "plain" else self.notation
        self.digits = how.digits or document.digits
        self.form = how.form
        self.degrees = document.unit is AngleUnit.DEGREE
        self.measures = document.measures
        self.huge = False
        self.without = ""  # a unit of the SI where the sheet's system has none

    def value(self, value: Value) -> Result:
        """Any value."""
        match value:
            case Items(values):
                more = "" if len(values) <= MOST_ITEMS else f"{len(values) - MOST_ITEMS} more"
                cells = tuple(self.cell(one) for one in values[:MOST_ITEMS])
                return Result("list", (cells,), _counted(len(values)), more=more)
            case Grid(rows):
                cut = len(rows) > MOST_ROWS or len(rows[0]) > MOST_ROWS
                some = tuple(tuple(self.cell(v) for v in r[:MOST_ROWS]) for r in rows[:MOST_ROWS])
                more = f"the first {len(some)} × {len(some[0])} of {value.shape}" if cut else ""
                return Result("matrix", some, value.shape, more=more)
            case Formula(expression, _):
                return Result("formula", formula=expression)
            case Parts(named):
                parts = tuple((name, self.value(one)) for name, one in named)
                return Result("parts", parts=parts)
        return Result("number", ((self.cell(value),),))

    def cell(self, value: Scalar) -> Cell:
        """One number."""
        if isinstance(value, Undefined):
            return Cell("—")
        if isinstance(value, Measured):
            return self.quantity(value)
        if self.form == "polar" and not is_real(value):
            return self.polar(value)
        exact = self.exactly(value) if self.form != "decimal" else ""
        decimal, sure = self.decimal(value)
        if self.form == "decimal":
            return Cell(decimal, "", sure, value)
        if self.form == "exact" and exact:
            return Cell(exact, "", True, value)
        return Cell(decimal, "" if sure and self.form != "mixed" else exact, sure, value)

    def quantity(self, value: Measured) -> Cell:
        """A number with its unit."""
        number, unit = in_unit(value, self.measures)
        if self.measures == "US" and value.shown_in is None and not has_unit(value, "US"):
            self.without = unit
        cell = self.cell(number)
        behind = f" {unit}" if unit else ""
        rational = isinstance(number, Surd) and number.rational is not None
        # A textbook gives a quantity as a decimal where its exact form is a long one.
        long = rational or len(cell.exact) > MOST_EXACT
        hidden = long and self.form not in ("exact", "mixed")
        exact = f"{cell.exact}{behind}" if cell.exact and not hidden else ""
        return replace(cell, shown=f"{cell.shown}{behind}", exact=exact, unit=unit)

    def exactly(self, value: Scalar) -> str:
        """The exact form, where there is one that is easier to read than the decimal."""
        if not isinstance(value, Surd):
            return ""
        rational = value.rational
        if self.form == "mixed" and rational is not None and rational.denominator > 1:
            return mixed_text(rational)
        return exact_text(value)

    def decimal(self, value: Surd | arb | acb) -> tuple[str, bool]:
        """The decimal, of both parts where a number is complex, and whether it is exact."""
        if isinstance(value, Surd) and not value.is_real:
            return self.both(*value.parts)
        if isinstance(value, acb):
            return self.both(value.real, value.imag)
        if isinstance(value, arb) and not value.is_finite():
            return "not known", False
        number, right = decimal_of(value)
        if number and number.adjusted() > LARGEST:
            self.huge = True
        if isinstance(value, Surd):
            text = written(number, self.notation, self.digits)
            return text, says(text, value)
        if right >= self.digits:
            return written(number, self.notation, self.digits), False
        if right >= 1:
            return written(number, self.notation, right), False
        return f"0 (± {written(upper_of(value), 'scientific', 1)})", False

    def both(self, real: Surd | arb, imaginary: Surd | arb) -> tuple[str, bool]:
        """A real part and an imaginary one."""
        second, sure = self.decimal(imaginary)
        bare = second.removeprefix(MINUS)
        turned = "i" if bare == "1" else f"({bare})i" if "×" in bare or "(" in bare else f"{bare}i"
        minus = MINUS if second.startswith(MINUS) else ""
        if real.is_zero if isinstance(real, Surd) else real.is_zero():
            return f"{minus}{turned}", sure
        first, also = self.decimal(real)
        return f"{first} {minus or '+'} {turned}", sure and also

    def polar(self, value: Surd | arb | acb) -> Cell:
        """Distance and angle: 2 (cos 60° + i sin 60°) as 2 cis(60°)."""
        try:
            parts = absolute(value), angle_of(value, self.degrees)
        except TooWide:
            return Cell(self.decimal(value)[0])
        size, angle = (self.cell(part) for part in parts)
        exact = f"{_factor(size.best)}cis({angle.best})"
        decimal = f"{_factor(size.shown)}cis({angle.shown})"
        return Cell(decimal, "" if exact == decimal else exact, size.sure and angle.sure)


def cell_of(value: Scalar, document: Document, how: Written) -> Cell:
    """One number as it is wanted."""
    return _Writer(document, how).cell(value)


def text_of(value: Scalar, document: Document, how: Written) -> str:
    """One number as it stands in a sentence."""
    return cell_of(value, document, how).best


def full(value: Surd | arb | acb) -> str:
    """A number with the digits of a float64, for spreadsheets."""
    with precision(FULL):
        ball = enclosed(value)
    if isinstance(ball, arb):
        return full_precision(float(ball.mid()))
    parts = (float(ball.real.mid()), float(ball.imag.mid()))
    sign = "-" if parts[1] < 0 else "+"
    return f"{full_precision(parts[0])}{sign}{full_precision(abs(parts[1]))}i"


def _factor(text: str) -> str:
    if text == "1":
        return ""
    return f"({text}) " if " " in text else f"{text} "


def _counted(count: int) -> str:
    return "1 value" if count == 1 else f"{count} values"
