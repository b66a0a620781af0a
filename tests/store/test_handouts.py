"""Hand-outs: what a link shows, and that nothing else can be done with it."""

from datetime import UTC, datetime, timedelta

from sqlalchemy import func, select, update

from axispath.core.path.edited import edited
from axispath.core.sheet.document import Equation, Table
from axispath.core.sheet.edits import (
    EDITS,
    AddLane,
    KeepEquation,
    Rename,
    ReviseLane,
    SetTable,
    Slide,
)
from axispath.core.sheet.given import given_out
from axispath.core.sheet.refused import EditRefused
from axispath.store import access, handouts, people, sheets
from axispath.store.access import Ended
from axispath.store.models import Handout, Sheet
from axispath.store.shows import Shows
from axispath.store.tidying import VISITS, tidy
from tests.store.shelved import Shelved


class Handouts(Shelved):
    def setUp(self):
        super().setUp()
        self.sheet = self.start("f(x) = a x", "a = 2", "g(x) = x^2")
        self.visitor = self.do(people.new_person)

    def give(self, shows=Shows(), follows=True, until=None):  # noqa: B008  a value
        return self.do(handouts.give, self.person, self.sheet.id, shows, follows, until)

    def turn(self, token, *edits):
        document = self.do(handouts.given, token).document
        return self.do(handouts.turned, self.visitor, token, edited(document, edits, None))

    def texts(self, document):
        return [lane.text for lane in document.lanes if not lane.hidden]

    def test_one_follows_the_sheet_and_one_stays_as_it_was(self):
        follows, stays = self.give(), self.give(follows=False)
        self.change(self.sheet, AddLane(text="h(x) = x"))
        self.assertEqual(len(self.do(handouts.given, follows).document.lanes), 4)
        self.assertEqual(len(self.do(handouts.given, stays).document.lanes), 3)

    def test_tokens_cannot_be_guessed(self):
        tokens = {self.give() for _ in range(20)}
        self.assertEqual(len(tokens), 20)
        self.assertTrue(all(len(token) >= 24 for token in tokens))
        with self.assertRaises(sheets.NotFound):
            self.do(handouts.given, "x" * 24)

    def test_chosen_lanes_come_with_what_they_are_made_of(self):
        token = self.give(Shows(lanes=("lane0",)))
        document = self.do(handouts.given, token).document
        self.assertEqual([lane.id for lane in document.lanes], ["lane0", "lane1"])
        self.assertEqual(self.texts(document), ["f(x) = a x"])

    def test_what_is_left_out_is_not_there_at_all(self):
        for chosen, texts in (
            (("lane2",), {"g(x) = x^2"}),
            (("lane1",), {"a = 2"}),
            (("lane0", "lane2"), {"f(x) = a x", "a = 2", "g(x) = x^2"}),
            ((), set()),
        ):
            found = given_out(self.sheet.document, chosen)
            self.assertEqual({lane.text for lane in found.lanes}, texts)
        self.assertIs(given_out(self.sheet.document, None), self.sheet.document)

    def test_a_visitor_turns_and_tabulates_and_changes_nothing(self):
        token = self.give()
        mine = self.turn(token, Slide(id="lane1", value=3.5))
        table = SetTable(table=Table(start="0", stop="3"))
        for edit in (
            table,
            KeepEquation(equation=Equation(text="f(x) = 1")),
            Slide(id="lane1", value=4),
        ):
            steps = edited(mine.document, [edit], None)
            mine = self.do(sheets.change, self.visitor, mine.id, mine.head, steps)
        self.assertEqual(mine.document.lanes[1].text, "a = 4")
        before = self.do(sheets.open_sheet, self.person, self.sheet.id).document
        self.assertEqual(before, self.sheet.document)
        for edit in (AddLane(text="x"), ReviseLane(id="lane0", text="x"), Rename(name="Mine")):
            steps = edited(mine.document, [edit], None)
            with self.assertRaisesRegex(EditRefused, "take a copy"):
                self.do(sheets.change, self.visitor, mine.id, mine.head, steps)
            with self.assertRaisesRegex(EditRefused, "take a copy"):
                self.turn(token, edit)
        self.assertEqual(self.do(sheets.shelf, self.visitor), [])
        self.assertEqual(self.do(handouts.visit, self.visitor, token).id, mine.id)
        for act in (sheets.duplicate, sheets.destroy, handouts.listed):
            with self.assertRaises(sheets.NotFound):
                self.do(act, self.visitor, mine.id)
        with self.assertRaises(sheets.NotFound):
            self.do(handouts.give, self.visitor, mine.id, Shows(), True)

    def test_a_copy_is_as_it_was_turned_and_ones_own(self):
        token = self.give()
        self.assertEqual(self.do(handouts.copied, self.visitor, token).handout, None)
        self.turn(token, Slide(id="lane1", value=3.5))
        copy = self.do(handouts.copied, self.visitor, token)
        self.assertEqual(copy.document.lanes[1].text, "a = 3.5")
        steps = edited(copy.document, [AddLane(text="x")], None)
        self.do(sheets.change, self.visitor, copy.id, copy.head, steps)
        self.do(handouts.start_over, self.visitor, token)
        self.assertIsNone(self.do(handouts.visit, self.visitor, token))
        self.assertEqual(len(self.do(sheets.shelf, self.visitor)), 2)

    def test_one_that_ended_opens_nothing_not_even_what_was_turned(self):
        def past():
            late = func.now() - timedelta(minutes=1)
            return lambda s: s.execute(update(Handout).values(until=late))

        for end in (
            lambda token: self.do(handouts.revoke, self.person, self.sheet.id, token),
            lambda token: self.do(past()),
            lambda token: self.do(sheets.set_deleted, self.person, self.sheet.id, True),
        ):
            token = self.give(until=datetime.now(UTC) + timedelta(hours=1))
            mine = self.turn(token, Slide(id="lane1", value=3.5))
            end(token)
            for asked in (
                lambda token=token: self.do(handouts.given, token),
                lambda token=token: self.do(handouts.visit, self.visitor, token),
                lambda token=token: self.do(handouts.copied, self.visitor, token),
                lambda mine=mine: self.do(sheets.open_sheet, self.visitor, mine.id),
                lambda mine=mine: self.do(sheets.document_of, self.visitor, mine.id, 1),
                lambda token=token: self.do(handouts.start_over, self.visitor, token),
            ):
                with self.assertRaises(Ended):
                    asked()

    def test_only_its_owner_gives_and_takes_back(self):
        token = self.give()
        for act, more in ((handouts.revoke, (token,)), (handouts.listed, ())):
            with self.assertRaises(sheets.NotFound):
                self.do(act, self.visitor, self.sheet.id, *more)
        other = self.start("x")
        with self.assertRaises(sheets.NotFound):
            self.do(handouts.revoke, self.person, other.id, token)
        self.do(handouts.given, token)

    def test_limits(self):
        with self.assertRaisesRegex(EditRefused, "in the future"):
            self.give(until=datetime.now(UTC) - timedelta(hours=1))
        for _ in range(handouts.MOST):
            token = self.give()
        with self.assertRaisesRegex(EditRefused, "take some back"):
            self.give()
        self.do(handouts.revoke, self.person, self.sheet.id, token)
        self.give()
        ended = [one.ended for one in self.do(handouts.listed, self.person, self.sheet.id)]
        self.assertEqual(ended.count(True), 1)

    def test_what_visitors_turned_goes_after_a_while_and_with_its_sheet(self):
        token = self.give()
        self.turn(token, Slide(id="lane1", value=3.5))
        tidy(self.store)
        self.assertIsNotNone(self.do(handouts.visit, self.visitor, token))
        late = func.now() - VISITS - timedelta(days=1)
        self.do(
            lambda s: s.execute(
                update(Sheet).where(Sheet.handout.is_not(None)).values(changed=late)
            )
        )
        tidy(self.store)
        self.assertIsNone(self.do(handouts.visit, self.visitor, token))
        self.turn(token, Slide(id="lane1", value=3.5))
        self.do(sheets.set_deleted, self.person, self.sheet.id, True)
        self.do(sheets.destroy, self.person, self.sheet.id)
        left = self.do(lambda s: s.scalar(select(func.count()).select_from(Sheet)))
        self.assertEqual(left, 0)

    def test_what_counts_as_a_turn_is_an_edit_that_there_is(self):
        known = {
            one["properties"]["do"]["const"]
            for one in EDITS.json_schema()["$defs"].values()
            if "do" in one.get("properties", {})
        }
        self.assertLess(access.TURNED, known)
