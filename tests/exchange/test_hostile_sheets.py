"""A sheet that somebody made to do harm: nothing that is written of it is run, read or computed."""

import ast
import csv
import io
import json
import os
import re
import subprocess
import sys
import tempfile
import unittest
from functools import cache
from pathlib import Path
from xml.etree import ElementTree

import openpyxl
from pydantic import ValidationError

from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.exchange.data.written import csv_of, xlsx_of
from axispath.exchange.formats import FORMATS, Choice, made
from axispath.exchange.sheets.file import read_sheet, sheet_file
from tests.case import Case
from tests.core.test_kinds import whole

CANARY = "canary"
PAYLOADS = (
    f'"); import os; os.system("touch {CANARY}"); ("',
    f"' + str(__import__('os').system('touch {CANARY}')) + '",
    f"x\n__import__('os').system('touch {CANARY}')\n#",
    f"x\u2028__import__('os').system('touch {CANARY}')",
    f'x"""\nimport os; os.system("touch {CANARY}")\n"""',
    f"{{__import__('os').system('touch {CANARY}')}}",
    f"}}$\\input{{{CANARY}.tex}}$",
    f"%\n\\input{{{CANARY}.tex}}",
    f"\\immediate\\write18{{touch {CANARY}}}\\end{{document}}",
    f"^^5cinput{{{CANARY}.tex}}",
    f"$\\def\\x{{\\input {CANARY}}}\\x$",
    f"\\directlua{{os.execute('touch {CANARY}')}}",
    "[1, 2] * 3",
    "<script>alert(1)</script>",
    '"><svg onload="alert(1)"/><x y="',
    "]]><!ENTITY x SYSTEM 'file:///etc/passwd'>&x;",
    "[link](javascript:alert(1)) ![](http://quay.example/x.png)",
    '=HYPERLINK("http://quay.example", "x")',
    "+1+cmd|' /C calc'!A0",
    "@SUM(A1:A9)",
    "-2+3",
)
KEPT = ("id", "format", "do")  # what other fields name
RUNNER = """
import runpy, sys
def hook(event, given):
    touched = event == "open" and "canary" in str(given[0])
    if event == "subprocess.Popen" and given[0] == "fc-list":  # Matplotlib looks for fonts
        return
    if touched or event in ("os.system", "os.exec", "os.posix_spawn", "subprocess.Popen",
                            "socket.connect", "socket.bind"):
        print("HARM", event, given)
sys.addaudithook(hook)
runpy.run_path(sys.argv[1], run_name="__main__")
"""
# Commands of LaTeX that none of our files has.
COMMANDS = r"(input|include|write|immediate|openin|openout|read|directlua|catcode|csname|def|let)"
COMMAND = re.compile(rf"(?<!\\)\\{COMMANDS}\b|\^\^")


def places(found, path=()):
    """Where texts stand in a sheet as JSON."""
    if isinstance(found, str):
        yield path
    elif isinstance(found, dict):
        for key, value in found.items():
            if key not in KEPT:
                yield from places(value, (*path, key))
    elif isinstance(found, list):
        for k, value in enumerate(found):
            yield from places(value, (*path, k))


def put(found, path, text):
    """The same sheet with another text in one place."""
    copy = json.loads(json.dumps(found))
    inner = copy
    for key in path[:-1]:
        inner = inner[key]
    inner[path[-1]] = text
    return copy


def is_sheet(found):
    try:
        return Document.model_validate(found)
    except ValidationError:
        return None


def filled(wanted, turn):
    """A sheet of every kind of lane with hostile texts in the wanted places, and how many."""
    found, count = whole().model_dump(mode="json"), 0
    for path in [*places(found)]:
        if not wanted(path):
            continue
        for k in range(len(PAYLOADS)):
            tried = put(found, path, PAYLOADS[(turn + count + k) % len(PAYLOADS)])
            if is_sheet(tried) is not None:
                found, count = tried, count + 1
                break
    return is_sheet(found), count


@cache
def bad_sheets():
    """Sheets with such texts wherever a sheet may hold any, in two turns."""
    return [filled(lambda path: True, turn) for turn in range(0, len(PAYLOADS), 11)]


@cache
def bad_words():
    """The same where the lines can still be understood: in words about them alone."""
    words = ("name", "note", "title", "x_label", "y_label", "words")
    return [filled(lambda path: path[-1] in words, turn) for turn in range(0, len(PAYLOADS), 11)]


def harmful(code):
    """What a script would do that none of ours does."""
    for node in ast.walk(ast.parse(code)):
        if isinstance(node, ast.Import | ast.ImportFrom):
            names = {one.name.partition(".")[0] for one in node.names}
            if not names <= {"matplotlib", "numpy", "optimize", "special", "integrate"}:
                yield ast.unparse(node)
        elif (isinstance(node, ast.Call) and "__import__" in ast.unparse(node.func)) or (
            isinstance(node, ast.Attribute) and node.attr == "system"
        ):
            yield ast.unparse(node)


