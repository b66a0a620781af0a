"""A system solved part by part: each by the engine that proves most, all its solutions followed."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.program import Definition, NotComputable
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.measuring import Shown
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.core import Core, Sides, core_of
from axispath.core.equations.digits import typed_digits
from axispath.core.equations.engines import ENGINES, Found, Task
from axispath.core.equations.engines.engine import Limits
from axispath.core.equations.engines.verify import BITS
from axispath.core.equations.linear import (
    LinearSystem,
    impossible,
    linear,
    row_of,
    smallest,
    solved,
)
from axispath.core.equations.measure import Measuring
from axispath.core.equations.reading import Equation
from axispath.core.equations.structure import Part, Structure, structure_of
from axispath.core.equations.wishes import Wish
from axispath.core.language.numbers import listed, stretched
from axispath.core.language.rebuild import substituted
from axispath.core.language.tree import Expression, Negation, Sum
from axispath.core.language.walking import free_names
from axispath.core.quantities.dimensions import NONE
from axispath.core.quantities.factors import factor_apart
from axispath.core.quantities.scalars import TooWide, real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, Measured, NoResult, Scalar

MOST_SOLUTIONS = 32
Number = Surd | arb
Numbers = Mapping[str, Number]


@dataclass(frozen=True, slots=True)
class Step:
    """What was found together: from which equations (by number), how, and what is said of it."""

    equations: tuple[int, ...]
    unknowns: tuple[str, ...]
    words: str = ""
    complete: bool = True


@dataclass(frozen=True, slots=True)
class Trouble:
    """Why something has no answer, with the numbers of the equations that it is about."""

    words: str
    equations: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True)
class Solution:
    """The values of unknowns, and how far the sides of each equation are apart at the decimals."""

    values: Mapping[str, Scalar]
    residuals: Mapping[int, float]


@dataclass(frozen=True, slots=True)
class Solved:
    """The solutions of a system, part by part; ``open`` are unknowns without a value.

    ``digits`` is how many a result carries, by what was typed; 0 where nothing was measured.
    """

    solutions: tuple[Solution, ...]
    steps: tuple[Step, ...]
    troubles: tuple[Trouble, ...]
    digits: int = 0

    @property
    def complete(self) -> bool:
        """Whether there are no solutions but these, for certain."""
        return all(step.complete for step in self.steps)


@dataclass(frozen=True, slots=True)
class System:
    """Equations that hang together by their unknowns."""

    equations: tuple[Equation, ...]
    unknowns: tuple[str, ...]


def solve(
    system: System,
    wishes: Mapping[str, Wish],
    value_of: Callable[[str], Scalar],
    definitions: Mapping[str, Definition],
    unit: AngleUnit,
) -> Solved:
    """Solve a system. What has no answer is told, and the rest answered. Raises OutOfTime.

    ``wishes`` are what is said of unknowns beside it, ``value_of`` the values of other names.
    """
    return _Solver(system, wishes, value_of, definitions, unit).run()


@dataclass
class _Solver:
    system: System
    wishes: Mapping[str, Wish]
    value_of: Callable[[str], Scalar]
    definitions: Mapping[str, Definition]
    unit: AngleUnit
    steps: list[Step] = field(default_factory=list)
    troubles: list[Trouble] = field(default_factory=list)
    unfit: set[str] = field(default_factory=set)  # in equations that do not fit

    def run(self) -> Solved:
        self.calculator = Calculator(self.definitions, self.unit)
        self.exact = True
        kept, sides, measuring = self._measured()
        self.limits, self.shown = self._wished(measuring)
        self.numbers = [one.number for one in kept]
        self.sides = sides
        unknowns = frozenset(self.system.unknowns)
        self.names = [_names_in(pair) & unknowns for pair in sides]
        structure = structure_of(self.names, self.system.unknowns)
        branches: list[dict[str, Number]] = [{}]
        failed: set[str] = {name for part in structure.loose for name in part.unknowns}
        for part in structure.parts:
            needed = {name for i in part.equations for name in self.names[i]} - set(part.unknowns)
            if needed & failed:
                failed |= set(part.unknowns)
                continue
            after = self._part(part, branches, structure)
            if after is None:
                failed |= set(part.unknowns)
            else:
                branches = after
        for part in structure.loose:
            self._loose(part)
        branches = self._checked(structure, branches, failed)
        return self._solved(branches, kept, measuring)

    # Quantities to numbers

    def _measured(self) -> tuple[list[Equation], list[Sides], Measuring]:
        """The equations that fit together, as equations between numbers."""
        unknowns = frozenset(self.system.unknowns)
        measuring = Measuring(self._known, self.definitions, unknowns)
        found: dict[int, tuple[Equation, Sides]] = {}
        # Those about fewest unknowns first: which equation does not fit is the same then, whatever
        # their order.
        ordered = sorted(self.system.equations, key=lambda e: (len(e.names & unknowns), e.text))
        for one in ordered:
            before = dict(measuring.dimensions.solved)
            try:
                found[one.number] = one, measuring.equation(one)
            except NoResult as reason:
                measuring.dimensions.solved = before
                told = f"{reason}{measuring.dimensions.origin(one.names & unknowns)}"
                self.troubles.append(Trouble(told, (one.number,)))
                self.unfit |= one.names
        pairs = [found[number] for number in sorted(found)]
        return [one for one, _ in pairs], [both for _, both in pairs], measuring

    def _wished(self, measuring: Measuring) -> tuple[dict[str, Limits], dict[str, Shown]]:
        """Bounds and units to show results in, as far as they fit."""
        limits: dict[str, Limits] = {}
        shown = {**measuring.scales, **measuring.wished}
        for name, wish in self.wishes.items():
            of = measuring.dimensions.of(name)
            try:
                limits[name] = wish.limits(name, of)
                unit = wish.unit(name, of)
                shown |= {name: unit} if unit is not None else {}
            except NoResult as reason:
                self.troubles.append(Trouble(str(reason)))
        return limits, shown

    def _known(self, name: str) -> Scalar:
        value = self.value_of(name)
        bare = value.value if isinstance(value, Measured) else value
        self.exact = self.exact and isinstance(bare, Surd)
        return value

    # One part

    def _part(
        self, part: Part, branches: list[dict[str, Number]], structure: Structure
    ) -> list[dict[str, Number]] | None:
        """Every branch with the unknowns of a part, in each of the ways that there are."""
        sides = [self.sides[i] for i in part.equations]
        numbers = tuple(self.numbers[i] for i in part.equations)
        after: list[dict[str, Number]] = []
        words: dict[str, None] = {}
        complete = True
        why: NoResult | None = None
        for known in branches:
            try:
                found = self._linear(sides, part.unknowns, known)
                if found is None:
                    found = self._engine(sides, part.unknowns, known)
            except NoResult as reason:
                why = reason
                continue
            except NotComputable as error:
                why = NoResult(str(error)[:1].lower() + str(error)[1:].rstrip("."))
                continue
            if found.always:
                why = NoResult("they hold whatever the value is")
            words |= {found.words: None} if found.words else {}
            complete = complete and found.complete
            after += [
                {**known, **dict(zip(part.unknowns, place, strict=True))} for place in found.places
            ]
        if len(after) > MOST_SOLUTIONS:
            words[f"only {MOST_SOLUTIONS} of {len(after)} solutions are followed"] = None
            after, complete = after[:MOST_SOLUTIONS], False
        if after:
            told = "; ".join(words)
            self.steps.append(Step(numbers, part.unknowns, told, complete))
            return after
        self._without(part, numbers, why, words, complete)
        return None

    def _without(
        self,
        part: Part,
        numbers: tuple[int, ...],
        why: NoResult | None,
        words: Mapping[str, None],
        complete: bool,
    ) -> None:
        """Say why a part has no solution."""
        if isinstance(why, _Contradiction):
            self.troubles.append(self._contradicting(part, why))
            return
        names = listed(part.unknowns)
        if why is not None:
            self.troubles.append(Trouble(f"{names}: {why}", numbers))
        elif complete:
            told = f" {next(iter(words))}" if words else ""
            above = self._with_what_is_above(part.equations)
            sentence = f"no {names} solves {_equations(numbers)}{told}"
            if len(above) > len(numbers):
                sentence += f", with what {_equations(tuple(n for n in above if n not in numbers))}"
                sentence += " say" if len(above) > len(numbers) + 1 else " says"
            self.troubles.append(Trouble(sentence, above))
        else:
            told = next(iter(words), "the search did not settle")
            self.troubles.append(Trouble(f"no {names} was found: {told}", numbers))

    def _with_what_is_above(self, indices: tuple[int, ...]) -> tuple[int, ...]:
        """The numbers of some equations and of those that determine what is in them."""
        owner = {name: step.equations for step in self.steps for name in step.unknowns}
        place = {number: k for k, number in enumerate(self.numbers)}
        found = {self.numbers[i] for i in indices}
        pending = list(indices)
        while pending:
            for name in self.names[pending.pop()]:
                for number in owner.get(name, ()):
                    if number not in found:
                        found.add(number)
                        pending.append(place[number])
        return tuple(sorted(found))

    def _linear(self, sides: list[Sides], names: tuple[str, ...], known: Numbers) -> Found | None:
        """A linear part, exactly; None for others."""
        letters = set(names)
        differences = [_difference(one) for one in sides]
        if not all(linear(one, letters) for one in differences):
            return None
        with precision(BITS):
            rows = [row_of(one, names, self.calculator, known) for one in differences]
            try:
                found = solved(LinearSystem(names, Grid(tuple(rows))))
            except TooWide:
                raise NoResult("whether they can be told apart was not settled") from None
        if found.kind == "none":
            raise _Contradiction(tuple(rows))
        if found.kind == "many":
            free = listed(found.free)
            raise NoResult(f"the equations say the same, and {free} may be anything")
        values = {name: value for name, value, _ in found.values}
        return Found((tuple(_number(values[name]) for name in names),), True)

    def _engine(self, sides: list[Sides], names: tuple[str, ...], known: Numbers) -> Found:
        """Any other part, by the first engine that takes what is left of it."""
        put = {name: tree_of(value) for name, value in known.items()}
        given = [(substituted(a, put), substituted(b, put)) for a, b in sides]
        core = core_of(given, names, self.calculator)
        exact = self.exact and all(isinstance(value, Surd) for value in known.values())
        task = Task(core, self.definitions, self.unit, self.calculator, self.limits, exact)
        for one in core.empty:
            if not self._holds(one, {}):
                raise NoResult("they contradict each other")
        if core.empty:
            return Found((), False, always=True)
        if not core.unknowns:
            only = self._rest(core, ())
            places = (tuple(only[name] for name in names),) if only is not None else ()
            return Found(places, True)
        engine = next(one for one in ENGINES if one.takes(task))
        found = engine.solve(task)
        rest = [self._rest(core, place) for place in found.places]
        placed = [one for one in rest if one is not None and self._inside(one)]
        ordered = tuple(tuple(one[name] for name in names) for one in placed)
        return replace(found, places=ordered)

    def _rest(self, core: Core, place: tuple[Number, ...]) -> dict[str, Number] | None:
        """The unknowns that were written out, from the others; None where one has no value."""
        values: dict[str, Number] = dict(zip(core.unknowns, place, strict=True))
        for name, tree in reversed(core.explicit):
            try:
                value = self.calculator.result(tree, values).value
            except NoResult:
                return None
            if not isinstance(value, Surd | arb) or (isinstance(value, Surd) and not value.is_real):
                return None
            values[name] = value
        return values

    def _inside(self, values: Numbers) -> bool:
        for name, value in values.items():
            limit, ball = self.limits.get(name), real_ball(value)
            if limit is None:
                continue
            if limit.low is not None and ball < limit.low:
                return False
            if limit.high is not None and ball > limit.high:
                return False
        return True

    # Too few, too many, and what contradicts

    def _loose(self, part: Part) -> None:
        numbers = tuple(self.numbers[i] for i in part.equations)
        names = listed(part.unknowns)
        if not numbers and set(part.unknowns) <= self.unfit:
            return  # why has been said
        if not numbers:
            self.troubles.append(Trouble(f"nothing is left that says anything of {names}"))
            return
        count = len(part.unknowns) - len(numbers)
        missing = "one more equation is" if count == 1 else f"{count} more equations are"
        of = f"{_equations(numbers)} {'has' if len(numbers) == 1 else 'have'}"
        self.troubles.append(
            Trouble(
                f"too few: {of} {len(part.unknowns)} unknowns ({names}); {missing} needed, "
                f"or a value for {'one' if count == 1 else 'some'} of them",
                numbers,
            )
        )

    def _checked(
        self, structure: Structure, branches: list[dict[str, Number]], failed: set[str]
    ) -> list[dict[str, Number]]:
        """The branches in which the equations hold that were not needed."""
        least: Trouble | None = None
        for index, above in structure.checks:
            if self.names[index] & failed:
                continue
            number = self.numbers[index]
            difference = _difference(self.sides[index])
            kept = [known for known in branches if self._holds(difference, known)]
            if kept:
                branches = kept
                words = "holds too and says nothing new" if len(kept) else ""
                self.steps.append(Step((number,), (), words))
                continue
            numbers = tuple(self.numbers[i] for i in above)
            trouble = Trouble(self._against(index, numbers, branches), numbers)
            if least is None or len(numbers) < len(least.equations):
                least = trouble
        if least is not None:
            among = self._linear_set() if len(least.equations) > 1 else None
            if among is not None and len(among) < len(least.equations):
                least = Trouble(f"{_equations(among)} contradict each other", among)
            self.troubles.append(least)
            wrong = set(least.equations)
            lost = {n for i, k in enumerate(self.numbers) if k in wrong for n in self.names[i]}
            lost |= self._below(lost)
            branches = [{k: v for k, v in one.items() if k not in lost} for one in branches[:1]]
            self.steps = [s for s in self.steps if not set(s.unknowns) & lost]
        return branches

    def _below(self, names: set[str]) -> set[str]:
        """The unknowns that were found from some others."""
        found = set(names)
        for step in self.steps:  # in the order in which they were found
            place = [self.numbers.index(n) for n in step.equations]
            if any(self.names[i] & found for i in place):
                found |= set(step.unknowns)
        return found

    def _against(
        self, index: int, numbers: tuple[int, ...], branches: list[dict[str, Number]]
    ) -> str:
        told = f"{_equations(numbers)} contradict each other"
        if len(numbers) == 1:
            told = f"{_equations(numbers)} is not true"
        left, right = self.sides[index]
        for known in branches[:1]:
            try:
                sides = [self.calculator.result(one, known).value for one in (left, right)]
            except NoResult:
                break
            if all(isinstance(one, Surd | arb) for one in sides):
                factor = factor_apart(*(float(real_ball(one).mid()) for one in sides))  # type: ignore[arg-type]
                told += f": {factor}" if factor else ""
        return told

    def _contradicting(self, part: Part, why: _Contradiction) -> Trouble:
        """The smallest set of linear equations that contradict each other."""
        known = self._linear_set()
        if known is not None:
            return Trouble(f"{_equations(known)} contradict each other", known)
        chosen = smallest(list(why.rows), part.unknowns)
        numbers = self._with_what_is_above(tuple(part.equations[k] for k in chosen))
        return Trouble(f"{_equations(numbers)} contradict each other", numbers)

    def _linear_set(self) -> tuple[int, ...] | None:
        """The smallest contradiction among all equations that are linear; None without one."""
        names = tuple(self.system.unknowns)
        differences = [_difference(one) for one in self.sides]
        kept = [k for k, one in enumerate(differences) if linear(one, set(names))]
        with precision(BITS):
            try:
                rows = [row_of(differences[k], names, self.calculator) for k in kept]
            except NoResult:
                return None
            if not impossible(rows, names):
                return None
            return tuple(self.numbers[kept[k]] for k in smallest(rows, names))

    def _holds(self, difference: Expression, known: Numbers) -> bool:
        """Whether a difference is 0, as far as can be told."""
        try:
            value = self.calculator.result(difference, known).value
            if not isinstance(value, Surd | arb):
                return False
            return bool(abs(value) < arb(2) ** -100) if isinstance(value, arb) else value.is_zero
        except NoResult as reason:
            return "digits" in str(reason) or "decid" in str(reason)

    # What comes out

    def _solved(
        self, branches: list[dict[str, Number]], kept: list[Equation], measuring: Measuring
    ) -> Solved:
        solutions = []
        for known in sorted(branches, key=_order):
            if not known:
                continue
            values = {name: _quantity(name, v, measuring, self.shown) for name, v in known.items()}
            residuals = {
                one.number: self._residual(pair, known)
                for one, pair, names in zip(kept, self.sides, self.names, strict=True)
                if names <= set(known)
            }
            solutions.append(Solution(values, residuals))
        digits = typed_digits(self.system.equations)
        return Solved(tuple(solutions), tuple(self.steps), tuple(self.troubles), digits)

    def _residual(self, sides: Sides, known: Numbers) -> float:
        """How far the sides are apart at the nearest float64 numbers."""
        near = {
            name: value if isinstance(value, Surd) else Surd.of(Fraction(float(value.mid())))
            for name, value in known.items()
        }
        try:
            value = self.calculator.result(_difference(sides), near).value
            return float(abs(real_ball(value)).mid()) if isinstance(value, Surd | arb) else 0.0
        except (NoResult, TooWide):
            return 0.0


class _Contradiction(NoResult):
    """Linear equations without a solution, with their rows."""

    def __init__(self, rows: tuple[tuple[Scalar, ...], ...]) -> None:
        super().__init__("they contradict each other")
        self.rows = rows


def _names_in(sides: Sides) -> frozenset[str]:
    return frozenset(one.name for side in sides for one in free_names(side))


def _difference(sides: Sides) -> Expression:
    return Sum((sides[0], Negation(sides[1])))


def _order(known: Numbers) -> list[float]:
    return [float(real_ball(known[name]).mid()) for name in sorted(known)]


def _number(value: Scalar) -> Number:
    if isinstance(value, Surd | arb):
        return value
    raise NoResult("they have no real solution")


def _quantity(name: str, value: Number, measuring: Measuring, shown: Mapping[str, Shown]) -> Scalar:
    of = measuring.dimensions.of(name)
    if of == NONE:
        return value
    return Measured(value, of, shown.get(name))


def _equations(numbers: tuple[int, ...]) -> str:
    return f"equation{'s' if len(numbers) > 1 else ''} {stretched(numbers)}"
