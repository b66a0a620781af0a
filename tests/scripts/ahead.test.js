/** What is asked ahead of the hand: never the wrong state, and single answers where none comes. */
import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

import { Time, promised, settled } from "./page.js";

const time = new Time().install();
const { Ahead } = await import("../../axispath/web/static/js/sheet/ahead.js");
const { Trouble } = await import("../../axispath/web/static/js/sheet/api.js");

const state = (value) => [{ do: "slide", id: "a", value }];
let at, requests, ahead;

beforeEach(() => {
  requests = [];
  at = {
    plot: { view: { chosen: true }, size: { width: 700, height: 400 } },
    session: { key: "k", state: { head: 1 } },
    temporary: { edits: [] },
    asking: { only: { low: "", high: "", along: false, unfolded: [] } },
    sliders: { coming: () => [1, 2, 3, 4, 5, 6, 7, 8].map((value) => ({ slides: state(value), beat: value })) },
  };
  const fetch = (states) => {
    const one = { states, ...promised() };
    requests.push(one);
    return one.promise;
  };
  ahead = new Ahead(at, { fetch, weigh: () => 1, arrived() {}, kept: 5, beats: 1, first: 4, most: 16, running: 2 });
});

const answered = async (request, count = request.states.length) => {
  request.keep(request.states.slice(0, count).map(([slide]) => `picture of ${slide.value}`));
  await settled();
};

test("one request brings many, and each is found by its very state", async () => {
  assert.equal(ahead.foresee(state(1)), true);
  assert.deepEqual(requests[0].states.map(([slide]) => slide.value), [1, 2, 3, 4]);
  assert.equal(ahead.find(state(1)), null);
  await answered(requests[0]);
  assert.equal(ahead.find(state(3)), "picture of 3");
  assert.equal(ahead.find(state(7)), null);
  assert.equal(ahead.find(state(7), [state(2)]), "picture of 2");
});

test("a server that gives few at a time is asked for few", async () => {
  ahead.foresee(state(1));
  await answered(requests[0], 2);
  assert.equal(ahead.most, 2);
  assert.equal(ahead.find(state(2)), "picture of 2");
  assert.equal(ahead.settled(state(3)), false);
});

test("what was asked of another view is not taken for this one", async () => {
  ahead.foresee(state(1));
  at.plot.view = { chosen: true, left: 2 };
  await answered(requests[0]);
  assert.equal(ahead.find(state(1)), null);
});

test("only so much is kept, the oldest goes first", async () => {
  ahead.foresee(state(1));
  await answered(requests[0]);
  ahead.foresee(state(5));
  await answered(requests[1]);
  assert.equal(ahead.find(state(1)), null);
  assert.equal(ahead.find(state(8)), "picture of 8");
});

test("after a failure single answers are asked for, however long it took to fail", async () => {
  ahead.foresee(state(1));
  await time.pass(4000);
  requests[0].fail(new Trouble("trouble", "no such thing"));
  await settled();
  assert.equal(ahead.foresee(state(1)), false);
  assert.equal(requests.length, 1);
  await time.pass(2000);
  assert.equal(ahead.foresee(state(1)), true);
  assert.equal(requests.length, 2);
});
