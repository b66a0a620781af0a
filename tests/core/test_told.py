"""What a change of a sheet is told as: the mathematics that differs, nothing of how it looks."""

from axispath.core.path.edited import edited
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import EDITS
from axispath.core.sheet.told import LONGEST, told
from tests.case import Case


def changed(document, *edits):
    steps = edited(document, EDITS.validate_python(list(edits)), None)
    return steps[-1].document if steps else document


def lane(document, name):
    starts = (f"{name}(", f"{name} =")
    return next(one.id for one in document.lanes if name == one.name or one.text.startswith(starts))


class Told(Case):
    def setUp(self):
        edits = [{"do": "add lane", "text": text} for text in ("f(x) = a x^2", "a = 1.5")]
        data = {"do": "add data", "name": "A", "text": "hours\tdepth\n0\t3\n1\t4\n2\t5"}
        self.sheet = changed(Document(), *edits, data)

    def after(self, *edits):
        return told(self.sheet, changed(self.sheet, *edits))

    def test_lines_that_come_change_and_go(self):
        f, a = lane(self.sheet, "f"), lane(self.sheet, "a")
        cases = {
            "added g(x) = x + 1": [{"do": "add lane", "text": "g(x) = x + 1"}],
            "deleted f(x) = a x^2": [{"do": "remove lane", "id": f}],
            "f(x) a x^2 → a x^3": [{"do": "revise lane", "id": f, "text": "f(x) = a x^3"}],
            "a 1.5 → −0.9": [{"do": "slide", "id": a, "value": -0.9}],
            "a from −1 to 2π": [
                {"do": "set slider", "id": a, "slider": {"low": "−1", "high": "2π"}}
            ],
            "angles in degrees": [{"do": "set unit", "unit": "deg"}],
            "named “Harbour”": [{"do": "rename", "name": "Harbour"}],
            "": [{"do": "show lane", "id": f, "shown": False}],
        }
        for words, edits in cases.items():
            with self.subTest(words):
                self.assertEqual(self.after(*edits), words)
        more = [{"do": "add lane", "text": f"x + {k}"} for k in range(5)]
        self.assertEqual(self.after(*more), "added 5 lines")

    def test_cells_of_data(self):
        data = lane(self.sheet, "A")
        cell = {"do": "set cells", "id": data, "row": 1, "column": 1, "block": [["4.25"]]}
        self.assertEqual(self.after(cell), "A_depth, row 2: 4 → 4.25")

    def test_a_long_line_is_cut_and_says_so(self):
        text = "f(x) = " + " + ".join(f"x^{k}" for k in range(2, 30))
        words = told(Document(), changed(Document(), {"do": "add lane", "text": text}))
        self.assertTrue(words.endswith("…"))
        self.assertLess(len(words), LONGEST + 20)
