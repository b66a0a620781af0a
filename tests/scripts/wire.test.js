/** Pictures as they come: what the server packs is what the page unpacks. */
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";

const { unpacked } = await import("../../axispath/web/static/js/drawing/wire.js");

/** As a server packs: a length, a head whose end is padded, and numbers. */
function packed(head, numbers) {
  let text = JSON.stringify(head);
  while ((4 + text.length) % 4) text += " ";
  const data = new ArrayBuffer(4 + text.length + 4 * numbers.length);
  new DataView(data).setUint32(0, text.length, true);
  new Uint8Array(data, 4, text.length).set(new TextEncoder().encode(text));
  new Float32Array(data, 4 + text.length).set(numbers);
  return data;
}

test("each shape has its own numbers, and keeps what else is said of it", () => {
  const head = { view: { left: 1 }, lanes: [{ id: "f", shapes: [{ is: "stroke", at: [0, 4] }, { is: "dot", at: [4, 2] }] }] };
  const { lanes } = unpacked(packed(head, [0.5, 1, 0.25, 2, 7, 8]));
  assert.deepEqual(lanes[0].shapes.map(({ is, rows }) => [is, [...rows]]), [["stroke", [0.5, 1, 0.25, 2]], ["dot", [7, 8]]]);
  assert.ok(!("at" in lanes[0].shapes[0]));
});

test("further lanes of the same answer are filled from the same numbers", () => {
  const { filled } = unpacked(packed({ lanes: [] }, [1, 2, 3]));
  assert.deepEqual([...filled([{ id: "g", shapes: [{ at: [1, 2] }] }])[0].shapes[0].rows], [2, 3]);
});

test("an answer of the server itself", () => {
  const sample = process.env.AXISPATH_PICTURE;
  assert.ok(sample, "the test that runs this one makes a picture");
  const file = readFileSync(sample);
  const { head, lanes } = unpacked(file.buffer.slice(file.byteOffset, file.byteOffset + file.length));
  assert.deepEqual(head.view, { left: -10, right: 10, bottom: -7, top: 7 });
  const { rows } = lanes[0].shapes.find(({ rows: numbers }) => numbers.length >= 4);
  // The line y = x, in parts of the view from left to right and from bottom to top.
  for (let k = 0; k < rows.length; k += 2) assert.ok(Math.abs(-10 + 20 * rows[k] - (-7 + 14 * rows[k + 1])) < 1e-4);
});
