"""Backups of other versions, and of something else: looked at before anything is touched."""

import io
import subprocess
import tempfile
from contextlib import redirect_stdout
from pathlib import Path
from unittest import mock

from alembic.script import ScriptDirectory
from sqlalchemy import create_engine, text
from sqlalchemy.engine import make_url
from sqlalchemy.exc import ProgrammingError

from axispath.command import backing
from axispath.command.cluster import programs
from axispath.command.errors import CommandFailed
from axispath.command.serving import migrate, migrations
from axispath.core.sheet.document import Document
from axispath.store import people, sheets
from axispath.store.database import Store
from tests.case import Case
from tests.database import address, empty_store


class Restoring(Case):
    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.store = empty_store()
        self.addCleanup(self.put_right)
        self.enterContext(mock.patch.dict("os.environ", {"DATABASE_URL": address()}))
        with self.store.transaction() as session:
            self.person = people.new_person(session)
            sheets.create(session, self.person, Document(name="Before"))

    def put_right(self):
        """The schema as other tests want it."""
        self.store.engine.dispose()
        self.do("drop schema public cascade", "create schema public")
        migrate(address())

    def do(self, *statements):
        engine = create_engine(address())
        with engine.begin() as session:
            for one in statements:
                session.execute(text(one))
        engine.dispose()

    def command(self, work, file):
        with redirect_stdout(io.StringIO()):
            return work([str(file)])

    def backup(self, name):
        self.command(backing.backup, self.folder / name)
        return self.folder / name

    def names(self):
        store = Store(address())
        with store.transaction() as session:
            found = [one.name for one in sheets.shelf(session, self.person)]
        store.engine.dispose()
        return found

    def revisions(self):
        return ScriptDirectory.from_config(migrations())

    def versions(self):
        engine = create_engine(address())
        with engine.begin() as session:
            found = list(session.execute(text("select version_num from alembic_version")).scalars())
        engine.dispose()
        return found

    def refused(self, file, sentence):
        with self.assertRaisesRegex(CommandFailed, sentence):
            self.command(backing.restore, file)
        self.assertEqual(self.names(), ["Before"])

    def test_one_of_this_version_comes_back_in_the_place_of_all(self):
        file = self.backup("now")
        self.assertEqual(file.stat().st_mode & 0o777, 0o600)
        self.do("update sheet set name = 'After'", "create table stranger (x int)")
        self.store.engine.dispose()
        self.command(backing.restore, file)
        self.assertEqual(self.names(), ["Before"])
        with self.assertRaises(ProgrammingError):
            self.do("select * from stranger")

    def test_one_of_an_older_version_is_brought_up_to_date(self):
        head = self.revisions().get_current_head()
        older = self.revisions().get_revision(head).down_revision
        self.store.engine.dispose()
        self.do("drop schema public cascade", "create schema public")
        migrate(address(), older)
        file = self.backup("older")
        self.put_right()
        self.command(backing.restore, file)
        self.assertEqual(self.names(), [])
        self.assertEqual(self.versions(), [head])

    def test_one_of_a_newer_version_changes_nothing(self):
        self.do("update alembic_version set version_num = 'ffffffffffff'")
        file = self.backup("newer")
        self.do(f"update alembic_version set version_num = '{self.revisions().get_current_head()}'")
        self.refused(file, "by a newer version")

    def test_one_of_something_else_and_one_that_was_cut_change_nothing(self):
        file = self.backup("whole")
        for size in (0, 100, file.stat().st_size // 2, file.stat().st_size - 10):
            cut = self.folder / f"cut{size}"
            cut.write_bytes(file.read_bytes()[:size])
            self.refused(cut, "is no whole backup")
        url = make_url(address())
        foreign = self.folder / "foreign"
        subprocess.run(
            [
                programs() / "pg_dump",
                f"--host={url.host}",
                f"--port={url.port}",
                f"--username={url.username}",
                f"--dbname={url.database}",
                "--format=custom",
                "--table=receipt",
                f"--file={foreign}",
            ],
            env={"PGPASSWORD": url.password},
            check=True,
        )
        self.refused(foreign, "of something else")
