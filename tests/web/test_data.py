"""Files and data sets through the wall: what is refused, what is kept once, what comes back."""

import csv
import datetime
import io
import zipfile

import numpy as np
import openpyxl
from sqlalchemy import func, select

from axispath.exchange.data.opened import opened
from axispath.store.models import Content, Revision, SheetContent
from axispath.store.tidying import tidy
from tests.web.test_web import WebTest

ROWS = 3000
LONG_AGO = datetime.datetime(2026, 1, 1, tzinfo=datetime.UTC)


def text_of(rows):
    return "hours,depth\n" + "\n".join(f"{k},{k * 0.25 + 1}" for k in range(rows))


class Files(WebTest):
    def upload(self, data, key="blank", head=0, **more):
        query = "&".join(f"{k}={v}" for k, v in {"head": head, "name": "log.csv", **more}.items())
        return self.client.post(
            f"/api/sheets/{key}/data/open?{query}",
            data=data,
            content_type="application/octet-stream",
            headers={"X-CSRFToken": self.token},
        )

    def test_what_is_no_table_is_refused_with_a_sentence(self):
        swollen = io.BytesIO()
        with zipfile.ZipFile(swollen, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr("xl/workbook.xml", b"0" * (30 << 20))
        other = io.BytesIO()
        with zipfile.ZipFile(other, "w") as packed:
            packed.writestr("letter.txt", "no spreadsheet")
        wide = ",".join(f"c{k}" for k in range(1000)) + "\n" + ",".join("1" * 1000)
        for data, told in (
            (b"", "empty"),
            (b"\x89PNG\r\n\x1a\n\x00\x00", "neither text nor a spreadsheet"),
            (b"PK\x03\x04rest", "damaged"),
            (swollen.getvalue(), "unpacks to far more"),
            (other.getvalue(), "no spreadsheet"),
            (b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + b"x" * 600, "old kind"),
            (wide.encode(), "1000 columns"),
            (b"only\nwords\n", "no number"),
            (b"a_1,b_1\n" + b"1,2\n" * 100_001, "100000 rows"),
        ):
            with self.subTest(told):
                answer = self.upload(data)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(told, answer.json["message"])
        answer = self.upload(b"1" * (21 << 20))
        self.assertIn(answer.status_code, (413, 422))

    def test_looking_changes_nothing_and_keeping_makes_a_sheet(self):
        looked = self.upload(text_of(5).encode())
        self.assertEqual(looked.status_code, 200)
        self.assertIn("5 rows, 2 columns", looked.json["html"])
        made = self.upload(text_of(ROWS).encode(), keep=1)
        self.assertEqual(made.status_code, 200)
        key, head = made.json["id"], made.json["head"]
        sheet = self.client.get(f"/api/sheets/{key}").json
        self.assertEqual([lane["kind"] for lane in sheet["lanes"]], ["data"])
        again = self.upload(b"1 2\n3 4", key=key, head=head - 1, keep=1)
        self.assertEqual(again.status_code, 409)

    def test_long_columns_are_kept_once_and_go_with_their_sheets(self):
        made = self.upload(text_of(ROWS).encode(), keep=1).json
        key, head = made["id"], made["head"]
        data = self.client.get(f"/api/sheets/{key}").json["lanes"][0]["id"]
        view = {"left": 0, "right": 10, "bottom": 0, "top": 10}
        for k in range(3):
            edit = {"do": "name data", "id": data, "name": f"log {k}"}
            answer = self.post(f"/sheets/{key}/edits", {"base": head, "edits": [edit]})
            head = answer.json["head"]
        store = self.app.extensions["store"]
        with store.transaction() as session:
            self.assertEqual(session.scalar(select(func.count()).select_from(Content)), 2)
            bodies = session.scalars(select(Revision.body).where(Revision.sheet_id == key)).all()
            self.assertLess(sum(map(len, bodies)), 4000)
        rows = self.post(
            f"/sheets/{key}/data",
            {"head": head, "view": view, "data": data, "first": 2990, "count": 50},
        ).json
        self.assertEqual((rows["rows"], len(rows["cells"])), (ROWS, 10))
        self.assertEqual(rows["cells"][-1], ["2999", "750.75"])
        for wanted in ("csv", "xlsx"):
            asked = {"head": head, "data": data, "format": wanted}
            answer = self.post(f"/sheets/{key}/data/file", asked)
            self.assertEqual(answer.status_code, 200)
            again = opened(answer.data, 0, ()).read
            np.testing.assert_array_equal(again.columns[1].cells.values[:4], [1, 1.25, 1.5, 1.75])
            self.assertEqual(again.rows, ROWS)
        text = self.post(f"/sheets/{key}/data/file", {"head": head, "data": data}).text
        table = list(csv.reader(io.StringIO(text)))
        self.assertEqual(table[0], ["hours", "depth"])
        self.assertEqual(len(openpyxl.load_workbook(io.BytesIO(answer.data)).active["A"]), ROWS + 1)
        with store.transaction() as session:
            session.execute(SheetContent.__table__.delete())
            session.execute(Content.__table__.update().values(created=LONG_AGO))
        tidy(store)
        with store.transaction() as session:
            self.assertEqual(session.scalar(select(func.count()).select_from(Content)), 0)

    def test_a_prediction_and_the_panel(self):
        made = self.upload(text_of(30).encode(), keep=1).json
        key, head = made["id"], made["head"]
        data = self.client.get(f"/api/sheets/{key}").json["lanes"][0]["id"]
        fit = {"do": "add fit", "data": data, "x": "hours", "y": "depth", "id": "fit1"}
        state = self.post(f"/sheets/{key}/edits", {"base": head, "edits": [fit]}).json
        asked = {"head": state["head"], "lane": "fit1", "typed": "40/2"}
        found = self.post(f"/sheets/{key}/data/predict", asked).json
        self.assertTrue(found["words"].startswith("fit(20) = 6."))
        view = {"left": 0, "right": 10, "bottom": 0, "top": 10}
        page = self.post(f"/sheets/{key}/data", {"head": state["head"], "view": view}).json
        self.assertIn("sum of squares", page["html"])
        self.assertIn("correlation 1", page["html"])

    def test_fits_with_as_many_points_as_coefficients_have_a_panel(self):
        models = [{"model": "line"}, *({"model": "polynomial", "degree": d} for d in range(1, 6))]
        for fitted in (*models, {"model": "exponential"}, {"model": "power"}):
            count = {"polynomial": fitted.get("degree", 1) + 1}.get(fitted["model"], 2)
            with self.subTest(fitted, count=count):
                rows = "\n".join(f"{k + 1},{(k + 1) ** 2 + 1}" for k in range(count))
                made = self.upload(f"hours,depth\n{rows}\n".encode(), keep=1).json
                key, view = made["id"], {"left": 0, "right": 10, "bottom": 0, "top": 10}
                data = self.client.get(f"/api/sheets/{key}").json["lanes"][0]["id"]
                fit = {"do": "add fit", "data": data, "x": "hours", "y": "depth", **fitted}
                body = {"base": made["head"], "edits": [fit]}
                answer = self.post(f"/sheets/{key}/edits", body)
                self.assertEqual(answer.status_code, 200, answer.text)
                asked = {"head": answer.json["head"], "view": view}
                shown = self.post(f"/sheets/{key}/data", asked)
                self.assertEqual(shown.status_code, 200, shown.text[:300])
                self.assertNotIn("nan", shown.json["html"])
                self.assertIn("as many points as coefficients", shown.json["html"].lower())
