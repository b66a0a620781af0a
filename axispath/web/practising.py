"""Practice: guesses, hints and answers, marked behind the wall and kept by the store."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flask import Blueprint, Response, render_template
from sqlalchemy.orm import Session

from axispath.capabilities import whole
from axispath.core.practice.hints import STEPS
from axispath.core.practice.kinds import ASKED
from axispath.core.practice.marked import Marked
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import with_view
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused
from axispath.store import handouts, replies, seats, sheets, sittings
from axispath.store.sheets import NotFound, Opened
from axispath.store.shows import Shows
from axispath.web import computing, present
from axispath.web.asked import Guessing, Hinting, Looking, Naming, Replying, answered, body
from axispath.web.person import current_person, person_for_change, remember_person, store
from axispath.web.practice_inside import (
    Guessed,
    answer_within,
    asks_within,
    check_within,
    coverable_within,
    guess_within,
    hint_within,
)
from axispath.web.source import LINK, is_stored, opened, remember
from axispath.work.kinds import LONG, QUICK

blueprint = Blueprint("practising", __name__, url_prefix="/api")
GUESS = ""  # the question that a guess at a covered landmark belongs to


def _shows(found: Opened) -> Shows | None:
    if found.handout is None:
        return None
    with store().transaction() as database:
        return handouts.shows_of(database, found.handout)


@blueprint.post("/sheets/<key>/practice")
def page(key: str) -> Response:
    """The page Practise: what is asked, what was answered, and for its owner how to ask."""
    wanted = Looking.model_validate(body())
    document = wanted.document(key)
    found = opened(key)
    shows = _shows(found)
    kept: list[replies.Kept] = []
    name = ""
    if is_stored(key):
        with store().transaction() as database:
            kept = replies.of_sheet(database, current_person() or "", key)
            if found.handout is not None:
                sitting = seats.of_person(database, current_person(), found.handout)
                name = sitting.name if sitting is not None else ""
    asking = _handed_out(found.handout, wanted) or document
    asks = computing.ask(QUICK, key, "", asks_within, asking, QUICK.budget)
    could = computing.ask(QUICK, key, "", coverable_within, document, QUICK.budget)
    told = render_template(
        "parts/practice.html",
        questions=[
            (question, asked, ASKED[question.kind], [k for k in kept if k.question == question.id])
            for question, asked in zip(asking.questions, asks, strict=True)
        ],
        owner=shows is None,
        shows=shows,
        name=name,
        cover=document.cover,
        guessing=document.cover.on and (shows is None or "landmarks" not in whole(shows.off)),
        could=could,
        hints=STEPS,
        guesses=[one for one in kept if one.question == GUESS][::-1],
        found=document.found,
    )
    return answered({"html": told, "covered": document.cover.on})


def _marked(
    key: str,
    looking: Looking,
    change: str,
    question: str,
    text: str,
    work: Callable[[Document], Marked],
) -> Response:
    """Mark something, and keep it. The sheet is stored first where it is not yet."""
    before = _repeated(key, change)
    if before is not None:
        return _told(key, before, None)
    document = looking.document(key)
    if is_stored(key):
        with store().transaction() as database:
            # Whoever may not answer learns nothing by it.
            replies.refuse(database, sheets.writable(database, current_person(), key))
    marking = work(document)
    with store().transaction() as database:
        person, sheet_id, new = _kept_sheet(database, key, document)
        kept = replies.keep(database, person, sheet_id, question, text, marking, change)
        state = sheets.open_sheet(database, person, sheet_id) if new or marking.found else None
    remember_person(person)
    return _told(sheet_id, kept, state)


def _repeated(key: str, change: str) -> replies.Kept | None:
    if not change or not is_stored(key):
        return None
    with store().transaction() as database:
        return replies.known(database, current_person() or "", key, change)


def _kept_sheet(database: Session, key: str, document: Document) -> tuple[str, str, bool]:
    """The person, the stored sheet, and whether it is stored only now."""
    if is_stored(key):
        person = current_person()
        if person is None:
            raise NotFound
        return person, key, False
    person = person_for_change(database)
    if key.startswith(LINK):
        token = key.removeprefix(LINK)
        mine = handouts.visit(database, person, token) or handouts.turned(
            database, person, token, ()
        )
        return person, mine.id, True
    return person, sheets.create(database, person, document).id, True


def _told(key: str, kept: replies.Kept, state: Opened | None) -> Response:
    told: dict[str, Any] = {"verdict": kept.verdict, "words": kept.words}
    if state is not None:
        remember(state)
        shown = computing.payload(state.document, state.id)
        told["state"] = {**present.state(state, shown), "told": ""}
    return answered(told)


@blueprint.post("/sheets/<key>/guess")
def guess(key: str) -> Response:
    """Say where a covered landmark is."""
    wanted = Guessing.model_validate(body())
    said = Guessed(wanted.x, wanted.y, wanted.typed, wanted.group, wanted.lane)
    text = wanted.typed.strip() or _place(wanted)

    def work(document: Document) -> Marked:
        found: Marked = computing.ask(QUICK, key, "", guess_within, document, said, QUICK.budget)
        return found

    return _marked(key, wanted, wanted.change, GUESS, text, work)


def _place(wanted: Guessing) -> str:
    if wanted.y is None:
        return f"x ≈ {wanted.x:.4g}"
    return f"({wanted.x:.4g}, {wanted.y:.4g})"


@blueprint.post("/sheets/<key>/hint")
def hint(key: str) -> Response:
    """One more step of help with what is covered."""
    wanted = Hinting.model_validate(body())
    given = (wanted.step, wanted.group, wanted.lane)

    def work(document: Document) -> Marked:
        found: Marked = computing.ask(QUICK, key, "", hint_within, document, *given, QUICK.budget)
        return found

    step = STEPS[wanted.step] if wanted.step < len(STEPS) else ""
    return _marked(key, wanted, wanted.change, GUESS, f"hint: {step}", work)


@blueprint.post("/sheets/<key>/answer")
def answer(key: str) -> Response:
    """Answer a question of the sheet; the answer is kept."""
    wanted = Replying.model_validate(body())
    text = wanted.text.strip() or "; ".join(wanted.rows)

    def work(document: Document) -> Marked:
        given = _handed_out(opened(key).handout, wanted)
        question = _question(given or document, wanted.question)
        if given is None:
            return _answered(key, document, None, question, wanted)
        return _answered(key, given, document, question, wanted)

    return _marked(key, wanted, wanted.change, wanted.question, text or "the sliders", work)


def _handed_out(token: str | None, looking: Looking) -> Document | None:
    """The sheet as whoever handed it out has it; None for a sheet of one's own.

    Questions are about this one: nobody makes them easier by changing their lanes.
    """
    if token is None:
        return None
    with store().transaction() as database:
        return with_view(handouts.given(database, token).document, looking.view)


@blueprint.post("/sheets/<key>/questions/try")
def try_question(key: str) -> Response:
    """A question that is being written, and an answer to it where there is one; nothing is kept."""
    wanted = Replying.model_validate(body())
    found = opened(key)
    if found.handout is not None or wanted.writing is None:
        raise EditRefused("Questions are written on a sheet of one’s own.")
    document = wanted.document(key)
    asked = computing.ask(QUICK, key, "", check_within, document, wanted.writing, QUICK.budget)
    told: dict[str, Any] = {"sentence": asked, "verdict": "", "words": []}
    if wanted.text.strip() or wanted.rows:
        marking = _answered(key, document, None, wanted.writing, wanted)
        told |= {"verdict": marking.verdict.value, "words": marking.words}
    return answered(told)


def _answered(
    key: str, document: Document, seen: Document | None, question: Question, wanted: Replying
) -> Marked:
    given = (document, seen, question, wanted.text, tuple(wanted.rows), LONG.budget)
    found: Marked = computing.ask(LONG, key, "", answer_within, *given)
    return found


def _question(document: Document, question_id: str) -> Question:
    found = next((one for one in document.questions if one.id == question_id), None)
    if found is None:
        raise EditRefused("This question is not on the sheet any more.")
    return found


@blueprint.post("/sheets/<key>/name")
def give_name(key: str) -> Response:
    """The name under which a visitor answers; the hand-out is kept for them from then on."""
    wanted = Naming.model_validate(body())
    token = opened(key).handout
    if token is None:
        raise EditRefused("Answers on a sheet of one’s own have no name.")
    with store().transaction() as database:
        if handouts.shows_of(database, token).seal is not None:
            raise EditRefused("This is entered on its own page.")
        person = person_for_change(database)
        _, found = sittings.enter(database, person, token, wanted.name)
    remember_person(person)
    remember(found)
    return answered(present.state(found, computing.payload(found.document, found.id)))
