"""Lines that relate x and y: an equation, or inequalities joined by “and” and “or”."""

from __future__ import annotations

from axispath.core.language.errors import LanguageError
from axispath.core.language.formula import end_at, keyword_at, refuse_pairs
from axispath.core.language.parser import Parser
from axispath.core.language.scope import Scope
from axispath.core.language.tokens import Token, outside_brackets, tokenise
from axispath.core.language.tree import Comparison, Condition, Joined, OfRelation, RelationStatement
from axispath.core.language.vocabulary import Vocabulary

BETWEEN = ("<", "<=", ">", ">=")
RISING = ("<", "<=")
PLANE = ("x", "y")
JOINING = ("and", "or")
MOST_WITHIN = 8  # relations within one another
MOST_NAMED = 40  # comparisons that they come to
NO_CHAIN = "A chain has two signs in one direction, such as 1 < x^2 + y^2 < 4."


def is_relation(tokens: list[Token], vocabulary: Vocabulary) -> bool:
    """Whether a line relates x and y, by its signs alone: names of the sheet do not matter."""
    signs = _signs(tokens)
    if _named_parts(tokens):
        return True
    comma = next((i for i, token in outside_brackets(tokens) if token.text in (",", ";")), None)
    if signs and comma is not None and comma < signs[0][0]:
        return False  # a condition behind a formula, as others write it
    for index, token in signs:
        if token.text in BETWEEN:
            return True
        if token.text == "=":
            return _relates(tokens, index, vocabulary)
    return False


def _named_parts(tokens: list[Token]) -> bool:
    """Whether “and” or “or” joins names, as in “R and S”."""
    words = [i for i, token in outside_brackets(tokens) if token.text in ("if", "for", *JOINING)]
    if not words or tokens[words[0]].text not in JOINING:
        return False
    alone = words[0] == 1 and tokens[0].kind == "name"
    last = words[-1]
    return alone or (len(tokens) == last + 3 and tokens[last + 1].kind == "name")


def _signs(tokens: list[Token]) -> list[tuple[int, Token]]:
    """The signs of comparison outside brackets, before any condition or domain."""
    found = []
    for index, token in outside_brackets(tokens):
        if token.kind == "keyword" and token.text in ("if", "for"):
            break
        if token.kind == "sign" and token.text in (*BETWEEN, "="):
            found.append((index, token))
    return found


def _relates(tokens: list[Token], equals: int, vocabulary: Vocabulary) -> bool:
    """Whether what stands left of the equals sign is no name that is defined."""
    left, right = tokens[:equals], tokens[equals + 1 :]
    shape = [token.text if token.kind == "sign" else token.kind for token in left]
    if not left or _another(right):
        return False
    if vocabulary.units and left[0].kind == "number":
        return True  # 850 kg = 850000 g, a question on a line of calculation
    if shape == ["name"]:
        return left[0].text == "x" or (left[0].text == "y" and _uses(right, "y"))
    if shape[:2] == ["name", "("] and shape[-1] == ")" and shape.count("(") == 1:
        # What looks like a definition is one, if need be one that is not understood.
        word, inside = left[0].text, shape[2:-1]
        names = inside == (["name", ","] * len(inside))[: len(inside)] and len(inside) % 2
        known = word in vocabulary.functions or (word in PLANE and not names)
        return known and _uses([*left, *right], "y")
    return any(_uses(tokens, name) for name in PLANE)


def _another(tokens: list[Token]) -> bool:
    """Whether there is another equals sign in the same comparison."""
    for _, token in outside_brackets(tokens):
        if token.kind == "keyword" and token.text in ("and", "or", "for"):
            return False
        if token.text in ("=", "=="):
            return True
    return False


def _uses(tokens: list[Token], name: str) -> bool:
    return any(token.kind == "name" and token.text == name for token in tokens)


