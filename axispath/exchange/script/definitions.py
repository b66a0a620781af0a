"""What a sheet defines, as functions and numbers of Python in an order that it can run."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.program import NotComputable
from axispath.core.language.numbers import full_precision
from axispath.core.language.points import from_polar
from axispath.core.language.tree import (
    Comparison,
    Condition,
    Expression,
    FunctionStatement,
    Joined,
    Name,
    RelationStatement,
    ValueStatement,
)
from axispath.core.language.walking import coordinates, differences, names_in
from axispath.core.quantities.values import Measured, NoResult
from axispath.core.sheet.resolve import ResolvedLane, Sheet
from axispath.exchange.script.expressions import NotWritten, Writer, identifier, slope_name
from axispath.exchange.script.section import Section
from axispath.exchange.script.texts import number_of, one_line, quoted, typed

Values = dict[str, tuple[str, set[str]]]
"""Lines by the name that they define, with the names that they need."""


@dataclass
class Definitions:
    """Writes the lines of a sheet."""

    sheet: Sheet
    writer: Writer
    needs: dict[str, set[str]] = field(default_factory=dict)  # of functions, by their names

    def sections(self) -> Iterator[Section]:
        """Numbers first, as far as they can be, then functions; in an order that Python can run."""
        functions: dict[str, str] = {}
        values: Values = {}
        left: list[str] = []
        lost: set[str] = set()
        for lane in self.sheet:
            if lane.lane.data is not None or lane.fitted is not None or lane.lane.written.rests:
                continue
            try:
                if lane.lane.block is not None:
                    values |= self._answers(lane)
                else:
                    self._define(lane, functions, values)
            except (NotWritten, NotComputable) as reason:
                left.append(f"# {one_line(lane.lane.text)}\n#   left out: {one_line(str(reason))}")
                lost |= {str(lane.name), f"{lane.name}_x", f"{lane.name}_y"}
        left += self._incomplete(functions, values, lost)
        functions |= self._slopes(functions)
        if functions:
            words = "Functions, curves and relations, each with the line that it is."
            yield Section("Functions", words, "\n\n\n".join(functions.values()))
        if values:
            yield Section("Numbers", "Numbers, points and lists.", "\n".join(self._ordered(values)))
        if left:
            yield Section("Left out", "Lines that plain Python cannot hold.", "\n".join(left))

    def _define(
        self,
        lane: ResolvedLane,
        functions: dict[str, str],
        values: Values,
    ) -> None:
        statement, name = lane.statement, lane.name
        if lane.error is not None or lane.missing or statement is None:
            why = lane.error.message if lane.error else f"it waits for {', '.join(lane.missing)}"
            raise NotWritten(why[:1].lower() + why[1:].rstrip("."))
        if isinstance(statement, RelationStatement):
            functions[str(name)] = self._relation(lane, statement)
        elif isinstance(statement, FunctionStatement):
            functions[str(name)] = self._function(lane, statement)
        else:
            values |= self._value(lane, statement)
        if str(name) in functions:
            self.needs[str(name)] = _needs(statement.body)
        self.writer.defined[str(name)] = identifier(str(name))

    def _incomplete(
        self, functions: dict[str, str], values: Values, lost: set[str]
    ) -> Iterator[str]:
        """Take out what needs a line that is left out, itself or by others; say so."""
        lines = {lane.name: lane.lane.text for lane in self.sheet}
        needs = {**self.needs, **{name: given for name, (_, given) in values.items()}}
        while found := {name: min(given & lost) for name, given in needs.items() if given & lost}:
            for name, other in sorted(found.items()):
                for kept in (needs, functions, values, self.writer.defined):
                    kept.pop(name, None)
                line = one_line(lines.get(name, name))
                yield f"# {line}\n#   left out: it needs {other}, which is left out"
            lost |= found.keys()

    def _ordered(self, values: Values) -> Iterable[str]:
        """Lines so that each stands behind what it needs, itself or by the functions it calls."""
        done: set[str] = set()

        def visit(name: str) -> Iterator[str]:
            if name in done:
                return
            done.add(name)
            text, needs = values.get(name, ("", self.needs.get(name, set())))
            for other in sorted(needs):
                yield from visit(other)
            if text:
                yield text

        for name in values:
            yield from visit(name)

    def _answers(self, lane: ResolvedLane) -> Values:
        """The unknowns of a block, as the numbers that were found."""
        answers = lane.answers
        if answers is None or lane.lane.id not in answers.blocks:
            return {}
        found: Values = {}
        for name in answers.blocks[lane.lane.id].read.unknowns:
            value = answers.value(name)
            if value is None:
                continue
            bare = value.value if isinstance(value, Measured) else value
            number = full_precision(number_of(bare))
            unit = ", in units of the SI" if isinstance(value, Measured) else ""
            found[name] = f"{identifier(name)} = {number}  # found by equations{unit}", set()
        return found

    def _value(self, lane: ResolvedLane, statement: ValueStatement) -> Values:
        name = str(statement.name or lane.name)
        comment = f"  # {one_line(lane.lane.text)}"
        both = coordinates(statement.body)
        if both is not None:
            return {
                f"{name}_{axis}": (
                    f"{identifier(f'{name}_{axis}')} = {self.writer.text(part)}{comment}",
                    _needs(part),
                )
                for axis, part in zip("xy", both, strict=True)
            }
        if lane.for_lines:
            try:
                value = lane.outcome.value
            except NoResult as reason:
                raise NotWritten(str(reason)) from None
            number = full_precision(number_of(value))
            return {name: (f"{identifier(name)} = {number}{comment}, worked out", set())}
        text = f"{identifier(name)} = {self.writer.text(statement.body)}{comment}"
        return {name: (text, _needs(statement.body))}

    def _function(self, lane: ResolvedLane, statement: FunctionStatement) -> str:
        letters = [identifier(letter) for letter in statement.parameters]
        name = identifier(str(lane.name))
        head = f"def {name}({', '.join(letters)}):\n    {quoted(typed(lane))}"
        first = letters[0]
        lines = [f"    {letter} = np.asarray({letter}, dtype=float)" for letter in letters]
        both = coordinates(statement.body)
        if statement.polar:
            both = from_polar(statement.body, Name(statement.parameters[0]))
        if both is not None:
            parts = ", ".join(f"{self.writer.text(part)} + 0 * {first}" for part in both)
            lines.append(f"    return {parts}")
            ends = (
                (identifier(f"{lane.name}_{axis}"), f"{name}({first})[{k}]")
                for k, axis in enumerate("xy")
            )
            lines += [f"\n\ndef {one}({first}):\n    return {end}" for one, end in ends]
            return "\n".join([head, *lines])
        zero = "".join(f" + 0 * {letter}" for letter in letters)
        lines.append('    with np.errstate(all="ignore"):')
        lines.append(f"        y = {self.writer.text(statement.body)}{zero}")
        within = self._within(statement)
        lines.append(f"    return np.where({within}, y, np.nan)" if within else "    return y")
        return "\n".join([head, *lines])

    def _within(self, statement: FunctionStatement) -> str:
        domain = statement.domain
        if domain is None:
            return ""
        letter, parts = identifier(domain.variable), []
        if domain.low is not None:
            sign = ">=" if domain.low_closed else ">"
            parts.append(f"({letter} {sign} {self.writer.text(domain.low)})")
        if domain.high is not None:
            sign = "<=" if domain.high_closed else "<"
            parts.append(f"({letter} {sign} {self.writer.text(domain.high)})")
        return " & ".join(parts)

    def _relation(self, lane: ResolvedLane, statement: RelationStatement) -> str:
        name = identifier(str(lane.name))
        head = f"def {name}(x, y):\n    {quoted(typed(lane))}"
        equation = statement.equation
        if equation is not None and len(statement.comparisons) == 1:
            (difference,) = differences(equation)
            body = f"    return {self.writer.text(difference)} + 0 * x + 0 * y"
        else:
            conditions = [statement.condition, *([statement.within] if statement.within else [])]
            body = f"    return {' & '.join(self._truth(one) for one in conditions)}"
        return f'{head}\n    with np.errstate(all="ignore"):\n    {body}'

    def _truth(self, condition: Condition) -> str:
        if isinstance(condition, Joined):
            sign = " & " if condition.word == "and" else " | "
            return f"({sign.join(self._truth(part) for part in condition.parts)})"
        if isinstance(condition, Comparison):
            return f"({self.writer.condition(condition)})"
        return self._truth(condition.condition)

    def _slopes(self, functions: dict[str, str]) -> dict[str, str]:
        """Derivatives that formulas call, by rule."""
        found: dict[str, str] = {}
        known = {lane.name: lane for lane in self.sheet if lane.ready}
        for name, order in list(self.writer.slopes):
            lane = known.get(name)
            if lane is None or not isinstance(lane.statement, FunctionStatement):
                continue
            letter = lane.statement.parameters[0]
            tree: Expression = lane.statement.body
            for _ in range(order):
                tree = derivative(tree, letter, lane.definitions)
            written_as = slope_name(name, order)
            argument = identifier(letter)
            found[written_as] = (
                f"def {written_as}({argument}):\n"
                f'    """The derivative of {name} of order {order}."""\n'
                f"    return {self.writer.text(tree)} + 0 * np.asarray({argument}, dtype=float)"
            )
        return found


def _needs(node: Expression) -> set[str]:
    return {one.name for one in names_in(node)}
