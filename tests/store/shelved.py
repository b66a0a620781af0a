"""A person with sheets in an emptied store."""

from axispath.core.path.edited import edited
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane
from axispath.store import people, sheets
from tests.case import Case
from tests.database import empty_store


class Shelved(Case):
    def setUp(self):
        self.store = empty_store()
        self.addCleanup(self.store.engine.dispose)
        self.person = self.do(people.new_person)

    def do(self, work, *arguments):
        with self.store.transaction() as session:
            return work(session, *arguments)

    def start(self, *lines):
        edits = [AddLane(text=line, id=f"lane{n}") for n, line in enumerate(lines)]
        return self.do(sheets.create, self.person, Document(), edited(Document(), edits, None))

    def change(self, found, *edits):
        steps = edited(found.document, edits, None)
        return self.do(sheets.change, self.person, found.id, found.head, steps)
