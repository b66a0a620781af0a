"""The shelf: found by words and labels, many at once, and the past of a sheet."""

from datetime import timedelta

from hypothesis import given, settings
from hypothesis import strategies as some
from sqlalchemy import func, select, update

from axispath.core.sheet.compared import compared
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, Rename, SetGround, SetNote
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.summed import LINE, summary
from axispath.store import past, people, sheets, shelf
from axispath.store.models import Revision, Sheet
from axispath.store.sheets import Conflict, NotFound
from axispath.store.tidying import tidy
from tests.store.shelved import Shelved


class OnShelves(Shelved):
    def found(self, **asked):
        return [one.name for one in self.do(lambda s: shelf.shelf(s, self.person, **asked)).found]

    def named(self, name, *lines, note=""):
        sheet = self.start(*lines)
        edits = [Rename(name=name)]
        if note:
            edits.append(SetNote(id="lane0", note=note))
        return self.change(sheet, *edits)

    def test_words_are_found_wherever_they_stand(self):
        self.named("Tides", "h(x) = 3.1 + sin(x)", note="at the Outer Mole")
        crane = self.named("Crane", "load = 790")
        ground = crane.document.ground.model_copy(update={"title": "What it lifts"})
        self.change(crane, SetGround(ground=ground))
        for words, names in (
            ("tides", ["Tides"]),
            ("outer MOLE", ["Tides"]),
            ("mole outer", ["Tides"]),
            ("sin(x)", ["Tides"]),
            ("lifts", ["Crane"]),
            ("load", ["Crane"]),
            ("nowhere", []),
            ("%", []),
            ("_", []),
            ("\\", []),
            ("", ["Crane", "Tides"]),
        ):
            self.assertEqual(self.found(words=words), names, words)
        self.assertEqual(self.found(order="name"), ["Crane", "Tides"])

    def test_others_deleted_ones_and_what_visitors_turn_are_not_found(self):
        one = self.named("Mine", "x")
        self.do(sheets.set_deleted, self.person, one.id, True)
        self.assertEqual(self.found(words="x"), [])
        gone = self.do(lambda s: shelf.shelf(s, self.person)).deleted
        self.assertEqual([sheet.name for sheet in gone], ["Mine"])
        other = self.do(people.new_person)
        self.assertEqual(self.do(lambda s: shelf.shelf(s, other)).total, 0)
        self.do(shelf.empty, self.person)
        with self.assertRaises(NotFound):
            self.do(sheets.open_sheet, self.person, one.id)

    def test_labels(self):
        one, other = self.named("One", "x"), self.named("Other", "x")
        for sheet, label in (
            (one, "class 9"),
            (one, "tests"),
            (other, "Class | 10"),
            (one, "TESTS"),
        ):
            self.do(shelf.put_label, self.person, sheet.id, label, True)
        found = self.do(lambda s: shelf.shelf(s, self.person))
        self.assertEqual(found.labels, ("Class 10", "class 9", "TESTS"))
        self.assertEqual(self.found(label="class 9"), ["One"])
        self.assertEqual(self.found(label="class"), [])
        self.do(shelf.put_label, self.person, one.id, "class 9", False)
        self.assertEqual(self.found(label="class 9"), [])
        for label in ("", " | ", "x" * 31):
            with self.assertRaises(EditRefused):
                self.do(shelf.put_label, self.person, one.id, label, True)
        with self.assertRaisesRegex(EditRefused, "8 labels"):
            for k in range(9):
                self.do(shelf.put_label, self.person, one.id, f"label {k}", True)
        with self.assertRaises(NotFound):
            self.do(shelf.put_label, self.do(people.new_person), one.id, "theirs", True)

    def test_pages_of_a_long_shelf(self):
        for k in range(shelf.AT_ONCE + 3):
            self.do(sheets.create, self.person, Document(name=f"sheet {k:03}"))
        first = self.do(lambda s: shelf.shelf(s, self.person, order="name"))
        rest = self.do(lambda s: shelf.shelf(s, self.person, order="name", first=shelf.AT_ONCE))
        self.assertEqual((first.total, len(first.found), len(rest.found)), (63, 60, 3))
        self.assertEqual(rest.found[-1].name, "sheet 062")

    def test_sheets_of_before_are_made_to_be_found(self):
        self.named("Tides", "h(x) = 3")
        self.do(lambda s: s.execute(update(Sheet).values(content="", summary="")))
        self.assertEqual(self.found(words="tides"), [])
        tidy(self.store)
        self.assertEqual(self.found(words="tides"), ["Tides"])

    @given(some.lists(some.text(max_size=60), max_size=9))
    @settings(max_examples=60, deadline=None)
    def test_a_line_is_a_line(self, lines):
        document = Document()
        for k, line in enumerate(lines):
            try:
                document = AddLane(text=line, id=f"l{k}", keep=True).applied(document)
            except EditRefused:
                continue
        found = summary(document)
        self.assertLessEqual(len(found), LINE)
        self.assertNotIn("\n", found)


