"""Nothing grows without end: histories are small, thinned and bounded; what is given up goes."""

from datetime import timedelta

from alembic import command
from alembic.config import Config
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import func, select, text, update

from axispath.command.place import ROOT
from axispath.core.path.edited import edited
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, Rename, ReviseLane, Slide
from axispath.core.sheet.refused import EditRefused
from axispath.store import people, sheets
from axispath.store.history import NotFound, document_at
from axispath.store.models import Person, Receipt, Revision, Sheet
from axispath.store.packing import packed, unpacked
from axispath.store.tidying import tidy
from tests.case import Case
from tests.database import address, empty_store
from tests.store.shelved import Shelved

LONG = "f(x) = " + " + ".join(f"{k} sin({k}x + {k * k})" for k in range(1, 80))


class Packing(Case):
    @given(st.binary(max_size=3000), st.binary(max_size=3000))
    def test_what_is_packed_comes_back(self, one, other):
        self.assertEqual(unpacked(packed(one)), one)
        self.assertEqual(unpacked(packed(one, other), other), one)


class Growth(Shelved):
    def older(self, sheet, days, below=None):
        """Make the revisions of a sheet older."""
        with self.store.transaction() as session:
            old = update(Revision).where(Revision.sheet_id == sheet.id)
            if below is not None:
                old = old.where(Revision.number < below)
            session.execute(old.values(created=Revision.created - timedelta(days=days)))

    def count(self, what=Revision):
        with self.store.transaction() as session:
            return session.scalar(select(func.count()).select_from(what))

    def test_a_revision_takes_what_it_changes(self):
        found = self.start(LONG, "a = 1")
        with self.store.transaction() as session:
            before = session.get_one(Sheet, found.id).weight
        for k in range(100):
            found = self.change(found, ReviseLane(id="lane1", text=f"a = {k}"))
        with self.store.transaction() as session:
            sheet = session.get_one(Sheet, found.id)
            self.assertLess(sheet.weight - before, 100 * 150)
            held = session.scalar(select(func.sum(func.octet_length(Revision.body))))
            self.assertEqual(sheet.weight, held)
            for number in range(4, sheet.head + 1):
                text_of_a = document_at(session, sheet, number).lanes[1].text
                self.assertEqual(text_of_a, f"a = {number - 4 if number > 4 else 0}")

    def test_moves_of_a_slider_are_one_step(self):
        found = self.start("a = 1", "b = 1")
        start = found.head
        for value in (2, 3, 4):
            found = self.change(found, Slide(id="lane0", value=value))
        found = self.change(found, Slide(id="lane1", value=5))
        back = self.do(sheets.undo, self.person, found.id, found.head)
        self.assertEqual([lane.text for lane in back.document.lanes], ["a = 4", "b = 1"])
        back = self.do(sheets.undo, self.person, found.id, back.head)
        self.assertEqual((back.head, back.document.lanes[0].text), (start, "a = 1"))
        again = self.do(sheets.redo, self.person, found.id, back.head)
        self.assertEqual(again.document.lanes[0].text, "a = 4")
        # What was overtaken can still be read for a while, and goes after an hour.
        overtaken = self.do(sheets.document_of, self.person, found.id, start + 1)
        self.assertEqual(overtaken.lanes[0].text, "a = 2")
        self.older(found, 1)
        self.assertEqual(tidy(self.store).revisions, 2)
        with self.assertRaises(NotFound):
            self.do(sheets.document_of, self.person, found.id, start + 1)
        self.assertEqual(self.do(sheets.open_sheet, self.person, found.id).document, again.document)

    def test_old_histories_are_thinned_and_stay_whole(self):
        found = self.start(LONG)
        for k in range(60):
            found = self.change(found, Rename(name=f"Tides {k}"))
        recent = found.head - 5
        self.older(found, 40, below=recent)
        before = self.do(sheets.open_sheet, self.person, found.id)
        self.assertGreater(tidy(self.store).revisions, 50)
        after = self.do(sheets.open_sheet, self.person, found.id)
        self.assertEqual(after, before)
        # Undo still leads to the very start, over what is left.
        names = []
        while after.undo:
            after = self.do(sheets.undo, self.person, found.id, after.head)
            names.append(after.document.name)
        self.assertEqual(names[:4], ["Tides 58", "Tides 57", "Tides 56", "Tides 55"])
        self.assertEqual(after.document.lanes, ())
        self.assertEqual(tidy(self.store).revisions, 0)
        with self.store.transaction() as session:
            held = session.scalar(select(func.sum(func.octet_length(Revision.body))))
            self.assertEqual(session.get_one(Sheet, found.id).weight, held)

    def test_what_was_given_up_goes(self):
        kept, gone = self.start("x"), self.start("x^2")
        for sheet in (kept, gone):
            self.do(sheets.set_deleted, self.person, sheet.id, True)
        with self.store.transaction() as session:
            away = people.new_person(session)
            sheets.create(session, away, Document())
            for change, table, row, days in (
                ({"deleted": func.now() - timedelta(days=31)}, Sheet, gone.id, 31),
                ({"seen": func.now() - timedelta(days=91)}, Person, away, 91),
            ):
                self.assertGreater(days, 0)
                session.execute(update(table).where(table.id == row).values(change))
            session.add(Receipt(change="a" * 32, created=func.now() - timedelta(days=8)))
            session.add(Receipt(change="b" * 32))
        done = tidy(self.store)
        self.assertEqual((done.people, done.sheets, done.receipts), (1, 1, 1))
        left = self.do(sheets.shelf, self.person)
        self.assertEqual([listed.id for listed in left], [kept.id])
        self.assertEqual((self.count(Person), self.count(Receipt)), (1, 1))

    def test_whoever_comes_back_stays(self):
        with self.store.transaction() as session:
            old = update(Person).values(seen=func.now() - timedelta(days=100))
            session.execute(old)
        self.do(people.was_here, self.person)
        self.assertEqual(tidy(self.store).people, 0)

    def test_delete_for_good(self):
        found = self.start("x")
        with self.assertRaises(EditRefused):
            self.do(sheets.destroy, self.person, found.id)
        self.do(sheets.set_deleted, self.person, found.id, True)
        with self.assertRaises(NotFound):
            self.do(sheets.destroy, self.do(people.new_person), found.id)
        self.do(sheets.destroy, self.person, found.id)
        self.assertEqual((self.count(Sheet), self.count()), (0, 0))

    def test_a_shelf_has_an_end(self):
        found = self.start("x")
        with self.store.transaction() as session:
            session.execute(update(Sheet).values(weight=sheets.MAX_WEIGHT))
        for work in (
            lambda: self.change(found, Rename(name="Tides")),
            lambda: self.do(sheets.duplicate, self.person, found.id),
        ):
            with self.assertRaises(EditRefused) as told:
                work()
            self.assertIn("20 MB", told.exception.message)
        self.do(sheets.set_deleted, self.person, found.id, True)
        self.do(sheets.destroy, self.person, found.id)
        self.start("x")

    def test_only_one_tidies_at_a_time(self):
        with self.store.transaction() as session:
            from axispath.store.tidying import LOCK

            session.execute(select(func.pg_advisory_xact_lock(LOCK)))
            self.assertIsNone(tidy(self.store))
        self.assertIsNotNone(tidy(self.store))


