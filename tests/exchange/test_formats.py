"""Sheets taken away: each format checked by its own tool, and what a script prints by the sheet."""

import io
import json
import re
import shutil
import subprocess
import tempfile
import unittest
import zipfile
from functools import cache
from pathlib import Path
from xml.etree import ElementTree

import jsonschema
import nbformat
import numpy as np
import openpyxl
from hypothesis import given, settings
from hypothesis import strategies as some
from nbclient import NotebookClient
from PIL import Image

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.data.cells import Cells
from axispath.core.language.mathml import mathml_statement
from axispath.core.path.survey import survey
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document, Equation, Table, View
from axispath.core.sheet.edits import AddLane, SetNote, apply, with_view
from axispath.core.sheet.edits.data import AddColumns
from axispath.core.sheet.measured import Column
from axispath.core.sheet.names import strange_sign
from axispath.core.sheet.palette import THEMES, dash_of
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.demo.harbour import DEMOS
from axispath.exchange.data.opened import opened
from axispath.exchange.data.written import csv_of, xlsx_of
from axispath.exchange.formats import FORMATS, WHOLE, Choice, made
from axispath.exchange.incoming import brought
from axispath.exchange.names import file_name, told_apart
from axispath.exchange.picture.sizes import Size, sized
from axispath.exchange.report.blocks import Formula, Grid, Words
from axispath.exchange.report.sections import report
from axispath.exchange.script.functions import CARRIED, NAMES, PLAIN
from axispath.exchange.script.written import notebook, script
from axispath.exchange.sheets.archive import MOST_BYTES, archive
from axispath.exchange.sheets.file import MARK, read_sheet, schema, sheet_file
from tests.case import Case
from tests.core.test_kinds import LINES, whole
from tests.exchange.fresh import environment

FONTS = tempfile.TemporaryDirectory()  # where Matplotlib keeps what it found of fonts
FRESH = tempfile.TemporaryDirectory()
SVG, MATHML = "{http://www.w3.org/2000/svg}", "{http://www.w3.org/1998/Math/MathML}"
# The elements of MathML Core (W3C, 2022) that formulas use, and how many parts each has to have.
CORE = {
    **dict.fromkeys(("math", "mrow", "msqrt", "mtable", "mtr", "mtd"), ()),
    **dict.fromkeys(("mi", "mn", "mo", "mtext", "mspace"), (0,)),
    **dict.fromkeys(("mfrac", "msup", "msub", "mroot", "munder", "mover"), (2,)),
    **dict.fromkeys(("msubsup", "munderover"), (3,)),
}
RUN = """
import runpy, sys
for place in sys.argv[1:]:
    runpy.run_path(place, run_name="__main__")
    print("END OF A SCRIPT")
"""


@cache
def fresh_python():
    """The Python of an environment that has what a script says it needs, and nothing of ours."""
    python = environment(FRESH.name)
    tried = "import numpy, scipy, matplotlib, importlib.util as u; print(u.find_spec('flask'))"
    done = subprocess.run([python, "-I", "-c", tried], capture_output=True, text=True, check=False)
    assert done.stdout.strip() == "None", done.stdout + done.stderr
    return python


def all_printed(documents):
    """What the scripts of some sheets print, each run by itself in a folder of its own."""
    with tempfile.TemporaryDirectory() as folder:
        places = []
        for k, document in enumerate(documents):
            places.append(Path(folder) / f"sheet{k}.py")
            places[-1].write_bytes(script(document))
        runner = Path(folder) / "run.py"
        runner.write_text(RUN)
        home = {"HOME": folder, "MPLBACKEND": "Agg", "MPLCONFIGDIR": FONTS.name}
        done = subprocess.run(
            [fresh_python(), "-I", str(runner), *map(str, places)],
            capture_output=True,
            cwd=folder,
            env=home,
            text=True,
            check=False,
        )
    assert done.returncode == 0, done.stderr[-1500:]
    return done.stdout.split("END OF A SCRIPT\n")[:-1]


