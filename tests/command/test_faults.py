"""The real command through what befalls a machine: it comes back, with all that was saved."""

import contextlib
import os
import re
import secrets
import shutil
import signal
import subprocess
import tempfile
import time
import unittest
from pathlib import Path

import psycopg

from axispath.command.place import ROOT, free_port, scratch
from tests.case import Case
from tests.guest import BACK, Guest

COMMAND = [str(ROOT / "axis-path")]


class Commanded(Case):
    @classmethod
    def setUpClass(cls):
        cls.folder = cls.place()
        cls.data = cls.folder / "data"
        cls.port = free_port()
        cls.start()
        cls.addClassCleanup(lambda: cls.stop())

    @classmethod
    def place(cls):
        folder = Path(tempfile.mkdtemp(prefix="axispath-faults-", dir=scratch()))
        folder.chmod(0o755)
        cls.addClassCleanup(shutil.rmtree, folder, ignore_errors=True)
        return folder

    def setUp(self):
        self.guest = Guest(self.port)
        self.guest.until(200, lambda: self.guest.get("/health"))
        edits = {"source": "blank", "edits": [{"do": "add lane", "text": "x^2"}]}
        self.sheet = self.guest.until(200, lambda: self.guest.post("/sheets", edits))[1]

    @classmethod
    def start(cls):
        cls.command = subprocess.Popen(
            [*COMMAND, "demo"],
            env={
                **{k: v for k, v in os.environ.items() if k != "DATABASE_URL"},
                "AXISPATH_DATA": str(cls.data),
                "AXISPATH_PORT": str(cls.port),
                "AXISPATH_EXACT": "0",
            },
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )

    @classmethod
    def stop(cls):
        cls.command.terminate()
        cls.command.wait(60)

    def run_command(self, *given):
        return subprocess.run(
            [*COMMAND, *given],
            env={
                **{k: v for k, v in os.environ.items() if k != "DATABASE_URL"},
                "AXISPATH_DATA": str(self.data),
            },
            capture_output=True,
            text=True,
        )

    def children(self, pid=None):
        """All processes below one, by their command line."""
        found = {}
        for entry in Path("/proc").iterdir():
            if not entry.name.isdigit():
                continue
            try:
                parent = int((entry / "stat").read_text().rpartition(")")[2].split()[1])
                line = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode()
            except OSError:
                continue
            if parent == (pid or self.command.pid):
                found[int(entry.name)] = line
                found.update(self.children(int(entry.name)))
        return found

    def one(self, what):
        """A child of the command itself that runs something."""
        end = time.monotonic() + BACK
        while not (found := [pid for pid, line in self.children().items() if what in line]):
            self.assertLess(time.monotonic(), end, what)
            time.sleep(0.1)
        return min(found)

    def lanes(self):
        at = f"/sheet/{self.sheet['id']}"
        page = self.guest.until(200, lambda: self.guest.get(at))[1]
        return re.findall(r'aria-label="Definition of \w+"[^>]*value="([^"]*)"', page)


