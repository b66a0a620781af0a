"""What is said of an unknown beside the equations: bounds, a start, the unit to show it in."""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.measuring import Shown, shown_in
from axispath.core.equations.engines.engine import Limits
from axispath.core.language.errors import LanguageError
from axispath.core.language.numbers import decimal
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Converted
from axispath.core.memory import remembered
from axispath.core.quantities.dimensions import NONE, Dimension, told
from axispath.core.quantities.scalars import real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, NoResult, Value

LINE = Scope(catalogue.LINE_VOCABULARY)
Amount = tuple[float, Dimension]


@dataclass(frozen=True, slots=True)
class Wish:
    """What was typed beside an unknown; ``wrong`` says what of it is not understood."""

    low: Amount | None = None
    high: Amount | None = None
    start: Amount | None = None
    shown: Shown | None = None
    of: Dimension | None = None  # that of the unit to show it in
    wrong: str = ""

    def limits(self, name: str, of: Dimension) -> Limits:
        """The bounds of an unknown of some dimension. Raises NoResult where theirs is another."""
        if self.wrong:
            raise NoResult(self.wrong)
        for amount in (self.low, self.high, self.start):
            if amount is not None and amount[1] != of:
                wanted = "a plain number" if of == NONE else f"a bound in {told(of)}"
                raise NoResult(f"{name} takes {wanted}, not {told(amount[1])}")
        low, high, start = (one[0] if one else None for one in (self.low, self.high, self.start))
        if low is not None and high is not None and low > high:
            raise NoResult(f"the bounds of {name} are the wrong way round")
        return Limits(low, high, start)

    def unit(self, name: str, of: Dimension) -> Shown | None:
        """The unit to show an unknown in. Raises NoResult where it does not fit."""
        if self.shown is not None and self.of != of:
            raise NoResult(f"{name} is in {told(of)} and cannot be shown in {self.shown[0]}")
        return self.shown


@remembered(1024)
def read_wish(name: str, low: str, high: str, start: str, unit: str) -> Wish:
    """What was typed beside an unknown. Never fails."""
    try:
        shown, of = _unit(unit)
        return Wish(_amount(low), _amount(high), _amount(start), shown, of)
    except LanguageError as error:
        return Wish(
            wrong=f"beside {name}: {error.message[:1].lower()}{error.message[1:].rstrip('.')}"
        )
    except NoResult as reason:
        return Wish(wrong=f"beside {name}: {reason}")


def typed_value(text: str) -> Value:
    """A value as it is typed by itself, with a unit or without. Raises LanguageError, NoResult."""
    return Calculator({}, AngleUnit.RADIAN).result(parse_expression(text, LINE)).value


def _amount(text: str) -> Amount | None:
    if not text.strip():
        return None
    value = typed_value(text)
    bare = value.value if isinstance(value, Measured) else value
    if not isinstance(bare, Surd | arb):
        raise NoResult(f"“{text.strip()}” is no real number")
    of = value.dimension if isinstance(value, Measured) else NONE
    found = float(real_ball(bare).mid())
    if abs(found) > 1e300:
        raise NoResult(f"{decimal(found, 3)} is too far out")
    return found, of


def _unit(text: str) -> tuple[Shown | None, Dimension | None]:
    if not text.strip():
        return None, None
    tree = parse_expression(f"1 in {text}", LINE)
    assert isinstance(tree, Converted)
    return shown_in(tree.unit)
