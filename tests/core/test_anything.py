"""Whatever is combined with whatever on a line of calculation: a result, or a sentence."""

import random
import unittest

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.quantities.values import NoResult
from axispath.core.sheet.document import Document, Written
from axispath.core.sheet.scopes import COMPLEX
from axispath.core.table.results.copies import as_csv, as_latex
from axispath.core.table.results.result import shown
from tests.case import Case

SCOPE = Scope(COMPLEX).with_values(("x",))
VALUES = (
    *("0", "1", "-1", "2", "1/2", "√2", "π", "e", "i", "2 - 5i", "-7/3", "10^20", "10^-20"),
    *("[1, 2, 3]", "[]", "[0]", "[1, i]", "[1/0, 2]", "[1, 2; 3, 4]", "[1, 2; 2, 4]", "[1; 2]"),
    *("[1, 2, 3; 4, 5, 6]", "[e, 1; 1, e]", "[i, 1; 0, √2]", "(1 if 1 > 2)", "[1 to 3]", "100!"),
    *("e^100", "sin(3)", "ln(2)", "√(-2)", "roots(3, 1)", "random(3, 3, 1)"),
)
RUNNING = (
    "integral({} for x = {} to {})",
    "limit({} for x to {})",
    "derivative({} for x = {})",
    "taylor({} for x = {}, 3)",
    "zeros({} for x)",
    "sum({} for x = 1 to 4)",
)
BODIES = ("x", "x^2", "sin x", "1/x", "√x", "|x|", "e^x", "ln x", "(x - 1)/(x^2 - 1)")
ENDS = ("0", "1", "-1", "2", "π", "∞", "-∞", "i")
WORDS = [word for word in catalogue.VOCABULARY.functions.values() if not word.runs]
LINES = 1_500


def made(draw, depth):
    if depth == 0 or draw.random() < 0.25:
        return draw.choice(VALUES)
    part = [made(draw, depth - 1) for _ in range(5)]
    kind = draw.random()
    if kind < 0.4:
        word = draw.choice(WORDS)
        return f"{word.name}({', '.join(part[: max(len(word.arguments), 1)])})"
    if kind < 0.75:
        return f"({part[0]} {draw.choice('+-·/^∘')} {part[1]})"
    if kind < 0.8:
        return f"({part[0]})^T"
    if kind < 0.85:
        return f"({part[0]})[{draw.choice(('1', '2', '1, 1', '1 to 2', '[1, 2], 1'))}]"
    ends = draw.choice(ENDS), draw.choice(ENDS)
    return draw.choice(RUNNING).format(draw.choice(BODIES), *ends)


class Anything(Case):
    def test_it_has_a_result_or_a_sentence(self):
        draw = random.Random(7)
        answered = 0
        for _ in range(LINES):
            line = made(draw, 3)
            with self.subTest(line):
                try:
                    tree = parse_expression(line, SCOPE)
                    found = Calculator({}, draw.choice(list(AngleUnit))).result(tree)
                except (LanguageError, NoResult) as reason:
                    self.assertTrue(str(reason))
                    continue
                for form in ("", "polar", "exact", "decimal", "mixed"):
                    result = shown(found, Document(), Written(form=form))
                    self.assertTrue(result.text)
                    as_csv(result)
                    as_latex(result)
                answered += 1
        self.assertGreater(answered, LINES / 10)


if __name__ == "__main__":
    unittest.main()