class Migrated(Case):
    def test_a_history_of_whole_documents_is_packed_and_stays_whole(self):
        store = empty_store()
        self.addCleanup(store.engine.dispose)
        config = Config()
        config.set_main_option("script_location", str(ROOT / "migrations"))
        config.set_main_option("sqlalchemy.url", address().replace("%", "%%"))
        with store.transaction() as session:
            session.execute(text("drop schema public cascade"))
            session.execute(text("create schema public"))
        command.upgrade(config, "0002")
        first = edited(Document(), [AddLane(text=LONG, id="a")], None)[0].document
        documents = [first.model_copy(update={"name": f"Tides {k}"}) for k in range(30)]
        with store.transaction() as session:
            session.execute(text("insert into person (id) values ('p')"))
            session.execute(
                text(
                    "insert into sheet (id, person_id, name, head, view)"
                    " values ('s', 'p', 'Tides', 30, :view)"
                ),
                {"view": first.view.model_dump_json()},
            )
            for k, document in enumerate(documents, 1):
                session.execute(
                    text(
                        "insert into revision (sheet_id, number, parent, label, document)"
                        " values ('s', :k, :before, 'renaming', :d)"
                    ),
                    {"k": k, "before": k - 1 or None, "d": document.model_dump_json()},
                )
        command.upgrade(config, "head")
        with store.transaction() as session:
            sheet = session.get_one(Sheet, "s")
            found = [document_at(session, sheet, k) for k in range(1, 31)]
            self.assertEqual(found, documents)
            self.assertLess(sheet.weight, 30 * 400)
        opened = self.opened(store)
        self.assertEqual((opened.document.name, opened.undo), ("Tides 29", "renaming"))

    def opened(self, store):
        with store.transaction() as session:
            return sheets.open_sheet(session, "p", "s")
