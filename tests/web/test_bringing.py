"""Sheets brought in from files and taken away: all of a file or nothing, and nothing of others."""

import io
import json
import re
import subprocess
import sys
import tempfile
import unittest.mock
import zipfile
from pathlib import Path

from sqlalchemy.exc import OperationalError

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.exchange.formats import FORMATS
from axispath.exchange.incoming import brought
from axispath.exchange.sheets.archive import archive
from axispath.exchange.sheets.file import sheet_file
from axispath.store import sheets
from axispath.web import bringing
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
        self.assertEqual(brought(taken.data, "sheets.zip").documents, (document("Mine"),))

    def test_many_come_at_once_and_what_is_none_is_told(self):
        packed = io.BytesIO(archive([document("One"), document("Two")]))
        with zipfile.ZipFile(packed, "a") as made:
            made.writestr("broken.json", "{")
        answer = self.bring(packed.getvalue(), "sheets.zip")
        self.assertEqual(answer.status_code, 200)
        self.assertIn("2 sheets are on your shelf now: One, Two", answer.text)
        self.assertIn("broken.json: This is no sheet that was taken away whole", answer.text)
        self.assertEqual(sorted(self.names()), ["One", "Two"])

    def test_what_cannot_be_read_leaves_the_shelf_as_it_was(self):
        self.bring(sheet_file(document("Kept")))
        for data, words in (
            (b"", "Choose a file"),
            (b"not json", "read as JSON"),
            (b"{}", "not of a sheet"),
            (json.dumps({"axis path sheet": 7}).encode(), "newer version"),
            (b"PK\x03\x04 broken", "damaged"),
        ):
            answer = self.bring(data)
            self.assertEqual(answer.status_code, 422, words)
            self.assertIn('role="alert"', answer.text)
            self.assertIn(words, answer.text)
        self.assertEqual(self.bring(b" " * (25 << 20)).status_code, 413)
        self.assertEqual(self.names(), ["Kept"])
        self.assertEqual(self.app.test_client().get("/shelf/away").status_code, 404)

    def test_tables_and_texts_make_sheets_too(self):
        book = io.BytesIO(FORMATS["workbook"].make(document("W"), ()))
        for data, name, words in (
            (b"hours,depth\n1,2.5\n2,3\n", "tide.csv", "2 rows: hours, depth"),
            (b"f(x) = x^2\na = 3\n", "notes.txt", "f(x) = x^2"),
            (rb"\begin{align} g(x) &= \frac{1}{x} \\ b &= 2 \end{align}", "work.tex", "(1)/(x)"),
            (b"import numpy as np\ndef h(x):\n    return np.sin(x)**2\n", "h.py", "h(x) = sin(x)"),
            (book.getvalue(), "book.xlsx", "rows"),
        ):
            answer = self.bring(data, name)
            if answer.status_code == 302:
                page = self.client.get(answer.location).text
                self.assertIn(name.partition(".")[0], page)
                self.assertIn(words, page, name)
            else:  # the other tables of a spreadsheet are told of
                self.assertIn("formulas: one table makes a sheet", answer.text[:5000])
        for data, name, words in (
            (b"\n\n", "empty.txt", "no formula"),
            (b"f(x) = x\n" * 300, "long.txt", "200 is the most"),
            (b"\x00\x01\x02" * 50, "strange.bin", "no file that sheets are made of"),
            (b"\x00\x01\x02" * 50, "strange.txt", "neither text"),
        ):
            answer = self.bring(data, name)
            self.assertEqual(answer.status_code, 422, name)
            self.assertIn(words, answer.text)

    def test_a_database_that_goes_in_the_middle_leaves_nothing_half_done(self):
        packed = archive([document("One"), document("Two"), document("Three")])
        create, calls = sheets.create, []

        def until_the_second(*given):
            calls.append(given)
            if len(calls) == 2:
                raise OperationalError("insert", {}, Exception("gone"))
            return create(*given)

        with unittest.mock.patch.object(bringing.sheets, "create", until_the_second):
            answer = self.bring(packed, "sheets.zip")
        self.assertEqual(answer.status_code, 503)
        self.assertIn("Nothing is lost", answer.text)
        self.assertEqual(self.names(), [])
        self.bring(packed, "sheets.zip")
        self.assertEqual(sorted(self.names()), ["One", "Three", "Two"])

    def test_several_are_taken_away_in_one_go(self):
        self.bring(archive([document("One"), document("One"), document("a/b")]), "sheets.zip")
        page = self.client.get("/shelf").text
        ids = re.findall(r'name="sheet" value="([^"]+)"', page)
        self.assertEqual(len(ids), 3)
        begun = self.post("/shelf/export", {"sheets": ids, "format": "script"})
        self.assertEqual(begun.status_code, 202)
        at = f"/api/errands/{begun.json['errand']}"
        self.assertEqual(self.client.get(at).json["state"], "done")
        with zipfile.ZipFile(io.BytesIO(self.client.get(f"{at}/content").data)) as made:
            self.assertEqual(sorted(made.namelist()), ["One 2.py", "One.py", "a b.py"])
            self.assertIn(b"zeros", made.read("One.py"))
        for wanted in ({"sheets": []}, {"sheets": ids, "format": "exe"}):
            self.assertEqual(self.post("/shelf/export", wanted).status_code, 422)
        self.assertEqual(self.post("/shelf/export", {"sheets": ["none"]}).status_code, 404)

    def test_what_is_taken_is_the_sheet_as_it_was_asked_for(self):
        made = self.bring(sheet_file(document("Mine")))
        key = made.location.rpartition("/")[2]
        head = self.client.get(made.location).text
        head = int(re.search(r'"head":\s*(\d+)', head)[1])
        edits = [{"do": "revise lane", "id": "f", "text": "f(x) = x^5"}]
        self.post(f"/sheets/{key}/edits", {"head": head, "edits": edits})
        view = {"left": -5, "right": 5, "bottom": -4, "top": 4}
        answer = self.post(f"/sheets/{key}/export", {"head": head, "view": view, "format": "sheet"})
        self.assertEqual(answer.json["lanes"][0]["text"], "f(x) = x^2 - 2")

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
            ("paper", b"%PDF"),
            ("png", b"\x89PNG"),
        ):
            wanted = {"head": 0, "view": {"left": -5, "right": 5, "bottom": -4, "top": 4}}
            answer = self.post("/sheets/demo.crane/export", {**wanted, "format": name})
            self.assertEqual(answer.status_code, 200, answer.data[:300])
            self.assertTrue(answer.data.startswith(start), name)
        for wrong in ({"format": "exe"}, {"parts": ["everything"]}, {"theme": "pink"}):
            answer = self.post("/sheets/demo.crane/export", {**wanted, **wrong})
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
            self.assertIn("not of a sheet", done.stderr)
