"""The imports point one way, as docs/architecture.md says."""

import ast
from pathlib import Path

from tests.case import Case

PACKAGE = Path(__file__).resolve().parents[2] / "axispath"
# Each part of the core may import itself and the parts before it in one of these chains.
ANYWHERE = {"memory"}
LINES = ("language", "quantities", "catalogue", "arithmetic", "calculation")
BELOW = (*LINES, "search", "equations", "data", "fits")  # the sheet
ALLOWED = {
    "language": {"language"},
    "quantities": {"language", "quantities"},
    "catalogue": {"language", "quantities", "catalogue"},
    "arithmetic": {"language", "quantities", "catalogue", "arithmetic"},
    "calculation": {"language", "quantities", "catalogue", "arithmetic", "calculation"},
    "forms": {"language", "quantities", "catalogue", "arithmetic", "forms"},
    "search": {*LINES, "search"},
    "equations": {*LINES, "search", "equations"},
    "data": {"data"},
    "fits": {"language", "catalogue", "arithmetic", "fits"},
    "sheet": {*BELOW, "forms", "sheet"},
    "checking": {*LINES, "search", "sheet", "checking"},  # of the search only what it hands over
    "plane": {*BELOW, "sheet", "plane"},
    "path": {*BELOW, "checking", "sheet", "plane", "path"},
    "sampling": {*BELOW, "sheet", "plane", "sampling"},
    "solve": {*BELOW, "sheet", "plane", "path", "solve"},
    "practice": {*BELOW, "sheet", "plane", "path", "solve", "practice"},
    "table": {*BELOW, "sheet", "plane", "path", "sampling", "table"},
}
FOREIGN = {
    "flask",
    "sqlalchemy",
    "psycopg",
    "alembic",
    "time",
    "datetime",
    "os",
    "socket",
    "random",
}


def imported(file):
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            yield node.module or ""
            yield from (f"{node.module}.{alias.name}" for alias in node.names)


class Imports(Case):
    def test_the_core_knows_neither_web_nor_database_nor_clock(self):
        files = list((PACKAGE / "core").rglob("*.py"))
        self.assertGreater(len(files), 30)
        for file in files:
            for name in imported(file):
                self.assertNotIn(name.split(".")[0], FOREIGN, f"{file.name} imports {name}")
                if name.startswith("axispath."):
                    self.assertTrue(name.startswith("axispath.core"), f"{file.name}: {name}")

    def test_parts_of_the_core_import_only_what_lies_below_them(self):
        for part, allowed in ALLOWED.items():
            for file in (PACKAGE / "core" / part).rglob("*.py"):
                for name in imported(file):
                    if name.startswith("axispath.core."):
                        found = name.split(".")[2]
                        known = allowed | ANYWHERE
                        self.assertIn(found, known, f"{part}/{file.name} imports {name}")

    def test_the_checker_shares_nothing_with_the_searches(self):
        for file in (PACKAGE / "core" / "checking").rglob("*.py"):
            for name in imported(file):
                if name.startswith("axispath.core.search"):
                    self.assertIn("axispath.core.search.landmark", name, file)

    def test_the_store_knows_no_web(self):
        for file in (PACKAGE / "store").rglob("*.py"):
            for name in imported(file):
                self.assertFalse(name.startswith(("axispath.web", "flask")), f"{file}: {name}")
