"""A block of equations in a document, and what is said of its unknowns."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from axispath.core.sheet.names import SheetName
from axispath.core.sheet.value import Value

MAX_BLOCK = 8_000
MAX_UNKNOWNS = 80
Name = Annotated[SheetName, Field(max_length=60)]
Typed = Annotated[str, Field(max_length=200)]


class Unknown(Value):
    """What is said of an unknown, as typed: bounds, the start of a search, the unit of results."""

    name: Name
    low: Typed = ""
    high: Typed = ""
    start: Typed = ""
    unit: Annotated[str, Field(max_length=40)] = ""


class Run(Value):
    """A name that runs through a block as the variable of a table, from where to where."""

    name: Name = ""
    low: Typed = ""
    high: Typed = ""
    count: Annotated[str, Field(max_length=6)] = "11"


class Block(Value):
    """Equations, one on each line.

    ``letters`` are read as chosen: as a name, or as a unit or constant. ``chosen`` says, by the
    first of the unknowns that hang together, which of several solutions the sheet uses, from 0 on.
    """

    text: Annotated[str, Field(max_length=MAX_BLOCK)]
    unknowns: Annotated[tuple[Unknown, ...], Field(max_length=MAX_UNKNOWNS)] = ()
    letters: Annotated[
        tuple[tuple[Name, Literal["name", "unit"]], ...], Field(max_length=MAX_UNKNOWNS)
    ] = ()
    chosen: Annotated[
        tuple[tuple[Name, Annotated[int, Field(ge=0, lt=1000)]], ...],
        Field(max_length=MAX_UNKNOWNS),
    ] = ()
    run: Run = Run()

    @model_validator(mode="after")
    def _once(self) -> Block:
        names = [one.name for one in self.unknowns]
        if len(set(names)) < len(names):
            raise ValueError("something is said of an unknown twice")
        return self

    def said_of(self, name: str) -> Unknown:
        """What is said of an unknown."""
        return next((one for one in self.unknowns if one.name == name), Unknown(name=name))
