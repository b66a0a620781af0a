"""Units in a formula: behind numbers, below the line, and behind “in”."""

from __future__ import annotations

import difflib
from abc import ABC, abstractmethod

from axispath.core.language.calls import Calls
from axispath.core.language.errors import LanguageError
from axispath.core.language.tree import Expression, Product, Quotient, UnitOf

TEMPERATURES = ("C", "F")


class Units(Calls, ABC):
    """What is or may be a unit. The levels of precedence are those of the parser that has them."""

    @abstractmethod
    def raised(self, base: Expression) -> Expression:
        """A base with the exponents behind it."""

    def at_unit(self, behind_number: bool = False) -> bool:
        """Whether a unit stands here; names of the sheet come first, and constants behind signs."""
        word, scope = self.token.text, self.scope
        if self.token.kind != "name":
            return False
        if self._is_named(word) and not (behind_number and word in scope.units):
            return False
        constant = word in scope.vocabulary.yielding and not behind_number
        return not constant and scope.vocabulary.is_unit(word)

    def _is_named(self, word: str) -> bool:
        return word in self.scope.values or word in self.scope.functions

    def unit(self) -> Expression:
        """A unit with its exponent."""
        return self.raised(UnitOf(self.take().text))

    def at_units_in_brackets(self) -> bool:
        """Whether a bracket with nothing but units stands here, as in kJ/(kg K)."""
        if not self.sees("("):
            return False
        count, before = 0, ""
        for token in self.tokens[self.at + 1 :]:
            word, last, before = token.text, before, token.text
            if token.kind == "name":
                if self._is_named(word) or not self.scope.vocabulary.is_unit(word):
                    return False
                count += 1
            elif word == ")":
                return count > 0
            elif token.kind == "number" or word == "-":
                if last not in ("^", "-"):  # an exponent
                    return False
            elif token.kind != "superscript" and word not in ("*", "/", "^"):
                return False
        return False

    def units_in_brackets(self) -> Expression:
        """A product of units in brackets."""
        self.take()
        found = self.units()
        if not self.sees(")"):
            raise self.fail("The bracket around these units is not closed.")
        self.take()
        return found

    def units(self) -> Expression:
        """A product of units, as behind “in”."""
        found = self.one_unit()
        while self.sees("*", "/") or self.token.kind == "name":
            divided = self.sees("/")
            if self.sees("*", "/"):
                self.take()
            other = self.one_unit()
            found = Quotient(found, other) if divided else Product(found, other)
        return found

    def no_unit(self) -> LanguageError:
        """What is said where a unit should stand, with the nearest one."""
        word = self.token.text
        near = difflib.get_close_matches(word, self.scope.vocabulary.units, 1) if word else []
        meant = f": is {near[0]} meant?" if near else "."
        mend = None
        if near:
            mend = f"{self.text[: self.token.start]}{near[0]}{self.text[self.token.end :]}"
        return self.fail(f"“{word or 'in'}” is no unit that is known here{meant}", mend=mend)

    def one_unit(self) -> Expression:
        """One unit. Raises LanguageError for anything else."""
        if self.at_units_in_brackets():
            return self.units_in_brackets()
        if self.sees("°") and self.tokens[self.at + 1].text in TEMPERATURES:
            self.take()
            return UnitOf(f"°{self.take().text}")
        if self.token.kind != "name" or not self.scope.vocabulary.is_unit(self.token.text):
            raise self.no_unit()
        return self.unit()