def printed(document):
    """What the script of a sheet prints."""
    (found,) = all_printed([document])
    return found


@cache
def demos_printed():
    """What the scripts of the demo sheets print, by name; in one process, as imports take long."""
    return dict(zip(DEMOS, all_printed([make() for make in DEMOS.values()]), strict=True))


def sheet(*lines, left=-10.0, right=10.0):
    document = with_view(Document(), View(left=left, right=right))
    for line in lines:
        document = apply(document, AddLane(text=line, id=line[0].lower(), keep=True))
    return document


def taken(name, document, **choice):
    """A sheet in a format."""
    return made(document, FORMATS[name], Choice(**choice))


def tearDownModule():
    FONTS.cleanup()
    FRESH.cleanup()


class Files(Case):
    def test_every_demo_and_every_kind_of_lane_come_back_as_they_were(self):
        published = schema()
        jsonschema.Draft202012Validator.check_schema(published)
        documents = [make() for make in DEMOS.values()] + [whole()]
        for document in documents:
            data = sheet_file(document)
            self.assertEqual(read_sheet(data), document)
            jsonschema.validate(json.loads(data), published)
        found = brought(archive(documents), "all.zip")
        self.assertEqual((found.documents, found.left), (tuple(documents), ()))

    @given(
        some.lists(some.sampled_from(sorted(LINES.values())), max_size=5, unique=True),
        some.text(max_size=40).filter(lambda text: not strange_sign(text)),
        some.floats(-1e6, 1e6),
        some.floats(1e-3, 1e6),
    )
    @settings(max_examples=60, deadline=None)
    def test_any_sheet_comes_back(self, lines, note, left, width):
        document = with_view(Document(), View(left=left, right=left + width))
        for k, line in enumerate(lines):
            document = apply(document, AddLane(text=line, id=f"lane{k}", keep=True))
        if lines:
            document = apply(document, SetNote(id="lane0", note=note))
        self.assertEqual(read_sheet(sheet_file(document)), document)

    def test_what_is_no_sheet_is_refused_with_a_sentence(self):
        good = json.loads(sheet_file(sheet("f(x) = x")))
        lanes = [{"id": f"l{k}", "text": "x"} for k in range(201)]
        cases = (
            (b"", "read as JSON"),
            (b"{", "read as JSON"),
            (b"[1, 2]", "not of a sheet"),
            (b'{"name": "x"}', "not of a sheet"),
            (b" " * (21 << 20), "20 MB at most"),
            (json.dumps({**good, MARK: 99}).encode(), "newer version"),
            (json.dumps({**good, MARK: "1"}).encode(), "not a whole number"),
            (json.dumps({**good, "lanes": lanes}).encode(), "lanes: .*200"),
            (json.dumps({**good, "strange": 1}).encode(), "strange"),
            (json.dumps({**good, "view": {"left": 5, "right": 1}}).encode(), "view"),
        )
        for data, words in cases:
            with self.subTest(words), self.assertRaisesRegex(EditRefused, words):
                read_sheet(data)

    def test_archives_that_mean_harm(self):
        def packed(files):
            out = io.BytesIO()
            with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
                for name, data in files.items():
                    made.writestr(name, data)
            return out.getvalue()

        good = sheet_file(sheet("f(x) = x"))
        found = brought(
            packed({"../../etc/a.json": good, "readme.txt": b"x", "b.json": b"{"}), "a.zip"
        )
        self.assertEqual(len(found.documents), 1)
        self.assertIn("readme.txt: not a JSON file", found.left)
        self.assertTrue(any(one.startswith("b.json: ") for one in found.left))
        bomb = packed({f"{k}.json": b" " * (19 << 20) for k in range(8)})
        self.assertLess(len(bomb), 1 << 20)
        self.assertGreater(8 * (19 << 20), MOST_BYTES)
        for data, words in (
            (bomb, "unpacks to more than|There is no sheet"),
            (packed({"a.txt": b"x"}), "no sheet in this ZIP"),
            (packed({f"{k}.json": good for k in range(201)}), "200 can be read"),
            (packed({"a.json": good})[:-30], "damaged"),
        ):
            with self.subTest(words), self.assertRaisesRegex(EditRefused, words):
                brought(data, "a.zip")

    def test_names_of_files_are_safe_everywhere(self):
        for name, wanted in (
            ("Ferry window", "Ferry window.json"),
            ("../../etc/passwd", "etc passwd.json"),
            ("CON", "sheet CON.json"),
            ("a\x00b\n:c*?", "a b c.json"),
            ("...", "sheet.json"),
            ("x" * 300, f"{'x' * 80}.json"),
            ("‮evil", "evil.json"),
        ):
            self.assertEqual(file_name(name, "json"), wanted)
        found = told_apart(["A", "a", "A", "b"], "py")
        self.assertEqual(len({one.lower() for one in found}), 4)

    @given(some.text(max_size=120))
    @settings(max_examples=150, deadline=None)
    def test_any_name_makes_a_safe_one(self, name):
        found = file_name(name, "tex")
        self.assertRegex(found, r"^[^<>:\"/\\|?*\x00-\x1f]{1,84}\.tex$")
        self.assertFalse(found.startswith((".", " ")))


