import contextlib
import io
import re
from pathlib import Path

from tests.case import Case

DOCS = Path(__file__).resolve().parents[2] / "docs"


class Documentation(Case):
    def test_the_script_in_core_md_runs_and_prints_what_it_says(self):
        (script,) = re.findall(r"```python\n(.*?)```", (DOCS / "core.md").read_text(), re.S)
        printed = io.StringIO()
        with contextlib.redirect_stdout(printed):
            exec(compile(script, "core.md", "exec"), {})
        lines = printed.getvalue().splitlines()
        promised = re.findall(r"print\(.*\)  # (.*)", script)
        self.assertEqual(lines[: len(promised)], promised)
        self.assertEqual(lines[2], "-1.0 — outside the domain of g: 0 < x ≤ 3")
        self.assertEqual(lines[-1].strip(), "3.0 1.09861")

    def test_every_screenshot_is_shown_in_the_readme(self):
        readme = (DOCS.parent / "README.md").read_text()
        shots = sorted(DOCS.glob("screenshots/*.png"))
        self.assertTrue(shots)
        for shot in shots:
            self.assertIn(f"docs/screenshots/{shot.name}", readme)
