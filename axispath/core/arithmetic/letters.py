"""Formulas in a letter within a tree: derivatives at no place, Taylor polynomials, their names."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from axispath.core.arithmetic.program import Definition
from axispath.core.language.rebuild import rebuilt, substituted
from axispath.core.language.tree import Call, Expression, Name, Running
from axispath.core.language.walking import free_names, walk


def spelled_out(
    node: Expression,
    definitions: Mapping[str, Definition],
    slope: Callable[[Expression, str], Expression],
) -> Expression:
    """The tree without derivatives in it, and without names of what is a formula in a letter."""
    if isinstance(node, Name) and _is_formula(node.name, definitions):
        return spelled_out(definitions[node.name].body, definitions, slope)
    if isinstance(node, Running) and node.function == "derivative":
        found = slope(spelled_out(node.body, definitions, slope), node.index)
        return substituted(found, {node.index: node.ends[0]}) if node.ends else found
    # Parts that stay as they are stay the same objects: they are told apart by that.
    if not any(_is_meant(one, definitions) for one in walk(node)):
        return node
    return rebuilt(node, lambda part: spelled_out(part, definitions, slope))


def _is_meant(node: Expression, definitions: Mapping[str, Definition]) -> bool:
    if isinstance(node, Name):
        return _is_formula(node.name, definitions)
    return isinstance(node, Running) and node.function == "derivative"


def depends(node: Expression, variable: str) -> bool:
    """Whether a tree holds a variable: as a name, or as the letter of a formula in it."""
    if any(isinstance(one, Running) and _in_letter(one, variable) for one in walk(node)):
        return True
    return any(
        _mentions(one, variable) if isinstance(one, Call) else one.name == variable
        for one in free_names(node)
    )


def _mentions(call: Call, variable: str) -> bool:
    """Whether an argument holds a variable, also where a sum around the call hides it."""
    return any(
        isinstance(one, Name) and one.name == variable
        for part in call.arguments
        for one in free_names(part)
    )


def _is_formula(name: str, definitions: Mapping[str, Definition]) -> bool:
    """Whether a name stands for a formula in a letter, itself or by the names in it."""
    pending, seen = [name], {name}
    while pending:
        known = definitions.get(pending.pop())
        if known is None or known.parameters is not None:
            continue
        for one in walk(known.body):
            if isinstance(one, Running) and _in_letter(one, one.index):
                return True
            if isinstance(one, Name) and one.name not in seen:
                seen.add(one.name)
                pending.append(one.name)
    return False


def _in_letter(node: Running, letter: str) -> bool:
    """Whether it is a formula in a letter: a derivative at no place, a Taylor polynomial."""
    at_no_place = node.function == "derivative" and not node.ends
    return node.index == letter and (at_no_place or node.function == "taylor")
