"""A system solved part by part: each by the engine that proves most, all its solutions followed."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from contextlib import suppress
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import partial

from flint import arb

from axispath.core.arithmetic.letter import uses
from axispath.core.arithmetic.program import Definition, NotComputable
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.measuring import Shown
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.clashes import Clashes, Number, Numbers, difference_of
from axispath.core.equations.core import Core, Sides, core_of
from axispath.core.equations.engines import ENGINES, Found, Task
from axispath.core.equations.engines.engine import Limits, within
from axispath.core.equations.general import (
    Contradiction,
    determined,
    eliminated,
    every_solution,
)
from axispath.core.equations.linear import LinearSolution
from axispath.core.equations.measure import Kind, kind_of_value
from axispath.core.equations.measured import measured, needed
from axispath.core.equations.solved import Solution, Solved, Step, System, Trouble, equations_told
from axispath.core.equations.structure import Part
from axispath.core.equations.wishes import Wish
from axispath.core.language.numbers import listed
from axispath.core.language.rebuild import substituted
from axispath.core.language.tree import Name
from axispath.core.quantities.dimensions import NONE, Dimension
from axispath.core.quantities.scalars import TooWide, real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, NoResult, Scalar, Value

MOST_SOLUTIONS = 16
MOST_COST = 15_000  # evaluations of all searches together
ANYTHING = "the equations hold whatever the value is"


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
    cost: int = 0  # of the searches so far

    def run(self) -> Solved:
        self.calculator = Calculator(self.definitions, self.unit)
        self.given, kinds = self._given()
        self.exact = all(isinstance(value, Surd) for value in self.given.values())
        self.found = measured(self.system, kinds, self.definitions)
        self.troubles += self.found.troubles
        self.limits, self.shown = self._wished()
        self.numbers = [one.number for one in self.found.equations]
        self.names = self.found.names
        self.clashes = Clashes(self.found, self.system.unknowns, self.calculator, self.given)
        structure = self.found.structure
        branches: list[dict[str, Number]] = [{}]
        failed: set[str] = {name for part in structure.loose for name in part.unknowns}
        for part in structure.parts:
            needed_names = {name for i in part.equations for name in self.names[i]}
            after = None
            if not (needed_names - set(part.unknowns)) & failed:
                after = self._part(part, branches)
            if after is None:
                failed |= set(part.unknowns)
            else:
                branches = after
        for part in structure.loose:
            branches, told = self._determined(part, branches)
            failed -= told
        branches = self._checked(branches, failed)
        return self._solved(branches)

    def _given(self) -> tuple[dict[str, Number], dict[str, Kind]]:
        """The names that have a value: as numbers of the SI, and what they are measured in."""
        numbers: dict[str, Number] = {}
        kinds: dict[str, Kind] = {}
        for name in needed(self.system, self.definitions)[0]:
            try:
                value = self.value_of(name)
            except NoResult as reason:
                kinds[name] = Kind(wrong=str(reason))
                continue
            kinds[name] = kind_of_value(value)
            value = value.value if isinstance(value, Measured) else value
            assert isinstance(value, Surd | arb)
            numbers[name] = value
        return numbers, kinds

    def _wished(self) -> tuple[dict[str, Limits], dict[str, Shown]]:
        """Bounds and units to show results in, as far as they fit."""
        limits: dict[str, Limits] = {}
        shown = dict(self.found.shown)
        for name, wish in self.wishes.items():
            of = self.found.of.get(name, NONE)
            try:
                limits[name] = wish.limits(name, of)
                unit = wish.unit(name, of)
                shown |= {name: unit} if unit is not None else {}
            except NoResult as reason:
                self.troubles.append(Trouble(str(reason)))
        return limits, shown

    # One part

    def _part(
        self, part: Part, branches: list[dict[str, Number]]
    ) -> list[dict[str, Number]] | None:
        """Every branch with the unknowns of a part, in each of the ways that there are."""
        sides = [self.found.sides[i] for i in part.equations]
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
                why = NoResult(found.always)
            words |= {found.words: None} if found.words else {}
            complete = complete and found.complete
            for place in found.places:
                values = dict(zip(part.unknowns, place, strict=True))
                if within(self.limits, values):
                    after.append({**known, **values})
                else:
                    words["within the bounds that are given"] = None
        complete = complete and (why is None or isinstance(why, Contradiction | _NotReal))
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
        if isinstance(why, Contradiction):
            self.troubles.append(self.clashes.in_part(part, why.rows))
            return
        names = listed(part.unknowns)
        if why is not None:
            self.troubles.append(Trouble(f"{names}: {why}", numbers))
        elif complete:
            told = f" {next(iter(words))}" if words else ""
            above = self.clashes.with_what_is_above(part.equations)
            sentence = f"no {names} solves {equations_told(numbers)}{told}"
            if len(above) > len(numbers):
                sentence += (
                    f", with what {equations_told(tuple(n for n in above if n not in numbers))}"
                )
                sentence += " say" if len(above) > len(numbers) + 1 else " says"
            self.troubles.append(Trouble(sentence, above))
        else:
            told = next(iter(words), "the search did not settle")
            self.troubles.append(Trouble(f"no {names} was found: {told}", numbers))

    def _alone(self, sides: list[Sides], names: tuple[str, ...], known: Numbers) -> Found | None:
        """An unknown that stands alone on one side of an equation, and not on the other."""
        if len(names) > 1:
            return None
        ((left, right),), (name,) = sides, names
        for one, other in ((left, right), (right, left)):
            if one == Name(name) and not uses(name, other):
                value = self.calculator.result(other, {**self.given, **known}).value
                return Found(((_number(value),),), True)
        return None

    def _linear(self, sides: list[Sides], names: tuple[str, ...], known: Numbers) -> Found | None:
        """A linear part, exactly; None for others."""
        alone = self._alone(sides, names, known)
        if alone is not None:
            return alone
        found = eliminated(sides, names, self.calculator, {**self.given, **known})
        if found is None:
            return None
        if found.kind == "many":
            raise NoResult(f"the equations say the same, and {self._every(found, names)}")
        values = {name: value for name, value, _ in found.values}
        return Found((tuple(_number(values[name]) for name in names),), True)

    def _every(self, found: LinearSolution, names: tuple[str, ...]) -> str:
        """All solutions in words, where they are plain numbers; else what is free in them."""
        if all(self.found.of.get(name, NONE) == NONE for name in names):
            with suppress(NoResult, TooWide):
                return every_solution(found)
        return f"{listed(found.free)} may be anything"

    def _engine(self, sides: list[Sides], names: tuple[str, ...], known: Numbers) -> Found:
        """Any other part, by the first engine that takes what is left of it."""
        put = {name: tree_of(value) for name, value in {**self.given, **known}.items()}
        given = [(substituted(a, put), substituted(b, put)) for a, b in sides]
        core = core_of(given, names, self.calculator)
        exact = self.exact and all(isinstance(value, Surd) for value in known.values())
        task = Task(core, self.definitions, self.unit, self.calculator, self.limits, exact)
        for one in core.empty:
            if not self.clashes.holds(one, {}):
                raise NoResult("they contradict each other")
        if core.empty:
            return Found((), False, always=ANYTHING)
        if not core.unknowns:
            only = self._rest(core, ())
            places = (tuple(only[name] for name in names),) if only is not None else ()
            return Found(places, True)
        engine = next(one for one in ENGINES if one.takes(task))
        if self.cost > MOST_COST:
            raise NoResult("there are too many searches: give bounds, so that fewer are left")
        found = engine.solve(task)
        self.cost += found.cost
        rest = [self._rest(core, place) for place in found.places]
        placed = [one for one in rest if one is not None]
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

    def _determined(
        self, part: Part, branches: list[dict[str, Number]]
    ) -> tuple[list[dict[str, Number]], set[str]]:
        """What a linear part with too few equations says all the same, and of which unknowns."""
        sides = [self.found.sides[i] for i in part.equations]
        numbers = tuple(self.numbers[i] for i in part.equations)
        needed_names = {name for i in part.equations for name in self.names[i]}
        (known, *others) = branches or [{}]
        above = {**self.given, **known}
        missing = needed_names - set(part.unknowns) - set(above)
        found = None
        try:
            if numbers and not others and not missing:
                found = eliminated(sides, part.unknowns, self.calculator, above)
            values = {n: _number(v) for n, v in determined(found).items()} if found else {}
        except Contradiction as against:
            self.troubles.append(self.clashes.in_part(part, against.rows))
            return branches, set()
        except (NoResult, TooWide):
            found, values = None, {}
        self._loose(part, self._every(found, part.unknowns) if found else "")
        if not values or not within(self.limits, values):
            return branches, set()
        self.steps.append(Step(numbers, tuple(values), "the same in every solution"))
        return [{**known, **values}], set(values)

    def _loose(self, part: Part, every: str = "") -> None:
        numbers = tuple(self.numbers[i] for i in part.equations)
        names = listed(part.unknowns)
        if not numbers and set(part.unknowns) <= self.found.unfit:
            return  # why has been said
        if not numbers:
            self.troubles.append(Trouble(f"nothing is left that says anything of {names}"))
            return
        count = len(part.unknowns) - len(numbers)
        missing = "one more equation is" if count == 1 else f"{count} more equations are"
        of = f"{equations_told(numbers)} {'has' if len(numbers) == 1 else 'have'}"
        self.troubles.append(
            Trouble(
                f"too few: {of} {len(part.unknowns)} unknowns ({names}); {missing} needed, "
                f"or a value for {'one' if count == 1 else 'some'} of them"
                f"{f'. All solutions: {every}' if every else ''}",
                numbers,
            )
        )

    def _checked(
        self, branches: list[dict[str, Number]], failed: set[str]
    ) -> list[dict[str, Number]]:
        """The branches in which the equations hold that were not needed."""
        branches, steps, trouble = self.clashes.checked(branches, failed)
        self.steps += steps
        if trouble is None:
            return branches
        self.troubles.append(trouble)
        wrong = set(trouble.equations)
        lost = {n for i, k in enumerate(self.numbers) if k in wrong for n in self.names[i]}
        for step in self.steps:  # in the order in which they were found
            place = [self.numbers.index(n) for n in step.equations]
            if any(self.names[i] & lost for i in place):
                lost |= set(step.unknowns)
        self.steps = [s for s in self.steps if not set(s.unknowns) & lost]
        kept = [{k: v for k, v in one.items() if k not in lost} for one in branches]
        return list({tuple(map(str, one.items())): one for one in kept}.values())

    # What comes out

    def _solved(self, branches: list[dict[str, Number]]) -> Solved:
        solutions = []
        for known in sorted(branches, key=_order):
            if known:
                of, shown = self.found.of, self.shown
                values = {n: _quantity(v, of[n], shown.get(n)) for n, v in known.items()}
                solutions.append(Solution(values, partial(self._residuals, known)))
        kept = tuple(solutions), tuple(self.steps), tuple(self.troubles)
        return Solved(*kept, self.found.digits)

    def _residuals(self, known: Numbers) -> dict[int, float]:
        """How far the sides of each equation are apart at the nearest float64 numbers."""
        near = {
            name: value if isinstance(value, Surd) else Surd.of(Fraction(float(value.mid())))
            for name, value in known.items()
        }
        found = {}
        for number, pair, names in zip(self.numbers, self.found.sides, self.names, strict=True):
            if not names <= set(known):
                continue
            try:
                both = self.calculator.result(difference_of(pair), {**self.given, **near}).value
            except (NoResult, TooWide):
                continue
            if isinstance(both, Surd | arb):
                found[number] = float(abs(real_ball(both)).mid())
        return found


class _NotReal(NoResult):
    """What was known leads to no real number."""


def _order(known: Numbers) -> list[float]:
    return [float(real_ball(known[name]).mid()) for name in sorted(known)]


def _number(value: Value) -> Number:
    if isinstance(value, arb) or (isinstance(value, Surd) and value.is_real):
        return value
    raise _NotReal("there is no real value")


def _quantity(value: Number, of: Dimension, shown: Shown | None) -> Scalar:
    return value if of == NONE else Measured(value, of, shown)
