import threading

from axispath.core.path.edited import edited
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import AddLane, RemoveLane, Rename
from axispath.core.sheet.refused import EditRefused
from axispath.store import people, sheets
from axispath.store.database import Store, StoreGone
from axispath.store.sheets import Conflict, NotFound
from tests.store.shelved import Shelved


class Sheets(Shelved):
    def texts(self, found):
        return [lane.text for lane in found.document.lanes]

    def test_a_sheet_comes_back_as_it_was_left(self):
        found = self.change(self.start("x^2"), AddLane(text="g(x) = 2x"), Rename(name="Tides"))
        again = self.do(sheets.open_sheet, self.person, found.id)
        self.assertEqual(again, found)
        self.assertEqual(self.texts(again), ["x^2", "g(x) = 2x"])
        self.assertEqual(again.document.name, "Tides")

    def test_undo_and_redo_walk_the_history(self):
        found = self.change(self.start("x^2"), AddLane(text="x", id="b"))
        found = self.change(found, RemoveLane(id="b"))
        self.assertEqual(found.undo, "deleting g")
        back = self.do(sheets.undo, self.person, found.id, found.head)
        self.assertEqual(self.texts(back), ["x^2", "x"])
        self.assertEqual(back.redo, "deleting g")
        forward = self.do(sheets.redo, self.person, found.id, back.head)
        self.assertEqual(self.texts(forward), ["x^2"])
        self.assertIsNone(forward.redo)

    def test_redo_after_a_new_edit_follows_the_newest_branch(self):
        found = self.change(self.start("x^2"), AddLane(text="x"))
        found = self.do(sheets.undo, self.person, found.id, found.head)
        found = self.change(found, AddLane(text="x^3"))
        self.assertIsNone(found.redo)
        found = self.do(sheets.undo, self.person, found.id, found.head)
        found = self.do(sheets.redo, self.person, found.id, found.head)
        self.assertEqual(self.texts(found), ["x^2", "x^3"])

    def test_undo_stops_at_the_start_and_leaves_the_view_alone(self):
        found = self.start("x^2")
        view = View(left=-1, right=1, bottom=-1, top=1, chosen=True)
        self.do(sheets.set_view, self.person, found.id, view)
        for _ in range(3):
            found = self.do(sheets.undo, self.person, found.id, found.head)
        self.assertEqual(self.texts(found), [])
        self.assertIsNone(found.undo)
        self.assertEqual(found.document.view, view)

    def test_a_later_save_wins_only_over_what_it_has_seen(self):
        seen = self.start("x")
        self.change(seen, AddLane(text="x^2"))
        with self.assertRaises(Conflict):
            self.change(seen, AddLane(text="x^3"))
        before = sheets.copy_of(seen.document)
        steps = edited(before, [AddLane(text="x^3")], None)
        copy = self.do(sheets.create, self.person, before, steps)
        self.assertEqual(self.texts(copy), ["x", "x^3"])
        now = self.do(sheets.open_sheet, self.person, seen.id)
        self.assertEqual(self.texts(now), ["x", "x^2"])

    def test_of_two_saves_at_the_same_moment_one_is_told(self):
        seen = self.start("x")
        ends = []

        def save(text):
            try:
                ends.append(self.change(seen, AddLane(text=text)).head)
            except Conflict:
                ends.append("conflict")

        threads = [threading.Thread(target=save, args=(f"x^{n}",)) for n in range(2, 6)]
        [thread.start() for thread in threads]
        [thread.join() for thread in threads]
        self.assertEqual(ends.count("conflict"), 3)
        self.assertEqual(len(self.do(sheets.open_sheet, self.person, seen.id).document.lanes), 2)

    def test_of_several_edits_all_are_made_or_none(self):
        found = self.start("x")
        with self.assertRaises(EditRefused):
            self.change(found, AddLane(text="x^2"), AddLane(text="x +"))
        self.assertEqual(self.do(sheets.open_sheet, self.person, found.id), found)

    def test_the_shelf_of_one_person_is_closed_to_others(self):
        found = self.start("x")
        stranger = self.do(people.new_person)
        for work, *rest in (
            (sheets.open_sheet,),
            (sheets.change, 1, edited(found.document, [Rename(name="Mine")], None)),
            (sheets.undo, 1),
            (sheets.duplicate,),
            (sheets.set_deleted, True),
            (sheets.set_view, View()),
        ):
            with self.assertRaises(NotFound):
                self.do(work, stranger, found.id, *rest)
        with self.assertRaises(NotFound):
            self.do(sheets.open_sheet, None, found.id)
        self.assertEqual(self.do(sheets.shelf, stranger), [])

    def test_duplicate_delete_and_restore(self):
        found = self.start("x")
        copy = self.do(sheets.duplicate, self.person, found.id)
        self.assertEqual(copy.document.lanes, found.document.lanes)
        self.do(sheets.set_deleted, self.person, found.id, True)
        listed = {s.id: s.deleted for s in self.do(sheets.shelf, self.person)}
        self.assertEqual(listed, {found.id: True, copy.id: False})
        self.do(sheets.set_deleted, self.person, found.id, False)
        self.assertFalse(self.do(sheets.open_sheet, self.person, found.id).deleted)

    def test_demo_sheets_are_brought_up_to_date_in_place(self):
        self.do(sheets.store_demo, "slip", Document(name="Slip"))
        self.do(sheets.store_demo, "slip", Document(name="Slipway"))
        found = [s for s in self.do(sheets.demos) if s.id == "slip"]
        self.assertEqual([s.name for s in found], ["Slipway"])

    def test_a_database_that_is_gone_is_said_to_be_gone(self):
        nowhere = Store("postgresql+psycopg://nobody@127.0.0.1:9/none")
        with self.assertRaises(StoreGone), nowhere.transaction() as session:
            people.new_person(session)
