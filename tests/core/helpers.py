"""Short ways to read a line and to get at what the core makes of it."""

import itertools

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_statement
from axispath.core.search.find import find_path

RADIAN, DEGREE = AngleUnit.RADIAN, AngleUnit.DEGREE


def read(text, functions=None, values=()):
    scope = Scope(catalogue.VOCABULARY, functions or {}, frozenset(values))
    return parse_statement(text, scope)


def plan(text):
    return program(read(text).body)


def path(text, low, high, unit=RADIAN, **more):
    return find_path(plan(text), unit, End.at(low), End.at(high), **more)


class Clock:
    """A clock that goes on by a second whenever somebody looks at it."""

    def __init__(self):
        self.seconds = itertools.count()

    def __call__(self):
        return float(next(self.seconds))
