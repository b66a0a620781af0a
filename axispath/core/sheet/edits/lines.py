"""Edits of lines: a lane more, another line for a lane, a lane less, a lane once more."""

from __future__ import annotations

import re
import secrets
from collections.abc import Container
from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.fits.models import OWN
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.scope import Scope
from axispath.core.language.several import LONGEST, several
from axispath.core.language.statement import Read, naming, read_line
from axispath.core.language.tokens import MAX_LENGTH
from axispath.core.quantities.values import NoResult
from axispath.core.sheet.calculating import Uncomputed
from axispath.core.sheet.document import MAX_LANES, Document, Lane, LaneId
from axispath.core.sheet.edits.change import Change, LaneChange, refused
from axispath.core.sheet.edits.colours import free_colour
from axispath.core.sheet.edits.data import NameData
from axispath.core.sheet.edits.equations import with_block
from axispath.core.sheet.edits.fits import searched
from axispath.core.sheet.edits.formed import formed
from axispath.core.sheet.edits.names import free_like, free_name, renamed_elsewhere
from axispath.core.sheet.edits.ranged import with_range
from axispath.core.sheet.edits.reading import (
    another,
    choices,
    definitions,
    may_be_calculated,
    refuse_listed,
    refuse_sentences,
    runs,
    tried,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import defined_by_lanes, scope_of, vocabulary_of

MOST_AT_ONCE = 50  # lines of one paste: each is read in the company of those before
DEFINED = re.compile(r"\w+\s*(?:\(\s*\w+\s*\))?\s*=(?!=)|[A-Z]\w*\s*\([^()=]+[,;|][^()=]+\)\s*$")
EQUATION = re.compile(r"[^=<>≤≥]+=[^=<>≤≥]+$")


class AddLane(Change):
    """A new lane at the end; ``keep`` even a line that is not understood."""

    do: Literal["add lane"] = "add lane"
    text: str
    id: LaneId | None = None
    keep: bool = False

    def applied(self, document: Document) -> Document:
        if not self.keep:
            refuse_listed(document, self.text)
            for asked_for in (with_range, formed):
                after = asked_for(document, self.text, lambda text: added(document, text, self.id))
                if after is not None:
                    return after
        try:
            lane = added(document, self.text, self.id, self.keep)
        except EditRefused as error:
            if self.keep:
                raise
            other = None if error.mend else self._several(document)
            other = other or self._calculated(document, error)
            if other is None:
                raise
            return other
        missing = resolve(lane).lanes[-1].missing
        if missing and may_be_calculated(self.text, missing):
            lane = self._calculated(document, EditRefused("")) or lane
        return _with_equal_scale(document, lane)

    def _several(self, document: Document) -> Document | None:
        """As many lanes as the line has definitions; a block where it has several equations."""
        parts = definitions(document, self.text)
        if not 2 <= len(parts) <= MOST_AT_ONCE:
            return None
        if not all(DEFINED.match(part) for part in parts):
            return with_block(document, parts) if all(EQUATION.match(p) for p in parts) else None
        after = document
        for part in parts:
            try:
                after = AddLane(text=part).applied(after)
            except EditRefused as refused:
                if refused.mend is None:
                    return None
                try:
                    after = AddLane(text=refused.mend).applied(after)
                except EditRefused:
                    return None
        new = resolve(after).lanes[len(document.lanes) :]
        return None if any(lane.missing for lane in new) else after

    def _calculated(self, document: Document, error: EditRefused) -> Document | None:
        """The same as a line of calculation, where it is understood and has a result."""
        try:
            after = added(document, self.text, self.id, working=True)
        except EditRefused as refused:
            if error.mend is None:
                error.mend, error.mends = refused.mend, refused.mends
            return None
        lane = resolve(after).lanes[-1]
        if lane.missing or lane.error or lane.parameters:
            return None
        try:
            return None if lane.outcome.value is None else after
        except (NoResult, OutOfTime):
            # An integral or a limit is a calculation, even where there is none.
            body = lane.written.body if lane.written else None
            return after if body is not None and runs(body) else None

    def words(self, document: Document) -> str:
        return "adding a lane"


class AddLines(Change):
    """A lane for each formula of a pasted text; lines that are not understood are kept as text."""

    do: Literal["add lines"] = "add lines"
    text: Annotated[str, Field(max_length=LONGEST)]

    def applied(self, document: Document) -> Document:
        lines = several(self.text)
        if not lines:
            raise EditRefused("There is no formula in what was pasted.")
        whole = len(document.lanes) + len(lines)
        if whole > MAX_LANES:
            raise EditRefused(
                f"These are {len(lines)} lines: the sheet would have {whole} lanes, and "
                f"{MAX_LANES} is the most."
            )
        if len(lines) > MOST_AT_ONCE:
            raise EditRefused(
                f"These are {len(lines)} lines; {MOST_AT_ONCE} can be pasted at once."
            )
        for line in lines:
            document = AddLane(text=line, keep=True).applied(document)
        return document

    def words(self, document: Document) -> str:
        count = len(several(self.text))
        return "adding a lane" if count == 1 else f"adding {count} lanes"


class ReviseLane(LaneChange):
    """Another line for a lane; ``keep`` even one that is not understood."""

    do: Literal["revise lane"] = "revise lane"
    text: str
    keep: bool = False

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        if lane.data is not None:
            return NameData(id=lane.id, name=self.text[:80]).applied(document)
        if lane.block is not None:
            raise EditRefused("The equations of a block are edited where they stand.")
        if lane.fit is None:
            return _kept(document, lane, self.text, self.keep)
        # Another formula has parameters of its own.
        own = lane.model_copy(
            update={"fit": lane.fit.model_copy(update={"model": OWN, "starts": (), "held": ()})}
        )
        changed = _kept(document.with_lane(own), own, self.text, False)
        return searched(changed, self.lane(changed))

    def words(self, document: Document) -> str:
        return f"changing {self.called(document)}"


class RemoveLane(LaneChange):
    """A lane less."""

    do: Literal["remove lane"] = "remove lane"

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        rest = tuple(other for other in document.lanes if other != lane)
        return document.model_copy(update={"lanes": rest})

    def words(self, document: Document) -> str:
        return f"deleting {self.called(document)}"


class DuplicateLane(LaneChange):
    """A lane once more below itself, under the next free name."""

    do: Literal["duplicate lane"] = "duplicate lane"

    def applied(self, document: Document) -> Document:
        _refuse_full(document)
        lane = self.lane(document)
        if lane.data is not None:
            raise EditRefused("A second data set would have columns of the same names.")
        if lane.block is not None:
            raise EditRefused("A second block would say the same of the same unknowns.")
        resolved = resolve(document).lane(lane.id)
        text, name = lane.text, lane.name
        statement = resolved.statement if resolved else None
        if statement is not None and statement.name:
            free = free_like(document, lane, statement.name)
            left, equals, right = lane.text.partition("=")
            text = left.replace(statement.name, free, 1) + equals + right
        elif name:
            named = naming(statement, lane.value)
            name = free_name(document, lane.model_copy(update={"id": "new"}), named)
        copy = lane.model_copy(
            update={
                "id": secrets.token_hex(4),
                "text": text,
                "name": name,
                "colour": free_colour(document),
            }
        )
        at = document.lanes.index(lane) + 1
        lanes = (*document.lanes[:at], copy, *document.lanes[at:])
        return document.model_copy(update={"lanes": lanes})

    def words(self, document: Document) -> str:
        return f"duplicating {self.called(document)}"


def added(
    document: Document, text: str, lane_id: str | None, keep: bool = False, working: bool = False
) -> Document:
    """The document with one more line at its end. Raises EditRefused."""
    _refuse_full(document)
    lane_id = lane_id if lane_id and document.lane(lane_id) is None else secrets.token_hex(4)
    lane = Lane(id=lane_id, text="", colour=free_colour(document), working=working)
    extended = document.model_copy(update={"lanes": (*document.lanes, lane)})
    return _kept(extended, lane, text, keep)


def _with_equal_scale(before: Document, after: Document) -> Document:
    """The first curve of a sheet brings equal scale along: a circle is round.

    A polar one brings its grid too, where there is nothing else that the grid of x and y is for.
    """
    was, now = resolve(before), resolve(after)
    if any(lane.kind.figure for lane in was) or not any(lane.kind.figure for lane in now):
        return after
    if now.lanes[-1].kind.alone and any(lane.kind.coloured for lane in was):
        return after
    changes: dict[str, object] = {"equal": True}
    if now.lanes[-1].kind.grid and not any(lane.kind.coloured for lane in was):
        changes["grid"] = now.lanes[-1].kind.grid
    return after.model_copy(update={"ground": after.ground.model_copy(update=changes)})


def _refuse_full(document: Document) -> None:
    if len(document.lanes) >= MAX_LANES:
        raise EditRefused(f"A sheet can hold {MAX_LANES} lanes, and this one is full.")


def _kept(document: Document, lane: Lane, text: str, keep: bool) -> Document:
    """``lane`` with another line; a line that is not understood is refused, or kept as it is."""
    try:
        after = revised(document, lane, _read_as(text))
    except EditRefused as error:
        if not keep or not text.strip() or len(text) > MAX_LENGTH:
            _mended(document, lane, text, error)
            raise
        return document.with_lane(lane.model_copy(update={"text": text.strip()}))
    found = resolve(after).lane(lane.id)
    if keep or found is None or not found.missing:
        return after
    # Words that are no names here: Sin(x), zeros of x^2 - 4.
    other = another(document, lane, text, _revised_as)
    if other is not None:
        return _revised_as(document, lane, other)
    refuse_sentences(found.missing)
    return after


def _mended(document: Document, lane: Lane, text: str, error: EditRefused) -> None:
    """Say how a line that is refused is written here: all ways that it may be meant."""
    meant = choices(document, lane, text, _revised_as)
    if meant:
        error.mend, error.mends = meant[0], meant
        if len(meant) > 1:
            error.message = "This can be read in two ways: choose which is meant."
        return
    understood = error.mend and tried(document, lane, error.mend, _revised_as)[0]
    if not understood or re.search(r"\b(?:of|at|degrees)\b", str(error.mend)):
        error.mend = another(document, lane, text, _revised_as) or (
            error.mend if understood else None
        )


def _revised_as(document: Document, lane: Lane, text: str) -> Document:
    return revised(document, lane, _read_as(text))


def _read_as(text: str) -> str:
    try:
        return written(text)
    except LanguageError as error:
        raise refused(error) from error


def revised(document: Document, lane: Lane, text: str) -> Document:
    """``lane`` with another line, checked in the company of the other lanes.

    Raises EditRefused where it is not understood, or would take another lane's meaning away.
    """
    text = text.strip()
    if not lane.working:
        # On the plot nobody means a name by x times y.
        text = re.sub(r"^(?:xy|yx)\s*(?=[=<>≤≥])", "x y ", text)
    read = _read(document, lane, text)
    name = None
    if not read.statement.name:
        was = resolve(document).lane(lane.id)
        alike = was is not None and naming(was.statement, lane.value) == read.named
        name = lane.name if alike else None
        name = name or free_name(document, lane, read.named)
    update = {"text": text, "name": name, "value": read.value, "runs": read.runs}
    changed = document.with_lane(lane.model_copy(update=update))
    changed = renamed_elsewhere(document, changed, lane, read.statement.name or name)
    resolved = resolve(changed).lane(lane.id)
    assert resolved is not None
    if resolved.error:
        raise refused(resolved.error)
    _refuse_lost_argument(document, changed)
    return coloured(document, changed, lane)


def coloured(before: Document, after: Document, lane: Lane) -> Document:
    """A lane that becomes a curve takes a colour that the other curves leave free."""
    was, now = resolve(before).lane(lane.id), resolve(after).lane(lane.id)
    if was is None or now is None or was.kind.coloured or not now.kind.coloured:
        return after
    return after.with_lane(now.lane.model_copy(update={"colour": free_colour(before)}))


def who_waits(before: Document, after: Document) -> dict[str, tuple[str, ...]]:
    """Per lane that lost a name it needs by an edit, the names it waits for now."""
    was = {lane.lane.id: set(lane.missing) for lane in resolve(before)}
    return {
        lane.name or lane.lane.text: lane.missing
        for lane in resolve(after)
        if lane.lane.id in was and set(lane.missing) - was[lane.lane.id]
    }


def _read(document: Document, lane: Lane, text: str) -> Read:
    scope = scope_of(document.lanes, without=lane.id)
    scope = replace(scope, vocabulary=vocabulary_of(lane.working, document.axes.measured))
    try:
        read = read_line(text, scope)
    except LanguageError as error:
        raise refused(error) from error
    name = read.statement.name
    # What equations find may be given a value instead.
    lanes = defined_by_lanes(document.lanes, without=lane.id)
    if name and any(name in known for known in _taken(lanes)):
        end = len(text.partition("=")[0].rstrip())
        free = free_like(document, lane, name)
        mend = re.sub(rf"^\s*{re.escape(name)}(?!\w)", free, text)
        raise EditRefused(f"{name} is defined in another lane already.", 0, end, mend)
    return read


def _taken(scope: Scope) -> tuple[Container[str], ...]:
    return scope.functions, scope.values, scope.points, scope.curves


def _refuse_lost_argument(before: Document, after: Document) -> None:
    """Refuse an edit that would make another lane, understood so far, an error."""
    was = {lane.lane.id for lane in resolve(before) if lane.error is None and lane.statement}
    for lane in resolve(after):
        if lane.error and lane.lane.id in was and not isinstance(lane.error, Uncomputed):
            raise EditRefused(f"{lane.name or 'Another lane'} would stop working: {lane.error}")
