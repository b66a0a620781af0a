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
    if isinstance(node, Name) and _is_formula(node.name, definitions, frozenset()):
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
        return _is_formula(node.name, definitions, frozenset())
    return isinstance(node, Running) and node.function == "derivative"


def depends(node: Expression, variable: str) -> bool:
    """Whether a tree holds a variable: as a name, or as the letter of a formula in it."""
    if any(isinstance(one, Running) and _in_letter(one, variable) for one in walk(node)):
        return True
    return any(
        any(depends(part, variable) for part in one.arguments)
        if isinstance(one, Call)
        else one.name == variable
        for one in free_names(node)
    )


def _is_formula(name: str, definitions: Mapping[str, Definition], above: frozenset[str]) -> bool:
    """Whether a name stands for a formula in a letter, itself or by the names in it."""
    known = definitions.get(name)
    if known is None or known.parameters is not None or name in above:
        return False
    return any(
        _is_formula(one.name, definitions, above | {name})
        if isinstance(one, Name)
        else isinstance(one, Running) and _in_letter(one, one.index)
        for one in walk(known.body)
    )


def _in_letter(node: Running, letter: str) -> bool:
    """Whether it is a formula in a letter: a derivative at no place, a Taylor polynomial."""
    at_no_place = node.function == "derivative" and not node.ends
    return node.index == letter and (at_no_place or node.function == "taylor")