class Faults(Commanded):
    def test_every_part_that_is_killed_comes_back(self):
        found = self.sheet
        for k, part in enumerate(("postgres -D", "axispath.work", "gunicorn")):
            with self.subTest(part):
                os.kill(self.one(part), signal.SIGKILL)
                found = self.guest.change(found, f"x + {k}")[1]
        # And what serves or computes below them.
        for part in ("gunicorn", "axispath.work"):
            parent = self.one(part)
            for pid in self.children(parent):
                os.kill(pid, signal.SIGKILL)
            found = self.guest.change(found, "2x")[1]
        self.assertEqual(self.lanes(), ["x^2", "x + 0", "x + 1", "x + 2", "2x", "2x"])
        self.guest.until(200, lambda: self.guest.get("/health"))

    def test_a_killed_command_leaves_nothing_behind_and_starts_again(self):
        before = self.children()
        self.assertGreater(len(before), 8)
        self.command.kill()
        self.command.wait()
        type(self).start()
        found = self.guest.change(self.sheet, "x + 1")[1]
        self.assertEqual(len(found["lanes"]), 2)
        end = time.monotonic() + BACK
        while left := [pid for pid in before if Path(f"/proc/{pid}").exists()]:
            self.assertLess(time.monotonic(), end, left)
            time.sleep(0.1)

    def test_a_frozen_database_is_told_and_waited_for(self):
        frozen = [self.one("postgres -D"), *self.children(self.one("postgres -D"))]
        for pid in frozen:
            os.kill(pid, signal.SIGSTOP)
        try:
            body = {
                "base": self.sheet["head"],
                "edits": [{"do": "add lane", "text": "x + 1"}],
                "change": secrets.token_hex(16),
            }
            path = f"/sheets/{self.sheet['id']}/edits"
            status, _, head = self.guest.post(path, body)
            self.assertEqual((status, head["Retry-After"]), (503, "2"))
            self.assertEqual(self.guest.until(503, lambda: self.guest.get("/health"))[0], 503)
        finally:
            for pid in frozen:
                os.kill(pid, signal.SIGCONT)
        found = self.guest.change(self.sheet, "x + 1")[1]
        self.assertEqual(len(found["lanes"]), 2)

    def test_backup_and_restore(self):
        file = self.folder / "sheets.backup"
        done = self.run_command("backup", str(file))
        self.assertEqual(done.returncode, 0, done.stderr)
        again = self.run_command("backup", str(file))
        self.assertIn("is there already", again.stderr)
        self.guest.change(self.sheet, "x + 1")
        refused = self.run_command("restore", str(file))
        self.assertIn("is being served already", refused.stderr)
        self.stop()
        self.assertEqual(file.stat().st_mode & 0o777, 0o600)
        wrong, cut = self.folder / "wrong", self.folder / "cut"
        wrong.write_text("no backup")
        cut.write_bytes(file.read_bytes()[: file.stat().st_size // 2])
        for one in (wrong, cut):
            self.assertIn("is no whole backup", self.run_command("restore", str(one)).stderr)
        done = self.run_command("restore", str(file))
        self.assertEqual(done.returncode, 0, done.stderr)
        type(self).start()
        self.assertEqual(self.lanes(), ["x^2"])


class Street(Case):
    def test_who_faces_the_street_needs_a_proxy(self):
        folder = tempfile.mkdtemp(prefix="axispath-street-", dir=scratch())
        self.addCleanup(shutil.rmtree, folder, ignore_errors=True)
        done = subprocess.run(
            [*COMMAND, "serve"],
            env={**os.environ, "AXISPATH_DATA": str(folder), "AXISPATH_HOST": "0.0.0.0"},
            capture_output=True,
            text=True,
        )
        self.assertEqual(done.returncode, 1)
        self.assertIn("AXISPATH_BEHIND_PROXY=1", done.stderr)


class FullDisk(Commanded):
    @classmethod
    def place(cls):
        folder = super().place()
        mount = ["mount", "-t", "tmpfs", "-o", "size=400m,mode=755", "tmpfs", str(folder)]
        if os.geteuid() or subprocess.run(mount, capture_output=True).returncode:
            raise unittest.SkipTest("only root can mount a small disk")
        cls.addClassCleanup(subprocess.run, ["umount", "-l", str(folder)])
        return folder

    def fill(self):
        """Fill the disk, and then what room the database still has inside its own files."""
        with contextlib.suppress(OSError), (self.folder / "filler").open("wb", 0) as out:
            while True:
                out.write(b"x" * 65536)
        password, port = (self.data / name for name in ("database-password", "port"))
        address = f"host=127.0.0.1 user=axispath dbname=axispath port={port.read_text()}"
        rows = "insert into filler select md5(k::text) from generate_series(1, 20000) k"
        with (
            contextlib.suppress(psycopg.OperationalError),
            psycopg.connect(address, password=password.read_text(), autocommit=True) as line,
        ):
            line.execute("create table if not exists filler (x text)")
            while True:
                line.execute(rows)

    def test_a_full_disk_is_told_and_room_is_enough(self):
        self.fill()
        body = {
            "base": self.sheet["head"],
            "edits": [{"do": "add lane", "text": "x + 1"}],
            "change": secrets.token_hex(16),
        }
        path = f"/sheets/{self.sheet['id']}/edits"
        self.assertIn(self.guest.post(path, body)[0], (200, 503))
        status, told, _ = self.guest.get("/health")
        self.assertEqual((status, "free" in told), (503, True))
        (self.folder / "filler").unlink()
        found = self.guest.change(self.sheet, "x + 1")[1]
        self.assertEqual(len(found["lanes"]), 2)
        self.assertEqual(self.lanes(), ["x^2", "x + 1"])
