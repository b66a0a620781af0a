/** Who is asked next: everything that a person asked, of what is asked by itself only the latest. */
import assert from "node:assert/strict";
import { test } from "node:test";

import { Time, promised, settled } from "./page.js";

new Time().install();
const { Queue, Standing, quietly } = await import("../../axispath/web/static/js/sheet/queue.js");
const { Trouble } = await import("../../axispath/web/static/js/sheet/api.js");

/** A queue whose work waits for the test, and the names of what was begun. */
function watched() {
  const queue = new Queue();
  const begun = [];
  const gates = new Map();
  const work = (name) => () => {
    const gate = promised();
    begun.push(name);
    gates.set(name, gate);
    return gate.promise;
  };
  const end = async (name) => {
    gates.get(name).keep();
    await settled();
  };
  return { queue, begun, work, end, gates };
}

test("one at a time, and of what is asked by itself the latest alone", async () => {
  const { queue, begun, work, end } = watched();
  for (const name of ["first", "second", "third"]) queue.run(work(name));
  assert.deepEqual(begun, ["first"]);
  await end("first");
  assert.deepEqual(begun, ["first", "third"]);
  await end("third");
  assert.deepEqual(begun, ["first", "third"]);
});

test("what a person asked is done in order, all of it, and before what is asked by itself", async () => {
  const { queue, begun, work, end } = watched();
  queue.run(work("itself"));
  queue.ask(work("hand 1"));
  queue.run(work("later"));
  queue.ask(work("hand 2"));
  queue.run(work("latest"));
  for (const name of ["itself", "hand 1", "hand 2", "latest"]) {
    assert.equal(begun.at(-1), name);
    await end(name);
  }
  assert.deepEqual(begun, ["itself", "hand 1", "hand 2", "latest"]);
});

test("work that fails holds nobody up", async () => {
  const { queue, begun, work, gates } = watched();
  const first = queue.ask(work("fails"));
  queue.ask(work("goes on"));
  gates.get("fails").fail(new Error("no"));
  await assert.rejects(first, /no/);
  assert.deepEqual(begun, ["fails", "goes on"]);
});

test("only the answer to the last question stands", () => {
  const standing = new Standing();
  const [first, second] = [standing.ask(), standing.ask()];
  const follows = standing.follow();
  assert.deepEqual([first(), second(), follows()], [false, true, true]);
  standing.ask();
  assert.deepEqual([second(), follows()], [false, false]);
});

test("a server that says no is no fault of the page, and everything else is", async () => {
  await quietly(() => Promise.reject(new Trouble("offline", "away")));
  await assert.rejects(
    quietly(() => Promise.reject(new TypeError("a mistake"))),
    /a mistake/,
  );
});

test("what follows a movement is not asked for when nothing moves any more", async () => {
  const { Asking } = await import("../../axispath/web/static/js/sheet/asking.js");
  const asked = [];
  globalThis.fetch = async (path, { body }) => {
    asked.push(JSON.parse(body));
    return { ok: true, json: async () => ({ goesOn: false }) };
  };
  const at = {
    preview: [{ do: "slide" }],
    coming: Promise.resolve(),
    session: { key: "k", state: { head: 1 } },
    plot: { view: {} },
    events: { tell() {} },
    showPaths() {},
    landmarks: { askExact: async () => ({ late: false }) },
  };
  const asking = new Asking(at);
  await settled();
  await asking.path({ moving: true });
  assert.deepEqual(asked.map(({ moving }) => moving), [true]);
  at.preview = [];
  await asking.path();
  await asking.path({ moving: true });
  assert.deepEqual(asked.map(({ moving }) => moving), [true, undefined]);
});
