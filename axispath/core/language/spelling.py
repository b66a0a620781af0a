"""Names that were meant by a slip of the fingers."""

from __future__ import annotations

from difflib import get_close_matches

from axispath.core.language.scope import Scope
from axispath.core.language.vocabulary import Vocabulary

CLOSE = 0.6  # how much of a word has to agree with a unit that may be meant


def nearest(name: str, scope: Scope) -> str | None:
    """A known name that differs by one slip of the fingers; short names resemble little."""
    known = [*scope.functions, *scope.values, *scope.vocabulary.functions]
    return next((word for word in known if len(name) >= 3 and _one_slip(name, word)), None)


def nearest_unit(word: str, vocabulary: Vocabulary) -> str:
    """The unit that a word may be meant for; empty where there is none like it."""
    if len(word) < 2:
        return ""
    if vocabulary.is_unit(word[:-1]):
        return word[:-1]
    return next(iter(get_close_matches(word, vocabulary.units, 1, CLOSE)), "")


def _one_slip(name: str, word: str) -> bool:
    """Whether a letter is missing or too many, two are swapped, or one of four or more differs."""
    if name[-1].isdigit() or abs(len(name) - len(word)) > 1 or len(word) < 3:
        return False
    head = 0
    while head < min(len(name), len(word)) and name[head] == word[head]:
        head += 1
    rest, other = name[head:], word[head:]
    if len(name) != len(word):
        longer, shorter = max(rest, other, key=len), min(rest, other, key=len)
        return longer[1:] == shorter and len(name) + len(word) > 6
    swapped = rest[:2] == other[:2][::-1] and rest[2:] == other[2:]
    return swapped or (len(name) > 3 and rest[1:] == other[1:])
