"""Which lines need which names: what they define, what they wait for, and circles of them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from axispath.core.arithmetic.program import Definition
from axispath.core.language.errors import LanguageError
from axispath.core.language.tree import (
    Call,
    Domain,
    Expression,
    ListOf,
    RelationStatement,
    Statement,
    ValueStatement,
)
from axispath.core.language.walking import coordinates, names_in
from axispath.core.sheet.document import Lane


def coordinates_of(name: str) -> tuple[str, str]:
    """What the coordinates of a point are called."""
    return f"{name}_x", f"{name}_y"


def definitions_of(
    lanes: tuple[Lane, ...], statements: dict[str, Statement]
) -> dict[str, Definition]:
    """What all lines define, by name."""
    return {
        name: definition
        for lane in lanes
        if (statement := statements.get(lane.id)) is not None
        for name, definition in defined_by(statement, str(statement.name or lane.name)).items()
    }


def defined_by(statement: Statement, name: str) -> dict[str, Definition]:
    """What a line defines, by name: a function, a value, or coordinates."""
    if isinstance(statement, RelationStatement):
        return {}
    both = coordinates(statement.body)
    if both is None:
        return {name: _definition(statement)}
    parameters = statement.parameters or None
    return {
        part: Definition(parameters, body, statement.domain)
        for part, body in zip(coordinates_of(name), both, strict=True)
    }


def ends_in(domain: Domain | None) -> list[Expression]:
    """The ends of a domain that are written."""
    return [end for end in (domain.low, domain.high) if end] if domain else []


MOST_ITEMS = 500  # values of a list that is part of a key


def closure_of(
    bodies: Iterable[Expression], definitions: Mapping[str, Definition]
) -> tuple[tuple[str, Definition], ...] | None:
    """All definitions that some formulas need, as a key; None where that would be too long."""
    needed: dict[str, Definition] = {}
    pending = list(bodies)
    while pending:
        for one in names_in(pending.pop()):
            definition = definitions.get(one.name)
            if definition is None or one.name in needed:
                continue
            if isinstance(definition.body, ListOf) and len(definition.body.items) > MOST_ITEMS:
                return None
            needed[one.name] = definition
            pending.append(definition.body)
            pending += ends_in(definition.domain)
    return tuple(sorted(needed.items(), key=lambda one: one[0]))


Use = tuple[str, int | None]  # a name, and with how many arguments; None for a value


def used_names(definition: Definition) -> list[Use]:
    """The names of the sheet that a definition needs."""
    parameters = definition.parameters or ()
    ends = ends_in(definition.domain)
    found: dict[Use, None] = {}
    for root in (definition.body, *ends):
        for node in names_in(root):
            if isinstance(node, Call):
                found[node.name, len(node.arguments)] = None
            elif root in ends or node.name not in parameters:
                found[node.name, None] = None
    return list(found)


def circles(
    lanes: tuple[Lane, ...],
    statements: dict[str, Statement],
    definitions: Mapping[str, Definition],
) -> dict[str, LanguageError]:
    """An error for every lane whose definition leads back to itself."""
    needs = {
        name: {used for used, _ in used_names(definition)}
        for name, definition in definitions.items()
    }
    errors = {}
    for lane in lanes:
        statement = statements.get(lane.id)
        if statement is None:
            continue
        names = defined_by(statement, str(statement.name or lane.name))
        name, circle = next(((n, c) for n in names if (c := _circle(n, needs))), ("", None))
        if circle:
            chain = " needs ".join([*circle, name])
            sentence = (
                f"{name} is defined by itself."
                if len(circle) == 1
                else f"These definitions go round in a circle: {chain}."
            )
            errors[lane.id] = LanguageError(sentence, 0, len(lane.text))
    return errors


def _circle(name: str, needs: dict[str, set[str]]) -> list[str] | None:
    """A shortest chain of names from ``name`` back to itself."""
    chains = [[name]]
    seen: set[str] = set()
    for chain in chains:
        for needed in sorted(needs.get(chain[-1], ())):
            if needed == name:
                return chain
            if needed not in seen:
                seen.add(needed)
                chains.append([*chain, needed])
    return None


def missing_names(
    statement: Statement, definitions: Mapping[str, Definition], broken: set[str]
) -> tuple[str, ...]:
    """Names without a fitting meaning that the statement needs, however indirectly."""
    found: dict[str, None] = {}
    seen: set[Use] = set()
    pending = used_names(_definition(statement))
    while pending:
        use = pending.pop(0)
        if use in seen:
            continue
        seen.add(use)
        name, count = use
        definition = definitions.get(name)
        if definition is None or name in broken or _arity(definition) != count:
            found[name] = None
        else:
            pending += used_names(definition)
    return tuple(found)


def _arity(definition: Definition) -> int | None:
    return None if definition.parameters is None else len(definition.parameters)


def _definition(statement: Statement) -> Definition:
    if isinstance(statement, ValueStatement):
        return Definition(None, statement.body)
    return Definition(statement.parameters, statement.body, statement.domain)
