"""Which letter runs along a curve: the one its range names, or a usual one that nothing defines."""

from __future__ import annotations

from axispath.core.language.formula import keyword_at
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token
from axispath.core.language.tree import Expression, Name
from axispath.core.language.walking import free_names

USUAL = ("t", "θ", "φ", "s", "u", "τ")
ANGLES = ("θ", "φ")
RADIUS = "r"
POINT = "-"  # decided: no letter runs, although one could
SIGNS = ("<", "<=", ">", ">=")


def letter_of_range(tokens: list[Token]) -> str | None:
    """The letter that the range after “for” is about."""
    at = keyword_at(tokens, "for")
    if at is None:
        return None
    rest = tokens[at + 1 :]
    if len(rest) > 1 and rest[0].kind == "name" and rest[1].text == "in":
        return rest[0].text
    signs = [k for k, token in enumerate(rest) if token.text in SIGNS]
    if not 1 <= len(signs) <= 2:
        return None
    middle = rest[signs[0] + 1 : signs[1]] if len(signs) == 2 else rest[: signs[0]]
    if len(signs) == 1 and not (len(middle) == 1 and middle[0].kind == "name"):
        middle = rest[signs[0] + 1 : -1]
    return middle[0].text if len(middle) == 1 and middle[0].kind == "name" else None


def unknown_letter(expression: Expression, scope: Scope, letters: tuple[str, ...]) -> str:
    """The first of these letters that an expression uses and nothing defines; empty if none."""
    used = {node.name for node in free_names(expression) if isinstance(node, Name)}
    return next((one for one in letters if one in used and one not in scope.values), "")


def is_radius(name: str | None) -> bool:
    """Whether a name stands for the distance from the pole: r, r_1, r_2 …"""
    return name is not None and (name == RADIUS or name.startswith(f"{RADIUS}_"))
