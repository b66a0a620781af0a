"""Linear blocks with too few equations: what is determined, and all solutions."""

import random
import re
import unittest
from fractions import Fraction

import sympy

from axispath.core.equations.general import determined, every_solution
from axispath.core.equations.linear import LinearSystem, smallest, solved
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddBlock, apply
from axispath.core.sheet.resolve import resolve
from axispath.core.table.results.blocks import told
from tests.case import Case

NAMES = ("a", "b", "c", "d")


def systems(count):
    """Rows with the right-hand side last, of fewer equations than unknowns or of dependent ones."""
    lot = random.Random(31)
    for _ in range(count):
        size = lot.randint(2, 4)
        rows = [[lot.randint(-3, 3) for _ in range(size + 1)] for _ in range(lot.randint(1, size))]
        if lot.random() < 0.4:
            rows.append([sum(column) for column in zip(*rows, strict=True)])
        yield NAMES[:size], rows


class General(Case):
    def test_against_sympy(self):
        kinds = set()
        for names, rows in systems(300):
            letters = sympy.symbols(names)
            matrix = sympy.Matrix([row[:-1] for row in rows])
            every = sympy.linsolve((matrix, sympy.Matrix([row[-1] for row in rows])), *letters)
            exact = [tuple(map(Surd.of, row)) for row in rows]
            found = solved(LinearSystem(names, Grid(tuple(exact))))
            with self.subTest(rows=rows):
                if not every:
                    kinds.add("none")
                    self.assertEqual(found.kind, "none")
                    chosen = [rows[k] for k in smallest(exact, names)]
                    bare = sympy.Matrix([row[:-1] for row in chosen])
                    self.assertGreater(sympy.Matrix(chosen).rank(), bare.rank())
                    continue
                (place,) = every
                wanted = {n: v for n, v in zip(names, place, strict=True) if v.is_number}
                self.assertEqual(
                    {name: value.rational for name, value in determined(found).items()},
                    {name: Fraction(int(v.p), int(v.q)) for name, v in wanted.items()},
                )
                if len(wanted) < len(names):
                    kinds.add("many")
                    self.check(found, names, rows)
        self.assertEqual(kinds, {"none", "many"})

    def check(self, found, names, rows):
        """Whatever the free ones are, the equations hold."""
        words = every_solution(found)
        *said, free = words.split("; ")
        given = re.findall(r"[a-d]\b", free.removesuffix("may be anything"))
        for start in (1, -7):
            values = {name: value.rational for name, value in determined(found).items()}
            values |= {name: Fraction(start + 3 * k) for k, name in enumerate(given)}
            for one in said:
                name, _, text = one.partition(" = ")
                plain = re.sub(r"(\d) ([a-d])", r"\1*\2", text.replace("−", "-"))
                plain = re.sub(r"\b(\d+)\b", r"Fraction(\1)", plain)
                values[name] = eval(plain, {"Fraction": Fraction, **values})
            for row in rows:
                left = sum(row[k] * values[name] for k, name in enumerate(names))
                self.assertEqual(left, row[-1], words)

    def block(self, *lines):
        document = apply(Document(), AddBlock(text="\n".join(lines)))
        (lane,) = [lane for lane in resolve(document) if lane.lane.block is not None]
        (group,) = told(document, lane).groups
        shown = {row.name: row.cells[0].shown for row in group.rows if any(row.cells)}
        return shown, [trouble.words for trouble in group.troubles]

    def test_what_is_determined_is_answered(self):
        shown, troubles = self.block("a + b = 5", "a + b + c = 7")
        self.assertEqual(shown, {"c": "2"})
        self.assertIn("All solutions: a = 5 − b; b may be anything", troubles[0])
        shown, troubles = self.block("p + q = 5 km", "p + q + w = 7 km")
        self.assertEqual(shown, {"w": "2 km"})
        shown, troubles = self.block("2a + b = 3", "b = 3 - 2a")
        self.assertEqual(shown, {})
        self.assertIn("a = 3/2 − b/2", troubles[0])

    def test_what_contradicts_is_not_called_too_few(self):
        _, troubles = self.block("a + b + c = 5", "a + b + c = 6")
        self.assertEqual(troubles, ["equations 1 and 2 contradict each other"])

    def test_what_is_not_linear_is_too_few_all_the_same(self):
        shown, troubles = self.block("a b = c", "a + b = 2")
        self.assertEqual(shown, {})
        self.assertIn("too few", troubles[0])


if __name__ == "__main__":
    unittest.main()
