"""What server and scripts have in common is written once."""

import unittest
from pathlib import Path

from axispath.web.desk import DESK_PAGES
from tools.schema_types import PLACE, written

ROOT = Path(__file__).resolve().parents[2]
SCRIPTS = ROOT / "axispath/web/static/js"
LONGEST = 400  # lines of a file


class Scripts(unittest.TestCase):
    def test_types_of_requests_are_those_of_the_models(self):
        told = "python -m tools.schema_types writes them anew"
        self.assertEqual(PLACE.read_text(), written(), told)

    def test_every_script_is_checked(self):
        files = list(SCRIPTS.rglob("*.js"))
        self.assertGreater(len(files), 30)
        for file in files:
            self.assertTrue(file.read_text().startswith("// @ts-check\n"), file.name)

    def test_no_file_is_too_long(self):
        files = [*SCRIPTS.rglob("*.js"), *(ROOT / "axispath").rglob("*.py")]
        for file in files:
            self.assertLessEqual(len(file.read_text().splitlines()), LONGEST, file.name)

    def test_every_page_of_the_desk_has_its_template(self):
        for page in DESK_PAGES:
            self.assertTrue((ROOT / "axispath/web/templates" / page.template).exists())


if __name__ == "__main__":
    unittest.main()
