"""The pinned lists: what runs is what is tested."""

import re
from pathlib import Path

from tests.case import Case

LISTS = Path(__file__).resolve().parents[2] / "requirements"


def pins(name):
    return dict(re.findall(r"^([a-z0-9.\-]+)==(\S+)", (LISTS / name).read_text(), flags=re.M))


def asked(name):
    lines = (line.split("[")[0].strip().lower() for line in (LISTS / name).read_text().splitlines())
    return {line for line in lines if line and not line.startswith(("-", "#"))}


class Requirements(Case):
    def test_the_test_list_holds_the_run_list(self):
        self.assertLessEqual(pins("run.txt").items(), pins("test.txt").items())

    def test_everything_asked_for_is_pinned_with_a_hash(self):
        for name in ("run", "test"):
            self.assertLessEqual(asked(f"{name}.in"), set(pins(f"{name}.txt")), name)
            text = (LISTS / f"{name}.txt").read_text()
            for block in re.split(r"\n(?=[a-z])", text[re.search(r"^[a-z]", text, re.M).start() :]):
                self.assertIn("--hash=sha256:", block)
