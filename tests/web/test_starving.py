"""One guest who asks for too much: refused or answered, while everybody else is served."""

import os
import threading
from pathlib import Path

from tests.browser.harness import running_server
from tests.case import Case
from tests.database import empty_store
from tests.guest import Guest

VIEW = {"left": -10, "right": 10, "bottom": -7, "top": 7}
SIZE = {"width": 700, "height": 500}
NESTED = "sin(" * 24 + "x" + ")" * 24
MANY = [
    *(f"a{k} = {k}" for k in range(50)),
    *(f"h{k}(x) = x + " + " + ".join(f"a{j}" for j in range(50)) for k in range(16)),
]
TABLE = {"id": "table1", "start": "1", "stop": "11", "step": "0.0002", "columns": ["f(x)"]}
ROWS = {"preview": [{"do": "set table", "table": TABLE}], "table": "table1"}
HEAVY = (
    ("path", VIEW, [f"sum(sin(k x + {c}) for k = 1 to 1150)" for c in range(4)], {}),
    ("picture", VIEW, [f"sum(sin(k x + {c}) for k = 1 to 1150)" for c in range(4)], SIZE),
    ("path", VIEW, [f"f(x) = {NESTED}", "g(x) = f''''(x)"], {}),
    ("values.text", None, ["f(x) = polygamma(20, x)"], ROWS),
    ("path", VIEW, ["f(x) = gamma(gamma(gamma(x)))", "sin(1/sin(1/x))"], {"longer": True}),
)


class Starving(Case):
    @classmethod
    def setUpClass(cls):
        empty_store().engine.dispose()
        cls.server = running_server(False)

    def guest(self, *lines):
        guest = Guest(self.server.port)
        sheet = self.begin(guest, *lines)
        return guest, sheet

    def begin(self, guest, *lines):
        """A sheet with lines, each put there by itself; those refused are left out."""
        body = {"source": "blank", "edits": [{"do": "rename", "name": "Tides"}]}
        sheet = guest.until(200, lambda: guest.post("/sheets", body))[1]
        for line in lines:
            edits = {"base": sheet["head"], "edits": [{"do": "add lane", "text": line}]}
            status, told, _ = guest.post(f"/sheets/{sheet['id']}/edits", edits)
            self.assertIn(status, (200, 422, 429), told)
            sheet = told if status == 200 else sheet
        return sheet

    def test_others_are_served_while_one_asks_for_too_much(self):
        other, tides = self.guest("f(x) = x^2 - 2", "a = 1")
        heavy = Guest(self.server.port)
        asked = []
        for what, view, lines, more in HEAVY:
            sheet = self.begin(heavy, *lines)
            body = {"head": sheet["head"], **({"view": view} if view else {}), **more}
            asked.append((f"/sheets/{sheet['id']}/{what}", body))
        ends = []

        def ask(path, body):
            ends.append(heavy.post(path, body, raw=True)[0])

        threads = [threading.Thread(target=ask, args=one) for one in [*asked, *asked[:2]]]
        for thread in threads:
            thread.start()
        # What is wanted of everybody else goes through before the heavy ones are done.
        done = 0
        while any(thread.is_alive() for thread in threads) and done < 12:
            self.assertEqual(other.get(f"/sheet/{tides['id']}")[0], 200)
            look = {"head": tides["head"], "view": {**VIEW, "left": -10 - done}}
            path = f"/sheets/{tides['id']}"
            self.assertEqual(other.post(f"{path}/picture", {**look, **SIZE}, raw=True)[0], 200)
            self.assertEqual(other.post(f"{path}/path", look, raw=True)[0], 200)
            note = {"do": "set note", "id": tides["lanes"][0]["id"], "note": str(done)}
            body = {"base": tides["head"], "edits": [note]}
            status, tides, _ = other.post(f"{path}/edits", body)
            self.assertEqual(status, 200)
            done += 1
        self.assertGreaterEqual(done, 3)
        for thread in threads:
            thread.join()
        self.assertEqual(len(ends), len(threads))
        self.assertLessEqual(set(ends), {200, 422, 429})
        self.assertLess(self.largest(), 400 << 20)

    def test_a_sheet_that_takes_too_much_opens_and_can_be_mended(self):
        guest, sheet = self.guest(*MANY)
        status, page, _ = guest.get(f"/sheet/{sheet['id']}")
        self.assertEqual(status, 200)
        self.assertEqual(page.count('class="lane '), len(sheet["lanes"]))
        edits = [{"do": "remove lane", "id": sheet["lanes"][-1]["id"]}]
        body = {"base": sheet["head"], "edits": edits}
        status, found, _ = guest.post(f"/sheets/{sheet['id']}/edits", body)
        self.assertEqual(status, 200, found)
        self.assertEqual(len(found["lanes"]), len(sheet["lanes"]) - 1)

    def largest(self):
        """Bytes of the largest process of the server."""
        page = os.sysconf("SC_PAGE_SIZE")
        pids = [program.process.pid for program in self.server.programs]
        sizes = []
        while pids:
            pid = pids.pop()
            try:
                sizes.append(int(Path(f"/proc/{pid}/statm").read_text().split()[1]) * page)
                for task in Path(f"/proc/{pid}/task").iterdir():
                    pids += map(int, (task / "children").read_text().split())
            except OSError:
                continue
        return max(sizes)
