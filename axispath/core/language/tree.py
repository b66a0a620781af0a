"""The tree of a formula: immutable values, equal when they mean the same.

Places (offsets into the text) take no part in equality.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction

Place = tuple[int, int]


@dataclass(frozen=True, slots=True)
class Number:
    """A decimal number as typed, such as ``2.50`` or ``6e-3``."""

    text: str

    @property
    def value(self) -> Fraction:
        """The exact value."""
        return Fraction(self.text)


@dataclass(frozen=True, slots=True)
class Constant:
    """A constant of the catalogue, by its canonical name."""

    name: str


@dataclass(frozen=True, slots=True)
class Name:
    """A parameter, a value of the sheet, or a name nobody has defined yet."""

    name: str
    place: Place = field(default=(0, 0), compare=False)


@dataclass(frozen=True, slots=True)
class Negation:
    """The opposite of ``operand``."""

    operand: Expression


@dataclass(frozen=True, slots=True)
class Sum:
    """Two or more terms; a subtracted term is a Negation."""

    terms: tuple[Expression, ...]


@dataclass(frozen=True, slots=True)
class Product:
    """``left`` times ``right``, written out or side by side."""

    left: Expression
    right: Expression


@dataclass(frozen=True, slots=True)
class Quotient:
    """``numerator`` over ``denominator``."""

    numerator: Expression
    denominator: Expression


@dataclass(frozen=True, slots=True)
class Power:
    """``base`` to the ``exponent``."""

    base: Expression
    exponent: Expression


@dataclass(frozen=True, slots=True)
class Apply:
    """A function of the catalogue, by its canonical name, applied to arguments."""

    function: str
    arguments: tuple[Expression, ...]


@dataclass(frozen=True, slots=True)
class Call:
    """A function of the sheet, or its derivative of some order, applied to arguments."""

    name: str
    arguments: tuple[Expression, ...]
    order: int = 0
    place: Place = field(default=(0, 0), compare=False)


@dataclass(frozen=True, slots=True)
class Comparison:
    """A chain such as 0 < x <= 2: one sign fewer than operands, each <, <=, >, >=, = or !=."""

    operands: tuple[Expression, ...]
    signs: tuple[str, ...]

    @property
    def comparisons(self) -> tuple[Comparison, ...]:
        """Itself: see Joined."""
        return (self,)


@dataclass(frozen=True, slots=True)
class Cases:
    """The first value whose condition holds, else ``otherwise``, which may be missing."""

    values: tuple[Expression, ...]
    conditions: tuple[Comparison, ...]
    otherwise: Expression | None


@dataclass(frozen=True, slots=True)
class ListOf:
    """Values in square brackets."""

    items: tuple[Expression, ...]


@dataclass(frozen=True, slots=True)
class Pair:
    """Two coordinates in round brackets: a point of the plane, the whole of a line or in a list.

    ``polar`` is the distance from the pole and the angle where it was written by these.
    """

    first: Expression
    second: Expression
    place: Place = field(default=(0, 0), compare=False)
    polar: tuple[Expression, Expression] | None = None


@dataclass(frozen=True, slots=True)
class Series:
    """A sum or a product of ``body`` for whole values of ``index`` from ``low`` to ``high``."""

    kind: str
    body: Expression
    index: str
    low: Expression
    high: Expression


@dataclass(frozen=True, slots=True)
class MatrixOf:
    """A matrix, its rows in square brackets with semicolons between them."""

    rows: tuple[tuple[Expression, ...], ...]


@dataclass(frozen=True, slots=True)
class Part:
    """``base[2]`` or ``base[1 to 2, 3]``: an entry or a section, counted from 1."""

    base: Expression
    indices: tuple[Expression, ...]


@dataclass(frozen=True, slots=True)
class Stretch:
    """``1 to 5`` in square brackets: whole numbers one after the other."""

    low: Expression
    high: Expression


@dataclass(frozen=True, slots=True)
class UnitOf:
    """A unit of measurement behind a number, by its symbol."""

    symbol: str


@dataclass(frozen=True, slots=True)
class Converted:
    """``body`` shown in another ``unit``, which is a product of units."""

    body: Expression
    unit: Expression


@dataclass(frozen=True, slots=True)
class Running:
    """A function of a formula in which ``index`` runs, such as an integral or a limit.

    ``ends`` are what is said of the index, ``arguments`` what follows after a comma.
    """

    function: str
    body: Expression
    index: str
    ends: tuple[Expression, ...] = ()
    arguments: tuple[Expression, ...] = ()
    side: str = ""


Expression = (
    Number
    | Constant
    | Name
    | Negation
    | Sum
    | Product
    | Quotient
    | Power
    | Apply
    | Call
    | Cases
    | ListOf
    | Pair
    | Series
    | MatrixOf
    | Part
    | Stretch
    | Running
    | UnitOf
    | Converted
)


@dataclass(frozen=True, slots=True)
class Domain:
    """The stretch of ``variable`` on which a definition holds; a missing end is infinite."""

    variable: str
    low: Expression | None
    high: Expression | None
    low_closed: bool
    high_closed: bool


@dataclass(frozen=True, slots=True)
class FunctionStatement:
    """``name(parameters) = body``; ``name`` is None for a bare expression in x.

    ``body_end`` is the offset where the text of the body ends and a domain may follow. A body that
    is a pair makes it a curve; ``polar`` ones are r in terms of an angle.
    """

    name: str | None
    parameters: tuple[str, ...]
    body: Expression
    domain: Domain | None
    body_end: int = field(default=0, compare=False)
    polar: bool = False

    @property
    def curve(self) -> bool:
        """Whether a parameter runs along it, in place of x."""
        return self.polar or isinstance(self.body, Pair)


@dataclass(frozen=True, slots=True)
class ValueStatement:
    """``name = body``, a number or a list; ``name`` is None for a bare expression without x."""

    name: str | None
    body: Expression

    @property
    def parameters(self) -> tuple[str, ...]:
        """A value has none."""
        return ()

    @property
    def domain(self) -> None:
        """Nor has it a domain."""
        return None

    @property
    def curve(self) -> bool:
        """Nor is it a curve."""
        return False


@dataclass(frozen=True, slots=True)
class Joined:
    """Conditions of which all have to hold, or any: ``word`` is “and” or “or”."""

    word: str
    parts: tuple[Condition, ...]

    @property
    def comparisons(self) -> tuple[Comparison, ...]:
        """All comparisons, left to right."""
        return tuple(one for part in self.parts for one in part.comparisons)


@dataclass(frozen=True, slots=True)
class OfRelation:
    """What has to hold for another relation of the sheet, by its name."""

    name: str
    condition: Condition

    @property
    def comparisons(self) -> tuple[Comparison, ...]:
        """All comparisons of that relation."""
        return self.condition.comparisons


Condition = Comparison | Joined | OfRelation


def written(condition: Condition) -> tuple[Comparison, ...]:
    """The comparisons that a condition writes out."""
    if isinstance(condition, OfRelation):
        return ()
    if isinstance(condition, Joined):
        return tuple(one for part in condition.parts for one in written(part))
    return (condition,)


@dataclass(frozen=True, slots=True)
class RelationStatement:
    """An equation or inequalities in x and y; ``within`` is the part of the plane it is meant on.

    ``body_end`` is the offset where the text of the condition ends and a domain may follow.
    """

    condition: Condition
    within: Condition | None = None
    body_end: int = field(default=0, compare=False)

    @property
    def name(self) -> None:
        """It defines no name."""
        return None

    @property
    def parameters(self) -> tuple[str, ...]:
        """The coordinates of the plane."""
        return "x", "y"

    @property
    def comparisons(self) -> tuple[Comparison, ...]:
        """All comparisons, with those of the domain."""
        within = self.within.comparisons if self.within else ()
        return *self.condition.comparisons, *within

    @property
    def body(self) -> ListOf:
        """All that it needs: what is compared, as a list."""
        return ListOf(tuple(part for one in self.comparisons for part in one.operands))

    @property
    def written(self) -> ListOf:
        """What is compared in the line itself, without the relations that it names."""
        conditions = [self.condition, *([self.within] if self.within else [])]
        return ListOf(tuple(p for c in conditions for one in written(c) for p in one.operands))

    @property
    def domain(self) -> None:
        """It has no domain of one variable."""
        return None

    @property
    def curve(self) -> bool:
        """No parameter runs along it."""
        return False

    @property
    def equation(self) -> Comparison | None:
        """The equation, where there is one; else it is a region."""
        return next((one for one in self.condition.comparisons if "=" in one.signs), None)


Statement = FunctionStatement | ValueStatement | RelationStatement
