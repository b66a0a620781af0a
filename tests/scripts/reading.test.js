/** The Reading card: what was asked of one lane is asked again when the lane becomes known. */
import assert from "node:assert/strict";
import { test } from "node:test";

import { Time, settled } from "./page.js";

const time = new Time().install();
const { readingPart } = await import("../../axispath/web/static/js/desk/reading.js");

test("a tangent that was wanted before the lanes were known comes when they are", async () => {
  const asked = [];
  globalThis.fetch = async (path, { body }) => {
    const wanted = JSON.parse(body);
    asked.push(wanted.tangent);
    const tangent = wanted.tangent && { at: {}, words: "y = 2 x − 1", line: "y = 2 x - 1" };
    return { ok: true, json: async () => ({ x: 1, shown: "1", rows: [{ id: "f", y: 1, heldY: null, colour: 0 }], tangent }) };
  };
  const at = {
    events: { on() {}, tell() {} },
    plot: { reading: 1, held: null, area: null, readingPoints: [], tangent: null, ask() {} },
    session: { key: "k", state: { head: 1 } },
    sliders: { edits: () => [] },
    lanes: { showReading() {} },
    acts: {},
    redraw() {},
    remember() {},
  };
  const part = readingPart(at);
  part.toggleTangent();
  await time.pass(500);
  await settled();
  assert.deepEqual(asked, ["", "f"]);
  assert.equal(part.tangentWords, "y = 2 x − 1");
});