class Pasts(Shelved):
    def setUp(self):
        super().setUp()
        self.sheet = self.start("x", "2x")
        self.sheet = self.change(self.sheet, AddLane(text="3x", id="lane2"))

    def past(self, **asked):
        return self.do(lambda s: past.past(s, self.person, self.sheet.id, **asked))

    def test_going_back_loses_nothing(self):
        points = self.past().points
        self.assertEqual([p.number for p in points], [4, 3, 2, 1])
        self.assertEqual([p.here for p in points], [True, False, False, False])
        two = points[2]
        found = self.do(past.go_back, self.person, self.sheet.id, 4, two.number)
        self.assertEqual([lane.text for lane in found.document.lanes], ["x"])
        points = self.past().points
        self.assertEqual(points[0].label, "going back to after adding a lane")
        self.assertTrue(all(p.line for p in points))
        undone = self.do(sheets.undo, self.person, self.sheet.id, found.head)
        self.assertEqual(len(undone.document.lanes), 3)
        with self.assertRaises(Conflict):
            self.do(past.go_back, self.person, self.sheet.id, 5, 1)

    def test_a_named_point_is_found_kept_and_gone_back_to(self):
        self.do(past.name, self.person, self.sheet.id, 2, "  before   the test ")
        self.assertEqual(self.past().points[2].name, "before the test")
        old = func.now() - timedelta(days=60)
        self.do(lambda s: s.execute(update(Revision).values(created=old)))
        for k in range(60):
            self.sheet = self.change(self.sheet, Rename(name=f"n{k}"))
        self.do(lambda s: s.execute(update(Revision).values(created=old)))
        tidy(self.store)
        numbers = [p.number for p in self.past().points]
        self.assertEqual(numbers, [self.sheet.head, 2, 1])
        head = self.sheet.head
        found = self.do(past.go_back, self.person, self.sheet.id, head, 2)
        self.assertEqual(self.past().points[0].label, "going back to “before the test”")
        self.assertEqual([lane.text for lane in found.document.lanes], ["x"])
        self.do(past.name, self.person, self.sheet.id, 2, "")
        self.assertEqual(self.past().points[2].name, "")
        with self.assertRaisesRegex(EditRefused, "80 characters"):
            self.do(past.name, self.person, self.sheet.id, 2, "x" * 81)

    def test_a_branch_is_a_sheet_of_its_own(self):
        made = self.do(past.branch, self.person, self.sheet.id, 3)
        self.assertNotEqual(made.id, self.sheet.id)
        self.assertEqual(len(made.document.lanes), 2)
        self.assertTrue(made.document.name.endswith("(copy)"))

    def test_what_was_left_beside_is_told_apart(self):
        undone = self.do(sheets.undo, self.person, self.sheet.id, 4)
        self.sheet = self.change(undone, AddLane(text="4x", id="lane3"))
        self.assertEqual(
            [(p.number, p.line) for p in self.past().points],
            [(5, True), (4, False), (3, True), (2, True), (1, True)],
        )

    def test_long_pasts_come_in_pages(self):
        for k in range(past.AT_ONCE):
            self.sheet = self.change(self.sheet, Rename(name=f"n{k}"))
        first = self.past()
        self.assertTrue(first.older)
        rest = self.past(before=first.points[-1].number)
        self.assertFalse(rest.older)
        count = self.do(lambda s: s.scalar(select(func.count()).select_from(Revision)))
        self.assertEqual(len(first.points) + len(rest.points), count)

    def test_nobody_else_sees_it(self):
        other = self.do(people.new_person)
        for work, more in (
            (past.past, ()),
            (past.state, (2,)),
            (past.name, (2, "x")),
            (past.go_back, (4, 2)),
            (past.branch, (2,)),
        ):
            with self.assertRaises(NotFound):
                self.do(work, other, self.sheet.id, *more)
        with self.assertRaises(NotFound):
            self.do(past.state, self.person, self.sheet.id, 99)

    def test_two_states_compared(self):
        before = self.do(past.state, self.person, self.sheet.id, 2)
        after = self.change(self.sheet, Rename(name="New"), SetNote(id="lane0", note="n")).document
        found = compared(before, after)
        self.assertEqual([lane.text for lane in found.added], ["2x", "3x"])
        self.assertEqual(found.gone, ())
        self.assertEqual([lane.note for _, lane in found.changed], ["n"])
        self.assertEqual(found.other, ("the name of the sheet",))
        back = compared(after, before)
        self.assertEqual(back.gone, found.added)
        self.assertTrue(compared(after, after).same)
        turned = after.model_copy(update={"lanes": after.lanes[::-1]})
        self.assertEqual(compared(after, turned).other, ("the order of the lanes",))
