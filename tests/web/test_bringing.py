"""Sheets brought in from files and taken away: all of a file or nothing, and nothing of others."""

import io
import json
import re
import subprocess
import sys
import tempfile
import zipfile
from pathlib import Path

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.exchange.sheets.archive import archive, read_file
from axispath.exchange.sheets.file import sheet_file
from tests.web.test_web import WebTest


def document(name, line="f(x) = x^2 - 2"):
    return apply(Document(name=name), AddLane(text=line, id="f"))


class Bringing(WebTest):
    def bring(self, data, name="sheet.json", client=None):
        client = client or self.client
        body = {"csrf_token": self.token_of(client), "file": (io.BytesIO(data), name)}
        return client.post("/shelf/bring", data=body, content_type="multipart/form-data")

    def names(self):
        return re.findall(
            r'class="sheet-link" href="/sheet/[^"]+">([^<]+)<', self.client.get("/shelf").text
        )

    def test_a_sheet_comes_back_whole_and_opens(self):
        answer = self.bring(sheet_file(document("Mine")))
        self.assertEqual(answer.status_code, 302, answer.text)
        page = self.client.get(answer.location)
        self.assertIn("Mine", page.text)
        taken = self.client.get("/shelf/away")
        self.assertEqual(taken.mimetype, "application/zip")
        self.assertEqual(read_file(taken.data).documents, (document("Mine"),))

    def test_many_come_at_once_and_what_is_none_is_told(self):
        packed = io.BytesIO(archive([document("One"), document("Two")]))
        with zipfile.ZipFile(packed, "a") as made:
            made.writestr("broken.json", "{")
        answer = self.bring(packed.getvalue(), "sheets.zip")
        self.assertEqual(answer.status_code, 200)
        self.assertIn("2 sheets are on your shelf now: One, Two", answer.text)
        self.assertIn("broken.json: This file is no JSON", answer.text)
        self.assertEqual(sorted(self.names()), ["One", "Two"])

    def test_what_cannot_be_read_leaves_the_shelf_as_it_was(self):
        self.bring(sheet_file(document("Kept")))
        for data, words in (
            (b"", "Choose a file"),
            (b"not json", "no JSON"),
            (b"{}", "no sheet"),
            (json.dumps({"axis path sheet": 7}).encode(), "newer version"),
            (b"PK\x03\x04 broken", "damaged"),
        ):
            answer = self.bring(data)
            self.assertEqual(answer.status_code, 422, words)
            self.assertIn("<h1>", answer.text)
            self.assertIn(words, answer.text)
        self.assertEqual(self.bring(b" " * (25 << 20)).status_code, 413)
        self.assertEqual(self.names(), ["Kept"])
        self.assertEqual(self.app.test_client().get("/shelf/away").status_code, 404)

    def test_the_schema_is_served(self):
        found = self.client.get("/schema/sheet-1.json").json
        self.assertEqual(found["$schema"], "https://json-schema.org/draft/2020-12/schema")
        self.assertIn("axis path sheet", found["required"])

    def test_every_format_is_made_by_its_name(self):
        for name, start in (
            ("sheet", b"{"),
            ("notebook", b"{"),
            ("script", b"#"),
            ("latex", b"\\documentclass"),
            ("workbook", b"PK"),
            ("png", b"\x89PNG"),
        ):
            wanted = {"head": 0, "view": {"left": -5, "right": 5, "bottom": -4, "top": 4}}
            answer = self.post("/sheets/demo.crane/export", {**wanted, "format": name})
            self.assertEqual(answer.status_code, 200, answer.data[:300])
            self.assertTrue(answer.data.startswith(start), name)
        answer = self.post("/sheets/demo.crane/export", {**wanted, "format": "exe"})
        self.assertEqual(answer.status_code, 422)


class Converting(WebTest):
    def test_files_are_converted_without_a_server(self):
        with tempfile.TemporaryDirectory() as folder:
            place = Path(folder)
            (place / "mine.zip").write_bytes(archive([document("A/b"), document("C")]))

            def convert(*arguments):
                command = [sys.executable, "-m", "axispath.command", "convert", *arguments]
                return subprocess.run(command, capture_output=True, text=True, check=False)

            done = convert(str(place / "mine.zip"), "--to", "script", "--out", str(place / "out"))
            self.assertEqual(done.returncode, 0, done.stderr)
            made = sorted(one.name for one in (place / "out").iterdir())
            self.assertEqual(made, ["A b.py", "C.py"])
            done = convert(str(place / "nowhere.json"), "--to", "sheet")
            self.assertEqual(done.returncode, 1)
            self.assertIn("cannot be read", done.stderr)
            (place / "bad.json").write_text("{}")
            done = convert(str(place / "bad.json"), "--to", "latex")
            self.assertIn("is no sheet", done.stderr)
