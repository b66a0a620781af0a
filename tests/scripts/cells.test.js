/** Blocks of cells that are pasted, told from lines. */
import assert from "node:assert/strict";
import { test } from "node:test";

const { isBlock } = await import("../../axispath/web/static/js/sheet/cells.js");

test("rows of numbers are a block, with heads and without, whatever stands between", () => {
  for (const text of [
    "0\t20.1\n1\t20.4\n2\t20.9",
    "hours\tdepth\n0\t20.1\n1\t20.4",
    "0;20,1\r\n1;20,4\r\n",
    "1 2\n3 4",
    "1\n2\n3\n4",
    "2,5\n3,5",
    "-1\t1e5\n−2\t3.5e-3",
    "time level\n0 1\n1 4",
    "1, 2\n3, 4",
  ]) {
    assert.ok(isBlock(text), text);
  }
});

test("lines, and a single row, are none", () => {
  for (const text of ["x^2\n2x + 1", "a = 2\nb = 3", "1 2 3", "(1, 2)\n(3, 4)", "f(x) = 2\n3", "y = 2\n4\n5", "", "sin x\n1\n2", "1\t2\nx\t3"]) {
    assert.ok(!isBlock(text), text);
  }
});