class Hostile(Case):
    def every(self):
        self.assertGreater(min(count for _, count in bad_sheets()), 60)
        yield from enumerate(document for document, _ in (*bad_sheets(), *bad_words()))

    def written(self, name, document):
        return made(document, FORMATS[name], Choice())

    def test_scripts_and_notebooks_do_nothing_else(self):
        for payload, document in self.every():
            with self.subTest(payload):
                self.assertEqual([*harmful(self.written("script", document))], [])
                book = json.loads(self.written("notebook", document))
                for cell in book["cells"]:
                    text = "".join(cell["source"])
                    if cell["cell_type"] == "code":
                        self.assertEqual([*harmful(text)], [])
                    else:
                        self.assertNotRegex(text, r"(?<!\\)(<script|<svg|\]\(|\$)")

    def test_scripts_that_run_touch_nothing(self):
        with tempfile.TemporaryDirectory() as folder:
            runner = Path(folder) / "runner.py"
            runner.write_text(RUNNER)
            # In one file each: what a script defines is no concern of the next.
            for k, (document, _) in enumerate(bad_words()):
                place = Path(folder) / f"sheet{k}.py"
                place.write_bytes(self.written("script", document))
                done = subprocess.run(
                    [sys.executable, "-I", str(runner), str(place)],
                    cwd=folder,
                    env={"HOME": folder, "MPLBACKEND": "Agg"},
                    capture_output=True,
                    text=True,
                    check=False,
                )
                with self.subTest(k):
                    self.assertEqual(done.returncode, 0, done.stderr[-1500:])
                    self.assertNotIn("HARM", done.stdout)
            self.assertFalse((Path(folder) / CANARY).exists())

    def test_latex_has_no_command_of_theirs(self):
        for payload, document in self.every():
            text = self.written("latex", document).decode()
            with self.subTest(payload):
                lines = [line.partition("%")[0] if "\\%" not in line else line
                         for line in text.splitlines()]  # fmt: skip
                self.assertIsNone(COMMAND.search("\n".join(lines)), COMMAND.search(text))
                # Behind the end of a row a bracket would be its argument.
                self.assertNotRegex(text, r"\\\\\s*[\[*]")

    @unittest.skipUnless(os.path.exists("/usr/bin/lualatex"), "no LaTeX compiler is here")
    def test_latex_that_is_compiled_reads_nothing(self):
        with tempfile.TemporaryDirectory() as folder:
            (Path(folder) / f"{CANARY}.tex").write_text(r"\errmessage{CANARY READ}")
            bodies = []
            for document, _ in bad_words():
                text = self.written("latex", document).decode()
                head, _, rest = text.partition(r"\title")
                bodies.append(re.sub(r"\\(begin|end)\{document\}", "", r"\title" + rest))
            whole_one = head + r"\begin{document}" + "\n".join(bodies) + r"\end{document}"
            (Path(folder) / "all.tex").write_text(whole_one)
            command = ["lualatex", "-interaction=nonstopmode", "-no-shell-escape", "all.tex"]
            done = subprocess.run(command, cwd=folder, capture_output=True, check=False)
            log = (Path(folder) / "all.log").read_text(errors="replace")
            self.assertNotIn("CANARY", log)
            self.assertEqual(done.returncode, 0, log[-1500:])
            self.assertFalse((Path(folder) / CANARY).exists())

    def test_spreadsheets_and_tables_hold_no_formula(self):
        for payload, document in self.every():
            with self.subTest(payload):
                books = [self.written("workbook", document)]
                texts = []
                for lane in resolve(document):
                    if lane.lane.data is not None and lane.measured is not None:
                        books.append(xlsx_of(lane))
                        texts.append(csv_of(lane))
                for data in books:
                    for page in openpyxl.load_workbook(io.BytesIO(data)):
                        for row in page.iter_rows():
                            self.assertNotIn("f", [cell.data_type for cell in row])
                for text in texts:
                    for row in csv.reader(io.StringIO(text)):
                        for cell in row:
                            self.assertFalse(self.is_formula(cell), cell)

    def is_formula(self, cell):
        try:
            float(cell)
        except ValueError:
            return cell[:1] in ("=", "+", "-", "@", "\t", "\r")
        return False

    def test_drawings_hold_no_script_and_lead_nowhere(self):
        for payload, document in self.every():
            with self.subTest(payload):
                for node in ElementTree.fromstring(self.written("svg", document)).iter():
                    self.assertNotIn("script", node.tag.lower())
                    for name, value in node.attrib.items():
                        self.assertFalse(name.rpartition("}")[2].lower().startswith("on"), name)
                        if name.endswith("href"):
                            self.assertTrue(value.startswith("#"), value)

    def test_pictures_and_pages_are_made(self):
        for _, document in [*self.every()][::3]:
            for name in ("png", "paper"):
                self.assertGreater(len(self.written(name, document)), 500)

    def test_names_follow_the_rule_of_the_language(self):
        plain = json.loads(sheet_file(whole()))
        for path in (("lanes", 0, "name"), ("tables", 0, "variable"), ("tables", 0, "across")):
            for text in PAYLOADS:
                with self.subTest(path=path, text=text), self.assertRaises(EditRefused):
                    read_sheet(json.dumps(put({**plain, "tables": [{}]}, path, text)).encode())
            for text in ("f", "v_0", "θ", "Größe", "f12"):
                read_sheet(json.dumps(put({**plain, "tables": [{}]}, path, text)).encode())

    def test_signs_that_nothing_can_hold_are_refused(self):
        with self.assertRaisesRegex(EditRefused, "cannot be shown"):
            read_sheet(json.dumps({**json.loads(sheet_file(whole())), "name": "a\0b"}).encode())


if __name__ == "__main__":
    unittest.main()
