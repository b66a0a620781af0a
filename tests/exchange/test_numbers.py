"""Lists of numbers as spreadsheets and instruments write them."""

from hypothesis import given
from hypothesis import strategies as st

from axispath.core.sheet.refused import EditRefused
from axispath.exchange.numbers import numbers_from
from tests.case import Case


class FromFiles(Case):
    def test_the_habits_of_files(self):
        for text, wanted in (
            ("1\n2\n3", ["1", "2", "3"]),
            ("\ufeffx;y\r\n0,5;1\r\n1,5;2\r\n", ["0.5", "1.5"]),
            ("x,f(x)\r\n0,1\r\n0.5,2\r\n", ["0", "0.5"]),
            ("0,5\n1,25\n", ["0.5", "1.25"]),
            ("1, 2, 3", ["1", "2", "3"]),
            ("hours\tdepth\n0\t2\n6\t3\n", ["0", "6"]),
            ('"x"\n"1"\n"2"', ["1", "2"]),
            ("−1\n+2\n3e-2", ["-1", "2", "0.03"]),
        ):
            with self.subTest(text):
                self.assertEqual(numbers_from(text), wanted)

    def test_what_is_no_list_gets_a_sentence(self):
        for text, told in (
            ("", "no numbers"),
            ("low tide", "not a number"),
            ("x\n1\nhigh\n", "Line 3 has “high”"),
            ("\n".join(["1"] * 6000), "6000 numbers"),
        ):
            with self.subTest(text[:20]), self.assertRaisesRegex(EditRefused, told):
                numbers_from(text)

    @given(st.lists(st.floats(allow_nan=False, allow_infinity=False), min_size=2, max_size=30))
    def test_full_precision_survives(self, values):
        text = "x\r\n" + "\r\n".join(repr(v) for v in values) + "\r\n"
        self.assertEqual([float(t) for t in numbers_from(text)], [v + 0.0 for v in values])
