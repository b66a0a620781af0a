"""Programs carried out on germs: what a function does next to a break."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from flint import arb, arb_series

from axispath.core import catalogue
from axispath.core.arithmetic.balls import operation
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.rationals import Exact, exact_registers, sine_and_cosine
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.memory import remembered
from axispath.core.search.corner import Corner
from axispath.core.search.germ import Germ
from axispath.core.search.prepared import Prepared, plainer_program
from axispath.core.search.series import NoGerm, Series
from axispath.core.search.specialise import Branches, followed, needed, needs, specialised

FINEST = 12
WAVES = ("sin", "cos")
UNIT = arb(0, 1)  # from −1 to 1
DEPTH = 6  # how often a plainer form may be in terms of plainer forms


def germ_of(
    prepared: Prepared,
    unit: AngleUnit,
    branches: Branches,
    target: int,
    corner: Corner,
    zeros: frozenset[int],
    exact: Exact | None = None,
) -> Germ:
    """The germ of a step at a corner; ``zeros`` are the steps known to be 0 at the break.

    ``exact`` is the place itself, where it is known exactly.

    Raises NoGerm where there is none of the kind that germ.py describes, and NeedsRoot.
    """
    run = Run(unit, corner)
    plan = prepared.plan
    at = followed(target, branches)
    found: dict[int, Germ] = {}
    decided: set[int] = set()
    for index in needed(plan, [at], branches):
        # What was decided for the piece may not hold at the break itself, nor its exact values.
        if _jumps(plan, index, branches) or not decided.isdisjoint(needs(plan, index, branches)):
            decided.add(index)
        if index < plan.inputs:
            germ = corner.variable()
        else:
            declared = any(guard in zeros for guard in prepared.guards.get(index, ()))
            given = [found[i] for i in needs(plan, index, branches)]
            branch = branches.get(index)
            if branch is None:
                step = plan.steps[index]
                fixed = _fixed(prepared, unit).get(step.operands[1]) if _is_power(step) else None
                if fixed is not None and fixed.denominator <= FINEST:
                    germ = _fraction_power(given[0], fixed)
                else:
                    angle = None
                    if exact is not None and step.detail in WAVES:
                        inside = specialised(plan, branches, step.operands[0])
                        angle = exact_registers(inside, unit, exact)[inside.result]
                    germ = run.step(step, given, declared, 0, angle)
            elif branch.negated:
                germ = -given[0]
            else:
                assert branch.number is not None
                germ = corner.number(Exact(branch.number).ball)
        found[index] = germ.known_zero() if index in zeros and index not in decided else germ
    return found[at]


def _jumps(plan: Program, index: int, branches: Branches) -> bool:
    """Whether a step is, or works on, what jumps and has been decided."""
    branch = branches.get(index)
    if branch is not None and branch.number is not None:
        return True
    chosen = (i for i in plan.steps[index].operands if i in branches)
    return any(plan.steps[i].operation in ("choose", "restrict") for i in chosen)


def _is_power(step: Step) -> bool:
    return step.operation == "power"


@remembered(128)
def _fixed(prepared: Prepared, unit: AngleUnit) -> dict[int, Fraction]:
    """The fractions among the steps that do not depend on the input."""
    registers = exact_registers(prepared.plan, unit, Exact(Fraction(0)))
    return {
        index: value.rational
        for index, value in enumerate(registers)
        if value is not None and not value.turns and index not in prepared.varying
    }


def levels_of(germ: Germ, count: int) -> Iterator[Germ]:
    """The germ and its derivatives, one after the other."""
    yield germ
    for _ in range(count - 1):
        germ = germ.derivative()
        yield germ


class Run:
    """Carries out steps on germs."""

    def __init__(self, unit: AngleUnit, corner: Corner) -> None:
        self.unit = unit
        self.corner = corner

    def program(self, plan: Program, given: list[Germ], declared: bool, depth: int) -> Germ:
        """A plainer form; one of its parts is 0 at the break where that is ``declared``."""
        if depth > DEPTH:
            raise NoGerm
        found = list(given)
        for step in plan.steps[plan.inputs :]:
            operands = [found[i] for i in step.operands]
            at = _critical(step)
            vanishing = declared and at is not None and _may_be_zero(operands[at])
            if at is not None and vanishing:
                operands[at] = operands[at].known_zero()
            found.append(self.step(step, operands, vanishing, depth))
        return found[plan.result]

    def step(
        self, step: Step, given: list[Germ], declared: bool, depth: int, angle: Exact | None = None
    ) -> Germ:
        """One step; ``declared`` where a guard of it is known to be 0.

        ``angle`` is what a sine or cosine is of at the break, where that is known exactly.
        """
        match step.operation, given:
            case "number" | "constant", _:
                return self.corner.number(operation(step, self.unit)())
            case "add", [left, right]:
                return left + right
            case "subtract", [left, right]:
                return Germ({}, self.corner) if left is right else left - right
            case "multiply", [left, right]:
                return left * right
            case "negate", [value]:
                return -value
            case "divide", [top, bottom]:
                return top / bottom if bottom.terms else _nothing()
            case "whole power", [base]:
                return base.whole_power(step.detail)
            case "root power", [base]:
                return _fraction_power(base, step.detail)
            case "power", [base, exponent]:
                return (exponent * base.logarithm()).exponential()
            case "given", [value, _]:
                return value
            case "apply", _:
                return self._applied(step, given, declared, depth, angle)
        raise NoGerm

    def _applied(
        self, step: Step, given: list[Germ], declared: bool, depth: int, angle: Exact | None
    ) -> Germ:
        entry = catalogue.ENTRIES[step.detail]
        if step.detail in WAVES:
            return self._wave(step, given[0], angle)
        if step.detail == "arctan2":
            return self._angle(step, given[0], given[1], depth)
        if not declared or entry.cautious:
            try:
                return self._smooth(step, given)
            except (NoGerm, OutsideDomain):
                pass
        match step.detail, given:
            case "ln", [x]:
                return x.logarithm()
            case "exp", [x]:
                return x.exponential()
            case "sqrt", [x]:
                return x.root(2)
            case "root", [n, x]:
                index = n.number()
                whole = index.unique_fmpz() if index is not None else None
                return (
                    x.root(int(whole)) if whole is not None and 1 <= whole <= FINEST else _nothing()
                )
            case "erf", [x] if any(r < 0 for r, _ in x.terms):
                return self._far_erf(x)
            case "arctan", [x] if any(r < 0 for r, _ in x.terms):
                return self._far_arctan(step, x)
        if entry.plainer:
            return self.program(
                plainer_program(step.detail, len(given)), given, declared, depth + 1
            )
        raise NoGerm

    def _wave(self, step: Step, angle: Germ, at: Exact | None) -> Germ:
        """A sine or a cosine, whose values are exact at the exact angles that school knows.

        Of an angle without a limit it is known only to stay between −1 and 1.
        """
        try:
            series = angle.analytic()
        except NoGerm:
            return self.corner.bounded(UNIT)
        pair = sine_and_cosine(at, self.unit) if at is not None else None
        if pair is None:
            try:
                return self._smooth(step, [angle])
            except NoGerm:
                values = operation(step, self.unit)(series.over[0])
                return self.corner.bounded(values if values.is_finite() else UNIT)
        sine, cosine = pair
        length = series.at.prec
        turned = arb_series([arb(0), *(series.at[k] for k in range(1, length))], length)
        rest = turned if self.unit is AngleUnit.RADIAN else turned * (arb.pi() / 180)
        if step.detail == "sin":
            known = rest.cos() * sine + rest.sin() * cosine
        else:
            known = rest.cos() * cosine - rest.sin() * sine
        over = operation(step, self.unit)(series.over)
        return self.corner.germ(Series(known, over))

    def _smooth(self, step: Step, given: list[Germ]) -> Germ:
        """A function at a place where it is analytic."""
        work = operation(step, self.unit)
        series = [germ.number() if germ.number() is not None else germ.analytic() for germ in given]
        if all(isinstance(x, arb) for x in series):
            value = work(*series)
            if not value.is_finite():
                raise NoGerm
            return self.corner.number(value)
        at = work(*(x.at if isinstance(x, Series) else x for x in series))
        over = work(*(x.over if isinstance(x, Series) else x for x in series))
        length = next(x.at.prec for x in series if isinstance(x, Series))
        both = [arb_series([s], length) if isinstance(s, arb) else s for s in (at, over)]
        if not all(s[k].is_finite() for s in both for k in range(min(4, length))):
            raise NoGerm
        return self.corner.germ(Series(*both))

    def _far_erf(self, x: Germ) -> Germ:
        """erf of what grows without bound: ±1 less e^(−x²) times something small.

        0 < erfc(x) < e^(−x²) / (x √π) for x > 0 (Abramowitz and Stegun 1964, 7.1.13).
        """
        sign = self.corner.number(arb(x.sign()))
        rest = self.corner.bounded(arb(0).union(1 / arb.pi().sqrt())) / (x * sign)
        return sign - sign * (rest * (-(x * x)).exponential())

    def _angle(self, step: Step, y: Germ, x: Germ, depth: int) -> Germ:
        """The angle of a point right beside the break: signs tell in which quadrant it lies."""
        half_turn = arb(180) if self.unit is AngleUnit.DEGREE else arb.pi()
        upwards = y.sign() if y.terms else 0
        if not x.terms:
            return self.corner.number(half_turn * upwards / 2) if upwards else _nothing()
        right = x.sign() > 0
        if not upwards:
            return self.corner.number(arb(0) if right else half_turn)
        flat = self.step(Step("apply", step.operands[:1], "arctan"), [y / x], False, depth)
        return flat if right else flat + self.corner.number(half_turn * upwards)

    def _far_arctan(self, step: Step, x: Germ) -> Germ:
        """arctan of what grows without bound: ±90° − arctan(1/x)."""
        sign = x.sign()
        right_angle = arb(90) if self.unit is AngleUnit.DEGREE else arb.pi() / 2
        near = self._smooth(step, [self.corner.number(arb(1)) / x])
        return self.corner.number(right_angle * sign) - near


def _fraction_power(base: Germ, exponent: Fraction) -> Germ:
    if exponent.denominator == 1:
        return base.whole_power(exponent.numerator)
    return base.root(exponent.denominator).whole_power(exponent.numerator)


def _critical(step: Step) -> int | None:
    """The operand at whose zero a step of a plainer form breaks."""
    if step.operation == "divide":
        return 1
    if step.operation in ("root power", "power") or step.detail in ("ln", "sqrt"):
        return 0
    return None


def _may_be_zero(germ: Germ) -> bool:
    return any(
        place == (0, 0) and series.at[0].contains(0) for place, series in germ.terms.items()
    ) and all(j == 0 and r >= 0 for r, j in germ.terms)


def _nothing() -> Germ:
    raise NoGerm