def read_relation(text: str, tokens: list[Token], scope: Scope) -> RelationStatement:
    """An equation or inequalities in x and y. Raises LanguageError."""
    inner = scope.with_values(PLANE)
    domain_at = keyword_at(tokens, "for")
    head, rest = tokens, None
    if domain_at is not None:
        word = tokens[domain_at]
        head, rest = [*tokens[:domain_at], end_at(word)], tokens[domain_at + 1 :]
        if len(rest) == 1:
            message = "The domain is missing: write for example “for x >= 0 and y <= 2”."
            raise LanguageError(message, word.start, word.end)
    condition = _condition(text, head, inner)
    equations = [part for part in condition.comparisons if "=" in part.signs]
    if len(equations) > 1 or (equations and _under_or(condition)):
        message = "One lane holds one equation: give each its own lane."
        raise LanguageError(message, 0, len(text))
    within = None
    if rest is not None:
        within = _condition(text, rest, inner)
        if any("=" in part.signs for part in within.comparisons):
            message = "A domain is made of inequalities, such as “for x >= 0 and y <= 2”."
            raise LanguageError(message, rest[0].start, rest[-1].end)
    return RelationStatement(condition, within, head[-1].start)


def _under_or(condition: Condition) -> bool:
    return isinstance(condition, Joined) and condition.word == "or"


def _condition(text: str, tokens: list[Token], scope: Scope) -> Condition:
    """Comparisons joined by “or”, which holds looser, and “and”."""
    for word in ("or", "and"):
        parts = _split(tokens, word)
        if len(parts) > 1:
            return Joined(word, tuple(_condition(text, part, scope) for part in parts))
    return _comparison(text, tokens, scope)


def _split(tokens: list[Token], word: str) -> list[list[Token]]:
    at = keyword_at(tokens, word)
    if at is None:
        return [tokens]
    return [[*tokens[:at], end_at(tokens[at])], *_split(tokens[at + 1 :], word)]


def _of_relation(word: Token, scope: Scope) -> OfRelation:
    """The relation of the sheet that a name stands for."""
    place = word.start, word.end
    line = scope.regions.get(word.text)
    if line is None:
        known = ", ".join(scope.regions)
        which = f": those are {known}" if known else ""
        message = f"{word.text} is no relation or region of another lane{which}."
        raise LanguageError(message, *place)
    if scope.depth >= MOST_WITHIN:
        raise LanguageError(f"More than {MOST_WITHIN} relations stand within one another.", *place)
    try:
        found = read_relation(line, tokenise(line), scope.inside(word.text))
    except LanguageError as error:
        raise LanguageError(f"{word.text} is not understood: {error.message}", *place) from error
    whole = found.condition
    if found.within is not None:
        whole = Joined("and", (whole, found.within))
    if len(whole.comparisons) > MOST_NAMED:
        raise LanguageError(f"{word.text} has more than {MOST_NAMED} comparisons.", *place)
    return OfRelation(word.text, whole)


def _comparison(text: str, tokens: list[Token], scope: Scope) -> Comparison | OfRelation:
    place = tokens[0].start, tokens[-1].end
    if len(tokens) == 1:
        raise LanguageError("A comparison is missing here, such as y > 0.", *place)
    if len(tokens) == 2 and tokens[0].kind == "name":
        return _of_relation(tokens[0], scope)
    parser = Parser(text, tokens, scope)
    found = parser.comparison()
    parser.finish()
    for operand in found.operands:
        refuse_pairs(text, tokens, operand)
    signs = found.signs
    if "!=" in signs:
        raise LanguageError("≠ cannot be drawn: it leaves out no more than a line.", *place)
    if "=" in signs and len(signs) > 1:
        raise LanguageError("A line can have one equals sign only.", *place)
    one_way = len({sign in RISING for sign in signs}) == 1
    if len(signs) > 2 or not one_way:
        raise LanguageError(NO_CHAIN, *place)
    return found