class Scripts(Case):
    def test_scripts_run_by_themselves_and_find_the_zeros_of_the_sheet(self):
        for name, make in DEMOS.items():
            with self.subTest(name):
                self.compared(make(), demos_printed()[name])

    def compared(self, document, output):
        told = dict(re.findall(r"^zeros of (\w+): (.*)$", output, re.MULTILINE))
        found = survey(document)
        for lane, path in found.lanes:
            if lane.kind.key != "function" or path is None or lane.name not in told:
                continue
            proved = sorted(mark.x for mark in path.of(Kind.ZERO))
            text = told[lane.name]
            listed = [] if text == "none found" else [float(one) for one in text.split(", ")]
            self.assertEqual(len(listed), len(proved), (lane.name, listed, proved))
            for one, other in zip(listed, proved, strict=True):
                self.assertAlmostEqual(one, other, delta=1e-6 * (1 + abs(other)))
        self.met(found, dict(re.findall(r"^(\w+ = \w+): (.*)$", output, re.MULTILINE)))

    def met(self, found, told, all_of_them=False):
        """Intersections that a script prints are proved ones; it may miss one beside a break."""
        for crossing in found.crossings:
            both = crossing.first, crossing.second
            if any(lane.kind.key != "function" for lane in both) or not crossing.path.complete:
                continue
            text = told[" = ".join(lane.name for lane in both)]
            pairs = re.findall(r"\(([^,]+), ([^)]+)\)", text)
            listed = [(float(x), float(y)) for x, y in pairs]
            proved = [(mark.x, mark.y) for mark in crossing.path.of(Kind.INTERSECTION)]
            if all_of_them:
                self.assertEqual(len(listed), len(proved), (text, proved))
            for one in listed:
                nearest = min(proved, key=lambda mark: abs(mark[0] - one[0]))
                for near, exact in zip(one, nearest, strict=True):
                    self.assertAlmostEqual(near, exact, delta=1e-6 * (1 + abs(exact)))

    def test_zeros_of_many_shapes(self):
        document = sheet(
            "f(x) = sin(3x) + x/4",
            "g(x) = (x - 2)^2",
            "h(x) = 1/x",
            "k(x) = tan(x)",
            "m(x) = x^3 - 2 if x < 3, 5 otherwise",
            "n(x) = x^(1/3) + 1",
            "p(x) = floor(x) - 1/2",
            "q(x) = e^x - 3 for x > 0",
        )
        self.compared(document, printed(document))

    def test_intersections_a_title_and_dashes_are_those_of_the_sheet(self):
        document = sheet("f(x) = x^2 - 2", "g(x) = sin(3x)", "h(x) = 1/x for x > 1")
        output = printed(document)
        told = dict(re.findall(r"^(\w+ = \w+): (.*)$", output, re.MULTILINE))
        self.met(survey(document), told, all_of_them=True)
        self.assertEqual(len(re.findall(r"^\w+ = \w+: \(", output, re.MULTILINE)), 3)
        text = script(document.model_copy(update={"name": "Tides at Skerry Point"})).decode()
        self.assertIn('set_title("Tides at Skerry Point")', text.replace("'", '"'))
        for lane in resolve(document):
            drawn = next(
                line for line in text.splitlines() if re.search(rf"label=.{lane.name}.,", line)
            )
            dash = re.search(r"linestyle=\(0, \(([^)]*)\)\)", drawn)
            width = float(re.search(r"linewidth=([\d.]+)", drawn)[1])
            parts = [float(one) * width for one in dash[1].split(",")] if dash else []
            self.assertEqual(len(parts), len(dash_of(lane.lane)))
            for part, wanted in zip(parts, dash_of(lane.lane), strict=True):
                self.assertAlmostEqual(part, wanted, delta=0.02)

    def test_every_kind_of_lane_is_written_and_what_is_left_out_is_said(self):
        document = whole()
        output = printed(document)
        self.assertIn("zeros of", output)
        text = script(document).decode()
        for lane in resolve(document):
            if lane.error is not None or lane.missing:
                self.assertIn(" ".join(lane.lane.text.split()), text)

    def test_tables_and_fits_are_those_of_the_sheet(self):
        output = demos_printed()["engine"]
        fit = resolve(DEMOS["engine"]()).lane("lane2").fitted.result
        for name, value in zip(fit.names, fit.parameters, strict=True):
            found = re.search(
                rf"^fit: {name} = ([-+.e\d]+), standard error ([-+.e\d]+)", output, re.M
            )
            self.assertAlmostEqual(float(found[1]), value, delta=1e-6 * abs(value))
        rows = [
            line.split("\t") for line in printed(DEMOS["slipway"]()).split("\n") if "\t" in line
        ]
        lane = next(one for one in resolve(DEMOS["slipway"]()) if one.name == "w")
        head, *body = rows
        places = np.array([float(row[0]) for row in body])
        values = lane.floats(places)
        for row, value in zip(body, values, strict=True):
            self.assertAlmostEqual(float(row[head.index("w(x)")]), value, places=9)

    def test_degrees_equations_and_strange_names(self):
        document = sheet("f(x) = sin(x) - 1/2", "lambda = 3", "g(x) = lambda x - 6", right=170.0)
        document = document.model_copy(update={"unit": AngleUnit.DEGREE})
        output = printed(document)
        self.compared(document, output)
        self.assertIn("zeros of g: 2\n", output)

    def test_nobody_can_put_code_into_a_script(self):
        document = sheet('f(x) = x"""\nimport os', "g(x) = x")
        document = document.model_copy(update={"name": 'a\nimport os\n"""'})
        text = script(document).decode()
        self.assertNotRegex(text, r"(?m)^import os")
        printed(document)

    def test_functions_of_the_catalogue_have_a_counterpart(self):
        missing = {name for name in catalogue.ENTRIES if name not in {*PLAIN, *CARRIED, "degrees"}}
        self.assertEqual(missing, set())
        self.assertLessEqual(set(CARRIED.values()), NAMES)


