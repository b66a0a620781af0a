"""The handbook is searched by stems, by several words, by words alike, and by signs."""

import re
import unittest

from tests.web.test_web import WebTest

# What people ask for, and a function, or a heading, that has to be among the answers.
ASKED = {
    "round down": "function-floor",
    "largest whole number below": "function-floor",
    "integer": "function-floor",
    "average": "function-mean",
    "averages": "function-mean",
    "rounding": "function-round",
    "binomial coefficients": "function-binomial",
    "combinations": "function-binomial",
    "remainder": "function-mod",
    "standard deviation": "function-deviation",
    "cube root": "function-cbrt",
    "√": "function-sqrt",
    "how do I solve an equation": ">Solve",
    "slope of tangent": "angent",
    "best fit": "fit",
    "regression": "fit",
    "shade an area": "area",
    "turning points": "turning points",
    "piecewise": "otherwise",
    "sliders": "slider",
    "matrices": "matrix",
    "tables": "able",
}


class Handbook(WebTest):
    def found(self, query):
        page = self.client.get("/handbook", query_string={"q": query})
        self.assertEqual(page.status_code, 200)
        return page.text.partition('<form class="search"')[2].partition("</form>")[2]

    def test_what_people_ask_for_is_found(self):
        for query, wanted in ASKED.items():
            with self.subTest(query):
                page = self.found(query)
                self.assertNotIn("Nothing here has to do", page)
                self.assertIn(wanted, page)

    def test_all_words_count(self):
        names = re.findall(r'id="function-(\w+)"', self.found("cube root"))
        self.assertIn("cbrt", names)
        self.assertLess(len(names), 4)

    def test_nothing_is_found_for_nonsense_and_nothing_breaks(self):
        for query in ("zzyzx", "'", "\\", "(((", "a & b | !c", ":*", "%", "<script>", "the of and"):
            with self.subTest(query):
                self.found(query)
        self.assertIn("Nothing here has to do", self.found("zzyzx"))


if __name__ == "__main__":
    unittest.main()