class Notebooks(Case):
    def test_each_is_valid(self):
        for make in DEMOS.values():
            text = notebook(make()).decode()
            nbformat.validate(json.loads(text))
            self.assertNotIn("np.float64(", text)  # numbers as people write them

    def test_one_runs_and_shows_its_picture(self):
        book = nbformat.reads(notebook(DEMOS["ferry-window"]()).decode(), as_version=4)
        NotebookClient(book, timeout=600, kernel_name="python3").execute()
        outputs = [one for cell in book.cells if cell.cell_type == "code" for one in cell.outputs]
        self.assertFalse([one for one in outputs if one.output_type == "error"])
        self.assertTrue(any("image/png" in one.get("data", {}) for one in outputs))


class Others(Case):
    def test_spreadsheets_hold_what_the_sheet_has(self):
        for name, make in DEMOS.items():
            with self.subTest(name):
                document = make()
                book = openpyxl.load_workbook(io.BytesIO(taken("workbook", document)))
                formulas = [row[1].value or "" for row in book["formulas"].iter_rows()]
                self.assertEqual(
                    formulas, [lane.text or lane.block.text for lane in document.lanes]
                )
                marks = sum(len(path.landmarks) for path in survey(document).paths)
                self.assertEqual(book["landmarks"].max_row, 1 + marks)
                cells = (cell for page in book for row in page.iter_rows() for cell in row)
                self.assertFalse([cell for cell in cells if cell.data_type == "f"])

    def test_latex_is_whole_and_no_name_breaks_it(self):
        document = sheet("f(x) = x^2 - 2").model_copy(update={"name": r"50% & \end{x} _#$"})
        for one in (document, *(make() for make in DEMOS.values())):
            text = taken("latex", one).decode()
            opened = re.findall(r"\\begin\{(\w+)\}", text)
            closed = re.findall(r"\\end\{(\w+)\}", text)
            self.assertEqual(sorted(opened), sorted(closed))
            bare = re.sub(r"\\[\\{}%$#&_]", "", text)
            self.assertEqual(bare.count("{"), bare.count("}"))
        title = re.search(r"\\title\{(.*)\}", taken("latex", document).decode())[1]
        self.assertIn(r"50\% \& \textbackslash{}end\{x\} \_\#\$", title)

    @unittest.skipUnless(shutil.which("lualatex"), "no LaTeX compiler could be installed here")
    def test_latex_compiles_and_no_sign_is_missing(self):
        made = [taken("latex", one).decode() for one in (*(m() for m in DEMOS.values()), whole())]
        strange = sheet("f(x) = x^2", "g(x) = (3 +").model_copy(
            update={"name": r"50% & \end{x} _#$ θ² → ∞ 10⁻⁶ “é”"}
        )
        made.append(taken("latex", strange).decode())
        # Most of the time goes into starting: all bodies in one document, and one alone.
        head = made[0].partition(r"\title")[0]
        bodies = [
            re.sub(r"^.*?(?=\\title)|\\(begin|end)\{document\}", "", one, flags=re.S)
            for one in made
        ]
        whole_one = head + r"\begin{document}" + "\n".join(bodies) + r"\end{document}"
        with tempfile.TemporaryDirectory() as folder:
            for name, text in (("all", whole_one), ("one", made[0])):
                (Path(folder) / f"{name}.tex").write_text(text)
                command = ["lualatex", "-interaction=nonstopmode", "-halt-on-error", f"{name}.tex"]
                done = subprocess.run(command, cwd=folder, capture_output=True, check=False)
                log = (Path(folder) / f"{name}.log").read_text(errors="replace")
                self.assertEqual(done.returncode, 0, log[-1500:])
                self.assertNotIn("Missing character", log)
                self.assertTrue((Path(folder) / f"{name}.pdf").read_bytes().startswith(b"%PDF"))

    def test_pages_to_print_hold_the_chosen_parts(self):
        for one in (*(make() for make in DEMOS.values()), whole()):
            data = taken("paper", one)
            self.assertTrue(data.startswith(b"%PDF"))
            self.assertGreaterEqual(data.count(b"/Type /Page "), 1)
        ferry = DEMOS["ferry-window"]()
        titles = [part.title for part in report(ferry)]
        self.assertEqual(titles[:4], ["Plot", "Formulas", "Landmarks", "Values"])
        self.assertEqual([part.title for part in report(ferry, ["values"])], ["Values"])
        few = taken("paper", ferry, parts=("formulas",))
        self.assertLess(len(few), len(taken("paper", ferry)))
        long = sheet("f(x) = x").model_copy(
            update={"tables": (Table(start="0", stop="9000", step="1"),)}
        )
        grid = next(b for part in report(long, ["values"]) for b in part.blocks)
        self.assertEqual((len(grid.rows), grid.more), (400, 8601))
        self.assertGreater(taken("paper", long).count(b"/Type /Page "), 5)

    def test_a_report_says_what_the_desk_says(self):
        document = sheet("f(x) = x^2 - 2", "g(x) = (3 +").model_copy(
            update={"equations": (Equation(text="f(x) = 0"), Equation(text="x ="))}
        )
        parts = {part.title: part.blocks for part in report(document)}
        grid = next(b for b in parts["Landmarks"] if isinstance(b, Grid))
        self.assertIn(("f", "zero", "1.41421", "0", "proven"), grid.rows)
        self.assertIn(Formula("g(x) = (3 +"), parts["Formulas"])
        words = [b.text for b in parts["Solve"] if isinstance(b, Words)]
        self.assertIn("2 solutions", words[0])
        self.assertEqual(len(words), 2)  # what cannot be solved says why

    def test_pictures_by_theme_and_size(self):
        document = sheet("f(x) = x^2 - 2")
        small = {"size": Size(400, 300, 1.0)}
        ground = {}
        for theme, palette in THEMES.items():
            picture = Image.open(io.BytesIO(taken("png", document, theme=theme, **small)))
            self.assertEqual(picture.size, (400, 300))
            ground[theme] = "#" + bytes(picture.convert("RGB").getpixel((3, 3))).hex()
            self.assertEqual(ground[theme], palette.ground)
        clear = Image.open(io.BytesIO(taken("png", document, clear=True, **small)))
        self.assertEqual(clear.convert("RGBA").getpixel((3, 3))[3], 0)
        self.assertEqual(sized(16, 10, "cm", 2.0), Size(630, 394, 2.0))
        drawn = ElementTree.fromstring(taken("svg", document, size=sized(16, 10, "cm", 1.0)))
        self.assertAlmostEqual(float(drawn.get("width").removesuffix("pt")) / 72 * 2.54, 16, 1)
        slide = sized(1, 1, "slide", 1.0)
        picture = Image.open(io.BytesIO(taken("png", document, size=slide)))
        self.assertEqual(picture.size, (1920, 1080))
        with self.assertRaisesRegex(EditRefused, "width of a picture"):
            taken("png", document, size=Size(10, 300, 1.0))

    def test_drawings_and_formulas_are_sound_markup(self):
        for one in (*(make() for make in DEMOS.values()), whole()):
            drawn = ElementTree.fromstring(taken("svg", one))
            names = {node.tag for node in drawn.iter()}
            self.assertTrue({f"{SVG}svg", f"{SVG}path"} <= names)
            for node in drawn.iter(f"{SVG}use"):
                target = node.get("{http://www.w3.org/1999/xlink}href").removeprefix("#")
                self.assertIsNotNone(drawn.find(f".//*[@id='{target}']"))
            for lane in resolve(one):
                if lane.written is not None:
                    written = mathml_statement(lane.written, catalogue.VOCABULARY, lane.name)
                    for node in ElementTree.fromstring(written).iter():
                        name = node.tag.removeprefix(MATHML)
                        self.assertIn(name, CORE)
                        self.assertIn(len(node), CORE[name] or [len(node)], written)

    @given(some.lists(some.floats(-1e290, 1e290), min_size=1, max_size=6))
    @settings(max_examples=60, deadline=None)
    def test_numbers_come_back_from_tables_to_the_last_digit(self, values):
        cells = Cells([*values, 0.5])
        edit = AddColumns(name="log", columns=(Column(name="v", title="v", cells=cells),))
        (lane,) = resolve(apply(Document(), edit))
        for data in (csv_of(lane).encode(), xlsx_of(lane)):
            back = opened(data, 0, ()).read.columns[0].cells.listed()
            self.assertEqual(back, [*values, 0.5])

    def test_every_format_is_one_entry(self):
        self.assertEqual({one.name for one in WHOLE} & {"png", "svg", "pdf"}, set())
        for one in FORMATS.values():
            self.assertTrue(one.title and one.words and one.media)


if __name__ == "__main__":
    unittest.main()
